import { seeded } from '@/core/chance/random';
import type { Reading } from '@/core/model/readingSchema';
import type { Heard, Instrument } from './instrument';

export type ScaleReading = Extract<Reading, { device: 'scale' }>;

/** What kind of scale it is. */
export interface ScaleMakeup {
  /** Smallest step that it shows. */
  stepGrams: number;
  /** Spread of its readings, in steps. */
  noiseSteps: number;
  /** How far it wanders in a minute. */
  driftGramsPerMinute: number;
  /** How long it takes to settle: two thirds of the way in this time. */
  settleSeconds: number;
}

export const CHEAP_SCALE: ScaleMakeup = {
  stepGrams: 0.1,
  noiseSteps: 0.35,
  driftGramsPerMinute: 0.02,
  settleSeconds: 0.35,
};

/** How quickly a bottle or cup runs, and how a hand tilts and rights it. */
const TILT_SECONDS = 0.5;
const RIGHT_SECONDS = 0.18;
/** What still runs down the lip after it is righted, and how long. */
const DRIP_GRAMS = 0.35;
const DRIP_SECONDS = 0.5;
/** A knock dies away in this time, but for what stays crooked. */
const KNOCK_SECONDS = 0.6;

/**
 * A stand-in for a cheap scale with a cup on it, from which or into which somebody pours: it has a step, noise, drift, and settles. Time
 * is passed to it; the same seed and the same hands show the same readings.
 */
export class SimulatedScale {
  readonly makeup: ScaleMakeup;
  readonly #roll: () => number;
  #load = 0;
  #shown = 0;
  #tare = 0;
  #drift = 0;
  #knock = 0;
  #stays = 0;
  #flow = 0;
  #wanted = 0;
  #drip = 0;
  /** What cannot run out of a cup that is empty. */
  #least = -Infinity;

  constructor(makeup: ScaleMakeup = CHEAP_SCALE, seed = 1) {
    this.makeup = makeup;
    this.#roll = seeded(seed);
  }

  /** What really lies on it, for whoever judges the scale. */
  get trueGrams(): number {
    return this.#load;
  }

  /** So much is put on it, all at once. */
  put(grams: number): void {
    this.#load += grams;
  }

  /** Somebody pours so many grams a second onto it; negative out of the cup on it; 0 lets go. */
  pour(gramsPerSecond: number, leastGrams = -Infinity): void {
    if (this.#wanted !== 0 && gramsPerSecond === 0) this.#drip = Math.sign(this.#wanted) * DRIP_GRAMS;
    this.#wanted = gramsPerSecond;
    this.#least = leastGrams;
  }

  /** Something is put down in place of what was there, and the scale set so that it shows these grams. */
  setDown(grams: number): void {
    this.#load = grams;
    this.#shown = grams;
    this.#flow = 0;
    this.#wanted = 0;
    this.#drip = 0;
    this.#tare = this.#drift + this.#stays;
  }

  tare(): void {
    this.#tare = this.#shown + this.#drift + this.#stays;
  }

  /** Something hits the bench: it swings, and part of it stays. */
  knock(grams: number): void {
    this.#knock += grams * 2;
    this.#stays += grams;
  }

  /** Lets time pass. */
  pass(seconds: number): void {
    const ease = (of: number): number => 1 - Math.exp(-seconds / of);
    this.#flow += (this.#wanted - this.#flow) * ease(this.#wanted === 0 ? RIGHT_SECONDS : TILT_SECONDS);
    const drip = this.#wanted === 0 ? this.#drip * ease(DRIP_SECONDS) : 0;
    this.#drip -= drip;
    this.#load = Math.max(
      this.#flow < 0 || drip < 0 ? this.#least : -Infinity,
      this.#load + this.#flow * seconds + drip,
    );
    this.#shown += (this.#load - this.#shown) * ease(this.makeup.settleSeconds);
    this.#drift += ((this.#roll() - 0.4) * 2 * this.makeup.driftGramsPerMinute * seconds) / 60;
    this.#knock *= Math.exp(-seconds / KNOCK_SECONDS);
  }

  /** What it shows. */
  read(): number {
    const { stepGrams, noiseSteps } = this.makeup;
    // Sum of three even throws: near enough to a bell.
    const noise = (this.#roll() + this.#roll() + this.#roll() - 1.5) * 2 * noiseSteps * stepGrams;
    const grams = this.#shown + this.#drift + this.#stays + this.#knock - this.#tare + noise;
    return Math.round(grams / stepGrams) * stepGrams;
  }
}

const READINGS_MS = 100;

/** A simulated scale as an instrument: ten readings a second of this machine's clock. */
export const scaleInstrument = (scale: SimulatedScale, now: () => number, speed = 1): Instrument<ScaleReading> => ({
  name: 'Simulated scale',
  listen(take: (heard: Heard<ScaleReading>) => void) {
    let last = now();
    const timer = setInterval(() => {
      const at = now();
      // A window that slept catches up in small steps.
      for (let left = Math.min(5, Math.max(0, (at - last) / 1000)) * speed; left > 1e-9; left -= 0.05)
        scale.pass(Math.min(0.05, left));
      last = at;
      take({ reading: { device: 'scale', grams: scale.read(), at }, trouble: null });
    }, READINGS_MS);
    return () => clearInterval(timer);
  },
});
