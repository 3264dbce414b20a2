'use client';

import { lazy, Suspense, useDeferredValue } from 'react';
import Button from '@mui/material/Button';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { shortTime } from '@/core/time/dayNames';
import { explainBatch, explainFinish, explainProduct, type BatchFigure, type FinishPlan } from '@/core/plan';
import type { BatchRow } from '@/core/records/views';
import type { Settings } from '@/core/records/recordSchemas';
import { formatMeasure, formatMoney, measureText } from '@/core/units/formatMeasure';
import { Toggles } from '@/ui/controls/Toggles';
import { Held } from '@/ui/held/Held';
import { Problems } from '@/ui/mark/Problems';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { useDesk } from '../desk/DeskContext';
import { Hint } from '../help/Hint';
import { BatchList } from '../desk/BatchList';
import { BatchPieces } from '../desk/BatchPieces';
import { BatchPlan, type PlannedBatch } from '../desk/BatchPlan';
import { useBatch, type ServedBatch } from '../desk/useBatch';
import { BenchRules } from './BenchRules';
import { LayerCups } from './LayerCups';
import { StockAndMoney } from './StockAndMoney';
import styles from './PourStage.module.css';

const Builds = lazy(async () => ({ default: (await import('./BuildsView')).BuildsView }));

/** Pour: what goes into which cup and which cup into which piece, layer by layer. */
export function PourStage({ served }: { served: ServedBatch | null }) {
  return useSearchParams().get('show') === 'builds' ? (
    <Suspense fallback={null}>
      <Builds />
    </Suspense>
  ) : (
    <BatchView served={served} />
  );
}

/** A batch: its pieces, its cups, its numbers. */
function BatchView({ served }: { served: ServedBatch | null }) {
  const { desk } = useDesk();
  const open = useBatch(served);
  const { batch, request, planning, choose } = open;
  const by = desk.shelf.settings.data.measureBy;
  const filled = useDeferredValue(true, false);
  return (
    <>
      <Hint step="grams" />
      <div className={styles.stage}>
        <div className={styles.side}>
          <BatchList chosen={batch} choose={choose} />
          {batch && <BatchPieces key={batch.id} batch={batch} />}
          <Link className={styles.builds} href={`/sets/${desk.set.id}/pour?show=builds`}>
            Ways to build the water
          </Link>
        </div>
        {!batch && (
          <p className={styles.teach}>
            A batch is the pieces that you pour together.{' '}
            {desk.designs.length === 0
              ? 'Add pieces on the Shape stage first.'
              : 'Plan one: it starts with every piece of the set, and you take out what is not ready.'}
          </p>
        )}
        {batch && !request && (
          <p className={styles.teach}>No pieces in this batch yet. Say at the left how many of each.</p>
        )}
        {batch && request && (
          <BatchPlan key={batch.id} open={open} held={<Held label="Working out the cups" />}>
            {(planned) => (
              <>
                <div className={styles.middle}>
                  <section aria-label="Cups" aria-busy={planning}>
                    {planned.plan.layers.map((layer) => (
                      <LayerCups key={layer.number} {...planned} layer={layer} />
                    ))}
                    {planned.plan.finish && <FinishBlock {...planned} finish={planned.plan.finish} />}
                  </section>
                  {filled && (
                    <BenchRules request={planned.request} cupGrams={planned.plan.layers[0]?.cups[0]?.mixGrams} />
                  )}
                  {filled && <StockAndMoney {...planned} />}
                </div>
                <BatchNumbers {...planned} by={by} choose={choose} />
              </>
            )}
          </BatchPlan>
        )}
      </div>
    </>
  );
}

/** The surface finish after the last layer. */
function FinishBlock({ finish, request, plan }: PlannedBatch & { finish: FinishPlan }) {
  const units = useUnits();
  return (
    <div className={styles.layer}>
      <h3>
        Then the surface, {finish.name.toLowerCase()}
        <span>
          {finish.coats === 1 ? 'one coat' : `${finish.coats} coats`}, {formatMeasure(finish.wetMm, 'length', units, 2)}{' '}
          wet
        </span>
      </h3>
      <Readings>
        <Reading
          label={finish.coats === 1 ? 'For all pieces' : 'For all pieces, each coat'}
          {...measureText(finish.mixGrams / finish.coats, 'mass', units)}
          note={finish.at.map((at) => shortTime(at)).join(', ')}
          explain={() => explainFinish(finish, { request, plan, prefs: units })}
        />
      </Readings>
    </div>
  );
}

interface BatchNumbersProps extends PlannedBatch {
  by: Settings['measureBy'];
  /** Shows another batch. */
  choose: (id: string) => void;
}

function BatchNumbers({ batch, request, plan, by, choose }: BatchNumbersProps) {
  const { desk, edits, mend } = useDesk();
  const units = useUnits();
  const base = `/sets/${desk.set.id}`;
  const files = `/export/${desk.set.id}/${batch.id}`;
  const explain = (figure: BatchFigure) => () => explainBatch(figure, { request, plan, prefs: units });
  const mass = (value: number): { digits: string; unit: string } => measureText(value, 'mass', units);
  const { parts } = plan.totals;
  const stopped = plan.problems.some(({ severity }) => severity === 'stop') && !batch.poured;
  const measureBy = (school: Settings['measureBy']): void =>
    void edits.run(({ shelf: { settings } }) => {
      const { id, version, data } = settings;
      const label = `Measure by ${school}`;
      return { do: 'put', kind: 'settings', id, version, data: { ...data, measureBy: school }, label };
    }, `Measuring by ${school}, on screen and on cards`);
  const budget = desk.set.data.job?.budget ?? null;
  const next = plan.layers.find(({ cure }) => !cure.poured);
  const other = (grams: number, ml: number): string =>
    by === 'weight' ? formatMeasure(ml, 'volume', units) : formatMeasure(grams, 'mass', units);
  return (
    <section aria-label="Numbers" className={styles.numbers}>
      <h2 className={styles.heading}>
        {plan.totals.pieces} {plan.totals.pieces === 1 ? 'piece' : 'pieces'}, {request.product.name.toLowerCase()}
      </h2>
      <Readings>
        <Reading
          label="To mix"
          {...mass(plan.totals.mixGrams)}
          strong
          explain={explain('mix')}
          note={`${formatMeasure(plan.totals.pouredGrams, 'mass', units)} reaches the pieces`}
        />
        <Reading
          label="Water in all"
          {...measureText(plan.totals.volumeMl, 'volume', units)}
          explain={explain('volume')}
          note={`${formatMeasure(plan.totals.surfaceCm2 * 100, 'area', units)} of surface, ${formatMeasure(Math.max(...plan.pieces.map(({ water }) => water.greatestDepthMm)), 'length', units)} deep at most`}
        />
        {parts && (
          <>
            <Reading
              label={plan.totals.products ? `${request.product.name}, part A` : 'Part A'}
              {...(by === 'weight' ? mass(parts.partAGrams) : measureText(parts.partAMl, 'volume', units))}
              note={other(parts.partAGrams, parts.partAMl)}
              explain={explain('partA')}
            />
            <Reading
              label={plan.totals.products ? `${request.product.name}, part B` : 'Part B'}
              {...(by === 'weight' ? mass(parts.partBGrams) : measureText(parts.partBMl, 'volume', units))}
              note={other(parts.partBGrams, parts.partBMl)}
              explain={explain('partB')}
            />
          </>
        )}
        {plan.totals.doses
          .filter(({ grams }) => grams > 0)
          .map((dose) => (
            <Reading
              key={dose.id}
              label={dose.name}
              digits={dose.grams.toFixed(2)}
              unit="g"
              note={`in the cups, about ${dose.drops} drops; what leaves its bottle stands under Have and need`}
              explain={explain('drops')}
            />
          ))}
        {plan.totals.products
          ?.filter(({ id, mixGrams }) => id !== request.product.id && mixGrams > 0)
          .map((other) => (
            <Reading
              key={other.id}
              label={other.name}
              {...mass(other.mixGrams)}
              explain={() => explainProduct(other, { request, plan, prefs: units })}
              note={
                other.parts
                  ? `${formatMeasure(other.parts.partAGrams, 'mass', units)} of A, ${formatMeasure(other.parts.partBGrams, 'mass', units)} of B`
                  : 'as it comes'
              }
            />
          ))}
        <Reading label="Cups" digits={String(plan.totals.cups)} explain={explain('cups')} />
        <Reading label="Dam strip" {...measureText(plan.totals.damMm, 'length', units, 0)} explain={explain('dams')} />
        <Reading
          label="Cost of the water"
          digits={plan.cost.total.toFixed(2)}
          unit={units.currency}
          note={`${units.currency} ${plan.cost.perPiece.toFixed(2)} a piece`}
          explain={explain('cost')}
        />
        {budget !== null && (
          <Reading
            label="Budget of the job"
            digits={budget.toFixed(2)}
            unit={units.currency}
            note={
              plan.cost.total > budget
                ? `this batch alone is ${formatMoney(plan.cost.total - budget, units)} over it`
                : `this batch's water alone leaves ${formatMoney(budget - plan.cost.total, units)}`
            }
          />
        )}
      </Readings>
      {parts && (
        <div className={styles.school}>
          <Toggles
            label="Measure by"
            shown
            value={by}
            onChoose={measureBy}
            choices={[
              { value: 'weight', label: 'weight' },
              { value: 'volume', label: 'volume' },
            ]}
          />
        </div>
      )}
      <Problems problems={plan.problems} onMend={(what, problem) => mend(what, problem, batch.id)} />
      <div className={styles.actions}>
        {next && !stopped && (
          <Button variant="contained" component={Link} href={`${base}/log?batch=${batch.id}&layer=${next.number}`}>
            Layer {next.number} is poured
          </Button>
        )}
        {!next && (
          <Button component={Link} href={`${base}/log?batch=${batch.id}`}>
            See it in the log
          </Button>
        )}
        {stopped ? (
          <p className={styles.small}>Mend what is in the way, then print the pour card.</p>
        ) : (
          <>
            <Button component={Link} href={`/sets/${desk.set.id}/bench?batch=${batch.id}`}>
              At the bench
            </Button>
            <Button component={Link} href={`/cards/${desk.set.id}/${batch.id}`}>
              Pour card
            </Button>
            <Button component={Link} href={`/labels/${desk.set.id}/cups/${batch.id}`}>
              Cup labels
            </Button>
          </>
        )}
      </div>
      <p className={styles.files}>
        Save: <a href={`${files}/pour-card.csv`}>card as CSV</a>, <a href={`${files}/plan.json`}>plan</a>,{' '}
        <a href={`${files}/plan-request.json`}>plan request</a>
      </p>
      <Button
        variant="text"
        size="small"
        onClick={() =>
          void edits
            .run(() => ({ do: 'plan', setId: desk.set.id, like: batch.id }), 'Another is planned')
            .then((outcome) => outcome.ok && outcome.id && choose(outcome.id))
        }
      >
        Plan another like it
      </Button>
      <Button
        variant="text"
        size="small"
        onClick={() => void edits.run(({ batches }) => removal(batches, batch.id), `Removed ${batch.data.name}`)}
      >
        Remove this batch
      </Button>
    </section>
  );
}

function removal(
  batches: readonly BatchRow[],
  id: string,
): { do: 'remove'; kind: 'batch'; id: string; version: number } | null {
  const stored = batches.find((batch) => batch.id === id);
  return stored ? { do: 'remove', kind: 'batch', id, version: stored.version } : null;
}
