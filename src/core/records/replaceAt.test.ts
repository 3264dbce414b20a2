import { z } from 'zod';
import { complaintAt, complaintsByField, replaceAt } from './replaceAt';

const schema = z.object({
  name: z.string().min(1, 'Give it a name'),
  rows: z.array(z.object({ mm: z.number().max(10, 'At most 10') })),
});
const data = { name: 'Creek', rows: [{ mm: 1 }, { mm: 2 }] };

test('one value is replaced, all else is shared, and nothing is changed in place', () => {
  const next = replaceAt(data, ['rows', 1, 'mm'], 5);
  expect(next).toEqual({ name: 'Creek', rows: [{ mm: 1 }, { mm: 5 }] });
  expect([next.rows[0] === data.rows[0], data.rows[1]!.mm]).toEqual([true, 2]);
  expect(replaceAt(data, [], { name: 'x', rows: [] })).toEqual({ name: 'x', rows: [] });
});
test('a place that is not there yet is made', () =>
  expect(replaceAt<object>({}, ['a', 'b'], 1)).toEqual({ a: { b: 1 } }));
test('a value is asked about at its own field; what is wrong elsewhere is not told there', () => {
  expect(complaintAt(schema, data, ['rows', 0, 'mm'], 11)).toBe('At most 10');
  expect(complaintAt(schema, data, ['rows', 0, 'mm'], 9)).toBeNull();
  expect(complaintAt(schema, { ...data, name: '' }, ['rows', 0, 'mm'], 9)).toBeNull();
  expect(complaintAt(schema, data, ['rows'], [{ mm: 3 }, { mm: 30 }])).toBe('At most 10');
});
test('of many complaints the first of each field counts', () => {
  const twice = z.object({ a: z.string().min(5, 'Too short').regex(/^x/, 'Begins with x'), b: z.number() });
  expect(complaintsByField(twice.safeParse({ a: 'ab', b: 'no' }).error!)).toMatchObject({
    a: 'Too short',
    b: expect.any(String) as unknown,
  });
});
