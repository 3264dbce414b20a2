import { FIRST_PIECE_MINUTES, SETUP_MINUTES } from '../pouring/handsOn';
import type { After, ScheduleBatch, ScheduleStep } from './scheduleRequest';
import { factsOfStep } from './stepKinds';

/** A top-up takes this share of the layer's hands-on time beyond setting up. An estimate. */
const TOP_UP_SHARE = 0.4;

/** Minutes at the bench to abrade so many pieces. An estimate. */
export function abradeMinutes(pieces: number): number {
  const { perBatchMinutes, perPieceMinutes } = factsOfStep('abrade');
  return perBatchMinutes + perPieceMinutes * pieces;
}

/**
 * A batch in which a layer did not come out: once it is hard enough to be handled it is abraded and topped up, and what followed the
 * layer follows the top-up after the same waits. Looks for bubbles and leaks stay with the layer itself.
 */
export function withRepair(batch: ScheduleBatch, pourId: string): ScheduleBatch {
  const failed = batch.steps.find(({ id, kind }) => id === pourId && kind === 'pour');
  if (!failed) return batch;
  const linkOf = ({ after }: ScheduleStep): After | undefined => after.find(({ step }) => step === pourId);
  const looks = new Set(['bubbles', 'leak look']);
  const followers = batch.steps.filter((step) => linkOf(step) && !looks.has(step.kind));
  const firm = followers
    .filter(({ kind }) => kind !== 'cured')
    .map((step) => linkOf(step)!.least)
    .reduce((most, least) => (least && least.minutes > (most?.minutes ?? 0) ? least : most), undefined);
  const [abradeId, topUpId] = [`repair ${pourId}`, `top-up ${pourId}`];
  const { potLifeMinutes, plannedC, leastC } = failed;
  const added: ScheduleStep[] = [
    {
      id: abradeId,
      kind: 'abrade',
      name: `Abrade: ${failed.name}`,
      mayPause: true,
      handsOnMinutes: abradeMinutes(batch.pieces),
      after: [{ step: pourId, ...(firm && { least: firm }) }],
    },
    {
      id: topUpId,
      kind: 'pour',
      name: `Top up: ${failed.name}`,
      handsOnMinutes: FIRST_PIECE_MINUTES + Math.max(0, failed.handsOnMinutes - SETUP_MINUTES) * TOP_UP_SHARE,
      after: [{ step: abradeId }],
      ...(potLifeMinutes !== undefined && { potLifeMinutes }),
      ...(plannedC !== undefined && { plannedC }),
      ...(leastC !== undefined && { leastC }),
    },
  ];
  const steps = batch.steps.flatMap((step): ScheduleStep[] => {
    if (step.id === pourId) return [step, ...added];
    const link = linkOf(step);
    if (!link || looks.has(step.kind)) return [step];
    // The next layer goes on the top-up; what waits for the layer to be hard waits for both.
    const others = step.kind === 'pour' ? step.after.filter((one) => one !== link) : step.after;
    return [{ ...step, after: [...others, { ...link, step: topUpId }] }];
  });
  return { ...batch, steps };
}
