'use client';

import { useMemo, useState, type KeyboardEvent } from 'react';
import type { MatchSeam, MatchSet } from '@/core/seams/matchSet';
import { GRADES } from '@/core/seams/schema';
import { GRADE_WORDS } from '@/ui/mark/GradeMark';
import { useUnits } from '@/ui/measure/UnitsContext';
import { seamName, seamWords } from './seamWords';
import styles from './SeamMatrix.module.css';

const CELL = 17;
const LABEL = 96;
/** More edges than this make marks too small to tell apart. */
const MOST_EDGES = 48;

interface SeamMatrixProps {
  match: MatchSet;
  chosen: MatchSeam | null;
  onChoose: (seam: MatchSeam) => void;
}

/** Every wet edge against every other (and against itself, turned round): how apart two short strokes stand says how the seam is. */
export function SeamMatrix({ match, chosen, onChoose }: SeamMatrixProps) {
  const units = useUnits();
  const edges = useMemo(() => match.edges.flatMap(({ wet }, i) => (wet ? [i] : [])).slice(0, MOST_EDGES), [match]);
  const place = useMemo(() => new Map(edges.map((edge, i) => [edge, i])), [edges]);
  const at = useMemo(() => {
    const cells = new Map<string, MatchSeam>();
    for (const seam of match.seams) {
      const [row, column] = [place.get(seam.a), place.get(seam.b)];
      if (row === undefined || column === undefined) continue;
      cells.set(`${row},${column}`, seam);
      cells.set(`${column},${row}`, seam);
    }
    return cells;
  }, [match, place]);
  const [cursor, setCursor] = useState<readonly [number, number]>([0, 0]);
  const onKeyDown = (event: KeyboardEvent): void => {
    const move = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (!move) return;
    event.preventDefault();
    let [row, column] = cursor;
    do [row, column] = [row + move[0]!, column + move[1]!];
    while (row >= 0 && column >= 0 && row < edges.length && column < edges.length && !at.has(`${row},${column}`));
    const seam = at.get(`${row},${column}`);
    if (!seam) return;
    setCursor([row, column]);
    onChoose(seam);
  };
  const size = LABEL + edges.length * CELL;
  const name = (index: number): string => `${match.edges[index]!.piece} ${match.edges[index]!.edge}`;
  const counts = GRADES.map(
    (grade) =>
      `${match.seams.filter((seam) => seam.grade === grade).length} ${grade === 'passes' ? 'pass' : grade === 'closes' ? 'close' : 'show'}`,
  ).join(', ');
  return (
    <section aria-label="All seams" className={styles.matrix}>
      <h2 className={styles.heading}>Every edge against every edge</h2>
      <div
        className={styles.scroll}
        tabIndex={0}
        role="group"
        aria-label="Chart of all seams; arrow keys go from seam to seam"
        onKeyDown={onKeyDown}
      >
        <svg
          width={size}
          height={size}
          viewBox={`0 0 ${size} ${size}`}
          role="img"
          aria-label={`${match.seams.length} seams: ${counts}. The list beside it names each.`}
        >
          {edges.map((edge, i) => (
            <g
              key={edge}
              className={styles.label}
              data-here={chosen && (chosen.a === edge || chosen.b === edge) ? true : undefined}
            >
              <text x={LABEL - 7} y={LABEL + i * CELL + 12} textAnchor="end">
                {name(edge)}
              </text>
              <text transform={`translate(${LABEL + i * CELL + 12} ${LABEL - 7}) rotate(-90)`}>{name(edge)}</text>
            </g>
          ))}
          {[...at].map(([key, seam]) => {
            const [row, column] = key.split(',').map(Number) as [number, number];
            return (
              <Cell
                key={key}
                seam={seam}
                x={LABEL + column * CELL}
                y={LABEL + row * CELL}
                chosen={seam === chosen}
                title={`${seamName(match, seam)}: ${seamWords(match, seam, units)}`}
                onPick={() => (setCursor([row, column]), onChoose(seam))}
              />
            );
          })}
        </svg>
      </div>
      <p className={styles.key}>
        {GRADES.map((grade) => (
          <span key={grade}>
            <svg width={CELL} height={CELL} aria-hidden>
              <Mark grade={grade} x={0} y={0} />
            </svg>
            {GRADE_WORDS[grade]}
          </span>
        ))}
        {match.edges.filter(({ wet }) => wet).length > MOST_EDGES && <span>{`the first ${MOST_EDGES} edges`}</span>}
      </p>
    </section>
  );
}

function Cell({
  seam,
  x,
  y,
  chosen,
  title,
  onPick,
}: {
  seam: MatchSeam;
  x: number;
  y: number;
  chosen: boolean;
  title: string;
  onPick: () => void;
}) {
  return (
    <g className={styles.cell} data-chosen={chosen || undefined} onClick={onPick}>
      <title>{title}</title>
      <rect x={x + 0.5} y={y + 0.5} width={CELL - 1} height={CELL - 1} />
      <Mark grade={seam.grade} x={x} y={y} />
    </g>
  );
}

const APART = { closes: 0, passes: 2.5, shows: 5.5 };

/** Two waters that meet, or do not. */
function Mark({ grade, x, y }: { grade: MatchSeam['grade']; x: number; y: number }) {
  const half = APART[grade] / 2;
  return (
    <path
      className={styles.mark}
      data-grade={grade}
      d={`M${x + 3} ${y + CELL / 2 - half}h5.5M${x + 8.5} ${y + CELL / 2 + half}h5.5`}
    />
  );
}
