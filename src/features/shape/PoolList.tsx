'use client';

import type { PieceDesign, PoolLevel } from '@/core/model/designSchema';
import { pieceDesignSchema } from '@/core/model/designSchema';
import { spillWords, type PiecePlan, type PoolPlan } from '@/core/plan';
import { complaintAt } from '@/core/records/replaceAt';
import type { Stored } from '@/core/model/stored';
import { formatMeasure } from '@/core/units/formatMeasure';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useUnits } from '@/ui/measure/UnitsContext';
import { useDesk } from '../desk/DeskContext';
import styles from './PoolList.module.css';

/** The pools of a piece that has several, or one at a level of its own: how much, where it runs over, and its level to type. */
export function PoolList({
  design,
  piece,
  setLevelMm,
}: {
  design: Stored<PieceDesign>;
  piece: PiecePlan;
  setLevelMm: number;
}) {
  const { shapeDesign } = useDesk();
  const units = useUnits();
  const { data } = design;
  if (piece.pools.length < 2 && !data.poolLevels?.length) return null;
  const mm = (value: number): string => formatMeasure(value, 'length', units);
  const put = (pool: PoolPlan, levelMm: number): void =>
    shapeDesign(
      design.id,
      (newest) => ({ ...newest, poolLevels: withLevel(newest.poolLevels ?? [], pool, levelMm, setLevelMm) }),
      `Change the level of ${pool.name.toLowerCase()} of ${data.tag}`,
    );
  return (
    <section aria-label="Pools" className={styles.pools}>
      {piece.pools.map((pool) => (
        <div key={pool.name} className={styles.pool}>
          <div>
            <h3>{pool.name}</h3>
            <p>{`${formatMeasure(pool.volumeMl, 'volume', units)}, ${mm(pool.greatestDepthMm)} deep${pool.spill ? `; runs over at ${mm(pool.spill.levelMm)} ${spillWords(pool.spill)}` : ''}`}</p>
          </div>
          <MeasureField
            label="Its level"
            quantity="length"
            step={0.1}
            value={pool.levelMm}
            hint={pool.levelMm === setLevelMm ? 'as the set' : undefined}
            validate={(value) =>
              complaintAt(pieceDesignSchema, data, ['poolLevels'], [{ xMm: 0, yMm: 0, levelMm: value }])
            }
            onCommit={(value) => put(pool, value)}
          />
        </div>
      ))}
    </section>
  );
}

/** The marks with one pool brought to a level: its own mark moved, a new one put in its deepest place, or taken out at the set's level. */
export function withLevel(
  marks: readonly PoolLevel[],
  pool: Pick<PoolPlan, 'levelMm' | 'deepest'>,
  levelMm: number,
  setLevelMm: number,
): PoolLevel[] {
  const away = ({ xMm, yMm }: PoolLevel): number => Math.hypot(xMm - pool.deepest.xMm, yMm - pool.deepest.yMm);
  const own =
    pool.levelMm === setLevelMm
      ? undefined
      : marks.filter((mark) => mark.levelMm === pool.levelMm).sort((a, b) => away(a) - away(b))[0];
  const others = marks.filter((mark) => mark !== own);
  return levelMm === setLevelMm
    ? others
    : [...others, { xMm: own?.xMm ?? pool.deepest.xMm, yMm: own?.yMm ?? pool.deepest.yMm, levelMm }];
}
