import { formatMeasure, METRIC, type UnitPreferences } from './formatMeasure';
import { roundLength, roundStep, stepped } from './steps';

const INCHES: UnitPreferences = { length: 'in', mass: 'oz', volume: 'fl oz', temperature: '°F', currency: '$' };
const inch = (inches: number): number => inches * 25.4;

test.each([
  [140, 5.5],
  [70, 2.75],
  [56, 2.25],
  [450, 17.5],
  [40, 1.5],
  [20, 0.75],
  [6, 0.25],
  [2, 1 / 16],
  [0.3, 1 / 16],
])('%d mm of a template is %d inches', (mm, inches) => {
  expect(roundLength(mm, INCHES)).toBeCloseTo(inch(inches), 9);
  expect(roundLength(mm, METRIC)).toBe(mm);
});
test('nothing stays nothing, what is below stays below', () => {
  expect(roundLength(0, INCHES)).toBe(0);
  expect(roundLength(-6, INCHES)).toBeCloseTo(-inch(0.25), 9);
});

test('a press of an arrow key goes by a round step of the unit, from wherever the field stands', () => {
  expect(stepped(15, 1, 0.5, 'length', METRIC)).toBe(15.5);
  // 15 mm are 0.5906″, a little more than 18/32.
  expect(stepped(15, 1, 0.5, 'length', INCHES)).toBeCloseTo(inch(19 / 32), 9);
  expect(stepped(15, -1, 0.5, 'length', INCHES)).toBeCloseTo(inch(18 / 32), 9);
  expect(stepped(inch(5.5), 1, 1, 'length', INCHES)).toBeCloseTo(inch(5.5625), 9);
  expect(stepped(inch(5.5), -5, 1, 'length', INCHES)).toBeCloseTo(inch(5.1875), 9);
  expect(formatMeasure(stepped(20, 1, 1, 'temperature', INCHES), 'temperature', INCHES)).toBe('70\u00a0°F');
  // 100 g are 3.53 oz, a step of 10 g is half an ounce.
  expect(stepped(100, 1, 10, 'mass', INCHES) / 28.349523125).toBeCloseTo(4, 6);
  expect(stepped(60, 1, 5, 'duration', INCHES)).toBe(65);
});

test.each([50, 20, 10, 5, 1, 0.5, 0.1, 0.05, 0.01])('a step of %d mm is one of inches of about that size', (step) => {
  const own = roundStep(step, 'length', INCHES);
  expect(own / step).toBeGreaterThan(0.4);
  expect(own / step).toBeLessThan(4.1);
});
