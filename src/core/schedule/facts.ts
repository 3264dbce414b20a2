import { z } from 'zod';
import { wallTimeSchema, wallMinutes } from '../time/wallTime';
import { COLDEST_C } from '../cure/temperature';
import { coatMinutes, layerMinutes } from '../plan/pourTimes';
import { curingOf } from '../pouring/windows';
import type { Amounts } from '../plan/plan';
import { copiesOfPiece, layerProduct, type PlanRequest } from '../plan/request';
import { curingSchema } from '../cure/conditions';
import { setsInTheCup } from '../model/productSchema';

const n = z.number();

const productFactsSchema = z.object({
  name: z.string(),
  curing: curingSchema,
  potLifeMinutes: n,
  recoatOpensMinutes: n,
  recoatClosesMinutes: n.nullable(),
  demouldMinutes: n,
  fullCureMinutes: n,
});

/** What a batch is as far as its calendar goes: nothing in it depends on when it is done. */
export const batchFactsSchema = z.object({
  pieces: n.int(),
  /** Level place that it takes, outlines with room to walk a hand round them, cm². */
  levelCm2: n,
  /** Pieces that need dams, and how many moulds and turned-out pieces there are. */
  dammed: n.int(),
  moulds: n.int(),
  rocks: n.int(),
  plantsFirst: z.boolean(),
  /** What the look of the water is: for the streams of the calendar. */
  colour: z.string(),
  roomC: n,
  layers: z.array(
    z.object({
      number: n.int(),
      product: productFactsSchema,
      handsOnMinutes: n,
      plantsBefore: z.boolean(),
      mixGrams: n,
      cups: n.int(),
      shortestPotLifeMinutes: n,
      /** When it was poured; null while it is not. */
      pouredAt: wallTimeSchema.nullable(),
      /** When its last piece was; null while that is not known. */
      pouredUntil: wallTimeSchema.nullable().default(null),
      /** When it was begun, while some of its pieces have got it and others have not. */
      begunAt: wallTimeSchema.nullable().default(null),
    }),
  ),
  finish: z.object({ product: productFactsSchema, coats: n.int(), handsOnMinutes: n }).nullable(),
  leastC: n.nullable(),
});
export type BatchFacts = z.infer<typeof batchFactsSchema>;
export type ProductFacts = z.infer<typeof productFactsSchema>;

/** Pieces stand apart by about a finger: this much more than their outlines. */
const ROOM_ROUND_PIECES = 1.3;

/** What a calendar needs of a product, for a layer of so many wet mm. */
export const productFacts = (
  product: Pick<
    PlanRequest['product'],
    | 'name'
    | 'cureModel'
    | 'referenceC'
    | 'greatestLayerMm'
    | 'potLifeMinutes'
    | 'recoatOpensMinutes'
    | 'recoatClosesMinutes'
    | 'demouldMinutes'
    | 'fullCureMinutes'
  >,
  wetMm: number,
): ProductFacts => {
  const { name, potLifeMinutes } = product;
  const { recoatOpensMinutes, recoatClosesMinutes, demouldMinutes, fullCureMinutes } = product;
  return {
    name,
    potLifeMinutes,
    recoatOpensMinutes,
    recoatClosesMinutes,
    demouldMinutes,
    fullCureMinutes,
    curing: curingOf(product, wetMm),
  };
};

/** What the calendar needs of a batch and its plan. */
export function batchFacts(
  request: PlanRequest,
  amounts: Pick<Amounts, 'pieces' | 'layers' | 'plantsFirst' | 'finish'>,
): BatchFacts {
  const { pieces } = amounts;
  const count = (wanted: (piece: (typeof pieces)[number]) => boolean): number =>
    pieces.reduce((sum, piece) => sum + (wanted(piece) ? piece.copies : 0), 0);
  const designOf = (designId: string): PlanRequest['pieces'][number] | undefined =>
    request.pieces.find((piece) => piece.designId === designId);
  const cast = pieces.reduce((sum, { designId, copies }) => {
    const mould = designOf(designId)?.mould;
    return sum + (mould ? Math.ceil(copies / mould.cavities) : 0);
  }, 0);
  const rocky = request.pieces
    .filter(({ features }) => features.some(({ kind }) => ROCKY.has(kind)))
    .reduce((sum, piece) => sum + copiesOfPiece(piece).length, 0);
  const deepest = [...pieces].sort((a, b) => b.water.greatestDepthMm - a.water.greatestDepthMm)[0];
  const { product, room, build } = request;
  const twoPart = setsInTheCup(product.cureModel);
  return {
    pieces: pieces.reduce((sum, { copies }) => sum + copies, 0),
    levelCm2: Math.round(
      pieces.reduce((sum, { outlineCm2, copies }) => sum + outlineCm2 * copies, 0) * ROOM_ROUND_PIECES,
    ),
    dammed: count(({ dams, mould }) => !mould && dams.some(({ method }) => HELD_BY_DAMS.has(method))),
    moulds: cast,
    rocks: rocky,
    plantsFirst: amounts.plantsFirst ?? false,
    colour: deepest?.colour.deepest ?? '#4a6b5a',
    roomC: room.temperatureC,
    layers: amounts.layers.map((layer) => {
      const own = layerProduct(request, layer);
      const poured = request.poured.find((pour) => pour.layer === layer.number);
      return {
        number: layer.number,
        product: productFacts(own, layer.wetMm),
        handsOnMinutes: layerMinutes(layer, request),
        plantsBefore: layer.plantsBefore ?? false,
        mixGrams: layer.mixGrams,
        cups: layer.cups.length,
        shortestPotLifeMinutes: Math.min(own.potLifeMinutes, ...layer.cups.map(({ potLifeMinutes }) => potLifeMinutes)),
        pouredAt: poured?.at ?? null,
        pouredUntil: poured?.until ?? null,
        begunAt: request.begun?.find((begun) => begun.layer === layer.number)?.at ?? null,
      };
    }),
    finish:
      amounts.finish && build?.finish
        ? {
            product: productFacts(build.finish.product, amounts.finish.wetMm),
            coats: amounts.finish.coats,
            handsOnMinutes: coatMinutes(amounts.finish, build.finish.product),
          }
        : null,
    leastC: twoPart ? COLDEST_C : null,
  };
}

const ROCKY: ReadonlySet<string> = new Set(['rock', 'stone', 'log', 'wreck', 'post', 'debris']);
const HELD_BY_DAMS: ReadonlySet<string> = new Set(['plastic strip', 'tape', 'faced board']);

/** When the last of the layers that were poured was; null while none is. */
export const lastPourOf = ({ layers }: BatchFacts): number | null =>
  layers.reduce<number | null>((last, { pouredAt }) => {
    const at = pouredAt === null ? null : wallMinutes(pouredAt);
    return at === null ? last : Math.max(at, last ?? at);
  }, null);
