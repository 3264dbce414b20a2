import type { Recipe } from '@/core/model/recipeSchema';
import { join } from 'node:path';
import { openDataFile } from './dataFile';
import { edit, undo } from './journal';
import { temporaryFolder } from './testDataFile';
import { recipeVersions } from './recipeVersions';
import { getDocument } from './documents';
import { stockShelf } from './defaults';

const { db } = openDataFile(join(temporaryFolder(), 'versions.db'));
const now = (minute: number): string => `2026-11-26T10:${String(minute).padStart(2, '0')}`;
const CREEK = 'creek-green';
const recipe = (): Recipe => getDocument(db, 'recipe', CREEK)!.data;
const change = (minute: number, label: string, make: (recipe: Recipe) => Recipe): void =>
  void edit(db, 'shelf', label, now(minute), (writer) => writer.put('recipe', CREEK, make(recipe()), null));
const dosed = (grams: number) => (data: Recipe) => ({
  ...data,
  doses: data.doses.map((dose, i) => (i === 0 ? { ...dose, gramsPer100: grams } : dose)),
});
const firstDoses = (): number[] => recipeVersions(db, CREEK).map((version) => version.recipe.doses[0]!.gramsPer100);

beforeAll(() => void stockShelf(db, now(0)));

test('a recipe that was never changed has no versions to show', () => expect(recipeVersions(db, CREEK)).toEqual([]));
test('each change is a version, newest first, and what stood before the first is one too', () => {
  change(1, 'More green', dosed(0.2));
  change(2, 'Less green', dosed(0.15));
  expect(firstDoses()).toEqual([0.15, 0.2, 0.12]);
  expect(recipeVersions(db, CREEK).map(({ at, label }) => [at, label])).toEqual([
    [now(2), 'Less green'],
    [now(1), 'More green'],
    [null, 'before that'],
  ]);
});
test('a new name is no other water', () => {
  change(3, 'Rename', (data) => ({ ...data, name: 'Creek' }));
  expect(firstDoses()).toEqual([0.15, 0.2, 0.12]);
  expect(recipeVersions(db, CREEK)[0]!.at).toBe(now(2));
});
test('what was taken back never was', () => {
  change(4, 'Far too much', dosed(0.9));
  undo(db, 'shelf', now(5));
  expect(firstDoses()).toEqual([0.15, 0.2, 0.12]);
});
test('changes of other recipes are not its own', () => {
  edit(db, 'shelf', 'Other', now(6), (writer) =>
    writer.put('recipe', 'bog-brown', dosed(0.7)(getDocument(db, 'recipe', 'bog-brown')!.data), null),
  );
  expect(firstDoses()).toEqual([0.15, 0.2, 0.12]);
});
