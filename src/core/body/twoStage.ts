/** A fill in two goes inside a mould or dam: up to where its lip reaches the level, then inside the lip. */
export interface TwoStageFill {
  firstMl: number;
  secondMl: number;
  /** How high the first fill creeps over its own level: the lip that holds the second. */
  lipMm: number;
  /** Sanding the lip off after one fill, and what is left of that after two. Minutes at the bench. */
  sandOnceMinutes: number;
  sandTwiceMinutes: number;
  /** Mixing and pouring once more, at the bench; and waiting for the first fill. */
  secondFillMinutes: number;
  waitMinutes: number;
  /** Which takes less time at the bench. */
  quicker: 'one fill' | 'two fills';
}

/** Typical at the bench: wet sanding a lip, for each 100 mm of wall and 0.1 mm of lip; and one small mix more. */
export const SAND_MINUTES_PER_100_MM = 0.6;
export const SECOND_MIX_MINUTES = 10;

/** Splits a fill in two at the lip. `volumeAt` gives the bed's ml at a level; `wallMl` is what creeps up `wallMm` of wall. */
export function twoStageFill(
  volumeAt: (levelMm: number) => number,
  levelMm: number,
  { wallMm, wallMl, lipMm }: { wallMm: number; wallMl: number; lipMm: number },
  waitMinutes: number,
): TwoStageFill {
  const firstMl = volumeAt(levelMm - lipMm) + wallMl;
  const secondMl = Math.max(0, volumeAt(levelMm) - firstMl);
  const sandOnceMinutes = (wallMm / 100) * (lipMm / 0.1) * SAND_MINUTES_PER_100_MM;
  // Inside the lip the second fill ends flush: only the seam between the two is left to dress.
  const sandTwiceMinutes = sandOnceMinutes / 2;
  return {
    firstMl,
    secondMl,
    lipMm,
    sandOnceMinutes,
    sandTwiceMinutes,
    secondFillMinutes: SECOND_MIX_MINUTES,
    waitMinutes,
    quicker: sandOnceMinutes - sandTwiceMinutes > SECOND_MIX_MINUTES ? 'two fills' : 'one fill',
  };
}
