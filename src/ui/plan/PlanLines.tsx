'use client';

import { useId, useMemo } from 'react';
import { channelCentreline } from '@/core/bed/centreline';
import type { DamRun } from '@/core/bed/dams';
import type { BedGrid } from '@/core/bed/grid';
import { outlinePolygon, outlineSize, type PointMm } from '@/core/bed/outline';
import { OUTLINE } from '@/core/bed/pointLists';
import { runPath } from '@/core/bed/profile';
import type { PieceDesign } from '@/core/model/designSchema';
import { depthContours, depthLines } from './contours';
import styles from './PlanView.module.css';

interface PlanLinesProps {
  design: PieceDesign;
  levelMm: number;
  grid: BedGrid;
  dams: readonly DamRun[];
  deepestMm: number;
  /** The most contours. */
  most: number;
  /** Below this a pale detail is lost; null: nowhere. */
  lostMm: number | null;
  /** What is being moved: a feature by its place, or the outline; null on a plan that only shows. */
  inHand: number | null;
  /** What a line of 1 is, mm. */
  unit: number;
}

/** Contours, the outline and its dams, north at the top. */
export function PlanLines({ design, levelMm, grid, dams, deepestMm, most, lostMm, inHand, unit }: PlanLinesProps) {
  const clip = useId();
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const lines = useMemo(() => depthContours(grid, levelMm, deepestMm, most), [grid, levelMm, deepestMm, most]);
  const lost = useMemo(() => (lostMm === null ? [] : depthLines(grid, levelMm, [lostMm])), [grid, levelMm, lostMm]);
  const outline = useMemo(() => pathOf(outlinePolygon(design.outline), true), [design.outline]);
  const held = inHand === null ? undefined : design.features[inHand];
  return (
    <g transform={`translate(0 ${lengthMm}) scale(1 -1)`}>
      <clipPath id={clip}>
        <path d={outline} />
      </clipPath>
      <g clipPath={`url(#${clip})`}>
        {lines.map(({ depthMm, path }) => (
          <path key={depthMm} d={path} className={depthMm === 0 ? styles.waterline : styles.contour} />
        ))}
        {lost.map(({ path }) => (
          <path key="lost" d={path} className={styles.lost} />
        ))}
        {held?.kind === 'channel' && (
          <path d={pathOf(channelCentreline(design.outline, held, 0).line, false)} className={styles.centreline} />
        )}
      </g>
      {inHand === OUTLINE && <path d={gridPath(widthMm, lengthMm)} className={styles.grid} />}
      <path d={outline} className={styles.outline} />
      {dams.map((dam) => (
        <path
          key={`${dam.edge}${dam.fromMm}`}
          d={pathOfPoints(runPath(design.outline, dam, unit * 4))}
          className={dam.method === 'none' ? styles.openEdge : styles.dam}
          strokeWidth={unit * 4}
        />
      ))}
    </g>
  );
}

const GRID_MM = 10;

/** Lines every 10 mm over the whole sheet, to draw an outline by. */
function gridPath(widthMm: number, lengthMm: number): string {
  const across = Array.from({ length: Math.floor(widthMm / GRID_MM) + 1 }, (_, i) => `M${i * GRID_MM} 0V${lengthMm}`);
  const up = Array.from({ length: Math.floor(lengthMm / GRID_MM) + 1 }, (_, i) => `M0 ${i * GRID_MM}H${widthMm}`);
  return [...across, ...up].join('');
}

/** A line of points as a path in mm. */
function pathOf(line: Float64Array, closed: boolean): string {
  const pairs = Array.from(
    { length: line.length / 2 },
    (_, i) => `${line[2 * i]!.toFixed(2)} ${line[2 * i + 1]!.toFixed(2)}`,
  );
  return `M${pairs.join('L')}${closed ? 'Z' : ''}`;
}

const pathOfPoints = (points: readonly PointMm[]): string =>
  `M${points.map(({ xMm, yMm }) => `${xMm.toFixed(2)} ${yMm.toFixed(2)}`).join('L')}`;
