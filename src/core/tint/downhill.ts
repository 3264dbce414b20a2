/** Where a function is least, and how little it is there. */
export interface Least {
  at: number[];
  value: number;
}

const SHRINK = 0.5;

/**
 * The simplex method of Nelder and Mead: walks downhill from a start without slopes, for a handful of unknowns. Finds the valley
 * that the start lies in, not always the deepest. Ends after `steps`, or once the corners differ by less than `within`.
 */
export function downhill(
  f: (at: readonly number[]) => number,
  start: readonly number[],
  size: number,
  { steps = 120, within = 1e-4 }: { steps?: number; within?: number } = {},
): Least {
  const corner = (at: number[]): Least => ({ at, value: f(at) });
  const corners = [corner([...start])];
  start.forEach((value, i) => corners.push(corner(start.map((other, k) => (k === i ? value + size : other)))));
  const last = corners.length - 1;
  const between = (from: readonly number[], to: readonly number[], share: number): number[] =>
    from.map((value, i) => value + share * (to[i]! - value));
  for (let step = 0; step < steps; step++) {
    corners.sort((a, b) => a.value - b.value);
    const [best, worst] = [corners[0]!, corners[last]!];
    if (worst.value - best.value < within) break;
    const middle = start.map((_, i) => corners.slice(0, last).reduce((sum, { at }) => sum + at[i]!, 0) / last);
    const turned = corner(between(middle, worst.at, -1));
    if (turned.value < best.value) {
      const further = corner(between(middle, worst.at, -2));
      corners[last] = further.value < turned.value ? further : turned;
    } else if (turned.value < corners[last - 1]!.value) corners[last] = turned;
    else {
      const nearer = corner(between(middle, turned.value < worst.value ? turned.at : worst.at, SHRINK));
      if (nearer.value < Math.min(worst.value, turned.value)) corners[last] = nearer;
      else for (let i = 1; i <= last; i++) corners[i] = corner(between(best.at, corners[i]!.at, SHRINK));
    }
  }
  return corners.reduce((least, other) => (other.value < least.value ? other : least));
}
