import { schedulePlanSchema } from '../schedule/scheduleRequest';
import { verifyPlan } from '../schedule/verify';
import { inTurn, requestOf, EVENINGS } from '../schedule/testSchedules';
import { scheduleCommand, scheduleIcsCommand } from './scheduleFile';

const request = requestOf({
  makers: [{ name: 'Maker', windows: EVENINGS }],
  effort: 200,
  batches: [
    {
      id: 'b',
      name: 'Boards',
      due: '2026-12-10',
      steps: inTurn({ id: 'dam', handsOnMinutes: 30 }, { id: 'pour', handsOnMinutes: 50 }),
    },
  ],
});

test('a file in, a plan that holds out, with what may be promised; the same as a calendar file', () => {
  const { output, exitCode } = scheduleCommand(JSON.stringify(request));
  expect(exitCode).toBe(0);
  const written = JSON.parse(output) as { promise: { all: { safe: string } } };
  const plan = schedulePlanSchema.parse(written);
  expect(verifyPlan(request, plan)).toEqual([]);
  expect(plan.steps.map(({ stepId, from }) => [stepId, from])).toEqual([
    ['dam', '2026-11-24T19:00'],
    ['pour', '2026-11-24T19:30'],
  ]);
  expect(written.promise.all.safe >= plan.readyAt!).toBe(true);
  expect(scheduleIcsCommand(JSON.stringify(request)).output).toMatch(
    /^BEGIN:VCALENDAR[\s\S]*DTSTART:20261124T193000\r\n/,
  );
});

test('what cannot be is said at its field', () => {
  const long = {
    ...request,
    batches: [
      { ...request.batches[0]!, steps: [{ ...request.batches[0]!.steps[1]!, handsOnMinutes: 900, after: [] }] },
    ],
  };
  const { errors, exitCode, output } = scheduleCommand(JSON.stringify(long));
  expect([exitCode, output]).toEqual([2, '']);
  expect(errors).toMatch(/^batches\.0\.steps\.0: pour of Boards needs 15\u00a0h in one go; .* Make a bench window/);
  expect(scheduleCommand('{').errors).toMatch(/not JSON/);
  expect(scheduleCommand(JSON.stringify({ ...request, now: 'noon' })).errors).toMatch(/^now: A date and time/);
});
