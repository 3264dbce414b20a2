import { reference } from '../model/reference';
import { z } from 'zod';
import { boxSchema } from '../model/bodySchema';
import { cellCount } from '../bed/grid';
import { STRAYS, straysSchema } from '../bed/measured';
import { copyName, pieceKey, type PieceRef } from '../model/pieceRef';
import { pieceDesignSchema, type PieceDesign } from '../model/designSchema';
import { benchExceptionSchema, benchWindowSchema } from '../time/benchWindows';
import { clockChangeSchema } from '../time/clockChanges';
import { conditionsSchema } from '../cure/conditions';
import { roomSchema } from '../model/roomSchema';
import { wallTimeSchema } from '../time/wallTime';
import { lossesSchema, TYPICAL_LOSSES } from '../mixing/losses';
import { productSchema } from '../model/productSchema';
import { waterStretches, type WaterStretch } from '../mixing/waterBuild';
import { colourantSchema } from '../model/recipeSchema';
import { type WaterTint } from '../tint/waterTint';
import { EVEN_POUR, tintPoursSchema } from '../model/tintSchema';
import { coatSchema, finishSchema, MOST_COATS } from '../model/waterBuildSchema';

const number = z.number({ error: 'Type a number' });

const fall = number.min(-100, 'At most 100 mm per m').max(100, 'At most 100 mm per m');
/**
 * How the bench is out of level: by how many mm it falls for each metre towards the east and the north of a piece;
 * negative the other way.
 */
export const tiltSchema = z.object({ eastMmPerM: fall, northMmPerM: fall });
export type Tilt = z.infer<typeof tiltSchema>;
export const LEVEL_BENCH: Tilt = { eastMmPerM: 0, northMmPerM: 0 };

/** What stands on the bench. */
export const benchSchema = z.object({
  windows: z.array(benchWindowSchema).max(28, 'At most four windows a day'),
  /** Days unlike others: a holiday, an evening out, a free day. */
  exceptions: z.array(benchExceptionSchema).max(120, 'At most 120 days').default([]),
  /** What one cup may hold, grams of mix. */
  cupGrams: number.min(10, 'At least 10 g').max(5000, 'At most 5000 g'),
  /** Smallest step the scale shows. */
  scaleStepGrams: number.gt(0, 'Must be more than 0').max(10, 'At most 10 g'),
  pricePerCup: number.min(0, 'Cannot be negative').max(1000),
  tilt: tiltSchema.default(LEVEL_BENCH),
  /** The box that finished pieces are stored in. */
  box: boxSchema.optional(),
});
export type Bench = z.infer<typeof benchSchema>;

export const levelMmSchema = number.gt(0, 'The level must be above the underside').max(300, 'At most 300 mm');
export const setNameSchema = z.string().trim().min(1, 'Give it a name').max(60, 'At most 60 characters');
export const FIGURE_SCALES_MM = [6, 10, 15, 20, 28, 32] as const;
export const figureScaleSchema = z.union(
  FIGURE_SCALES_MM.map((mm) => z.literal(mm)),
  { error: `One of ${FIGURE_SCALES_MM.join(', ')} mm` },
);

/** The most pieces in one plan. */
export const MOST_PIECES = 2000;
export const MOST_DESIGNS = 80;
/** The most cells of all its beds together: about what a minute allows. */
const MOST_PLAN_CELLS = 40e6;

/** A product or colourant of a file that gives no id goes by its name. */
function idFromName(value: unknown): unknown {
  const named = typeof value === 'object' && value !== null && !('id' in value) && 'name' in value;
  return named ? { ...value, id: String(value.name).trim().slice(0, 40) || 'unnamed' } : value;
}

/** A product as a plan takes it: with the id by which the shelf knows it. */
export const planProductSchema = z.preprocess(idFromName, productSchema.safeExtend({ id: reference('product') }));
const planColourantSchema = z.preprocess(idFromName, colourantSchema.extend({ id: reference('colourant') }));
export type PlanColourant = z.infer<typeof planColourantSchema>;

export const planRecipeSchema = z.preprocess(
  idFromName,
  z.object({
    id: reference('recipe'),
    name: z.string().max(60),
    doses: z
      .array(
        z.object({
          colourant: planColourantSchema,
          gramsPer100: number.min(0, 'Cannot be negative').max(20, 'At most 20 g per 100 g'),
        }),
      )
      .max(5),
    pours: tintPoursSchema.optional(),
  }),
);

/** A water build with its products looked up. */
const planBuildSchema = z.object({
  coats: z
    .array(coatSchema.omit({ productId: true }).extend({ product: planProductSchema }))
    .max(MOST_COATS, `At most ${MOST_COATS} coats`),
  plantsFirst: z.boolean().optional(),
  finish: finishSchema.omit({ productId: true }).extend({ product: planProductSchema }).optional(),
});
export type PlanBuild = z.infer<typeof planBuildSchema>;
type PlanProduct = z.infer<typeof planProductSchema>;

/** Older files name a measured copy by its tag, `HS-2 #3`, and know no ids. */
function identified(value: unknown): unknown {
  if (typeof value !== 'object' || value === null || 'designId' in value) return value;
  const { tag, measured, copyNumbers } = value as Record<string, unknown>;
  if (typeof tag !== 'string' || tag.trim() === '') return value;
  const copy = measured && Array.isArray(copyNumbers) && copyNumbers.length === 1 ? ` #${copyNumbers[0]}` : null;
  const bare = copy && tag.endsWith(copy) ? tag.slice(0, -copy.length) : tag;
  return { ...value, tag: bare, designId: bare.trim().slice(0, 40) };
}

/** Copies of a design that are poured alike: those as drawn together, one that was measured by itself. */
export const planPieceSchema = z.preprocess(identified, pieceDesignSchema.extend({ designId: reference('design') }));
export type PlanPiece = z.infer<typeof planPieceSchema>;

/** Which copies a piece of a plan stands for. */
export const copiesOfPiece = ({ copies, copyNumbers }: Pick<PieceDesign, 'copies' | 'copyNumbers'>): number[] =>
  Array.from({ length: copies }, (_, i) => copyNumbers?.[i] ?? i + 1);

/** A measured copy is known as itself, the others of a design together. */
export const refOfPiece = (piece: PlanPiece): PieceRef => ({
  designId: piece.designId,
  copy: piece.measured && piece.copies === 1 ? copiesOfPiece(piece)[0]! : null,
});

/** Pieces moved to other cups by hand, layer by layer; cups are counted as the split comes by itself. */
export const cupMovesSchema = z
  .array(
    z.object({
      layer: z.number().int().min(1).max(100),
      designId: reference('design'),
      copy: z.number().int().min(1).max(100_000),
      cup: z.number().int().min(1).max(1001),
    }),
  )
  .max(1000, 'At most 1000 pieces are moved by hand');

/** Everything that a plan is worked out from: one file, the same for the app and the command. */
export const planRequestSchema = z
  .object({
    format: z.literal('aguada.plan-request', { error: 'Must be "aguada.plan-request"' }),
    version: z.literal(1, { error: 'This program reads version 1' }),
    set: z.object({ name: setNameSchema, figureScaleMm: figureScaleSchema, levelMm: levelMmSchema }),
    pieces: z
      .array(planPieceSchema)
      .min(1, 'Name at least one piece design')
      .max(MOST_DESIGNS, `At most ${MOST_DESIGNS} designs`),
    product: planProductSchema,
    /** What lies over it, from the surface down, and what comes on top of all. */
    build: planBuildSchema.optional(),
    recipe: planRecipeSchema,
    room: roomSchema,
    bench: benchSchema,
    /** What stays in cups, and how far beds stray from their drawings: typical figures unless the log knows better. */
    losses: lossesSchema.default(TYPICAL_LOSSES),
    strays: straysSchema.default(STRAYS),
    pourAt: wallTimeSchema,
    /** Pairs of hands that pour: two are twice as quick. */
    hands: z.union([z.literal(1), z.literal(2)]).optional(),
    /** Pieces that the maker wants in other cups than they were put in. */
    moves: cupMovesSchema.optional(),
    /** Pieces in the order in which they stand beside each other on the table: neighbours are poured from one mix where they can be. */
    standing: z
      .array(z.object({ designId: reference('design'), copy: z.number().int().min(1).max(100_000) }))
      .max(2000)
      .optional(),
    /** Layers that have been poured already, and when. */
    poured: z
      .array(
        z.object({
          layer: z.number().int().min(1),
          /** Its first piece, and its last; where that is not known, as long after as was planned. */
          at: wallTimeSchema,
          until: wallTimeSchema.optional(),
        }),
      )
      .max(100)
      .default([]),
    /** Layers that some pieces have got, and when they were begun: the rest of them is still to be poured. */
    begun: z
      .array(z.object({ layer: z.number().int().min(1), at: wallTimeSchema }))
      .max(100)
      .optional(),
    /** When layers are begun by the calendar that the maker keeps. */
    calendar: z
      .array(z.object({ layer: z.number().int().min(1), at: wallTimeSchema }))
      .max(100)
      .optional(),
    /** The room over days and nights; the same all the time when nothing is said. */
    conditions: conditionsSchema.optional(),
    /** Nights on which the clock on the wall is changed. */
    clockChanges: z.array(clockChangeSchema).max(20).default([]),
  })
  .superRefine(({ pieces }, context) => {
    const complain = (path: (string | number)[], message: string): void =>
      context.addIssue({ code: 'custom', path: ['pieces', ...path], message });
    const tags = new Map<string, string>();
    const seen = new Set<string>();
    pieces.forEach((piece, index) => {
      const { tag, designId } = piece;
      if ((tags.get(tag) ?? designId) !== designId) complain([index, 'tag'], `Two designs are tagged ${tag}`);
      tags.set(tag, designId);
      const twice = copiesOfPiece(piece).find((copy) => seen.has(pieceKey({ designId, copy })));
      if (twice !== undefined)
        complain([index, 'tag'], `${copyName(tag, twice)} is in this plan twice; name its copies apart`);
      for (const copy of copiesOfPiece(piece)) seen.add(pieceKey({ designId, copy }));
    });
    const count = pieces.reduce((sum, { copies }) => sum + copies, 0);
    if (count > MOST_PIECES) complain([], `${count} pieces are too many for one plan; at most ${MOST_PIECES}`);
    const cells = pieces.reduce((sum, { outline }) => sum + cellCount(outline), 0);
    if (cells > MOST_PLAN_CELLS)
      complain(
        [],
        `These beds come to ${Math.round(cells / 1e6)} million cells; a plan takes ${MOST_PLAN_CELLS / 1e6} million. Split them into batches.`,
      );
  });
export type PlanRequest = z.infer<typeof planRequestSchema>;

/** What amounts depend on: everything but when it is poured. */
export type AmountsRequest = Omit<PlanRequest, 'pourAt' | 'poured' | 'calendar' | 'conditions' | 'clockChanges'>;

/** The same amounts for requests that differ only in when they are poured: a key for caches. */
export function amountsKey(request: PlanRequest): string {
  const { pourAt, poured, calendar, conditions, clockChanges, bench, ...rest } = request;
  const { windows, exceptions, ...kept } = bench;
  return JSON.stringify([rest, kept]);
}

/** The water of a request from the surface down: stretches of one product and one tint. */
export const stretchesOfRequest = ({
  product,
  recipe,
  build,
}: Pick<AmountsRequest, 'product' | 'recipe' | 'build'>): WaterStretch<PlanProduct>[] =>
  waterStretches(product, build?.coats ?? [], recipe.pours?.length ? recipe.pours : [EVEN_POUR]);

/** The product that a layer of a plan is poured from, as quickly as there are hands to pour it. */
export function layerProduct(
  { product, build, hands = 1 }: Pick<AmountsRequest, 'product' | 'build' | 'hands'>,
  { productId }: { productId?: string | undefined },
): PlanProduct {
  const coat = productId === undefined ? undefined : build?.coats.find((one) => one.product.id === productId);
  const own = coat && productId !== product.id ? coat.product : product;
  return hands === 1 ? own : { ...own, pourGramsPerMinute: own.pourGramsPerMinute * hands };
}

/** Every product of a request once: the one that fills the bed, its coats, the finish. */
export const productsOf = ({ product, build }: Pick<AmountsRequest, 'product' | 'build'>): PlanProduct[] => [
  ...new Map(
    [
      product,
      ...(build?.coats.map((coat) => coat.product) ?? []),
      ...(build?.finish ? [build.finish.product] : []),
    ].map((one) => [one.id, one] as const),
  ).values(),
];

/** A request as one layer of its plan has it: of that layer's product, its hands counted. Once only. */
export const requestOfLayer = <R extends Pick<AmountsRequest, 'product' | 'build' | 'hands'>>(
  request: R,
  layer: { productId?: string | undefined },
): R => ({ ...request, product: layerProduct(request, layer) });

/** What colours the water of a request. */
export function tintOfRequest(request: Pick<AmountsRequest, 'product' | 'recipe' | 'build'>): WaterTint {
  const { product, recipe, build } = request;
  const clarity = product.clarity ?? 'water-clear';
  if (!build?.coats.length) return { clarity, doses: recipe.doses, ...(recipe.pours && { pours: recipe.pours }) };
  const pours = stretchesOfRequest(request).map(({ thicknessMm, strength, own, product: { clarity: other } }) => ({
    thicknessMm,
    strength,
    clarity: other ?? 'water-clear',
    ...(own && { own }),
  }));
  return { clarity, doses: recipe.doses, pours };
}
