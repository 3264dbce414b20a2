import { testDesign } from '../bed/testShapes';
import { planRequestSchema } from '../plan';
import { testRequest } from '../plan/testRequest';
import { guestDesigns, sameLevel } from './guests';
import type { Guest, SetDocuments } from './views';

const stored = <T>(id: string, data: T): { id: string; version: number; data: T } => ({ id, version: 1, data });
const guest = (id: string, tag: string, name = 'Otter Reach', levelMm = 15): Guest => ({
  set: { id: name, name, levelMm },
  design: stored(id, testDesign([], { tag })),
  pieces: [],
  taken: 0,
});
const documents = (guests: Guest[]): Pick<SetDocuments, 'set' | 'designs' | 'guests'> => ({
  set: stored('s', { levelMm: 15 } as SetDocuments['set']['data']),
  designs: [stored('d', testDesign([], { tag: 'T-1' }))],
  guests,
});
const tags = (guests: Guest[]): string[] => guestDesigns(documents(guests)).map(({ data }) => data.tag);

test('guests keep their tags where those are free', () => expect(tags([guest('g', 'OR-1')])).toEqual(['OR-1']));

test('a tag that is taken has the set’s name behind it, and a number where that is taken too; never longer than a tag may be', () => {
  const found = tags([guest('g', 'T-1'), guest('h', 'T-1'), guest('i', 'T-1', 'Otter Reach by the mill')]);
  expect(found).toEqual(['T-1 Otter Re', 'T-1 Otter Re 2', 'T-1 Otter Re 3']);
  expect(new Set(found).size).toBe(3);
  for (const tag of found) expect(tag.length).toBeLessThanOrEqual(16);
  // A plan takes them beside each other.
  const pieces = guestDesigns(documents([guest('g', 'T-1')])).map(({ id, data }) => ({ ...data, designId: id }));
  const request = testRequest();
  expect(planRequestSchema.safeParse({ ...request, pieces: [...request.pieces, ...pieces] }).success).toBe(true);
});

test('pieces whose water stands at another level are left out', () => {
  expect(tags([guest('g', 'OR-1', 'Otter Reach', 12)])).toEqual([]);
  expect(sameLevel({ levelMm: 15 }, { levelMm: 15.04 })).toBe(true);
  expect(sameLevel({ levelMm: 15 }, { levelMm: 15.1 })).toBe(false);
});
