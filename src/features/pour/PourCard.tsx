'use client';

import Link from 'next/link';
import { pieceKey } from '@/core/model/pieceRef';
import { CURE_MODELS } from '@/core/cure/cureModels';
import { pourCautions } from '@/core/cure/cautions';
import { shortTime } from '@/core/time/dayNames';
import { cupWork } from '@/core/pouring/cupWork';
import { looksAfter } from '@/core/pouring/looks';
import { batchFacts } from '@/core/schedule/facts';
import { colourPortionsOf, partGrams, portionWords, readerOf, stockWords } from '@/core/pouring/portionWords';
import { fromBottle } from '@/core/pouring/portions';
import { pouredDensity, ratioByVolume, ratioByWeight } from '@/core/mixing/ratio';
import { productsOf, requestOfLayer, type FinishPlan, type LayerPlan, type Plan, type PlanRequest } from '@/core/plan';
import type { BatchPlanView } from '@/core/records/views';
import {
  formatCut,
  formatMeasure,
  formatMinutes,
  formatMoney,
  formatOnScale,
  type UnitPreferences,
} from '@/core/units/formatMeasure';
import { closedRuns } from '@/core/bed/dams';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { copyNames } from '@/core/model/pieceRef';
import { damWords } from '../desk/summarise';
import { lookWords, PLANTS_FIRST, tintWords } from './layerWords';
import styles from './PourCard.module.css';

/** The pour card: what lies beside the scale. Prints clean on A4 and Letter, in black and white. */
export function PourCard({ setId, batch, poured, request, plan, settings, printedAt }: BatchPlanView) {
  const { units, measureBy } = settings;
  const back = `/sets/${setId}/pour?batch=${batch.id}`;
  if (!request || !plan) return <Unprintable back={back} message="This batch has no pieces yet." />;
  const stop = poured ? undefined : plan.problems.find(({ severity }) => severity === 'stop');
  if (stop) return <Unprintable back={back} message={stop.message} />;
  return (
    <PrintFrame
      label="Card"
      back={back}
      backTo="Back to the batch"
      tools={
        <>
          <Link href={`/sets/${setId}/bench?batch=${batch.id}`}>Begin at the bench</Link>{' '}
          <a href={`/export/${setId}/${batch.id}/pour-card.csv`}>Save as CSV</a>
        </>
      }
    >
      {(paper) => (
        <main className={styles.card} data-paper={paper}>
          <CardHead
            name={batch.data.name}
            request={request}
            plan={plan}
            units={units}
            by={measureBy}
            printedAt={printedAt}
          />
          <Dams plan={plan} units={units} />
          {plan.layers.map((layer) => (
            <Layer
              key={layer.number}
              layer={layer}
              of={plan.layers.length}
              dammed={batchFacts(request, plan).dammed > 0}
              plantsFirst={layer.plantsBefore ?? (layer.number === 1 && plan.plantsFirst === true)}
              request={request}
              units={units}
              by={measureBy}
            />
          ))}
          {plan.finish && <FinishLines finish={plan.finish} units={units} />}
          <ul className={styles.cautions} aria-label="Cautions">
            {[...new Set(productsOf(request).flatMap(pourCautions))].map((text) => (
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
  by,
  printedAt,
}: {
  name: string;
  request: PlanRequest;
  plan: Plan;
  units: UnitPreferences;
  by: 'weight' | 'volume';
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
          Measured by {by}: A : B ={' '}
          <b>{(by === 'weight' ? plan.product.ratioByWeight : plan.product.ratioByVolume)?.toFixed(2)} : 1</b>
          {by === 'weight'
            ? ` by weight (${plan.product.ratioByVolume?.toFixed(2)} : 1 by volume)`
            : ` by volume (${plan.product.ratioByWeight?.toFixed(2)} : 1 by weight)`}
        </p>
      )}
      <p className={styles.printed}>printed {shortTime(printedAt)}</p>
    </header>
  );
}

function Dams({ plan, units }: { plan: Plan; units: UnitPreferences }) {
  if (plan.pieces.length === 0) return null;
  return (
    <section className={styles.dams}>
      <h2>Dams, before anything is mixed</h2>
      <ul>
        {plan.pieces.map(({ designId, copy, tag, copyNumbers, dams }) => (
          <li key={pieceKey({ designId, copy })}>
            <Tick /> {copy === null ? `${tag} ${copyNames(copyNumbers)}` : tag}:{' '}
            {closedRuns(dams).length > 0 ? damWords(dams, units) : 'no dam, its own walls hold the water'}
          </li>
        ))}
      </ul>
      {plan.totals.cutList.length > 0 && (
        <p className={styles.cutList}>
          To cut:{' '}
          {plan.totals.cutList
            .map(
              ({ method, stripMm, topMm, count }) =>
                `${count} × ${method} ${formatCut(stripMm, units)} × ${formatCut(topMm, units)}`,
            )
            .join('; ')}
        </p>
      )}
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
  dammed,
  plantsFirst,
  request: whole,
  units,
  by,
}: {
  layer: LayerPlan;
  of: number;
  dammed: boolean;
  plantsFirst: boolean;
  request: PlanRequest;
  units: UnitPreferences;
  by: 'weight' | 'volume';
}) {
  const { cure } = layer;
  const request = requestOfLayer(whole, layer);
  const { parts } = request.product;
  const { scaleStepGrams } = request.bench;
  const reader = readerOf(request.product, { units, scaleStepGrams, by });
  const mass = (value: number): string => formatOnScale(value, scaleStepGrams, units);
  const { byLamp, spread, after, waitsFor } = CURE_MODELS[request.product.cureModel];
  const brushed = spread !== null && layer.wetMm < spread.upToMm;
  const bottle = layer.cups.every((cup) => fromBottle(request, cup));
  const density = pouredDensity(request.product);
  /** As the maker measures it. */
  const measured = (value: number): string => (by === 'weight' ? mass(value) : ml(value / density));
  const ml = (value: number): string => formatMeasure(value, 'volume', units);
  const amount = (grams: number, density: number): React.ReactNode => (
    <td className={styles.amount}>
      {by === 'weight' ? mass(grams) : ml(grams / density)}
      <small>{by === 'weight' ? ml(grams / density) : mass(grams)}</small>
    </td>
  );
  // A column for everything that any cup takes beside the product.
  const colours = new Map(
    layer.cups.flatMap(({ portions }) => colourPortionsOf(portions).map(({ key, name }) => [key, name] as const)),
  );
  return (
    <section className={styles.layer}>
      <h2>
        Layer {layer.number} of {of}: up to {formatMeasure(layer.toMm, 'length', units)},{' '}
        {brushed ? 'spread' : 'poured'} {formatMeasure(layer.wetMm, 'length', units)} thick
        {layer.productId !== undefined && `, ${request.product.name.toLowerCase()}`}
        {tintWords(layer)}
      </h2>
      {layer.productId !== undefined && parts && (
        <p>
          {`A : B = ${(by === 'weight' ? ratioByWeight(parts) : ratioByVolume(parts)).toFixed(2)} : 1 by ${by} for this layer`}
        </p>
      )}
      {plantsFirst && (
        <p>
          <Tick /> {PLANTS_FIRST}
        </p>
      )}
      {layer.stock && (
        <p>
          <Tick /> Stock tint for all its cups: <b>{stockWords(layer.stock, reader)}</b>, stirred until even.
        </p>
      )}
      <table>
        <thead>
          <tr>
            <th scope="col">{bottle ? 'From the bottle' : 'Cup'}</th>
            {parts ? (
              <>
                <th scope="col">Part A</th>
                <th scope="col">Part B</th>
              </>
            ) : (
              <th scope="col">Product</th>
            )}
            {[...colours].map(([key, name]) => (
              <th scope="col" key={key}>
                {name}
              </th>
            ))}
            <th scope="col">Pour into</th>
            <th scope="col">Time</th>
          </tr>
        </thead>
        <tbody>
          {layer.cups.map((cup) => {
            const work = cupWork(cup, request.product, request.losses);
            return (
              <tr key={cup.number}>
                <th scope="row">
                  {cup.number}
                  <small>{mass(cup.mixGrams)}</small>
                </th>
                {parts ? (
                  <>
                    {amount(partGrams(cup.portions, 'part A'), parts.densityA)}
                    {amount(partGrams(cup.portions, 'part B'), parts.densityB)}
                  </>
                ) : (
                  <td className={styles.amount}>{measured(partGrams(cup.portions, 'product'))}</td>
                )}
                {[...colours.keys()].map((key) => {
                  const portion = cup.portions.find((one) => one.key === key);
                  const words = portion && portionWords(portion, reader);
                  return (
                    <td key={key} className={styles.doseCell}>
                      {words?.care ? <b>{words.act}</b> : words?.act}
                      <small>{words?.note}</small>
                    </td>
                  );
                })}
                <td className={styles.pours}>
                  {work.steps.map(({ designId, tag, copy, grams, cupShowsGrams }, i) => (
                    <span key={`${designId} ${copy} ${i}`}>
                      <Tick /> {tag} #{copy} <b>{measured(grams)}</b>
                      {!bottle && (
                        <small>
                          {by === 'weight' ? 'until the cup shows' : 'the cup falls to'} {measured(cupShowsGrams)}
                        </small>
                      )}
                    </span>
                  ))}
                </td>
                <td className={styles.time}>
                  {work.stirMinutes > 0 && <span>stir {formatMinutes(work.stirMinutes)}</span>}
                  {work.pourByMinutes !== null && <span>empty within {formatMinutes(work.pourByMinutes)}</span>}
                  {parts && <small>sets up in {formatMinutes(cup.potLifeMinutes)}</small>}
                  {byLamp && <span>lamp {formatMinutes(request.product.demouldMinutes)}</span>}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className={styles.cure}>
        {cure.poured ? 'Poured' : 'Pour'} <b>{shortTime(cure.pouredAt)}</b>.
        {lookWords(looksAfter(request.product, dammed))}
        {byLamp &&
          ` ${after.title}, then ${formatMinutes(request.product.demouldMinutes)} under the lamp, every part in its light.`}
        {waitsFor && layer.number < of && ` ${waitsFor.title}: ${waitsFor.under.toLowerCase()}`}{' '}
        {layer.number < of
          ? `Next layer from ${shortTime(cure.recoatOpensAt)}${cure.recoatClosesAt ? ` to ${shortTime(cure.recoatClosesAt)}; later, abrade first` : ''}.`
          : `Dams off ${shortTime(cure.demouldAt)}. Full cure ${shortTime(cure.fullCureAt)}.`}{' '}
        Times are estimates for this room.
      </p>
    </section>
  );
}

/** The surface finish: what goes on, how thick, and when. */
function FinishLines({ finish, units }: { finish: FinishPlan; units: UnitPreferences }) {
  return (
    <section className={styles.layer}>
      <h2>{`Then the surface: ${finish.name.toLowerCase()}`}</h2>
      <ul>
        {finish.at.map((at, i) => (
          <li key={i}>
            <Tick /> {`Coat ${i + 1} of ${finish.coats}, ${shortTime(at)}: `}
            <b>{formatMeasure(finish.mixGrams / finish.coats, 'mass', units)}</b>
            {` for all pieces, ${formatMeasure(finish.wetMm, 'length', units, 2)} wet`}
          </li>
        ))}
      </ul>
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
