import { seeded } from '../chance/random';
import type { RunPlan } from './runSchema';

/** What may go wrong in practice. */
export const SLIPS = ['cold part', 'bumped scale', 'leak', 'phone'] as const;
export type Slip = (typeof SLIPS)[number];

/** A slip, and in which cup it comes. */
export interface PlannedSlip {
  slip: Slip;
  /** Counted over all cups of the run, from 0. */
  cup: number;
  /** Grams that the scale jumps by, °C that a part is colder, seconds that a call takes. */
  amount: number;
}

export const SLIP_WORDS: Record<Slip, string> = {
  'cold part': 'One bottle stood on the cold floor: it flows slowly and drips on after you stop.',
  'bumped scale': 'An elbow on the bench: the scale jumped.',
  leak: 'A dam has let go: a wet edge under the first piece.',
  phone: 'The phone rings, with gloves on.',
};

/** The slips of a practice run: each seed has its own, one of a kind, spread over the cups. */
export function slipsFor(plan: Pick<RunPlan, 'layers'>, seed: number): PlannedSlip[] {
  const roll = seeded(seed);
  const cups = Math.max(
    1,
    plan.layers.reduce((sum, layer) => sum + layer.cups.length, 0),
  );
  return SLIPS.filter(() => roll() < 0.75).map((slip) => ({
    slip,
    cup: Math.floor(roll() * cups),
    amount: slip === 'bumped scale' ? 3 + 9 * roll() : slip === 'phone' ? 40 + 80 * roll() : 4 + 5 * roll(),
  }));
}
