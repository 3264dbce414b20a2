/** A stream of numbers from 0 up to 1, the same for the same seed. Mulberry32. */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

const HARMONICS = [2, 3, 4, 5, 7];
const SAMPLES = 360;

/**
 * An irregular outline round a centre: for each direction the share of the ellipse's radius that it reaches, at most 1.
 * `wildness` is how far it strays from the ellipse; 0 gives the ellipse itself.
 */
export function blob(seed: number, wildness: number): (radians: number) => number {
  const random = seeded(seed);
  const waves = HARMONICS.map((harmonic) => ({
    harmonic,
    size: (0.4 + random()) / harmonic,
    phase: random() * 2 * Math.PI,
  }));
  const raw = (radians: number): number =>
    waves.reduce((sum, { harmonic, size, phase }) => sum + size * Math.cos(harmonic * radians + phase), 0);
  const samples = Array.from({ length: SAMPLES }, (_, i) => raw((2 * Math.PI * i) / SAMPLES));
  const [least, most] = [Math.min(...samples), Math.max(...samples)];
  // A table: the same few hundred directions are asked for by every cell.
  const table = samples.map((value) => 1 - wildness * ((most - value) / (most - least)));
  return (radians) => {
    const at = ((radians / (2 * Math.PI)) * SAMPLES + 2 * SAMPLES) % SAMPLES;
    const i = Math.floor(at);
    return table[i]! + (at - i) * (table[(i + 1) % SAMPLES]! - table[i]!);
  };
}

/** The same outline turned anticlockwise by some degrees, after being mirrored left to right. */
export function turnedBlob({
  seed = 1,
  wildness = 0.3,
  turnDegrees = 0,
  mirrored = false,
}: {
  seed?: number | undefined;
  wildness?: number | undefined;
  turnDegrees?: number | undefined;
  mirrored?: boolean | undefined;
}): (radians: number) => number {
  const form = blob(seed, wildness);
  const turn = (turnDegrees * Math.PI) / 180;
  return (radians) => form(mirrored ? Math.PI - (radians - turn) : radians - turn);
}
