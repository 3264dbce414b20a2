import { samePiece, type PieceRef } from '../bed/pieceRef';
import { measureDose } from '../tint/doses';
import type { PieceWater } from '../tint/pieceWater';
import type { KeptPlan } from './views';

const MOST_NAME = 80;

/**
 * The water of a piece of a poured batch as it was mixed: the recipe kept at the first pour, each dose as whole drops of the cup
 * that filled this piece really gave it. Over several cups of one piece (a layer each, or a piece too large for a cup) their mean,
 * by what each gave. The recipe itself for a piece that no cup of the batch filled.
 */
export function waterAsMixed({ request, amounts }: KeptPlan, batchName: string, piece: PieceRef): PieceWater {
  const { product, recipe, bench } = request;
  const cups = amounts.layers.flatMap(({ cups: all, strength = 1 }) =>
    all.flatMap((cup) => {
      const poured = cup.pours.filter((pour) => samePiece(pour, piece)).reduce((sum, { grams }) => sum + grams, 0);
      return poured > 0 && strength > 0 ? [{ cup, poured }] : [];
    }),
  );
  const all = cups.reduce((sum, { poured }) => sum + poured, 0);
  const doses = recipe.doses.map(({ colourant: { swatches: _, ...colourant }, gramsPer100 }) => {
    const factor = cups.reduce((sum, { cup, poured }) => {
      const dose = cup.doses.find(({ id }) => id === colourant.id);
      const byDrops = dose && measureDose(dose, colourant.dropGrams, bench.scaleStepGrams, cup.mixGrams).by === 'drops';
      return sum + (byDrops ? 1 + dose.error : 1) * (poured / all);
    }, 0);
    return { colourant, gramsPer100: cups.length > 0 ? gramsPer100 * factor : gramsPer100 };
  });
  return {
    name: batchName.slice(0, MOST_NAME),
    clarity: product.clarity ?? 'water-clear',
    doses,
    ...(recipe.pours && { pours: recipe.pours }),
  };
}
