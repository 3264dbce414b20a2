import { mostMixGrams } from '@/core/mixing/potLife';
import type { LayerPlan, PlanRequest } from '@/core/plan';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';

/** What a second pair of hands does to the speed of pouring. */
const TWO_PAIRS = 2;

/** What keeps a layer from fewer cups, in words: what limits a cup, the bound, and what would change it. */
export function whyThisSplit(
  layer: Pick<LayerPlan, 'cups' | 'fewestCups' | 'mostMix'>,
  { product, room, bench, hands = 1 }: Pick<PlanRequest, 'product' | 'room' | 'bench' | 'hands'>,
  units: UnitPreferences,
): string {
  const mix = layer.mostMix;
  const mass = (grams: number): string => formatMeasure(grams, 'mass', units, 0);
  const count = layer.cups.length;
  const cups = (number: number): string => `${number} ${number === 1 ? 'cup' : 'cups'}`;
  const limit =
    mix.limit === 'cup'
      ? `A cup holds ${mass(mix.grams)}`
      : `${mass(mix.grams)} is what one cup may hold before it sets`;
  const proved =
    count <= layer.fewestCups
      ? count === 1
        ? 'one does'
        : `no fewer than ${cups(count)} will do`
      : `${cups(layer.fewestCups)} might do; ${count} were found`;
  if (count <= 1) return `${limit}: ${proved}.`;
  if (mix.limit === 'cup') return `${limit}: ${proved}. A larger cup would need fewer, if it is still poured in time.`;
  if (hands > 1)
    return `${limit} at this temperature, with two pairs of hands: ${proved}. A slower product would need fewer.`;
  const helped = mostMixGrams(
    { ...product, pourGramsPerMinute: product.pourGramsPerMinute * TWO_PAIRS },
    room.temperatureC,
    bench.cupGrams,
  );
  return `${limit} at this temperature: ${proved}. With a second pair of hands a cup may hold ${mass(helped.grams)}; a slower product would do as much.`;
}
