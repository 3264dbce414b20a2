import type { PieceDesign } from '../model/designSchema';
import type { WaterSet } from './recordSchemas';
import type { Guest, SetDocuments } from './views';
import type { Stored } from '../model/stored';

/** Levels that differ by less stand alike. */
const SAME_LEVEL_MM = 0.05;
const MOST_TAG = 16;

/** Whether the water of two sets stands at one level: their pieces may be poured layer by layer together. */
export const sameLevel = (a: Pick<WaterSet, 'levelMm'>, b: Pick<WaterSet, 'levelMm'>): boolean =>
  Math.abs(a.levelMm - b.levelMm) < SAME_LEVEL_MM;

/**
 * The designs of other sets that a batch may be planned with: those whose water stands at this set's level. A tag that this set (or
 * another guest) has too gets the name of its set behind it, so that no two pieces go by one.
 */
export function guestDesigns({
  set,
  designs,
  guests = [],
}: Pick<SetDocuments, 'set' | 'designs' | 'guests'>): Stored<PieceDesign>[] {
  const tags = new Set(designs.map(({ data }) => data.tag));
  return guests
    .filter((guest) => sameLevel(guest.set, set.data))
    .map(({ set: { name }, design }: Guest) => {
      const tag = freeTag(design.data.tag, name, tags);
      tags.add(tag);
      return tag === design.data.tag ? design : { ...design, data: { ...design.data, tag } };
    });
}

function freeTag(tag: string, setName: string, taken: ReadonlySet<string>): string {
  if (!taken.has(tag)) return tag;
  const room = MOST_TAG - 4;
  const named = `${tag} ${setName}`.slice(0, room).trim();
  if (!taken.has(named)) return named;
  let number = 2;
  while (taken.has(`${named} ${number}`)) number++;
  return `${named} ${number}`;
}
