import { LEFTOVERS } from '../cure/cureModels';
import { shortTime } from '../time/dayNames';
import type { Evenings } from './evenings';
import { findStep } from './explain';
import type { SchedulePlan, ScheduleRequest } from './scheduleRequest';
import { factsOfStep, type StepKind } from './stepKinds';

/** What lies ready before a step of its kind is begun. */
const READY: Record<StepKind, string | null> = {
  cut: 'blades and a straight edge',
  seal: 'sealer',
  paint: 'paints',
  rocks: 'glue',
  'plants before': 'plants, glue',
  dam: 'dam strips, tape, glue',
  mould: 'moulds',
  'leak test': 'water, a towel',
  level: 'a level, shims, a non-stick sheet',
  pour: 'warmed bottles, cups, scale, gloves, dust covers',
  bubbles: 'a hot-air tool',
  'leak look': 'tape, a tray, dust covers',
  abrade: 'abrasive pads, a mask',
  demould: 'a blade',
  trim: 'a blade',
  sand: 'wet grits, a mask',
  gloss: 'gloss medium',
  finish: 'gloss medium',
  ripples: 'gel',
  white: 'white',
  'plants after': 'plants, flock, glue',
  varnish: 'varnish, a mask',
  inspect: null,
  cured: null,
  ready: null,
  other: null,
};

export interface BenchSession {
  from: string;
  until: string;
  ready: string[];
  steps: {
    key: string;
    /** The batch, and whether it is poured then: a run may be begun. */
    batchId: string;
    pours: boolean;
    at: string;
    name: string;
    batch: string;
    minutes: number;
    /** What must be over before, where it is only just. */
    waitsFor: string | null;
    caution: string | null;
  }[];
  cautions: string[];
}

const LABELS_FIRST =
  'Labels, safety data sheets and local rules come first; these times are planning aids, not safety limits.';

/**
 * The next time at the bench that is not over: what to get ready, what to do in which order, what must be over before.
 * Null when nothing is left.
 */
export function sessionOf(request: ScheduleRequest, plan: SchedulePlan, { evenings }: Evenings): BenchSession | null {
  const next = evenings.find(({ to, blocks }) => to > request.now && blocks.some(({ step }) => !step.done));
  if (!next) return null;
  const blocks = next.blocks.filter(({ step }) => !step.done);
  const kindOf = (batchId: string, stepId: string): StepKind =>
    findStep(request, batchId, stepId)?.step.kind ?? 'other';
  const ready = new Set(
    blocks.flatMap(({ step }) => {
      const what = READY[kindOf(step.batchId, step.stepId)];
      return what === null ? [] : [what];
    }),
  );
  const kinds = new Set(blocks.map(({ step }) => kindOf(step.batchId, step.stepId)));
  return {
    from: next.from,
    until: next.to,
    ready: [...ready],
    steps: blocks.map(({ step, name, batch, from, minutes, part }) => ({
      key: `${step.batchId}/${step.stepId}/${part}`,
      batchId: step.batchId,
      pours: kindOf(step.batchId, step.stepId) === 'pour',
      at: from,
      name,
      batch,
      minutes,
      waitsFor:
        step.closesAt !== undefined
          ? `not after ${shortTime(step.closesAt)}`
          : step.opensAt !== undefined && step.opensAt > request.now
            ? `from ${shortTime(step.opensAt)}`
            : null,
      caution: factsOfStep(kindOf(step.batchId, step.stepId)).caution ?? null,
    })),
    cautions: [...(kinds.has('pour') ? ['Gloves and eye protection, aired room.', LEFTOVERS] : []), LABELS_FIRST],
  };
}
