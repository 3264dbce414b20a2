import { STRAYS } from '../bed/measured';
import { HARDENED } from '../cure/hardened';
import { TYPICAL_LOSSES } from '../mixing/losses';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import type { LearntFigure, LearntKind } from '../learn/learntFigure';
import { standingOf, withChanged, withFigures, type Figured } from './learnt';
import type { Settings } from './recordSchemas';
import { filledRecord } from './testRecords';

const { id: EPOXY, ...epoxy } = PRODUCT_KINDS.find(({ id }) => id === 'slow-casting-epoxy')!;
const settings: Settings = { ...filledRecord('settings'), losses: TYPICAL_LOSSES };
delete settings.strays;
delete settings.stepMinutes;
const shelf: Figured = {
  settings: { id: 'settings', version: 1, data: settings },
  products: [EPOXY, 'other'].map((id) => ({ id, version: 1, data: epoxy })),
  colourants: ['ink', 'wash'].map((id) => ({ id, version: 1, data: filledRecord('colourant') })),
};
const withOne = (kind: LearntKind, of: LearntFigure['of'], figures: number[]): Figured =>
  withChanged(shelf, withFigures({ kind, of }, figures, shelf));

const FIELDS = {
  pace: 'pourGramsPerMinute',
  stirring: 'stirMinutes',
  'pot life': 'potLifeMinutes',
  ...HARDENED,
} as const;
test.each(Object.entries(FIELDS) as [LearntKind, keyof typeof epoxy][])(
  '%s stands in its product alone, marked as measured',
  (kind, field) => {
    const [own, other] = withOne(kind, EPOXY, [17]).products;
    expect(own!.data[field]).toBe(17);
    expect(own!.data.marks![field]).toBe('measured');
    expect(other!.data).toEqual(epoxy);
  },
);

test('the weight of a drop stands in its colourant alone', () => {
  const [ink, wash] = withOne('drop', 'ink', [0.05]).colourants;
  expect(ink!.data.dropGrams).toBe(0.05);
  expect(wash).toEqual(shelf.colourants[1]);
});

test('how beds stray stands beside the other ways of making them, which stay typical', () => {
  const changed = withOne('stray', 'printed', [0.4, 0.2]);
  expect(standingOf(changed).strays).toEqual({ ...STRAYS, printed: { offsetMm: 0.4, wanderMm: 0.2 } });
  const again = withChanged(changed, withFigures({ kind: 'stray', of: 'by hand' }, [1, 1], changed));
  expect(standingOf(again).strays.printed).toEqual({ offsetMm: 0.4, wanderMm: 0.2 });
});

test('losses and minutes of a step stand in the settings; what is no longer there changes nothing', () => {
  expect(standingOf(withOne('losses', null, [1, 0.1, 0.2])).losses).toEqual({
    perCupGrams: 1,
    share: 0.1,
    perPieceGrams: 0.2,
  });
  expect(standingOf(withOne('step', 'dam', [7, 3])).stepMinutes).toEqual({
    dam: { perBatchMinutes: 7, perPieceMinutes: 3 },
  });
  expect(withOne('drop', 'gone', [1])).toEqual(shelf);
  expect(withOne('pace', 'gone', [1])).toEqual(shelf);
});
