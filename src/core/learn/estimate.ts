/** What is supposed of a figure before the record speaks: it counts as `n0` observations that spread by so much. */
export interface Prior {
  value: number;
  n0: number;
  /** How far single observations usually lie from it (standard deviation), in its own unit. */
  spread: number;
}

/** One observation of a figure; one of weight 2 counts like two. */
export interface Observation {
  value: number;
  weight: number;
}

/** A figure as it is known by now. */
export interface Estimate {
  value: number;
  /** Standard error of the value, in its unit. */
  plusMinus: number;
}

/**
 * A mean with a prior, conjugate: value = (n0·prior + Σ w·x)/(n0 + Σ w); its standard error is s/√(n0 + Σ w), where s² is what single
 * observations spread by, the prior's own spread counted n0 times: (n0·spread² + Σ w·(x − x̄)² + n0·W/(n0 + W)·(x̄ − prior)²)/(n0 + W).
 * That is the normal-gamma update. Without observations it is the prior.
 */
export function learnMean({ value: prior, n0, spread }: Prior, observations: readonly Observation[]): Estimate {
  const weight = observations.reduce((sum, one) => sum + one.weight, 0);
  const mean = weight > 0 ? observations.reduce((sum, one) => sum + one.weight * one.value, 0) / weight : prior;
  const within = observations.reduce((sum, one) => sum + one.weight * (one.value - mean) ** 2, 0);
  const between = ((n0 * weight) / (n0 + weight)) * (mean - prior) ** 2;
  return {
    value: (n0 * prior + weight * mean) / (n0 + weight),
    plusMinus: Math.sqrt((n0 * spread ** 2 + within + between) / (n0 + weight)) / Math.sqrt(n0 + weight),
  };
}

/** One observation of a sum of several terms: y = Σ a_k·x_k. */
export interface Row {
  x: readonly number[];
  y: number;
}

/**
 * Least squares for y = Σ a_k·x_k with what is supposed of each a_k beforehand counted as `n0` observations of typical size (the root
 * mean square of its x_k), each a_k at least 0: a term that would come out negative is 0 and the rest is fitted without it. Without rows
 * it is the prior.
 */
export function learnLinear(prior: readonly number[], n0: number, rows: readonly Row[]): number[] {
  if (rows.length === 0) return [...prior];
  const products = prior.map(() => prior.map(() => 0));
  const right = prior.map(() => 0);
  for (const { x, y } of rows)
    for (let k = 0; k < prior.length; k++) {
      right[k]! += x[k]! * y;
      for (let l = 0; l < prior.length; l++) products[k]![l]! += x[k]! * x[l]!;
    }
  // So much more certain is each term, in the square of its own size.
  const own = prior.map((_, k) => n0 * (products[k]![k]! / rows.length || 1));
  const fitted = prior.map(() => 0);
  let free = prior.map((_, k) => k);
  while (free.length > 0) {
    const solved = solve(
      free.map((k) => free.map((l) => products[k]![l]! + (k === l ? own[k]! : 0))),
      free.map((k) => right[k]! + own[k]! * prior[k]!),
    );
    if (solved.every((value) => value >= 0)) {
      free.forEach((k, i) => (fitted[k] = solved[i]!));
      break;
    }
    free = free.filter((_, i) => solved[i]! >= 0);
  }
  return fitted;
}

/** Gaussian elimination of a symmetric positive definite system of a few unknowns. */
function solve(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const rows = matrix.map((row, i) => [...row, right[i]!]);
  const n = rows.length;
  for (let i = 0; i < n; i++)
    for (let j = i + 1; j < n; j++) {
      const share = rows[j]![i]! / rows[i]![i]!;
      for (let k = i; k <= n; k++) rows[j]![k]! -= share * rows[i]![k]!;
    }
  const solved = Array.from({ length: n }, () => 0);
  for (let i = n - 1; i >= 0; i--) {
    const known = solved.reduce((sum, value, k) => (k > i ? sum + rows[i]![k]! * value : sum), 0);
    solved[i] = (rows[i]![n]! - known) / rows[i]![i]!;
  }
  return solved;
}

/** From so many spreads off the middle an observation is taken for a slip: a clock that was wrong, a pause, a misread scale. */
const FAR_OFF = 4;
/** With fewer observations than this the middle is what was supposed. */
const ENOUGH_FOR_A_MIDDLE = 5;
/** A median deviation times this is the standard deviation of a normal spread. */
const MAD_TO_SPREAD = 1.4826;
/** However close the observations lie together: no nearer than this share of the usual spread is called far off. */
const LEAST_SPREAD = 0.5;

/**
 * Which observations lie far off the others: four spreads from their median, the spread by the median deviation (at least half of the
 * usual one). Fewer than five are measured from what was supposed, by its spread.
 */
export function farOff({ value, spread }: Pick<Prior, 'value' | 'spread'>, values: readonly number[]): boolean[] {
  const few = values.length < ENOUGH_FOR_A_MIDDLE;
  const middle = few ? value : median(values);
  const width = few
    ? spread
    : Math.max(LEAST_SPREAD * spread, MAD_TO_SPREAD * median(values.map((one) => Math.abs(one - middle))));
  return values.map((one) => Math.abs(one - middle) > FAR_OFF * width);
}

/** The middle of some values; the mean of the two middle ones of an even number. */
export function median(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
