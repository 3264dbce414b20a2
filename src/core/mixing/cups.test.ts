import fc from 'fast-check';
import { splitIntoCups, type Pour } from './cups';
import { mixForPour, TYPICAL_LOSSES } from './losses';

const pour = (copy: number, grams: number): Pour => ({ designId: 'T', copy, tag: 'T', grams });
const MOST = 100;

/** Every way to cut so many pieces, in their order, into so many cups. */
function cuts(pieces: number, cups: number): number[][] {
  if (cups === 1) return [[pieces]];
  return Array.from({ length: pieces - cups + 1 }, (_, i) => i + 1).flatMap((first) =>
    cuts(pieces - first, cups - 1).map((rest) => [first, ...rest]),
  );
}

test('pieces in their order fill cups as evenly as any such sharing, by trying all of them', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 3, max: 60 }), { minLength: 2, maxLength: 9 }), (grams) => {
      const { cups } = splitIntoCups(
        grams.map((one, i) => pour(i + 1, one)),
        MOST,
      );
      const fullest = (lengths: readonly number[]): number => {
        let from = 0;
        return Math.max(
          ...lengths.map((length) =>
            grams.slice(from, (from += length)).reduce((sum, one) => sum + one + TYPICAL_LOSSES.perPieceGrams, 0),
          ),
        );
      };
      const most = MOST * (1 - TYPICAL_LOSSES.share) - TYPICAL_LOSSES.perCupGrams;
      const possible = cuts(grams.length, cups.length).map(fullest);
      const best = Math.min(...possible);
      // Where no sharing in order does, pieces lie as the packing has them.
      if (best > most) return;
      expect(cups.flatMap(({ pours }) => pours.map(({ copy }) => copy))).toEqual(grams.map((_, i) => i + 1));
      expect(fullest(cups.map(({ pours }) => pours.length))).toBeCloseTo(best, 6);
    }),
    { numRuns: 300 },
  );
});

test('where pieces in their order do not fit, cups count from their first pieces, each in order', () => {
  // 60 and 30 g go together; in their order the two large ones would need a cup each and the small ones a third.
  const crossed = splitIntoCups(
    [60, 60, 30, 30].map((one, i) => pour(i + 1, one)),
    MOST,
  );
  expect(crossed.cups.map(({ pours }) => pours.map(({ copy }) => copy))).toEqual([
    [1, 3],
    [2, 4],
  ]);
});

test('a dry piece takes no cup, and no pieces none', () => {
  expect(splitIntoCups([pour(1, 0), pour(2, 20)], MOST).cups.flatMap(({ pours }) => pours)).toEqual([pour(2, 20)]);
  expect(splitIntoCups([], MOST)).toEqual({ cups: [], fewestPossible: 0 });
  expect(splitIntoCups([pour(1, 0)], MOST)).toEqual({ cups: [], fewestPossible: 0 });
});

test('no more pieces stand in a cup than are filled before it sets, whatever they weigh', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 4 }),
      (grams, most) => {
        const { cups, fewestPossible } = splitIntoCups(
          grams.map((one, i) => pour(i + 1, one)),
          MOST,
          TYPICAL_LOSSES,
          (_, pieces) => pieces <= most,
        );
        for (const { pours, pouredGrams, mixGrams } of cups) {
          expect(pours.length).toBeLessThanOrEqual(most);
          expect(mixGrams).toBeCloseTo(mixForPour(pouredGrams, pours.length), 9);
          expect(mixGrams).toBeLessThanOrEqual(MOST + 1e-6);
        }
        expect(fewestPossible).toBeGreaterThanOrEqual(Math.ceil(grams.length / most));
        expect(cups.length).toBeGreaterThanOrEqual(fewestPossible);
      },
    ),
  );
});
