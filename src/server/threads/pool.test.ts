import { CLEAR_TINT } from '@/core/tint/waterTint';
import { testDesign } from '@/core/bed/testShapes';
import { newFeature } from '@/core/bed/starters';
import { makePictureBed } from '@/core/picture/bedPicture';
import { stripPieces } from '@/core/picture/strip';
import { inTime } from '../figures';
import { closePool, compute, warmPool } from './pool';

const designs = [{ id: 'a', data: testDesign([newFeature('channel', testDesign())]) }];
const asked = { designs, levelMm: 15, tint: CLEAR_TINT, options: { samples: 31, colours: 3 } };

afterAll(closePool);

describe('threads', () => {
  test('answer what the same core answers here', async () => {
    warmPool();
    expect(await compute('strip', asked)).toEqual(
      JSON.parse(JSON.stringify(stripPieces(designs, 15, CLEAR_TINT, makePictureBed, asked.options))),
    );
  });
  test('leave this one free meanwhile', async () => {
    // A bed of its own that no thread has built yet: it takes a while.
    const board = testDesign([newFeature('channel', testDesign())], {
      outline: { kind: 'rectangle', widthMm: 590, lengthMm: 580 },
    });
    let ticks = 0;
    const clock = setInterval(() => ticks++, 1);
    const boards = [0, 1, 2, 3].map((i) => ({ id: `b${i}`, data: { ...board, landMm: 19 + i } }));
    await compute('strip', { ...asked, designs: boards });
    clearInterval(clock);
    expect(ticks).toBeGreaterThan(2);
  });
  test('tell what cannot be worked out, and go on', async () => {
    const broken = { ...asked, designs: [{ id: 'a', data: null as never }] };
    await expect(compute('strip', broken)).rejects.toThrow();
    expect(await compute('strip', asked)).toHaveLength(1);
  });
  test('are there again after they were ended', async () => {
    await closePool();
    expect(await compute('strip', asked)).toHaveLength(1);
  });
});

describe('what is waited for', () => {
  test('comes itself when it is there in time, else as a promise of it', async () => {
    expect(await inTime(Promise.resolve(7))).toBe(7);
    let ready: (value: number) => void = () => undefined;
    const late = await inTime(new Promise<number>((resolve) => (ready = resolve)));
    expect(late).toHaveProperty('later');
    ready(8);
    expect(await (late as { later: Promise<number> }).later).toBe(8);
  });
  test('that fails in time fails', () => expect(inTime(Promise.reject(new Error('no')))).rejects.toThrow('no'));
});
