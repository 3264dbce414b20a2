'use client';

import Link from 'next/link';
import { pourCautions } from '@/core/checks/cautions';
import { shortTime } from '@/core/cure/dayNames';
import type { LayerPlan, Plan, PlanRequest } from '@/core/plan';
import type { BatchPlanView } from '@/core/records/views';
import { formatCut, formatMeasure, formatMinutes, formatMoney, type UnitPreferences } from '@/core/units/formatMeasure';
import { DROP_TOLERANCE } from '@/core/tint/doses';
import { closedRuns } from '@/core/bed/dams';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { copyNames, damWords, groupPours } from './summarise';
import styles from './PourCard.module.css';

/** The pour card: what lies beside the scale. Prints clean on A4 and Letter, in black and white. */
export function PourCard({ setId, batch, request, plan, units, printedAt }: BatchPlanView) {
  const back = `/sets/${setId}/pour?batch=${batch.id}`;
  if (!request || !plan) return <Unprintable back={back} message="This batch has no pieces yet." />;
  const stop = batch.data.planned ? undefined : plan.problems.find(({ severity }) => severity === 'stop');
  if (stop) return <Unprintable back={back} message={stop.message} />;
  return (
    <PrintFrame
      label="Card"
      back={back}
      backTo="Back to the batch"
      tools={<a href={`/export/${setId}/${batch.id}/pour-card.csv`}>Save as CSV</a>}
    >
      {(paper) => (
        <main className={styles.card} data-paper={paper}>
          <CardHead name={batch.data.name} request={request} plan={plan} units={units} printedAt={printedAt} />
          <Dams plan={plan} units={units} />
          {plan.layers.map((layer) => (
            <Layer key={layer.number} layer={layer} of={plan.layers.length} request={request} units={units} />
          ))}
          <ul className={styles.cautions} aria-label="Cautions">
            {pourCautions(request.product).map((text) => (
              <li key={text}>{text}</li>
            ))}
          </ul>
        </main>
      )}
    </PrintFrame>
  );
}

function CardHead({
  name,
  request,
  plan,
  units,
  printedAt,
}: {
  name: string;
  request: PlanRequest;
  plan: Plan;
  units: UnitPreferences;
  printedAt: string;
}) {
  const { product, set, recipe, room } = request;
  const ratio = product.parts && plan.product.ratioByWeight !== null && plan.product.ratioByVolume !== null;
  return (
    <header className={styles.head}>
      <h1>
        {set.name}: {name}
      </h1>
      <p className={styles.level}>
        Level <b>{formatMeasure(set.levelMm, 'length', units)}</b> above the underside
      </p>
      <p>
        {product.name}, {recipe.name.toLowerCase()} · room {formatMeasure(room.temperatureC, 'temperature', units)} ·{' '}
        {plan.totals.pieces} pieces · mix {formatMeasure(plan.totals.mixGrams, 'mass', units)} in {plan.totals.cups}{' '}
        {plan.totals.cups === 1 ? 'cup' : 'cups'} · about {formatMoney(plan.cost.total, units)}
      </p>
      {ratio && (
        <p>
          A : B = {plan.product.ratioByWeight?.toFixed(2)} : 1 by weight = {plan.product.ratioByVolume?.toFixed(2)} : 1
          by volume
        </p>
      )}
      <p className={styles.printed}>printed {shortTime(printedAt)}</p>
    </header>
  );
}

function Dams({ plan, units }: { plan: Plan; units: UnitPreferences }) {
  const pieces = plan.pieces.filter(({ dams }) => closedRuns(dams).length > 0);
  if (pieces.length === 0) return null;
  return (
    <section className={styles.dams}>
      <h2>Dams, before anything is mixed</h2>
      <ul>
        {pieces.map(({ tag, copies, dams }) => (
          <li key={tag}>
            <Tick /> {copies === 1 ? tag : `${tag} × ${copies}`}: {damWords(dams, units)}
          </li>
        ))}
      </ul>
      <p className={styles.cutList}>
        To cut:{' '}
        {plan.totals.cutList
          .map(
            ({ method, stripMm, topMm, count }) =>
              `${count} × ${method} ${formatCut(stripMm, units)} × ${formatCut(topMm, units)}`,
          )
          .join('; ')}
      </p>
      <p>
        <Tick /> Every joint and pinhole under water sealed. <Tick /> Non-stick sheet underneath. <Tick /> Bench level
        both ways.
      </p>
    </section>
  );
}

function Layer({
  layer,
  of,
  request,
  units,
}: {
  layer: LayerPlan;
  of: number;
  request: PlanRequest;
  units: UnitPreferences;
}) {
  const { cure } = layer;
  const mass = (value: number): string => formatMeasure(value, 'mass', units);
  const ml = (value: number): string => formatMeasure(value, 'volume', units);
  const doses = request.recipe.doses.filter(({ gramsPer100 }) => gramsPer100 > 0);
  return (
    <section className={styles.layer}>
      <h2>
        Layer {layer.number} of {of}: up to {formatMeasure(layer.toMm, 'length', units)}, poured{' '}
        {formatMeasure(layer.wetMm, 'length', units)} thick
      </h2>
      <table>
        <thead>
          <tr>
            <th scope="col">Cup</th>
            {layer.parts ? (
              <>
                <th scope="col">Part A</th>
                <th scope="col">Part B</th>
              </>
            ) : (
              <th scope="col">Product</th>
            )}
            {doses.map(({ colourant }) => (
              <th scope="col" key={colourant.name}>
                {colourant.name}
              </th>
            ))}
            <th scope="col">Pour into</th>
            <th scope="col">Sets up in</th>
          </tr>
        </thead>
        <tbody>
          {layer.cups.map((cup) => (
            <tr key={cup.number}>
              <th scope="row">
                {cup.number}
                <small>{mass(cup.mixGrams)}</small>
              </th>
              {cup.parts ? (
                <>
                  <td className={styles.amount}>
                    {mass(cup.parts.partAGrams)}
                    <small>{ml(cup.parts.partAMl)}</small>
                  </td>
                  <td className={styles.amount}>
                    {mass(cup.parts.partBGrams)}
                    <small>{ml(cup.parts.partBMl)}</small>
                  </td>
                </>
              ) : (
                <td className={styles.amount}>{mass(cup.mixGrams)}</td>
              )}
              {doses.map(({ colourant }) => {
                const dose = cup.doses.find(({ name }) => name === colourant.name);
                return (
                  <td key={colourant.name}>
                    {dose && Math.abs(dose.error) > DROP_TOLERANCE ? (
                      <b>weigh</b>
                    ) : (
                      `${dose?.drops ?? 0} ${dose?.drops === 1 ? 'drop' : 'drops'}`
                    )}
                    <small>{dose?.grams.toFixed(2)} g</small>
                  </td>
                );
              })}
              <td className={styles.pours}>
                {groupPours(cup.pours).map(({ tag, copies, grams }, i) => (
                  <span key={`${tag}${i}`}>
                    <Tick /> {tag} {copyNames(copies)} <b>{mass(grams)}</b>
                    {copies.length > 1 ? ' each' : ''}
                  </span>
                ))}
              </td>
              <td>{formatMinutes(cup.potLifeMinutes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.cure}>
        {cure.poured ? 'Poured' : 'Pour'} <b>{shortTime(cure.pouredAt)}</b>. Look for bubbles after 10 to 15 minutes.{' '}
        {layer.number < of
          ? `Next layer from ${shortTime(cure.recoatOpensAt)}${cure.recoatClosesAt ? ` to ${shortTime(cure.recoatClosesAt)}; later, abrade first` : ''}.`
          : `Dams off ${shortTime(cure.demouldAt)}. Full cure ${shortTime(cure.fullCureAt)}.`}{' '}
        Times are estimates for this room.
      </p>
    </section>
  );
}

const Tick = () => <span className={styles.tick} aria-hidden />;

function Unprintable({ back, message }: { back: string; message: string }) {
  return (
    <main className={styles.unprintable}>
      <h1>Nothing to print yet</h1>
      <p>{message}</p>
      <Link href={back}>Back to the batch</Link>
    </main>
  );
}
