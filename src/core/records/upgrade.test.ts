import { keptTableSchema } from '../model/tableSchema';
import { shapeOf, upgraded, type UpgradeContext } from './upgrade';

const evening = { weekday: 3, fromMinute: 1140, toMinute: 1290 };
const context: UpgradeContext = {
  workshopWindows: [evening],
  pieceNamed: (text) => {
    const [tag, copy] = text.split(' #');
    return { designId: `id of ${tag}`, copy: copy ? Number(copy) : null };
  },
};
const set = (change: object): Record<string, unknown> =>
  upgraded('set', { name: 'Old', benchWindows: [], ...change }, 1, context) as Record<string, unknown>;

describe('a set of the first shape', () => {
  test('names its boards by what they are', () => {
    const row = { pins: [{ piece: 'SH-A #2', place: 1 }], apart: [['SH-A', 'SH-B #1']] };
    expect(set({ row })['row']).toEqual({
      pins: [{ piece: { designId: 'id of SH-A', copy: 2 }, place: 1 }],
      apart: [
        [
          { designId: 'id of SH-A', copy: null },
          { designId: 'id of SH-B', copy: 1 },
        ],
      ],
    });
  });
  test('keeps its tables: tiles by what they are, quarter turns as turns', () => {
    const laid = [{ column: 1, row: 0, piece: 'HS-1', quarters: 3 }];
    const table = { id: 't', name: 'T', laid, wish: { columns: 4, rows: 3, fixed: laid, openings: [] } };
    const [kept] = set({ tables: [table] })['tables'] as unknown[];
    const place = { column: 1, row: 0, piece: { designId: 'id of HS-1', copy: null }, turns: 3 };
    const read = keptTableSchema.parse(kept);
    expect(read.laid).toEqual([place]);
    expect(read.wish).toMatchObject({ grid: 'square', fixed: [place] });
  });
  test.each([
    ['none', [], null],
    ['the workshop’s', [evening], null],
    ['its own', [{ ...evening, weekday: 5 }], [{ ...evening, weekday: 5 }]],
  ])('with %s bench windows', (_, benchWindows, kept) => expect(set({ benchWindows })['benchWindows']).toEqual(kept));
});

test('the workshop takes the windows that most sets had, unless it has some', () => {
  expect(upgraded('settings', { cupGrams: 180 }, 1, context)).toEqual({ cupGrams: 180, benchWindows: [evening] });
  expect(upgraded('settings', { benchWindows: [] }, 1, context)).toEqual({ benchWindows: [] });
});
test('what is of today stays as it is, and what is no document at all is left alone', () => {
  const today = { name: 'New', benchWindows: [evening] };
  expect(upgraded('set', today, shapeOf('set'), context)).toBe(today);
  expect(upgraded('design', today, 1, context)).toBe(today);
  expect(upgraded('set', 'torn', 1, context)).toBe('torn');
  expect(shapeOf('design')).toBe(1);
});
