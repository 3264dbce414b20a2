import { testDesign, testPiece } from '../bed/testShapes';
import { testBench, testRequest } from '../plan/testRequest';
import { newFeature } from '../bed/starters';
import { deltaE } from '../tint/difference';
import { linearFromHex } from '../tint/colour';
import { lightByDepth } from '../tint/waterLook';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { LEVEL_BENCH, planAmounts } from '../plan';
import { matchSet } from '../seams/matchSet';
import { pieceWaterSchema, type PieceWater } from '../model/pieceWaterSchema';
import { matchPieces, setMatchRequest } from './buildRequest';
import type { PieceRecord, Settings } from './recordSchemas';
import { waterSetSchema } from './recordSchemas';
import type { SetDocuments } from './views';
import { waterAsMixed } from './waterAsMixed';
import { tintOfWater } from '../tint/waterTint';

const ink = {
  id: 'ink',
  name: 'Green ink',
  kind: 'ink' as const,
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
  swatches: [{ gramsPer100: 1, depthMm: 3, ground: '#ffffff', seen: '#80a080' }],
};
const request = testRequest({
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { copies: 2 })],
  recipe: { id: 'recipe', name: 'Green', doses: [{ colourant: ink, gramsPer100: 0.1 }] },
  // A cup a piece, and a scale too coarse to weigh ink: whole drops it is.
  bench: testBench({ cupGrams: 62, scaleStepGrams: 1 }),
});
const amounts = planAmounts(request);
const kept = { request, amounts };

test('a piece has what the whole drops of its own cup gave it, colourant mass conserved', () => {
  const cup = amounts.layers[0]!.cups.find(({ pours }) => pours.some(({ copy }) => copy === 2))!;
  const { error } = cup.doses[0]!;
  expect(Math.abs(error)).toBeGreaterThan(0.001);
  const water = waterAsMixed(kept, 'Batch 1', { designId: 'T-1', copy: 2 });
  expect((water.doses[0]!.gramsPer100 * cup.mixGrams) / 100).toBeCloseTo(
    cup.portions.flatMap(({ colours }) => colours).reduce((sum, { grams }) => sum + grams, 0),
    9,
  );
  expect(pieceWaterSchema.parse(water)).toEqual(water);
  expect(water.doses[0]!.colourant).not.toHaveProperty('swatches');
});
test('a piece that no cup filled has the recipe', () => {
  const water = waterAsMixed(kept, 'Batch 1', { designId: 'elsewhere', copy: 1 });
  expect(water.doses[0]!.gramsPer100).toBe(0.1);
  expect(water.name).toBe('Batch 1');
});

test('pours with colourants of their own are kept as they were mixed', () => {
  const pours = [
    { thicknessMm: 1, strength: 1, own: { ink: 0.12 } },
    { thicknessMm: null, strength: 1, own: { ink: 0.31 } },
  ];
  const layered = { ...request, recipe: { ...request.recipe, pours } };
  const plan = planAmounts(layered);
  const water = waterAsMixed({ request: layered, amounts: plan }, 'Batch 1', { designId: 'T-1', copy: 1 });
  const ratio = water.doses[0]!.gramsPer100 / 0.1;
  expect(ratio).not.toBe(1);
  expect(water.pours!.map(({ own }) => own!['ink']! / ratio)).toEqual([
    expect.closeTo(0.12, 9),
    expect.closeTo(0.31, 9),
  ]);
  expect(pieceWaterSchema.parse(water)).toEqual(water);
});

describe('an old piece among new ones', () => {
  const channel = newFeature('channel', testDesign());
  const water: PieceWater = { name: 'Batch 1', clarity: 'water-clear', doses: [{ colourant: ink, gramsPer100: 0.4 }] };
  const documents = (pieces: PieceRecord[]): SetDocuments => ({
    set: {
      id: 's',
      version: 1,
      data: waterSetSchema.parse({
        name: 'S',
        figureScaleMm: 28,
        levelMm: 15,
        productId: 'p',
        recipeId: 'r',
        job: null,
      }),
    },
    designs: [{ id: 'T-1', version: 1, data: testDesign([channel], { copies: 2 }) }],
    pieces: pieces.map((data, i) => ({ id: String(i), version: 1, data })),
    shelf: {
      settings: { id: 'w', version: 1, data: { tilt: LEVEL_BENCH } as unknown as Settings },
      products: [{ id: 'p', version: 1, data: PRODUCT_KINDS[1]! }],
      colourants: [{ id: 'ink', version: 1, data: ink }] as never,
      consumables: [],
      recipes: [{ id: 'r', version: 1, data: { name: 'Green', doses: [{ colourantId: 'ink', gramsPer100: 0.1 }] } }],
    } as SetDocuments['shelf'],
  });
  const bare: PieceRecord = { designId: 'T-1', copy: 2, measured: { atLevelMm: 15, readings: [], fillMl: null } };
  const worst = (pieces: PieceRecord[]): number =>
    Math.max(...matchSet(setMatchRequest(documents(pieces))).seams.map((seam) => seam.deltaE));

  test('its seams are judged in its own water', () => {
    expect(worst([])).toBeLessThan(0.5);
    const set = documents([{ ...bare, water }]);
    expect(matchPieces(set)[1]!.tint).toEqual(tintOfWater(water));
    const bed = linearFromHex(testDesign().bedColour);
    const { tint } = setMatchRequest(set);
    const depth = (channel as { depthMm: number }).depthMm;
    const expected = deltaE(lightByDepth(bed, tint)(depth), lightByDepth(bed, tintOfWater(water))(depth));
    expect(expected).toBeGreaterThan(5);
    expect(worst([{ ...bare, water }])).toBeCloseTo(expected, 0);
  });
});
