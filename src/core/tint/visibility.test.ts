import fc from 'fast-check';
import { linearFromHex } from './colour';
import { deltaE } from './difference';
import type { RecipeDose } from './doses';
import { DETAILS, detailsSeenTo, SEEN_FROM, seenToMm } from './visibility';
import { lightByDepth } from './waterLook';
import { CLEAR_TINT, type WaterTint } from './waterTint';

const tinted = (gramsPer100: number): WaterTint => ({
  clarity: 'water-clear',
  doses: [
    {
      colourant: {
        id: 'peat',
        name: 'Peat',
        kind: 'wash',
        absorption: { red: 0.5, green: 1, blue: 1.6 },
        dropGrams: 0.035,
        bottleGrams: 30,
        bottlePrice: 5,
      },
      gramsPer100,
    } satisfies RecipeDose,
  ],
});
const BED = '#b9a883';

test('at the depth that is told the difference is the limit, a little deeper it is less', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 2, noNaN: true }),
      fc.constantFrom(...(['dark', 'light'] as const)),
      fc.constantFrom(...(['at arm’s length', 'across the table'] as const)),
      (grams, detail, from) => {
        const tint = tinted(grams);
        const mm = detailsSeenTo(BED, tint, from)[detail];
        if (mm === null || mm === 0) return;
        const at = (depth: number): number =>
          deltaE(
            lightByDepth(linearFromHex(DETAILS[detail]), tint)(depth),
            lightByDepth(linearFromHex(BED), tint)(depth),
          );
        expect(at(mm)).toBeGreaterThanOrEqual(SEEN_FROM[from] - 1e-6);
        expect(at(mm + 0.02)).toBeLessThan(SEEN_FROM[from]);
      },
    ),
  );
});
test('arm’s length sees deeper than across the table, and a stronger tint hides sooner', () => {
  const depth = (grams: number, from: keyof typeof SEEN_FROM): number =>
    detailsSeenTo(BED, tinted(grams), from).light ?? Infinity;
  expect(depth(1, 'at arm’s length')).toBeGreaterThan(depth(1, 'across the table'));
  expect(depth(2, 'across the table')).toBeLessThan(depth(1, 'across the table'));
});
test('clear water hides nothing; a detail of the bed’s own colour is not seen at all', () => {
  expect(detailsSeenTo(BED, CLEAR_TINT, 'across the table')).toEqual({ dark: null, mid: null, light: null });
  const bed = linearFromHex(BED);
  expect(seenToMm(bed, bed, tinted(1), 3)).toBe(0);
});
