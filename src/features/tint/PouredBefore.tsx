'use client';

import { useEffect, useState } from 'react';
import { deltaE } from '@/core/tint/difference';
import { linearFromHex } from '@/core/tint/colour';
import { lightByDepth } from '@/core/tint/waterLook';
import { tintOfRequest } from '@/core/plan';
import type { BatchDetail } from '@/core/records/views';
import type { WaterTint } from '@/core/tint/waterTint';
import { readDetail } from '../desk/useBatch';
import { differenceWords } from './differenceWords';
import { RecipeWedge, type RecipeWedgeProps } from './RecipeWedge';
import styles from './TintStage.module.css';

interface PouredBeforeProps {
  batch: { id: string; name: string };
  tint: WaterTint;
  wedge: Omit<RecipeWedgeProps, 'name' | 'tint' | 'marks'>;
}

/** The water of an old batch, as it was mixed then, beside what the recipe gives today: old pieces next to new ones. */
export function PouredBefore({ batch, tint, wedge }: PouredBeforeProps) {
  const [read, setRead] = useState<{ of: string; detail: BatchDetail | null } | null>(null);
  useEffect(() => {
    void readDetail(batch.id).then((detail) => setRead({ of: batch.id, detail }));
  }, [batch.id]);
  if (read?.of !== batch.id) return <p className={styles.small}>Reading what was poured…</p>;
  const then = read.detail?.kept?.request;
  if (!then) return <p className={styles.small}>{`Nothing is kept of what ${batch.name} was mixed from.`}</p>;
  const old = tintOfRequest(then);
  const bed = linearFromHex(wedge.bedColour);
  const apart = deltaE(lightByDepth(bed, old)(wedge.deepestMm), lightByDepth(bed, tint)(wedge.deepestMm));
  return (
    <>
      <h3 className={styles.beside}>{`${batch.name}, as it was mixed: ${then.recipe.name}`}</h3>
      <RecipeWedge name={batch.name} tint={old} marks={[]} {...wedge} />
      <p className={styles.small} role="status">
        {`At the deepest that water and today’s recipe are ${differenceWords(apart)}.`}
      </p>
    </>
  );
}
