import type { ReadyItem, RunBottle } from './runSchema';
import type { RunState } from './runState';

const PREFIX = 'expired.';

/** Before anything is mixed: a lot past its date is put aside, or taken by name and with a reason. */
export const expiredItems = (bottles: readonly RunBottle[], nameOf: (id: string) => string): ReadyItem[] =>
  bottles
    .filter(({ past }) => past)
    .map(({ id, name, of, goodUntil }) => ({
      id: `${PREFIX}${id}`,
      must: true,
      text: `${name}, ${nameOf(of).toLowerCase()}, put aside`,
      why: `It was good until ${goodUntil}. Left out here, it is taken all the same: test it in a small cup first.`,
    }));

/** Lots past their date that are taken all the same, by id. */
export const expiredLotsTaken = ({ done }: Pick<RunState, 'done'>): string[] =>
  [...done.values()].flatMap(({ step, skipped }) =>
    step.kind === 'ready' && skipped && step.item.id.startsWith(PREFIX) ? [step.item.id.slice(PREFIX.length)] : [],
  );
