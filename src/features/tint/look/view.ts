/** From where the pieces are looked at. Angles in degrees: round the table from the south, and up from the table. */
export interface View {
  roundDeg: number;
  upDeg: number;
  distanceMm: number;
  target: readonly [number, number, number];
}

const RAD = Math.PI / 180;
const LOWEST_DEG = 2;

/** Where the eye is, and which way is up for it. Straight down, north is up. */
export function eyeOf({ roundDeg, upDeg, distanceMm, target }: View): {
  position: [number, number, number];
  up: [number, number, number];
  target: [number, number, number];
} {
  const [round, up] = [roundDeg * RAD, upDeg * RAD];
  const out: [number, number] = [Math.sin(round), -Math.cos(round)];
  const [x, y, z] = target;
  return {
    position: [
      x + distanceMm * Math.cos(up) * out[0],
      y + distanceMm * Math.cos(up) * out[1],
      z + distanceMm * Math.sin(up),
    ],
    up: [-Math.sin(up) * out[0], -Math.sin(up) * out[1], Math.cos(up)],
    target: [x, y, z],
  };
}

/** A view turned by so many degrees, never below the table nor over the top. */
export const turned = (view: View, roundDeg: number, upDeg: number): View => ({
  ...view,
  roundDeg: (((view.roundDeg + roundDeg) % 360) + 360) % 360,
  upDeg: Math.min(90, Math.max(LOWEST_DEG, view.upDeg + upDeg)),
});

/** A view nearer or further, within reason. */
export const nearer = (view: View, factor: number): View => ({
  ...view,
  distanceMm: Math.min(6000, Math.max(60, view.distanceMm * factor)),
});

/** Views with a name, and the key for each. */
export const NAMED_VIEWS = [
  { key: 'Home', name: 'Straight down', upDeg: 90, roundDeg: 0 },
  { key: '0', name: 'From a seat', upDeg: 34, roundDeg: 22 },
  { key: 'End', name: 'Eye level', upDeg: 6, roundDeg: 8 },
] as const;

/** Drawn pixels for each pixel of the screen while a view is turned: what it begins with, and how far it may go either way. */
export const FIRST_SHARPNESS = 0.5;
const LEAST_SHARPNESS = 0.35;
const MOST_SHARPNESS = 1;
/** Frames that take longer than this stutter; in those that take no longer than that there is room for more. */
const STUTTER_MS = 28;
const ROOM_MS = 18;

/** How sharply to go on drawing when frames take so long: coarser at once where they stutter, finer step by step where there is room. */
export function paced(sharpness: number, frameMs: number): number {
  if (frameMs > STUTTER_MS) return Math.max(LEAST_SHARPNESS, sharpness * 0.75);
  return frameMs < ROOM_MS ? Math.min(MOST_SHARPNESS, sharpness * 1.15) : sharpness;
}
