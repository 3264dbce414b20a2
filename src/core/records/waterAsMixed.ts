import { samePiece, type PieceRef } from '../model/pieceRef';
import { colourIn } from '../pouring/portions';
import { tintOfRequest, type PlanColourant } from '../plan/request';
import type { PieceWater } from '../model/pieceWaterSchema';
import type { KeptPlan } from './views';

const MOST_NAME = 80;

/**
 * The water of a piece of a poured batch as it was mixed: the recipe kept at the first pour, each dose as the cup that filled this
 * piece was to have it, by drops, scale, premix or stock. Over several cups of one piece (a layer each, or a piece too large for a cup) their mean,
 * by what each gave. The recipe itself for a piece that no cup of the batch filled.
 */
export function waterAsMixed({ request, amounts }: KeptPlan, batchName: string, piece: PieceRef): PieceWater {
  const { product, recipe } = request;
  const { pours } = tintOfRequest(request);
  const cups = amounts.layers.flatMap(({ cups: all }) =>
    all.flatMap((cup) => {
      const poured = cup.pours.filter((pour) => samePiece(pour, piece)).reduce((sum, { grams }) => sum + grams, 0);
      return poured > 0 ? [{ cup, poured }] : [];
    }),
  );
  /** How what was put in stands to what the recipe wants. */
  const missed = ({ id }: PlanColourant): number => {
    const given = cups.flatMap(({ cup, poured }) => {
      const dose = cup.doses.find((candidate) => candidate.id === id);
      if (!dose || dose.grams === 0) return [];
      return [{ poured, factor: colourIn(cup.portions, id) / dose.grams }];
    });
    const all = given.reduce((sum, { poured }) => sum + poured, 0);
    return all > 0 ? given.reduce((sum, { poured, factor }) => sum + (factor * poured) / all, 0) : 1;
  };
  const factors = new Map(recipe.doses.map(({ colourant }) => [colourant.id, missed(colourant)]));
  return {
    name: batchName.slice(0, MOST_NAME),
    clarity: product.clarity ?? 'water-clear',
    doses: recipe.doses.map(({ colourant: { swatches: _, ...colourant }, gramsPer100 }) => ({
      colourant,
      gramsPer100: gramsPer100 * factors.get(colourant.id)!,
    })),
    ...(pours && {
      pours: pours.map(({ own, ...pour }) => ({
        ...pour,
        ...(own && {
          own: Object.fromEntries(Object.entries(own).map(([id, grams]) => [id, grams * (factors.get(id) ?? 1)])),
        }),
      })),
    }),
  };
}
