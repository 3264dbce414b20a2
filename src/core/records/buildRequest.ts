import { withJoints } from '../bed/joints';
import type { PieceDesign } from '../bed/schema';
import type { WallTime } from '../cure/wallTime';
import type { PlanRequest } from '../plan/request';
import type { MatchPiece } from '../seams/matchSet';
import type { Recipe } from '../tint/schema';
import type { Batch, PieceRecord, Stored, WaterSet } from './schema';
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
export function setRequest(
  set: WaterSet,
  pieces: readonly PieceDesign[],
  shelf: Shelf,
  pourAt: WallTime,
): PlanRequest | null {
  const product = shelf.products.find(({ id }) => id === set.productId);
  const recipe = shelf.recipes.find(({ id }) => id === set.recipeId);
  if (!product || pieces.length === 0) return null;
  const { room, cupGrams, scaleStepGrams, pricePerCup, tilt, box } = shelf.settings.data;
  return {
    format: 'aguada.plan-request',
    version: 1,
    set: { name: set.name, figureScaleMm: set.figureScaleMm, levelMm: set.levelMm },
    pieces: [...pieces],
    product: product.data,
    recipe: recipe ? resolveRecipe(recipe.data, shelf) : { name: 'Clear', doses: [] },
    room,
    bench: { windows: set.benchWindows, cupGrams, scaleStepGrams, pricePerCup, tilt, ...(box && { box }) },
    pourAt,
    poured: [],
  };
}

/** How a measured copy is tagged beside its design: `HS-2 #3`. */
export const copyTag = (tag: string, copy: number): string => `${tag.slice(0, 16 - ` #${copy}`.length)} #${copy}`;

/** A copy of which only edges were measured is still planned with the bed as drawn. */
export const hasMeasuredBed = ({ measured }: PieceRecord): boolean =>
  measured.readings.length > 0 || measured.fillMl !== null;

/**
 * Some copies of a design as a plan takes them: those that have been measured each on their own, with the bed that they
 * really have; the others together. Copies are the first of the design.
 */
export function copiesOf(
  { id, data }: Stored<PieceDesign>,
  copies: number,
  pieces: readonly Stored<PieceRecord>[],
): PieceDesign[] {
  const measured = pieces
    .filter((piece) => piece.data.designId === id && piece.data.copy <= copies && hasMeasuredBed(piece.data))
    .sort((a, b) => a.data.copy - b.data.copy);
  const apart = measured.map((piece) => piece.data.copy);
  const rest = Array.from({ length: copies }, (_, i) => i + 1).filter((number) => !apart.includes(number));
  return [
    ...(rest.length > 0 ? [{ ...data, copies: rest.length, copyNumbers: apart.length > 0 ? rest : null }] : []),
    ...measured.map((piece) => ({
      ...data,
      tag: copyTag(data.tag, piece.data.copy),
      copies: 1,
      copyNumbers: [piece.data.copy],
      measured: piece.data.measured,
    })),
  ];
}

/** A set's designs with their beds drawn to its standards: what is poured, matched and shown. */
export const drawnDesigns = ({ set, designs }: Pick<DeskView, 'set' | 'designs'>): Stored<PieceDesign>[] =>
  designs.map((stored) => {
    const data = withJoints(stored.data, set.data.standards ?? []);
    return data === stored.data ? stored : { ...stored, data };
  });

/** Designs with the copies that a batch takes of them. */
export const batchPieces = (
  batch: Batch,
  designs: readonly Stored<PieceDesign>[],
  pieces: readonly Stored<PieceRecord>[],
): PieceDesign[] =>
  batch.items.flatMap(({ designId, copies }) => {
    const design = designs.find(({ id }) => id === designId);
    return design ? copiesOf(design, copies, pieces) : [];
  });

/**
 * The plan request of a batch. Before its first pour it follows the set as it stands; afterwards it is the
 * request kept at that pour, so that the log always compares with what was planned then.
 */
export function batchRequest(view: DeskView, batch: Batch): PlanRequest | null {
  const { set, pieces, shelf } = view;
  const request =
    batch.planned ?? setRequest(set.data, batchPieces(batch, drawnDesigns(view), pieces), shelf, batch.pourAt);
  return (
    request && {
      ...request,
      pourAt: batch.planned ? request.pourAt : batch.pourAt,
      poured: batch.pours.map(({ layer, pouredAt }) => ({ layer, at: pouredAt })),
    }
  );
}

/** The request of the whole set, as if every piece were poured in one batch now. */
export const wholeSetRequest = (view: DeskView): PlanRequest | null =>
  setRequest(
    view.set.data,
    drawnDesigns(view).flatMap((design) => copiesOf(design, design.data.copies, view.pieces)),
    view.shelf,
    view.now,
  );

export type BatchStatus = 'planned' | 'half done' | 'finished';

/** Where a batch stands: how many of its layers have been poured. */
export function batchStatus(batch: Batch, layers: number): BatchStatus {
  if (batch.pours.length === 0) return 'planned';
  return batch.pours.length >= layers ? 'finished' : 'half done';
}

/** The pieces of a set as they are matched: a copy of which anything was measured by itself, the others of a design together. */
export function matchPieces(view: Pick<DeskView, 'set' | 'designs' | 'pieces'>): MatchPiece[] {
  const { pieces } = view;
  return drawnDesigns(view).flatMap(({ id, data }): MatchPiece[] => {
    const own = pieces
      .filter((piece) => piece.data.designId === id && piece.data.copy <= data.copies)
      .sort((a, b) => a.data.copy - b.data.copy);
    const rest = Array.from({ length: data.copies }, (_, i) => i + 1).filter(
      (copy) => !own.some((piece) => piece.data.copy === copy),
    );
    return [
      ...(rest.length > 0
        ? [{ tag: data.tag, designId: id, copy: null, copies: rest.length, copyNumbers: rest, design: data, edges: {} }]
        : []),
      ...own.map((piece) => ({
        tag: copyTag(data.tag, piece.data.copy),
        designId: id,
        copy: piece.data.copy,
        copies: 1,
        design: hasMeasuredBed(piece.data) ? { ...data, measured: piece.data.measured } : data,
        edges: piece.data.edges ?? {},
        ...(piece.data.shimsMm && { shimsMm: piece.data.shimsMm }),
      })),
    ];
  });
}
