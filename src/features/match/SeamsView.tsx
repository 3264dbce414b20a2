'use client';

import { useMemo, useState } from 'react';
import { GRADES, type Grade } from '@/core/seams/schema';
import type { MatchSeam, MatchSet } from '@/core/seams/matchSet';
import { GradeMark } from '@/ui/mark/GradeMark';
import { SeamMatrix } from './SeamMatrix';
import { seamName, SeamPanel } from './SeamPanel';
import type { Matching } from './useMatch';
import styles from './MatchStage.module.css';

/** More rows than this are no list to read. */
const MOST_ROWS = 60;

/** A seam by its edges: stays the same when the set is matched anew. */
const keyOf = ({ edges }: MatchSet, { a, b }: MatchSeam): string => [a, b].map((index) => `${edges[index]!.piece} ${edges[index]!.edge}`).sort().join(' | ');

interface SeamsViewProps {
  matching: Matching;
  chosen: string | null;
  onChoose: (key: string) => void;
}

/** All seams of water against water, as a list and as a chart; the chosen one at eye level. */
export function SeamsView({ matching: { match, request }, chosen, onChoose }: SeamsViewProps) {
  const seams = match?.seams ?? [];
  const seam = (match && seams.find((candidate) => keyOf(match, candidate) === chosen)) ?? seams[0] ?? null;
  const choose = (next: MatchSeam): void => onChoose(keyOf(match!, next));
  return (
    <div className={styles.stage}>
      <SeamList match={match} seams={seams} chosen={seam} onChoose={choose} />
      <section aria-label="The seam" className={styles.middle}>
        {seam && match ? <SeamPanel match={match} seam={seam} limits={request.limits} joints={null} /> : match && <p className={styles.teach}>No two wet edges of this set are equally long.</p>}
      </section>
      {match && seams.length > 0 && <SeamMatrix match={match} chosen={seam} onChoose={choose} />}
    </div>
  );
}

interface SeamListProps {
  match: MatchSet | null;
  seams: readonly MatchSeam[];
  chosen: MatchSeam | null;
  onChoose: (seam: MatchSeam) => void;
}

const SHOWN: readonly { value: Grade | 'all'; label: string }[] = [{ value: 'all', label: 'all of them' }, ...GRADES.map((value) => ({ value, label: `that ${value === 'passes' ? 'pass' : value === 'closes' ? 'close' : 'show'}` }))];

function SeamList({ match, seams, chosen, onChoose }: SeamListProps) {
  const [only, setOnly] = useState<Grade | 'all'>('all');
  const counts = useMemo(() => Object.fromEntries(GRADES.map((grade) => [grade, seams.filter((seam) => seam.grade === grade).length])) as Record<Grade, number>, [seams]);
  const listed = seams.filter((seam) => only === 'all' || seam.grade === only);
  return (
    <section aria-label="Seams" className={styles.seams}>
      <h2 className={styles.heading}>Seams, worst first</h2>
      <label className={styles.filter}>
        Show{' '}
        <select value={only} onChange={(event) => setOnly(event.target.value as Grade | 'all')}>
          {SHOWN.map(({ value, label }) => (
            <option key={value} value={value}>
              {value === 'all' ? label : `${counts[value]} ${label}`}
            </option>
          ))}
        </select>
      </label>
      <ul>
        {match &&
          listed.slice(0, MOST_ROWS).map((seam) => (
            <li key={keyOf(match, seam)}>
              <button type="button" className={styles.seam} aria-pressed={seam === chosen} onClick={() => onChoose(seam)}>
                <GradeMark grade={seam.grade} />
                <span>
                  {seamName(match, seam)}
                  <small>{seam.reason}</small>
                </span>
              </button>
            </li>
          ))}
      </ul>
      {listed.length > MOST_ROWS && <p className={styles.more}>{`and ${listed.length - MOST_ROWS} better ones`}</p>}
    </section>
  );
}
