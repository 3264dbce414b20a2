'use client';

import { cupWork } from '@/core/mixing/cupWork';
import { requestOfLayer } from '@/core/plan';
import type { BatchPlanView } from '@/core/records/views';
import { formatMeasure, formatMinutes } from '@/core/units/formatMeasure';
import { PrintFrame } from '@/ui/print/PrintFrame';
import { pourWords } from '../desk/summarise';
import { doseWords } from './doseWords';
import styles from './CupLabels.module.css';

/** A label for every cup of a batch: what goes in, what it fills, until when. Cut apart and put on the empty cups. */
export function CupLabels({ setId, batch, request, plan, settings }: BatchPlanView) {
  const { units, measureBy } = settings;
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units);
  return (
    <PrintFrame label="Cup labels" back={`/sets/${setId}/pour?batch=${batch.id}`} backTo="Back to the batch">
      {() => (
        <main className={styles.sheet}>
          {(!request || !plan || plan.layers.length === 0) && <p>This batch has no cups yet.</p>}
          {request &&
            plan?.layers.flatMap((layer) =>
              layer.cups.map((cup) => {
                const own = requestOfLayer(request, layer);
                const { pourByMinutes, stirMinutes } = cupWork(cup, own.product, own.losses);
                const parts = cup.parts;
                const amount = (grams: number, ml: number): string =>
                  measureBy === 'weight' ? mass(grams) : formatMeasure(ml, 'volume', units);
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
                          A <b>{amount(parts.partAGrams, parts.partAMl)}</b> B{' '}
                          <b>{amount(parts.partBGrams, parts.partBMl)}</b>
                        </>
                      ) : (
                        <b>{mass(cup.mixGrams)}</b>
                      )}
                    </p>
                    {cup.doses
                      .filter(({ grams }) => grams > 0)
                      .map((dose) => (
                        <p key={dose.id} className={styles.dose}>
                          {dose.name}: <b>{doseWords(dose, cup, own, units).act}</b>
                        </p>
                      ))}
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
            )}
        </main>
      )}
    </PrintFrame>
  );
}
