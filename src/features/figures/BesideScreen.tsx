'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useTransition } from 'react';
import type { BesideRow, BesideView } from '@/core/records/besideBatches';
import type { BatchOverTime } from '@/core/records/overTime';
import { dayWithYear } from '@/core/time/dayNames';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { HowPress } from '@/ui/reading/HowPress';
import { useOwnWords } from '@/ui/measure/UnitsContext';
import { pageWith } from '../edits/applyChanges';
import { useEdits } from '../edits/useEdits';
import { PageFrame } from '../PageFrame';
import styles from './BesideScreen.module.css';

/** Two batches beside each other: what was different, the most different first. */
export function BesideScreen({ initial }: { initial: BesideView }) {
  const edits = useEdits(initial, { view: 'log' }, pageWith);
  const { view } = edits;
  const router = useRouter();
  const [reading, start] = useTransition();
  const { batches, a, b, rows } = view;
  const go = (one: string, other: string): void =>
    start(() => router.replace(`/beside?${new URLSearchParams({ a: one, b: other }).toString()}`));
  const choices = batches.map(({ batchId, name, set, at }) => ({
    value: batchId,
    label: `${set}, ${name}, ${dayWithYear(at.slice(0, 10))}`,
  }));
  return (
    <PageFrame
      edits={edits}
      title="Beside each other"
      page="beside"
      ways={[
        { href: '/log', words: 'Log of the workshop' },
        { href: '/figures', words: 'Figures over time' },
      ]}
      widthPx={1000}
    >
      {!a || !b ? (
        <p className={styles.none}>Once two batches are poured, what was different between them stands here.</p>
      ) : (
        <div aria-busy={reading} className={styles.both}>
          <div className={styles.head}>
            <ChoiceField
              label="One batch"
              value={a.batchId}
              choices={choices.filter(({ value }) => value !== b.batchId)}
              onCommit={(id) => go(id, b.batchId)}
            />
            <ChoiceField
              label="Beside"
              value={b.batchId}
              choices={choices.filter(({ value }) => value !== a.batchId)}
              onCommit={(id) => go(a.batchId, id)}
            />
          </div>
          <Rows title="Different" rows={rows.filter(({ apart }) => apart > 0)} a={a} b={b} />
          <Rows title="The same, or not told of both" rows={rows.filter(({ apart }) => apart === 0)} a={a} b={b} />
        </div>
      )}
    </PageFrame>
  );
}

function Rows({
  title,
  rows,
  a,
  b,
}: {
  title: string;
  rows: readonly BesideRow[];
  a: BatchOverTime;
  b: BatchOverTime;
}) {
  const own = useOwnWords();
  const say = (words: string | null): string => (words === null ? 'not recorded' : own(words));
  const nameOf = ({ setId, batchId, name }: BatchOverTime) => (
    <Link href={`/sets/${setId}/log?batch=${batchId}`}>{name}</Link>
  );
  if (rows.length === 0) return null;
  return (
    <table className={styles.rows}>
      <caption>{title}</caption>
      <thead>
        <tr>
          <th scope="col">{nameOf(a)}</th>
          <td />
          <th scope="col">{nameOf(b)}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ what, how, a: left, b: right }) => (
          <tr key={what}>
            <td data-none={left === null}>{say(left)}</td>
            <th scope="row">
              <HowPress
                label={what}
                figure={[left, right].map(say).join(' · ')}
                explain={() => ({
                  title: what,
                  formula: own(how),
                  inputs: [
                    { label: a.name, value: say(left) },
                    { label: b.name, value: say(right) },
                  ],
                  assumptions: [],
                  estimate: false,
                })}
              />
            </th>
            <td data-none={right === null}>{say(right)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
