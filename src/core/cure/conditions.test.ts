import fc from 'fast-check';
import { cureFactor } from '../cure/cureLine';
import { temperatureFactor } from '../cure/temperature';
import { wallMinutes } from '../time/wallTime';
import { climateOf, steadyRoom, type Conditions, type CuringLayer } from '../cure/conditions';

const FROM = wallMinutes('2026-11-23T00:00');
const TO = FROM + 40 * 1440;
const EPOXY: CuringLayer = { cureModel: 'two-part', referenceC: 23, greatestLayerMm: 5, wetMm: 3 };
const GLUE: CuringLayer = { cureModel: 'water-borne', referenceC: 20, greatestLayerMm: 1, wetMm: 0.8 };

/** A room that changes its temperature at once, so that what is summed up has a closed form: nights begin and end on the hour. */
const conditions = (change: Partial<Conditions> = {}): Conditions => ({
  ...steadyRoom({ temperatureC: 23, humidity: 0.5 }),
  ...change,
});

test('in a steady room a label time is stretched by the Arrhenius factor, whenever the pour is', () => {
  for (const c of [12, 18, 23, 30]) {
    const course = climateOf(steadyRoom({ temperatureC: c, humidity: 0.5 }), FROM, TO).courseOf(EPOXY);
    for (const at of [FROM, FROM + 777.5, FROM + 9 * 1440 + 3])
      expect(course.curedAt(at, 600) - at).toBeCloseTo(600 * temperatureFactor(c, 23), 6);
  }
});

test('a water-borne film dries by the square of its thickness and the dryness of the air', () => {
  const course = climateOf(steadyRoom({ temperatureC: 20, humidity: 0.75 }), FROM, TO).courseOf(GLUE);
  expect(course.curedAt(FROM, 100) - FROM).toBeCloseTo(100 * 0.8 ** 2 * (0.5 / 0.25), 6);
});

test('a lamp cures alike in any room', () => {
  const lamp: CuringLayer = { ...EPOXY, cureModel: 'lamp' };
  const course = climateOf(conditions({ usual: { dayC: 30, nightC: 8, humidity: 0.9 } }), FROM, TO).courseOf(lamp);
  expect(course.curedAt(FROM + 300, 4320)).toBeCloseTo(FROM + 4620, 6);
});

test('over two days of other humidity each counts for as long as it lasts', () => {
  // 50 % until midnight, 80 % after it: the film has 120 minutes of the first, and what is left at 0.4 of that speed.
  const course = climateOf(
    conditions({
      usual: { dayC: 20, nightC: 20, humidity: 0.8 },
      days: [{ date: '2026-11-23', dayC: 20, nightC: 20, humidity: 0.5 }],
    }),
    FROM,
    TO,
  ).courseOf({ ...GLUE, wetMm: 1 });
  const poured = FROM + 22 * 60;
  expect(course.curedAt(poured, 200)).toBeCloseTo(FROM + 1440 + 80 / 0.4, 6);
});

test('between day and night the room goes in a straight line for an hour; a night belongs to its evening', () => {
  const { roomAt } = climateOf(
    conditions({
      usual: { dayC: 20, nightC: 14, humidity: 0.5 },
      days: [{ date: '2026-11-24', dayC: 22, nightC: 10, humidity: 0.6 }],
    }),
    FROM,
    TO,
  );
  const c = (hour: number): number => roomAt(FROM + hour * 60).temperatureC;
  expect([c(12), c(22), c(22.5), c(23), c(27), c(30)]).toEqual([20, 20, 17, 14, 14, 14]);
  // 6:30 on the 24th: half way from its night (of the 23rd) to its day.
  expect(c(30.5)).toBe(18);
  expect([c(36), c(47), c(53), c(55)]).toEqual([22, 10, 10, 20]);
  expect(roomAt(FROM + 36 * 60).humidity).toBe(0.6);
});

test('across a changing day cure is summed up, not taken from the start: to a fine sum over the same room', () => {
  fc.assert(
    fc.property(
      fc.record({
        dayC: fc.integer({ min: 16, max: 28 }),
        nightC: fc.integer({ min: 8, max: 20 }),
        from: fc.integer({ min: 0, max: 3000 }),
        label: fc.integer({ min: 30, max: 6000 }),
      }),
      ({ dayC, nightC, from, label }) => {
        const climate = climateOf(conditions({ usual: { dayC, nightC, humidity: 0.5 } }), FROM, TO);
        const poured = FROM + from;
        const cured = climate.courseOf(EPOXY).curedAt(poured, label);
        let sum = 0;
        const step = 0.5;
        for (let at = poured; at < cured - step; at += step)
          sum += step / cureFactor(EPOXY, climate.roomAt(at + step / 2), 3);
        expect(Math.abs(sum - label)).toBeLessThan(label * 2e-4 + 1);
      },
    ),
    { numRuns: 25 },
  );
});

test('a colder night lengthens, and the inverse leads back', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 20_000 }),
      fc.integer({ min: 1, max: 9000 }),
      fc.integer({ min: 6, max: 19 }),
      (from, label, nightC) => {
        const warm = climateOf(conditions({ usual: { dayC: 20, nightC: 20, humidity: 0.5 } }), FROM, TO).courseOf(
          EPOXY,
        );
        const cold = climateOf(conditions({ usual: { dayC: 20, nightC, humidity: 0.5 } }), FROM, TO).courseOf(EPOXY);
        const poured = FROM + from;
        const cured = cold.curedAt(poured, label);
        expect(cured).toBeGreaterThanOrEqual(warm.curedAt(poured, label) - 1e-6);
        expect(cold.pouredFor(cured, label)).toBeCloseTo(poured, 5);
      },
    ),
  );
});

test('before and after its table a climate goes on at its last speed', () => {
  const course = climateOf(steadyRoom({ temperatureC: 18, humidity: 0.5 }), FROM, FROM + 60).courseOf(EPOXY);
  const factor = temperatureFactor(18, 23);
  expect(course.curedAt(FROM - 500, 1000) - (FROM - 500)).toBeCloseTo(1000 * factor, 6);
  expect(course.pouredFor(FROM - 10, 100)).toBeCloseTo(FROM - 10 - 100 * factor, 6);
});
