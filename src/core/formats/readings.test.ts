import fc from 'fast-check';
import { METRIC, type UnitPreferences } from '../units/formatMeasure';
import { edgeReadingsText, parseEdgeReadings, parseReadings, readingsText } from './readings';

const INCHES: UnitPreferences = { ...METRIC, length: 'in' };
const first = (text: string, prefs = METRIC): number[] => Object.values(parseReadings(text, prefs).readings[0] ?? {});

describe('readings as makers have them', () => {
  test.each<[string, number[]]>([
    ['70, 68, 9.9', [70, 68, 9.9]],
    ['70 68 9.9', [70, 68, 9.9]],
    ['70\t68\t9.9', [70, 68, 9.9]],
    ['70;68;9,9', [70, 68, 9.9]],
    ['7 cm, 68 mm, 9.9', [70, 68, 9.9]],
    ['x,y,depth\n70,68,9.9', [70, 68, 9.9]],
    ['"70","68","9.9"', [70, 68, 9.9]],
    ['70, 68, -1.5', [70, 68, -1.5]],
    ['70 68 −1.5', [70, 68, -1.5]],
    ['\n\n 70 , 68 , 9.9 \n', [70, 68, 9.9]],
  ])('%s', (text, values) => {
    expect(parseReadings(text, METRIC).errors).toEqual([]);
    first(text).forEach((value, i) => expect(value).toBeCloseTo(values[i]!, 9));
  });
  test('bare figures are in the maker’s own unit', () =>
    first('2 3/4", 2.5, 3/8', INCHES).forEach((value, i) => expect(value).toBeCloseTo([69.85, 63.5, 9.525][i]!, 6)));
  test.each<[string, string]>([
    ['70, 68', 'there are 2'],
    ['70, 68, deep', '“deep” is not understood'],
    ['-5, 68, 9', 'Outside the piece'],
    ['1, 2, 900', 'At most 200 mm deep'],
    ['1, 2, 3, 4', 'there are 4'],
  ])('%s is explained with its line', (text, message) => {
    const { errors } = parseReadings(`70, 68, 9.9\n${text}`, METRIC);
    expect(errors[0]).toMatchObject({ line: 2 });
    expect(errors[0]!.message).toContain(message);
  });
  test('what is shown reads back', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            xMm: fc.integer({ min: 0, max: 500 }),
            yMm: fc.integer({ min: 0, max: 500 }),
            depthMm: fc.integer({ min: -9, max: 90 }),
          }),
          { maxLength: 20 },
        ),
        (readings) => {
          expect(parseReadings(readingsText(readings, METRIC), METRIC)).toEqual({ readings, errors: [] });
        },
      ),
    );
  });
});

test('heights along an edge: two figures a line, from its west or south end', () => {
  expect(parseEdgeReadings('along, height\n20, 18\n60; 9.5\n70 9', METRIC, 140)).toEqual({
    readings: [
      { atMm: 20, heightMm: 18 },
      { atMm: 60, heightMm: 9.5 },
      { atMm: 70, heightMm: 9 },
    ],
    errors: [],
  });
  expect(parseEdgeReadings('150, 9', METRIC, 140).errors[0]!.message).toMatch(
    /past the end of the edge, which is 140\.0 mm/,
  );
  expect(parseEdgeReadings('20, 9, 7', METRIC, 140).errors[0]!.message).toMatch(
    /two figures are wanted, along and height; there are 3/,
  );
  expect(parseEdgeReadings('1 in, 3/8 in', METRIC, 140).readings[0]).toEqual({
    atMm: 25.4,
    heightMm: expect.closeTo(9.525, 9) as number,
  });
  const bed = [
    { atMm: 12.5, heightMm: 9 },
    { atMm: 80, heightMm: 10.2 },
  ];
  expect(parseEdgeReadings(edgeReadingsText(bed, METRIC), METRIC, 140).readings).toEqual(bed);
});
