'use client';

import { cupWork } from '@/core/pouring/cupWork';
import { requestOfLayer, type PlanRequest } from '@/core/plan';
import { colourPortionsOf, partGrams, portionWords, readerOf, stockWords } from '@/core/pouring/portionWords';
import type { BatchPlanView } from '@/core/records/views';
import { formatMeasure, formatMinutes, formatOnScale } from '@/core/units/formatMeasure';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { pourWords } from '../desk/summarise';
import styles from './CupLabels.module.css';

/** A label for every cup of a batch: what goes in, what it fills, until when. Cut apart and put on the empty cups. */
export function CupLabels({ setId, batch, request, plan, settings }: BatchPlanView) {
  const { units, measureBy } = settings;
  const maker = ({ bench }: PlanRequest) => ({ units, scaleStepGrams: bench.scaleStepGrams, by: measureBy });
  return (
    <PrintFrame label="Cup labels" back={`/sets/${setId}/pour?batch=${batch.id}`} backTo="Back to the batch">
      {() => (
        <main className={styles.sheet}>
          {(!request || !plan || plan.layers.length === 0) && <p>This batch has no cups yet.</p>}
          {request &&
            plan?.layers.flatMap((layer) => [
              layer.stock && (
                <section
                  key={`${layer.number} stock`}
                  className={styles.label}
                  aria-label={`Layer ${layer.number}, stock tint`}
                >
                  <h2>
                    {layer.number}
                    <span>layer {layer.number}, stock tint</span>
                  </h2>
                  <p className={styles.of}>{batch.data.name}</p>
                  <p className={styles.dose}>
                    <b>{stockWords(layer.stock, readerOf(requestOfLayer(request, layer).product, maker(request)))}</b>
                  </p>
                  <p className={styles.of}>
                    {`made before its cups, stirred until even${layer.parts ? ' · no part B in it' : ''} · gloves`}
                  </p>
                </section>
              ),
              ...layer.cups.map((cup) => {
                const own = requestOfLayer(request, layer);
                const { pourByMinutes, stirMinutes } = cupWork(cup, own.product, own.losses);
                const { parts } = own.product;
                const { scaleStepGrams } = own.bench;
                const mass = (grams: number): string => formatOnScale(grams, scaleStepGrams, units);
                const amount = (way: 'part A' | 'part B', density: number): string =>
                  measureBy === 'weight'
                    ? mass(partGrams(cup.portions, way))
                    : formatMeasure(partGrams(cup.portions, way) / density, 'volume', units);
                return (
                  <section
                    key={`${layer.number} ${cup.number}`}
                    className={styles.label}
                    aria-label={`Layer ${layer.number}, cup ${cup.number}`}
                  >
                    <h2>
                      {layer.number}·{cup.number}
                      <span>
                        layer {layer.number}, cup {cup.number}
                      </span>
                    </h2>
                    <p className={styles.of}>
                      {batch.data.name} · {own.product.name.toLowerCase()}
                    </p>
                    <p className={styles.parts}>
                      {parts ? (
                        <>
                          A <b>{amount('part A', parts.densityA)}</b> B <b>{amount('part B', parts.densityB)}</b>
                        </>
                      ) : (
                        <b>{mass(partGrams(cup.portions, 'product'))}</b>
                      )}
                    </p>
                    {colourPortionsOf(cup.portions).map((portion) => {
                      const { act, note } = portionWords(portion, readerOf(own.product, maker(own)));
                      return (
                        <p key={portion.key} className={styles.dose}>
                          {portion.name}: <b>{act}</b>
                          {portion.resinGrams > 0 && <small>{` ${note}`}</small>}
                        </p>
                      );
                    })}
                    <p className={styles.pours}>{pourWords(cup.pours)}</p>
                    <p className={styles.of}>
                      {[
                        stirMinutes > 0 && `stir ${formatMinutes(stirMinutes)}`,
                        pourByMinutes !== null && `empty within ${formatMinutes(pourByMinutes)}`,
                        'gloves; label and data sheet come first',
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </p>
                  </section>
                );
              }),
            ])}
        </main>
      )}
    </PrintFrame>
  );
}
