import { withJoints } from '../bed/joints';
import { copyName, pieceKey } from '../model/pieceRef';
import type { PieceDesign } from '../model/designSchema';
import { narrowedWindows } from '../time/benchWindows';
import type { ClockChange } from '../time/clockChanges';
import type { WallTime } from '../time/wallTime';
import { STRAYS } from '../bed/measured';
import type { Finish } from '../model/waterBuildSchema';
import { copiesOfPiece, tintOfRequest, type PlanBuild, type PlanPiece, type PlanRequest } from '../plan/request';
import type { MatchPiece, MatchRequest } from '../seams/matchTypes';
import { NO_WISH, SEAM_LIMITS } from '../model/seamSchema';
import type { Recipe } from '../model/recipeSchema';
import { type WaterTint, tintOfWater } from '../tint/waterTint';
import { guestDesigns } from './guests';
import { firstNumbers, numbersOf } from './copies';
import { wholePours } from './rest';
import type { Batch, PieceRecord, PourRecord, Settings, WaterSet } from './recordSchemas';
import { withMeasured } from '../schedule/roomDays';
import { keptPours } from '../schedule/routes';
import { conditionsOf, FIRST_WORKPLACE } from '../schedule/workplace';
import type { BatchDetail, ClockAndRoom, DeskView, SetDocuments, Shelf } from './views';
import type { Stored } from '../model/stored';

/** A recipe with its colourants looked up; doses of colourants no longer on the shelf are left out. */
export function resolveRecipe(
  recipe: Stored<Recipe>,
  { colourants }: Pick<Shelf, 'colourants'>,
): PlanRequest['recipe'] {
  const doses = recipe.data.doses.flatMap(({ colourantId, gramsPer100 }) => {
    const colourant = colourants.find(({ id }) => id === colourantId);
    return colourant ? [{ colourant: { ...colourant.data, id: colourant.id }, gramsPer100 }] : [];
  });
  const { name, pours } = recipe.data;
  return { id: recipe.id, name, doses, ...(pours?.length && { pours }) };
}

const CLEAR: PlanRequest['recipe'] = { id: 'clear', name: 'Clear', doses: [] };

/** The recipe of a set with its colourants; clear water when it is gone. */
export function setRecipe({ set, shelf }: { set: Stored<WaterSet>; shelf: Shelf }): PlanRequest['recipe'] {
  const recipe = shelf.recipes.find(({ id }) => id === set.data.recipeId);
  return recipe ? resolveRecipe(recipe, shelf) : CLEAR;
}

/** The water build of a set with its products looked up; coats of products that are gone from the shelf are left out. */
function setBuild({ set, shelf }: { set: Stored<WaterSet>; shelf: Shelf }): PlanBuild | null {
  const { build } = set.data;
  if (!build) return null;
  const named = (id: string): PlanRequest['product'] | null => {
    const product = shelf.products.find((candidate) => candidate.id === id);
    return product ? { ...product.data, id } : null;
  };
  const coats = build.coats.flatMap(({ productId, ...coat }) => {
    const product = named(productId);
    return product ? [{ ...coat, product }] : [];
  });
  const { productId, ...film } = build.finish ?? { productId: '' };
  const finish = named(productId);
  return {
    coats,
    ...(build.plantsFirst && { plantsFirst: true }),
    ...(finish && { finish: { ...(film as Omit<Finish, 'productId'>), product: finish } }),
  };
}

/** What colours the water of a set: its recipe in its product, and the coats over it. */
export function setTint(documents: { set: Stored<WaterSet>; shelf: Shelf }): WaterTint {
  const { set, shelf } = documents;
  const recipe = setRecipe(documents);
  const product = shelf.products.find(({ id }) => id === set.data.productId);
  if (!product) return { clarity: 'water-clear', doses: recipe.doses, ...(recipe.pours && { pours: recipe.pours }) };
  const build = setBuild(documents);
  return tintOfRequest({ product: { ...product.data, id: product.id }, recipe, ...(build && { build }) });
}

interface When {
  pourAt: WallTime;
  clockChanges: ClockChange[];
  /** Windows of a batch of its own. */
  windows?: Batch['benchWindows'];
}

/** The plan request for some pieces of a set, as the shelf and the workshop stand now. Null when there are no pieces. */
export function setRequest(
  { set, shelf }: Pick<SetDocuments, 'set' | 'shelf'>,
  pieces: readonly PlanPiece[],
  { pourAt, clockChanges, windows = null }: When,
): PlanRequest | null {
  const { name, figureScaleMm, levelMm, productId, benchWindows } = set.data;
  const product = shelf.products.find(({ id }) => id === productId);
  if (!product || pieces.length === 0) return null;
  const build = setBuild({ set, shelf });
  const { room, cupGrams, scaleStepGrams, pricePerCup, tilt, box, losses, strays, ...workshop } = shelf.settings.data;
  return {
    format: 'aguada.plan-request',
    version: 1,
    set: { name, figureScaleMm, levelMm },
    pieces: [...pieces],
    product: { ...product.data, id: product.id },
    ...(build && { build }),
    recipe: setRecipe({ set, shelf }),
    room,
    bench: {
      windows: narrowedWindows(narrowedWindows(workshop.benchWindows, benchWindows), windows),
      exceptions: workshop.benchExceptions,
      cupGrams,
      scaleStepGrams,
      pricePerCup,
      tilt,
      ...(box && { box }),
    },
    losses,
    strays: strays ?? STRAYS,
    pourAt,
    poured: [],
    clockChanges,
  };
}

/** A copy of which only edges were measured is still planned with the bed as drawn. */
export const hasMeasuredBed = ({ measured }: PieceRecord): boolean =>
  measured.readings.length > 0 || measured.fillMl !== null;

/**
 * Some copies of a design as a plan takes them: those that have been measured each on their own, with the bed that they
 * really have; the others together.
 */
export function copiesOf(
  { id, data }: Stored<PieceDesign>,
  numbers: readonly number[],
  pieces: readonly Stored<PieceRecord>[],
): PlanPiece[] {
  const design = { ...data, designId: id };
  const measured = pieces
    .filter((piece) => piece.data.designId === id && numbers.includes(piece.data.copy) && hasMeasuredBed(piece.data))
    .sort((a, b) => a.data.copy - b.data.copy);
  const apart = measured.map((piece) => piece.data.copy);
  const rest = numbers.filter((number) => !apart.includes(number));
  const areFirst = rest.every((number, i) => number === i + 1);
  return [
    ...(rest.length > 0
      ? [{ ...design, copies: rest.length, copyNumbers: apart.length === 0 && areFirst ? null : rest }]
      : []),
    ...measured.map((piece) => ({
      ...design,
      copies: 1,
      copyNumbers: [piece.data.copy],
      measured: piece.data.measured,
    })),
  ];
}

/** A set's designs with their beds drawn to its standards: what is poured, matched and shown. */
export const drawnDesigns = ({ set, designs }: Pick<SetDocuments, 'set' | 'designs'>): Stored<PieceDesign>[] =>
  designs.map((stored) => {
    const data = withJoints(stored.data, set.data.standards ?? []);
    return data === stored.data ? stored : { ...stored, data };
  });

/**
 * Pieces in the order in which the kept layouts have them: row by row, there and back, so that each stands next to a neighbour. A
 * tile whose copy is not named is the next of its design that no layout has used.
 */
export function standingOrder({ tables = [] }: Pick<WaterSet, 'tables'>): { designId: string; copy: number }[] {
  const used = new Set<string>();
  const standing: { designId: string; copy: number }[] = [];
  for (const { laid } of tables)
    for (const { piece } of [...(laid ?? [])].sort(
      (a, b) => a.row - b.row || (a.row % 2 === 0 ? a.column - b.column : b.column - a.column),
    )) {
      let copy = piece.copy ?? 1;
      while (piece.copy === null && used.has(pieceKey({ designId: piece.designId, copy }))) copy++;
      const key = pieceKey({ designId: piece.designId, copy });
      if (used.has(key)) continue;
      used.add(key);
      standing.push({ designId: piece.designId, copy });
    }
  return standing;
}

/** Designs with the copies that a batch takes of them. */
export const batchPieces = (
  batch: Pick<Batch, 'items'>,
  designs: readonly Stored<PieceDesign>[],
  pieces: readonly Stored<PieceRecord>[],
): PlanPiece[] =>
  batch.items.flatMap((item) => {
    const design = designs.find(({ id }) => id === item.designId);
    return design ? copiesOf(design, numbersOf(item), pieces) : [];
  });

/** Layers that are poured, as the log has them, for a plan. */
export const pouredLayers = (
  pours: readonly Pick<PourRecord, 'layer' | 'pouredAt' | 'pouredUntil'>[],
): PlanRequest['poured'] =>
  pours.map(({ layer, pouredAt, pouredUntil }) => ({
    layer,
    at: pouredAt,
    ...(pouredUntil && { until: pouredUntil }),
  }));

/** What the times of a batch follow from beside its layers: nights, days that were read, and the calendar that is kept. */
export function timesOf(
  { own, course }: Pick<Batch, 'own' | 'course'>,
  { room, workplace = FIRST_WORKPLACE }: Pick<Settings, 'room' | 'workplace'>,
  { clockChanges, measuredDays }: ClockAndRoom,
): Pick<PlanRequest, 'clockChanges' | 'conditions' | 'calendar'> {
  const calendar = keptPours(course);
  return {
    clockChanges,
    conditions: conditionsOf(
      { ...room, ...(own?.roomC !== undefined && { temperatureC: own.roomC }) },
      { ...workplace, days: withMeasured(workplace.days, measuredDays) },
    ),
    ...(calendar.length > 0 && { calendar }),
  };
}

/**
 * The plan request of a batch. Before its first pour it follows the set as it stands; afterwards it is the request kept at that
 * pour, so that the log always compares with what was planned then.
 */
export function batchRequest(
  documents: SetDocuments & ClockAndRoom,
  batch: Batch,
  detail: Pick<BatchDetail, 'kept' | 'pours'> | null,
): PlanRequest | null {
  const { clockChanges } = documents;
  const whole = detail?.kept ? wholePours(detail.kept.amounts, detail.pours) : [];
  const poured = pouredLayers(whole);
  const begun = (detail?.pours ?? []).filter((pour) => !whole.includes(pour));
  const { roomC, cupGrams, hands } = batch.own ?? {};
  const times = timesOf(batch, documents.shelf.settings.data, documents);
  if (detail?.kept && detail.pours.length > 0)
    return {
      ...detail.kept.request,
      poured,
      ...(begun.length > 0 && { begun: begun.map(({ layer, pouredAt }) => ({ layer, at: pouredAt })) }),
      ...times,
    };
  const designs = [...drawnDesigns(documents), ...guestDesigns(documents)];
  const measured = [...documents.pieces, ...(documents.guests ?? []).flatMap((guest) => guest.pieces)];
  const pieces = batchPieces(batch, designs, measured);
  const plain = setRequest(documents, pieces, { pourAt: batch.pourAt, clockChanges, windows: batch.benchWindows });
  const taken = new Set(pieces.flatMap((piece) => copiesOfPiece(piece).map((copy) => pieceKey({ ...piece, copy }))));
  const standing = standingOrder(documents.set.data).filter((piece) => taken.has(pieceKey(piece)));
  const request = plain && {
    ...plain,
    ...times,
    pourAt: times.calendar?.find(({ layer }) => layer === 1)?.at ?? batch.pourAt,
    ...(standing.length > 0 && { standing }),
    ...(hands === 2 && { hands }),
    room: { ...plain.room, ...(roomC !== undefined && { temperatureC: roomC }) },
    bench: { ...plain.bench, ...(cupGrams !== undefined && { cupGrams }) },
  };
  return request && batch.moves?.length ? { ...request, moves: batch.moves } : request;
}

/** The request of the whole set, as if every piece were poured in one batch now. */
export const wholeSetRequest = (documents: SetDocuments & ClockAndRoom & Pick<DeskView, 'now'>): PlanRequest | null =>
  setRequest(
    documents,
    drawnDesigns(documents).flatMap((design) => copiesOf(design, firstNumbers(design.data.copies), documents.pieces)),
    { pourAt: documents.now, clockChanges: documents.clockChanges },
  );

/** The pieces of a set as they are matched: a copy of which anything was measured by itself, the others of a design together. */
export function matchPieces(view: Pick<SetDocuments, 'set' | 'designs' | 'pieces'>): MatchPiece[] {
  const { pieces } = view;
  return drawnDesigns(view).flatMap(({ id, data }): MatchPiece[] => {
    const own = pieces
      .filter((piece) => piece.data.designId === id && piece.data.copy <= data.copies)
      .sort((a, b) => a.data.copy - b.data.copy);
    const rest = firstNumbers(data.copies).filter((copy) => !own.some((piece) => piece.data.copy === copy));
    return [
      ...(rest.length > 0
        ? [{ tag: data.tag, designId: id, copy: null, copies: rest.length, copyNumbers: rest, design: data, edges: {} }]
        : []),
      ...own.map((piece) => ({
        tag: copyName(data.tag, piece.data.copy),
        designId: id,
        copy: piece.data.copy,
        copies: 1,
        design: hasMeasuredBed(piece.data) ? { ...data, measured: piece.data.measured } : data,
        edges: piece.data.edges ?? {},
        ...(piece.data.shimsMm && { shimsMm: piece.data.shimsMm }),
        ...(piece.data.water && { tint: tintOfWater(piece.data.water) }),
      })),
    ];
  });
}

/** What the seams of a set are matched from. */
export const setMatchRequest = (documents: SetDocuments): MatchRequest => ({
  pieces: matchPieces(documents),
  levelMm: documents.set.data.levelMm,
  limits: documents.set.data.seamLimits ?? SEAM_LIMITS,
  standards: documents.set.data.standards ?? [],
  tilt: documents.shelf.settings.data.tilt,
  tint: setTint(documents),
  row: documents.set.data.row ?? NO_WISH,
});
