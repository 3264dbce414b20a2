import { testPiece } from '../bed/testShapes';
import { newFeature } from '../bed/starters';
import { FIRST_MOULD } from '../model/bodySchema';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { METRIC } from '../units/formatMeasure';
import { planBatch, planRequestSchema, type Plan, type PlanRequest } from '.';
import { explainBatch, explainPiece, type BatchFigure, type PieceFigure } from './explain';
import type { RecipeFigure } from './explainRecipe';
import type { Explanation } from './explanation';

const ink = {
  id: 'ink',
  name: 'Green ink',
  kind: 'ink',
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
  absorption: { red: 1, green: 0.3, blue: 0.7 },
};
const channel = newFeature('channel', testPiece([]));
const request: PlanRequest = planRequestSchema.parse({
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'Test set', figureScaleMm: 28, levelMm: 15 },
  pieces: [
    testPiece([channel], { copies: 3, mould: FIRST_MOULD, drawnLevelMm: 15 }),
    testPiece([newFeature('debris', testPiece([])), channel], { tag: 'T-2' }),
  ],
  product: PRODUCT_KINDS.find(({ id }) => id === 'coating-epoxy')!,
  recipe: { id: 'recipe', name: 'Creek green', doses: [{ colourant: ink, gramsPer100: 0.1 }] },
  room: { temperatureC: 18, humidity: 0.5 },
  bench: {
    windows: [],
    exceptions: [],
    cupGrams: 150,
    scaleStepGrams: 0.1,
    pricePerCup: 0.05,
    tilt: { eastMmPerM: 0, northMmPerM: 0 },
    box: { widthMm: 340, lengthMm: 260, heightMm: 120 },
  },
  losses: { perCupGrams: 1.7, perPieceGrams: 0.4, share: 0.03 },
  pourAt: '2026-11-28T10:00',
});
const plan: Plan = planBatch(request);
const context = { request, plan, prefs: METRIC };
const [piece] = plan.pieces;

/** The first number of the input with this label; of all such, added up. */
const input = ({ inputs }: Explanation, label: RegExp): number => {
  const found = inputs.filter((each) => label.test(each.label));
  expect(found.length).toBeGreaterThan(0);
  return found.reduce((sum, { value }) => sum + Number(/-?\d+(\.\d+)?/.exec(value)![0]), 0);
};
const ofPiece = (figure: PieceFigure): Explanation => explainPiece(figure, piece!, context);
const ofBatch = (figure: BatchFigure): Explanation => explainBatch(figure, context);
/** To the digits in which the inputs are shown. */
const within = (got: number, wanted: number, share = 0.01): void =>
  expect(Math.abs(got / wanted - 1)).toBeLessThanOrEqual(share);

describe('what is told of a figure gives that figure again', () => {
  test('grams of a piece, by its formula', () => {
    const how = ofPiece('grams');
    const ml = input(how, /^Water in each/) + input(how, /^Creeps up/);
    within((ml / (1 - input(how, /^Shrinkage/) / 100)) * input(how, /^Density/), piece!.pouredGrams);
  });
  test('what is to be mixed, the water in all and what reaches the pieces', () => {
    const mix = ofBatch('mix');
    within(input(mix, /^Reaches/) + input(mix, /^Stays in cups/), plan.totals.mixGrams);
    within(input(ofBatch('poured'), / × /), plan.totals.pouredGrams);
    within(input(ofBatch('volume'), / × /), plan.totals.volumeMl);
    expect(mix.formula).toContain('0.4\u00a0g a pour, 1.7\u00a0g a cup and 3\u00a0% of the mix');
  });
  test('the parts: from the ratio by weight and the mix', () => {
    const [a, b] = [ofBatch('partA'), ofBatch('partB')];
    const ratio = input(a, /^By weight/);
    within((input(a, /^To mix/) * ratio) / (1 + ratio), plan.totals.parts!.partAGrams);
    within(input(a, /^Part A/) + input(b, /^Part B/), plan.totals.mixGrams);
    within(input(a, /^Label/) / 1 / ratio, 1 / (1.16 / 1.02));
  });
  test('colourant, strip, cups and cost', () => {
    const drops = ofBatch('drops');
    // Drops are whole in each cup.
    within((input(drops, /per 100 g/) * plan.totals.mixGrams) / 100, input(drops, /^In all cups/), 0.03);
    within(input(ofBatch('dams'), / × /), plan.totals.damMm);
    expect(input(ofBatch('cups'), /^Layer/)).toBe(plan.totals.cups);
    const cost = ofBatch('cost');
    within(input(cost, /in the pieces|^Lost|^Colourant|^Cups/), plan.cost.total, 0.02);
    within(input(cost, /^For each/) * plan.totals.pieces, plan.cost.total, 0.05);
  });
  test('depths and levels', () => {
    const deepest = ofPiece('greatestDepth');
    within(input(deepest, /^Level/) - input(deepest, /[Ll]owest/), piece!.water.greatestDepthMm, 0.02);
    within(
      input(ofPiece('dams'), /./),
      piece!.dams.reduce((sum, dam) => sum + dam.lengthMm, 0),
      0.4,
    );
    expect(input(ofPiece('brim'), /^Pool/)).toBeCloseTo(piece!.pools[0]!.spill!.levelMm, 1);
  });
  test('cure and pot life', () => {
    const cure = ofBatch('cureFactor');
    expect(input(cure, /^Layer 1/)).toBeCloseTo(plan.layers[0]!.cure.factor, 2);
    const life = ofBatch('potLife');
    expect(input(life, /^Layer 1, cup 1,/)).toBeCloseTo(plan.layers[0]!.cups[0]!.potLifeMinutes, -1);
  });
});

type Asked = PieceFigure | `batch ${BatchFigure}` | `recipe ${RecipeFigure}`;
/** Where a constant is computed with, what it is changed to there, and the figures whose explanation must then say so. */
const CONSTANTS: [module: string, name: string, value: number, figure: Asked, says: string][] = [
  ['../bed/dams', 'DAM_MARGIN_MM', 4.25, 'brim', '4.25 mm over the level'],
  ['../bed/dams', 'DAM_OVERLAP_MM', 6.75, 'brim', 'by 6.75 mm'],
  ['../bed/dams', 'DAM_OVERLAP_MM', 6.75, 'batch dams', '6.75\u00a0mm of overlap'],
  ['../bed/meniscus', 'SURFACE_TENSION', 0.0431, 'meniscus', '0.0431 N/m'],
  ['../bed/meniscus', 'LIQUID_DENSITY', 1123, 'meniscus', '1123 kg/m³'],
  ['../cure/temperature', 'ACTIVATION_ENERGY_J', 61_500, 'batch cureFactor', '61.5 kJ/mol'],
  ['../mixing/potLife', 'LABEL_CUP_GRAMS', 123, 'batch potLife', '123 g cup'],
  ['../mixing/potLife', 'CUP_EXPONENT', 0.37, 'batch potLife', 'the power 0.37'],
  ['../mixing/potLife', 'LEAST_LIFE', 0.45, 'batch potLife', 'between 0.45'],
  ['../mixing/potLife', 'MOST_LIFE', 2.75, 'batch potLife', 'and 2.75 of'],
  ['../mixing/ratio', 'RATIO_WRONG', 0.083, 'batch partA', 'more than 8.3\u00a0%'],
  ['../body/packing', 'BETWEEN_MM', 2.25, 'box', '2.25\u00a0mm between'],
  ['../body/weight', 'DEBRIS_DENSITY', 2.41, 'weight', 'Debris at 2.41'],
  ['../body/twoStage', 'SAND_MINUTES_PER_100_MM', 7.5, 'twoStage', 'takes 7.5 minutes'],
  ['../tint/doses', 'DROP_TOLERANCE', 0.125, 'recipe smallestCup', 'within 12.5 %'],
  ['../tint/limits', 'MOST_COLOURANT_SHARE', 0.041, 'recipe colourant', 'At most 4.1 %'],
  ['../tint/limits', 'MOST_WATER_BASED_SHARE', 0.017, 'recipe waterBased', 'At most 1.7 %'],
];

describe('each constant is told from where it is computed with', () => {
  test.each(CONSTANTS)('%s %s', async (module, name, value, figure, says) => {
    await jest.isolateModulesAsync(async () => {
      jest.doMock(module, () => ({ ...jest.requireActual<object>(module), [name]: value }));
      const { explainPiece: onePiece, explainBatch: batch } = await import('./explain');
      const { explainRecipe } = await import('./explainRecipe');
      const [of, what] = figure.split(' ');
      const how =
        of === 'recipe'
          ? explainRecipe(what as RecipeFigure, request.recipe.doses)
          : of === 'batch'
            ? batch(what as BatchFigure, context)
            : onePiece(figure as PieceFigure, figure === 'weight' ? plan.pieces[1]! : piece!, context);
      expect(JSON.stringify(how)).toContain(says);
    });
    jest.dontMock(module);
  });
});
