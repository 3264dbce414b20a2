import fc from 'fast-check';
import { METRIC, type UnitPreferences } from '../units/formatMeasure';
import { parseReadings, readingsText } from './readings';

const INCHES: UnitPreferences = { ...METRIC, length: 'in' };
const first = (text: string, prefs = METRIC): number[] => Object.values(parseReadings(text, prefs).readings[0] ?? {});

describe('readings as makers have them', () => {
  test.each<[string, number[]]>([
    ['70, 68, 9.9', [70, 68, 9.9]], ['70 68 9.9', [70, 68, 9.9]], ['70\t68\t9.9', [70, 68, 9.9]], ['70;68;9,9', [70, 68, 9.9]], ['7 cm, 68 mm, 9.9', [70, 68, 9.9]],
    ['x,y,depth\n70,68,9.9', [70, 68, 9.9]], ['"70","68","9.9"', [70, 68, 9.9]], ['70, 68, -1.5', [70, 68, -1.5]], ['70 68 −1.5', [70, 68, -1.5]], ['\n\n 70 , 68 , 9.9 \n', [70, 68, 9.9]],
  ])('%s', (text, values) => {
    expect(parseReadings(text, METRIC).errors).toEqual([]);
    first(text).forEach((value, i) => expect(value).toBeCloseTo(values[i]!, 9));
  });
  test('bare figures are in the maker’s own unit', () => first('2 3/4", 2.5, 3/8', INCHES).forEach((value, i) => expect(value).toBeCloseTo([69.85, 63.5, 9.525][i]!, 6)));
  test.each<[string, string]>([['70, 68', 'there are 2'], ['70, 68, deep', '“deep” is not understood'], ['-5, 68, 9', 'Outside the piece'], ['1, 2, 900', 'At most 200 mm deep'], ['1, 2, 3, 4', 'there are 4']])('%s is explained with its line', (text, message) => {
    const { errors } = parseReadings(`70, 68, 9.9\n${text}`, METRIC);
    expect(errors[0]).toMatchObject({ line: 2 });
    expect(errors[0]!.message).toContain(message);
  });
  test('what is shown reads back', () => {
    fc.assert(fc.property(fc.array(fc.record({ xMm: fc.integer({ min: 0, max: 500 }), yMm: fc.integer({ min: 0, max: 500 }), depthMm: fc.integer({ min: -9, max: 90 }) }), { maxLength: 20 }), (readings) => {
      expect(parseReadings(readingsText(readings, METRIC), METRIC)).toEqual({ readings, errors: [] });
    }));
  });
});
