'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { useState } from 'react';
import { stillToPour } from '@/core/records/rest';
import type { RunSummary } from '@/core/run/views';
import { pieceKey } from '@/core/model/pieceRef';
import { formatMeasure } from '@/core/units/formatMeasure';
import { Held } from '@/ui/held/Held';
import { Toggles } from '@/ui/controls/Toggles';
import { BatchList } from '../desk/BatchList';
import { useDesk } from '../desk/DeskContext';
import { useBatch, type ServedBatch } from '../desk/useBatch';
import { Instruments } from './Instruments';
import { RunLine } from './RunLine';
import { useBegin } from './useBegin';
import styles from './BenchStage.module.css';

interface BenchStageProps {
  served: ServedBatch | null;
  runs: RunSummary[];
  serverNow: number;
}

const SPEEDS = [
  { value: '1' as const, label: 'as it is' },
  { value: '4' as const, label: '4 × faster' },
  { value: '10' as const, label: '10 × faster' },
];

/** Bench: begin a batch live, go on with one that is under way, or practise it first. */
export function BenchStage({ served, runs, serverNow }: BenchStageProps) {
  const { desk } = useDesk();
  const { batch, detail, plan, request, choose } = useBatch(served);
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]['value']>('4');
  const { busy, trouble, begin } = useBegin();
  const { units } = desk.shelf.settings.data;
  const open = runs.filter(({ overAt }) => overAt === null);
  const over = runs.filter(({ overAt }) => overAt !== null);
  const own = open.find(({ batchId, practiceSpeed }) => batchId === batch?.id && practiceSpeed === null);
  const toPour = plan && request ? stillToPour(plan, request, detail?.pours ?? []).layers : [];
  const left = toPour.filter((_, i) => !plan!.layers[i]!.cure.poured);
  const dry = batch?.poured?.dry ?? 0;
  const stop = plan?.problems.find(({ severity }) => severity === 'stop');
  return (
    <div className={styles.stage}>
      <BatchList chosen={batch} choose={choose} />
      <div className={styles.bench}>
        {open.length > 0 && (
          <section aria-label="Under way">
            <h2 className={styles.heading}>Under way</h2>
            <ul className={styles.runs}>
              {open.map((run) => (
                <RunLine key={run.id} run={run} serverNow={serverNow} />
              ))}
            </ul>
          </section>
        )}
        {!batch && (
          <p className={styles.teach}>
            At the bench one step at a time is shown, large enough to read from a metre away: what to weigh, when to
            stop, which piece is next, which clock runs. Plan a batch first; then begin it here.
          </p>
        )}
        {batch && request && !plan && <Held label="Working out the cups" />}
        {batch && plan && (
          <section aria-label="Begin">
            <h2 className={styles.title}>{batch.data.name}</h2>
            {left.length === 0 ? (
              <p className={styles.teach}>Every layer of it is poured. What happened is in the log.</p>
            ) : (
              <>
                <ol className={styles.layers}>
                  {left.map((layer, i) => (
                    <li key={layer.number}>
                      <b>{dry > 0 && i === 0 ? `The rest of layer ${layer.number}` : `Layer ${layer.number}`}</b>
                      <span>
                        {layer.cups.length} {layer.cups.length === 1 ? 'cup' : 'cups'},{' '}
                        {formatMeasure(layer.mixGrams, 'mass', units)} into{' '}
                        {new Set(layer.cups.flatMap(({ pours }) => pours.map(pieceKey))).size} pieces
                      </span>
                    </li>
                  ))}
                </ol>
                {stop && !own && (
                  <p role="alert" className={styles.stop}>
                    {stop.message}
                  </p>
                )}
                <div className={styles.begin}>
                  {own ? (
                    <Button variant="contained" size="large" component={Link} href={`/run/${own.id}`}>
                      Go on with it
                    </Button>
                  ) : (
                    <Button
                      variant="contained"
                      size="large"
                      disabled={busy || stop !== undefined}
                      onClick={() => void begin(batch.id)}
                    >
                      {dry > 0 ? 'Pour the rest' : 'Begin the run'}
                    </Button>
                  )}
                  <span className={styles.practise}>
                    <Button
                      size="large"
                      disabled={busy || stop !== undefined}
                      onClick={() => void begin(batch.id, Number(speed))}
                    >
                      Practise it
                    </Button>
                    <Toggles label="How fast practice goes" value={speed} choices={SPEEDS} onChoose={setSpeed} />
                  </span>
                </div>
                <p className={styles.soft}>
                  Practice runs on a simulated scale with a slip or two thrown in; nothing leaves the shelf, nothing
                  goes into the log. A tablet beside the scale shows the same run: pair it on{' '}
                  <Link href="/shelf#devices">Shelf, Devices</Link>.
                </p>
              </>
            )}
            {trouble && (
              <p role="alert" className={styles.stop}>
                {trouble}
              </p>
            )}
          </section>
        )}
        <Instruments />
        {over.length > 0 && (
          <section aria-label="Before">
            <h2 className={styles.heading}>Before</h2>
            <ul className={styles.runs}>
              {over.slice(0, 8).map((run) => (
                <RunLine key={run.id} run={run} serverNow={serverNow} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}
