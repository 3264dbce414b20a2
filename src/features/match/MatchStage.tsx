'use client';

import { useMemo, useState } from 'react';
import type { MatchSeam, MatchSet } from '@/core/seams/matchSet';
import type { RowRules } from '@/core/seams/row';
import { GRADES, type Grade } from '@/core/seams/schema';
import { GradeMark, GRADE_WORDS } from '@/ui/mark/GradeMark';
import { SeamPicture } from '@/ui/waterline/SeamPicture';
import { useDesk } from '../desk/DeskContext';
import { EdgeMeasures } from './EdgeMeasures';
import { RowOfBoards } from './RowOfBoards';
import { SeamFigures } from './SeamFigures';
import { Standards } from './Standards';
import { TableLayout } from './TableLayout';
import { useMatch } from './useMatch';
import styles from './MatchStage.module.css';

const NO_RULES: RowRules = {};
/** More rows than this are no list to read. */
const MOST_ROWS = 60;

/** Match: which edges meet, how well, in which order, and what closes them. */
export function MatchStage() {
  const { desk } = useDesk();
  const [rules, setRules] = useState<RowRules>(NO_RULES);
  const [chosen, setChosen] = useState<string | null>(null);
  const { request, match, matching } = useMatch(rules);
  const seams = match?.seams ?? [];
  const seam = seams.find((candidate) => keyOf(match!, candidate) === chosen) ?? match?.row?.seams.find((candidate) => keyOf(match, candidate) === chosen) ?? seams[0] ?? null;
  if (desk.designs.length === 0) return <p className={styles.teach}>Add pieces on the Shape stage first; here their edges are held against each other.</p>;
  if (match && match.edges.length === 0) return <p className={styles.teach}>These pieces stand free: none has a straight edge that meets another. There is nothing to match.</p>;
  return (
    <div className={styles.stage} aria-busy={matching}>
      <SeamList match={match} seams={seams} chosen={seam} onChoose={(next) => setChosen(keyOf(match!, next))} />
      <section aria-label="The seam" className={styles.middle}>
        <h2 className={styles.heading}>{seam && match ? seamName(match, seam) : 'No seam'}</h2>
        {!seam && match && <p className={styles.teach}>No two wet edges of this set are equally long.</p>}
        {seam && match && (
          <>
            <p className={styles.verdict}>
              <GradeMark grade={seam.grade} /> {seam.grade === 'closes' ? 'It closes.' : `It ${GRADE_WORDS[seam.grade]}: ${seam.reason}.`}
            </p>
            <SeamPicture a={match.edges[seam.a]!} b={match.edges[seam.b]!} seam={seam} />
            <SeamFigures seam={seam} match={match} limits={request.limits} />
            <EdgeMeasures key={`${match.edges[seam.a]!.piece}${match.edges[seam.a]!.edge}`} edge={match.edges[seam.a]!} />
            {seam.b !== seam.a && <EdgeMeasures key={`${match.edges[seam.b]!.piece}${match.edges[seam.b]!.edge}.`} edge={match.edges[seam.b]!} />}
          </>
        )}
      </section>
      <div className={styles.side}>
        <RowOfBoards match={match} rules={rules} onRules={setRules} onSeam={(next) => setChosen(keyOf(match!, next))} />
        <Standards match={match} />
      </div>
      <TableLayout match={match} request={request} />
    </div>
  );
}

/** A seam by its edges: stays the same when the set is matched anew. */
const keyOf = ({ edges }: MatchSet, { a, b }: MatchSeam): string => [a, b].map((index) => `${edges[index]!.piece} ${edges[index]!.edge}`).sort().join(' | ');

export const seamName = ({ edges }: MatchSet, { a, b }: MatchSeam): string => `${edges[a]!.piece} ${edges[a]!.edge} and ${edges[b]!.piece} ${edges[b]!.edge}`;

interface SeamListProps {
  match: MatchSet | null;
  seams: readonly MatchSeam[];
  chosen: MatchSeam | null;
  onChoose: (seam: MatchSeam) => void;
}

const SHOWN: readonly { value: Grade | 'all'; label: string }[] = [{ value: 'all', label: 'all of them' }, ...GRADES.map((value) => ({ value, label: `that ${value === 'passes' ? 'pass' : value === 'closes' ? 'close' : 'show'}` }))];

/** All seams of water against water, worst first. */
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
