/** Strips of a thickness that may lie under a board, and what a board then stands on. */
export interface ShimPlan {
  /** By board, in the order of the row: how much it is raised, and by which strips. */
  shims: { raiseMm: number; strips: number[] }[];
  /** Largest step that is left, and what the steps were before. */
  worstMm: number;
  beforeMm: number;
}

/** Levels of a standing board at its left and right end. */
export interface EndLevels {
  leftMm: number;
  rightMm: number;
}

/** Every height that so many strips can make, each by the fewest strips. */
function heights(thicknessesMm: readonly number[], most: number): { raiseMm: number; strips: number[] }[] {
  const found = new Map<number, number[]>([[0, []]]);
  let last = [...found];
  for (let count = 0; count < most; count++) {
    const next: [number, number[]][] = [];
    for (const [height, strips] of last) {
      for (const thickness of thicknessesMm) {
        const sum = Math.round((height + thickness) * 1000) / 1000;
        if (found.has(sum)) continue;
        found.set(sum, [...strips, thickness]);
        next.push([sum, [...strips, thickness]]);
      }
    }
    last = next;
  }
  return [...found].map(([raiseMm, strips]) => ({ raiseMm, strips })).sort((a, b) => a.raiseMm - b.raiseMm);
}

/**
 * Shims under the boards of a row that make its worst step least; among those the least raised in all. Exact: a
 * dynamic programme along the row, every board on any height that at most `mostStrips` of the strips at hand can make.
 */
export function shimRow(boards: readonly EndLevels[], thicknessesMm: readonly number[], mostStrips = 2): ShimPlan {
  const options = heights(thicknessesMm.filter((mm) => mm > 0), mostStrips);
  const stepOf = (left: EndLevels, raised: number, right: EndLevels, raisedRight: number): number => Math.abs(left.rightMm + raised - right.leftMm - raisedRight);
  const beforeMm = boards.slice(1).reduce((worst, board, i) => Math.max(worst, stepOf(boards[i]!, 0, board, 0)), 0);
  if (boards.length === 0) return { shims: [], worstMm: 0, beforeMm };
  let row = options.map(({ raiseMm }) => ({ worst: 0, sum: raiseMm }));
  const from: number[][] = [];
  for (let i = 1; i < boards.length; i++) {
    const choices: number[] = [];
    row = options.map(({ raiseMm }, here) => {
      let best = { worst: Infinity, sum: Infinity };
      options.forEach((before, k) => {
        const worst = Math.max(row[k]!.worst, stepOf(boards[i - 1]!, before.raiseMm, boards[i]!, raiseMm));
        const sum = row[k]!.sum + raiseMm;
        if (worst < best.worst - 1e-9 || (worst <= best.worst + 1e-9 && sum < best.sum - 1e-9)) {
          best = { worst, sum };
          choices[here] = k;
        }
      });
      return best;
    });
    from.push(choices);
  }
  // A worst step may be set early on: the sum along one's way is then least only for that way.
  let at = row.reduce((best, { worst, sum }, k) => (worst < row[best]!.worst - 1e-9 || (worst <= row[best]!.worst + 1e-9 && sum < row[best]!.sum - 1e-9) ? k : best), 0);
  const worstMm = row[at]!.worst;
  const shims = [options[at]!];
  for (let i = from.length - 1; i >= 0; i--) {
    at = from[i]![at]!;
    shims.unshift(options[at]!);
  }
  return { shims, worstMm, beforeMm };
}

/** A whole extra layer of clear product that lifts the water of a low piece: grams, or why not. */
export interface TopUp {
  grams: number;
  raiseMm: number;
  /** True when the layer would be thinner than the product flows out to. */
  tooThin: boolean;
}

/** Below this a poured layer does not flow out to an even film, mm. */
export const LEAST_FILM_MM = 0.8;

/** Grams that raise a water surface: area × rise × density, shrinkage made up for; at least a film that flows out. */
export const topUp = (surfaceCm2: number, raiseMm: number, density: number, shrinkage: number): TopUp => ({ grams: (surfaceCm2 * raiseMm * 0.1 * density) / (1 - shrinkage), raiseMm, tooThin: raiseMm < LEAST_FILM_MM });
