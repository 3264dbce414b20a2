import { wallMinutes } from '../time/wallTime';
import { layerMinutes } from './pourTimes';
import { testRequest } from './testRequest';
import { testPiece } from '../bed/testShapes';
import type { Feature } from '../model/designSchema';
import { FIRST_MOULD } from '../model/bodySchema';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { splitParts } from '../mixing/ratio';
import { waterCost } from '../money/cost';
import { METRIC } from '../units/formatMeasure';
import { explainBatch, explainPiece, LEVEL_BENCH, planBatch, planRequestSchema, planSchema, type PlanRequest } from '.';
import { BATCH_FIGURES, PIECE_FIGURES } from './explain';

const channel: Extract<Feature, { kind: 'channel' }> = {
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 70 },
  to: { edge: 'north', positionMm: 70 },
  widthMm: 58,
  depthMm: 6,
  section: 'trapezoid',
  bankSlope: 1,
};
const product = (name: string): PlanRequest['product'] => PRODUCT_KINDS.find((kind) => kind.name === name)!;
const ink = {
  id: 'ink',
  name: 'Green ink',
  kind: 'ink' as const,
  absorption: { red: 1, green: 0.3, blue: 0.7 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 6,
};

function request(change: Partial<PlanRequest> = {}): PlanRequest {
  return planRequestSchema.parse({
    format: 'aguada.plan-request',
    version: 1,
    set: { name: 'Test set', figureScaleMm: 28, levelMm: 15 },
    pieces: [testPiece([channel], { copies: 3 }), testPiece([{ ...channel, depthMm: 3 }], { tag: 'T-2', copies: 2 })],
    product: product('Coating epoxy'),
    recipe: { id: 'recipe', name: 'Creek green', doses: [{ colourant: ink, gramsPer100: 0.1 }] },
    room: { temperatureC: 23, humidity: 0.5 },
    bench: { windows: [], exceptions: [], cupGrams: 150, scaleStepGrams: 0.1, pricePerCup: 0.05, tilt: LEVEL_BENCH },
    pourAt: '2026-11-28T10:00',
    ...change,
  });
}

describe('a plan', () => {
  const plan = planBatch(request());
  test('matches its schema and survives JSON', () =>
    expect(planSchema.parse(JSON.parse(JSON.stringify(plan)))).toEqual(plan));
  test('grams of a piece are ml × mixed density, shrinkage made up for', () => {
    const piece = plan.pieces[0]!;
    const expectedMl = (140 * 6 * (58 - 6)) / 1000;
    expect(Math.abs(piece.water.volumeMl / expectedMl - 1)).toBeLessThan(0.005);
    expect(piece.pouredGrams).toBeCloseTo(((piece.water.volumeMl + piece.meniscus.ml) * 1.09) / 0.985, 6);
  });
  test('6 mm in coating epoxy is two layers, at the same levels for every piece', () => {
    expect(plan.layers.map(({ fromMm, toMm }) => [fromMm, toMm])).toEqual([
      [9, 12],
      [12, 15],
    ]);
    expect(plan.pieces[1]!.layers[0]!.volumeMl).toBe(0);
    expect(plan.layers[0]!.cups.flatMap(({ pours }) => pours.map(({ tag }) => tag))).not.toContain('T-2');
  });
  test('cups, layers and totals agree', () => {
    for (const layer of plan.layers) {
      expect(layer.cups.reduce((sum, cup) => sum + cup.mixGrams, 0)).toBeCloseTo(layer.mixGrams, 8);
      expect(layer.cups.reduce((sum, cup) => sum + cup.parts!.partAGrams, 0)).toBeCloseTo(layer.parts!.partAGrams, 8);
    }
    expect(plan.totals.parts).toEqual(splitParts(plan.totals.mixGrams, product('Coating epoxy').parts!));
    expect(plan.totals.pouredGrams).toBeCloseTo(
      plan.pieces.reduce((sum, piece) => sum + piece.copies * piece.pouredGrams, 0),
      6,
    );
    expect(plan.totals.pieces).toBe(5);
  });
  test('the next layer waits for the recoat window, the end for full cure', () => {
    // At the bench until the last piece, then the label's four hours; three days after the last piece of all.
    const [first, second] = plan.layers.map((layer) => layerMinutes(layer, request()));
    const begun = wallMinutes('2026-11-28T10:00');
    expect(plan.layers.map(({ cure }) => wallMinutes(cure.pouredAt))).toEqual([begun, begun + first! + 240]);
    expect(wallMinutes(plan.doneAt!)).toBe(begun + first! + 240 + second! + 3 * 1440);
  });
  test('the deep water is darker', () => {
    const { shallow, deepest } = plan.pieces[0]!.colour;
    expect(parseInt(deepest.slice(1, 3), 16)).toBeLessThan(parseInt(shallow.slice(1, 3), 16));
  });
  test('a plan with water at the wrong level is not what it was', () => {
    const higher = planBatch(request({ set: { name: 'Test set', figureScaleMm: 28, levelMm: 16 } }));
    expect(higher.totals.volumeMl).toBeGreaterThan(plan.totals.volumeMl);
  });
});

describe('how it came about', () => {
  const T1 = { designId: 'T-1', copy: null };
  // Everything a piece can have, so that every figure has something to tell.
  const whole = request({
    pieces: [
      testPiece([channel], { copies: 3, mould: FIRST_MOULD, dams: { south: 'mould' } }),
      testPiece([{ ...channel, depthMm: 3 }], { tag: 'T-2', copies: 2 }),
    ],
    bench: { ...request().bench, box: { widthMm: 300, lengthMm: 300, heightMm: 60 } },
  });
  const context = { request: whole, plan: planBatch(whole), prefs: METRIC };
  const said = (figure: (typeof BATCH_FIGURES)[number]): string => JSON.stringify(explainBatch(figure, context));
  test.each(PIECE_FIGURES)('%s of a piece names what went in', (figure) =>
    expect(explainPiece(figure, T1, context).inputs.length).toBeGreaterThan(0),
  );
  test.each(BATCH_FIGURES)('%s of the batch names what went in', (figure) =>
    expect(explainBatch(figure, context).inputs.length).toBeGreaterThan(0),
  );
  test('the inputs are those of this plan', () => {
    const { plan } = context;
    expect(said('partA')).toContain(`${plan.totals.parts!.partAGrams.toFixed(1)}`);
    expect(said('mix')).toContain(plan.totals.pouredGrams.toFixed(1));
    expect(said('cost')).toContain(plan.cost.colourant.toFixed(2));
    expect(JSON.stringify(explainPiece('grams', T1, context))).toContain(plan.pieces[0]!.water.volumeMl.toFixed(1));
  });
  test('what rests on typical figures says that it is an estimate', () => {
    expect(explainBatch('done', context).estimate).toBe(true);
    expect(explainPiece('greatestDepth', T1, context).estimate).toBe(false);
  });
  test('a piece that is not in the plan is refused', () =>
    expect(() => explainPiece('volume', { designId: 'T-9', copy: null }, context)).toThrow('no piece'));
});

describe('what a plan warns of', () => {
  const codes = (change: Partial<PlanRequest>): string[] => planBatch(request(change)).problems.map(({ code }) => code);
  test('nothing, for a sound one', () =>
    expect(codes({ recipe: { id: 'recipe', name: 'Clear', doses: [] } })).toEqual([]));
  test('a glue too deep for its three layers', () =>
    expect(codes({ product: product('Clear-drying glue') })).toContain('too-many-layers'));
  test('a cold room', () => expect(codes({ room: { temperatureC: 12, humidity: 0.5 } })).toContain('cold-room'));
  test('a glue that sets in the cup', () =>
    expect(codes({ product: product('Five-minute glue') })).toContain('pot-life-limits'));
  test('too much water-based colour', () =>
    expect(
      codes({ recipe: { id: 'recipe', name: 'Strong', doses: [{ colourant: ink, gramsPer100: 1.5 }] } }),
    ).toContain('too-much-water'));
  test('drops that are too coarse for the cup', () =>
    expect(
      codes({ recipe: { id: 'recipe', name: 'Faint', doses: [{ colourant: ink, gramsPer100: 0.02 }] } }),
    ).toContain('drops-too-coarse'));
  test('a scale that is too coarse', () =>
    expect(
      codes({
        bench: { windows: [], exceptions: [], cupGrams: 150, scaleStepGrams: 5, pricePerCup: 0, tilt: LEVEL_BENCH },
      }),
    ).toContain('scale-too-coarse'));
  test('a dry piece', () =>
    expect(codes({ pieces: [testPiece([])] })).toEqual(expect.arrayContaining(['no-water', 'dry'])));
  const oneEvening = [{ weekday: 5, fromMinute: 600, toMinute: 720 }];
  test('a recoat window missed for want of bench time, and it says when it would be', () => {
    const plan = planBatch(
      request({
        bench: {
          windows: oneEvening,
          exceptions: [],
          cupGrams: 150,
          scaleStepGrams: 0.1,
          pricePerCup: 0,
          tilt: LEVEL_BENCH,
        },
      }),
    );
    expect(plan.layers[1]!.cure.pouredAt).toBe('2026-12-05T10:00');
    expect(plan.problems.map(({ code }) => code)).toContain('recoat-missed');
  });
  test('a pour outside the bench window offers the next that fits', () => {
    const plan = planBatch(
      request({
        pourAt: '2026-11-27T10:00',
        bench: {
          windows: oneEvening,
          exceptions: [],
          cupGrams: 150,
          scaleStepGrams: 0.1,
          pricePerCup: 0,
          tilt: LEVEL_BENCH,
        },
      }),
    );
    expect(plan.problems.find(({ code }) => code === 'outside-bench-window')?.mend?.value).toBe('2026-11-28T10:00');
  });
  test('no window long enough is said', () => {
    expect(
      codes({
        bench: {
          windows: [{ weekday: 5, fromMinute: 600, toMinute: 605 }],
          exceptions: [],
          cupGrams: 150,
          scaleStepGrams: 0.1,
          pricePerCup: 0,
          tilt: LEVEL_BENCH,
        },
      }),
    ).toContain('no-bench-window');
  });
});

describe('where the water stays', () => {
  const piecePlan = (
    design: Partial<PlanRequest['pieces'][number]>,
    change: Partial<PlanRequest> = {},
  ): ReturnType<typeof planBatch> => planBatch(request({ pieces: [testPiece([channel], design)], ...change }));
  const codes = (plan: ReturnType<typeof planBatch>): string[] => plan.problems.map(({ code }) => code);

  test('what creeps up the two dams is in the fill, at the surface only', () => {
    const plan = piecePlan({});
    const { meniscus, layers, water } = plan.pieces[0]!;
    // Two ports 58 mm wide; the strips meet the resin at 75°: a²·cos 75° for each mm.
    expect(Math.abs(meniscus.wallMm - 116)).toBeLessThan(1.2);
    expect(meniscus.ml).toBeCloseTo((meniscus.wallMm * 1.996 ** 2 * Math.cos((75 * Math.PI) / 180)) / 1000, 3);
    expect(layers.reduce((sum, { volumeMl }) => sum + volumeMl, 0)).toBeCloseTo(water.volumeMl + meniscus.ml, 6);
    expect(meniscus.lipMm).toBeCloseTo(1.996 * Math.sqrt(2 * (1 - Math.sin((75 * Math.PI) / 180))), 3);
  });
  test('an open edge is a stop that names the edge and mends it', () => {
    const plan = piecePlan({ dams: { south: 'none' } });
    const stop = plan.problems.find(({ code }) => code === 'runs-out');
    expect(stop).toMatchObject({
      severity: 'stop',
      path: ['dams', 'south'],
      mend: { target: 'design', path: ['dams', 'south'], value: 'plastic strip' },
    });
    expect(plan.pieces[0]!.pools[0]!.spill).toMatchObject({ over: 'edge', edge: 'south' });
    expect(plan.totals.damMm).toBeCloseTo(piecePlan({}).totals.damMm / 2, 0);
  });
  test('surface tension alone holds a skin of water, and is said to', () => {
    const shallow = { ...channel, depthMm: 2 };
    const plan = planBatch(request({ pieces: [testPiece([shallow], { dams: { south: 'none', north: 'none' } })] }));
    expect(codes(plan)).toContain('surface-tension');
    expect(codes(plan)).not.toContain('runs-out');
  });
  test('equal strips are one line of the cut list', () => {
    const { cutList } = planBatch(request()).totals;
    expect(cutList.reduce((sum, { count }) => sum + count, 0)).toBe(10);
    expect(cutList[0]).toMatchObject({ method: 'plastic strip', topMm: 18 });
    expect(cutList).toHaveLength(1);
  });
  test('tape over a long edge is warned of; a thin product wants two barriers', () => {
    const shore: Feature = { kind: 'shore', id: 's', landSide: 'north', waterlineMm: 40, slope: 6, depthMm: 6 };
    const board = testPiece([shore], {
      outline: { kind: 'rectangle', widthMm: 450, lengthMm: 300 },
      landMm: 22,
      dams: { south: 'tape' },
    });
    expect(codes(planBatch(request({ pieces: [board] })))).toContain('dam-too-long');
    expect(codes(piecePlan({}, { product: product('Slow casting epoxy') }))).toContain('thin-product');
  });
  test('two pools that do not touch are named, largest first, with the saddle between them', () => {
    const pool = (id: string, xMm: number, widthMm: number): Feature => ({
      kind: 'pool',
      id,
      xMm,
      yMm: 70,
      widthMm,
      lengthMm: widthMm,
      depthMm: 5,
      section: 'v',
      bankSlope: 0,
    });
    const [a, b] = planBatch(request({ pieces: [testPiece([pool('a', 42, 56), pool('b', 101, 48)])] })).pieces[0]!
      .pools;
    expect([a!.name, b!.name]).toEqual(['Pool A', 'Pool B']);
    expect(a!.volumeMl).toBeGreaterThan(b!.volumeMl);
    expect(a!.spill).toMatchObject({ over: 'pool', into: 'Pool B' });
  });
  test('a tilted bench: higher on the low side, the corner to raise, the colour of each side', () => {
    const bench = {
      windows: [],
      exceptions: [],
      cupGrams: 150,
      scaleStepGrams: 0.1,
      pricePerCup: 0.05,
      tilt: { eastMmPerM: 0, northMmPerM: 5 },
    };
    const plan = piecePlan({}, { bench });
    const { tilt } = plan.pieces[0]!;
    const error = (edge: string): number => tilt!.edges.find((side) => side.edge === edge)!.errorMm;
    expect(error('north')).toBeCloseTo(0.35, 2);
    expect(error('south')).toBeCloseTo(-0.35, 2);
    expect(tilt!.raise.find(({ corner }) => corner === 'north-west')!.raiseMm).toBeCloseTo(0.7, 6);
    expect(tilt!.edges.find(({ edge }) => edge === 'north')!.colour).not.toBe(
      tilt!.edges.find(({ edge }) => edge === 'south')!.colour,
    );
    expect(codes(plan)).toContain('tilt');
    expect(codes(piecePlan({}, { bench: { ...bench, tilt: { eastMmPerM: 0, northMmPerM: 60 } } }))).toContain(
      'tilt-spill',
    );
    expect(piecePlan({}).pieces[0]!.tilt).toBeNull();
  });
});

describe('a batch half done', () => {
  test('keeps the poured layer when it was and plans the next from there', () => {
    const plan = planBatch(request({ poured: [{ layer: 1, at: '2026-11-20T18:30' }] }));
    expect(plan.layers[0]!.cure).toMatchObject({ poured: true, pouredAt: '2026-11-20T18:30' });
    expect(plan.layers[1]!.cure).toMatchObject({ poured: false, pouredAt: '2026-11-20T22:33' });
  });
});

describe('a plan request', () => {
  const issues = (change: object): string =>
    planRequestSchema
      .safeParse({ ...request(), ...change })
      .error?.issues.map(({ path }) => path.join('.'))
      .join(' ') ?? 'fine';
  test.each<[string, object, string]>([
    ['sound', {}, 'fine'],
    ['−40 °C', { room: { temperatureC: -40, humidity: 0.5 } }, 'room.temperatureC'],
    ['a level below the underside', { set: { name: 'x', figureScaleMm: 28, levelMm: -1 } }, 'set.levelMm'],
    ['an unknown scale', { set: { name: 'x', figureScaleMm: 27, levelMm: 15 } }, 'set.figureScaleMm'],
    ['two designs with one tag', { pieces: [testPiece([channel]), testPiece([channel])] }, 'pieces.1.tag'],
    [
      'too many pieces',
      { pieces: Array.from({ length: 5 }, (_, i) => testPiece([channel], { tag: `T-${i}`, copies: 500 })) },
      'pieces',
    ],
    ['no pieces', { pieces: [] }, 'pieces'],
    ['another format', { format: 'csv' }, 'format'],
  ])('%s', (_, change, path) => expect(issues(change)).toBe(path));
});

test('cost counts product, what is lost, colourant and cups', () => {
  const cost = waterCost({
    water: [{ mixGrams: 110, pouredGrams: 100, pricePerGram: 0.04 }],
    colourants: [{ grams: 0.2, pricePerGram: 0.5 }],
    cups: 2,
    pricePerCup: 0.1,
    pieces: 4,
  });
  expect(cost).toMatchObject({ lostGrams: 10, product: 4, lost: 0.4, colourant: 0.1, cups: 0.2 });
  expect(cost.total).toBeCloseTo(4.7);
  expect(cost.perPiece).toBeCloseTo(1.175);
});

test('two pairs of hands need no more cups than one, and fewer where the pot life is short', () => {
  const glue = PRODUCT_KINDS.find(({ id }) => id === 'five-minute-glue')!;
  const asked = testRequest({
    product: glue,
    pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 30, depthMm: 3 }], { copies: 12 })],
  });
  const [one, two] = [planBatch(asked), planBatch({ ...asked, hands: 2 })];
  expect(one.mix.limit).toBe('pot life');
  expect(two.mix.mostGrams).toBeGreaterThan(one.mix.mostGrams);
  expect(two.totals.cups).toBeLessThan(one.totals.cups);
  expect(two.totals.pouredGrams).toBeCloseTo(one.totals.pouredGrams, 9);
});
