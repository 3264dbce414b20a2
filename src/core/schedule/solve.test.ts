import fc from 'fast-check';
import { wallMinutes, weekdayOf } from '../time/wallTime';
import { seeded } from '../chance/random';
import { firstSchedule, schedule, scheduling } from './solve';
import type { ScheduleRequest } from './scheduleRequest';
import { EVENINGS, inTurn, requestOf } from './testSchedules';
import { testBatch, testFacts, testWorkshop } from './testWorkshop';
import { verifyPlan } from './verify';
import { calendarRequest, type CalendarBatch, type Workplace } from './workplace';

/** Batches as workshops have them: some half done, some cast, some short of something, odd numbers. */
function dirty(seed: number): { batches: CalendarBatch[]; workplace: Partial<Workplace> } {
  const roll = seeded(seed);
  const pick = <T>(of: readonly T[]): T => of[Math.floor(roll() * of.length)]!;
  const batches = Array.from({ length: 1 + Math.floor(roll() * 4) }, (_, i) => {
    const pieces = 1 + Math.floor(roll() * 20);
    const layers = 1 + Math.floor(roll() * 3);
    const product = pick([
      'coating-epoxy',
      'slow-casting-epoxy',
      'quick-clear-epoxy',
      'five-minute-glue',
      'clear-drying-glue',
      'water-borne-gel',
    ]);
    const moulded = roll() < 0.2;
    const facts = testFacts(
      {
        pieces,
        dammed: moulded ? 0 : Math.floor(roll() * (pieces + 1)),
        moulds: moulded ? pieces : 0,
        levelCm2: Math.round(pieces * 137.3),
        rocks: Math.floor(roll() * 4),
      },
      product,
      layers,
    );
    const started = roll() < 0.35;
    return testBatch(`b${i}`, {
      due: roll() < 0.5 ? pick(['2026-12-05', '2026-12-20', '2026-11-20']) : null,
      facts: started
        ? {
            ...facts,
            layers: facts.layers.map((layer, l) => ({ ...layer, pouredAt: l === 0 ? '2026-11-21T10:07' : null })),
          }
        : facts,
      course: {
        marks: started && roll() < 0.4 ? [{ step: 'pour 1', failed: { at: '2026-11-22T10:00', why: 'cloudy' } }] : [],
      },
    });
  });
  return {
    batches,
    workplace: {
      damKits: roll() < 0.5 ? 20 : null,
      levelCm2: roll() < 0.5 ? 4000 : null,
      quiet: roll() < 0.5 ? { fromMinute: 1260, toMinute: 480 } : null,
      outdoors: roll() < 0.3 ? [{ weekday: 5, fromMinute: 600, toMinute: 900 }] : [],
      helper: roll() < 0.3 ? { name: 'Helper', windows: [{ weekday: 5, fromMinute: 600, toMinute: 960 }] } : null,
    },
  };
}

test('batches as workshops have them: every plan holds, is not before the bound, and is near it or says why not', () => {
  let planned = 0;
  for (let seed = 1; seed <= 11; seed++) {
    const { batches, workplace } = dirty(seed);
    const request = calendarRequest(batches, testWorkshop(workplace), 400)!;
    const plan = schedule(request);
    const stopped = new Set(plan.problems.flatMap(({ severity, batchId }) => (severity === 'stop' ? [batchId] : [])));
    const rest: ScheduleRequest = { ...request, batches: request.batches.filter(({ id }) => !stopped.has(id)) };
    if (rest.batches.length === 0 || plan.steps.length === 0) continue;
    planned++;
    expect(verifyPlan(rest, plan)).toEqual([]);
    const { bound } = plan;
    expect(bound.readyAt! <= plan.readyAt!).toBe(true);
    if (bound.off > 0.1 && !bound.proved) expect(bound.weakBecause).toMatch(/does not count/);
  }
  expect(planned).toBeGreaterThan(6);
});

test('with a maker who is always there and no places the plan is within a tenth of the bound', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.array(fc.record({ hands: fc.integer({ min: 1, max: 200 }), wait: fc.integer({ min: 0, max: 3000 }) }), {
          minLength: 1,
          maxLength: 6,
        }),
        { minLength: 2, maxLength: 5 },
      ),
      (batches) => {
        const request = requestOf({
          effort: 600,
          batches: batches.map((steps, b) => ({
            id: `b${b}`,
            name: `Batch ${b}`,
            steps: steps.map(({ hands, wait }, s) => ({
              id: `s${s}`,
              kind: 'other' as const,
              name: `Step ${s}`,
              handsOnMinutes: hands,
              after: s === 0 ? [] : [{ step: `s${s - 1}`, least: { minutes: wait } }],
            })),
          })),
        });
        const plan = schedule(request);
        expect(verifyPlan(request, plan)).toEqual([]);
        expect(plan.bound.off).toBeLessThanOrEqual(0.1);
      },
    ),
    { numRuns: 40, seed: 5 },
  );
});

test('the same input gives the same plan; more effort none that is worse', () => {
  const { batches, workplace } = dirty(3);
  const request = calendarRequest(batches, testWorkshop(workplace), 300)!;
  expect(schedule(request)).toEqual(schedule(request));
  const more = schedule({ ...request, effort: 900 });
  expect(more.readyAt! <= schedule(request).readyAt!).toBe(true);
});

test('on its way a search tells plans that hold, each better than the last', () => {
  const request = calendarRequest(
    ['a', 'b', 'c'].map((id) => testBatch(id)),
    testWorkshop({ damKits: 12 }),
    500,
  )!;
  const run = scheduling(request);
  const told: string[] = [];
  for (let step = run.next(); ; step = run.next()) {
    const plan = step.done ? step.value : step.value.plan;
    expect(verifyPlan(request, plan)).toEqual([]);
    told.push(plan.readyAt!);
    if (step.done) break;
  }
  expect(told.length).toBeGreaterThan(1);
  expect([...told].sort().reverse()).toEqual(told);
});

test('dam kits for one batch: the second waits until they are free', () => {
  const request = calendarRequest([testBatch('a'), testBatch('b')], testWorkshop({ damKits: 12 }), 800)!;
  const plan = schedule(request);
  const at = (batchId: string, stepId: string) =>
    plan.steps.find((step) => step.batchId === batchId && step.stepId === stepId)!;
  const [first, second] = at('a', 'dam').from < at('b', 'dam').from ? ['a', 'b'] : ['b', 'a'];
  expect(at(second!, 'dam').from >= at(first!, 'demould').to).toBe(true);
  const free = schedule({ ...request, places: [], batches: request.batches.map((batch) => ({ ...batch, holds: [] })) });
  expect(free.readyAt! < plan.readyAt!).toBe(true);
});

test('a recoat window that no evening meets is abraded, one that can be met is kept', () => {
  // Layers of ten hours' recoat window; evenings two days apart, so that only Saturday holds two.
  const tight = requestOf({
    makers: [{ name: 'Maker', windows: EVENINGS.slice(0, 2), exceptions: [] }],
    batches: [
      {
        id: 'b',
        name: 'Boards',
        steps: inTurn(
          { id: 'one', handsOnMinutes: 40 },
          {
            id: 'two',
            handsOnMinutes: 40,
            after: [{ step: 'one', least: { minutes: 240 }, most: { minutes: 600 }, abradeMinutes: 25 }],
          },
        ),
      },
    ],
  });
  const plan = schedule(tight);
  expect(verifyPlan(tight, plan)).toEqual([]);
  expect(plan.steps.map(({ stepId, from }) => [stepId, from])).toEqual([
    ['one', '2026-11-24T19:00'],
    ['two:abrade', '2026-11-26T19:00'],
    ['two', '2026-11-26T19:25'],
  ]);
  expect(plan.problems.map(({ code }) => code)).toEqual(['recoat-missed']);
  const wide = { ...tight, makers: [{ name: 'Maker', windows: EVENINGS, exceptions: [] }] };
  expect(schedule(wide).steps.map(({ stepId, from }) => [stepId, from])).toEqual([
    ['one', '2026-11-28T09:00'],
    ['two', '2026-11-28T13:40'],
  ]);
});

test('a layer that was poured too long ago is abraded before the next', () => {
  const facts = testFacts();
  const poured = {
    ...facts,
    layers: facts.layers.map((layer, i) => ({ ...layer, pouredAt: i === 0 ? '2026-11-21T10:00' : null })),
  };
  const request = calendarRequest([testBatch('b', { facts: poured })], testWorkshop())!;
  const plan = schedule(request);
  expect(plan.steps.find(({ repairs }) => repairs === 'pour 2')).toBeDefined();
  expect(verifyPlan(request, plan)).toEqual([]);
});

test('what is outdoors keeps to its hours, what is loud out of the quiet ones, what needs two to when both are there', () => {
  const request = requestOf({
    makers: [
      { name: 'One', windows: [{ weekday: 1, fromMinute: 600, toMinute: 1320 }] },
      { name: 'Two', windows: [{ weekday: 1, fromMinute: 900, toMinute: 1200 }] },
    ],
    outdoors: [{ weekday: 1, fromMinute: 720, toMinute: 780 }],
    quiet: { fromMinute: 1080, toMinute: 840 },
    batches: [
      { id: 'a', name: 'A', steps: inTurn({ id: 'spray', handsOnMinutes: 30, outdoors: true }) },
      { id: 'b', name: 'B', steps: inTurn({ id: 'saw', handsOnMinutes: 30, noisy: true }) },
      { id: 'c', name: 'C', steps: inTurn({ id: 'lift', handsOnMinutes: 30, hands: 2 }) },
    ],
  });
  const plan = schedule(request);
  expect(verifyPlan(request, plan)).toEqual([]);
  expect(plan.steps.map(({ stepId, from }) => [stepId, from.slice(11)]).sort()).toEqual([
    ['lift', '15:00'],
    ['saw', '14:00'],
    ['spray', '12:00'],
  ]);
});

test('fewest evenings gives days up for a later end; soonest does not', () => {
  const steps = (id: string) =>
    inTurn(
      { id: `${id}1`, handsOnMinutes: 60 },
      { id: `${id}2`, handsOnMinutes: 60, after: [{ step: `${id}1`, least: { minutes: 1440 } }] },
    );
  const daily = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, fromMinute: 1140, toMinute: 1260 }));
  const request = requestOf({
    makers: [{ name: 'Maker', windows: daily }],
    batches: [
      { id: 'a', name: 'A', steps: steps('a') },
      { id: 'b', name: 'B', steps: steps('b') },
    ],
  });
  const soonest = schedule(request);
  const fewest = schedule({ ...request, goal: 'fewest evenings' });
  expect(verifyPlan(request, fewest)).toEqual([]);
  expect(fewest.benchDays).toBe(2);
  expect(soonest.readyAt! <= fewest.readyAt!).toBe(true);
});

test('in the night in which clocks are put back waits are as long as they really are', () => {
  const request = requestOf({
    now: '2026-10-24T20:00',
    clockChanges: [{ at: '2026-10-25T03:00', byMinutes: -60 }],
    batches: [
      {
        id: 'b',
        name: 'Night',
        steps: inTurn(
          { id: 'pour', handsOnMinutes: 60 },
          { id: 'next', handsOnMinutes: 10, after: [{ step: 'pour', least: { minutes: 600 } }] },
        ),
      },
    ],
  });
  const plan = schedule(request);
  // 21:00 and ten hours, of which one comes twice: six in the morning.
  expect(plan.steps.map(({ from }) => from)).toEqual(['2026-10-24T20:00', '2026-10-25T06:00']);
  expect(plan.problems.map(({ code }) => code)).toEqual(['clock-change']);
  expect(verifyPlan(request, plan)).toEqual([]);
});

test('the chain that decides the end is joined by its waits', () => {
  const request = requestOf({
    batches: [
      {
        id: 'long',
        name: 'Long',
        steps: inTurn(
          { id: 'a', handsOnMinutes: 30 },
          { id: 'b', handsOnMinutes: 30, after: [{ step: 'a', least: { minutes: 900 } }] },
        ),
      },
      { id: 'short', name: 'Short', steps: inTurn({ id: 'c', handsOnMinutes: 20 }) },
    ],
  });
  const plan = schedule(request);
  expect(plan.steps.filter(({ critical }) => critical).map(({ stepId }) => stepId)).toEqual(['a', 'b']);
  expect(plan.readyAt).toBe('2026-11-24T04:00');
  expect(plan.bound).toMatchObject({ proved: true, readyAt: '2026-11-24T04:00' });
  expect(wallMinutes(plan.readyAt!) - wallMinutes(request.now)).toBe(960);
});

test('a batch or set with windows of its own keeps to them; the others do not', () => {
  const saturday = [{ weekday: 5, fromMinute: 600, toMinute: 1000 }];
  const request = calendarRequest([testBatch('a', { windows: saturday }), testBatch('b')], testWorkshop(), 400)!;
  const plan = schedule(request);
  expect(verifyPlan(request, plan)).toEqual([]);
  const days = (id: string): Set<number> =>
    new Set(
      plan.steps
        .filter(({ batchId, handsOnMinutes }) => batchId === id && handsOnMinutes > 0)
        .flatMap((step) => (step.parts ?? [step]).map(({ from }) => weekdayOf(wallMinutes(from)))),
    );
  expect([...days('a')]).toEqual([5]);
  expect(days('b').size).toBeGreaterThan(1);
});

test('a bench that has to be levelled again is levelled just before the pour, whatever else the same hands do meanwhile', () => {
  const again = { kind: 'level', name: 'Level the bench again' } as const;
  const named = { due: null, pieces: 4, set: 'S' };
  const levelled = { from: '2026-11-20T19:00', to: '2026-11-20T19:10' };
  const boards = inTurn(
    { id: 'level', handsOnMinutes: 10, done: levelled },
    { id: 'paint', handsOnMinutes: 30 },
    {
      id: 'pour',
      handsOnMinutes: 60,
      after: [
        { step: 'paint', least: { minutes: 3 * 1440 } },
        { step: 'level', most: { minutes: 720 }, abradeMinutes: 12, again },
      ],
    },
  );
  const tiles = inTurn({ id: 'carve', handsOnMinutes: 120 });
  const request = requestOf({
    batches: [
      { ...named, id: 'boards', name: 'Boards', steps: boards },
      { ...named, id: 'tiles', name: 'Tiles', steps: tiles },
    ],
  });
  // In the first plan that is shown as in the last.
  for (const { steps } of [firstSchedule(request), schedule(request)]) {
    const at = (id: string): string[] =>
      steps.filter(({ stepId }) => stepId === id).flatMap(({ from, to }) => [from, to]);
    expect(at('pour:abrade')[1]).toBe(at('pour')[0]);
    expect(at('pour')[0]! >= '2026-11-26T12:30').toBe(true);
  }
});
