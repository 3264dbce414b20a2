'use client';

import { useMemo, useState, type KeyboardEvent, type MouseEvent } from 'react';
import type { MatchSet } from '@/core/seams/matchSet';
import { GRADES } from '@/core/model/seamSchema';
import { GRADE_WORDS } from '@/ui/mark/GradeMark';
import { useUnits } from '@/ui/measure/UnitsContext';
import { seamName, seamWords } from './seamWords';
import styles from './SeamMatrix.module.css';
import type { MatchSeam } from '@/core/seams/matchTypes';

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
  const [under, setUnder] = useState<string | null>(null);
  const cellUnder = ({ currentTarget, clientX, clientY }: MouseEvent<SVGSVGElement>): string | null => {
    const { left, top } = currentTarget.getBoundingClientRect();
    const cell = (px: number): number => Math.floor((px - LABEL) / CELL);
    const key = `${cell(clientY - top)},${cell(clientX - left)}`;
    return at.has(key) ? key : null;
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
          data-over={under ? true : undefined}
          onPointerMove={(event) => setUnder(cellUnder(event))}
          onPointerLeave={() => setUnder(null)}
          onClick={(event) => {
            const key = cellUnder(event);
            if (!key) return;
            setCursor(key.split(',').map(Number) as [number, number]);
            onChoose(at.get(key)!);
          }}
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
          <path className={styles.rules} d={rules(at.keys())} />
          {GRADES.map((grade) => (
            <path
              key={grade}
              className={styles.mark}
              data-grade={grade}
              d={[...at].map(([key, seam]) => (seam.grade === grade ? mark(grade, ...corner(key)) : '')).join('')}
            />
          ))}
          {[...at].map(([key, seam]) => seam === chosen && <Frame key={key} at={key} chosen />)}
          {under && <Frame at={under} />}
          {under && <title>{`${seamName(match, at.get(under)!)}: ${seamWords(match, at.get(under)!, units)}`}</title>}
        </svg>
      </div>
      <p className={styles.key}>
        {GRADES.map((grade) => (
          <span key={grade}>
            <svg width={CELL} height={CELL} aria-hidden>
              <path className={styles.mark} data-grade={grade} d={mark(grade, 0, 0)} />
            </svg>
            {GRADE_WORDS[grade]}
          </span>
        ))}
        {match.edges.filter(({ wet }) => wet).length > MOST_EDGES && <span>{`the first ${MOST_EDGES} edges`}</span>}
      </p>
    </section>
  );
}

/** Upper left corner of a cell that is named by its row and column. */
function corner(key: string): [x: number, y: number] {
  const [row, column] = key.split(',').map(Number) as [number, number];
  return [LABEL + column * CELL, LABEL + row * CELL];
}

/** The squares of all seams in one line: hundreds of them, each a node of its own, held up the whole page. */
const rules = (keys: Iterable<string>): string =>
  [...keys]
    .map(corner)
    .map(([x, y]) => `M${x + 0.5} ${y + 0.5}h${CELL - 1}v${CELL - 1}h${1 - CELL}z`)
    .join('');

function Frame({ at, chosen }: { at: string; chosen?: true }) {
  const [x, y] = corner(at);
  return (
    <rect className={styles.frame} data-chosen={chosen} x={x + 0.5} y={y + 0.5} width={CELL - 1} height={CELL - 1} />
  );
}

const APART = { closes: 0, passes: 2.5, shows: 5.5 };

/** Two waters that meet, or do not. */
function mark(grade: MatchSeam['grade'], x: number, y: number): string {
  const half = APART[grade] / 2;
  return `M${x + 3} ${y + CELL / 2 - half}h5.5M${x + 8.5} ${y + CELL / 2 + half}h5.5`;
}
