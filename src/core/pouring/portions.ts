import { reference } from '../model/reference';
import { z } from 'zod';
import type { Losses } from '../mixing/losses';
import type { Product } from '../model/productSchema';
import { DROP_TOLERANCE } from '../tint/doses';
import { MOST_BROUGHT, STEPS_TO_WEIGH, stockTint, stockTintSchema, type StockTint, type Tinting } from './stockTint';

const n = z.number();

/**
 * How something goes into a cup. `stock` and `premix` bring product along that counts as its part A (or as the product); `too little`
 * goes in nowhere: neither drops nor the scale measure it, and that is said.
 */
export const PORTION_WAYS = [
  'part A',
  'part B',
  'product',
  'stock',
  'premix',
  'drops',
  'weight',
  'too little',
] as const;
export type PortionWay = (typeof PORTION_WAYS)[number];

const colourSchema = z.object({ id: reference('colourant'), grams: n });

/** One thing that goes into a cup, and what the scale under it shows then. */
export const portionSchema = z.object({
  /** `A`, `B` or `all` for the product, `stock`, or which colourant of the recipe it is: `tint 1`. One key once in a cup. */
  key: z.string(),
  way: z.enum(PORTION_WAYS),
  name: z.string(),
  /** What goes into the cup; of drops what they weigh. */
  grams: n,
  /** Drops that are counted: into the cup, or for a premix into `intoGrams` of the product first. */
  drops: n.int(),
  intoGrams: n,
  /** Product in those grams; it counts as its part. */
  resinGrams: n,
  /** Colourants in those grams. */
  colours: z.array(colourSchema),
  /** What the recipe wants of it. */
  wantGrams: n,
  /** What the scale shows once it is in; it was set to nought with the empty cup on it. */
  showsGrams: n,
});
export type Portion = z.infer<typeof portionSchema>;

/** What each way means for the cup. */
export const WAYS: Record<
  PortionWay,
  {
    /** Part of the product itself, not its colour. */
    product: boolean;
    /** It is read from the scale. */
    weighed: boolean;
    /** It brings product along, so it goes in with part A, before the parts meet. */
    bringsProduct: boolean;
    /** Where drops are counted, if anywhere. */
    drops: 'into the cup' | 'beside the cup' | 'no';
  }
> = {
  'part A': { product: true, weighed: true, bringsProduct: false, drops: 'no' },
  'part B': { product: true, weighed: true, bringsProduct: false, drops: 'no' },
  product: { product: true, weighed: true, bringsProduct: false, drops: 'no' },
  stock: { product: false, weighed: true, bringsProduct: true, drops: 'no' },
  premix: { product: false, weighed: true, bringsProduct: true, drops: 'beside the cup' },
  drops: { product: false, weighed: false, bringsProduct: false, drops: 'into the cup' },
  weight: { product: false, weighed: true, bringsProduct: false, drops: 'no' },
  'too little': { product: false, weighed: false, bringsProduct: false, drops: 'no' },
};

/** Which part of the product a portion is of. */
export const PART_OF_WAY = { 'part A': 'A', 'part B': 'B', product: 'all' } as const;

/** What a cup is made of: the layer's colourants, the resin part's share of the mix (1: there is one part only), the scale. */
export interface Mixture {
  recipe: readonly Tinting[];
  resinShare: number;
  scaleStepGrams: number;
}

/** What is left to weigh of a stock that was made. */
export interface StockLeft {
  stock: StockTint;
  leftGrams: number;
}

/** A premix is taken of, and made of, so many steps, where it is not too much. */
const PREMIX_STEPS = 10;
const PREMIX_MADE_STEPS = 20;
/** What a premix is stirred into: no less, no more. */
const PREMIX_LEAST_GRAMS = 2;
const PREMIX_MOST_GRAMS = 10;

/** Product that comes along with portions; it counts as part A (or as the product). */
export const broughtGrams = (portions: readonly Pick<Portion, 'resinGrams'>[]): number =>
  portions.reduce((sum, { resinGrams }) => sum + resinGrams, 0);

/** What portions take of a stock. */
export const ofStockGrams = (portions: readonly Pick<Portion, 'way' | 'grams'>[]): number =>
  portions.reduce((sum, { way, grams }) => sum + (way === 'stock' ? grams : 0), 0);

/** Colours by when they go in: what brings product along with part A, before the parts meet; the rest after. */
export function colourOrder(colours: readonly Portion[]): { first: Portion[]; last: Portion[] } {
  const first = colours.filter(({ way }) => WAYS[way].bringsProduct);
  return { first, last: colours.filter((portion) => !first.includes(portion)) };
}

const toStep = (grams: number, step: number): number => Math.round(grams / step) * step;

/** Whole drops that bring a colourant to within the tolerance of what is wanted; null where none do. */
function wholeDrops({ dropGrams }: Tinting, have: number, want: number): number | null {
  const drops = Math.max(0, Math.round((want - have) / dropGrams));
  return Math.abs(have + drops * dropGrams - want) <= DROP_TOLERANCE * want + 1e-12 ? drops : null;
}

/** Whether whole drops do for every colourant of a mix. */
export const dropsDo = (recipe: readonly Tinting[], mixGrams: number): boolean =>
  recipe.every((one) => wholeDrops(one, 0, (one.gramsPer100 * mixGrams) / 100) !== null);

const portionOf = (
  key: string,
  name: string,
  way: PortionWay,
  wantGrams: number,
  change: Partial<Portion>,
): Portion => ({
  key,
  way,
  name,
  wantGrams,
  grams: 0,
  drops: 0,
  intoGrams: 0,
  resinGrams: 0,
  colours: [],
  showsGrams: 0,
  ...change,
});

/**
 * Drops stirred into some of the product first, of which so much is taken: whole drops, and so much product that both it and what
 * is taken of it are read well, 10 g at most. The drops' own mass is in it. Null where even that cannot be weighed.
 */
function premix(key: string, one: Tinting, missing: number, want: number, step: number): Portion | null {
  const drops = Math.max(1, Math.ceil(missing / one.dropGrams - 1e-9));
  const colour = drops * one.dropGrams;
  const wellRead = (PREMIX_STEPS * step * colour) / missing - colour;
  const least = Math.max(PREMIX_LEAST_GRAMS, PREMIX_MADE_STEPS * step, wellRead);
  const intoGrams = Math.min(PREMIX_MOST_GRAMS, Math.ceil(least / step - 1e-9) * step);
  const grams = ((intoGrams + colour) * missing) / colour;
  if (grams < STEPS_TO_WEIGH * step - 1e-9) return null;
  return portionOf(key, one.name, 'premix', want, {
    grams,
    drops,
    intoGrams,
    resinGrams: (intoGrams * missing) / colour,
    colours: [{ id: one.id, grams: missing }],
  });
}

/** What a cup of so much mix, or what it lacks of its tint (`share`), takes of a stock, to the step of the scale. */
export function fromStock(stock: StockTint, mixGrams: number, wantGrams: number, step: number, share = 1): Portion {
  const grams = toStep((stock.stockGrams * mixGrams * share) / stock.forMixGrams, step);
  return portionOf('stock', 'Stock tint', 'stock', wantGrams, {
    grams,
    resinGrams: (grams * stock.resinGrams) / stock.stockGrams,
    colours: stock.drops.map(({ id, grams: all }) => ({ id, grams: (grams * all) / stock.stockGrams })),
  });
}

/** What is in a cup already, and how much product may still come along with its tint. */
export interface SoFar {
  have: ReadonlyMap<string, number>;
  roomGrams: number;
}

/**
 * How each colourant of a mix is put in, beside what is in it: out of the stock where there is one and enough of it is left; else each
 * by whole drops where they come within a tenth of the recipe, by weight where half a step of the scale is within a
 * tenth of it, by a premix. What nothing measures is said as `too little`. Nothing for what is right already.
 */
export function colourPortions(
  mixGrams: number,
  { recipe, scaleStepGrams: step }: Mixture,
  stock: StockLeft | null,
  { have, roomGrams }: SoFar,
): Portion[] {
  const wanted = recipe.map((one, i) => {
    const want = (one.gramsPer100 * mixGrams) / 100;
    const has = have.get(one.id) ?? 0;
    return { one, key: `tint ${i + 1}`, want, missing: want - has, drops: wholeDrops(one, has, want) };
  });
  const byDrops = ({ one, key, want, drops }: (typeof wanted)[number], count: number): Portion[] =>
    drops === null || count === 0
      ? []
      : [
          portionOf(key, one.name, 'drops', want, {
            grams: count * one.dropGrams,
            drops: count,
            colours: [{ id: one.id, grams: count * one.dropGrams }],
          }),
        ];
  if (wanted.every(({ drops }) => drops === 0)) return [];
  const want = wanted.reduce((sum, one) => sum + one.want, 0);
  const missing = wanted.reduce((sum, one) => sum + Math.max(0, one.missing), 0);
  if (stock) {
    const portion = fromStock(stock.stock, mixGrams, want, step, missing / want);
    const { grams, resinGrams } = portion;
    // Of a small cup that is mixed anew the whole share may be too little to be read.
    const readable = (grams * want) / missing >= STEPS_TO_WEIGH * step - 1e-9;
    if (grams > 0 && readable && grams <= stock.leftGrams + 1e-9 && resinGrams <= roomGrams + 1e-9) return [portion];
  }
  let room = roomGrams;
  return wanted.flatMap((each) => {
    if (each.drops !== null) return byDrops(each, each.drops);
    if (each.missing <= 0) return [];
    if (each.missing >= step * STEPS_TO_WEIGH - 1e-9)
      return [
        portionOf(each.key, each.one.name, 'weight', each.want, {
          grams: each.missing,
          colours: [{ id: each.one.id, grams: each.missing }],
        }),
      ];
    const mixed = premix(each.key, each.one, each.missing, each.want, step);
    if (!mixed || mixed.resinGrams > room + 1e-9) {
      const colours = [{ id: each.one.id, grams: 0 }];
      return [portionOf(each.key, each.one.name, 'too little', each.want, { colours })];
    }
    room -= mixed.resinGrams;
    return [mixed];
  });
}

/** Portions with what the scale shows after each, from an empty cup on. */
export function withReadings(portions: readonly Portion[]): Portion[] {
  let showsGrams = 0;
  return portions.map((portion) => ({ ...portion, showsGrams: (showsGrams += portion.grams) }));
}

const productPortion = (key: 'A' | 'B' | 'all', way: PortionWay, name: string, grams: number): Portion =>
  portionOf(key, name, way, grams, { grams });

/** The portions of a cup in their order: what brings product along goes in with part A, before the parts meet. */
export function inOrder(
  mixGrams: number,
  { resinShare }: Pick<Mixture, 'resinShare'>,
  colours: readonly Portion[],
): Portion[] {
  const brought = broughtGrams(colours);
  const { first, last } = colourOrder(colours);
  const resin = mixGrams * resinShare;
  return withReadings(
    resinShare < 1
      ? [
          productPortion('A', 'part A', 'Part A', Math.max(0, resin - brought)),
          ...first,
          productPortion('B', 'part B', 'Part B', mixGrams - resin),
          ...last,
        ]
      : [productPortion('all', 'product', 'Product', Math.max(0, resin - brought)), ...first, ...last],
  );
}

/** What of a colourant is in portions. */
export const colourIn = (portions: readonly Pick<Portion, 'colours'>[], id: string): number =>
  portions.flatMap(({ colours }) => colours).reduce((sum, colour) => sum + (colour.id === id ? colour.grams : 0), 0);

const NOTHING_IN: ReadonlyMap<string, number> = new Map();

/** All that goes into a fresh cup of so much mix, in the order in which it goes in. */
export function cupPortions(mixGrams: number, mixture: Mixture, stock: StockLeft | null): Portion[] {
  const roomGrams = mixGrams * mixture.resinShare * MOST_BROUGHT;
  return inOrder(mixGrams, mixture, colourPortions(mixGrams, mixture, stock, { have: NOTHING_IN, roomGrams }));
}

/** What of stock and premixes is made and goes into no cup. */
export const tintLeftSchema = z.object({ resinGrams: n, colours: z.array(colourSchema) });
export type TintLeft = z.infer<typeof tintLeftSchema>;

/** How the cups of a layer are tinted, decided once: with the stock for them, if there is one, and what is left over of the tint. */
export const layerTintSchema = z.object({ stock: stockTintSchema.nullable(), tintLeft: tintLeftSchema });
export type LayerTint = z.infer<typeof layerTintSchema>;

/** Cups made up one after the other, as long as the stock lasts. */
function cupsOf(cupsGrams: readonly number[], mixture: Mixture, stock: StockLeft | null): Portion[][] {
  let leftGrams = stock?.leftGrams ?? 0;
  return cupsGrams.map((mixGrams) => {
    const portions = cupPortions(mixGrams, mixture, stock && { ...stock, leftGrams });
    leftGrams -= ofStockGrams(portions);
    return portions;
  });
}

/** Cups that are tinted with what is left of a stock; null where it is not enough for all of them. */
export function portionsOfKept(cupsGrams: readonly number[], mixture: Mixture, kept: StockLeft): Portion[][] | null {
  const cups = cupsOf(cupsGrams, mixture, kept);
  return cups.every((portions) => portions.some(({ way }) => way === 'stock')) ? cups : null;
}

/**
 * Decides how the cups of a layer are made up. A stock where there is more than one cup and drops miss the recipe; a premix for one, and
 * where no stock can be made. One cup that is too small for its premixes is dosed out of a stock for itself.
 */
export function layerPortions(cupsGrams: readonly number[], mixture: Mixture): LayerTint & { cups: Portion[][] } {
  const { recipe } = mixture;
  const make = (stock: StockTint | null): Portion[][] =>
    cupsOf(cupsGrams, mixture, stock && { stock, leftGrams: stock.stockGrams });
  const dilute = (): StockTint | null => stockTint(recipe, cupsGrams, mixture);
  let stock = cupsGrams.every((mix) => dropsDo(recipe, mix)) || cupsGrams.length < 2 ? null : dilute();
  let cups = make(stock);
  if (cupsGrams.length === 1 && cups[0]!.some(({ way }) => way === 'too little')) {
    stock = dilute();
    if (stock) cups = make(stock);
  }
  return { stock, cups, tintLeft: leftOfTint(stock ? [stock] : [], cups.flat()) };
}

const isSome = (grams: number): boolean => Math.abs(grams) > 1e-9;

/** What is left of stocks and premixes once portions were taken of them; less than nothing of a stock that is not among `stocks`. */
export function leftOfTint(
  stocks: readonly StockTint[],
  portions: readonly Pick<Portion, 'way' | 'intoGrams' | 'resinGrams' | 'colours'>[],
): TintLeft {
  let resinGrams = stocks.reduce((sum, stock) => sum + stock.resinGrams, 0);
  const colours = new Map<string, number>();
  const add = (id: string, grams: number): void => void colours.set(id, (colours.get(id) ?? 0) + grams);
  for (const { drops } of stocks) for (const { id, grams } of drops) add(id, grams);
  for (const { way, intoGrams, resinGrams: taken, colours: own } of portions) {
    if (!WAYS[way].bringsProduct) continue;
    resinGrams += intoGrams - taken;
    // There is as much colour in each gram of a premix as in what was taken; a stock's is counted in already.
    const made = way === 'premix' && taken > 0 ? intoGrams / taken : 0;
    for (const { id, grams } of own) add(id, grams * (made - 1));
  }
  return {
    resinGrams: isSome(resinGrams) ? resinGrams : 0,
    colours: [...colours].flatMap(([id, grams]) => (isSome(grams) ? [{ id, grams }] : [])),
  };
}

/** It is poured or brushed straight out of the bottle: one part, and nothing stirred into it. */
export const fromBottle = (
  { product }: { product: Pick<Product, 'parts'> },
  { portions }: { portions: readonly Pick<Portion, 'way'>[] },
): boolean => product.parts === null && portions.every(({ way }) => WAYS[way].product);

/** What is lost of a layer: of what comes straight out of its bottle nothing stays in a cup or drips off one. */
export const lossesOf = (
  product: Pick<Product, 'parts'>,
  doses: readonly { gramsPer100: number }[],
  losses: Losses,
): Losses =>
  product.parts === null && doses.every(({ gramsPer100 }) => gramsPer100 === 0)
    ? { perCupGrams: 0, perPieceGrams: 0, share: losses.share }
    : losses;
