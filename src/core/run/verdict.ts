import { RATIO_GOOD, RATIO_WRONG, ratioByWeight } from '../mixing/ratio';
import { broughtGrams } from '../pouring/portions';
import { cupEnds, inCupGrams, mixedGrams } from './cupState';
import { looksAfter } from '../pouring/looks';
import { tellsOfLeak } from './clocks';
import { layerOf, type RunState } from './runState';

/** One thing that would have gone wrong, and why. */
export interface Finding {
  what: string;
  why: string;
}

/** How a practice run came out. */
export interface Verdict {
  minutes: number;
  /** Weighings over their tolerance, and by how much altogether. */
  overshoots: number;
  overGrams: number;
  thrownAwayGrams: number;
  /** How far grams poured were off, on average, of those that were read. */
  meanPourErrorGrams: number | null;
  findings: Finding[];
}

const MINUTE_MS = 60_000;
/** A look may come so much later. */
const GRACE_MINUTES = 5;
/** A stir this much shorter than asked leaves streaks. */
const STIRRED_SHARE = 0.8;

/** Judges a run: what was over, how long it took, and what would have gone wrong with real product. */
export function verdictOf(state: RunState, now: number): Verdict {
  const findings: Finding[] = [];
  const find = (what: string, why: string): void => void findings.push({ what, why });
  const all = [...state.cups, ...state.thrownAway];
  let [overshoots, overGrams] = [0, 0];
  for (const { step, grams, why } of state.done.values()) {
    if (step.kind !== 'weigh' || grams === null || why === null || grams <= step.targetGrams) continue;
    overshoots++;
    overGrams += grams - step.targetGrams;
  }
  for (const cup of state.thrownAway) find(`Cup ${cup.number} was thrown away`, cup.discarded?.why ?? '');
  for (const cup of all) {
    const layer = layerOf(state, cup.layer);
    const { parts } = layer.product;
    const { A, B } = { A: cup.weighed.A + broughtGrams(cup.putIn), B: cup.weighed.B };
    if (parts && A > 0 && B > 0 && !cup.discarded) {
      const error = A / B / ratioByWeight(parts) - 1;
      if (Math.abs(error) > RATIO_GOOD + 1e-9)
        find(
          `Cup ${cup.number} ${Math.abs(error) > RATIO_WRONG ? 'stays sticky' : 'may stay soft'}`,
          `its ratio was ${Math.abs(error * 100).toFixed(0)} % off towards part ${error > 0 ? 'A' : 'B'}`,
        );
    }
    const ends = cupEnds(cup, layer, state.room);
    const late = ends ? cup.poured.filter(({ at }) => at > ends.by) : [];
    if (late.length > 0)
      find(
        `${late.map(({ tag, copy }) => `${tag} #${copy}`).join(', ')} will show ropes`,
        `poured ${((late.at(-1)!.at - cup.contactAt!) / MINUTE_MS).toFixed(0)} min after the parts met; to be done by ${((ends!.by - cup.contactAt!) / MINUTE_MS).toFixed(0)} min`,
      );
    const left = inCupGrams(cup, layer);
    if (cup.closedAt !== null && left > 0.25 * mixedGrams(cup, layer) && left > 10 && !cup.discarded)
      find(
        `${left.toFixed(0)} g of cup ${cup.number} were mixed for nothing`,
        'a quarter of it or more stayed in the cup',
      );
    const looks = looksAfter(layer.product, state.plan.dammed);
    if (cup.closedAt !== null && cup.poured.length > 0)
      for (const kind of ['bubbles', 'leaks'] as const) {
        // What is missed at the first look is in the water by the next.
        const [minutes] = looks[kind];
        if (minutes === undefined || state.answers.has(`${cup.key}.${cup.attempt}.look${minutes}`)) continue;
        if (now > cup.closedAt + (minutes + GRACE_MINUTES) * MINUTE_MS)
          find(
            kind === 'bubbles' ? 'Bubbles set in' : 'A leak is found in the morning',
            `nobody looked at cup ${cup.number} after ${minutes} min`,
          );
      }
  }
  for (const { step, from, at, skipped } of state.done.values()) {
    if (step.kind === 'stir' && (skipped || (at - from) / MINUTE_MS < step.minutes * STIRRED_SHARE))
      find(
        'Streaks and sticky spots',
        `stirred ${Math.round((at - from) / 1000)} s instead of ${Math.round(step.minutes * 60)} s`,
      );
    if (step.kind === 'ready' && skipped && step.item.must)
      find(step.item.why, `left out: ${step.item.text.toLowerCase()}`);
    if (step.kind === 'scrape' && skipped) find('Sticky spots at the edge', 'the cup was not scraped and changed');
  }
  for (const { slip } of state.slips) {
    const said = SLIP_VERDICTS[slip];
    if (said) {
      const found = said(state);
      if (found) findings.push(found);
    }
  }
  const read = all.flatMap(({ poured }) => poured.filter(({ assumed, filler }) => !assumed && !filler));
  return {
    minutes: (Math.min(now, state.over?.at ?? now) - state.begunAt) / MINUTE_MS,
    overshoots,
    overGrams,
    findings,
    thrownAwayGrams: state.thrownAway.reduce((sum, cup) => sum + inCupGrams(cup, layerOf(state, cup.layer)), 0),
    meanPourErrorGrams:
      read.length > 0 ? read.reduce((sum, one) => sum + Math.abs(one.grams - one.plannedGrams), 0) / read.length : null,
  };
}

/** What a slip that was thrown in has led to, where it was not caught. */
const SLIP_VERDICTS: Record<string, (state: RunState) => Finding | null> = {
  leak: ({ answers }) =>
    [...answers.values()].some(({ did }) => tellsOfLeak(did))
      ? null
      : { what: 'The leak runs on overnight', why: 'a dam let go and it was not answered as a leak' },
  'bumped scale': (state) =>
    state.thrownAway.length > 0 || [...state.done.values()].some(({ why }) => why === 'mend')
      ? {
          what: 'A bumped scale was taken for resin',
          why: 'the reading jumped; tare again with the cup lifted, or weigh by difference',
        }
      : null,
  phone: ({ slips, cups }) => {
    const late = cups.some(({ poured }) => poured.some(({ minutes }) => minutes > 2));
    return late && slips.length > 0
      ? { what: 'The phone took part of the pot life', why: 'a piece waited for more than two minutes' }
      : null;
  },
};
