'use client';

import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { dayAndMonth } from '@/core/time/dayNames';
import { TYPICAL_WORK, workSchema, type Work } from '@/core/money/quote';
import {
  handsOnMinutes,
  planDifference,
  withLevel,
  withMore,
  type Difference,
  type Plan,
  type PlanRequest,
} from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import type { Spent } from '@/core/records/views';
import type { StockLevel } from '@/core/stock/haveAndNeed';
import { quoteBatch } from '@/core/stock/quoteBatch';
import { formatMeasure, formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { roundStep } from '@/core/units/steps';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { planInWorker } from '@/workers/planner';
import type { PlannedBatch } from '../desk/BatchPlan';
import { useDesk } from '../desk/DeskContext';
import { NotRead } from '@/ui/held/NotRead';
import { useFetched } from '@/ui/useFetched';
import styles from './PourStage.module.css';

interface MoneyProps extends PlannedBatch {
  /** What stands on the shelf. */
  levels: readonly StockLevel[];
}

/** What the batch costs with its hours, what to ask for it, the job's budget, and what a change would cost. */
export function Money({ batch, request, plan, levels }: MoneyProps) {
  const { desk, edits } = useDesk();
  const units = useUnits();
  const { settings } = desk.shelf;
  const work = settings.data.work ?? TYPICAL_WORK;
  const put = (change: Partial<Work>): void =>
    void edits.run(({ shelf }) => {
      const { id, version, data } = shelf.settings;
      return {
        do: 'put',
        kind: 'settings',
        id,
        version,
        label: 'Change how work is counted',
        data: { ...data, work: { ...(data.work ?? TYPICAL_WORK), ...change } },
      };
    }, 'Work is counted so');
  const bottles = useFetched<Spent[]>(
    `/api/sets/${encodeURIComponent(desk.set.id)}/spent`,
    `${batch.version} ${desk.history.undo?.edit ?? ''}`,
  );
  const spent = bottles.data ?? [];
  const { low, likely, high, input: water } = quoteBatch(request, plan, { levels, shelf: desk.shelf, work });
  const money = (value: number): string => formatMoney(value, units);
  const lostMoney = water.mixGrams > 0 ? likely.product * (1 - water.pouredGrams / water.mixGrams) : 0;
  const own = spent.find(({ batchId }) => batchId === batch.id)?.money ?? 0;
  const planned = likely.product + likely.colourant + likely.consumables;
  const validate = (key: keyof Work) => (value: number) => complaintAt(workSchema, work, [key], value);
  const explain = (title: string) => () => ({
    title,
    formula:
      'Product, colourants and consumables, and the hours at their rate; with the margin on top. Good case: half the losses, a fifth fewer hours. Bad case: the bed strays and half as much again is lost, two fifths more hours.',
    inputs: [
      { label: 'Product', value: money(likely.product) },
      { label: 'of it lost in cups', value: money(plan.cost.lost) },
      { label: 'Colourants', value: money(likely.colourant) },
      { label: 'Consumables', value: money(likely.consumables) },
      { label: 'Hours', value: `${likely.hours.toFixed(1)} h at ${money(work.ratePerHour)}` },
      { label: 'Cost', value: money(likely.cost) },
      { label: 'Margin', value: `${Math.round(work.margin * 100)} %` },
    ],
    assumptions: [
      'What is on the shelf counts at what its bottles cost, what has to be bought at the price of a new pack.',
      'No run of yours was timed yet: hours are typical figures.',
    ],
    estimate: true,
  });
  return (
    <section aria-label="Money" className={styles.money}>
      <h3>What to ask for it</h3>
      <div className={styles.cases}>
        <MeasureField
          label={`An hour of work, ${units.currency}`}
          quantity="number"
          value={work.ratePerHour}
          step={1}
          hint={settings.data.work ? undefined : 'typical: put in your own'}
          validate={validate('ratePerHour')}
          onCommit={(ratePerHour) => put({ ratePerHour })}
        />
        <MeasureField
          label="Minutes a piece, beside its pours"
          quantity="number"
          value={work.minutesPerPiece}
          step={5}
          hint="body, paint, plants, finish"
          validate={validate('minutesPerPiece')}
          onCommit={(minutesPerPiece) => put({ minutesPerPiece })}
        />
        <MeasureField
          label="Margin"
          quantity="fraction"
          value={work.margin}
          step={0.05}
          validate={validate('margin')}
          onCommit={(margin) => put({ margin })}
        />
      </div>
      {bottles.failed && <NotRead what="What the bottles gave for it could not be read." again={bottles.again} />}
      <Readings>
        <Reading
          label="Quote"
          digits={likely.price.toFixed(2)}
          unit={units.currency}
          strong
          note={`between ${money(low.price)} and ${money(high.price)}; ${money(likely.pricePerPiece)} a piece`}
          explain={explain('Quote')}
        />
        <Reading
          label="Cost"
          explain={explain('Cost')}
          digits={likely.cost.toFixed(2)}
          unit={units.currency}
          note={`water ${money(likely.product + likely.colourant)}, consumables ${money(likely.consumables)}, work ${money(likely.work)}`}
        />
        <Reading
          label="Hours"
          explain={explain('Hours')}
          digits={likely.hours.toFixed(1)}
          unit="h"
          note={`${formatMinutes(handsOnMinutes(plan, request))} of them mixing and pouring`}
        />
      </Readings>
      <Shares
        of={[
          { name: 'water in the pieces', money: likely.product - lostMoney },
          { name: 'lost in cups', money: lostMoney },
          { name: 'colourants', money: likely.colourant },
          { name: 'consumables', money: likely.consumables },
          { name: 'hours of mixing and pouring', money: (handsOnMinutes(plan, request) / 60) * work.ratePerHour },
          { name: 'hours at the pieces', money: ((plan.totals.pieces * work.minutesPerPiece) / 60) * work.ratePerHour },
        ]}
        words={money}
      />
      {batch.poured && own > 0 && (
        <p>
          Out of the bottles so far: <b>{money(own)}</b>
          {batch.poured.layers < batch.poured.of
            ? ` for ${batch.poured.layers} of ${batch.poured.of} layers; ${money(planned)} planned for all.`
            : `, ${money(planned)} planned: ${own > planned ? `${money(own - planned)} more` : `${money(planned - own)} less`}.`}
        </p>
      )}
      {desk.set.data.job && (
        <p>
          <Link href={`/job/${desk.set.id}`}>The job</Link>
          {': money and hours of all its batches, what is spent and what is still to come.'}
        </p>
      )}
      {!batch.poured && <WhatIf key={batch.id} request={request} plan={plan} />}
    </section>
  );
}

/** What the cost is made up of, stage by stage, as one bar and in words. */
function Shares({ of, words }: { of: readonly { name: string; money: number }[]; words: (value: number) => string }) {
  const all = of.reduce((sum, { money }) => sum + money, 0);
  const shown = of.filter(({ money }) => money > 0);
  if (all <= 0) return null;
  return (
    <figure className={styles.shares} aria-label="What the cost is made up of">
      <div className={styles.bar} aria-hidden>
        {shown.map(({ name, money }, i) => (
          <span key={name} style={{ width: `${(money / all) * 100}%`, opacity: 1 - i * 0.14 }} />
        ))}
      </div>
      <figcaption>
        {shown.map(({ name, money }, i) => (
          <span key={name}>
            <i style={{ opacity: 1 - i * 0.14 }} /> {name} <b>{words(money)}</b>
          </span>
        ))}
      </figcaption>
    </figure>
  );
}

const moreLane = Symbol('two more');
const lowerLane = Symbol('a millimetre lower');
const MORE = 2;
const LOWER_MM = 1;

/** A plan of something else (more of a design, or a lower level) against the one there is; null while it is worked out. */
function useDifference(
  lane: symbol,
  what: string | { lowerMm: number },
  request: PlanRequest,
  plan: Plan,
): Difference | null {
  const [done, setDone] = useState<{ of: PlanRequest; difference: Difference } | null>(null);
  const other = useMemo(
    () => (typeof what === 'object' ? withLevel(request, -what.lowerMm) : withMore(request, what, MORE)),
    [request, what],
  );
  useEffect(() => {
    let stale = false;
    if (other)
      void planInWorker(lane, other).then((amounts) => {
        if (!stale && amounts)
          setDone({ of: other, difference: planDifference({ request, amounts: plan }, { request: other, amounts }) });
      }, reportError);
    return () => {
      stale = true;
    };
  }, [lane, other, request, plan]);
  return done?.of === other ? done.difference : null;
}

/** What two more would take, and what a lower level would save. */
function WhatIf({ request, plan }: { request: PlanRequest; plan: Plan }) {
  const units = useUnits();
  const drawn = request.pieces.filter(({ measured }) => measured === null);
  const [wanted, setWanted] = useState<string | null>(null);
  const designId = drawn.find((piece) => piece.designId === wanted)?.designId ?? drawn[0]?.designId ?? null;
  const lowered = useMemo(() => ({ lowerMm: roundStep(LOWER_MM, 'length', units) }), [units]);
  const twoMore = useDifference(moreLane, designId ?? 'none', request, plan);
  const less = useDifference(lowerLane, lowered, request, plan);
  const lower = request.set.levelMm > lowered.lowerMm;
  const signed = (value: number, words: string): string => `${value < 0 ? '−' : '+'}${words}`;
  const mass = (grams: number): string => signed(grams, formatMeasure(Math.abs(grams), 'mass', units));
  const money = (value: number): string => signed(value, formatMoney(Math.abs(value), units));
  const count = (value: number, one: string): string =>
    value === 0
      ? `no ${one} more`
      : `${signed(value, String(Math.abs(value)))} ${Math.abs(value) === 1 ? one : `${one}s`}`;
  const words = (difference: Difference): string =>
    [
      money(difference.money),
      mass(difference.mixGrams),
      count(difference.cups, 'cup'),
      difference.layers !== 0 && count(difference.layers, 'layer'),
      signed(difference.minutes, `${Math.round(Math.abs(difference.minutes))} min at the bench`),
      difference.doneAt.after === difference.doneAt.before
        ? 'finished at the same time'
        : difference.doneAt.after && `finished ${dayAndMonth(difference.doneAt.after)}`,
    ]
      .filter(Boolean)
      .join(', ');
  return (
    <>
      <h3>What if</h3>
      <ul className={styles.whatIf}>
        {designId && (
          <li aria-label="Two more">
            <ChoiceField
              label="Two more of"
              value={designId}
              choices={drawn.map((piece) => ({ value: piece.designId, label: `${piece.tag} ${piece.name}` }))}
              onCommit={setWanted}
            />
            <p role="status">{twoMore ? words(twoMore) : 'Working it out…'}</p>
          </li>
        )}
        {lower && (
          <li aria-label="A millimetre lower">
            {`${formatMeasure(lowered.lowerMm, 'length', units)} lower: `}
            {less
              ? `${words(less)}; ${mass(less.weightGrams)} on the shelf; the deep ${less.deepDeltaE < 1 ? 'looks the same' : `looks another by ΔE ${less.deepDeltaE.toFixed(1)}`}.`
              : 'working it out…'}
          </li>
        )}
      </ul>
    </>
  );
}
