'use client';

import { linearFromHex } from '@/core/tint/colour';
import { deltaE } from '@/core/tint/difference';
import { lightByDepth } from '@/core/tint/waterLook';
import type { WaterTint } from '@/core/tint/waterTint';
import { gradeOf } from '@/core/seams/seam';
import { SEAM_LIMITS } from '@/core/model/seamSchema';
import { GRADE_WORDS, GradeMark } from '@/ui/mark/GradeMark';
import { useDesk } from '../desk/DeskContext';
import { differenceWords } from '../desk/differenceWords';
import { RecipeWedge, type RecipeWedgeProps } from './RecipeWedge';
import type { Beside } from './useBeside';
import styles from './TintStage.module.css';

interface BesideItProps {
  beside: Beside | 'reading' | 'not kept';
  tint: WaterTint;
  wedge: Omit<RecipeWedgeProps, 'name' | 'tint' | 'marks'>;
}

/** Other water under the recipe's own, and how the two would look at a seam. */
export function BesideIt({ beside, tint, wedge }: BesideItProps) {
  const { desk } = useDesk();
  if (beside === 'reading') return <p className={styles.small}>Reading what was poured…</p>;
  if (beside === 'not kept') return <p className={styles.small}>Nothing is kept of what it was mixed from.</p>;
  const bedColour = beside.bedColour ?? wedge.bedColour;
  const here = lightByDepth(linearFromHex(wedge.bedColour), tint)(wedge.deepestMm);
  const there = lightByDepth(linearFromHex(bedColour), beside.tint)(wedge.deepestMm);
  const apart = deltaE(here, there);
  const grade = gradeOf(apart, (desk.set.data.seamLimits ?? SEAM_LIMITS).deltaE);
  return (
    <>
      <h3 className={styles.beside}>{beside.name}</h3>
      <RecipeWedge name={beside.name} tint={beside.tint} marks={[]} {...wedge} bedColour={bedColour} />
      <p className={styles.seam} role="status">
        <GradeMark grade={grade} />
        {`Side by side at the deepest: ${differenceWords(apart)}; a seam of the two ${GRADE_WORDS[grade]}.`}
      </p>
    </>
  );
}
