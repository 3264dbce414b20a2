import { preferredUnit, type UnitPreferences } from './formatMeasure';
import type { Quantity } from './quantities';

const MM_PER_INCH = 25.4;

/** The round length nearest to one in mm, in the maker's unit: inches in halves, quarters, eighths or sixteenths by their size. */
export function roundLength(mm: number, { length }: Pick<UnitPreferences, 'length'>): number {
  if (length === 'mm' || mm === 0) return mm;
  const inches = Math.abs(mm) / MM_PER_INCH;
  const parts = inches >= 4 ? 2 : inches >= 0.9 ? 4 : inches >= 0.2 ? 8 : 16;
  return Math.sign(mm) * Math.max(1 / 16, Math.round(inches * parts) / parts) * MM_PER_INCH;
}

/** Steps of a field in mm and in inches, coarse before fine. */
const INCH_STEPS: readonly [fromMm: number, inches: number][] = [
  [20, 1],
  [5, 1 / 4],
  [0.9, 1 / 16],
  [0.4, 1 / 32],
  [0.09, 1 / 64],
  [0.04, 0.002],
  [0, 0.001],
];
const NICE = [1, 2, 5, 10];

/** What one press of an arrow key adds to a measure, in base units: `step` where the maker reads those, else a round step of about that size. */
export function roundStep(step: number, quantity: Quantity, prefs: UnitPreferences): number {
  const unit = preferredUnit(quantity, prefs);
  const size = unit.fromBase(step) - unit.fromBase(0);
  if (Math.abs(size - step) < 1e-12 || quantity === 'duration') return step;
  if (unit.symbol === 'in') return unit.toBase(INCH_STEPS.find(([from]) => step >= from)![1]);
  const tens = 10 ** Math.floor(Math.log10(size));
  const nice = NICE.reduce((best, one) => (Math.abs(one * tens - size) < Math.abs(best * tens - size) ? one : best));
  return unit.toBase(nice * tens) - unit.toBase(0);
}

/** A measure some presses of an arrow key on: from step to step, so that what is round in the maker's unit stays so. */
export function stepped(
  value: number,
  presses: number,
  step: number,
  quantity: Quantity,
  prefs: UnitPreferences,
): number {
  const unit = preferredUnit(quantity, prefs);
  const own = roundStep(step, quantity, prefs);
  if (own === step) return value + presses * step;
  const size = unit.fromBase(own) - unit.fromBase(0);
  const at = unit.fromBase(value) / size;
  const from = presses > 0 ? Math.floor(at + 1e-6) : Math.ceil(at - 1e-6);
  return unit.toBase((from + presses) * size);
}
