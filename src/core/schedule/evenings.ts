import { benchSpans } from '../time/benchWindows';
import { toWallTime, wallMinutes, type WallTime } from '../time/wallTime';
import { findStep } from './explain';
import type { PlannedStep, SchedulePlan, ScheduleRequest } from './scheduleRequest';

/** One stretch of a step at the bench, as it stands in its evening. */
export interface EveningBlock {
  step: PlannedStep;
  /** The name of the step and of its batch. */
  name: string;
  batch: string;
  from: WallTime;
  to: WallTime;
  minutes: number;
  /** Which stretch of a paused step it is, of how many. */
  part: number;
  parts: number;
  /** Idle minutes between it and the one before. */
  idle: number;
}

/** One bench window that has work in it, or might. */
export interface Evening {
  from: WallTime;
  to: WallTime;
  blocks: EveningBlock[];
  workedMinutes: number;
  /** Bench minutes of the window itself, from now on. */
  minutes: number;
}

/** Pieces of a batch on their way from one evening to the next in which they are worked on. */
export interface Stream {
  batchId: string;
  pieces: number;
  /** Evenings by number, and the blocks in them. */
  fromEvening: number;
  fromBlock: number;
  toEvening: number;
  toBlock: number;
  leftAt: WallTime;
  backAt: WallTime;
  /** What the wait is for. */
  wait: 'recoat' | 'firm' | 'dry' | 'time';
  /** When it is over at the earliest, and when its recoat window closes. */
  opensAt: WallTime | null;
  closesAt: WallTime | null;
}

export interface Evenings {
  evenings: Evening[];
  streams: Stream[];
}

/** Windows that touch, or of several makers, are one evening. */
function windowsOf({ makers, now }: ScheduleRequest, until: number): { from: number; to: number }[] {
  const from = wallMinutes(now);
  const spans = makers
    .flatMap(({ windows, exceptions }) => benchSpans(windows, from, until, exceptions))
    .sort((a, b) => a.from - b.from);
  const joined: { from: number; to: number }[] = [];
  for (const span of spans) {
    const last = joined.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else joined.push({ ...span });
  }
  return joined;
}

/** Work that is further apart than this stands in two columns, where no windows say so. */
const APART_MINUTES = 240;
/** Windows behind the last step that are still shown: where a step might be dragged to. */
const EXTRA_EVENINGS = 3;

/**
 * A plan as evenings at the bench: every window with what is done in it, in order, and the waits between them in which pieces of a
 * batch flow from one to the next. Steps that take nobody are not in them. What is done stands where it was done.
 */
export function eveningsOf(request: ScheduleRequest, plan: SchedulePlan): Evenings {
  const batchOf = new Map(request.batches.map((batch) => [batch.id, batch]));
  const blocks = plan.steps
    // What is only known to have been done before something else has no time of its own.
    .filter(({ handsOnMinutes, from, to }) => handsOnMinutes > 0 && from < to)
    .flatMap((step) => {
      const stretches = step.parts ?? [{ from: step.from, to: step.to }];
      return stretches.map(({ from, to }, part): EveningBlock => ({
        step,
        name: findStep(request, step.batchId, step.stepId)?.step.name ?? step.stepId,
        batch: batchOf.get(step.batchId)?.name ?? '',
        from,
        to,
        minutes: wallMinutes(to) - wallMinutes(from),
        part,
        parts: stretches.length,
        idle: 0,
      }));
    })
    .sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : a.to < b.to ? -1 : 1));
  const lastAt = Math.max(wallMinutes(request.now), ...blocks.map(({ to }) => wallMinutes(to)));
  const all = windowsOf(request, lastAt + 28 * 1440);
  const behind = all.findIndex(({ from }) => from > lastAt);
  const windows = behind < 0 ? all : all.slice(0, behind + EXTRA_EVENINGS);
  const evenings: Evening[] = windows.map(({ from, to }) => ({
    from: toWallTime(from),
    to: toWallTime(to),
    minutes: to - from,
    blocks: [],
    workedMinutes: 0,
  }));
  for (const block of blocks) {
    let evening = evenings.find(({ from, to }) => block.from < to && block.from >= from);
    if (!evening) {
      evening = evenings.find(
        ({ blocks: others }) =>
          others.length > 0 &&
          Math.abs(wallMinutes(block.from) - wallMinutes(others.at(-1)!.to)) < APART_MINUTES &&
          block.from.slice(0, 10) === others[0]!.from.slice(0, 10),
      );
    }
    if (!evening) {
      evening = { from: block.from, to: block.to, minutes: 0, blocks: [], workedMinutes: 0 };
      evenings.push(evening);
    }
    const before = evening.blocks.at(-1);
    block.idle = before ? Math.max(0, wallMinutes(block.from) - wallMinutes(before.to)) : 0;
    evening.blocks.push(block);
    evening.workedMinutes += block.minutes;
    if (block.to > evening.to) evening.to = block.to;
    if (evening.minutes < wallMinutes(evening.to) - wallMinutes(evening.from))
      evening.minutes = wallMinutes(evening.to) - wallMinutes(evening.from);
  }
  evenings.sort((a, b) => (a.from < b.from ? -1 : 1));
  return { evenings, streams: streamsOf(request, evenings) };
}

function streamsOf(request: ScheduleRequest, evenings: readonly Evening[]): Stream[] {
  return request.batches.flatMap((batch) => {
    const stops = evenings.flatMap((evening, e) =>
      evening.blocks.flatMap((block, b) => (block.step.batchId === batch.id ? [{ e, b, block }] : [])),
    );
    return stops.flatMap((stop, k): Stream[] => {
      const next = stops[k + 1];
      if (!next || next.e === stop.e) return [];
      const kindOf = (id: string): string | undefined => batch.steps.find((step) => step.id === id)?.kind;
      // What the next step waits for longest of all that was done before it.
      const target = batch.steps.find(({ id }) => id === next.block.step.stepId);
      const recoat = target?.after.find(({ least, most }) => least?.curing && (most || kindOf(target.id) === 'pour'));
      const curing = target?.after.find(({ least }) => least?.curing);
      const wait = recoat ? 'recoat' : curing ? (kindOf(target!.id) === 'demould' ? 'firm' : 'dry') : 'time';
      return [
        {
          batchId: batch.id,
          pieces: batch.pieces,
          fromEvening: stop.e,
          fromBlock: stop.b,
          toEvening: next.e,
          toBlock: next.b,
          leftAt: stop.block.to,
          backAt: next.block.from,
          wait,
          opensAt: next.block.step.opensAt ?? null,
          closesAt: next.block.step.closesAt ?? null,
        },
      ];
    });
  });
}
