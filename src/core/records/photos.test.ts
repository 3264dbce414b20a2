import { newestPhoto, photosIn, photosOf, withPhoto } from './photos';
import type { Batch, Photo } from './recordSchemas';

const batch: Batch = {
  name: 'Tiles',
  items: [{ designId: 'd', copies: 3 }],
  pourAt: '2026-11-28T10:00',
  benchWindows: null,
};
const one = { designId: 'd', copy: 1 };
const two = { designId: 'd', copy: 2 };
const photo = (letter: string, at = '2026-12-01T19:00'): Photo => ({
  photo: letter.repeat(64),
  at,
  width: 4,
  height: 3,
});

test('a photo stands once with each copy that it shows, and goes from those that are named', () => {
  const both = withPhoto(batch, [one, two], photo('a'), true);
  expect(photosOf(both, one)).toEqual([{ ...one, ...photo('a') }]);
  expect(withPhoto(both, [one], photo('a'), true).photos).toHaveLength(2);
  const more = withPhoto(both, [one], photo('b'), true);
  expect(photosOf(more, one).map(({ photo: id }) => id[0])).toEqual(['a', 'b']);
  expect(photosIn([{ data: more }, { data: both }, { data: batch }]).map((id) => id[0])).toEqual(['a', 'b']);
  const less = withPhoto(more, [one], photo('a'), false);
  expect(photosOf(less, one).map(({ photo: id }) => id[0])).toEqual(['b']);
  expect(photosOf(less, two)).toHaveLength(1);
  expect(withPhoto(withPhoto(batch, [one], photo('a'), true), [one], photo('a'), false)).toEqual(batch);
});

test('the newest photo of some copies, whatever batch it is in', () => {
  const first = withPhoto(batch, [one], photo('a', '2026-12-03T10:00'), true);
  const second = withPhoto(batch, [two], photo('b', '2026-12-02T10:00'), true);
  const all = [{ data: first }, { data: second }];
  expect(newestPhoto(all, [one, two])?.photo[0]).toBe('a');
  expect(newestPhoto(all, [two])?.photo[0]).toBe('b');
  expect(newestPhoto(all, [{ designId: 'd', copy: 3 }])).toBeNull();
});
