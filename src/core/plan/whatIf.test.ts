import { wallMinutes } from '../time/wallTime';
import { testPiece } from '../bed/testShapes';
import { testBench, testRequest } from './testRequest';
import { planAmounts, type PlanRequest } from '.';
import { handsOnMinutes, planDifference, withLevel, withMore } from './whatIf';

const basin = { kind: 'basin' as const, id: 'b', rimMm: 20, depthMm: 4 };
const request = testRequest({ pieces: [testPiece([basin], { copies: 3 })], bench: testBench({ pricePerCup: 0.1 }) });
const planned = (of: PlanRequest) => ({ request: of, amounts: planAmounts(of) });

test('two more are numbered on, and take two more shares of what three take', () => {
  const more = withMore(request, 'T-1', 2)!;
  expect(more.pieces[0]!.copies).toBe(5);
  const [before, after] = [planned(request), planned(more)];
  const { mixGrams, money, minutes, doneAt } = planDifference(before, after);
  const each = before.amounts.pieces[0]!.pouredGrams;
  expect(after.amounts.totals.pouredGrams - before.amounts.totals.pouredGrams).toBeCloseTo(2 * each, 6);
  expect(mixGrams).toBeGreaterThan(2 * each);
  expect(money).toBeCloseTo(after.amounts.cost.total - before.amounts.cost.total, 9);
  // Two more pieces are poured later: the last of them cures last.
  expect(wallMinutes(doneAt.after!) - wallMinutes(doneAt.before!)).toBe(minutes);
});
test('copies that were measured apart keep their numbers', () => {
  const apart: PlanRequest = {
    ...request,
    pieces: [
      testPiece([basin], { copies: 2, copyNumbers: [1, 3] }),
      testPiece([basin], {
        copies: 1,
        copyNumbers: [2],
        measured: { atLevelMm: 15, readings: [{ xMm: 70, yMm: 70, depthMm: 4.4 }], fillMl: null },
      }),
    ],
  };
  expect(withMore(apart, 'T-1', 2)!.pieces[0]).toMatchObject({ copies: 4, copyNumbers: [1, 3, 4, 5] });
  expect(withMore(apart, 'elsewhere', 2)).toBeNull();
});
test('a millimetre lower saves a millimetre of water over its surface, and its weight', () => {
  const lower = withLevel(request, -1)!;
  const { mixGrams, weightGrams } = planDifference(planned(request), planned(lower));
  const { pieces, product } = planAmounts(request);
  const surfaceMm2 = pieces[0]!.water.surfaceCm2 * 100;
  const poured = ((3 * surfaceMm2) / 1000) * (product.pouredDensity / (1 - request.product.shrinkage));
  expect(-mixGrams).toBeGreaterThan(poured * 0.97);
  expect(-mixGrams).toBeLessThan(poured * 1.1);
  expect(-weightGrams).toBeGreaterThan(poured * 0.9);
  expect(withLevel(request, -15)).toBeNull();
});
test('hands-on minutes by hand: setting up each layer, stirring each cup, pouring, reaching for each piece', () => {
  const amounts = planAmounts(request);
  const byHand = amounts.layers.map(({ cups, mixGrams }) => {
    const pours = cups.reduce((sum, cup) => sum + cup.pours.length, 0);
    return Math.ceil(15 + 4 * cups.length + mixGrams / request.product.pourGramsPerMinute + 0.4 * pours);
  });
  expect(handsOnMinutes(amounts, request)).toBe(byHand.reduce((sum, one) => sum + one, 0));
});
