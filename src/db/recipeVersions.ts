import { sql } from 'drizzle-orm';
import type { RecipeVersion } from '@/core/records/views';
import { recipeSchema } from '@/core/model/recipeSchema';
import type { Connection } from './storage';

/** At most so many versions are shown. */
const MOST_VERSIONS = 24;

/**
 * What a recipe has been, newest first, as far as the journal goes back: what each edit made of it, and what stood before the
 * first. Versions that hold the same doses and pours as the one after them (a new name) are left out.
 */
export function recipeVersions(db: Connection, recipeId: string): RecipeVersion[] {
  const rows = db.all<{ at: string; label: string; before: string | null; after: string | null }>(sql`
    select e.at as at, e.label as label, json_extract(c.value, '$.before.data') as before,
      json_extract(c.value, '$.after.data') as after
    from edits e, json_each(e.changes) c
    where e.undone = 0 and json_extract(c.value, '$.kind') = 'recipe' and json_extract(c.value, '$.id') = ${recipeId}
    order by e.id desc`);
  const oldest = rows.at(-1);
  const states = [
    ...rows.map(({ at, label, after }) => ({ at, label, data: after })),
    ...(oldest ? [{ at: null, label: 'before that', data: oldest.before }] : []),
  ];
  const versions: RecipeVersion[] = [];
  for (const { at, label, data } of states) {
    const read = data === null ? null : recipeSchema.safeParse(JSON.parse(data));
    if (!read?.success) continue;
    const newer = versions.at(-1);
    // Of two alike the older stays: it is since then that the recipe has been so.
    if (newer && sameWater(newer, read.data)) versions.pop();
    versions.push({ at, label, recipe: read.data });
  }
  return versions.slice(0, MOST_VERSIONS);
}

const sameWater = ({ recipe }: RecipeVersion, other: RecipeVersion['recipe']): boolean =>
  JSON.stringify([recipe.doses, recipe.pours ?? []]) === JSON.stringify([other.doses, other.pours ?? []]);
