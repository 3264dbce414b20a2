/** So much may be used up at once, and comes back at so much a second. */
export class Allowance {
  #left: number;
  #at = -Infinity;

  constructor(
    readonly aSecond: number,
    readonly atOnce: number,
  ) {
    this.#left = atOnce;
  }

  /** Uses up some of it; false, and nothing used, when there is not so much left. `ticks` are ms that only go on. */
  take(amount: number, ticks: number): boolean {
    const back = this.#at === -Infinity ? 0 : ((ticks - this.#at) / 1000) * this.aSecond;
    this.#left = Math.min(this.atOnce, this.#left + back);
    this.#at = ticks;
    if (amount > this.#left) return false;
    this.#left -= amount;
    return true;
  }
}
