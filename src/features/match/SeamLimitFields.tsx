'use client';

import type { WaterSet } from '@/core/records/recordSchemas';
import { SEAM_LIMITS, seamLimitsSchema, type SeamLimits } from '@/core/model/seamSchema';
import { Fold } from '@/ui/controls/Fold';
import { MeasureField } from '@/ui/measure/MeasureField';
import { useDesk } from '../desk/DeskContext';
import styles from './MatchStage.module.css';

const LIMITS = [
  { key: 'stepMm', label: 'Step', quantity: 'length', step: 0.1 },
  { key: 'gapMm', label: 'Gap of the beds', quantity: 'length', step: 0.1 },
  { key: 'deltaE', label: 'Colour difference', quantity: 'number', step: 0.5 },
] as const;

/** Up to where a seam of this set closes, and up to where it passes at arm's length. */
export function SeamLimitFields({ put }: { put: (change: (set: WaterSet) => WaterSet, label: string) => void }) {
  const { desk } = useDesk();
  const limits = desk.set.data.seamLimits ?? SEAM_LIMITS;
  const change = (key: keyof SeamLimits, i: number, value: number): SeamLimits => ({
    ...limits,
    [key]: i === 0 ? [value, limits[key][1]] : [limits[key][0], value],
  });
  return (
    <Fold summary="What closes, what passes">
      <div className={styles.fields}>
        {LIMITS.flatMap(({ key, label, quantity, step }) =>
          ['closes', 'passes'].map((word, i) => (
            <MeasureField
              key={`${key}${word}`}
              label={`${label}, ${word} to`}
              quantity={quantity}
              step={step}
              value={limits[key][i]!}
              validate={(value) => seamLimitsSchema.safeParse(change(key, i, value)).error?.issues[0]?.message ?? null}
              onCommit={(value) => put((set) => ({ ...set, seamLimits: change(key, i, value) }), `Change what ${word}`)}
            />
          )),
        )}
      </div>
    </Fold>
  );
}
