import fc from 'fast-check';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { cureTimes } from './cureLine';
import { temperatureFactor } from './temperature';

const kind = (name: string): (typeof PRODUCT_KINDS)[number] => PRODUCT_KINDS.find((product) => product.name === name)!;

describe('temperature', () => {
  test('nothing changes at the reference', () => expect(temperatureFactor(23, 23)).toBe(1));
  test('10 °C colder is about twice as long', () => expect(temperatureFactor(13, 23)).toBeCloseTo(2.184, 2));
  test('there and back is 1', () =>
    fc.assert(
      fc.property(fc.double({ min: 5, max: 40, noNaN: true }), (t) =>
        expect(temperatureFactor(t, 20) * temperatureFactor(20, t)).toBeCloseTo(1, 10),
      ),
    ));
});

describe('cure lines', () => {
  test('two-part times all stretch by the same factor', () => {
    const times = cureTimes(kind('Coating epoxy'), { temperatureC: 13, humidity: 0.5 }, 4);
    expect(times.recoatOpens / (4 * 60)).toBeCloseTo(times.factor);
    expect(times.fullCure / (72 * 60)).toBeCloseTo(times.factor);
    expect(times.recoatCloses! / times.recoatOpens).toBeCloseTo(4);
  });
  test('a water-borne layer twice as thick takes four times as long, and longer in damp air', () => {
    const gel = kind('Water-borne gel');
    const at = (wet: number, humidity: number): number =>
      cureTimes(gel, { temperatureC: 23, humidity }, wet).recoatOpens;
    expect(at(2, 0.5)).toBeCloseTo(1440);
    expect(at(1, 0.5) * 4).toBeCloseTo(at(2, 0.5));
    expect(at(2, 0.75)).toBeCloseTo(2880);
    expect(cureTimes(gel, { temperatureC: 23, humidity: 0.5 }, 1).recoatCloses).toBeNull();
  });
  test('a lamp does not mind the room', () =>
    expect(cureTimes(kind('Light-cured resin'), { temperatureC: 12, humidity: 0.9 }, 2).factor).toBe(1));
});
