import { resized } from './resize';
import type { Feature } from '../model/designSchema';
import { testDesign } from './testShapes';

const channel: Feature = {
  kind: 'channel',
  id: 'c',
  from: { edge: 'south', positionMm: 35 },
  to: { edge: 'east', positionMm: 70 },
  widthMm: 40,
  depthMm: 5,
  section: 'trapezoid',
  bankSlope: 1,
  via: [{ xMm: 70, yMm: 28, widthMm: null, depthMm: null }],
};
const rock: Feature = { kind: 'rock', id: 'r', xMm: 14, yMm: 126, diameterMm: 20, heightMm: 8, form: 'dome' };
const wide = { kind: 'rectangle', widthMm: 280, lengthMm: 70 } as const;

describe('a new size', () => {
  const design = testDesign([channel, rock], { poolLevels: [{ xMm: 70, yMm: 70, levelMm: 16 }] });
  const next = resized(design, wide);
  test('takes ports along to the same share of their edge', () =>
    expect(next.features[0]).toMatchObject({
      from: { edge: 'south', positionMm: 70 },
      to: { edge: 'east', positionMm: 35 },
    }));
  test('takes points, solids and level marks along to the same share of the piece', () => {
    expect(next.features[0]).toMatchObject({ via: [{ xMm: 140, yMm: 14 }] });
    expect(next.features[1]).toMatchObject({ xMm: 28, yMm: 63 });
    expect(next.poolLevels).toEqual([{ xMm: 140, yMm: 35, levelMm: 16 }]);
  });
  test('leaves widths, depths and diameters as they are', () => {
    expect(next.features[0]).toMatchObject({ widthMm: 40, depthMm: 5 });
    expect(next.features[1]).toMatchObject({ diameterMm: 20, heightMm: 8 });
  });
  test('there and back is where it was', () => expect(resized(next, design.outline)).toEqual(design));
  test('a shore’s own line keeps its share along the shore and off it', () => {
    const shore: Feature = {
      kind: 'shore',
      id: 's',
      landSide: 'north',
      waterlineMm: 60,
      slope: 5,
      depthMm: 4,
      line: [{ alongMm: 70, offMm: 40 }],
    };
    const moved = resized(testDesign([shore]), { kind: 'rectangle', widthMm: 280, lengthMm: 280 });
    expect(moved.features[0]).toMatchObject({ line: [{ alongMm: 140, offMm: 80 }], waterlineMm: 60 });
  });
});
