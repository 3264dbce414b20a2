'use client';

import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { MakeResult } from '@/core/seams/makeList';
import { checkWish } from '@/core/seams/table';
import type { KeptTable } from '@/core/model/tableSchema';
import type { TableStock } from '@/core/seams/tableTiles';
import { makeInWorker } from '@/workers/matching';
import { makeName } from './tableWish';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

const MOST_EXTRAS = 12;
type State = { at: 'idle' } | { at: 'working'; share: number } | { at: 'done'; result: MakeResult; key: string };

/** The fewest pieces to make so that each table of the list can be laid, one at a time. */
export function MakeListPanel({ tables, stock }: { tables: readonly KeptTable[]; stock: TableStock }) {
  const [state, setState] = useState<State>({ at: 'idle' });
  const job = useRef<{ end: () => void } | null>(null);
  useEffect(() => () => job.current?.end(), []);
  const key = JSON.stringify([tables.map(({ wish }) => wish), stock.tiles]);
  const problems = tables.flatMap(({ name, wish }) =>
    checkWish(wish, stock.tiles).map((problem) => `${name}: ${problem}`),
  );
  const work = (): void => {
    setState({ at: 'working', share: 0 });
    const started = makeInWorker(
      tables.map(({ wish }) => wish),
      stock,
      MOST_EXTRAS,
      (share) => job.current === started && setState({ at: 'working', share }),
    );
    job.current = started;
    started.result.then((result) => job.current === started && setState({ at: 'done', result, key }), reportError);
  };
  const stop = (): void => {
    job.current?.end();
    job.current = null;
    setState({ at: 'idle' });
  };
  return (
    <section aria-label="What to make" className={styles.make}>
      <h2 className={match.heading}>What to make</h2>
      <p className={styles.quiet}>
        {tables.length === 1
          ? 'The fewest pieces beside those at hand with which this table can be laid. Add more tables to plan for all of them.'
          : `The fewest pieces beside those at hand with which each of these ${tables.length} tables can be laid, one at a time.`}
      </p>
      {state.at === 'working' ? (
        <p className={match.progress}>
          <LinearProgress variant="determinate" value={state.share * 100} aria-label="Working out what to make" />
          <Button size="small" onClick={stop}>
            Stop
          </Button>
        </p>
      ) : (
        <Button variant="outlined" size="small" disabled={problems.length > 0} onClick={work}>
          Work it out
        </Button>
      )}
      {problems.map((problem) => (
        <p key={problem} className={styles.problem}>
          {problem}
        </p>
      ))}
      <div role="status">
        {state.at === 'done' &&
          (state.key === key ? (
            <Made result={state.result} tables={tables} stock={stock} />
          ) : (
            <p className={styles.quiet}>The tables have changed since; work it out anew.</p>
          ))}
      </div>
    </section>
  );
}

function Made({ result, tables, stock }: { result: MakeResult; tables: readonly KeptTable[]; stock: TableStock }) {
  if (result.kind === 'gave up') return <p>Not found in the time allowed. Ask for less on the largest table.</p>;
  if (result.kind === 'none')
    return (
      <p>{`${result.tables.map((table) => tables[table]?.name).join(' and ')} cannot be laid with any number of these pieces. Free a place, or move an opening.`}</p>
    );
  const { pieces, make, exact, bound } = result.list;
  return (
    <>
      <p>
        <strong>
          {make === 0
            ? 'Nothing: what is at hand will do.'
            : `Make ${make} ${make === 1 ? 'piece' : 'pieces'}: ${pieces
                .filter((piece) => piece.make > 0)
                .map((piece) => `${piece.make} × ${makeName(stock, piece.tile)}`)
                .join(', ')}.`}
        </strong>{' '}
        {make === 0 ? '' : exact ? 'Fewer will not do.' : `Perhaps not the fewest; none has fewer than ${bound}.`}
      </p>
      <p
        className={styles.quiet}
      >{`Needed in all: ${pieces.map((piece) => `${piece.needed} × ${stock.tiles[piece.tile]!.tag}`).join(', ')}.`}</p>
    </>
  );
}
