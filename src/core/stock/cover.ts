/** A pack as it is sold: what it holds, and what it costs. */
export interface Pack {
  amount: number;
  price: number;
}

/** Which packs to buy: how many of each, by their place in the list. */
export interface Cover {
  counts: number[];
  amount: number;
  price: number;
}

/** Needs are covered in steps of this, as fine as a scale is; larger ones in so many steps. Each pack counts for whole steps only. */
const STEP = 0.01;
const MOST_STEPS = 200_000;

/**
 * The cheapest packs that cover a need; of equally cheap ones those that leave least over, then the fewest. Exact by dynamic
 * programming in hundredths (of very large needs in steps of 1/200,000); null where nothing is needed or no pack holds any.
 */
export function cheapestCover(need: number, packs: readonly Pack[]): Cover | null {
  const unit = Math.max(STEP, need / MOST_STEPS);
  const wanted = Math.ceil(need / unit - 1e-9);
  const sizes = packs.map(({ amount }) => Math.floor(amount / unit + 1e-9));
  if (wanted <= 0 || sizes.every((size) => size <= 0)) return null;
  const price = new Float64Array(wanted + 1);
  const held = new Float64Array(wanted + 1);
  const count = new Int32Array(wanted + 1);
  const last = new Int32Array(wanted + 1).fill(-1);
  for (let steps = 1; steps <= wanted; steps++) {
    price[steps] = Infinity;
    packs.forEach((pack, i) => {
      if (sizes[i]! <= 0) return;
      const before = Math.max(0, steps - sizes[i]!);
      const [cost, amount, number] = [price[before]! + pack.price, held[before]! + pack.amount, count[before]! + 1];
      const cheaper = cost - price[steps]!;
      const less = amount - held[steps]!;
      if (cheaper < -1e-9 || (cheaper <= 1e-9 && (less < -1e-9 || (less <= 1e-9 && number < count[steps]!)))) {
        price[steps] = cost;
        held[steps] = amount;
        count[steps] = number;
        last[steps] = i;
      }
    });
  }
  const counts = packs.map(() => 0);
  for (let steps = wanted; steps > 0; steps = Math.max(0, steps - sizes[last[steps]!]!))
    counts[last[steps]!] = counts[last[steps]!]! + 1;
  return { counts, amount: held[wanted]!, price: price[wanted]! };
}
