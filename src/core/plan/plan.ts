import { reference } from '../model/reference';
import { z } from 'zod';
import { BODY_MATERIAL_KEYS } from '../model/bodyMaterials';
import { damMethodSchema } from '../model/damMethods';
import { edgeNameSchema, MADE_BY } from '../model/designSchema';
import { problemSchema } from '../model/problem';
import { costSchema } from '../money/cost';
import { wallTimeSchema } from '../time/wallTime';
import { mostMixSchema } from '../mixing/potLife';
import { layerTintSchema, portionSchema } from '../pouring/portions';
import { ownDosesSchema } from '../model/tintSchema';

const n = z.number();

const partAmountsSchema = z.object({ partAGrams: n, partBGrams: n, partAMl: n, partBMl: n }).nullable();
const doseSchema = z.object({ id: reference('colourant'), name: z.string(), grams: n, drops: n.int(), error: n });

const damSchema = z.object({
  edge: z.union([edgeNameSchema, z.literal('rim')]),
  method: damMethodSchema,
  fromMm: n,
  toMm: n,
  lengthMm: n,
  stripMm: n,
  topMm: n,
  lowestBedMm: n,
});

const pointSchema = { xMm: n, yMm: n };
const outlineEdgeSchema = z.union([edgeNameSchema, z.literal('rim')]);
const poolSchema = z.object({
  name: z.string(),
  /** Where its surface stands: the set's level, or its own. */
  levelMm: n,
  volumeMl: n,
  surfaceCm2: n,
  greatestDepthMm: n,
  meanDepthMm: n,
  deepest: z.object(pointSchema),
  spill: z
    .object({
      ...pointSchema,
      levelMm: n,
      over: z.enum(['edge', 'pool', 'dam']),
      edge: outlineEdgeSchema.nullable(),
      into: z.string().nullable(),
    })
    .nullable(),
});
export type PoolPlan = z.infer<typeof poolSchema>;

const tiltPlanSchema = z.object({
  /** How far the water stands from the level at the middle of each edge, the depth there and its colour. */
  edges: z.array(z.object({ edge: edgeNameSchema, errorMm: n, deepestMm: n, colour: z.string() })),
  deepestMm: n,
  raise: z.array(z.object({ corner: z.string(), raiseMm: n })),
  spills: z.array(z.object({ edge: edgeNameSchema, overMm: n, atMm: n })),
});
export type TiltPlan = z.infer<typeof tiltPlanSchema>;

const bodyPlanSchema = z.object({
  material: z.enum(BODY_MATERIAL_KEYS),
  /** False while the material is only supposed. */
  stated: z.boolean(),
  bodyMl: n,
  bodyGrams: n,
  waterGrams: n,
  debrisGrams: n,
  extrasGrams: n,
  totalGrams: n,
  /** The thinnest body under water, and the piece's greatest height. */
  floorMm: n,
  heightMm: n,
  /** How far the ends might stand up as the water shrinks, if nothing held them down; and over what length. */
  bowMm: n,
  bowOverMm: n,
  box: z.object({ perLayer: n.int(), layers: n.int(), count: n.int() }).nullable(),
});
export type BodyPlan = z.infer<typeof bodyPlanSchema>;

const mouldPlanSchema = z.object({
  columns: n.int(),
  rows: n.int(),
  boxWidthMm: n,
  boxLengthMm: n,
  boxHeightMm: n,
  rubberMl: n,
  rubberGrams: n,
  castMl: n,
  draftMl: n,
  liftGrams: n,
  castGrams: n,
  sheets: z.array(z.object({ count: n.int(), lengthMm: n, heightMm: n })),
});
export type PieceMouldPlan = z.infer<typeof mouldPlanSchema>;

const twoStageSchema = z.object({
  firstMl: n,
  secondMl: n,
  lipMm: n,
  sandOnceMinutes: n,
  sandTwiceMinutes: n,
  secondFillMinutes: n,
  waitMinutes: n,
  quicker: z.enum(['one fill', 'two fills']),
});

const piecePlanSchema = z.object({
  /** Its design by id, and which copies; `copy` names a single measured one. */
  designId: reference('design'),
  copy: n.int().nullable(),
  copyNumbers: z.array(n.int()),
  /** What it is called: its design's tag, with the number of a measured copy. */
  tag: z.string(),
  name: z.string(),
  copies: n.int(),
  cellMm: n,
  outlineCm2: n,
  /** The water of one piece. */
  water: z.object({ volumeMl: n, surfaceCm2: n, greatestDepthMm: n, meanDepthMm: n }),
  /** Liquid to pour into one piece, all layers, shrinkage made up for. */
  pouredGrams: n,
  /** What that may be off by, in 19 of 20 cases: the bed is not quite as drawn. */
  uncertainGrams: n,
  measured: z.boolean(),
  madeBy: z.enum(MADE_BY),
  layers: z.array(z.object({ number: n.int(), volumeMl: n, pouredGrams: n })),
  dams: z.array(damSchema),
  /** Bodies of water that do not touch, largest first, and where each would run over. */
  pools: z.array(poolSchema),
  /** What creeps up walls and dams, in the fill already; and the lip that it leaves at the dams. */
  meniscus: z.object({ wallMm: n, ml: n, lipMm: n }),
  /** Null on a level bench. */
  tilt: tiltPlanSchema.nullable(),
  colour: z.object({ shallow: z.string(), deepest: z.string() }),
  /** Level marks, by number: on dry land; pairs in one hollow; those whose water runs together with other pools, and over which saddle. */
  ownLevels: z.object({
    dry: z.array(n.int()),
    joined: z.array(z.tuple([n.int(), n.int()])),
    mergers: z.array(z.object({ mark: n.int(), saddleMm: n, ...pointSchema })),
  }),
  body: bodyPlanSchema,
  /** The most that a flat piece of this outline holds with no dam. */
  flatMl: n,
  /** Null when the design is not cast in a mould. */
  mould: mouldPlanSchema.nullable(),
  /** A fill in two goes inside the lip; null where nothing is turned out of a mould. */
  twoStage: twoStageSchema.nullable(),
});
export type PiecePlan = z.infer<typeof piecePlanSchema>;

const cupSchema = z.object({
  number: n.int(),
  pours: z.array(z.object({ designId: reference('design'), copy: n.int(), tag: z.string(), grams: n })),
  pouredGrams: n,
  mixGrams: n,
  parts: partAmountsSchema,
  /** What the recipe wants of each colourant. */
  doses: z.array(doseSchema),
  /** What goes into it, in the order in which it is weighed and counted. */
  portions: z.array(portionSchema),
  potLifeMinutes: n,
});
export type CupPlan = z.infer<typeof cupSchema>;

const layerPlanSchema = z.object({
  number: n.int(),
  fromMm: n,
  toMm: n,
  thicknessMm: n,
  wetMm: n,
  /** Of what it is poured, where that is not the product of the plan. */
  productId: reference('product').optional(),
  /** Plants are set on what lies beneath before it is poured. */
  plantsBefore: z.boolean().optional(),
  /** What every dose is multiplied by in this layer; 1 when nothing is said, as in older plans. */
  strength: n.optional(),
  /** What it has of a colourant in place of that, g per 100 g by id. */
  own: ownDosesSchema.optional(),
  volumeMl: n,
  pouredGrams: n,
  mixGrams: n,
  parts: partAmountsSchema,
  doses: z.array(doseSchema),
  ...layerTintSchema.shape,
  /** The most that one of its cups may hold. */
  mostMix: mostMixSchema,
  cups: z.array(cupSchema),
  fewestCups: n.int(),
  cure: z.object({
    factor: n,
    /** True when this layer has been poured already and `pouredAt` is what happened. */
    poured: z.boolean(),
    pouredAt: wallTimeSchema,
    recoatOpensAt: wallTimeSchema,
    recoatClosesAt: wallTimeSchema.nullable(),
    demouldAt: wallTimeSchema,
    fullCureAt: wallTimeSchema,
  }),
});
export type LayerPlan = z.infer<typeof layerPlanSchema>;

const productTotalSchema = z.object({
  id: reference('product'),
  name: z.string(),
  pouredGrams: n,
  mixGrams: n,
  parts: partAmountsSchema,
});
export type ProductTotal = z.infer<typeof productTotalSchema>;

/** What goes over the surface at the end. */
const finishPlanSchema = z.object({
  productId: reference('product'),
  name: z.string(),
  coats: n.int(),
  filmMm: n,
  wetMm: n,
  pouredGrams: n,
  mixGrams: n,
  /** When each coat is put on. */
  at: z.array(wallTimeSchema),
});
export type FinishPlan = z.infer<typeof finishPlanSchema>;

/** A whole plan: what the screens show, the pour card prints and the command writes. Masses in g, volumes in ml, heights in mm. */
export const planSchema = z.object({
  format: z.literal('aguada.plan'),
  version: z.literal(1),
  set: z.object({ name: z.string(), figureScaleMm: n, levelMm: n }),
  product: z.object({
    id: reference('product'),
    name: z.string(),
    pouredDensity: n,
    ratioByWeight: n.nullable(),
    ratioByVolume: n.nullable(),
  }),
  pieces: z.array(piecePlanSchema),
  layers: z.array(layerPlanSchema),
  mix: z.object({
    mostGrams: n,
    limit: z.enum(['cup', 'pot life']),
    smallestForScaleGrams: n.nullable(),
    smallestForDropsGrams: n.nullable(),
  }),
  totals: z.object({
    pieces: n.int(),
    volumeMl: n,
    surfaceCm2: n,
    pouredGrams: n,
    mixGrams: n,
    parts: partAmountsSchema,
    doses: z.array(doseSchema),
    cups: n.int(),
    damMm: n,
    /** Product by product, where there are several: the one that fills the bed, its coats, the finish. */
    products: z.array(productTotalSchema).optional(),
    cutList: z.array(z.object({ method: damMethodSchema, stripMm: n, topMm: n, count: n.int() })),
  }),
  cost: costSchema,
  /** Plants stand on the bed before anything is poured. */
  plantsFirst: z.boolean().optional(),
  finish: finishPlanSchema.optional(),
  doneAt: wallTimeSchema.nullable(),
  problems: z.array(problemSchema),
});
export type Plan = z.infer<typeof planSchema>;

/** A layer without its times. */
export type LayerAmounts = Omit<LayerPlan, 'cure'>;

/** What a plan says of amounts: beds, grams, cups, cost. Nothing in it depends on when it is poured. */
export interface Amounts extends Omit<Plan, 'layers' | 'doneAt' | 'finish'> {
  layers: LayerAmounts[];
  finish?: Omit<FinishPlan, 'at'>;
}

/** What a plan says of times: when each layer is poured and cured. */
export interface Times {
  cures: LayerPlan['cure'][];
  finishAt: string[];
  doneAt: string | null;
  problems: Plan['problems'];
}

/** Amounts and times together: the whole plan. */
export const withTimes = ({ finish, ...amounts }: Amounts, { cures, finishAt, doneAt, problems }: Times): Plan => ({
  ...amounts,
  layers: amounts.layers.map((layer, i) => ({ ...layer, cure: cures[i]! })),
  ...(finish && { finish: { ...finish, at: finishAt } }),
  doneAt,
  problems: [...amounts.problems, ...problems],
});
