import { CLEAR_TINT } from '../tint/waterTint';
import fc from 'fast-check';
import type { Feature } from '../model/designSchema';
import { newFeature } from '../bed/starters';
import { testDesign } from '../bed/testShapes';
import { makePictureBed } from './bedPicture';
import { packStrip, unpackStrip } from './packedStrip';
import { longHeights, shortHeights } from '../bed/shortHeights';
import { stripPieces } from './strip';

describe('heights as a short text', () => {
  test('are those of a staircase, spelt out', () => {
    expect(shortHeights([1.8, 1.8, 1.8, 0.3, 0.3], 0.1)).toBe('i 0*2 -f 0');
    expect(longHeights('i 0*2 -f 0', 0.1)).toEqual([1.8, 1.8, 1.8, 0.3, 0.3]);
    expect(longHeights(shortHeights([], 0.1), 0.1)).toEqual([]);
  });
  test('come back to half a tick, high and low, however many there are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -50, max: 2000, noNaN: true })),
        fc.constantFrom(0.1, 1 / 512, 0.001),
        (heights, tickMm) => {
          const back = longHeights(shortHeights(heights, tickMm), tickMm);
          expect(back).toHaveLength(heights.length);
          back.forEach((mm, i) => expect(Math.abs(mm - heights[i]!)).toBeLessThanOrEqual(tickMm / 2 + 1e-9));
        },
      ),
    );
  });
});

test('a strip that was packed is the same again, with a pool at its own level, an open edge and a rim', () => {
  const channel = newFeature('channel', testDesign());
  const designs = [
    testDesign([channel], { tag: 'A', copies: 4 }),
    testDesign([channel], { tag: 'B', poolLevels: [{ xMm: 70, yMm: 70, levelMm: 13.5 }] }),
    testDesign([channel], { tag: 'C', dams: { south: 'none', north: 'faced board' } }),
    testDesign([channel], { tag: 'D', outline: { kind: 'oval', widthMm: 60, lengthMm: 60 } }),
    testDesign([channel, { ...newFeature('rock', testDesign()), xMm: 70, yMm: 2, diameterMm: 12 } as Feature], {
      tag: 'E',
      rockColour: '#555555',
    }),
  ].map((data, i) => ({ id: `d${i}`, data }));
  const strip = stripPieces(designs, 15, CLEAR_TINT, makePictureBed);
  expect(strip.map(({ rocks }) => rocks.length)).toEqual([0, 0, 0, 0, 1]);
  expect(unpackStrip(packStrip(strip), designs, 15)).toEqual(strip);
  // A piece that is gone by the time it arrives is left out, and no other takes its place.
  expect(unpackStrip(packStrip(strip), designs.slice(1), 15)).toEqual(strip.slice(1));
  expect(packStrip([strip[0]!, strip[0]!]).looks).toHaveLength(1);
});
