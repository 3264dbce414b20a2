/** Numbers of chance that are the same for the same seed. */
export interface Dice {
  /** From 0 to below `most`. */
  whole: (most: number) => number;
  one: <T>(of: readonly T[]) => T;
}

/** A generator by its seed (mulberry32). */
export function diceOf(seed: number): Dice {
  let state = seed >>> 0;
  const next = (): number => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const whole = (most: number): number => Math.floor(next() * most);
  return { whole, one: (of) => of[whole(of.length)]! };
}
