/** Readings that stay within this many steps of the scale for this long are still. */
const STILL_STEPS = 1.5;
const STILL_MS = 700;
/** A jump of more than this between two readings is no pouring: something was knocked or put down. */
const JUMP_GRAMS = 25;
/** A scale of which nothing was heard for so long has stopped. */
export const SILENT_MS = 3000;

export interface ScaleLook {
  grams: number;
  /** Held until nothing moves: only then is it a weight. */
  still: boolean;
  jumped: boolean;
}

/** Tells a weight from a scale that still moves: readings within one and a half steps for seven tenths of a second. */
export class Stillness {
  readonly #stepGrams: number;
  #recent: { at: number; grams: number }[] = [];

  constructor(stepGrams: number) {
    this.#stepGrams = stepGrams;
  }

  /** Takes a reading; says how it looks with those before it. */
  take(grams: number, at: number): ScaleLook {
    const last = this.#recent.at(-1);
    // A reading from before the last one says nothing new.
    if (last && at < last.at) return { grams: last.grams, still: false, jumped: false };
    const jumped = last !== undefined && Math.abs(grams - last.grams) > JUMP_GRAMS;
    if (jumped) this.#recent = [];
    this.#recent.push({ at, grams });
    while (this.#recent.length > 2 && this.#recent[1]!.at <= at - STILL_MS) this.#recent.shift();
    const values = this.#recent.map((one) => one.grams);
    const long = at - this.#recent[0]!.at >= STILL_MS;
    const close = Math.max(...values) - Math.min(...values) <= STILL_STEPS * this.#stepGrams + 1e-9;
    return { grams, still: long && close, jumped };
  }
}
