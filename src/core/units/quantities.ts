/** What a figure measures. The core computes each in one base unit: mm, ml, g, °C, minutes, fractions. */
export type Quantity =
  'slope' | 'length' | 'area' | 'volume' | 'mass' | 'temperature' | 'duration' | 'fraction' | 'number';

/** One unit a maker may type or read: `toBase(value)` gives the base unit, `fromBase` its inverse. */
export interface Unit {
  symbol: string;
  /** Other ways people type it, lower case. */
  aliases: readonly string[];
  toBase: (value: number) => number;
  fromBase: (base: number) => number;
}

const scaled = (symbol: string, factor: number, ...aliases: string[]): Unit => ({
  symbol,
  aliases: [symbol.toLowerCase(), ...aliases],
  toBase: (value) => value * factor,
  fromBase: (base) => base / factor,
});

/** Every unit accepted for each quantity. Exact factors: 1 in = 25.4 mm, 1 US fl oz = 29.5735295625 ml, 1 oz = 28.349523125 g. */
export const UNITS = {
  length: [
    scaled('mm', 1, 'millimetre', 'millimetres'),
    scaled('cm', 10, 'centimetre', 'centimetres'),
    scaled('m', 1000, 'metre', 'metres'),
    scaled('in', 25.4, '"', '″', '”', 'inch', 'inches'),
    scaled('ft', 304.8, "'", '′', '’', 'foot', 'feet'),
  ],
  area: [scaled('mm²', 1, 'mm2'), scaled('cm²', 100, 'cm2'), scaled('in²', 645.16, 'in2')],
  volume: [
    scaled('ml', 1, 'millilitre', 'millilitres', 'cc', 'cm3', 'cm³'),
    scaled('l', 1000, 'litre', 'litres'),
    scaled('cl', 10),
    scaled('fl oz', 29.5735295625, 'floz', 'oz'),
  ],
  mass: [
    scaled('g', 1, 'gram', 'grams', 'gr'),
    scaled('kg', 1000),
    scaled('oz', 28.349523125, 'ounce', 'ounces'),
    scaled('lb', 453.59237, 'lbs'),
  ],
  temperature: [
    { symbol: '°C', aliases: ['°c', 'c', 'degc', '℃'], toBase: (v: number) => v, fromBase: (v: number) => v },
    {
      symbol: '°F',
      aliases: ['°f', 'f', 'degf', '℉'],
      toBase: (v: number) => ((v - 32) * 5) / 9,
      fromBase: (v: number) => (v * 9) / 5 + 32,
    },
  ],
  duration: [
    scaled('min', 1, 'm', 'minute', 'minutes'),
    scaled('h', 60, 'hour', 'hours', 'hr'),
    scaled('d', 1440, 'day', 'days'),
    scaled('s', 1 / 60, 'sec', 'seconds'),
  ],
  /** Fall per run; in degrees by its tangent. */
  slope: [
    scaled('mm/m', 0.001),
    {
      symbol: '°',
      aliases: ['°', 'deg', 'degree', 'degrees'],
      toBase: (v: number) => Math.tan((v * Math.PI) / 180),
      fromBase: (v: number) => (Math.atan(v) * 180) / Math.PI,
    },
    scaled('%', 0.01),
  ],
  fraction: [scaled('%', 0.01, 'percent'), scaled('', 1)],
  number: [scaled('', 1)],
} as const satisfies Record<Quantity, readonly Unit[]>;

/** The unit of a quantity with this symbol or alias, if there is one. */
export function findUnit(quantity: Quantity, text: string): Unit | undefined {
  const wanted = text.trim().toLowerCase();
  return (UNITS[quantity] as readonly Unit[]).find((unit) => unit.aliases.includes(wanted));
}
