/**
 * Heights as a short text for the way to the browser: whole ticks, each as its difference from the one before in base 36, runs of
 * the same difference as `difference*times`. Exact to half a tick.
 */
export function shortHeights(heightMm: ArrayLike<number>, tickMm: number): string {
  const runs: { step: number; times: number }[] = [];
  let before = 0;
  for (let i = 0; i < heightMm.length; i++) {
    const ticks = Math.round(heightMm[i]! / tickMm);
    const step = ticks - before;
    before = ticks;
    const last = runs.at(-1);
    if (last?.step === step) last.times++;
    else runs.push({ step, times: 1 });
  }
  return runs.map(({ step, times }) => `${step.toString(36)}${times > 1 ? `*${times}` : ''}`).join(' ');
}

/** The heights of a short text, mm. */
export function longHeights(text: string, tickMm: number): number[] {
  const perMm = Math.round(1 / tickMm);
  const heights: number[] = [];
  let ticks = 0;
  for (const run of text === '' ? [] : text.split(' ')) {
    const [step, times = '1'] = run.split('*');
    // Divided by a whole number: 183 tenths are 18.3, not 18.300000000000001.
    for (let i = 0; i < Number(times); i++) heights.push((ticks += parseInt(step!, 36)) / perMm);
  }
  return heights;
}
