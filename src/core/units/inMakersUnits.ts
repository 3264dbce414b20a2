import { formatMeasure, preferredUnit, type UnitPreferences } from './formatMeasure';
import { findUnit, type Quantity } from './quantities';

const QUANTITIES: Record<string, Extract<Quantity, 'length' | 'mass' | 'volume' | 'temperature' | 'area'>> = {
  mm: 'length',
  m: 'length',
  g: 'mass',
  kg: 'mass',
  ml: 'volume',
  '°C': 'temperature',
  'cm²': 'area',
};

/** What is written behind an amount that is no measure of the maker's: a slope, a share, the scale of figures. */
const NOT_AFTER = String.raw`(?![\w²³/]|[\s\u00a0](?:per|a|scale|figures?|apart on screen)\b)`;
const NUMBER = String.raw`([−-]?\d+(?:\.\d+)?)`;
const AMOUNT = new RegExp(
  `${NUMBER}(?:( and | to | or | × |–)${NUMBER})?[ \\u00a0](mm|m|kg|g|ml|°C|cm²)${NOT_AFTER}`,
  'g',
);

/**
 * A sentence of the core, which measures in mm, g, ml and °C, with its amounts in the maker's units: `Between 0.4 and 20 mm` becomes
 * `Between 1/64″ and 25/32″`. What has no unit of its own in them, as mm per m, stays.
 */
export function inMakersUnits(text: string, prefs: UnitPreferences): string {
  if (prefs.length === 'mm' && prefs.mass === 'g' && prefs.volume === 'ml' && prefs.temperature === '°C') return text;
  return text.replace(
    AMOUNT,
    (whole, first: string, between: string | undefined, second: string | undefined, symbol) => {
      const quantity = QUANTITIES[symbol as string]!;
      const isMetric = quantity === 'area' ? prefs.length === 'mm' : prefs[quantity] === METRIC_SYMBOL[quantity];
      if (isMetric) return whole;
      const unit = findUnit(quantity, symbol as string)!;
      const decimals = Math.max(...[first, second ?? ''].map((number) => number.split('.')[1]?.length ?? 0));
      const say = (number: string): string => {
        const base = unit.toBase(Number(number.replace('−', '-')));
        if (quantity === 'length') return formatMeasure(base, quantity, prefs, decimals > 1 ? decimals : undefined);
        // A small amount keeps two figures.
        const size = Math.abs(preferredUnit(quantity, prefs).fromBase(base));
        const fine = size > 0 && size < 0.1 ? Math.ceil(-Math.log10(size)) + 1 : undefined;
        return formatMeasure(base, quantity, prefs, fine);
      };
      return second === undefined ? say(first) : `${say(first)}${between}${say(second)}`;
    },
  );
}

const METRIC_SYMBOL = { length: 'mm', mass: 'g', volume: 'ml', temperature: '°C' } as const;
