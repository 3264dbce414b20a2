import { wallMinutes } from '../time/wallTime';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { waysToBeSooner, quickerProducts, triedWays } from './soonerBy';
import { type MISHAPS, promise } from './promise';
import { schedule } from './solve';
import { testBatch, testFacts, testWorkshop } from './testWorkshop';
import { calendarRequest } from './workplace';

const request = calendarRequest(
  [testBatch('a', { due: '2026-12-06' }), testBatch('b', { due: '2026-12-20' })],
  testWorkshop({ damKits: 12 }),
  500,
)!;
const plan = schedule(request);
const NONE = { handsOnSpread: 0, missedEvening: 0, failedLayer: 0, roomSpreadC: 0 };

test('with no mishaps likely and safe are the plan itself; with the usual ones they come later, safe last', () => {
  const calm = promise(request, plan, { tries: 5, mishaps: NONE })!;
  expect([calm.all.likely, calm.all.safe]).toEqual([plan.readyAt, plan.readyAt]);
  const usual = promise(request, plan, { tries: 12 })!;
  expect(usual.all.earliest).toBe(plan.readyAt);
  expect(usual.all.likely > usual.all.earliest).toBe(true);
  expect(usual.all.safe > usual.all.likely).toBe(true);
  expect(promise(request, plan, { tries: 12 })).toEqual(usual);
  const [first, second] = usual.batches;
  expect(first!.inTime! + second!.inTime!).toBeLessThanOrEqual(24);
  expect(Math.max(first!.inTime!, second!.inTime!)).toBeGreaterThan(0);
});

test('each mishap alone costs time: layers that fail, evenings missed, a room that strays', () => {
  const safe = (mishaps: Partial<Record<keyof typeof MISHAPS, number>>): number =>
    wallMinutes(promise(request, plan, { tries: 5, mishaps: { ...NONE, ...mishaps } })!.all.safe);
  const planned = wallMinutes(plan.readyAt!);
  // Every layer fails: at least the hardening of each before its top-up.
  expect(safe({ failedLayer: 1 }) - planned).toBeGreaterThan(2 * 1440);
  expect(safe({ missedEvening: 0.5 })).toBeGreaterThan(planned);
});

test('what would bring it forward is planned through: a second set of dams does, what is plenty does not', () => {
  const free = calendarRequest([testBatch('a'), testBatch('b')], testWorkshop({ damKits: 12 }), 500)!;
  const undated = schedule(free);
  const some = waysToBeSooner(free).filter(({ id }) =>
    ['place dam kits', 'evening 0', 'evening 4', 'evening 6'].includes(id),
  );
  expect(waysToBeSooner(free).map(({ id }) => id)).toEqual(
    expect.arrayContaining(['place dam kits', 'evening 0', 'evening 6', 'helper', 'warm nights']),
  );
  const tried = new Map([...triedWays(undated, some, 500)].map((one) => [one.id, one]));
  const kits = tried.get('place dam kits')!;
  expect(kits.words).toBe('24 dam kits in place of 12');
  expect(kits.soonerMinutes).toBe(wallMinutes(undated.readyAt!) - wallMinutes(kits.readyAt!));
  expect(kits.soonerMinutes).toBeGreaterThan(0);
  const evenings = [...tried.values()].filter(({ id }) => id.startsWith('evening'));
  expect(Math.max(...evenings.map(({ soonerMinutes }) => soonerMinutes))).toBeGreaterThan(0);
  const roomy = calendarRequest([testBatch('a')], testWorkshop({ damKits: 500 }), 300)!;
  const idle = [
    ...triedWays(
      schedule(roomy),
      waysToBeSooner(roomy).filter(({ id }) => id === 'place dam kits'),
      300,
    ),
  ][0]!;
  expect(idle.soonerMinutes).toBe(0);
});

test('a quicker product of the shelf, where its layers allow it, is one of the ways; poured layers keep theirs', () => {
  const facts = testFacts();
  const started = testBatch('a', {
    facts: {
      ...facts,
      layers: facts.layers.map((layer, i) => ({ ...layer, pouredAt: i === 0 ? '2026-11-23T10:00' : null })),
    },
  });
  const shelf = PRODUCT_KINDS.map(({ id, ...data }) => ({ id, data }));
  const ways = quickerProducts([started], testWorkshop(), shelf);
  expect(ways.map(({ id }) => id)).toEqual(['product quick-clear-epoxy', 'product five-minute-glue']);
  const [quick] = ways;
  expect(quick!.words).toBe('Quick clear epoxy in place of Coating epoxy, in the same layers');
  const slow = schedule(calendarRequest([started], testWorkshop(), 300)!);
  const [tried] = [...triedWays(slow, ways.slice(0, 1), 300)];
  expect(tried!.soonerMinutes).toBeGreaterThan(0);
  const cured = quick!.request.batches[0]!.steps.find(({ id }) => id === 'cured')!;
  const labels = new Map(cured.after.map(({ step, least }) => [step, least!.minutes]));
  expect(labels.get('pour 1')).toBe(facts.layers[0]!.product.fullCureMinutes);
  expect(labels.get('pour 2')).toBeLessThan(labels.get('pour 1')!);
});
