/** Set back by less than this, a clock is only being kept right. */
const JUMP_MS = 5000;

/**
 * Moments that never stand before those that were: the machine's clock, and where that is set back in mid-run, on from where it
 * was. Put right again, it counts as it stands. A clock that is set forward, or a machine that slept, is time that went by.
 */
export class Moments {
  readonly #wall: () => number;
  readonly #ticks: () => number;
  #offset = 0;
  #last: { wall: number; ticks: number } | null = null;

  /** `ticks` only ever goes on; both ms. */
  constructor(wall: () => number = () => Date.now(), ticks: () => number = () => performance.now()) {
    this.#wall = wall;
    this.#ticks = ticks;
  }

  now(): number {
    const [wall, ticks] = [this.#wall(), this.#ticks()];
    if (this.#last) {
      const jump = wall - this.#last.wall - (ticks - this.#last.ticks);
      if (jump < -JUMP_MS) this.#offset -= jump;
      else if (jump > JUMP_MS && this.#offset > 0) this.#offset = Math.max(0, this.#offset - jump);
    }
    this.#last = { wall, ticks };
    return Math.round(wall + this.#offset);
  }

  /** Something happened at this moment: after a new start of a machine that was set back, it is not before that. */
  notBefore(moment: number): void {
    const behind = moment - this.now();
    if (behind > JUMP_MS) this.#offset += behind;
  }

  /** By how much the machine's clock stands behind, ms; 0 while it is right. */
  get behindMs(): number {
    return Math.round(this.#offset);
  }
}

const kept = globalThis as { aguadaMoments?: Moments };
/** Those of the bench: one for all routes. */
export const moments = (): Moments => (kept.aguadaMoments ??= new Moments());
