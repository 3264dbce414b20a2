import { advise } from '../model/problem';
import { shortTime } from '../time/dayNames';
import { temperatureFactor } from '../cure/temperature';
import { formatMinutes } from '../units/formatMeasure';
import type { Built } from './buildNetwork';
import { Engine } from './engine';
import type { State } from './network';
import type { ScheduleBatch, ScheduleProblem, ScheduleStep } from './scheduleRequest';
import { AFTER_THE_POUR, factsOfStep } from './stepKinds';

const about = (
  batch: ScheduleBatch,
  step: ScheduleStep | null,
  problem: Omit<ScheduleProblem, 'batchId' | 'stepId' | 'path'>,
): ScheduleProblem => ({ ...problem, path: [], batchId: batch.id, ...(step && { stepId: step.id }) });

/** What keeps a batch from being planned at all, with the mend. */
export function stopsOf(built: Built): ScheduleProblem[] {
  const { net, tasks, request } = built;
  const found: ScheduleProblem[] = [];
  tasks.forEach(({ batch, step }, i) => {
    const { minutes, hands, calendars, fixed, mayPause, onlyIf } = net.tasks[i]!;
    if (fixed || hands === 0 || onlyIf !== null) return;
    const longest = Math.max(...calendars.map((calendar) => calendar.longest()));
    if (longest >= (mayPause ? Math.min(minutes, 15) : minutes)) return;
    const where =
      step.hands === 2
        ? 'both makers share no bench time'
        : step.outdoors
          ? 'no outdoor hour in your bench windows'
          : 'no bench window';
    found.push(
      about(batch, step, {
        severity: 'stop',
        code: 'no-bench-window',
        message:
          longest === 0
            ? `${step.name} of ${batch.name} needs ${formatMinutes(minutes)}, and there is ${where} for it.`
            : `${step.name} of ${batch.name} needs ${formatMinutes(minutes)} in one go; the longest time for it is ${formatMinutes(longest)}.`,
        mend: advise(
          longest === 0
            ? 'Give it a bench window in the workshop, on the shelf.'
            : `Make a bench window ${formatMinutes(minutes)} long, or make a batch of fewer pieces.`,
        ),
      }),
    );
  });
  for (const batch of request.batches) {
    for (const { place, amount } of batch.holds) {
      const there = request.places.find(({ id }) => id === place);
      if (!there || amount <= there.capacity) continue;
      const unit = there.unit === '' ? '' : `\u00a0${there.unit}`;
      const parts = there.capacity > 0 ? Math.ceil(amount / there.capacity) : 0;
      found.push(
        about(batch, null, {
          severity: 'stop',
          code: 'place-too-small',
          message: `${batch.name} needs ${round(amount)}${unit} ${there.name}; there are ${round(there.capacity)}${unit}.`,
          mend: advise(
            parts > 1
              ? `Make ${parts} batches of it, or have ${round(amount)}${unit} ${there.name}.`
              : `Have ${round(amount)}${unit} ${there.name}.`,
          ),
        }),
      );
    }
    for (const step of batch.steps) found.push(...lagStops(built, batch, step), ...orderStops(batch, step));
  }
  return found;
}

const round = (value: number): string => String(Math.round(value * 10) / 10);

/** Lags that can never both be kept, in the room as it is. */
function lagStops({ net, tasks, now }: Built, batch: ScheduleBatch, step: ScheduleStep): ScheduleProblem[] {
  const to = tasks.findIndex((task) => task.batch === batch && task.step === step);
  return net.links
    .filter((link) => link.to === to && link.least && link.most && link.choice === null)
    .filter(({ least, most }) => least!.after(now) > most!.after(now))
    .map(({ from, least, most }) =>
      about(batch, step, {
        severity: 'stop',
        code: 'does-not-fit',
        message: `${step.name} may begin ${formatMinutes(least!.after(now) - now)} after ${tasks[from]!.step.name} at the earliest and ${formatMinutes(most!.after(now) - now)} after it at the latest: both cannot be.`,
        mend: advise('Make the greatest lag longer than the least.'),
      }),
    );
}

/** Steps whose order the work itself decides. */
function orderStops(batch: ScheduleBatch, step: ScheduleStep): ScheduleProblem[] {
  const befores = factsOfStep(step.kind).before ?? [];
  const follows = reachedFrom(batch, step.id);
  const broken = (first: ScheduleStep, then: ScheduleStep, why: string): ScheduleProblem =>
    about(batch, step, {
      severity: 'stop',
      code: 'order-broken',
      message: `${first.name} stands after ${then.name} in the route of ${batch.name}: ${why}.`,
      mend: advise(`Move ${first.name} before ${then.name}.`),
    });
  const wrong = befores.flatMap(({ kind, why }) => {
    const late = batch.steps.find((other) => other.kind === kind && reachedFrom(batch, other.id).has(step.id));
    return late && !(step.kind === 'plants before' && late.kind === 'pour') ? [broken(step, late, why)] : [];
  });
  const early = AFTER_THE_POUR.find(({ kind }) => kind === step.kind);
  const pour = early && batch.steps.find((other) => other.kind === 'pour' && follows.has(other.id));
  return pour ? [...wrong, broken(pour, step, early.why)] : wrong;
}

/** Ids of the steps that come after one, directly or not. */
function reachedFrom(batch: ScheduleBatch, id: string): Set<string> {
  const reached = new Set<string>();
  const stack = [id];
  while (stack.length > 0) {
    const at = stack.pop()!;
    for (const { id: next, after } of batch.steps)
      if (!reached.has(next) && after.some(({ step }) => step === at)) {
        reached.add(next);
        stack.push(next);
      }
  }
  return reached;
}

/** A pot life that is shorter by more than this share than its cups were sized for is said. */
const POT_LIFE_SLACK = 0.1;

/** What a plan costs or risks: late batches, windows that close, cold rooms, pins that break something. */
export function problemsOf(built: Built, state: State): ScheduleProblem[] {
  const { net, tasks, request, toWall, now } = built;
  const engine = new Engine(net);
  const found: ScheduleProblem[] = [];
  net.batches.forEach(({ due, ready }) => {
    const { batch } = tasks[ready]!;
    if (due === null) return;
    if (due < now)
      found.push(
        about(batch, null, {
          severity: 'warn',
          code: 'due-past',
          message: `${batch.name} was due ${shortTime(`${batch.due!}T00:00`).split(',')[0]}: that is past. It is planned as soon as can be.`,
          mend: advise('Agree on another date.'),
        }),
      );
    else if (state.end[ready]! > due)
      found.push(
        about(batch, null, {
          severity: 'warn',
          code: 'late',
          message: `${batch.name} is ready ${shortTime(toWall(state.end[ready]!))}, ${formatMinutes(state.end[ready]! - due)} after it is due.`,
          mend: advise('See under Promise what would bring it forward.'),
        }),
      );
  });
  tasks.forEach(({ batch, step, repairs }, i) => {
    const task = net.tasks[i]!;
    if (step.done || !engine.isDone(state, i)) return;
    if (repairs !== null) {
      const before = net.links.find(({ to, choice }) => tasks[to]!.step.id === repairs && choice === task.onlyIf)!;
      const first = tasks[before.from]!;
      const closes = shortTime(toWall(before.most!.after(state.end[before.from]!)));
      found.push(
        about(batch, step, {
          severity: 'warn',
          code: step.kind === 'abrade' ? 'recoat-missed' : 'too-long-before',
          message:
            step.kind === 'abrade'
              ? `${first.step.name} of ${batch.name} cannot be recoated in time: its window closes ${closes}. ${formatMinutes(task.minutes)} to abrade it are in the plan.`
              : `${first.step.name} of ${batch.name} is too long before what follows: it holds until ${closes}. ${formatMinutes(task.minutes)} to do it again are in the plan.`,
          mend: advise(
            first.step.done
              ? 'It is past: nothing to be done about it but that.'
              : 'Drag it nearer to what follows, or give the bench a longer window.',
          ),
        }),
      );
    }
    if (step.kind === 'pour') found.push(...roomProblems(built, i, state));
    if (!task.fixed || step.pinned === undefined) return;
    if (state.end[i]! <= now)
      found.push(
        about(batch, step, {
          severity: 'warn',
          code: 'step-overdue',
          message: `${step.name} of ${batch.name} was planned for ${shortTime(toWall(state.start[i]!))}, and nothing is said of it.`,
          mend: advise('Mark it done, or plan anew from now.'),
        }),
      );
    else found.push(...brokenPins(built, state, i));
  });
  const change = request.clockChanges.find(({ at }) => {
    const steady = built.toSteady(at);
    return steady > now && net.batches.some(({ ready }) => state.end[ready]! > steady);
  });
  if (change)
    found.push({
      severity: 'hint',
      code: 'clock-change',
      path: [],
      message: `In the night of ${shortTime(change.at).split(',')[0]} the clock is put ${change.byMinutes > 0 ? 'on' : 'back'} ${formatMinutes(Math.abs(change.byMinutes))}: waits over it are as long as they really are.`,
    });
  return found;
}

/** A room that is colder than the product sets in, or warmer than its cups were sized for. */
function roomProblems({ tasks, climate }: Built, i: number, state: State): ScheduleProblem[] {
  const { batch, step } = tasks[i]!;
  const at = state.start[i]!;
  const room = climate.roomAt(at).temperatureC;
  // The night after a pour is when it gets cold.
  const coldest = Math.min(...Array.from({ length: 25 }, (_, hour) => climate.roomAt(at + hour * 60).temperatureC));
  const found: ScheduleProblem[] = [];
  if (step.leastC !== undefined && coldest < step.leastC)
    found.push(
      about(batch, step, {
        severity: 'warn',
        code: 'cold-room',
        message: `${step.name} of ${batch.name}: within a day of it the room falls to ${round(coldest)} °C, below the ${round(step.leastC)} °C in which the product sets.`,
        mend: advise(`Keep the pieces at ${round(step.leastC)} °C or more, or pour when nights are warmer.`),
      }),
    );
  const { plannedC, potLifeMinutes } = step;
  if (plannedC !== undefined && potLifeMinutes !== undefined && room > plannedC) {
    const shorter = temperatureFactor(room, plannedC);
    if (shorter < 1 - POT_LIFE_SLACK)
      found.push(
        about(batch, step, {
          severity: 'warn',
          code: 'pot-life-shorter',
          message: `${step.name} of ${batch.name} falls into a room of ${round(room)} °C; its cups were sized at ${round(plannedC)} °C. The shortest pot life is ${formatMinutes(potLifeMinutes * shorter)} then, not ${formatMinutes(potLifeMinutes)}.`,
          mend: advise(`Set the room of the batch to ${round(room)} °C at Pour: its cups are sized anew.`),
        }),
      );
  }
  return found;
}

/** What a step that is held where it is wanted breaks. */
function brokenPins({ net, tasks, toWall }: Built, state: State, i: number): ScheduleProblem[] {
  const { batch, step } = tasks[i]!;
  const at = state.start[i]!;
  const found: ScheduleProblem[] = [];
  const breaks = (message: string, mend: string): void => {
    found.push(about(batch, step, { severity: 'stop', code: 'pin-breaks', message, mend: advise(mend) }));
  };
  const when = shortTime(toWall(at));
  const engine = new Engine(net);
  let opens: { at: number; before: string } | null = null;
  for (const { from, to, least, most } of net.links) {
    if (to !== i || !engine.isDone(state, from)) continue;
    const over = least ? least.after(state.end[from]!) : state.end[from]!;
    const before = tasks[from]!.step.name;
    // Of all that it waits for the last is told.
    if (at < over && over > (opens?.at ?? -Infinity)) opens = { at: over, before };
    const closes = most?.after(state.end[from]!);
    if (closes !== undefined && at > closes)
      breaks(
        `${step.name} is held ${when}; its window after ${before} closes ${shortTime(toWall(closes))}.`,
        `Move it before ${shortTime(toWall(closes))}, or abrade first.`,
      );
  }
  if (opens) {
    const from = shortTime(toWall(opens.at));
    breaks(`${step.name} is held ${when}; ${opens.before} allows it from ${from}.`, `Move it to ${from} or later.`);
  }
  const { calendars, minutes, mayPause } = net.tasks[i]!;
  if (calendars.length > 0 && calendars.every((calendar) => calendar.fit(at, minutes, mayPause) !== at))
    breaks(
      `${step.name} takes ${formatMinutes(minutes)} and is held ${when}: that is not bench time all through.`,
      'Move it into a bench window, or make that window longer.',
    );
  return found;
}
