'use client';

import { useEffect, useMemo, useState } from 'react';
import { dayAndMonth } from '@/core/cure/dayNames';
import { quote, TYPICAL_WORK, workSchema, type Work } from '@/core/money/quote';
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
import type { BatchRow } from '@/core/records/views';
import { batchNeeds } from '@/core/stock/needs';
import { formatMeasure, formatMinutes, formatMoney } from '@/core/units/formatMeasure';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { planInWorker } from '@/workers/planner';
import { useDesk } from '../desk/DeskContext';
import styles from './PourStage.module.css';

interface MoneyProps {
  batch: BatchRow;
  request: PlanRequest;
  plan: Plan;
}

/** What the batch costs with its hours, what to ask for it, the job's budget, and what a change would cost. */
export function Money({ batch, request, plan }: MoneyProps) {
  const { desk, door } = useDesk();
  const units = useUnits();
  const { settings, consumables } = desk.shelf;
  const work = settings.data.work ?? TYPICAL_WORK;
  const put = (change: Partial<Work>): void =>
    void door.run(({ shelf }) => {
      const { id, version, data } = shelf.settings;
      return {
        ...{ do: 'put', kind: 'settings', id, version, label: 'Change how work is counted' },
        data: { ...data, work: { ...(data.work ?? TYPICAL_WORK), ...change } },
      };
    }, 'Work is counted so');
  const needs = batchNeeds(request, plan, consumables);
  const used = needs.filter(({ item }) => item.kind === 'consumable');
  // Cups are counted once: by their pack where they stand on the shelf as a consumable, else by the price of one.
  const cupsByPack = consumables.some(({ data }) => data.per === 'cup');
  const consumablesPrice =
    used.reduce((sum, { item, likely }) => {
      const data = consumables.find(({ id }) => id === item.id)?.data;
      return sum + (data ? (likely * data.packPrice) / data.packCount : 0);
    }, 0) + (cupsByPack ? 0 : plan.cost.cups);
  const product = needs.filter(({ item }) => item.kind === 'product');
  const asked = quote({
    pieces: plan.totals.pieces,
    mixGrams: plan.totals.mixGrams,
    pouredGrams: plan.totals.pouredGrams,
    highMixGrams: product.reduce((sum, { high }) => sum + high, 0),
    pricePerGram: request.product.packPrice / request.product.packGrams,
    colourantPrice: plan.cost.colourant,
    consumablesPrice,
    pourMinutes: handsOnMinutes(plan, request),
    work,
  });
  const { low, likely, high } = asked;
  const money = (value: number): string => formatMoney(value, units);
  const job = desk.set.data.job;
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
    assumptions: ['No run of yours was timed yet: hours are typical figures.'],
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
      {job && (job.budget !== null || job.hours) && (
        <>
          {job.budget !== null && <Budget label="Money of the job" of={job.budget} needs={likely.cost} words={money} />}
          {job.hours && (
            <Budget
              label="Hours of the job"
              of={job.hours}
              needs={likely.hours}
              words={(hours) => `${hours.toFixed(1)} h`}
            />
          )}
        </>
      )}
      {!batch.poured && <WhatIf key={batch.id} request={request} plan={plan} />}
    </section>
  );
}

function Budget({
  label,
  of,
  needs,
  words,
}: {
  label: string;
  of: number;
  needs: number;
  words: (value: number) => string;
}) {
  const share = of > 0 ? needs / of : 1;
  const over = share > 1;
  return (
    <div role="img" aria-label={`${label}: ${words(needs)} of ${words(of)}`}>
      {label}: {words(needs)} of {words(of)}
      {over ? `, ${words(needs - of)} over` : `, ${words(of - needs)} left`}
      <div className={styles.bar}>
        <span style={{ width: `${Math.min(100, share * 100)}%` }} data-over={over || undefined} />
      </div>
    </div>
  );
}

const moreLane = Symbol('two more');
const lowerLane = Symbol('a millimetre lower');
const MORE = 2;
const LOWER_MM = -1;

/** Not more of a design: the level moved. */
const LOWER = Symbol('lower');

/** A plan of something else (more of a design, or a lower level) against the one there is; null while it is worked out. */
function useDifference(lane: symbol, what: string | typeof LOWER, request: PlanRequest, plan: Plan): Difference | null {
  const [done, setDone] = useState<{ of: PlanRequest; difference: Difference } | null>(null);
  const other = useMemo(
    () => (what === LOWER ? withLevel(request, LOWER_MM) : withMore(request, what, MORE)),
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
  const twoMore = useDifference(moreLane, designId ?? 'none', request, plan);
  const lowered = useDifference(lowerLane, LOWER, request, plan);
  const lower = request.set.levelMm + LOWER_MM > 0;
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
            {`${formatMeasure(-LOWER_MM, 'length', units)} lower: `}
            {lowered
              ? `${words(lowered)}; ${mass(lowered.weightGrams)} on the shelf; the deep ${lowered.deepDeltaE < 1 ? 'looks the same' : `looks another by ΔE ${lowered.deepDeltaE.toFixed(1)}`}.`
              : 'working it out…'}
          </li>
        )}
      </ul>
    </>
  );
}
