import { steadyRoom } from '../cure/conditions';
import { planAmounts, planTimes } from '../plan';
import { testRequest } from '../plan/testRequest';
import { batchFacts } from './facts';
import { keptRequest, withKept, withMark, withPourAt } from './kept';
import { movedSteps, replan, stepKey } from './replan';
import { schedule } from './solve';
import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { testBatch, testFacts, testWorkshop } from './testWorkshop';
import { verifyPlan } from './verify';
import { keptPours } from './routes';
import { calendarRequest, type CalendarBatch } from './workplace';

const workshop = testWorkshop({ damKits: 12 });
const two = (): CalendarBatch[] => [testBatch('a'), testBatch('b')];
const asked = (batches: readonly CalendarBatch[], now?: string): ScheduleRequest =>
  calendarRequest(batches, now === undefined ? workshop : { ...workshop, now }, 600)!;
const at = (plan: SchedulePlan, batchId: string, stepId: string): string =>
  plan.steps.find((step) => step.batchId === batchId && step.stepId === stepId)!.from;
const allOf = (request: ScheduleRequest, batchId: string): Set<string> =>
  new Set(request.batches.find(({ id }) => id === batchId)!.steps.map(({ id }) => stepKey(batchId, id)));

test('a pour that is held on a later evening stays there, what hangs on it follows, what does not moves no sooner than it must', () => {
  const batches = two();
  const request = asked(batches);
  const plan = schedule(request);
  const last = at(plan, 'a', 'pour 1') > at(plan, 'b', 'pour 1') ? 'a' : 'b';
  const held = batches.map((batch) =>
    batch.id === last ? { ...batch, course: withMark(batch.course, 'pour 1', { pinned: '2026-12-19T09:00' }) } : batch,
  );
  const wished = asked(held);
  const next = replan(wished, plan, allOf(wished, last));
  expect(at(next, last, 'pour 1')).toBe('2026-12-19T09:00');
  expect(verifyPlan(wished, next)).toEqual([]);
  const moved = movedSteps(plan, next);
  expect(moved.find(({ stepId }) => stepId === 'pour 2')!.batchId).toBe(last);
  expect(moved.every(({ batchId }) => batchId === last)).toBe(true);
});

test('a pour that is held too early stands there all the same, and what it breaks is said with the time that would do', () => {
  const batches = two();
  const plan = schedule(asked(batches));
  const early = [
    { ...batches[0]!, course: withMark(batches[0]!.course, 'pour 2', { pinned: '2026-11-24T19:00' }) },
    batches[1]!,
  ];
  const wished = asked(early);
  const next = replan(wished, plan, allOf(wished, 'a'));
  expect(at(next, 'a', 'pour 2')).toBe('2026-11-24T19:00');
  const broken = next.problems.filter(({ code }) => code === 'pin-breaks');
  expect(broken.length).toBeGreaterThan(0);
  expect(broken[0]).toMatchObject({ batchId: 'a', stepId: 'pour 2', severity: 'stop' });
  expect(broken[0]!.message).toMatch(/Pour layer 2 is held Tue 24 Nov, 19:00; .* allows it from/);
});

test('held outside bench time is said too', () => {
  const [batch] = two();
  const night = { ...batch!, course: withMark(batch!.course, 'cut', { pinned: '2026-11-25T03:00' }) };
  const plan = schedule(asked([night]));
  expect(plan.problems.find(({ code }) => code === 'pin-breaks')!.message).toMatch(/not bench time all through/);
});

test('a plan that is kept comes back as it was; what is overdue is said; done things stay where they were when it is planned anew', () => {
  const batches = two();
  const request = asked(batches);
  const plan = schedule(request);
  const kept = batches.map((batch) => ({ ...batch, course: withKept(batch.course, batch.id, plan, request.now) }));
  const times = (of: SchedulePlan): string[] =>
    of.steps
      .filter(({ handsOnMinutes }) => handsOnMinutes > 0)
      .map(({ batchId, stepId, from, to }) => `${batchId} ${stepId} ${from} ${to}`)
      .sort();
  const again = schedule(keptRequest(asked(kept), kept)!);
  expect(times(again)).toEqual(times(plan));
  expect(again.benchDays).toBe(plan.benchDays);
  // It stands there because it is kept; nothing is held by hand.
  expect(again.steps.some(({ pinned }) => pinned)).toBe(false);
  // Two weeks on nothing was marked.
  const later = '2026-12-07T12:00';
  const overdue = schedule(keptRequest(asked(kept, later), kept)!);
  expect(overdue.problems.filter(({ code }) => code === 'step-overdue').length).toBeGreaterThan(3);
  // One step is marked done later than planned: the rest is planned anew round it.
  const done = { from: '2026-12-05T10:00', to: '2026-12-05T12:15' };
  const marked = kept.map((batch) =>
    batch.id === 'a' ? { ...batch, course: withMark(batch.course, 'cut', { done }) } : batch,
  );
  const anew = asked(marked, later);
  const next = schedule(anew);
  expect(at(next, 'a', 'cut')).toBe(done.from);
  expect(verifyPlan(anew, next)).toEqual([]);
});

test('a kept plan with a missed recoat window keeps the abrading', () => {
  const facts = testFacts({}, 'quick-clear-epoxy', 2);
  const batch = testBatch('a', {
    facts: { ...facts, layers: facts.layers.map((layer) => ({ ...layer, handsOnMinutes: 100 })) },
  });
  const evenings = { ...workshop, benchWindows: workshop.benchWindows.slice(0, 2) };
  const request = calendarRequest([batch], evenings, 400)!;
  const plan = schedule(request);
  expect(plan.steps.some(({ repairs }) => repairs === 'pour 2')).toBe(true);
  const kept = [{ ...batch, course: withKept(batch.course, 'a', plan, request.now) }];
  const again = schedule(keptRequest(calendarRequest(kept, evenings, 400)!, kept)!);
  expect(at(again, 'a', 'pour 2:abrade')).toBe(at(plan, 'a', 'pour 2:abrade'));
  expect(at(again, 'a', 'pour 2')).toBe(at(plan, 'a', 'pour 2'));
});

test('a batch that no kept plan has is a reason to plan anew', () => {
  const batches = two();
  const request = asked(batches);
  const plan = schedule(request);
  const kept = [{ ...batches[0]!, course: withKept(batches[0]!.course, 'a', plan, request.now) }, batches[1]!];
  expect(keptRequest(asked(kept), kept)).toBeNull();
});

test('a mark that says nothing more is dropped', () => {
  const course = withMark({ marks: [] }, 'dam', { pinned: '2026-12-01T19:00' });
  expect(course.marks).toHaveLength(1);
  expect(withMark(course, 'dam', { pinned: undefined }).marks).toEqual([]);
});

test('a calendar that is kept and the plan of its batch tell one moment for each pour, and one window', () => {
  const room = { temperatureC: 20, humidity: 0.5 };
  const request = testRequest({ room, set: { name: 'S', figureScaleMm: 28, levelMm: 17 } });
  const amounts = planAmounts(request);
  expect(amounts.layers.length).toBeGreaterThan(1);
  const batch: CalendarBatch = { ...testBatch('a'), facts: batchFacts(request, amounts) };
  const asking = calendarRequest([batch], { ...testWorkshop(), room }, 600)!;
  const plan = schedule(asking);
  const course = withKept(batch.course, 'a', plan, asking.now);
  const calendar = keptPours(course);
  const { cures } = planTimes(amounts, { ...request, calendar, conditions: steadyRoom(room), pourAt: asking.now });
  expect(cures.map(({ pouredAt }) => pouredAt)).toEqual(
    amounts.layers.map(({ number }) => at(plan, 'a', `pour ${number}`)),
  );
  // The calendar lets the next layer begin no sooner than the plan says that it may.
  expect(at(plan, 'a', 'pour 2') >= cures[0]!.recoatOpensAt).toBe(true);
  // Poured at another time, it is held there and no plan is kept any more.
  const moved = withPourAt({ pourAt: calendar[0]!.at, course }, '2027-01-09T10:00');
  expect(moved).toMatchObject({ pourAt: '2027-01-09T10:00', course: { marks: [{ pinned: '2027-01-09T10:00' }] } });
  expect(moved.course?.kept).toBeUndefined();
});
