import { cupWork } from '../pouring/cupWork';
import { colourPortionsOf, partGrams, portionWords, readerOf, stockWords } from '../pouring/portionWords';
import { layerProduct, type Plan, type PlanRequest } from '../plan';
import { METRIC, scaleDecimals } from '../units/formatMeasure';
import { writeCsv } from './csv';

const COLUMNS = [
  ...(['layer', 'pour_at', 'cup', 'cup_mix_g', 'part_a_g', 'part_b_g', 'part_a_ml', 'part_b_ml'] as const),
  ...(['colourants', 'pot_life_min', 'piece', 'pour_g', 'cup_shows_g', 'product'] as const),
] as const;

const round = (value: number, decimals: number): number => Number(value.toFixed(decimals));

type Row = Record<(typeof COLUMNS)[number], string | number>;

/**
 * The pour card as CSV: one row a pour, in the order of work, cups and layers repeated on each row.
 * `cup_shows_g` is what the scale under the cup shows once the piece is filled. Plain decimals with a point; grams as the scale
 * shows them, ml to 0.1. Opens in any spreadsheet.
 */
export function pourCardCsv(plan: Plan, request: Pick<PlanRequest, 'product' | 'build' | 'losses' | 'bench'>): string {
  const { scaleStepGrams } = request.bench;
  const onScale = (grams: number): number =>
    round(Math.round(grams / scaleStepGrams + 1e-9) * scaleStepGrams, scaleDecimals(scaleStepGrams));
  const rows = plan.layers.flatMap((layer) => {
    const product = layerProduct(request, layer);
    const { parts } = product;
    const reader = readerOf(product, { units: METRIC, scaleStepGrams, by: 'weight' });
    const stock = layer.stock ? ` (${stockWords(layer.stock, reader)})` : '';
    return layer.cups.flatMap((cup) => {
      const [a, b] = [partGrams(cup.portions, 'part A'), partGrams(cup.portions, 'part B')];
      return cupWork(cup, product, request.losses).steps.map((pour): Row => ({
        layer: layer.number,
        pour_at: layer.cure.pouredAt,
        cup: cup.number,
        cup_mix_g: onScale(cup.mixGrams),
        part_a_g: parts ? onScale(a) : '',
        part_b_g: parts ? onScale(b) : '',
        part_a_ml: parts ? round(a / parts.densityA, 1) : '',
        part_b_ml: parts ? round(b / parts.densityB, 1) : '',
        colourants: colourPortionsOf(cup.portions)
          .map((portion) => {
            const { act, note } = portionWords(portion, reader);
            const more = portion.resinGrams > 0 ? `; ${note}` : '';
            return `${portion.name}${portion.way === 'stock' ? stock : ''}: ${act}${more}`.replaceAll('\u00a0', ' ');
          })
          .join('; '),
        pot_life_min: round(cup.potLifeMinutes, 0),
        piece: `${pour.tag} #${pour.copy}`,
        pour_g: onScale(pour.grams),
        cup_shows_g: onScale(pour.cupShowsGrams),
        product: product.name,
      }));
    });
  });
  return writeCsv(COLUMNS, rows);
}
