import { pourRecordSchema } from './recordSchemas';

const cup = (number: number): object => ({ number, partAGrams: 30, partBGrams: 26, note: '' });
const poured = (...numbers: number[]): object => ({
  layer: 1,
  pouredAt: '2026-11-28T10:00',
  temperatureC: 20,
  note: '',
  cups: numbers.map(cup),
});

test('a cup stands once in a layer that was poured; the same twice is refused at the cups', () => {
  expect(pourRecordSchema.safeParse(poured(1, 2)).success).toBe(true);
  const { error } = pourRecordSchema.safeParse(poured(1, 2, 1));
  expect(error!.issues).toMatchObject([{ path: ['cups'], message: 'A cup stands once in a layer' }]);
});
