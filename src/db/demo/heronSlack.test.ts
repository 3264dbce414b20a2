import { cleanJpeg } from '@/core/formats/jpegFile';
import { listDocuments } from '../documents';
import { currentPours } from '../pours';
import { redo, undo } from '../journal';
import { openDataFile } from '../dataFile';
import { stockShelf } from '../defaults';
import { listLots } from '../stock';
import { logWeeks } from '../workshopLog';
import { loadHeronSlack, plannedSample } from './heronSlack';
import PHOTOS from './otterCutPhotos.json';

const TUESDAY = '2026-12-01T10:00';
/** Another season and weekday, in the hour that the clocks skip. */
const SUNDAY = '2027-03-28T02:30';
const HERE = ['hs-batch-1', 'hs-batch-2'];

describe('the sample as the build plans it', () => {
  const { db } = openDataFile(':memory:');
  stockShelf(db, TUESDAY);
  const amounts = plannedSample(db, TUESDAY);
  const [kept, planned] = [openDataFile(':memory:').db, openDataFile(':memory:').db];
  for (const each of [kept, planned]) stockShelf(each, SUNDAY);
  loadHeronSlack(kept, SUNDAY, JSON.parse(JSON.stringify(amounts)) as typeof amounts);
  loadHeronSlack(planned, SUNDAY);

  test('its amounts are those of any day', () => {
    expect(Object.keys(amounts)).toEqual(expect.arrayContaining([...HERE, 'oc-batch-1', 'oc-batch-13']));
    expect(plannedSample(db, SUNDAY)).toEqual(amounts);
  });
  test('kept in a file and taken from there, it is the sample that is planned on the spot', () => {
    for (const batchId of HERE) {
      expect(currentPours(kept, batchId).length).toBeGreaterThan(0);
      expect(currentPours(kept, batchId)).toEqual(currentPours(planned, batchId));
    }
  });
  test('with it comes the year behind it, put away; without, the set alone', () => {
    const sets = (of: typeof kept) =>
      listDocuments(of, 'set').records.map(({ id, data }) => [id, data.putAway ?? false]);
    expect(sets(planned)).toEqual([['heron-slack', false]]);
    expect(sets(kept)).toEqual([
      ['otter-cut', true],
      ['heron-slack', false],
    ]);
    expect(logWeeks(kept).length).toBeGreaterThan(12);
  });
  test('what the year took was in its drums: nothing had to be found', () => {
    const found = kept.$client.prepare("select count(*) from movements where kind = 'found' and batch_id like 'oc-%'");
    expect(found.pluck().get()).toBe(0);
    const drums = listLots(kept).filter(({ id }) => id.startsWith('oc-'));
    expect(drums.map(({ data }) => data.openedOn! >= data.boughtOn)).toEqual([true, true, true, true]);
    // They are empty by now: what is poured of that product comes out of bottles of one’s own.
    expect(drums.flatMap(({ left }) => left.map(({ amount }) => amount))).toEqual(Array(8).fill(0));
  });
  test('with its year it can be taken back whole, and brought back', () => {
    const before = logWeeks(kept);
    undo(kept, 'sets', SUNDAY);
    expect([listDocuments(kept, 'set').records, listDocuments(kept, 'note').records, logWeeks(kept)]).toEqual([
      [],
      [],
      [],
    ]);
    redo(kept, 'sets', SUNDAY);
    expect(logWeeks(kept)).toEqual(before);
  });
});

test('the photos of the year hold the picture alone: no profile, no place, no maker of a camera', () => {
  for (const lines of PHOTOS.jpegs) {
    const bytes = Buffer.from(lines.join(''), 'base64');
    const { bytes: clean, ...size } = cleanJpeg(bytes);
    expect(Buffer.from(clean).equals(bytes)).toBe(true);
    expect(size).toMatchObject({ width: PHOTOS.width, height: PHOTOS.height });
  }
});
