import type { CuringLayer } from '../cure/conditions';
import type { Product } from '../model/productSchema';

/**
 * When a layer may be recoated, when all of the water is firm and when it is cured: one rule for plan, card, calendar, clocks at the
 * bench, the list of sets and the command. Moments are minutes (or anything else that is even) of one clock.
 */

/** What a product's label says of its times. */
export type CureLabel = Pick<
  Product,
  'recoatOpensMinutes' | 'recoatClosesMinutes' | 'demouldMinutes' | 'fullCureMinutes'
>;

/** How far something has come that cures: when it is where the label says after so long, in the room as it is. */
export type Cures = (from: number, labelMinutes: number) => number;

/** A layer that is poured: its first piece and its last. */
export interface PouredLayer {
  first: number;
  last: number;
  label: CureLabel;
  cures: Cures;
}

export interface RecoatWindow {
  opens: number;
  /** Null where it never closes. */
  closes: number | null;
}

/** The next layer may go on when the last piece is ready for it, and bonds by itself while the first one still does. */
export const recoatWindow = ({ first, last, label, cures }: PouredLayer): RecoatWindow => ({
  opens: cures(last, label.recoatOpensMinutes),
  closes: label.recoatClosesMinutes === null ? null : cures(first, label.recoatClosesMinutes),
});

/** When all layers have come so far, each by its own product, thickness and last piece: a quick coat over a slow layer waits for that. */
export const allCured = (layers: readonly PouredLayer[], what: 'demouldMinutes' | 'fullCureMinutes'): number =>
  Math.max(...layers.map(({ last, label, cures }) => cures(last, label[what])));

/** What of a product decides how a layer of it cures. */
export const curingOf = (
  { cureModel, referenceC, greatestLayerMm }: Pick<Product, 'cureModel' | 'referenceC' | 'greatestLayerMm'>,
  wetMm: number,
): CuringLayer => ({ cureModel, referenceC, greatestLayerMm, wetMm: Math.max(0.01, wetMm) });
