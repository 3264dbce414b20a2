import { cupWork } from '../mixing/cupWork';
import { layerProduct, type Plan, type PlanRequest } from '../plan';
import { writeCsv } from './csv';

const COLUMNS = [
  ...(['layer', 'pour_at', 'cup', 'cup_mix_g', 'part_a_g', 'part_b_g', 'part_a_ml', 'part_b_ml'] as const),
  ...(['colourants', 'pot_life_min', 'piece', 'pour_g', 'cup_shows_g', 'product'] as const),
] as const;

const round = (value: number, decimals: number): number => Number(value.toFixed(decimals));

type Row = Record<(typeof COLUMNS)[number], string | number>;

/**
 * The pour card as CSV: one row a pour, in the order of work, cups and layers repeated on each row.
 * `cup_shows_g` is what the scale under the cup shows once the piece is filled. Plain decimals with a point; grams to
 * 0.1, ml to 0.1. Opens in any spreadsheet.
 */
export function pourCardCsv(plan: Plan, request: Pick<PlanRequest, 'product' | 'build' | 'losses'>): string {
  const rows = plan.layers.flatMap((layer) =>
    layer.cups.flatMap((cup) =>
      cupWork(cup, layerProduct(request, layer), request.losses).steps.map((pour): Row => ({
        layer: layer.number,
        pour_at: layer.cure.pouredAt,
        cup: cup.number,
        cup_mix_g: round(cup.mixGrams, 1),
        part_a_g: cup.parts ? round(cup.parts.partAGrams, 1) : '',
        part_b_g: cup.parts ? round(cup.parts.partBGrams, 1) : '',
        part_a_ml: cup.parts ? round(cup.parts.partAMl, 1) : '',
        part_b_ml: cup.parts ? round(cup.parts.partBMl, 1) : '',
        colourants: cup.doses
          .map(({ name, drops, grams }) => `${name}: ${drops} drops or ${grams.toFixed(2)} g`)
          .join('; '),
        pot_life_min: round(cup.potLifeMinutes, 0),
        piece: `${pour.tag} #${pour.copy}`,
        pour_g: round(pour.grams, 1),
        cup_shows_g: round(pour.cupShowsGrams, 1),
        product: layerProduct(request, layer).name,
      })),
    ),
  );
  return writeCsv(COLUMNS, rows);
}
