/** A bed cut open: heights along it, evenly spaced, mm. */
export interface Cut {
  lengthMm: number;
  heightMm: readonly number[];
}

/** What of a cut lies under a level, mm². */
const areaUnder = ({ lengthMm, heightMm }: Cut, levelMm: number): number =>
  (heightMm.reduce((sum, height) => sum + Math.max(0, levelMm - height), 0) * lengthMm) / Math.max(1, heightMm.length);

/**
 * The level at which a cut holds this share of what it holds between two levels: how far a piece looks filled. By the cut, not the whole
 * bed: for a picture.
 */
export function levelAt(cut: Cut, fromMm: number, toMm: number, share: number): number {
  const base = areaUnder(cut, fromMm);
  const wanted = base + Math.min(1.3, Math.max(0, share)) * (areaUnder(cut, toMm) - base);
  let [low, high] = [fromMm, toMm + (toMm - fromMm)];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (areaUnder(cut, middle) < wanted) low = middle;
    else high = middle;
  }
  return high;
}

/** A bed for what has none: a plain hollow between two levels. */
export const plainCut = (fromMm: number, toMm: number): Cut => ({
  lengthMm: 60,
  heightMm: Array.from({ length: 25 }, (_, i) => {
    const x = Math.abs(i - 12) / 12;
    return fromMm + (toMm + 2 - fromMm) * Math.min(1, x ** 4 * 1.4);
  }),
});

/** The outline of a body and of its water between two levels, as paths; x from 0 to `width`, y downwards from `top`. */
export function cutPaths(
  { heightMm }: Cut,
  waterMm: number,
  { width, scaleY, floorY }: { width: number; scaleY: number; floorY: number },
): { body: string; water: string } {
  const last = heightMm.length - 1;
  const x = (i: number): string => ((i / last) * width).toFixed(1);
  const y = (mm: number): string => (floorY - mm * scaleY).toFixed(1);
  const bed = heightMm.map((height, i) => `${i === 0 ? 'M' : 'L'}${x(i)} ${y(height)}`).join('');
  const surface = heightMm.map((height, i) => `${i === 0 ? 'M' : 'L'}${x(i)} ${y(Math.max(height, waterMm))}`).join('');
  const back = [...heightMm]
    .reverse()
    .map((height, i) => `L${x(last - i)} ${y(height)}`)
    .join('');
  return { body: `${bed}L${width} ${floorY}L0 ${floorY}Z`, water: `${surface}${back}Z` };
}
