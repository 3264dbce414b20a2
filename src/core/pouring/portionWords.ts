import { pouredDensity } from '../mixing/ratio';
import type { Product } from '../model/productSchema';
import { formatMeasure, formatOnScale, type UnitPreferences } from '../units/formatMeasure';
import type { StockTint } from './stockTint';
import { WAYS, type Portion, type PortionWay } from './portions';

const drops = (count: number): string => `${count} ${count === 1 ? 'drop' : 'drops'}`;
/** As many decimals as the amount needs to be seen. */
const fine = (grams: number): string => `${grams.toFixed(grams < 0.1 ? 3 : 2)}\u00a0g`;

/** How a portion of colour is told, on paper and at the bench. */
export interface PortionWords {
  /** What to do. */
  act: string;
  /** What goes with it. */
  note: string;
  /** Counting drops would not do. */
  care: boolean;
}

/** How a maker reads and measures: units, scale, whether the product has two parts, and of who measures by volume what g a ml has. */
export interface Reader {
  units: UnitPreferences;
  scaleStepGrams: number;
  twoPart: boolean;
  /** Of what tint goes into: part A, or the product. Null: it is weighed. */
  densityByVolume: number | null;
}

/** How a product is read by a maker who measures `by` weight or volume. */
export const readerOf = (
  product: Pick<Product, 'parts'> & Parameters<typeof pouredDensity>[0],
  maker: { units: UnitPreferences; scaleStepGrams: number; by: 'weight' | 'volume' },
): Reader => ({
  units: maker.units,
  scaleStepGrams: maker.scaleStepGrams,
  twoPart: product.parts !== null,
  densityByVolume: maker.by === 'weight' ? null : (product.parts?.densityA ?? pouredDensity(product)),
});

/** Grams as the maker measures them. */
const measured = (grams: number, { units, scaleStepGrams, densityByVolume }: Reader): string =>
  densityByVolume === null
    ? formatOnScale(grams, scaleStepGrams, units)
    : formatMeasure(grams / densityByVolume, 'volume', units);

const TOLD: Record<
  PortionWay,
  (portion: Portion, grams: (value: number) => string, part: string, weighs: boolean) => PortionWords
> = {
  'part A': ({ grams }, say) => ({ act: say(grams), note: '', care: false }),
  'part B': ({ grams }, say) => ({ act: say(grams), note: '', care: false }),
  product: ({ grams }, say) => ({ act: say(grams), note: '', care: false }),
  drops: (portion) => ({ act: drops(portion.drops), note: fine(portion.wantGrams), care: false }),
  weight: (portion) => ({ act: `weigh ${fine(portion.grams)}`, note: 'drops would miss it', care: true }),
  premix: (portion, say, part, weighs) => ({
    act: `${drops(portion.drops)} in ${say(portion.intoGrams)} of ${part}, take ${say(portion.grams)}`,
    note: `${fine(portion.wantGrams)} is less than ${weighs ? 'your scale shows' : 'one drop'}; ${say(portion.resinGrams)} of it count as ${part}`,
    care: true,
  }),
  stock: (portion, say, part) => ({
    act: `${say(portion.grams)} of the stock tint`,
    note: `${say(portion.resinGrams)} of it count as ${part}`,
    care: true,
  }),
  'too little': (portion) => ({
    act: `${fine(portion.wantGrams)}: too little to measure`,
    note: 'it is left out; pour it from a larger cup',
    care: true,
  }),
};

export const partWords = (twoPart: boolean): string => (twoPart ? 'part\u00a0A' : 'the product');

/** How a portion is measured with the maker's scale and drops, in words. Colourants are weighed in grams, by everyone. */
export const portionWords = (portion: Portion, reader: Reader): PortionWords =>
  TOLD[portion.way](
    portion,
    (value) => measured(value, reader),
    partWords(reader.twoPart),
    reader.densityByVolume === null,
  );

/** What goes into a cup beside the product. */
export const colourPortionsOf = (portions: readonly Portion[]): Portion[] =>
  portions.filter(({ way }) => !WAYS[way].product);

/** What of a part of the product is weighed into a cup. */
export const partGrams = (portions: readonly Portion[], way: 'part A' | 'part B' | 'product'): number =>
  portions.find((portion) => portion.way === way)?.grams ?? 0;

/** How a stock is made, before any cup of its layer. */
export const stockWords = (
  { drops: counted, resinGrams }: Pick<StockTint, 'drops' | 'resinGrams'>,
  reader: Reader,
): string =>
  `${counted.map((one) => `${drops(one.drops)} of ${one.name.toLowerCase()}`).join(', ')} in ${measured(resinGrams, reader)} of ${partWords(reader.twoPart)}`;
