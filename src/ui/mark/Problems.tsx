'use client';

import Button from '@mui/material/Button';
import { pieceKey } from '@/core/model/pieceRef';
import type { Mend, Problem } from '@/core/model/problem';
import { useOwnWords } from '../measure/UnitsContext';
import styles from './Problems.module.css';

const WORDS: Record<Problem['severity'], string> = { stop: 'In the way', warn: 'Take care', hint: 'Good to know' };

/** The mark of a grade: its shape differs as well as its colour. */
export function SeverityMark({ severity }: { severity: Problem['severity'] }) {
  return (
    <svg
      className={styles.mark}
      data-severity={severity}
      width="16"
      height="16"
      viewBox="0 0 16 16"
      role="img"
      aria-label={WORDS[severity]}
    >
      {severity === 'stop' && <path d="M2 2 14 14M14 2 2 14" strokeWidth="2.6" stroke="currentColor" />}
      {severity === 'warn' && (
        <path d="M8 1.5 15 14.5H1Z" fill="none" strokeWidth="2" stroke="currentColor" strokeLinejoin="round" />
      )}
      {severity === 'hint' && <circle cx="8" cy="8" r="5.5" fill="none" strokeWidth="2" stroke="currentColor" />}
    </svg>
  );
}

interface ProblemsProps {
  problems: readonly Problem[];
  /** Carries out a mend; without it only the advice is shown. */
  onMend?: ((mend: Mend, problem: Problem) => void) | undefined;
  /** What stands here when there is nothing to say. */
  empty?: string;
}

/** What is in the way, worst first, each with the press that mends it. */
export function Problems({ problems, onMend, empty }: ProblemsProps) {
  const own = useOwnWords();
  if (problems.length === 0) return empty ? <p className={styles.empty}>{empty}</p> : null;
  const order = { stop: 0, warn: 1, hint: 2 };
  const sorted = [...problems].sort((a, b) => order[a.severity] - order[b.severity]);
  return (
    <ul className={styles.list} aria-label="Warnings">
      {sorted.map((problem, index) => (
        <li
          key={`${problem.code} ${problem.piece ? pieceKey(problem.piece) : ''} ${index}`}
          className={styles.item}
          data-severity={problem.severity}
        >
          <p className={styles.message}>
            <SeverityMark severity={problem.severity} /> <span>{own(problem.message)}</span>
          </p>
          {problem.mend?.target === 'none' && <p className={styles.advice}>{own(problem.mend.label)}</p>}
          {problem.mend && problem.mend.target !== 'none' && onMend && (
            <Button
              size="small"
              variant={problem.severity === 'stop' ? 'contained' : 'outlined'}
              onClick={() => onMend(problem.mend as Mend, problem)}
            >
              {own(problem.mend.label)}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
