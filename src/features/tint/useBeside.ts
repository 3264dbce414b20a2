'use client';

import { useEffect, useState } from 'react';
import { tintOfRequest } from '@/core/plan';
import { setTint } from '@/core/records/buildRequest';
import type { Stored } from '@/core/model/stored';
import type { OtherSet, RecipeVersion } from '@/core/records/views';
import type { Recipe } from '@/core/model/recipeSchema';
import type { WaterTint } from '@/core/tint/waterTint';
import { shortTime } from '@/core/time/dayNames';
import { useDesk } from '../desk/DeskContext';
import { readDetail } from '../desk/useBatch';
import { useFetched } from '@/ui/useFetched';
import { useTint } from './useTint';

/** Water to hold the recipe against: another recipe, an old batch, an earlier version, the water of another set. */
export interface Beside {
  name: string;
  tint: WaterTint;
  /** The bed that it stands over, where that is not this set's. */
  bedColour?: string | null;
}

const NOTHING = 'none';

/** What may be held against a recipe, the choice of it, and what was chosen once it is read. */
export function useBeside(recipe: Stored<Recipe>) {
  const { desk } = useDesk();
  const others = useFetched<OtherSet[]>(`/api/sets/${desk.set.id}/beside`, desk.set.id);
  const otherSets = others.data ?? [];
  const { tintOf } = useTint();
  const [wanted, setWanted] = useState(NOTHING);
  const versions = useFetched<RecipeVersion[]>(
    `/api/recipes/${encodeURIComponent(recipe.id)}`,
    `${recipe.id} ${recipe.version}`,
  );
  const [batch, setBatch] = useState<{ id: string; beside: Beside | null } | null>(null);
  const [kind, id = ''] = [wanted.split(' ')[0]!, wanted.split(' ').slice(1).join(' ')];
  useEffect(() => {
    if (kind !== 'batch') return;
    void readDetail(id).then((detail) => {
      const then = detail?.kept?.request;
      const name = desk.batches.find((row) => row.id === id)?.data.name ?? '';
      setBatch({
        id,
        beside: then ? { name: `${name}, as it was mixed: ${then.recipe.name}`, tint: tintOfRequest(then) } : null,
      });
    });
    // The name of the batch is that of when it was chosen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [kind, id]);
  // The newest version is the recipe as it stands.
  const earlier = (versions.data ?? []).slice(1);
  const versionName = ({ at, label }: RecipeVersion): string => (at === null ? label : `since ${shortTime(at)}`);
  const poured = desk.batches.filter((row) => row.poured !== null);
  const choices = [
    { value: NOTHING, label: 'nothing' },
    ...earlier.map((version, i) => ({ value: `version ${i}`, label: `this recipe ${versionName(version)}` })),
    ...desk.shelf.recipes
      .filter((other) => other.id !== recipe.id)
      .map((other) => ({ value: `recipe ${other.id}`, label: other.data.name })),
    ...poured.map((row) => ({ value: `batch ${row.id}`, label: `${row.data.name}, as it was mixed` })),
    ...otherSets.map((set) => ({ value: `set ${set.id}`, label: `the set ${set.name}` })),
  ];
  const chosen = (): Beside | 'reading' | 'not kept' | null => {
    if (kind === 'recipe') {
      const other = desk.shelf.recipes.find((one) => one.id === id);
      return other ? { name: other.data.name, tint: tintOf(other) } : null;
    }
    if (kind === 'version') {
      const version = earlier[Number(id)];
      if (!version) return null;
      return {
        name: `${recipe.data.name}, ${versionName(version)}`,
        tint: tintOf({ ...recipe, data: version.recipe }),
      };
    }
    if (kind === 'set') {
      const other = otherSets.find((one) => one.id === id);
      if (!other) return null;
      const { name, productId, recipeId, bedColour } = other;
      const set = { ...desk.set, data: { ...desk.set.data, productId, recipeId } };
      return { name: `The set ${name}`, tint: setTint({ set, shelf: desk.shelf }), bedColour };
    }
    if (kind === 'batch') return batch?.id === id ? (batch.beside ?? 'not kept') : 'reading';
    return null;
  };
  return {
    value: choices.some((choice) => choice.value === wanted) ? wanted : NOTHING,
    choices,
    choose: setWanted,
    chosen: chosen(),
    /** What of the choices could not be read, and how they are read again. */
    notRead:
      others.failed || versions.failed ? () => [others, versions].forEach((one) => one.failed && one.again()) : null,
    versions: earlier.map((version) => ({ ...version, name: versionName(version) })),
  };
}
