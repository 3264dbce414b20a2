'use client';

import {
  DndContext,
  PointerSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import PushPin from '@mui/icons-material/PushPin';
import { useId, useLayoutEffect, useMemo, useRef, type CSSProperties, type KeyboardEvent } from 'react';
import { shortTime } from '@/core/time/dayNames';
import type { Evening, EveningBlock, Evenings } from '@/core/schedule/evenings';
import { stepKey } from '@/core/schedule/replan';
import type { ScheduleProblem } from '@/core/schedule/scheduleRequest';
import type { CalendarBatch } from '@/core/schedule/workplace';
import { formatMinutes } from '@/core/units/formatMeasure';
import { batchColours } from './batchColours';
import { hoursBetween, isAgain, layEvenings, type PlacedBlock, type PlacedEvening, type Zoom } from './eveningLayout';
import styles from './EveningsView.module.css';

export interface EveningsViewProps {
  evenings: Evenings;
  batches: readonly CalendarBatch[];
  problems: readonly ScheduleProblem[];
  now: string;
  zoom: Zoom;
  /** Draws out the steps that decide when all is ready. */
  showCritical: boolean;
  chosen: string | null;
  onChoose: (key: string | null) => void;
  /** A step is let go at a time in an evening. */
  onMove: (block: EveningBlock, at: string) => void;
}

const clock = (time: string): string => time.slice(11, 16);
const keyOf = ({ step, part }: EveningBlock): string => `${stepKey(step.batchId, step.stepId)}/${part}`;

/** Evenings wide, nights narrow: what is done in each bench window, and the pieces that flow from one to the next. */
export function EveningsView(props: EveningsViewProps) {
  const { evenings, batches, now, zoom, onMove } = props;
  const laid = useMemo(() => layEvenings(evenings, zoom), [evenings, zoom]);
  const colours = useMemo(() => batchColours(batches), [batches]);
  const box = useRef<HTMLDivElement>(null);
  const id = useId();
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  // What comes next is what one looks for.
  const first = evenings.evenings.findIndex(({ to }) => to > now);
  const firstX = laid.evenings[first]?.x ?? 0;
  useLayoutEffect(() => {
    if (box.current) box.current.scrollLeft = Math.max(0, firstX - 40);
    // Only when the zoom changes: not while the plan gets better under the eye.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [zoom]);

  const drop = ({ active, over, delta }: DragEndEvent): void => {
    const block = active.data.current?.['block'] as EveningBlock | undefined;
    const index = over?.data.current?.['index'] as number | undefined;
    if (!block || index === undefined) return;
    const placed = active.data.current?.['placed'] as PlacedBlock;
    const at = timeAt(evenings.evenings[index]!, laid.evenings[index]!, placed.y + delta.y, block, now);
    if (at !== block.from) onMove(block, at);
  };
  /** Arrow keys walk from block to block; with shift they move the step to the evening before or after. */
  const walk = (event: KeyboardEvent): void => {
    const here = (event.target as HTMLElement).closest<HTMLElement>('[data-block]');
    if (!here || !['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'].includes(event.key)) return;
    event.preventDefault();
    const [e, b] = here.dataset['block']!.split(' ').map(Number) as [number, number];
    const sideways = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (event.shiftKey && sideways !== 0) {
      const target = evenings.evenings[e + sideways];
      const block = evenings.evenings[e]!.blocks[b]!;
      if (target && !block.step.done && !isAgain(block.step)) onMove(block, startOf(target, now));
      return;
    }
    let next: [number, number] | null = null;
    if (sideways === 0) next = [e, b + (event.key === 'ArrowUp' ? -1 : 1)];
    else
      for (let at = e + sideways; evenings.evenings[at]; at += sideways)
        if (evenings.evenings[at]!.blocks.length > 0) {
          next = [at, Math.min(b, evenings.evenings[at]!.blocks.length - 1)];
          break;
        }
    const target = next && box.current?.querySelector<HTMLElement>(`[data-block="${next[0]} ${next[1]}"]`);
    target?.focus();
    target?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  };
  return (
    <DndContext id={id} sensors={sensors} onDragEnd={drop}>
      <div
        ref={box}
        className={styles.scroll}
        role="group"
        aria-label="Evenings at the bench. Arrow keys go from step to step; with shift they move a step to another evening"
        onKeyDown={walk}
      >
        <div className={styles.sheet} style={{ width: laid.width, height: laid.height }} data-lines={zoom.lines}>
          <svg className={styles.water} width={laid.width} height={laid.height} aria-hidden="true">
            <defs>
              {laid.streams.map(({ stream, fromX, toX }, i) => (
                <linearGradient
                  key={i}
                  id={`${id}stream${i}`}
                  gradientUnits="userSpaceOnUse"
                  x1={fromX}
                  x2={Math.max(toX, fromX + 1)}
                  y1="0"
                  y2="0"
                >
                  <stop offset="0" stopColor={colours.get(stream.batchId)} stopOpacity="0.95" />
                  <stop
                    offset="1"
                    stopColor={colours.get(stream.batchId)}
                    stopOpacity={stream.closesAt !== null && stream.closesAt < stream.backAt ? 0.08 : 0.4}
                  />
                </linearGradient>
              ))}
            </defs>
            {laid.evenings.map(({ x, width }, i) => (
              <rect
                key={i}
                className={styles.column}
                data-empty={evenings.evenings[i]!.blocks.length === 0 || undefined}
                x={x + 0.5}
                y={HEAD_Y}
                width={width - 1}
                height={laid.table - HEAD_Y}
              />
            ))}
            {laid.streams.map(({ path, width }, i) => (
              <path key={i} d={path} className={styles.stream} stroke={`url(#${id}stream${i})`} strokeWidth={width} />
            ))}
            <line className={styles.table} x1="0" x2={laid.width} y1={laid.table} y2={laid.table} />
            {laid.evenings.slice(1).map(({ x }, i) => {
              const before = laid.evenings[i]!;
              return (
                <line
                  key={i}
                  className={styles.night}
                  x1={before.x + before.width}
                  x2={x}
                  y1={laid.table}
                  y2={laid.table}
                />
              );
            })}
          </svg>
          {laid.streams.map(
            ({ stream, words, width }, i) =>
              words && (
                <div
                  key={i}
                  className={styles.words}
                  style={{ left: words.x, top: words.y + width / 2 + 1, maxWidth: zoom.gutter - 6 }}
                >
                  {stream.pieces === 1 ? '1 piece' : `${stream.pieces} pieces`}
                  <span data-dry={(stream.closesAt !== null && stream.closesAt < stream.backAt) || undefined}>
                    {waitWords(stream)}
                  </span>
                </div>
              ),
          )}
          {evenings.evenings.map((evening, e) => (
            <EveningColumn
              key={evening.from}
              {...props}
              evening={evening}
              before={evenings.evenings[e - 1] ?? null}
              index={e}
              placed={laid.evenings[e]!}
              table={laid.table}
              colours={colours}
            />
          ))}
        </div>
      </div>
    </DndContext>
  );
}

const HEAD_Y = 50;

function waitWords({ wait, opensAt, closesAt, backAt }: Evenings['streams'][number]): string {
  if (wait === 'recoat' && closesAt !== null)
    return closesAt < backAt
      ? `dry after ${clock(closesAt)}`
      : `recoat to ${shortTime(closesAt).replace(/^(\w+) .*, /, '$1 ')}`;
  if (opensAt === null) return '';
  const when = shortTime(opensAt).replace(/^(\w+) .*, /, '$1 ');
  return wait === 'firm' ? `firm ${when}` : `ready ${when}`;
}

/** When work can begin in an evening. */
const startOf = ({ from }: Evening, now: string): string => (from > now ? from : now);

/** The time that a step is let go at: after the block above it. */
function timeAt(evening: Evening, placed: PlacedEvening, y: number, block: EveningBlock, now: string): string {
  const above = evening.blocks.filter(
    (other, i) => keyOf(other) !== keyOf(block) && placed.blocks[i]!.y + placed.blocks[i]!.height / 2 < y,
  );
  const after = above.at(-1)?.to ?? evening.from;
  return after > now ? after : now;
}

interface EveningColumnProps extends EveningsViewProps {
  evening: Evening;
  before: Evening | null;
  index: number;
  placed: PlacedEvening;
  table: number;
  colours: ReadonlyMap<string, string>;
}

function EveningColumn({ evening, before, index, placed, table, ...rest }: EveningColumnProps) {
  const { zoom, now } = rest;
  const { setNodeRef, isOver } = useDroppable({ id: `evening ${evening.from}`, data: { index } });
  const used = evening.blocks.length > 0;
  const day = shortTime(evening.from).split(',')[0]!;
  const past = evening.to <= now;
  return (
    <section
      ref={setNodeRef}
      className={styles.evening}
      style={{ left: placed.x, width: placed.width, height: table }}
      aria-label={used ? `${day}, ${clock(evening.from)} to ${clock(evening.to)}` : `${day}, free`}
      data-over={isOver || undefined}
      data-past={past || undefined}
      data-used={used || undefined}
    >
      <header className={styles.head}>
        {before && used && before.blocks.length > 0 && zoom.lines >= 2 && (
          <span className={styles.between} style={{ width: zoom.gutter, left: -zoom.gutter }}>
            {hoursBetween(before.to, evening.from)}
          </span>
        )}
        {used && zoom.lines > 0 && <h3>{zoom.lines === 1 ? day.replace(/ \w+$/, '') : day}</h3>}
        {used && zoom.lines >= 2 && (
          <p>
            <span>
              {clock(evening.from)} to {clock(evening.to)}
            </span>
            <span data-full={evening.workedMinutes > evening.minutes || undefined}>
              {formatMinutes(evening.workedMinutes)}
              {zoom.lines === 3 && ` of ${formatMinutes(evening.minutes)}`}
            </span>
          </p>
        )}
        {!used && zoom.lines >= 2 && <span className={styles.free}>{day}</span>}
        {zoom.lines === 0 && used && (index === 0 || before?.from.slice(0, 7) !== evening.from.slice(0, 7)) && (
          <h3 className={styles.month}>{day.split(' ').at(-1)}</h3>
        )}
      </header>
      {evening.blocks.map((block, b) => (
        <Block
          key={keyOf(block)}
          {...rest}
          block={block}
          at={`${index} ${b}`}
          placed={placed.blocks[b]!}
          left={placed.x}
        />
      ))}
    </section>
  );
}

type BlockProps = Omit<EveningColumnProps, 'evening' | 'before' | 'index' | 'placed' | 'table'> & {
  block: EveningBlock;
  at: string;
  placed: PlacedBlock;
  left: number;
};

function Block({ block, at, placed, left, zoom, colours, problems, showCritical, chosen, onChoose }: BlockProps) {
  const { step, name, batch, minutes, part, parts } = block;
  const key = stepKey(step.batchId, step.stepId);
  const { setNodeRef, listeners, transform, isDragging } = useDraggable({
    id: keyOf(block),
    data: { block, placed },
    disabled: step.done || isAgain(step),
  });
  const wrong = problems.find(
    ({ batchId, stepId, severity }) => batchId === step.batchId && stepId === step.stepId && severity !== 'hint',
  );
  const pours = !isAgain(step) && /^(pour|top-up) /.test(step.stepId);
  const whole = `${name}${parts > 1 ? `, part ${part + 1} of ${parts}` : ''}`;
  const style: CSSProperties = {
    left: placed.x - left,
    top: placed.y,
    width: placed.width,
    height: placed.height,
    ['--batch' as string]: colours.get(step.batchId),
    ...(transform && { transform: `translate(${transform.x}px, ${transform.y}px)`, zIndex: 5 }),
  };
  const marks = [
    step.done ? 'done' : '',
    step.pinned ? 'held' : '',
    showCritical && step.critical ? 'decides the end' : '',
    wrong ? wrong.message : '',
  ].filter(Boolean);
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...listeners}
      className={styles.block}
      style={style}
      data-block={at}
      data-pour={pours || undefined}
      data-done={step.done || undefined}
      data-wrong={wrong?.severity}
      data-critical={(showCritical && step.critical) || undefined}
      data-dragging={isDragging || undefined}
      aria-pressed={chosen === key}
      aria-label={`${whole}, ${batch}, ${shortTime(block.from)}, ${formatMinutes(minutes)}${marks.length > 0 ? `: ${marks.join('; ')}` : ''}`}
      title={zoom.lines < 2 ? `${whole}, ${batch}, ${shortTime(block.from)}, ${formatMinutes(minutes)}` : undefined}
      onClick={() => onChoose(chosen === key ? null : key)}
    >
      {zoom.lines > 0 && (
        <span className={styles.name}>
          {step.done && '✓ '}
          {whole}
        </span>
      )}
      {zoom.lines >= 2 && placed.height >= 38 && (
        <span className={styles.meta} data-short={placed.height < 56 || undefined}>
          {clock(block.from)} · {formatMinutes(minutes)} · {batch}
        </span>
      )}
      {step.pinned && <PushPin className={styles.pin} />}
    </button>
  );
}
