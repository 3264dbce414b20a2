'use client';

import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableContainer from '@mui/material/TableContainer';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import { useMemo, useState } from 'react';
import { shortTime } from '@/core/time/dayNames';
import { withPourAt } from '@/core/schedule/kept';
import { explainBatch, planTimes, withTimes, type BatchFigure, type FinishPlan, type LayerPlan } from '@/core/plan';
import { measureText, minutesText } from '@/core/units/formatMeasure';
import { Held } from '@/ui/held/Held';
import { Problems } from '@/ui/mark/Problems';
import { useUnits } from '@/ui/measure/UnitsContext';
import { Reading, Readings } from '@/ui/reading/Reading';
import { CureLine } from '@/ui/timeline/CureLine';
import { BatchList } from '../desk/BatchList';
import { BatchPieces } from '../desk/BatchPieces';
import { useDesk } from '../desk/DeskContext';
import { stageOfProblem } from '../desk/stages';
import { BatchPlan, type PlannedBatch } from '../desk/BatchPlan';
import { useBatch, type ServedBatch } from '../desk/useBatch';
import styles from './CureStage.module.css';

/** One batch on true time: when each layer is poured, can take the next, and when it is done. */
export function OneBatch({ served }: { served: ServedBatch | null }) {
  const open = useBatch(served);
  const { batch, request, choose } = open;
  return (
    <div className={styles.stage}>
      <div className={styles.side}>
        <BatchList chosen={batch} choose={choose} />
        {batch && <BatchPieces key={batch.id} batch={batch} />}
      </div>
      {!batch || !request ? (
        <p className={styles.teach}>
          Plan a batch with at least one piece, and its cure line stands here: when each layer can be poured, and when
          everything is done.
        </p>
      ) : (
        <BatchPlan key={batch.id} open={open} held={<Held label="Working out the times" />}>
          {(planned) => <Times {...planned} />}
        </BatchPlan>
      )}
    </div>
  );
}

/** The cure line of a planned batch, and what follows from it. */
function Times({ batch, request: written, plan: writtenPlan }: PlannedBatch) {
  const { edits, mend } = useDesk();
  const units = useUnits();
  const [draft, setDraft] = useState<string | null>(null);
  const request = useMemo(() => {
    const { calendar: _, ...rest } = written;
    return draft ? { ...rest, pourAt: draft } : written;
  }, [written, draft]);
  // Only the times move with the pour: its beds and cups stay as they are.
  const plan = useMemo(
    () => (draft ? withTimes(writtenPlan, planTimes(writtenPlan, request)) : writtenPlan),
    [draft, writtenPlan, request],
  );
  const pourAt = (time: string, done: boolean): void => {
    setDraft(time);
    if (!done) return;
    void edits
      .run(({ batches }) => {
        const stored = batches.find(({ id }) => id === batch.id);
        return stored
          ? {
              do: 'put',
              kind: 'batch',
              id: stored.id,
              version: stored.version,
              data: withPourAt(stored.data, time),
              label: `Pour ${stored.data.name} at another time`,
            }
          : null;
      }, 'Pour moved')
      .then(() => setDraft((current) => (current === time ? null : current)));
  };
  const explain = (figure: BatchFigure) => () => explainBatch(figure, { request, plan, prefs: units });
  const shortest = Math.min(...plan.layers.flatMap(({ cups }) => cups.map((cup) => cup.potLifeMinutes)));
  return (
    <>
      <section aria-label="Cure line" className={styles.picture}>
        <h2 className={styles.heading}>
          {batch.data.name}
          <span className={styles.legend}>
            <i className={styles.benchKey} /> bench window <i className={styles.settingKey} /> too soft to touch{' '}
            <i className={styles.recoatKey} /> next layer bonds by itself
          </span>
        </h2>
        <CureLine layers={plan.layers} bench={request.bench} onPourAt={batch.poured ? undefined : pourAt} />
        <LayerTimes layers={plan.layers} finish={plan.finish} />
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
          <Reading label="Shortest pot life" {...minutesText(shortest)} explain={explain('potLife')} />
        </Readings>
        <Problems
          problems={plan.problems.filter(({ code }) => stageOfProblem(code) === 'cure')}
          onMend={(what, problem) => mend(what, problem, batch.id)}
          empty={
            request.bench.windows.length === 0
              ? 'No bench windows are set: any hour counts as bench time. Set them in the workshop, on the shelf.'
              : 'Every pour falls into a bench window and its recoat window.'
          }
        />
      </section>
    </>
  );
}

function LayerTimes({ layers, finish }: { layers: readonly LayerPlan[]; finish?: FinishPlan | undefined }) {
  return (
    <TableContainer tabIndex={0} role="group" aria-label="Times of the layers" className={styles.times}>
      <Table size="small">
        <TableHead>
          <TableRow>
            {['Layer', 'Poured', 'Recoat window', 'Dams off', 'Full cure'].map((head) => (
              <TableCell key={head}>{head}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {layers.map(({ number, cure }) => (
            <TableRow key={number}>
              <TableCell component="th" scope="row">
                {number}
              </TableCell>
              <TableCell>
                {shortTime(cure.pouredAt)}
                {cure.poured ? '' : ' (planned)'}
              </TableCell>
              <TableCell>
                {cure.recoatClosesAt
                  ? `${shortTime(cure.recoatOpensAt)} to ${shortTime(cure.recoatClosesAt)}`
                  : `from ${shortTime(cure.recoatOpensAt)}`}
              </TableCell>
              <TableCell>{shortTime(cure.demouldAt)}</TableCell>
              <TableCell>{shortTime(cure.fullCureAt)}</TableCell>
            </TableRow>
          ))}
          {finish?.at.map((at, i) => (
            <TableRow key={`finish ${i}`}>
              <TableCell component="th" scope="row">{`${finish.name}, coat ${i + 1}`}</TableCell>
              <TableCell>{shortTime(at)} (planned)</TableCell>
              <TableCell colSpan={3}>over the cured water</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </TableContainer>
  );
}
