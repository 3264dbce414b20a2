import { METRIC, type UnitPreferences } from './formatMeasure';
import { inMakersUnits } from './inMakersUnits';

const INCHES: UnitPreferences = { length: 'in', mass: 'oz', volume: 'fl oz', temperature: '°F', currency: '$' };

test.each([
  ['Between 0 and 3000 mm', 'Between 0″ and 118 7/64″'],
  ['The deepest water takes 12.70 mm wet.', 'The deepest water takes 1/2″ wet.'],
  ['25.4 × 50.8 mm, add 3.4 g at 18 °C', '1″ × 2″, add 0.12\u00a0oz at 64\u00a0°F'],
  ['It leaks −1.5 mm; 40.0\u00a0ml run out', 'It leaks −1/16″; 1.35\u00a0fl oz run out'],
  ['Falls 1.5 mm per m', 'Falls 1.5 mm per m'],
  ['A slope of 3 mm/m', 'A slope of 3 mm/m'],
  ['On 28 mm figures it looks steep', 'On 28 mm figures it looks steep'],
  ['0.1 g in 100 g', '0.0035\u00a0oz in 3.53\u00a0oz'],
  ['2 minutes, 3 grams of it', '2 minutes, 3 grams of it'],
])('%s', (metric, words) => {
  expect(inMakersUnits(metric, INCHES)).toBe(words);
  expect(inMakersUnits(metric, METRIC)).toBe(metric);
});

test('each unit goes by its own: inches with grams leave the grams', () =>
  expect(inMakersUnits('5 g on 25.4 mm', { ...METRIC, length: 'in' })).toBe('5 g on 1″'));
