/** Median milliseconds of a run, over several, after one to warm up. */
export function medianMs(run: () => unknown, runs = 9): number {
  run();
  const times = Array.from({ length: runs }, () => {
    const start = performance.now();
    run();
    return performance.now() - start;
  });
  return median(times);
}

/** The middle one of some figures. */
export const median = (figures: readonly number[]): number =>
  [...figures].sort((a, b) => a - b)[Math.floor(figures.length / 2)]!;

/** One line of the report: a time against its yardstick, and the most it may be. */
export interface Result {
  what: string;
  ms: number;
  /** Times the summing pass of the same run. */
  ratio: number;
  limit: string;
  within: boolean;
}

/** Prints the results as a table and says whether all are within their limits. */
export function report(passMs: number, results: readonly Result[]): boolean {
  console.log(`yardstick: one pass that sums 1.5 million heights, ${passMs.toFixed(2)} ms\n`);
  const rows = results.map(({ what, ms, ratio, limit, within }) => [
    what,
    ms < 0.1 ? `${(ms * 1000).toFixed(2)} µs` : `${ms.toFixed(2)} ms`,
    ratio < 0.01 ? ratio.toExponential(1) : `${ratio.toFixed(2)} ×`,
    limit,
    within ? 'within' : 'OVER',
  ]);
  const widths = rows[0]!.map((_, i) => Math.max(...rows.map((row) => row[i]!.length)));
  for (const row of rows) console.log(row.map((cell, i) => cell.padEnd(widths[i]!)).join('  '));
  return results.every(({ within }) => within);
}
