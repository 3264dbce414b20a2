import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';

/** How full a place is, from each time at which that changes. */
export interface PlaceUse {
  id: string;
  name: string;
  unit: string;
  capacity: number;
  steps: { at: string; used: number }[];
  most: number;
}

/** What is taken of each place over a plan. */
export function placeUse({ places, batches }: ScheduleRequest, plan: SchedulePlan): PlaceUse[] {
  const times = new Map(plan.steps.map((step) => [`${step.batchId}/${step.stepId}`, step]));
  return places.map(({ id, name, unit, capacity }) => {
    const changes = batches.flatMap((batch) =>
      batch.holds
        .filter(({ place }) => place === id)
        .flatMap(({ from, to, amount }) => {
          const first = times.get(`${batch.id}/${from}`);
          const last = times.get(`${batch.id}/${to}`);
          if (!first || !last || first.from >= last.to) return [];
          return [
            { at: first.from, by: amount },
            { at: last.to, by: -amount },
          ];
        }),
    );
    changes.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.by - b.by));
    let used = 0;
    const steps: PlaceUse['steps'] = [];
    for (const { at, by } of changes) {
      used += by;
      if (steps.at(-1)?.at === at) steps[steps.length - 1] = { at, used };
      else steps.push({ at, used });
    }
    return { id, name, unit, capacity, steps, most: Math.max(0, ...steps.map((step) => step.used)) };
  });
}
