import { z } from 'zod';
import { findUnit, UNITS, type Quantity, type Unit } from './quantities';

/** The maker's units. The core never sees them; only the edge of the screen does. */
export const unitPreferencesSchema = z.object({
  length: z.enum(['mm', 'in']),
  mass: z.enum(['g', 'oz']),
  volume: z.enum(['ml', 'fl oz']),
  temperature: z.enum(['°C', '°F']),
  currency: z.string().trim().min(1, 'Type a currency sign').max(4, 'A currency sign has at most four characters'),
});
export type UnitPreferences = z.infer<typeof unitPreferencesSchema>;

export const METRIC: UnitPreferences = { length: 'mm', mass: 'g', volume: 'ml', temperature: '°C', currency: '€' };

/** A figure ready for the screen: digits and unit apart, so that they can be set differently. */
export interface MeasureText {
  digits: string;
  unit: string;
}

/** The unit a maker reads and types a quantity in. */
export function preferredUnit(quantity: Quantity, prefs: UnitPreferences): Unit {
  const symbol: string =
    quantity === 'length' || quantity === 'mass' || quantity === 'volume' || quantity === 'temperature'
      ? prefs[quantity]
      : quantity === 'area'
        ? prefs.length === 'mm'
          ? 'cm²'
          : 'in²'
        : UNITS[quantity][0].symbol;
  return findUnit(quantity, symbol) ?? UNITS[quantity][0];
}

const DECIMALS: Record<string, number> = {
  mm: 1,
  g: 1,
  oz: 2,
  ml: 1,
  'fl oz': 2,
  'cm²': 1,
  'in²': 1,
  '°C': 1,
  '°F': 0,
  '%': 1,
  min: 0,
  '': 2,
};

/**
 * Digits and unit with honest precision: mm and g to 0.1, inches as finely. `decimals` overrides; of a length they are those of mm, and
 * inches go along.
 */
export function measureText(base: number, quantity: Quantity, prefs: UnitPreferences, decimals?: number): MeasureText {
  const unit = preferredUnit(quantity, prefs);
  const value = unit.fromBase(base);
  if (unit.symbol === 'in') return { digits: inchDigits(value, decimals ?? 1), unit: '″' };
  return { digits: fixed(value, decimals ?? DECIMALS[unit.symbol] ?? 1), unit: unit.symbol };
}

/** `measureText` as one string, a thin space between digits and unit. */
export function formatMeasure(
  base: number,
  quantity: Quantity,
  prefs: UnitPreferences = METRIC,
  decimals?: number,
): string {
  const { digits, unit } = measureText(base, quantity, prefs, decimals);
  return unit === '″' || unit === '' ? `${digits}${unit}` : `${digits}\u00a0${unit}`;
}

/** Decimals of a scale that shows this step. */
export const scaleDecimals = (scaleStepGrams: number): number =>
  Math.min(3, Math.max(0, Math.ceil(-Math.log10(scaleStepGrams) - 1e-9)));

/** Grams as a scale shows them: in its steps. In another unit with as many decimals as tell those apart. */
export function formatOnScale(grams: number, scaleStepGrams: number, prefs: UnitPreferences = METRIC): string {
  const shown = Math.round(grams / scaleStepGrams + Math.sign(grams) * 1e-9) * scaleStepGrams;
  return formatMeasure(shown, 'mass', prefs, scaleDecimals(preferredUnit('mass', prefs).fromBase(scaleStepGrams)));
}

/** A length as it is cut: up to the next whole mm, or the next sixteenth of an inch. */
export function formatCut(mm: number, prefs: UnitPreferences = METRIC): string {
  const step = prefs.length === 'mm' ? 1 : MM_PER_INCH / 16;
  return formatMeasure(Math.ceil((mm - 0.05) / step) * step, 'length', prefs, 0);
}

/**
 * The text an input field shows for a value: no thousands marks, trailing zeros dropped, readable back by
 * `parseMeasure`. Durations carry their unit.
 */
export function editText(base: number, quantity: Quantity, prefs: UnitPreferences, decimals?: number): string {
  if (quantity === 'duration') return durationText(base);
  const unit = preferredUnit(quantity, prefs);
  const value = unit.fromBase(base);
  if (unit.symbol === 'in' && decimals === undefined) return inchFraction(value, TYPED_OFF_MM) ?? trimmed(value, 3);
  return trimmed(value, decimals ?? 2);
}

const trimmed = (value: number, decimals: number): string => String(Number(value.toFixed(decimals)));

/** A duration in the unit that keeps it short, with that unit: `25 min`, `36 h`, `7 d`. */
function durationText(minutes: number): string {
  const [size, unit] = minutes >= 4320 && minutes % 1440 === 0 ? [1440, 'd'] : minutes >= 120 ? [60, 'h'] : [1, 'min'];
  return `${Number((minutes / size).toFixed(2))} ${unit}`;
}

/** Money with two decimals after the maker's currency sign. */
export const formatMoney = (amount: number, prefs: UnitPreferences = METRIC): string =>
  `${prefs.currency}\u00a0${fixed(amount, 2)}`;

/** Rounds half away from zero and never prints a negative zero. */
function fixed(value: number, decimals: number): string {
  const scale = 10 ** decimals;
  // 1.005 is a little less than that in binary: a last bit more makes it the half that was meant.
  const rounded = (Math.sign(value) * Math.round(Math.abs(value) * scale * (1 + 2 * Number.EPSILON))) / scale;
  const text = rounded.toFixed(decimals);
  return Number(text) === 0 ? (0).toFixed(decimals) : text.replace('-', '−');
}

const MM_PER_INCH = UNITS.length.find(({ symbol }) => symbol === 'in')!.toBase(1);
/** How far a fraction may be off what it stands for, by the decimals that mm would have; what was typed as one is that very fraction. */
const FRACTION_OFF_MM = [0.8, 0.1, 0.01];
const TYPED_OFF_MM = 0.006;

/** Inches in the coarsest fraction that is near enough, sixteenths to sixty-fourths; where none is, in thousandths. */
function inchDigits(inches: number, decimals: number): string {
  const off = FRACTION_OFF_MM[Math.min(decimals, FRACTION_OFF_MM.length - 1)]!;
  const nearest = inchFraction(inches, off);
  // What is next to nothing for a cut is still not nothing.
  return (nearest === '0' && decimals === 0 ? inchFraction(inches, FRACTION_OFF_MM[1]!) : nearest) ?? fixed(inches, 3);
}

function inchFraction(inches: number, offMm: number): string | null {
  const size = Math.abs(inches);
  const parts = [16, 32, 64].find(
    (bottom) => Math.abs(Math.round(size * bottom) / bottom - size) * MM_PER_INCH <= offMm,
  );
  if (parts === undefined) return null;
  const count = Math.round(size * parts);
  const whole = Math.floor(count / parts);
  let [top, bottom] = [count % parts, parts];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const text = top === 0 ? `${whole}` : whole === 0 ? `${top}/${bottom}` : `${whole} ${top}/${bottom}`;
  return inches < 0 && count > 0 ? `−${text}` : text;
}

/** Minutes as a maker says them: `4.5 min`, `25 min`, `24 h`, `7 days`. */
export function formatMinutes(minutes: number): string {
  if (minutes < 10) return `${Number(minutes.toFixed(1))}\u00a0min`;
  if (minutes < 120) return `${Math.round(minutes)}\u00a0min`;
  if (minutes < 72 * 60) return `${Number((minutes / 60).toFixed(minutes < 600 ? 1 : 0))}\u00a0h`;
  return `${Number((minutes / 1440).toFixed(1))}\u00a0days`;
}

/** `formatMinutes` in two: its digits and its unit. */
export function minutesText(minutes: number): MeasureText {
  const [digits, unit] = formatMinutes(minutes).split('\u00a0');
  return { digits: digits!, unit: unit ?? '' };
}
