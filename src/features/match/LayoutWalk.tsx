'use client';

import { useMemo, useState } from 'react';
import { seamBetween } from '@/core/seams/matchRow';
import type { MatchSet } from '@/core/seams/matchSet';
import { GRADES, type SeamLimits } from '@/core/model/seamSchema';
import type { TableSide, TableWish } from '@/core/model/tableSchema';
import { TABLE_SHAPES } from '@/core/seams/tableShape';
import { layoutJoints, type TableStock } from '@/core/seams/tableTiles';
import type { LaidTile } from '@/core/seams/tableTypes';
import { tileCut, wayThrough } from '@/core/seams/walk';
import { ChoiceField } from '@/ui/measure/ChoiceField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { WaterlineWalk, type WalkPiece } from '@/ui/waterline/WaterlineWalk';
import { useLiveDesk } from '../desk/DeskContext';
import { pictureBed } from '../desk/pictures';
import { SeamPanel } from './SeamPanel';
import { edgeWords } from './TableGrid';
import { walkJoint } from './seamWords';
import match from './MatchStage.module.css';
import styles from './TableView.module.css';

interface LayoutWalkProps {
  wish: TableWish;
  stock: TableStock;
  laid: readonly LaidTile[];
  match: MatchSet;
  limits: SeamLimits;
}

/** A layout at eye level: along its water from where it comes in, step by step, and every seam of it that does not close. */
export function LayoutWalk({ wish, stock, laid, match: set, limits }: LayoutWalkProps) {
  const { designs, levelMm } = useLiveDesk();
  const units = useUnits();
  const { grid } = wish;
  const { names, sides } = TABLE_SHAPES[grid];
  const joints = useMemo(() => layoutJoints(laid, stock, grid), [laid, stock, grid]);
  const seams = useMemo(() => joints.map(({ a, b }) => seamBetween(set.edges, a, b, limits)), [joints, set, limits]);
  const ends = wish.openings.slice(1);
  const [end, setEnd] = useState(0);
  const [at, setAt] = useState(0);
  const steps = useMemo(() => {
    const [start = { ...(laid[0] ?? { column: 0, row: 0 }), side: 0 as const }, ...others] = wish.openings;
    return wayThrough(laid, (tile, side) => stock.tiles[tile]!.wet[side] ?? false, start, others[end] ?? null, grid);
  }, [laid, stock, wish, end, grid]);
  const edgeOf = (place: number, side: TableSide): MatchSet['edges'][number] =>
    set.edges[stock.edges[laid[place]!.tile * sides.length + side]!]!;
  const pieces = steps.map(({ laid: place, from, to }, i): WalkPiece => {
    const { tile } = laid[place]!;
    const design = designs.find(({ id }) => id === stock.tiles[tile]!.designId)?.data;
    const [first, last] = [edgeOf(place, from), edgeOf(place, to)];
    return {
      key: `${i}`,
      name: stock.tiles[tile]!.tag,
      look: first.look,
      landColour: design?.landColour ?? '#999999',
      rockColour: design?.rockColour,
      liftMm: [0, 0],
      levelMm: [first.levelMm[1], last.levelMm[1]],
      cut: design
        ? tileCut(pictureBed(design, false).grid, design.outline, names[from]!, names[to]!)
        : { lengthMm: stock.sizeMm.widthMm, stepMm: stock.sizeMm.widthMm, heightMm: new Float32Array(2) },
    };
  });
  const walked = steps.slice(1).map((step, i) => {
    const index = joints.findIndex(
      ({ placeA, placeB }) =>
        (placeA === step.laid && placeB === steps[i]!.laid) || (placeB === step.laid && placeA === steps[i]!.laid),
    );
    return { index, ...walkJoint(set, seams[index]!, units) };
  });
  const here = walked[Math.min(at, walked.length - 1)];
  const counts = GRADES.map(
    (grade) =>
      `${seams.filter((seam) => seam.grade === grade).length} ${grade === 'passes' ? 'pass' : grade === 'closes' ? 'close' : 'show'}`,
  ).join(', ');
  return (
    <div className={styles.walk}>
      <div className={styles.quiet}>
        {`${seams.length} seams in this layout: ${counts}. `}
        {ends.length > 1 && (
          <span className="labelled">
            <span>Walk to</span>
            <ChoiceField
              bare
              label="Walk to"
              value={String(end)}
              choices={ends.map((opening, i) => ({ value: String(i), label: `the ${edgeWords(wish, opening)}` }))}
              onCommit={(value) => (setEnd(Number(value)), setAt(0))}
            />
          </span>
        )}
      </div>
      {pieces.length > 0 && (
        <WaterlineWalk
          label="Along the water at eye level"
          pieces={pieces}
          joints={walked}
          levelMm={levelMm}
          at={Math.min(at, walked.length - 1)}
          onAt={setAt}
        />
      )}
      {here && (
        <section aria-label="The seam" className={match.middle}>
          <SeamPanel match={set} seam={seams[here.index]!} limits={limits} joints={joints} />
        </section>
      )}
    </div>
  );
}
