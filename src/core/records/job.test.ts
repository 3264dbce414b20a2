import fc from 'fast-check';
import type { RecordedStep } from '../learn/recordedWork';
import { hoursSpread, jobFigures, partsOfBatch, sharedMoney, timedParts, type JobBatch, type JobPart } from './job';

const material = (likely: number) => ({
  low: { product: likely * 0.9, colourant: 0, consumables: 0 },
  likely: { product: likely - 3, colourant: 1, consumables: 2 },
  high: { product: likely * 1.2, colourant: 0, consumables: 0 },
});
const batch = (more: Partial<JobBatch> = {}): JobBatch => ({
  id: 'b1',
  name: 'Creek',
  steps: [
    {
      kind: 'cut',
      name: 'Cut and carve',
      handsOnMinutes: 60,
      done: { from: '2026-11-01T18:00', to: '2026-11-01T19:30' },
    },
    { kind: 'seal', name: 'Seal', handsOnMinutes: 30, done: { from: '2026-11-02T18:00', to: '2026-11-02T18:00' } },
    { kind: 'pour', name: 'Pour', handsOnMinutes: 40 },
    { kind: 'sand', name: 'Sand', handsOnMinutes: 120 },
    { kind: 'cured', name: 'Full cure', handsOnMinutes: 0 },
  ],
  mixGrams: 400,
  pouredGrams: 100,
  material: material(20),
  taken: 6.5,
  ...more,
});
const usual = { low: 0.8, likely: 1, high: 1.4, batches: 0 };
const figuresOf = (parts: readonly JobPart[], limits: { hours: number | null; money: number | null }, spread = usual) =>
  jobFigures(parts, { ratePerHour: 10, margin: 0.2, spread, limits });

describe('the parts of a batch', () => {
  const parts = partsOfBatch(batch());
  const of = (what: string) => parts.find((part) => part.what === what)!;

  test('a step counts by the clock where it was marked, as reckoned where it is only known to be done', () => {
    expect(of('Cut and carve')).toMatchObject({ minutes: 90, done: true, timed: true, stage: 'bodies' });
    expect(of('Seal')).toMatchObject({ minutes: 30, done: true, timed: false });
    expect(of('Pour')).toMatchObject({ minutes: 40, done: false });
    expect(parts.some(({ what }) => what === 'Full cure')).toBe(false);
  });

  test('material: what left the bottles is spent, the share that is not poured is to come', () => {
    expect(of('Material, out of the bottles').money.likely).toBe(6.5);
    // Three quarters of 20, of 18 and of 24.
    expect(of('Material').money).toEqual({ low: 13.5, likely: 15, high: 18 });
  });

  test('without bottles what was poured is spent as planned', () => {
    const planned = partsOfBatch(batch({ taken: null }));
    expect(planned.find(({ what }) => what === 'Material, as planned')!.money.likely).toBe(5);
  });

  test('what is poured whole leaves nothing to buy', () => {
    expect(partsOfBatch(batch({ pouredGrams: 420 })).some(({ what }) => what === 'Material')).toBe(false);
  });
});

describe('a job', () => {
  const parts = [
    ...partsOfBatch(batch()),
    ...timedParts({ timed: [{ at: '2026-11-03T20:00', stage: 'surface', minutes: 30, note: '' }] }),
  ];

  test('spent and to come are the sums of its parts; money is material and hours at their rate', () => {
    const { hours, money, material: stuff, timedHours } = figuresOf(parts, { hours: null, money: null });
    // 90 + 30 + 30 minutes done; 40 + 120 to come.
    expect(hours).toMatchObject({ spent: 2.5, limit: null, over: 0, may: false });
    expect(hours.likely).toBeCloseTo(2.5 + 160 / 60, 9);
    expect(hours.low).toBeCloseTo(2.5 + (0.8 * 160) / 60, 9);
    expect(hours.high).toBeCloseTo(2.5 + (1.4 * 160) / 60, 9);
    expect(stuff).toEqual({ spent: 6.5, likely: 21.5 });
    expect(money.spent).toBeCloseTo(6.5 + 25, 9);
    expect(money.likely).toBeCloseTo(21.5 + hours.likely * 10, 9);
    expect(timedHours).toBe(2);
  });

  test('its stages add up to the whole', () => {
    const { hours, money, stages } = figuresOf(parts, { hours: null, money: null });
    const all = (of: (one: (typeof stages)[number]) => number): number => stages.reduce((sum, one) => sum + of(one), 0);
    expect(all(({ spentHours }) => spentHours)).toBeCloseTo(hours.spent, 9);
    expect(all(({ spentHours, toComeHours }) => spentHours + toComeHours)).toBeCloseTo(hours.likely, 9);
    expect(all(({ spentMoney }) => spentMoney)).toBeCloseTo(money.spent, 9);
    expect(all(({ spentMoney, toComeMoney }) => spentMoney + toComeMoney)).toBeCloseTo(money.likely, 9);
  });

  test('over its hours: by how much, and what would bring it back, the cheapest that is enough first', () => {
    const { hours, ways } = figuresOf(parts, { hours: 4, money: null });
    expect(hours.over).toBeCloseTo(2.5 + 160 / 60 - 4, 9);
    expect(ways.map(({ what, enough }) => [what, enough])).toEqual([['leave out: sand', true]]);
    expect(ways[0]).toMatchObject({ hours: 2, money: 20 });
  });

  test('within its hours, and over them only if it goes badly', () => {
    expect(figuresOf(parts, { hours: 6, money: null })).toMatchObject({ hours: { over: 0, may: true }, ways: [] });
    expect(figuresOf(parts, { hours: 7, money: null }).hours.may).toBe(false);
  });

  test('a batch that is not begun may be left unmade; one that is begun, or the only one, may not', () => {
    const later = partsOfBatch(
      batch({
        id: 'b2',
        name: 'Creek',
        pouredGrams: 0,
        taken: null,
        steps: [{ kind: 'pour', name: 'Pour', handsOnMinutes: 300 }],
      }),
    );
    const { ways } = figuresOf([...parts, ...later], { hours: 1, money: null });
    expect(ways.map(({ what, batchId }) => [what, batchId])).toContainEqual(['leave unmade', 'b2']);
    expect(ways.filter(({ what }) => what === 'leave unmade')).toHaveLength(1);
    expect(figuresOf(later, { hours: 1, money: null }).ways).toEqual([]);
  });

  test('a job of nothing is nothing', () => {
    expect(figuresOf([], { hours: 1, money: 1 })).toMatchObject({
      hours: { spent: 0, likely: 0, over: 0 },
      stages: [],
      ways: [],
    });
  });
});

describe('how hours turn out', () => {
  const step = (batchId: string, times: number): RecordedStep => ({
    key: batchId,
    at: '2026-11-01T10:00',
    batchId,
    kind: 'dam',
    minutes: times * (5 + 4 * 4),
    pieces: 4,
  });

  test('is what is usual while fewer than three batches were timed', () => {
    expect(hoursSpread([step('a', 2), step('b', 2)], {})).toEqual({ low: 0.8, likely: 1, high: 1.4, batches: 0 });
  });

  test('is their mean with the prior, and where nine of ten further ones lie', () => {
    const spread = hoursSpread([step('a', 1.3), step('b', 1.3), step('c', 1.3), step('d', 1.3)], {});
    expect(spread.likely).toBeCloseTo((2 + 4 * 1.3) / 6, 9);
    // s² = (2·0.04 + 0 + 8/6·0.09)/6 with six counted.
    const s = Math.sqrt((0.08 + (8 / 6) * 0.09) / 6);
    expect(spread.high - spread.likely).toBeCloseTo(1.2816 * s * Math.sqrt(1 + 1 / 6), 9);
    expect(spread.likely - spread.low).toBeCloseTo(spread.high - spread.likely, 9);
    expect(spread.batches).toBe(4);
  });

  test('minutes that were taken over are what is reckoned: they do not count twice', () => {
    const own = { dam: { perBatchMinutes: 6.5, perPieceMinutes: 5.2 } };
    const steps = ['a', 'b', 'c'].map((id) => step(id, 1.3));
    expect(hoursSpread(steps, own).likely).toBeCloseTo(1, 9);
  });
});

describe('money that is shared out', () => {
  test('adds up to the cent, and no share is off by more than one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 500_000 }),
        fc.array(fc.double({ min: 0, max: 1000, noNaN: true }), { minLength: 1, maxLength: 30 }),
        (cents, weights) => {
          const shares = sharedMoney(cents / 100, weights);
          expect(Math.round(shares.reduce((sum, share) => sum + share, 0) * 100)).toBe(cents);
          const all = weights.reduce((sum, weight) => sum + weight, 0);
          shares.forEach((share, i) => {
            const exact = all > 0 ? (cents * weights[i]!) / all : cents / weights.length;
            expect(Math.abs(share * 100 - exact)).toBeLessThan(1.001);
          });
        },
      ),
    );
  });

  test('ten among three: 3.34, 3.33, 3.33', () => expect(sharedMoney(10, [1, 1, 1])).toEqual([3.34, 3.33, 3.33]));
});
