import fc from 'fast-check';
import {
  editText,
  formatCut,
  formatMeasure,
  formatMinutes,
  formatMoney,
  METRIC,
  minutesText,
  preferredUnit,
  scaleDecimals,
  type UnitPreferences,
} from './formatMeasure';
import { parseMeasure } from './parseMeasure';
import { UNITS, type Quantity } from './quantities';

const INCHES: UnitPreferences = { ...METRIC, length: 'in', mass: 'oz', volume: 'fl oz', temperature: '°F' };
const read = (text: string, quantity: Quantity = 'length', prefs = METRIC): number | string => {
  const parsed = parseMeasure(text, quantity, preferredUnit(quantity, prefs));
  return parsed.ok ? parsed.value : parsed.message;
};

describe('what makers type', () => {
  test.each<[string, number]>([
    ['140', 140],
    ['16 cm', 160],
    ['16cm', 160],
    ['4 3/4"', 120.65],
    ['1/8 in', 3.175],
    ['2\'6"', 762],
    ['2′ 6″', 762],
    ['3*160+2', 482],
    ['3 x 160', 480],
    ['3×160', 480],
    ['(2+3)*4', 20],
    ['1/2', 0.5],
    ['10 - 2.5', 7.5],
    ['1,5 cm', 15],
    ['½ in', 12.7],
    ['4¾"', 120.65],
    ['2 in + 3', 53.8],
    ['140 mm/2', 70],
    ['2 * 1/4 in', 12.7],
    ['-3', -3],
    ['0.25', 0.25],
    ['.5', 0.5],
    ['1 m', 1000],
    ['5 1/2 inches', 139.7],
    ['100 − 1', 99],
  ])('%s mm-field', (text, mm) => expect(read(text)).toBeCloseTo(mm, 9));
  test('a bare number is in the maker’s own unit, a unit always wins', () => {
    expect(read('5 1/2', 'length', INCHES)).toBeCloseTo(139.7);
    expect(read('140 mm', 'length', INCHES)).toBeCloseTo(140);
    expect(read('3 fl oz', 'volume')).toBeCloseTo(88.7206, 3);
    expect(read('2 oz', 'mass')).toBeCloseTo(56.699, 3);
    expect(read('2 oz', 'volume')).toBeCloseTo(59.147, 3);
    expect(read('68 °F', 'temperature')).toBeCloseTo(20);
    expect(read('68 F', 'temperature')).toBeCloseTo(20);
    expect(read('20', 'temperature', INCHES)).toBeCloseTo(-6.667, 3);
    expect(read('1 h 30 min', 'duration')).toBeCloseTo(90);
    expect(read('1.5 mm/m', 'slope')).toBeCloseTo(0.0015);
    expect(read('0.5°', 'slope')).toBeCloseTo(0.0087269, 6);
    expect(read('(15.3-14.9)/0.12', 'slope')).toBeCloseTo(0.0033333, 6);
    expect(read('2 %', 'fraction')).toBeCloseTo(0.02);
  });
  test.each<[string, Quantity]>([
    ['', 'length'],
    ['wide', 'length'],
    ['12 g', 'length'],
    ['3 +', 'length'],
    ['1/0', 'length'],
    ['4 mm * 3 mm', 'length'],
    ['12 12', 'length'],
    ['(3', 'length'],
    ['5 mm', 'mass'],
    ['$5', 'number'],
  ])('“%s” in a %s field is explained', (text, quantity) => {
    expect(read(text, quantity)).toEqual(expect.any(String));
  });
  test('every symbol of every unit reads back to its own factor', () => {
    for (const [quantity, units] of Object.entries(UNITS))
      for (const unit of units)
        for (const alias of unit.aliases.filter(Boolean))
          expect(read(`3 ${alias}`, quantity as Quantity)).toBeCloseTo(unit.toBase(3), 9);
  });
  test('what a field shows reads back to the same value, to what is shown', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 2000, noNaN: true }), fc.constantFrom(METRIC, INCHES), (mm, prefs) => {
        expect(Math.abs(Number(read(editText(mm, 'length', prefs), 'length', prefs)) - mm)).toBeLessThan(
          prefs === METRIC ? 0.0051 : 0.0128,
        );
      }),
    );
  });
});

test.each([4.5, 25, 90, 150, 1440, 2880, 10080])('a field of %d minutes reads back', (minutes) =>
  expect(read(editText(minutes, 'duration', METRIC), 'duration')).toBeCloseTo(minutes, 6),
);

test('a cut is never too short', () => {
  expect([formatCut(68.04), formatCut(68.2), formatCut(18)]).toEqual(['68\u00a0mm', '69\u00a0mm', '18\u00a0mm']);
  expect(['1″', '1 1/16″', '1/16″']).toEqual([25.4, 25.5, 0.4].map((mm) => formatCut(mm, INCHES)));
});

test('lengths that differ in mm differ in inches, and a fraction that was typed stands as it was', () => {
  for (let mm = 0.1; mm < 40; mm += 0.3)
    expect(formatMeasure(mm, 'length', INCHES)).not.toBe(formatMeasure(mm + 0.3, 'length', INCHES));
  for (const typed of ['1/2', '5 1/2', '3/64', '1/16', '2'])
    expect(editText(Number(read(typed, 'length', INCHES)), 'length', INCHES)).toBe(typed);
  expect(editText(13, 'length', INCHES)).toBe('0.512');
  // Millimetres of two decimals are thousandths of an inch; whole ones are sixteenths, and never nothing.
  expect(formatMeasure(1.27, 'length', INCHES, 2)).toBe('0.050″');
  expect(formatMeasure(13.3, 'length', INCHES, 0)).toBe('1/2″');
  expect(formatMeasure(0.5, 'length', INCHES, 0)).toBe('0.020″');
});

describe('what makers read', () => {
  test.each<[number, Quantity, UnitPreferences, string]>([
    [6.84, 'length', METRIC, '6.8\u00a0mm'],
    [120.65, 'length', INCHES, '4 3/4″'],
    [25.4, 'length', INCHES, '1″'],
    [3.2, 'length', INCHES, '1/8″'],
    [0, 'length', INCHES, '0″'],
    [-3.2, 'length', INCHES, '−1/8″'],
    // To a tenth of a millimetre, as mm are: a fraction that is that near, or thousandths.
    [12.7, 'length', INCHES, '1/2″'],
    [13.05, 'length', INCHES, '33/64″'],
    [15, 'length', INCHES, '19/32″'],
    [0.5, 'length', INCHES, '0.020″'],
    [1, 'length', INCHES, '0.039″'],
    [-1, 'length', INCHES, '−0.039″'],
    [45.93, 'mass', METRIC, '45.9\u00a0g'],
    [-0.02, 'mass', METRIC, '0.0\u00a0g'],
    [9600, 'area', METRIC, '96.0\u00a0cm²'],
    [20, 'temperature', INCHES, '68\u00a0°F'],
    [41.6, 'volume', METRIC, '41.6\u00a0ml'],
  ])('%d %s', (value, quantity, prefs, text) => expect(formatMeasure(value, quantity, prefs)).toBe(text));
  test.each<[number, string]>([
    [4.5, '4.5\u00a0min'],
    [25, '25\u00a0min'],
    [90, '90\u00a0min'],
    [600, '10\u00a0h'],
    [1440, '24\u00a0h'],
    [10080, '7\u00a0days'],
  ])('%d minutes', (minutes, text) => expect(formatMinutes(minutes)).toBe(text));
});

test('money is rounded half away from zero, as it is written and not as it is kept', () => {
  const { currency } = METRIC;
  const money = (amount: number): string => formatMoney(amount).replace(`${currency}\u00a0`, '');
  expect([1.005, 2.675, 1.004, -1.005, 0.125, -0.001, 1234.565].map(money)).toEqual([
    '1.01',
    '2.68',
    '1.00',
    '−1.01',
    '0.13',
    '0.00',
    '1234.57',
  ]);
  fc.assert(
    fc.property(fc.integer({ min: -10_000_000, max: 10_000_000 }), (thousandths) => {
      const whole = Math.sign(thousandths) * Math.floor((Math.abs(thousandths) + 5) / 10);
      expect(Number(money(thousandths / 1000).replace('−', '-'))).toBeCloseTo(whole / 100, 9);
    }),
  );
});

test.each([
  [5, 0],
  [1, 0],
  [0.5, 1],
  [0.1, 1],
  [0.05, 2],
  [0.01, 2],
  [0.001, 3],
  [0.0001, 3],
])('a scale in steps of %s g shows %s decimals', (step, decimals) => expect(scaleDecimals(step)).toBe(decimals));

test.each([
  [119, '119 min'],
  [120, '2 h'],
  [4320, '3 d'],
  [4380, '73 h'],
  [2880, '48 h'],
  [7200, '5 d'],
])('a field shows %s minutes as %s', (minutes, text) => expect(editText(minutes, 'duration', METRIC)).toBe(text));

test('a figure without a unit has none behind it', () => {
  expect(formatMeasure(2.5, 'number', METRIC)).toBe('2.50');
  expect(minutesText(25)).toEqual({ digits: '25', unit: 'min' });
});

test('nothing of an inch is no negative nothing', () => {
  expect(editText(-25.4, 'length', INCHES)).toBe('−1');
  expect(editText(-0.0001, 'length', INCHES)).toBe('0');
});

test.each([
  ['2 + 1 in', 'sums take the maker’s unit for the number without', 27.4],
  ['1 in + 2', 'the other way round too', 27.4],
  ['(1 + 2) * 3', 'brackets', 9],
  ['2 * 1 in', 'a number of times', 50.8],
])('%s: %s', (text, _, mm) => expect(read(text)).toBeCloseTo(mm, 6));
test.each(['1 in * 1 in', '2 / (1 in)', '(1 + 2', '1 in 2'])('%s is no length', (text) =>
  expect(read(text)).toEqual(expect.any(String)),
);
