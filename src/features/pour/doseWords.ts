import type { CupPlan, LayerPlan, PlanRequest } from '@/core/plan';
import { measureDose, type CupDose } from '@/core/tint/doses';
import { formatMeasure, type UnitPreferences } from '@/core/units/formatMeasure';

const drops = (count: number): string => `${count} ${count === 1 ? 'drop' : 'drops'}`;
/** As many decimals as the amount needs to be seen. */
const fine = (grams: number): string => `${grams.toFixed(grams < 0.1 ? 3 : 2)}\u00a0g`;

interface DoseWords {
  /** What to do, and what goes with it. */
  act: string;
  note: string;
  /** True when whole drops would not do. */
  care: boolean;
}

/** How a dose of a cup is measured with the maker's scale and drops, in words. Colourants are weighed in grams, by everyone. */
export function doseWords(
  dose: CupDose,
  cup: CupPlan,
  { recipe, bench }: Pick<PlanRequest, 'recipe' | 'bench'>,
  units: UnitPreferences,
): DoseWords {
  const colourant = recipe.doses.find(({ colourant: { id } }) => id === dose.id)?.colourant;
  const from = cup.parts?.partAGrams ?? cup.mixGrams;
  const advice = measureDose(dose, colourant?.dropGrams ?? 0.05, bench.scaleStepGrams, from);
  if (advice.by === 'drops') return { act: drops(advice.drops), note: fine(dose.grams), care: false };
  if (advice.by === 'weight') {
    const off = `${dose.error > 0 ? '+' : '−'}${Math.abs(dose.error * 100).toFixed(0)} %`;
    return {
      act: `weigh ${fine(advice.grams)}`,
      note: `${drops(dose.drops)} ${dose.drops === 1 ? 'is' : 'are'} ${off}`,
      care: true,
    };
  }
  if (advice.by === 'premix') {
    const part = cup.parts ? 'part\u00a0A' : 'the product';
    const [into, taken] = [advice.intoGrams, advice.takeGrams].map((grams) => formatMeasure(grams, 'mass', units));
    return {
      act: `${drops(advice.drops)} in ${into} of ${part}, take ${taken}`,
      note: `${fine(dose.grams)} is less than your scale shows; the ${taken} count as ${part}`,
      care: true,
    };
  }
  return { act: `${fine(dose.grams)}: too little to measure`, note: 'pour it from a larger cup', care: true };
}

/** How a layer of a recipe that is poured pour by pour is tinted; nothing where it is the recipe itself. */
export function tintWords({ strength = 1, own, doses }: Pick<LayerPlan, 'strength' | 'own' | 'doses'>): string {
  if (doses.every(({ grams }) => grams === 0)) return doses.length > 0 ? ', clear' : '';
  if (own) return ', a tint of its own';
  return strength === 1 ? '' : `, tint at ${Math.round(strength * 100)} %`;
}

/** What is done at the bench before a layer that plants are set for. */
export const PLANTS_FIRST =
  'Set the plants first, and seal dry stems: air rises from them for as long as the layer is liquid.';
