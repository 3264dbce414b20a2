'use client';

import { useMemo, useState } from 'react';
import { seamBetween } from '@/core/seams/matchRow';
import { GRADES, type Grade, type SeamLimits } from '@/core/seams/schema';
import type { MatchSeam, MatchSet } from '@/core/seams/matchSet';
import { GradeMark } from '@/ui/mark/GradeMark';
import { useUnits } from '@/ui/measure/UnitsContext';
import { SeamMatrix } from './SeamMatrix';
import { SeamPanel } from './SeamPanel';
import { seamName, seamWords } from './seamWords';
import type { Matching } from './useMatch';
import styles from './MatchStage.module.css';

/** More rows than this are no list to read. */
const MOST_ROWS = 60;

/** Edges of which most of the water meets water are meant to meet; the others would only by mistake. */
export const MEANT_OVERLAP = 0.5;

/** A seam by its edges: stays the same when the set is matched anew. */
const keyOf = ({ edges }: MatchSet, { a, b }: MatchSeam): string =>
  [a, b]
    .map((index) => `${edges[index]!.piece} ${edges[index]!.edge}`)
    .sort()
    .join(' | ');

interface SeamsViewProps {
  matching: Matching;
  chosen: string | null;
  onChoose: (key: string) => void;
}

/** All seams of water against water, as a list and as a chart; the chosen one at eye level. */
export function SeamsView({ matching: { match, request }, chosen, onChoose }: SeamsViewProps) {
  const seams = match?.seams ?? [];
  const seam =
    (match && chosen ? heldTogether(match, chosen, request.limits) : null) ??
    seams.find(({ wetOverlap }) => wetOverlap >= MEANT_OVERLAP) ??
    seams[0] ??
    null;
  const choose = (next: MatchSeam): void => onChoose(keyOf(match!, next));
  return (
    <div className={styles.stage}>
      <SeamList match={match} seams={seams} chosen={seam} onChoose={choose} />
      <section aria-label="The seam" className={styles.middle}>
        {match && <AnyTwo match={match} seam={seam} onChoose={onChoose} />}
        {seam && match ? (
          <SeamPanel match={match} seam={seam} limits={request.limits} joints={null} />
        ) : (
          match && <p className={styles.teach}>No two wet edges of this set are equally long.</p>
        )}
      </section>
      {match && seams.length > 0 && <SeamMatrix match={match} chosen={seam} onChoose={choose} />}
    </div>
  );
}

/** Any two edges that were chosen, held against each other: one of the seams of the set, or two that are none. */
function heldTogether(match: MatchSet, key: string, limits: SeamLimits): MatchSeam | null {
  const seam = match.seams.find((candidate) => keyOf(match, candidate) === key);
  if (seam) return seam;
  const [a, b] = key.split(' | ').map((name) => match.edges.findIndex((edge) => edgeName(edge) === name));
  if (a === undefined || b === undefined || a < 0 || b < 0) return null;
  return seamBetween(match.edges, a, b, limits);
}

const edgeName = ({ piece, edge }: MatchSet['edges'][number]): string => `${piece} ${edge}`;

/** Two edges of the set's choice face to face, dry ones and unequal ones too. */
function AnyTwo({
  match,
  seam,
  onChoose,
}: {
  match: MatchSet;
  seam: MatchSeam | null;
  onChoose: (key: string) => void;
}) {
  const names = match.edges.map(edgeName);
  const [a, b] = seam ? [names[seam.a]!, names[seam.b]!] : [names[0]!, names[0]!];
  const choice = (label: string, value: string, choose: (name: string) => void): React.ReactNode => (
    <select aria-label={label} value={value} onChange={(event) => choose(event.target.value)}>
      {names.map((name) => (
        <option key={name}>{name}</option>
      ))}
    </select>
  );
  return (
    <p className={styles.anyTwo}>
      Hold {choice('Hold this edge', a, (name) => onChoose([name, b].sort().join(' | ')))} against{' '}
      {choice('against this one', b, (name) => onChoose([a, name].sort().join(' | ')))}
    </p>
  );
}

interface SeamListProps {
  match: MatchSet | null;
  seams: readonly MatchSeam[];
  chosen: MatchSeam | null;
  onChoose: (seam: MatchSeam) => void;
}

type Shown = Grade | 'meant' | 'all';
const SHOWN: readonly { value: Shown; label: string }[] = [
  { value: 'meant', label: 'meant to meet' },
  { value: 'all', label: 'all of them' },
  ...GRADES.map((value) => ({
    value,
    label: `that ${value === 'passes' ? 'pass' : value === 'closes' ? 'close' : 'show'}`,
  })),
];

function SeamList({ match, seams, chosen, onChoose }: SeamListProps) {
  const units = useUnits();
  const [only, setOnly] = useState<Shown>('meant');
  const counts = useMemo(
    () =>
      Object.fromEntries(GRADES.map((grade) => [grade, seams.filter((seam) => seam.grade === grade).length])) as Record<
        Grade,
        number
      >,
    [seams],
  );
  const meant = useMemo(() => seams.filter(({ wetOverlap }) => wetOverlap >= MEANT_OVERLAP), [seams]);
  const listed = only === 'meant' ? meant : seams.filter((seam) => only === 'all' || seam.grade === only);
  return (
    <section aria-label="Seams" className={styles.seams}>
      <h2 className={styles.heading}>Seams, worst first</h2>
      <label className={styles.filter}>
        Show{' '}
        <select value={only} onChange={(event) => setOnly(event.target.value as Shown)}>
          {SHOWN.map(({ value, label }) => (
            <option key={value} value={value}>
              {value === 'all' ? label : `${value === 'meant' ? meant.length : counts[value]} ${label}`}
            </option>
          ))}
        </select>
      </label>
      <ul>
        {match &&
          listed.slice(0, MOST_ROWS).map((seam) => (
            <li key={keyOf(match, seam)}>
              <button
                type="button"
                className={styles.seam}
                aria-pressed={seam === chosen}
                onClick={() => onChoose(seam)}
              >
                <GradeMark grade={seam.grade} />
                <span>
                  {seamName(match, seam)}
                  <small>{seamWords(match, seam, units)}</small>
                </span>
              </button>
            </li>
          ))}
      </ul>
      {listed.length > MOST_ROWS && <p className={styles.more}>{`and ${listed.length - MOST_ROWS} better ones`}</p>}
    </section>
  );
}
