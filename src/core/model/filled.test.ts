import { z } from 'zod';
import { RECORD_SCHEMAS } from '../records/recordSchemas';
import { GIVEN, filledRecord } from '../records/testRecords';
import { mapReferences, namesIn, reference, referencesIn } from './reference';
import { filled } from './testFilled';

test.each(Object.keys(RECORD_SCHEMAS) as (keyof typeof RECORD_SCHEMAS)[])(
  'every field of a %s is filled, and that is one',
  (kind) => {
    const value = filled(RECORD_SCHEMAS[kind], GIVEN[kind]);
    expect(RECORD_SCHEMAS[kind].safeParse(value).error?.issues).toBeUndefined();
    expect(filledRecord(kind)).toEqual(RECORD_SCHEMAS[kind].parse(value));
  },
);

describe('references', () => {
  const schema = z.object({
    productId: reference('product', 'refused'),
    items: z.array(z.object({ designId: reference('design', 'dropped'), copies: z.number() })).optional(),
    own: z.record(reference('colourant'), z.number()).nullable(),
    note: z.string(),
  });
  const value = {
    productId: 'p',
    note: 'p',
    own: { ink: 1 },
    items: [
      { designId: 'a', copies: 1 },
      { designId: 'b', copies: 2 },
    ],
  };
  test('are found where the schema declares them, and nowhere else', () => {
    expect(
      referencesIn(schema, value)
        .map(({ to, id, path }) => `${to} ${id} ${path.join('.')}`)
        .sort(),
    ).toEqual([
      'colourant ink own.ink',
      'design a items.0.designId',
      'design b items.1.designId',
      'product p productId',
    ]);
    expect(
      namesIn(schema)
        .map(({ to, whenGone }) => `${to} ${whenGone}`)
        .sort(),
    ).toEqual(['colourant stays', 'design dropped', 'product refused']);
  });
  test('are renewed, keys of records too; an entry whose name goes is left out of its list', () => {
    expect(mapReferences(schema, value, (id) => `${id}-2`)).toEqual({
      productId: 'p-2',
      note: 'p',
      own: { 'ink-2': 1 },
      items: [
        { designId: 'a-2', copies: 1 },
        { designId: 'b-2', copies: 2 },
      ],
    });
    const { items } = mapReferences(schema, value, (id, { whenGone }) =>
      whenGone === 'dropped' && id === 'a' ? null : id,
    );
    expect(items).toEqual([{ designId: 'b', copies: 2 }]);
  });
});
