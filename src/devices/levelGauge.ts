import { seeded } from '@/core/chance/random';
import type { Reading } from '@/core/model/readingSchema';

export type GaugeReading = Extract<Reading, { device: 'gauge' }>;

/** What a level gauge is good for. */
export const GAUGE_MM = 0.05;
const STEP_MM = 0.01;

/**
 * A stand-in for a level gauge: the height of a surface at a point, ± 0.05 mm. It reads pieces as a careful maker makes them: near
 * what is drawn, each point off by a little of its own (`strayMm`), the same each time it is read.
 */
export class SimulatedGauge {
  readonly #roll: () => number;
  readonly #seed: number;
  readonly #strayMm: number;

  constructor(seed = 1, strayMm = 0.4) {
    this.#seed = seed;
    this.#strayMm = strayMm;
    this.#roll = seeded(seed * 7919 + 1);
  }

  /** The height at a point, where `drawnMm` is drawn. `place` names the point. */
  read(drawnMm: number, place: string, at: number): GaugeReading {
    const own = (seeded(this.#seed + hashed(place))() * 2 - 1) * this.#strayMm;
    const noise = (this.#roll() * 2 - 1) * GAUGE_MM;
    return { device: 'gauge', mm: Math.round((drawnMm + own + noise) / STEP_MM) * STEP_MM, at };
  }
}

const hashed = (text: string): number =>
  [...text].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 1_000_003, 7);
