import { testPiece } from '../bed/testShapes';
import { MENDS } from '../findings/mends';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { planBatch, type PlanRequest } from '../plan';
import { testBench, testRequest } from '../plan/testRequest';
import { layerHandsOnMinutes } from '../pouring/handsOn';
import { abradeMinutes } from '../schedule/repair';
import { anewTakes, mendTakes } from './mendCost';

/** Tiles of two sizes of water, two to a cup, a cup at 0.20. */
const request = testRequest({
  pieces: [
    { ...testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }]), designId: 'wide', copies: 2 },
    { ...testPiece([{ kind: 'basin', id: 'b', rimMm: 30, depthMm: 4 }]), designId: 'narrow', copies: 1 },
  ],
  bench: testBench({ pricePerCup: 0.2 }),
});
const planned = (asked: PlanRequest) => ({ request: asked, amounts: planBatch(asked) });
const record = planned(request);
const wide = { designId: 'wide', copy: 1 };
const topUp = MENDS.low.find(({ filmMm }) => filmMm === 'as found')!;
const recoat = MENDS.wrinkles[0]!;

test('the copies of a batch made anew take all that the batch takes, each by its water', () => {
  const { totals, cost } = record.amounts;
  const all = [wide, { designId: 'wide', copy: 2 }, { designId: 'narrow', copy: 1 }].map((piece) =>
    anewTakes(record, piece),
  );
  expect(all.reduce((sum, { grams }) => sum + grams, 0)).toBeCloseTo(totals.mixGrams, 6);
  expect(all.reduce((sum, { price }) => sum + price, 0)).toBeCloseTo(cost.total, 6);
  expect(all[0]).toEqual(all[1]);
  expect(all[0]!.grams).toBeGreaterThan(all[2]!.grams);
});

test('a film over the water is its surface by its thickness, with what stays in a cup of its own', () => {
  const { surfaceCm2 } = record.amounts.pieces[0]!.water;
  const { packPrice, packGrams } = request.product;
  // Coating epoxy, 1 : 1 by volume of 1.16 and 1.02 g/ml: 1.09 g/ml, shrinking by 1.5 %. 0.3 g a piece, 1.5 g a cup, 2 % of the mix.
  const gramsOf = (mm: number): number => (((surfaceCm2 / 10) * mm * 1.09) / 0.985 + 0.3 + 1.5) / 0.98;
  const thin = mendTakes(record, wide, recoat)!;
  expect(thin.grams).toBeCloseTo(gramsOf(1), 6);
  expect(thin.price).toBeCloseTo((gramsOf(1) * packPrice) / packGrams + 0.2, 6);
  expect(mendTakes(record, wide, topUp, 0.4)!.grams).toBeCloseTo(gramsOf(0.4), 6);
  expect(mendTakes(record, wide, topUp)!.grams).toBeCloseTo(gramsOf(1), 6);
});

test('what shrinks is poured thicker', () => {
  const glue = PRODUCT_KINDS.find(({ shrinkage }) => shrinkage > 0.2)!;
  const shrinking = planned({ ...request, product: glue });
  const dense = planned({ ...request, product: { ...glue, shrinkage: 0 } });
  const without = (takes: { grams: number }): number => takes.grams * (1 - request.losses.share) - 1.8;
  expect(without(mendTakes(shrinking, wide, recoat)!)).toBeCloseTo(
    without(mendTakes(dense, wide, recoat)!) / (1 - glue.shrinkage),
    6,
  );
});

test('nothing is told of a mend that takes no product, nor of a piece that the plan does not hold', () => {
  expect(
    mendTakes(
      record,
      wide,
      MENDS.low.find(({ filmMm }) => filmMm === undefined)!,
    ),
  ).toBeNull();
  expect(mendTakes(record, { designId: 'gone', copy: 1 }, recoat)).toBeNull();
});

describe('minutes at the bench', () => {
  const step = (perBatchMinutes: number, perPieceMinutes: number, on = true) => ({
    id: `step ${perBatchMinutes}`,
    kind: 'seal' as const,
    name: 'Seal',
    on,
    perBatchMinutes,
    perPieceMinutes,
    dryMinutes: 0,
  });
  const { pourGramsPerMinute } = request.product;

  test('of a piece made anew: its route for one piece, what is off left out, and a cup of its own', () => {
    const route = [step(10, 3), step(20, 5), step(90, 90, false)];
    const [layer] = record.amounts.layers;
    const own = layer!.cups
      .flatMap(({ pours }) => pours)
      .filter(({ designId, copy }) => designId === 'wide' && copy === 1);
    const mixGrams = own.reduce((sum, { grams }) => sum + grams, 0);
    expect(anewTakes(record, wide, { route }).minutes).toBe(
      38 + layerHandsOnMinutes({ cups: 1, pours: own.length, mixGrams, pourGramsPerMinute }),
    );
  });

  test('of a piece made anew by the usual route: in the workshop’s own minutes', () => {
    const minutes = (perPieceMinutes: number): number =>
      anewTakes(record, wide, { stepMinutes: { seal: { perBatchMinutes: 0, perPieceMinutes } } }).minutes;
    expect(minutes(9) - minutes(2)).toBe(7);
  });

  test('of a film: abraded first where it goes into the calendar', () => {
    const { grams, minutes } = mendTakes(record, wide, topUp, 0.4)!;
    const once = layerHandsOnMinutes({ cups: 1, pours: 1, mixGrams: grams, pourGramsPerMinute });
    expect(minutes).toBe(once + abradeMinutes(1));
    const { inCalendar: _, ...unplanned } = topUp;
    expect(mendTakes(record, wide, unplanned, 0.4)!.minutes).toBe(once);
  });
});
