import { shortTime } from '../time/dayNames';
import type { Explanation } from '../plan/explanation';
import { formatMinutes } from '../units/formatMeasure';
import { ABRADING, abradeId } from './buildNetwork';
import { MISHAPS } from './promise';
import type { Steady } from './steady';
import type {
  PlannedStep,
  ScheduleBatch,
  SchedulePlan,
  ScheduleRequest,
  ScheduleStep,
  ScheduleWait,
} from './scheduleRequest';

const ROOM = 'Label times are summed up over the room as it changes, day and night, from quarter hour to quarter hour.';
const HANDS = 'Minutes at the bench are typical ones for the kind of step until the route of the set says better.';

const waitText = ({ minutes, curing }: ScheduleWait): string =>
  curing ? `${formatMinutes(minutes)} at ${curing.referenceC} °C by its label` : formatMinutes(minutes);

/** A step of a request by its ids, with its batch; null where there is none. */
export function findStep(
  { batches }: ScheduleRequest,
  batchId: string,
  stepId: string,
): { batch: ScheduleBatch; step: ScheduleStep } | null {
  const batch = batches.find(({ id }) => id === batchId);
  const step = batch?.steps.find(({ id }) => id === stepId);
  if (batch && step) return { batch, step };
  const next = batch?.steps.find(({ id }) => abradeId(id) === stepId);
  if (!batch || !next) return null;
  const again = next.after.find(({ abradeMinutes }) => abradeMinutes !== undefined)?.again;
  return { batch, step: { id: stepId, ...(again ?? ABRADING), handsOnMinutes: 0, after: [] } };
}

/** Why a step begins when it does. */
export function explainStep(request: ScheduleRequest, plan: SchedulePlan, planned: PlannedStep): Explanation {
  const found = findStep(request, planned.batchId, planned.stepId);
  const at = (id: string): PlannedStep | undefined =>
    plan.steps.find((one) => one.batchId === planned.batchId && one.stepId === id);
  const nameOf = (id: string): string => found?.batch.steps.find((step) => step.id === id)?.name ?? id;
  const waits = (found?.step.after ?? []).flatMap(({ step: id, least, most }) => {
    const before = at(id);
    if (!before) return [];
    const value = [
      shortTime(before.to),
      ...(least ? [`then at least ${waitText(least)}`] : []),
      ...(most
        ? [`at most ${waitText(most)}${most.afterStartMinutes ? ', from first piece to first piece' : ''}`]
        : []),
    ].join(', ');
    return [{ label: `${nameOf(id)} is over`, value }];
  });
  return {
    title: found ? `${found.step.name}, ${found.batch.name}` : 'This step',
    formula: planned.done
      ? 'when it was done'
      : planned.pinned
        ? 'where you hold it'
        : 'the first bench time that is long enough, after all that it waits for is over and the bench is free',
    inputs: [
      ...waits,
      ...(planned.opensAt ? [{ label: 'Waits are over', value: shortTime(planned.opensAt) }] : []),
      ...(planned.closesAt ? [{ label: 'Too late after', value: shortTime(planned.closesAt) }] : []),
      { label: 'At the bench', value: formatMinutes(planned.handsOnMinutes) },
      { label: 'Begins', value: shortTime(planned.from) },
    ],
    assumptions: [ROOM, HANDS],
    estimate: !planned.done,
  };
}

/** When all is ready, and how near to the best possible that is. */
export function explainReady(request: ScheduleRequest, plan: SchedulePlan): Explanation {
  const name = (id: string): string => request.batches.find((batch) => batch.id === id)?.name ?? id;
  const { bound } = plan;
  return {
    title: 'Ready',
    formula: 'the end of the last step and the full cure of the last layer, whichever is later',
    inputs: [
      ...plan.batches.map(({ batchId, readyAt }) => ({ label: name(batchId), value: shortTime(readyAt) })),
      ...(bound.readyAt ? [{ label: 'None can be ready before', value: shortTime(bound.readyAt) }] : []),
    ],
    assumptions: [
      bound.proved
        ? 'No other order is ready sooner: every one was looked at, or the bound is reached.'
        : 'Found by search: branch and bound, then neighbourhoods of the best plan; the same batches give the same plan.',
      ...(bound.weakBecause ? [bound.weakBecause] : []),
      ROOM,
      HANDS,
    ],
    estimate: true,
  };
}

/** How much is still to be done at the bench. */
export function explainBench(request: ScheduleRequest, plan: SchedulePlan): Explanation {
  return {
    title: 'At the bench',
    formula: 'the minutes of all steps that are not done, batch by batch',
    inputs: request.batches.map(({ id, name }) => ({
      label: name,
      value: formatMinutes(
        plan.steps.reduce((sum, step) => sum + (step.batchId === id && !step.done ? step.handsOnMinutes : 0), 0),
      ),
    })),
    assumptions: [
      HANDS,
      'Minutes of pours come from the plan of their layers: setting up, stirring each cup, pouring.',
    ],
    estimate: true,
  };
}

/** What a likely and a safe date rest on. */
export const explainPromise = (tries: number): Explanation => ({
  title: 'Likely and safe',
  formula: `of ${tries} tries the end by which half of them are ready, and nine in ten`,
  inputs: [
    { label: 'Hands-on times stray by', value: `${MISHAPS.handsOnSpread * 100}\u00a0%` },
    { label: 'Evenings missed', value: `${MISHAPS.missedEvening * 100} in 100` },
    { label: 'Layers that need a top-up', value: `${MISHAPS.failedLayer * 100} in 100` },
    { label: 'The room strays by', value: `${MISHAPS.roomSpreadC}\u00a0°C` },
  ],
  assumptions: ['Each try is planned anew in the same order, with its own mishaps.', 'Typical figures, not yours.'],
  estimate: true,
});

/** What steady work comes to. */
export const explainSteady = ({ sideBySide, turnMinutes, turns, handsOnMinutesPerWeek }: Steady): Explanation => ({
  title: 'Steady work',
  formula: 'pieces of all turns that give their place back in weeks 3 to 8, over six weeks',
  inputs: [
    { label: 'Turns side by side', value: String(sideBySide) },
    { label: 'A turn keeps its place for', value: formatMinutes(turnMinutes) },
    { label: 'Pieces in a turn', value: String(turns[0]?.pieces ?? 0) },
    { label: 'At the bench, a week', value: formatMinutes(handsOnMinutesPerWeek) },
  ],
  assumptions: ['Bodies are ready when their turn comes.', 'Not a best plan: turns follow each other.', ROOM, HANDS],
  estimate: true,
});
