import { testDesign, testPiece } from '@/core/bed/testShapes';
import { newFeature } from '@/core/bed/starters';
import { planAmounts, type AmountsRequest } from '@/core/plan';
import { testRequest } from '@/core/plan/testRequest';
import { amountsOnThreads } from './bedThreads';
import { closePool } from './pool';

afterAll(closePool);

const request = (depths: readonly number[]): AmountsRequest =>
  testRequest({
    pieces: depths.map((depthMm, i) => ({
      ...testPiece([{ ...newFeature('channel', testDesign()), depthMm }], { tag: `T-${i}`, copies: i + 1 }),
      designId: `d${i}`,
    })),
  });
/** As it comes out of a thread: without what is undefined. */
const sent = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

describe('beds in several threads', () => {
  test('give the amounts that the core gives in one', async () => {
    // The deepest bed makes the layers of all, in whichever thread it lies.
    const asked = request([3, 9, 4.5, 6, 2]);
    expect(sent(await amountsOnThreads(asked))).toEqual(sent(planAmounts(asked)));
  });
  test('give them again when other pieces are asked for with them', async () => {
    for (const depths of [[9], [2, 3], [12, 9, 2], []]) {
      const asked = request(depths);
      expect(sent(await amountsOnThreads(asked))).toEqual(sent(planAmounts(asked)));
    }
  });
  test('tell what cannot be worked out, and go on', async () => {
    const asked = request([3, 5]);
    await expect(amountsOnThreads({ ...asked, product: null as never })).rejects.toThrow();
    expect((await amountsOnThreads(asked)).totals.pieces).toBe(3);
  });
});
