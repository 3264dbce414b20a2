'use client';

import Button from '@mui/material/Button';
import Link from 'next/link';
import { shortTime } from '@/core/time/dayNames';
import type { WorkshopBenchView } from '@/core/run/views';
import { LampSwitch } from '@/ui/theme/LampSwitch';
import { piecesDry } from '@/core/records/work';
import { RunLine } from './RunLine';
import { useBegin } from './useBegin';
import styles from './WorkshopBench.module.css';

/** The bench of the whole workshop: what is being poured, and what can be; where a tablet for the bench begins. */
export function WorkshopBench({ view, onlyBench }: { view: WorkshopBenchView; onlyBench: boolean }) {
  const { busy, trouble, begin } = useBegin();
  const { runs, batches, serverNow } = view;
  return (
    <div className={styles.page}>
      <header className={styles.head}>
        <h1>Bench</h1>
        {!onlyBench && <Link href="/">All sets</Link>}
        <LampSwitch />
      </header>
      <main className={styles.bench}>
        {runs.length > 0 && (
          <section aria-label="Under way">
            <h2>Under way</h2>
            <ul className={styles.runs}>
              {runs.map((run) => (
                <RunLine key={run.id} run={run} serverNow={serverNow} withSet />
              ))}
            </ul>
          </section>
        )}
        {batches.length > 0 && (
          <section aria-label="To be poured">
            <h2>To be poured</h2>
            <ul className={styles.batches}>
              {batches.map(({ id, setId, set, name, pourAt, layersPoured, dry }) => (
                <li key={id}>
                  <span>
                    <b>{name}</b> {set}
                  </span>
                  <span>
                    {dry > 0
                      ? piecesDry(dry)
                      : layersPoured > 0
                        ? `${layersPoured === 1 ? 'layer 1 is' : `${layersPoured} layers are`} poured`
                        : shortTime(pourAt)}
                  </span>
                  <span className={styles.presses}>
                    <Button component={Link} href={`/cards/${setId}/${id}`} aria-label={`Pour card of ${name}`}>
                      Pour card
                    </Button>
                    <Button
                      variant="contained"
                      disabled={busy}
                      aria-label={`Begin ${name}`}
                      onClick={() => void begin(id)}
                    >
                      {dry > 0 ? 'Pour the rest' : 'Begin'}
                    </Button>
                  </span>
                </li>
              ))}
            </ul>
          </section>
        )}
        {trouble && (
          <p role="alert" className={styles.trouble}>
            {trouble}
          </p>
        )}
        {runs.length + batches.length === 0 && (
          <p className={styles.teach}>
            Nothing is to be poured. Plan a batch at the desk; it stands here as soon as it has pieces.
          </p>
        )}
      </main>
    </div>
  );
}
