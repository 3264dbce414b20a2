import type { PieceDesign } from '../bed/schema';
import type { WallTime } from '../cure/wallTime';
import type { PlanRequest } from '../plan/request';
import type { Recipe } from '../tint/schema';
import type { Batch, Stored, WaterSet } from './schema';
import type { DeskView, ShelfView } from './views';

type Shelf = Omit<ShelfView, 'history'>;

/** A recipe with its colourants looked up; doses of colourants no longer on the shelf are left out. */
export function resolveRecipe(recipe: Recipe, { colourants }: Pick<Shelf, 'colourants'>): PlanRequest['recipe'] {
  const doses = recipe.doses.flatMap(({ colourantId, gramsPer100 }) => {
    const colourant = colourants.find(({ id }) => id === colourantId);
    return colourant ? [{ colourant: colourant.data, gramsPer100 }] : [];
  });
  return { name: recipe.name, doses };
}

/** The plan request for some pieces of a set, as the shelf and the workshop stand now. Null when there are no pieces. */
export function setRequest(set: WaterSet, pieces: readonly PieceDesign[], shelf: Shelf, pourAt: WallTime): PlanRequest | null {
  const product = shelf.products.find(({ id }) => id === set.productId);
  const recipe = shelf.recipes.find(({ id }) => id === set.recipeId);
  if (!product || pieces.length === 0) return null;
  const { room, cupGrams, scaleStepGrams, pricePerCup, tilt } = shelf.settings.data;
  return {
    format: 'aguada.plan-request',
    version: 1,
    set: { name: set.name, figureScaleMm: set.figureScaleMm, levelMm: set.levelMm },
    pieces: [...pieces],
    product: product.data,
    recipe: recipe ? resolveRecipe(recipe.data, shelf) : { name: 'Clear', doses: [] },
    room,
    bench: { windows: set.benchWindows, cupGrams, scaleStepGrams, pricePerCup, tilt },
    pourAt,
    poured: [],
  };
}

/** Designs with the copies that a batch takes of them. */
export const batchPieces = (batch: Batch, designs: readonly Stored<PieceDesign>[]): PieceDesign[] =>
  batch.items.flatMap(({ designId, copies }) => {
    const design = designs.find(({ id }) => id === designId);
    return design ? [{ ...design.data, copies }] : [];
  });

/**
 * The plan request of a batch. Before its first pour it follows the set as it stands; afterwards it is the
 * request kept at that pour, so that the log always compares with what was planned then.
 */
export function batchRequest({ set, designs, shelf }: DeskView, batch: Batch): PlanRequest | null {
  const request = batch.planned ?? setRequest(set.data, batchPieces(batch, designs), shelf, batch.pourAt);
  return request && { ...request, pourAt: batch.planned ? request.pourAt : batch.pourAt, poured: batch.pours.map(({ layer, pouredAt }) => ({ layer, at: pouredAt })) };
}

/** The request of the whole set, as if every piece were poured in one batch now. */
export const wholeSetRequest = ({ set, designs, shelf, now }: DeskView): PlanRequest | null =>
  setRequest(set.data, designs.map(({ data }) => data), shelf, now);

export type BatchStatus = 'planned' | 'half done' | 'finished';

/** Where a batch stands: how many of its layers have been poured. */
export function batchStatus(batch: Batch, layers: number): BatchStatus {
  if (batch.pours.length === 0) return 'planned';
  return batch.pours.length >= layers ? 'finished' : 'half done';
}
