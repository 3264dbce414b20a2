/** A height that strips make, and which strips. */
export interface Shim {
  raiseMm: number;
  strips: number[];
}

/** Shims under the four corners of a standing board, as seen from the front of the table. */
export interface CornerShims {
  frontLeft: Shim;
  backLeft: Shim;
  frontRight: Shim;
  backRight: Shim;
}

/** Levels of a standing board along its left and its right end: at the front, the middle, the back of the table. */
export interface EndLevels {
  left: readonly [number, number, number];
  right: readonly [number, number, number];
}

/** What lies under each board of a row, and the worst step before and after. */
export interface ShimPlan {
  shims: CornerShims[];
  worstMm: number;
  beforeMm: number;
  /** Most strips under one corner that were thought of. */
  mostStrips: number;
}

/** Every height that so many strips can make, each by the fewest strips. */
function heights(thicknessesMm: readonly number[], most: number): Shim[] {
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

/** More ways for a board to lie than this make the programme slow: then fewer strips are thought of. */
const MOST_WAYS = 350;

/** Ways for a stiff board to lie on shims: all corners alike, or any corners that lie in one plane (else it rocks). */
function waysToLie(options: readonly Shim[], perCorner: boolean): CornerShims[] {
  if (!perCorner)
    return options.map((shim) => ({ frontLeft: shim, backLeft: shim, frontRight: shim, backRight: shim }));
  const byHeight = new Map(options.map((shim) => [Math.round(shim.raiseMm * 1000), shim]));
  return options.flatMap((frontLeft) =>
    options.flatMap((backLeft) =>
      options.flatMap((frontRight) => {
        const backRight = byHeight.get(Math.round((backLeft.raiseMm + frontRight.raiseMm - frontLeft.raiseMm) * 1000));
        return backRight ? [{ frontLeft, backLeft, frontRight, backRight }] : [];
      }),
    ),
  );
}

const raised = (
  [front, middle, back]: readonly [number, number, number],
  atFront: Shim,
  atBack: Shim,
): [number, number, number] => [
  front + atFront.raiseMm,
  middle + (atFront.raiseMm + atBack.raiseMm) / 2,
  back + atBack.raiseMm,
];
const stepOf = (a: readonly [number, number, number], b: readonly [number, number, number]): number =>
  Math.max(Math.abs(a[0] - b[0]), Math.abs(a[1] - b[1]), Math.abs(a[2] - b[2]));
const inAll = ({ frontLeft, backLeft, frontRight, backRight }: CornerShims): number =>
  frontLeft.raiseMm + backLeft.raiseMm + frontRight.raiseMm + backRight.raiseMm;

/**
 * Shims under the boards of a row that make its worst step least; among those the least raised in all. Per board (all four
 * corners alike) or per corner, with at most `mostStrips` strips under one. Exact: a dynamic programme along the row. Assumes stiff
 * boards, whose cured water tilts with them.
 */
export function shimRow(
  boards: readonly EndLevels[],
  thicknessesMm: readonly number[],
  { perCorner = false, mostStrips = 2 }: { perCorner?: boolean; mostStrips?: number } = {},
): ShimPlan {
  const thicknesses = thicknessesMm.filter((mm) => mm > 0);
  const beforeMm = boards
    .slice(1)
    .reduce((worst, board, i) => Math.max(worst, stepOf(boards[i]!.right, board.left)), 0);
  const ways = waysToLie(heights(thicknesses, mostStrips), perCorner);
  if (ways.length > MOST_WAYS && mostStrips > 1)
    return shimRow(boards, thicknessesMm, { perCorner, mostStrips: mostStrips - 1 });
  if (boards.length === 0) return { shims: [], worstMm: 0, beforeMm, mostStrips };
  const lefts = boards.map(({ left }) => ways.map((way) => raised(left, way.frontLeft, way.backLeft)));
  const rights = boards.map(({ right }) => ways.map((way) => raised(right, way.frontRight, way.backRight)));
  const sums = ways.map(inAll);
  let row = ways.map((_, k) => ({ worst: 0, sum: sums[k]! }));
  const from: number[][] = [];
  for (let i = 1; i < boards.length; i++) {
    const choices: number[] = [];
    row = ways.map((_, here) => {
      let best = { worst: Infinity, sum: Infinity };
      for (let before = 0; before < ways.length; before++) {
        const worst = Math.max(row[before]!.worst, stepOf(rights[i - 1]![before]!, lefts[i]![here]!));
        const sum = row[before]!.sum + sums[here]!;
        if (worst < best.worst - 1e-9 || (worst <= best.worst + 1e-9 && sum < best.sum - 1e-9)) {
          best = { worst, sum };
          choices[here] = before;
        }
      }
      return best;
    });
    from.push(choices);
  }
  let at = row.reduce(
    (best, { worst, sum }, k) =>
      worst < row[best]!.worst - 1e-9 || (worst <= row[best]!.worst + 1e-9 && sum < row[best]!.sum - 1e-9) ? k : best,
    0,
  );
  const worstMm = row[at]!.worst;
  const shims = [ways[at]!];
  for (let i = from.length - 1; i >= 0; i--) {
    at = from[i]![at]!;
    shims.unshift(ways[at]!);
  }
  return { shims, worstMm, beforeMm, mostStrips };
}

/** Below this a poured layer does not flow out to an even film, mm. */
export const LEAST_FILM_MM = 0.8;

/** A whole extra layer of clear product that lifts the water of a low piece: grams, or why not. */
export interface TopUp {
  grams: number;
  raiseMm: number;
  /** True when the layer would be thinner than the product flows out to. */
  tooThin: boolean;
}

/** Grams that raise a water surface: area × rise × density, shrinkage made up for; at least a film that flows out. */
export const topUp = (surfaceCm2: number, raiseMm: number, density: number, shrinkage: number): TopUp => ({
  grams: (surfaceCm2 * raiseMm * 0.1 * density) / (1 - shrinkage),
  raiseMm,
  tooThin: raiseMm < LEAST_FILM_MM,
});
