'use client';

import { useMemo, useState } from 'react';
import { shortTime } from '@/core/cure/dayNames';
import { explainBatch, type BatchFigure } from '@/core/plan';
import type { Mend, Problem } from '@/core/checks/problem';
import { formatMinutes, measureText } from '@/core/units/formatMeasure';
import { Problems } from '@/ui/mark/Problems';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { CureLine } from '@/ui/timeline/CureLine';
import { applyMend } from '../desk/applyMend';
import { useDesk } from '../desk/DeskContext';
import { stageOfProblem } from '../desk/stages';
import { useBatch } from '../desk/useBatch';
import { usePlan } from '../desk/usePlan';
import { BatchList } from '../pour/BatchList';
import { BatchPieces } from '../pour/BatchPieces';
import styles from './CureStage.module.css';

/** Cure: when each layer is poured, can take the next, and when the batch is done. */
export function CureStage() {
  const { desk, door } = useDesk();
  const units = useUnits();
  const { batch, request: written, plan: writtenPlan, choose } = useBatch();
  const [draft, setDraft] = useState<string | null>(null);
  const request = useMemo(() => written && (draft ? { ...written, pourAt: draft } : written), [written, draft]);
  const { plan: livePlan } = usePlan(request, writtenPlan, batch?.id);
  const plan = livePlan ?? writtenPlan;
  const pourAt = (time: string, done: boolean): void => {
    setDraft(time);
    if (!done) return;
    void door
      .run(({ batches }) => {
        const stored = batches.find(({ id }) => id === batch?.id);
        return stored
          ? {
              do: 'put',
              kind: 'batch',
              id: stored.id,
              version: stored.version,
              data: { ...stored.data, pourAt: time },
              label: `Pour ${stored.data.name} at another time`,
            }
          : null;
      }, 'Pour moved')
      .then(() => setDraft((current) => (current === time ? null : current)));
  };
  const explain = (figure: BatchFigure) => () => explainBatch(figure, { request: request!, plan: plan!, prefs: units });
  const [shortest, shortestUnit] = plan
    ? formatMinutes(Math.min(...plan.layers.flatMap(({ cups }) => cups.map((cup) => cup.potLifeMinutes)))).split(
        '\u00a0',
      )
    : [];
  const mend = (what: Mend, problem: Problem): void =>
    void door.run((view) => applyMend(view, what, problem, batch?.id), what.label);
  return (
    <div className={styles.stage}>
      <div className={styles.side}>
        <BatchList chosen={batch} layers={plan?.layers.length ?? null} choose={choose} />
        {batch && <BatchPieces key={batch.id} batch={batch} />}
      </div>
      {(!batch || !request) && (
        <p className={styles.teach}>
          Plan a batch with at least one piece, and its cure line stands here: when each layer can be poured, and when
          everything is done.
        </p>
      )}
      {batch && request && plan && (
        <>
          <section aria-label="Cure line" className={styles.picture}>
            <h2 className={styles.heading}>
              {batch.data.name}
              <span className={styles.legend}>
                <i className={styles.benchKey} /> bench window <i className={styles.settingKey} /> too soft to touch{' '}
                <i className={styles.recoatKey} /> next layer bonds by itself
              </span>
            </h2>
            <CureLine
              layers={plan.layers}
              windows={request.bench.windows}
              onPourAt={batch.data.planned ? undefined : pourAt}
            />
            <div className={styles.scroll} tabIndex={0} role="group" aria-label="Times of the layers">
              <table className={styles.times}>
                <thead>
                  <tr>
                    <th scope="col">Layer</th>
                    <th scope="col">Poured</th>
                    <th scope="col">Recoat window</th>
                    <th scope="col">Dams off</th>
                    <th scope="col">Full cure</th>
                  </tr>
                </thead>
                <tbody>
                  {plan.layers.map(({ number, cure }) => (
                    <tr key={number}>
                      <th scope="row">{number}</th>
                      <td>
                        {shortTime(cure.pouredAt)}
                        {cure.poured ? '' : ' (planned)'}
                      </td>
                      <td>
                        {cure.recoatClosesAt
                          ? `${shortTime(cure.recoatOpensAt)} to ${shortTime(cure.recoatClosesAt)}`
                          : `from ${shortTime(cure.recoatOpensAt)}`}
                      </td>
                      <td>{shortTime(cure.demouldAt)}</td>
                      <td>{shortTime(cure.fullCureAt)}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          </section>
          <section aria-label="Numbers" className={styles.numbers}>
            <h2 className={styles.heading}>What follows</h2>
            <Readings>
              <Reading
                label="Done"
                digits={plan.doneAt ? shortTime(plan.doneAt).split(',')[0]! : ''}
                unit={plan.doneAt?.slice(11) ?? ''}
                strong
                explain={explain('done')}
                note="full cure of the last layer"
              />
              <Reading
                label="Room"
                {...measureText(request.room.temperatureC, 'temperature', units)}
                note={`${Math.round(request.room.humidity * 100)} % humidity, as set on the shelf`}
              />
              <Reading
                label="Cure takes"
                digits={`×${(plan.layers[0]?.cure.factor ?? 1).toFixed(2)}`}
                explain={explain('cureFactor')}
                note={`of the label’s times at ${request.product.referenceC} °C`}
              />
              <Reading
                label="Shortest pot life"
                digits={shortest ?? ''}
                unit={shortestUnit ?? ''}
                explain={explain('potLife')}
              />
            </Readings>
            <Problems
              problems={plan.problems.filter(({ code }) => stageOfProblem(code) === 'cure')}
              onMend={mend}
              empty={
                desk.set.data.benchWindows.length === 0
                  ? 'No bench windows are set: any hour counts as bench time. Press e to set them.'
                  : 'Every pour falls into a bench window and its recoat window.'
              }
            />
          </section>
        </>
      )}
    </div>
  );
}
