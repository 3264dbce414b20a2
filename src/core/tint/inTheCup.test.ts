import { labOf } from './difference';
import { cupDepthMm, inTheCup } from './inTheCup';
import { linearFromHex } from './colour';
import { lightByDepth } from './waterLook';
import type { WaterTint } from './waterTint';

const tint: WaterTint = {
  clarity: 'water-clear',
  doses: [
    {
      colourant: {
        id: 'ink',
        name: 'Ink',
        kind: 'ink',
        absorption: { red: 1.15, green: 0.32, blue: 0.72 },
        dropGrams: 0.035,
        bottleGrams: 30,
        bottlePrice: 5,
      },
      gramsPer100: 0.12,
    },
  ],
};
const cup = { mixGrams: 60, density: 1.1 };

test('60 g stand 16.4 mm deep in a cup of 65 mm', () => expect(cupDepthMm(60, 1.1)).toBeCloseTo(16.44, 1));
test('a full cup looks darker than 5 mm over paper, and a wet water-borne mix paler than resin', () => {
  const paper = labOf(lightByDepth(linearFromHex('#e6e6e4'), tint)(5));
  const resin = labOf(inTheCup(tint, { cureModel: 'two-part' }, cup));
  const glue = labOf(inTheCup(tint, { cureModel: 'water-borne' }, cup));
  expect(resin.l).toBeLessThan(paper.l);
  expect(glue.l).toBeGreaterThan(resin.l + 8);
});
