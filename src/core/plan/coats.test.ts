import { colourIn } from '../pouring/portions';
import { testPiece } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { cureTimes } from '../cure/cureLine';
import { mixForPour } from '../mixing/losses';
import { mostMixGrams } from '../mixing/potLife';
import { pouredDensity, ratioByWeight } from '../mixing/ratio';
import { batchNeeds } from '../stock/needs';
import { METRIC } from '../units/formatMeasure';
import { colourByDepth, paintedByDepth } from '../tint/waterLook';
import {
  explainBatch,
  explainFinish,
  explainProduct,
  planBatch,
  tintOfRequest,
  waterGrams,
  type PlanBuild,
  type PlanRequest,
} from '.';
import { PLANT_MINUTES } from '../pouring/handsOn';
import { layerMinutes } from './pourTimes';
import { testBench, testRequest } from './testRequest';

const named = (id: string) => PRODUCT_KINDS.find((kind) => kind.id === id)!;
const [slow, coating, gloss] = [named('slow-casting-epoxy'), named('coating-epoxy'), named('gloss-medium')];
const BASIN = { kind: 'basin', id: 'b', rimMm: 5, depthMm: 12 } as const;
const build: PlanBuild = {
  coats: [{ product: coating, thicknessMm: 2, tint: 'clear' }],
  finish: { product: gloss, filmMm: 0.1, coats: 2 },
};
const ink = {
  id: 'ink',
  name: 'Ink',
  kind: 'ink' as const,
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};
const request = (change: Partial<PlanRequest> = {}): PlanRequest =>
  testRequest({
    pieces: [testPiece([BASIN], { copies: 3 })],
    product: slow,
    recipe: { id: 'recipe', name: 'Green', doses: [{ colourant: ink, gramsPer100: 0.1 }] },
    bench: testBench({ cupGrams: 300 }),
    build,
    ...change,
  });
const { build: _, ...plainRequest } = request();
const [plan, plain] = [planBatch(request()), planBatch(plainRequest)];

describe('a clear coat of another product over a tinted pour', () => {
  const [low, top] = plan.layers;

  test('takes over from the top down: together they hold the same water', () => {
    expect(plan.layers.map(({ productId }) => productId)).toEqual([undefined, coating.id]);
    expect(top!.fromMm).toBeCloseTo(13, 9);
    expect(low!.volumeMl + top!.volumeMl).toBeCloseTo(
      plain.layers.reduce((sum, { volumeMl }) => sum + volumeMl, 0),
      6,
    );
    for (const [layer, product] of [
      [low!, slow],
      [top!, coating],
    ] as const)
      expect(layer.pouredGrams).toBeCloseTo((layer.volumeMl * pouredDensity(product)) / (1 - product.shrinkage), 6);
  });
  test('is mixed in its own ratio, in cups that its own pot life allows, without tint', () => {
    for (const cup of top!.cups) {
      expect(cup.parts!.partAGrams / cup.parts!.partBGrams).toBeCloseTo(ratioByWeight(coating.parts!), 6);
      expect(cup.mixGrams).toBeLessThanOrEqual(mostMixGrams(coating, 20, 300).grams + 1e-6);
    }
    expect(top!.doses[0]!.grams).toBe(0);
    expect(low!.doses[0]!.grams).toBeGreaterThan(0);
    // As it is measured in the cups of the layer below.
    const { id, grams } = plan.totals.doses[0]!;
    const measured = [low!.tintLeft, ...low!.cups.flatMap(({ portions }) => portions)];
    expect(grams).toBeCloseTo(colourIn(measured, id), 9);
    expect(Math.abs(grams / low!.doses[0]!.grams - 1)).toBeLessThan(0.1);
  });
  test('is seen so: clear down to where it ends, tinted beneath', () => {
    const tint = tintOfRequest(request());
    const at = colourByDepth('#b9a883', tint);
    expect(at(2)).toBe(colourByDepth('#b9a883', { clarity: 'water-clear', doses: [] })(2));
    expect(at(6)).not.toBe(colourByDepth('#b9a883', { clarity: 'water-clear', doses: [] })(6));
    expect(plan.pieces[0]!.colour.deepest).toBe(paintedByDepth(request().pieces[0]!, tint, 12)(12));
  });
  test('waits for the recoat window of what lies beneath, not for its own', () => {
    const waited = Date.parse(top!.cure.pouredAt) - Date.parse(low!.cure.pouredAt);
    expect(waited / 60_000).toBeGreaterThanOrEqual(slow.recoatOpensMinutes);
  });
});

describe('several products in one batch', () => {
  test('are summed apart, needed apart and paid for apart; nothing of it is lost between them', () => {
    const { products } = plan.totals;
    expect(products!.map(({ id }) => id)).toEqual([slow.id, coating.id, gloss.id]);
    const all = products!.reduce((sum, { mixGrams }) => sum + mixGrams, 0);
    expect(all).toBeCloseTo(plan.totals.mixGrams + plan.finish!.mixGrams, 6);
    expect(plan.cost.product + plan.cost.lost).toBeCloseTo(
      products!.reduce((sum, { id, mixGrams }) => sum + (mixGrams * named(id).packPrice) / named(id).packGrams, 0),
      6,
    );
    const water = waterGrams(plan);
    expect(water.mixGrams * water.pricePerGram).toBeCloseTo(plan.cost.product + plan.cost.lost, 6);
    const needs = batchNeeds(request(), plan).filter(({ item }) => item.kind === 'product');
    expect(needs.map(({ item, part }) => `${item.id} ${part}`)).toEqual([
      `${slow.id} A`,
      `${slow.id} B`,
      `${coating.id} A`,
      `${coating.id} B`,
      `${gloss.id} all`,
    ]);
    expect(needs.reduce((sum, { likely }) => sum + likely, 0)).toBeCloseTo(all, 6);
  });
  test('of one product say nothing of products', () => expect(plain.totals.products).toBeUndefined());
});

describe('the surface finish', () => {
  test('is a film over the open water, made up for what it loses as it dries, with the losses of every coat', () => {
    const each = (((plain.totals.surfaceCm2 * 100 * 0.1) / (1 - gloss.shrinkage)) * pouredDensity(gloss)) / 1000;
    expect(plan.finish!.pouredGrams).toBeCloseTo(2 * each, 6);
    expect(plan.finish!.mixGrams).toBeCloseTo(2 * mixForPour(each, 3), 6);
  });
  test('goes on once the water may be handled, coat after coat, and the batch is done when it is', () => {
    const [first, second] = plan.finish!.at.map((at) => Date.parse(at));
    expect(first).toBeGreaterThanOrEqual(Date.parse(plan.layers.at(-1)!.cure.demouldAt));
    expect((second! - first!) / 60_000).toBeGreaterThanOrEqual(
      cureTimes(gloss, request().room, plan.finish!.wetMm).recoatOpens,
    );
    expect(plan.doneAt! >= plan.layers.at(-1)!.cure.fullCureAt).toBe(true);
  });
  test('waits until the last layer is poured, where that sets within minutes', () => {
    const lamp = { product: named('light-cured-resin'), thicknessMm: 1, tint: 'clear' as const };
    const { layers, finish } = planBatch(request({ build: { ...build, coats: [lamp] } }));
    const last = layers.at(-1)!;
    const waited = (Date.parse(finish!.at[0]!) - Date.parse(last.cure.pouredAt)) / 60_000;
    expect(waited).toBeGreaterThanOrEqual(layerMinutes(last, { product: lamp.product }));
  });
  test('and dams wait for the slowest layer, though a coat over it sets within minutes', () => {
    const lamp = { product: named('light-cured-resin'), thicknessMm: 1, tint: 'clear' as const };
    const { layers, finish, doneAt } = planBatch(request({ build: { ...build, coats: [lamp] } }));
    const [low, top] = layers;
    expect(top!.cure.demouldAt).toBe(low!.cure.demouldAt);
    expect(top!.cure.fullCureAt).toBe(low!.cure.fullCureAt);
    expect(finish!.at[0]! >= low!.cure.demouldAt).toBe(true);
    expect(doneAt! >= low!.cure.fullCureAt).toBe(true);
  });
  test('that is put on too thick is told', () => {
    const thick = request({ build: { ...build, finish: { product: gloss, filmMm: 0.4, coats: 1 } } });
    expect(planBatch(thick).problems.map(({ code }) => code)).toContain('finish-too-thick');
    expect(plan.problems.map(({ code }) => code)).not.toContain('finish-too-thick');
  });
});

test('a finish of the product that fills the bed is needed and paid for with it', () => {
  const same = planBatch(request({ build: { coats: [], finish: { product: slow, filmMm: 0.2, coats: 2 } } }));
  const needs = batchNeeds(request({}), same).filter(({ item }) => item.kind === 'product');
  const all = same.totals.mixGrams + same.finish!.mixGrams;
  expect(needs.reduce((sum, { likely }) => sum + likely, 0)).toBeCloseTo(
    all + same.layers.reduce((sum, { tintLeft }) => sum + tintLeft.resinGrams, 0),
    6,
  );
  expect(same.cost.productGrams).toBeCloseTo(
    needs.reduce((sum, { likely }) => sum + likely, 0),
    6,
  );
});

test('coats that fill all the water are told', () => {
  const all = request({ build: { coats: [{ product: coating, thicknessMm: 12, tint: 'recipe' }] } });
  expect(planBatch(all).problems.map(({ code }) => code)).toContain('coats-fill-all');
  expect(plan.problems.map(({ code }) => code)).not.toContain('coats-fill-all');
});

test('plants before a layer take their time at the bench of that layer', () => {
  const coat = { product: coating, thicknessMm: 2, tint: 'recipe' as const };
  const built = request({ build: { coats: [coat] } });
  const top = planBatch(built).layers.at(-1)!;
  const minutes = layerMinutes(top, built);
  // Long enough for the pour, too short for three pieces' plants as well.
  const windows = Array.from({ length: 7 }, (_, weekday) => ({
    weekday,
    fromMinute: 600,
    toMinute: 600 + minutes + PLANT_MINUTES,
  }));
  const codes = (plantsBefore: boolean): string[] =>
    planBatch(request({ build: { coats: [{ ...coat, plantsBefore }] }, bench: testBench({ cupGrams: 300, windows }) }))
      .problems.filter(({ message }) => message.startsWith(`Layer ${top.number} needs`))
      .map(({ code }) => code);
  expect(codes(false)).toEqual([]);
  expect(codes(true)).toEqual(['no-bench-window']);
});

test('three layers of glue are its own limit, whatever lies beneath', () => {
  const glue = named('clear-drying-glue');
  const codes = (thicknessMm: number): string[] =>
    planBatch(request({ build: { coats: [{ product: glue, thicknessMm, tint: 'clear' }] } })).problems.map(
      ({ code }) => code,
    );
  expect(codes(1.4)).not.toContain('too-many-layers');
  expect(codes(2.2)).toContain('too-many-layers');
});

describe('how it came about', () => {
  const context = { request: request(), plan, prefs: METRIC };
  const plain = (text: string): string => text.replace(/\u00a0/g, ' ');
  test('of each product: its own layers add up to it', () => {
    const coat = plan.totals.products!.find(({ id }) => id === coating.id)!;
    const { inputs } = explainProduct(coat, context);
    expect(inputs.map(({ label }) => label)).toEqual(['Layer 2, 1 cups', 'In all', 'Label, A : B']);
    expect(inputs[0]!.value).toBe(inputs[1]!.value);
  });
  test('of the finish: film, surface and density make what is on the pieces', () => {
    const { inputs } = explainFinish(plan.finish!, context);
    const of = (label: string): number => parseFloat(plain(inputs.find((one) => one.label === label)!.value));
    expect((of('Open water') * of('Film, wet') * of('Density') * 2) / 10).toBeCloseTo(
      of('On the pieces, all coats'),
      0,
    );
  });
  test('of part A: out of what is mixed of its own product, not of all', () => {
    const { inputs } = explainBatch('partA', context);
    const own = plan.totals.products![0]!.mixGrams;
    expect(plain(inputs.find(({ label }) => label === 'To mix of it')!.value)).toBe(`${own.toFixed(1)} g`);
    expect(own).toBeLessThan(plan.totals.mixGrams);
  });
});
