'use client';

import { useMemo, useState } from 'react';
import { benchSpans, WEEKDAYS } from '@/core/time/benchWindows';
import { shortTime } from '@/core/time/dayNames';
import { toWallTime, wallMinutes, weekdayOf } from '@/core/time/wallTime';
import { climateOf } from '@/core/cure/conditions';
import { placeUse, type PlaceUse } from '@/core/schedule/placeUse';
import type { PlannedStep, SchedulePlan, ScheduleRequest } from '@/core/schedule/scheduleRequest';
import type { CalendarBatch } from '@/core/schedule/workplace';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Toggles } from '@/ui/controls/Toggles';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useWidth } from '@/ui/useWidth';
import { batchColours } from './batchColours';
import styles from './TrueTime.module.css';

interface TrueTimeProps {
  request: ScheduleRequest;
  plan: SchedulePlan;
  batches: readonly CalendarBatch[];
}

const NEAR = [
  { value: 'all', label: 'all of it', dayPx: 0 },
  { value: 'days', label: 'days', dayPx: 150 },
  { value: 'hours', label: 'hours', dayPx: 720 },
] as const;
const LEFT = 150;
const HEAD = 64;
const ROW = 46;
const PLACE = 58;

/** The same plan on a ruler of true time: how warm the room is, what is wet, and how full each place is. */
export function TrueTime({ request, plan, batches }: TrueTimeProps) {
  const [box, boxWidth] = useWidth(1180, 'trueTime');
  const [near, setNear] = useState<(typeof NEAR)[number]['value']>('all');
  const units = useUnits();
  const colours = useMemo(() => batchColours(batches), [batches]);
  const uses = useMemo(() => placeUse(request, plan), [request, plan]);
  const from =
    Math.floor(Math.min(wallMinutes(request.now), ...plan.steps.map((step) => wallMinutes(step.from))) / 1440) * 1440;
  const to =
    Math.max(wallMinutes(plan.readyAt ?? request.now), ...plan.steps.map((step) => wallMinutes(step.to))) + 480;
  const dayPx = NEAR.find(({ value }) => value === near)!.dayPx;
  const width = dayPx === 0 ? Math.max(400, boxWidth) : LEFT + ((to - from) / 1440) * dayPx;
  const x = (minutes: number): number => LEFT + ((minutes - from) / (to - from)) * (width - LEFT - 8);
  const perDay = x(from + 1440) - x(from);
  const rows = request.batches;
  const placesTop = HEAD + rows.length * ROW + 14;
  const height = placesTop + uses.length * PLACE + 8;
  const climate = useMemo(() => climateOf(request.conditions, from, to, []), [request.conditions, from, to]);
  const room = Array.from({ length: Math.ceil((to - from) / 120) + 1 }, (_, i) => from + i * 120).map((at) => ({
    at,
    c: climate.roomAt(at).temperatureC,
  }));
  const [coldest, warmest] = [Math.min(...room.map(({ c }) => c)), Math.max(...room.map(({ c }) => c))];
  const roomY = (c: number): number => 46 - (warmest === coldest ? 8 : ((c - coldest) / (warmest - coldest)) * 16);
  const degrees = (c: number): string => formatMeasure(c, 'temperature', units);
  const days = Array.from({ length: Math.ceil((to - from) / 1440) }, (_, i) => from + i * 1440);
  return (
    <section aria-label="True time and places">
      <div className={styles.bar}>
        <p className={styles.soft}>
          Columns are bench time, bands are water that is wet or setting, ticks are work. The room:{' '}
          {coldest === warmest ? degrees(coldest) : `${degrees(coldest)} to ${degrees(warmest)}`}.
        </p>
        <Toggles label="How near" value={near} choices={NEAR} onChoose={setNear} />
      </div>
      <div ref={box} className={styles.scroll} tabIndex={0} role="group" aria-label="Ruler of true time">
        <svg width={width} height={height} role="img" aria-label={rulerWords(request, plan, uses)}>
          {benchSpans(request.makers[0]!.windows, from, to, request.makers[0]!.exceptions).map((span) => (
            <rect
              key={span.from}
              className={styles.window}
              x={x(span.from)}
              width={Math.max(1, x(span.to) - x(span.from))}
              y={HEAD - 6}
              height={height - HEAD}
            />
          ))}
          {days.map((day) => (
            <g key={day}>
              <line className={styles.midnight} x1={x(day)} x2={x(day)} y1="18" y2={height} />
              {(perDay > 52 || weekdayOf(day) === 0) && (
                <text className={styles.day} x={x(day) + 4} y="14">
                  {WEEKDAYS[weekdayOf(day)]!.slice(0, 3)} {Number(toWallTime(day).slice(8, 10))}
                </text>
              )}
              {perDay > 500 &&
                [6, 12, 18].map((hour) => (
                  <text key={hour} className={styles.hour} x={x(day + hour * 60)} y="14" textAnchor="middle">
                    {hour}:00
                  </text>
                ))}
            </g>
          ))}
          <text className={styles.name} x="0" y="44">
            Room
          </text>
          <path
            className={styles.room}
            d={`M${room.map(({ at, c }) => `${x(at).toFixed(1)} ${roomY(c).toFixed(1)}`).join('L')}`}
          />
          {rows.map((batch, i) => (
            <BatchRow
              key={batch.id}
              name={batch.name}
              y={HEAD + i * ROW}
              steps={plan.steps.filter(({ batchId }) => batchId === batch.id)}
              colour={colours.get(batch.id) ?? 'var(--water)'}
              x={x}
            />
          ))}
          {uses.map((use, i) => (
            <PlaceRow key={use.id} use={use} y={placesTop + i * PLACE} x={x} to={to} />
          ))}
          <line
            className={styles.now}
            x1={x(wallMinutes(request.now))}
            x2={x(wallMinutes(request.now))}
            y1="18"
            y2={height}
          />
        </svg>
      </div>
      {uses.length === 0 && (
        <p className={styles.soft}>
          No place is short: dam kits, moulds, level place and dry box are not limited. Say on the shelf, under the
          workshop, how many there are.
        </p>
      )}
    </section>
  );
}

const isPour = ({ stepId }: PlannedStep): boolean => /^(pour|top-up) ?/.test(stepId) && !stepId.endsWith(':abrade');

interface BatchRowProps {
  name: string;
  y: number;
  steps: readonly PlannedStep[];
  colour: string;
  x: (minutes: number) => number;
}

function BatchRow({ name, y, steps, colour, x }: BatchRowProps) {
  const pours = steps.filter(isPour);
  const first = pours[0];
  const cured = steps.find(({ stepId }) => stepId === 'cured');
  const at = (time: string): number => x(wallMinutes(time));
  return (
    <g>
      <text className={styles.name} x="0" y={y + 24}>
        {name.length > 22 ? `${name.slice(0, 21)}…` : name}
      </text>
      {first && cured && (
        <rect
          x={at(first.from)}
          width={Math.max(2, at(cured.to) - at(first.from))}
          y={y + 13}
          height="14"
          fill={colour}
          opacity="0.45"
        />
      )}
      {steps
        .filter(({ handsOnMinutes }) => handsOnMinutes > 0)
        .flatMap((step) =>
          (step.parts ?? [step]).map(({ from, to }, i) => (
            <rect
              key={`${step.stepId} ${i}`}
              className={styles.work}
              data-done={step.done || undefined}
              x={at(from)}
              width={Math.max(1.6, at(to) - at(from))}
              y={isPour(step) ? y + 5 : y + 10}
              height={isPour(step) ? 30 : 20}
              style={isPour(step) ? { fill: colour } : undefined}
            />
          )),
        )}
    </g>
  );
}

function PlaceRow({ use, y, x, to }: { use: PlaceUse; y: number; x: (minutes: number) => number; to: number }) {
  const scale = 34 / Math.max(use.capacity, use.most, 1);
  const base = y + 42;
  const unit = use.unit === '' ? '' : `\u00a0${use.unit}`;
  return (
    <g>
      <text className={styles.name} x="0" y={y + 26}>
        {use.name}
      </text>
      <text className={styles.hour} x="0" y={y + 42}>
        {Math.round(use.most)} of {Math.round(use.capacity)}
        {unit}
      </text>
      {use.steps.map(({ at, used }, i) => {
        const until = use.steps[i + 1] ? wallMinutes(use.steps[i + 1]!.at) : to;
        return (
          <rect
            key={at}
            className={styles.used}
            data-full={used >= use.capacity || undefined}
            x={x(wallMinutes(at))}
            width={Math.max(0, x(until) - x(wallMinutes(at)))}
            y={base - used * scale}
            height={used * scale}
          />
        );
      })}
      <line
        className={styles.capacity}
        x1={LEFT}
        x2={x(to)}
        y1={base - use.capacity * scale}
        y2={base - use.capacity * scale}
      />
      <line className={styles.midnight} x1={LEFT} x2={x(to)} y1={base} y2={base} />
    </g>
  );
}

/** What the picture says, for who cannot see it. */
function rulerWords({ batches, now }: ScheduleRequest, plan: SchedulePlan, uses: readonly PlaceUse[]): string {
  const ends = plan.batches.map(
    ({ batchId, readyAt }) => `${batches.find(({ id }) => id === batchId)?.name} ready ${shortTime(readyAt)}`,
  );
  const full = uses.map(
    ({ name, most, capacity }) => `${name}: at most ${Math.round(most)} of ${Math.round(capacity)}`,
  );
  return [`From ${shortTime(now)}`, ...ends, ...full].join('; ');
}
