import { currentPours } from '../pours';
import { openDataFile } from '../dataFile';
import { stockShelf } from '../defaults';
import { heronSlackAmounts, loadHeronSlack } from './heronSlack';

const TUESDAY = '2026-12-01T10:00';
/** Another season and weekday, in the hour that the clocks skip. */
const SUNDAY = '2027-03-28T02:30';

describe('the sample as the build plans it', () => {
  const { db } = openDataFile(':memory:');
  stockShelf(db, TUESDAY);
  const amounts = heronSlackAmounts(db, TUESDAY);

  test('its amounts are those of any day', () => {
    expect(Object.keys(amounts)).toEqual(['hs-batch-1', 'hs-batch-2']);
    expect(heronSlackAmounts(db, SUNDAY)).toEqual(amounts);
  });
  test('kept in a file and taken from there, it is the sample that is planned on the spot', () => {
    const [kept, planned] = [openDataFile(':memory:').db, openDataFile(':memory:').db];
    for (const each of [kept, planned]) stockShelf(each, SUNDAY);
    loadHeronSlack(kept, SUNDAY, JSON.parse(JSON.stringify(amounts)) as typeof amounts);
    loadHeronSlack(planned, SUNDAY);
    for (const batchId of Object.keys(amounts)) {
      expect(currentPours(kept, batchId).length).toBeGreaterThan(0);
      expect(currentPours(kept, batchId)).toEqual(currentPours(planned, batchId));
    }
  });
});
