import { cureModelSchema, type CureModelName } from '../model/productSchema';
import { bondOf, nothingOver } from './bonds';

test.each(cureModelSchema.options)('two parts hold on %s, once that is cured and abraded', (beneath) => {
  expect(bondOf('two-part', beneath).sure).toBe(true);
  expect(bondOf('two-part', beneath).words).toMatch(/cured.*abraded/);
});

test.each<[CureModelName, CureModelName, boolean]>([
  ['water-borne', 'two-part', true],
  ['lamp', 'two-part', true],
  ['lamp', 'water-borne', false],
  ['open-air', 'two-part', false],
  ['water-borne', 'open-air', false],
])('%s over %s', (top, beneath, sure) => {
  expect(bondOf(top, beneath).sure).toBe(sure);
  expect(/test piece/.test(bondOf(top, beneath).words)).toBe(!sure);
});

test('nothing goes over what is soft; over what is only ugly something may', () => {
  expect(nothingOver('tacky')).toMatch(/wait/);
  expect(nothingOver('soft beneath')).not.toBeNull();
  expect(nothingOver('bubbles')).toBeNull();
});
