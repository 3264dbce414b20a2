import { pieceKey } from '../model/pieceRef';
import { PER_PIECE_MINUTES, type PourPace } from '../mixing/potLife';
import type { RunPour } from './runSchema';

/** What is supposed of a maker before anything is known counts like so many pieces. */
const PRIOR_PIECES = 0.15;

/** One piece as it was poured: so many grams in so many minutes, from the press before to its own. */
export interface PouredIn {
  grams: number;
  minutes: number;
}

/**
 * The pace so far: minutes = a + grams/b by least squares over the pieces that were poured. What is supposed beforehand is the usual
 * pace, slowed (or quickened) to what the maker has taken altogether; it counts as a fraction of a piece, so that pieces of one size
 * do not leave reach and speed open. An estimate; pauses count as pouring.
 */
export function paceSoFar(poured: readonly PouredIn[], usualGramsPerMinute: number): PourPace {
  const usual = { perPieceMinutes: PER_PIECE_MINUTES, gramsPerMinute: usualGramsPerMinute };
  if (poured.length === 0) return usual;
  const taken = poured.reduce((sum, { minutes }) => sum + minutes, 0);
  const slow = Math.max(1e-6, taken) / minutesFor(poured, usual);
  const before = { a: usual.perPieceMinutes * slow, c: slow / usual.gramsPerMinute };
  // In units of what a typical piece takes, so that both terms weigh alike.
  const scale = Math.max(1e-6, poured.reduce((sum, { grams }) => sum + grams, 0) / poured.length);
  let [saa, sac, scc] = [PRIOR_PIECES, 0, PRIOR_PIECES];
  let [sa, sc] = [PRIOR_PIECES * before.a, PRIOR_PIECES * before.c * scale];
  for (const { grams, minutes } of poured) {
    const g = grams / scale;
    saa += 1;
    sac += g;
    scc += g * g;
    sa += minutes;
    sc += minutes * g;
  }
  const determinant = saa * scc - sac * sac;
  const a = Math.max(0, (sa * scc - sc * sac) / determinant);
  const c = Math.max(1e-9, (sc * saa - sa * sac) / determinant / scale);
  return { perPieceMinutes: a, gramsPerMinute: 1 / c };
}

export const minutesFor = (
  pours: readonly { grams: number }[],
  { perPieceMinutes, gramsPerMinute }: PourPace,
): number => pours.reduce((sum, { grams }) => sum + perPieceMinutes + grams / gramsPerMinute, 0);

/** What the pace so far means for the rest of a cup. */
export interface Forecast {
  pace: PourPace;
  /** Minutes that the rest takes. */
  restMinutes: number;
  /** Minutes until it should be poured by; negative when that is over. */
  leftMinutes: number;
  inTime: boolean;
  /** Pieces, by key, to leave for the next mix, when not all are filled in time. */
  leave: string[];
  /** Pairs that stand together and would be parted by that. */
  parts: [string, string][];
}

/**
 * Whether the rest of a cup is filled in time at the pace so far, and if not, which pieces to leave for the next mix: the last of them,
 * as few as it takes; more, where that keeps two together that stand side by side. Where nothing else can be, it says whom it parts.
 */
export function forecast(
  rest: readonly RunPour[],
  poured: readonly PouredIn[],
  usualGramsPerMinute: number,
  leftMinutes: number,
  pairs: readonly (readonly [string, string])[],
  pouredKeys: ReadonlySet<string> = new Set(),
): Forecast {
  const pace = paceSoFar(poured, usualGramsPerMinute);
  const restMinutes = minutesFor(rest, pace);
  if (restMinutes <= leftMinutes) return { pace, restMinutes, leftMinutes, inTime: true, leave: [], parts: [] };
  let [fits, minutes] = [0, 0];
  for (const pour of rest) {
    minutes += minutesFor([pour], pace);
    if (minutes > leftMinutes) break;
    fits++;
  }
  const keys = rest.map(pieceKey);
  const partedAt = (cut: number): [string, string][] => {
    const here = new Set([...pouredKeys, ...keys.slice(0, cut)]);
    const later = new Set(keys.slice(cut));
    return pairs.flatMap(([a, b]): [string, string][] =>
      (here.has(a) && later.has(b)) || (here.has(b) && later.has(a)) ? [[a, b]] : [],
    );
  };
  let cut = fits;
  while (cut > 0 && partedAt(cut).length > 0) cut--;
  // If even leaving all of them parts a pair, fewer pieces in the next mix are better.
  if (partedAt(cut).length > 0) cut = fits;
  return { pace, restMinutes, leftMinutes, inTime: false, leave: keys.slice(cut), parts: partedAt(cut) };
}
