'use client';

import type { CSSProperties } from 'react';
import type { DamRun } from '@/core/bed/dams';
import { inwardOf, outlineSize, sideOf, type PointMm } from '@/core/bed/outline';
import { runPath } from '@/core/bed/profile';
import type { Outline, PieceDesign } from '@/core/model/designSchema';
import { spillWords, type PoolPlan } from '@/core/plan';
import styles from './PlanView.module.css';

/** A point of the piece as a place on its sheet. */
export function sheetPlace(outline: Outline, { xMm, yMm }: PointMm): CSSProperties {
  const { widthMm, lengthMm } = outlineSize(outline);
  return { left: `${(xMm / widthMm) * 100}%`, top: `${(1 - yMm / lengthMm) * 100}%` };
}

interface PoolMarkProps {
  pool: PoolPlan;
  named: boolean;
  design: PieceDesign;
  /** True when it stands at another level than the set. */
  ownLevel: boolean;
  measure: (mm: number) => string;
}

/** A pool's name at its deepest, and the place where it would run over first when that is near its level. */
export function PoolMark({ pool, named, design: { outline }, ownLevel, measure }: PoolMarkProps) {
  const { spill, levelMm } = pool;
  return (
    <>
      {named && (
        <span className={styles.pool} style={sheetPlace(outline, pool.deepest)}>
          {ownLevel ? `${pool.name}, at ${measure(levelMm)}` : pool.name}
        </span>
      )}
      {spill && spill.over !== 'dam' && spill.levelMm < levelMm + 3 && (
        <span
          className={styles.spill}
          data-east={spill.xMm > outlineSize(outline).widthMm * 0.7 || undefined}
          data-over={spill.levelMm < levelMm || undefined}
          style={sheetPlace(outline, spill)}
          title={`${pool.name}: ${spillWords(spill)} at ${measure(spill.levelMm)}`}
        >
          <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden>
            <path d="M7 1v9M3 7l4 5 4-5" fill="none" stroke="currentColor" strokeWidth="2" />
          </svg>
          {measure(spill.levelMm)}
        </span>
      )}
    </>
  );
}

/** What is cut for a dam, written along its side. */
export function DamLabel({ outline, dam, cut }: { outline: Outline; dam: DamRun; cut: string }) {
  if (dam.edge === 'rim') return null;
  const side = sideOf(outline, dam.edge);
  if (!side) return null;
  const [x, y] = inwardOf(outline, dam.edge);
  const [dx, dy] = [side.to.xMm - side.from.xMm, side.to.yMm - side.from.yMm];
  const radians = Math.atan2(-dy, dx);
  // Below the words on screen, or above: on whichever side of them the piece is not.
  const below = x * Math.sin(radians) + y * Math.cos(radians) > 0 ? 1 : -1;
  const [from, to] = runPath(outline, dam) as [PointMm, PointMm];
  const middle = { xMm: (from.xMm + to.xMm) / 2, yMm: (from.yMm + to.yMm) / 2 };
  return (
    <span
      className={styles.damText}
      style={{
        ...sheetPlace(outline, middle),
        transform: `translate(-50%, -50%) rotate(${((radians * 180) / Math.PI).toFixed(1)}deg) translateY(${below * 17}px)`,
      }}
    >
      {dam.method === 'none' ? 'open' : `dam ${cut}`}
    </span>
  );
}
