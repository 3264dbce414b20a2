import { schedule } from './solve';
import type { PlannedStep, SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { inTurn, requestOf, EVENINGS } from './testSchedules';
import { verifyPlan } from './verify';

const request: ScheduleRequest = requestOf({
  makers: [{ name: 'Maker', windows: EVENINGS, exceptions: [{ date: '2026-11-26', spans: [] }] }],
  places: [{ id: 'kit', name: 'dam kits', capacity: 1 }],
  quiet: { fromMinute: 1290, toMinute: 480 },
  batches: ['a', 'b'].map((id) => ({
    id,
    name: id,
    steps: inTurn(
      { id: 'dam', handsOnMinutes: 20 },
      { id: 'pour', handsOnMinutes: 40 },
      { id: 'look', handsOnMinutes: 5, after: [{ step: 'pour', least: { minutes: 10 }, most: { minutes: 15 } }] },
      {
        id: 'off',
        handsOnMinutes: 10,
        noisy: true,
        after: [
          {
            step: 'pour',
            least: { minutes: 600, curing: { cureModel: 'two-part', referenceC: 23, greatestLayerMm: 5, wetMm: 3 } },
          },
        ],
      },
    ),
    holds: [{ place: 'kit', amount: 1, from: 'dam', to: 'off' }],
  })),
});
const plan = schedule(request);
const changed = (batchId: string, stepId: string, change: Partial<PlannedStep>): SchedulePlan => ({
  ...plan,
  steps: plan.steps.map((step) => (step.batchId === batchId && step.stepId === stepId ? { ...step, ...change } : step)),
});
const breaches = (broken: SchedulePlan): string => verifyPlan(request, broken).join('; ');

test('a plan that holds has no breach; one that is bent in any way has', () => {
  expect(verifyPlan(request, plan)).toEqual([]);
  const at = (stepId: string): PlannedStep =>
    plan.steps.find((step) => step.batchId === 'a' && step.stepId === stepId)!;
  const later = (time: string, minutes: number): string =>
    new Date(Date.parse(`${time}:00Z`) + minutes * 60_000).toISOString().slice(0, 16);
  const moved = (stepId: string, minutes: number): SchedulePlan =>
    changed('a', stepId, { from: later(at(stepId).from, minutes), to: later(at(stepId).to, minutes) });
  expect(breaches({ ...plan, steps: plan.steps.filter(({ stepId }) => stepId !== 'dam') })).toMatch(
    /a\/dam is not planned/,
  );
  expect(breaches({ ...plan, steps: [...plan.steps, plan.steps[0]!] })).toMatch(/planned twice/);
  expect(breaches(moved('pour', -30))).toMatch(/pour begins before dam is over/);
  expect(breaches(moved('look', 6))).toMatch(/look is too late after pour/);
  expect(breaches(moved('look', -3))).toMatch(/look is too soon after pour/);
  expect(breaches(changed('a', 'pour', { to: later(at('pour').to, -5) }))).toMatch(/pour takes 40 min and has 35/);
  expect(breaches(changed('a', 'off', { from: '2026-11-26T19:00', to: '2026-11-26T19:10' }))).toMatch(
    /outside bench time at 2026-11-26/,
  );
  expect(breaches(changed('a', 'off', { from: '2026-12-01T21:25', to: '2026-12-01T21:35' }))).toMatch(
    /outside bench time|noisy/,
  );
  expect(breaches(changed('a', 'dam', { from: '2026-11-17T19:00', to: '2026-11-17T19:20' }))).toMatch(
    /begins in the past/,
  );
  const other = plan.steps.find((step) => step.batchId === 'b' && step.stepId === 'dam')!;
  expect(breaches(changed('a', 'dam', { from: other.from, to: other.to }))).toMatch(/done at once/);
  const [first, second] = at('dam').from < other.from ? ['a', 'b'] : ['b', 'a'];
  const free = plan.steps.find((step) => step.batchId === first && step.stepId === 'look')!.to;
  expect(breaches(changed(second!, 'dam', { from: free, to: later(free, 20) }))).toMatch(/kit holds 2 of 1/);
  const pinned = {
    ...request,
    batches: request.batches.map((batch) => ({
      ...batch,
      steps: batch.steps.map((step) => (step.id === 'dam' ? { ...step, pinned: '2026-12-05T09:00' } : step)),
    })),
  };
  expect(verifyPlan(pinned, plan).join()).toMatch(/dam is not where it is pinned/);
  const done = {
    ...request,
    batches: request.batches.map((batch) => ({
      ...batch,
      steps: batch.steps.map((step) =>
        step.id === 'dam' ? { ...step, done: { from: '2026-11-21T09:00', to: '2026-11-21T09:20' } } : step,
      ),
    })),
  };
  expect(verifyPlan(done, plan).join()).toMatch(/dam was done and has moved/);
});
