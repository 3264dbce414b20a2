import { formatMeasure, type UnitPreferences } from '../units/formatMeasure';
import type { Explanation } from './explanation';
import type { FinishPlan, Plan, ProductTotal } from './plan';
import { layerProduct, type PlanRequest } from './request';

/** How what a batch takes of one of several products came about: layer by layer, and coat by coat of a finish. */
export function explainProduct(
  { id, name, mixGrams, parts }: ProductTotal,
  { request, plan, prefs }: { request: PlanRequest; plan: Plan; prefs: UnitPreferences },
): Explanation {
  const mass = (grams: number): string => formatMeasure(grams, 'mass', prefs);
  const own = plan.layers.filter((layer) => (layer.productId ?? request.product.id) === id);
  const { ratioA, ratioB, ratioBy } = layerProduct(request, { productId: id }).parts ?? {};
  return {
    title: name,
    formula:
      'The cups of the layers that are poured of it, what is lost in them included, and its coats of the finish.',
    inputs: [
      ...own.map((layer) => ({
        label: `Layer ${layer.number}, ${layer.cups.length} cups`,
        value: mass(layer.mixGrams),
      })),
      ...(plan.finish?.productId === id
        ? [{ label: `Finish, ${plan.finish.coats} coats`, value: mass(plan.finish.mixGrams) }]
        : []),
      { label: 'In all', value: mass(mixGrams) },
      ...(parts ? [{ label: 'Label, A : B', value: `${ratioA} : ${ratioB} by ${ratioBy}` }] : []),
    ],
    assumptions: ['Losses are those of the workshop, the same for every product.'],
    estimate: true,
  };
}

/** How what a surface finish takes came about. */
export function explainFinish(
  finish: FinishPlan,
  { request, plan, prefs }: { request: PlanRequest; plan: Plan; prefs: UnitPreferences },
): Explanation {
  const product = request.build?.finish?.product;
  const mass = (grams: number): string => formatMeasure(grams, 'mass', prefs);
  return {
    title: finish.name,
    formula:
      'The open water of all pieces times the wet film, times the density, for each coat; and for each coat what stays in the pot and on the brush, as in a cup and on a piece.',
    inputs: [
      { label: 'Open water', value: formatMeasure(plan.totals.surfaceCm2 * 100, 'area', prefs) },
      { label: 'Film, dry', value: formatMeasure(finish.filmMm, 'length', prefs, 2) },
      { label: 'goes as it dries', value: `${Math.round((product?.shrinkage ?? 0) * 100)}\u00a0%` },
      { label: 'Film, wet', value: formatMeasure(finish.wetMm, 'length', prefs, 2) },
      { label: 'Density', value: `${product?.density ?? 0}\u00a0g/ml` },
      { label: 'On the pieces, all coats', value: mass(finish.pouredGrams) },
      { label: 'Out of the pot, all coats', value: mass(finish.mixGrams) },
    ],
    assumptions: ['Brushed on evenly. The edge of the water counts, the land does not.'],
    estimate: true,
  };
}
