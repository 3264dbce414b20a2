import { TEST_DEFAULTS, testPiece } from '../bed/testShapes';
import fc from 'fast-check';
import { buildBed } from '../bed/buildBed';
import { capillaryLengthMm, flatTileMl, puddleThicknessMm, wallMlPerMm } from '../bed/meniscus';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { explainPiece, planBatch, type PlanRequest } from '../plan';
import { BODY_FIGURES } from '../plan/explainBody';
import { METRIC } from '../units/formatMeasure';
import { bendPerMm, bowMm } from './bow';
import { draftMl, planMould, type Master } from './mould';
import { BETWEEN_MM, packBox, stackMm } from './packing';
import { FIRST_MOULD } from '../model/bodySchema';
import { twoStageFill } from './twoStage';
import { bodyMl, curedGrams, pieceWeight } from './weight';

const basin = { kind: 'basin', id: 'b', rimMm: 10, depthMm: 5 } as const;

describe('weight', () => {
  test('a body is what lies between its underside and its bed', () => {
    // 140 × 140 at 18 mm, less 120 × 120 that is 8 mm lower (5 below the level of 15).
    expect(
      Math.abs(bodyMl(buildBed(testDesign([basin]))) / ((140 * 140 * 18 - 120 * 120 * 8) / 1000) - 1),
    ).toBeLessThan(0.002);
  });
  test('resins keep their mass, water-borne products only their solids', () => {
    expect(curedGrams(100, { cureModel: 'two-part', shrinkage: 0.015 })).toBe(100);
    expect(curedGrams(100, { cureModel: 'water-borne', shrinkage: 0.5 })).toBe(50);
  });
  test('adds up', () =>
    expect(pieceWeight(200, 'plywood', 50, 3, 12)).toEqual({
      bodyGrams: 120,
      waterGrams: 50,
      debrisGrams: 6,
      extrasGrams: 12,
      totalGrams: 188,
    }));
});

describe('bow', () => {
  const strip = { shrinkingMm: 5, shrinkingGPa: 2.5, coreMm: 5, coreGPa: 2.5, strain: 0.001 };
  test('two equal layers bend by 3/2 of the strain over the thickness (Timoshenko)', () =>
    expect(bendPerMm(strip)).toBeCloseTo((1.5 * 0.001) / 10, 12));
  test('no shrinkage, no bend; a thicker core bends less', () => {
    expect(bendPerMm({ ...strip, strain: 0 })).toBe(0);
    expect(bendPerMm({ ...strip, coreMm: 12 })).toBeLessThan(bendPerMm(strip));
  });
  test('the ends of an arc stand up by its sagitta', () => {
    const [perMm, length] = [1e-4, 300];
    expect(bowMm(perMm, length)).toBeCloseTo((1 - Math.cos((perMm * length) / 2)) / perMm, 3);
  });
});

describe('boxes', () => {
  const sizes = fc.integer({ min: 2, max: 12 });
  test('never more than fit by area, never fewer than a plain grid', () => {
    fc.assert(
      fc.property(
        sizes,
        sizes,
        fc.integer({ min: 5, max: 40 }),
        fc.integer({ min: 5, max: 40 }),
        (w, l, across, up) => {
          const { perLayer } = packBox(w, l, 5, { widthMm: across, lengthMm: up, heightMm: 6 });
          expect(perLayer * w * l).toBeLessThanOrEqual(across * up);
          expect(perLayer).toBeGreaterThanOrEqual(
            Math.max(Math.floor(across / w) * Math.floor(up / l), Math.floor(across / l) * Math.floor(up / w)),
          );
        },
      ),
    );
  });
  test('a block turned round fills the strip that is left', () =>
    expect(packBox(3, 2, 1, { widthMm: 5, lengthMm: 6, heightMm: 1 }).perLayer).toBe(5));
  test('layers lie with paper between them; too high a piece does not fit at all', () => {
    expect(packBox(10, 10, 20, { widthMm: 10, lengthMm: 10, heightMm: 3 * 20 + 2 * BETWEEN_MM })).toEqual({
      perLayer: 1,
      layers: 3,
      count: 3,
    });
    expect(packBox(10, 10, 20, { widthMm: 10, lengthMm: 10, heightMm: 3 * 20 + 2 * BETWEEN_MM - 1 }).layers).toBe(2);
    expect(packBox(10, 10, 20, { widthMm: 50, lengthMm: 50, heightMm: 19 }).count).toBe(0);
    expect(stackMm(20, 3)).toBe(64);
  });
});

describe('moulds', () => {
  const block: Master = { widthMm: 100, lengthMm: 60, heightMm: 20, areaMm2: 6000, perimeterMm: 320, ml: 120 };
  const straight = { ...FIRST_MOULD, draftDegrees: 0 };
  test('one block: the box less the block', () => {
    const plan = planMould(block, straight);
    expect(plan).toMatchObject({ boxWidthMm: 120, boxLengthMm: 80, boxHeightMm: 28, castMl: 120, draftMl: 0 });
    expect(plan.rubberMl).toBeCloseTo((120 * 80 * 28) / 1000 - 120, 9);
    expect(plan.rubberGrams).toBeCloseTo(plan.rubberMl * 1.15, 9);
  });
  test('a round master with draft is a frustum', () => {
    const [r, h, degrees] = [25, 18, 4];
    const wide = r + h * Math.tan((degrees * Math.PI) / 180);
    expect(draftMl({ perimeterMm: 2 * Math.PI * r, heightMm: h }, degrees)).toBeCloseTo(
      (((Math.PI * h) / 3) * (r * r + r * wide + wide * wide)) / 1000 - (Math.PI * r * r * h) / 1000,
      9,
    );
  });
  test('cavities lie in the rows that need least rubber: as brute force finds', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 20, max: 120 }),
        fc.integer({ min: 20, max: 120 }),
        (cavities, widthMm, lengthMm) => {
          const mould = { ...straight, cavities };
          const plan = planMould({ ...block, widthMm, lengthMm }, mould);
          for (let columns = 1; columns <= cavities; columns++) {
            const rows = Math.ceil(cavities / columns);
            const area = (columns * widthMm + (columns - 1) * 10 + 20) * (rows * lengthMm + (rows - 1) * 10 + 20);
            expect(plan.boxWidthMm * plan.boxLengthMm).toBeLessThanOrEqual(area + 1e-6);
          }
          expect(plan.columns * plan.rows).toBeGreaterThanOrEqual(cavities);
        },
      ),
    );
  });
  test('foam floats, plaster stays down', () => {
    expect(planMould(block, { ...straight, masterMaterial: 'extruded foam' }).liftGrams).toBeCloseTo(
      (1.15 - 0.035) * 120,
      9,
    );
    expect(planMould(block, { ...straight, masterMaterial: 'plaster' }).liftGrams).toBe(0);
  });
  test('sheets make a box that holds the rubber', () => {
    const { sheets, boxWidthMm, boxLengthMm, boxHeightMm } = planMould(block, straight);
    expect(sheets).toEqual([
      { count: 2, lengthMm: boxWidthMm + 10, heightMm: boxHeightMm + 10 },
      { count: 2, lengthMm: boxLengthMm, heightMm: boxHeightMm + 10 },
      { count: 1, lengthMm: boxWidthMm + 10, heightMm: boxLengthMm + 10 },
    ]);
  });
});

describe('two fills inside a lip', () => {
  const cylinder = (level: number): number => (Math.PI * 40 ** 2 * Math.max(0, level)) / 1000;
  const wall = { wallMm: 2 * Math.PI * 40, wallMl: 2 * Math.PI * 40 * wallMlPerMm(75), lipMm: 0.5 };
  test('together they are the fill to the level', () => {
    const two = twoStageFill(cylinder, 10, wall, 240);
    expect(two.firstMl + two.secondMl).toBeCloseTo(cylinder(10), 9);
    expect(two.firstMl).toBeCloseTo(cylinder(9.5) + wall.wallMl, 9);
  });
  test('which is quicker turns with the length of the wall', () => {
    expect(twoStageFill(cylinder, 10, wall, 240).quicker).toBe('one fill');
    expect(twoStageFill(cylinder, 10, { ...wall, wallMm: 5000 }, 240).quicker).toBe('two fills');
  });
});

test('a puddle’s rounded rim lacks a²·sin θ: as the Young–Laplace profile integrates to', () => {
  const a = capillaryLengthMm();
  for (const degrees of [40, 70, 90]) {
    // From the flat top down: with u the depth below it, cos φ = 1 − u²/(2a²), and du/dx = tan φ; ∫ u dx = ∫ u/tan φ du.
    const e = puddleThicknessMm(degrees);
    const steps = 200_000;
    let lacking = 0;
    for (let i = 0; i < steps; i++) {
      const u = (e * (i + 0.5)) / steps;
      lacking += (u / Math.tan(Math.acos(1 - (u * u) / (2 * a * a)))) * (e / steps);
    }
    expect(lacking).toBeCloseTo(a * a * Math.sin((degrees * Math.PI) / 180), 3);
    expect(flatTileMl(10_000, 400, degrees)).toBeCloseTo((10_000 * e - 400 * lacking) / 1000, 3);
  }
});

describe('in a plan', () => {
  const coating = PRODUCT_KINDS.find(({ parts, greatestLayerMm }) => parts !== null && greatestLayerMm === 5)!;
  const gel = PRODUCT_KINDS.find(({ cureModel }) => cureModel === 'water-borne')!;
  const request = (change: Parameters<typeof testDesign>[1], product = coating): PlanRequest => ({
    format: 'aguada.plan-request',
    version: 1,
    set: { name: 'Set', figureScaleMm: 28, levelMm: 15 },
    pieces: [testPiece([{ ...newFeature('channel', testDesign()), depthMm: 6 }], change)],
    product,
    recipe: { id: 'recipe', name: 'Clear', doses: [] },
    room: { temperatureC: 20, humidity: 0.5 },
    bench: {
      windows: [],
      exceptions: [],
      cupGrams: 180,
      scaleStepGrams: 0.1,
      pricePerCup: 0,
      tilt: { eastMmPerM: 0, northMmPerM: 0 },
      box: { widthMm: 300, lengthMm: 150, heightMm: 60 },
    },
    pourAt: '2026-11-28T10:00',
    poured: [],
    ...TEST_DEFAULTS,
  });
  const codes = (of: PlanRequest): string[] => planBatch(of).problems.map(({ code }) => code);
  const body = { material: 'plaster', extrasGrams: 0, sealedBelow: false } as const;
  test('weighs, packs, casts: every figure opens to how it came about', () => {
    const asked = request({ mould: { ...FIRST_MOULD, cavities: 2 }, dams: { south: 'mould', north: 'mould' } });
    const plan = planBatch(asked);
    const piece = plan.pieces[0]!;
    expect(piece.body.box).toEqual({ perLayer: 2, layers: 3, count: 6 });
    expect(piece.body.totalGrams).toBeCloseTo(piece.body.bodyMl * 0.035 + piece.pouredGrams, 6);
    expect(piece.mould!.castMl).toBeCloseTo(piece.body.bodyMl + piece.mould!.draftMl, 6);
    expect(piece.flatMl).toBeCloseTo(flatTileMl(19_600, 560), 6);
    expect(piece.twoStage!.firstMl).toBeGreaterThan(0);
    for (const figure of BODY_FIGURES) {
      const { inputs, assumptions, formula } = explainPiece(figure, piece, { request: asked, plan, prefs: METRIC });
      expect(inputs.length).toBeGreaterThan(0);
      expect([formula, ...assumptions].every((words) => words.length > 10)).toBe(true);
    }
  });
  test('without a mould there is none to plan', () =>
    expect(planBatch(request({})).pieces[0]).toMatchObject({ mould: null, twoStage: null }));
  test('a floor thin for its material is warned of, one thick enough is not', () => {
    expect(codes(request({ body }))).not.toContain('thin-floor-material');
    expect(
      codes({ ...request({ body, drawnLevelMm: 9 }), set: { name: 'Set', figureScaleMm: 28, levelMm: 9 } }),
    ).toContain('thin-floor-material');
  });
  test('an absorbent core swells under water-borne water unless its underside is sealed too', () => {
    const warned = planBatch(request({ body }, gel)).problems.find(({ code }) => code === 'swells')!;
    expect(warned).toMatchObject({ severity: 'warn', path: ['body', 'sealedBelow'] });
    expect(planBatch(request({ body })).problems.find(({ code }) => code === 'swells')!.severity).toBe('hint');
    expect(codes(request({ body: { ...body, sealedBelow: true } }, gel))).not.toContain('swells');
  });
  test('nothing is said of a body that is only supposed', () =>
    expect(codes(request({}, gel)).filter((code) => ['swells', 'bows', 'thin-floor-material'].includes(code))).toEqual(
      [],
    ));
  test('a master that floats is warned of, with its lift', () =>
    expect(
      planBatch(request({ mould: FIRST_MOULD })).problems.find(({ code }) => code === 'master-floats')!.message,
    ).toMatch(/floats up with \d/));
  test('debris takes its room from the first layer; too much of it is a stop', () => {
    const plain = planBatch(request({})).pieces[0]!;
    const asked = request({});
    const withDebris = (ml: number): PlanRequest => ({
      ...asked,
      pieces: [
        { ...asked.pieces[0]!, features: [...asked.pieces[0]!.features, { kind: 'debris', id: 'd', volumeMl: ml }] },
      ],
    });
    const piece = planBatch(withDebris(5)).pieces[0]!;
    expect(piece.water.volumeMl).toBeCloseTo(plain.water.volumeMl - 5, 9);
    expect(piece.layers[0]!.volumeMl).toBeCloseTo(plain.layers[0]!.volumeMl - 5, 9);
    expect(piece.layers.at(-1)!.volumeMl).toBeCloseTo(plain.layers.at(-1)!.volumeMl, 9);
    expect(planBatch(withDebris(500)).problems.find(({ code }) => code === 'debris-over-water')).toMatchObject({
      severity: 'stop',
    });
  });
  test('sand widens the ±', () =>
    expect(planBatch(request({ grainMm: 3 })).pieces[0]!.uncertainGrams).toBeGreaterThan(
      planBatch(request({})).pieces[0]!.uncertainGrams * 1.3,
    ));
});
