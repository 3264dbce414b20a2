import fc from 'fast-check';
import { endlessReflectance, layerFlux, seenThrough, stacked } from './twoFlux';

const per = fc.double({ min: 1e-12, max: 50, noNaN: true });
const mm = fc.double({ min: 0, max: 40, noNaN: true });
const share = fc.double({ min: 0, max: 0.98, noNaN: true });

/** The textbook form, where its hyperbolic functions can still be worked out. */
function byHyperbolas(K: number, S: number, X: number, ground: number): number {
  const a = (S + K) / S;
  const b = Math.sqrt(a * a - 1);
  const coth = 1 / Math.tanh(b * S * X);
  return (1 - ground * (a - b * coth)) / (a - ground + b * coth);
}

describe('two-flux layers', () => {
  test('agree with the hyperbolic form where that can be worked out', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        fc.double({ min: 0.01, max: 3, noNaN: true }),
        fc.double({ min: 0.05, max: 6, noNaN: true }),
        share,
        (K, S, X, ground) =>
          expect(seenThrough(layerFlux(K, S, X), ground)).toBeCloseTo(byHyperbolas(K, S, X, ground), 9),
      ),
    );
  });
  test('without scattering it is Rg·exp(−2KX)', () => {
    fc.assert(
      fc.property(per, mm, share, (K, X, ground) => {
        const exact = ground * Math.exp(-2 * K * X);
        expect(seenThrough(layerFlux(K, 0, X), ground)).toBeCloseTo(exact, 12);
        expect(seenThrough(layerFlux(K, 1e-13, X), ground)).toBeCloseTo(exact, 9);
      }),
    );
  });
  test('without absorption it is SX/(1 + SX) over black, and loses nothing', () => {
    fc.assert(
      fc.property(per, mm, (S, X) => {
        const { reflects, passes } = layerFlux(0, S, X);
        expect(reflects).toBeCloseTo((S * X) / (1 + S * X), 9);
        expect(reflects + passes).toBeCloseTo(1, 9);
      }),
    );
  });
  test('without end it is R∞ over black and over white', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.001, max: 5, noNaN: true }),
        fc.double({ min: 0.001, max: 5, noNaN: true }),
        (K, S) => {
          const endless = endlessReflectance(K, S);
          const ratio = K / S;
          expect(endless).toBeCloseTo(1 + ratio - Math.sqrt(ratio * ratio + 2 * ratio), 7);
          for (const ground of [0, 0.97]) expect(seenThrough(layerFlux(K, S, 1e7), ground)).toBeCloseTo(endless, 6);
        },
      ),
    );
  });
  test('two halves are one whole', () => {
    fc.assert(
      fc.property(per, per, mm, (K, S, X) => {
        const whole = layerFlux(K, S, X);
        const half = layerFlux(K, S, X / 2);
        const both = stacked(half, half);
        expect(both.reflects).toBeCloseTo(whole.reflects, 9);
        expect(both.passes).toBeCloseTo(whole.passes, 9);
      }),
    );
  });
  test('stacked layers over a ground are the upper seen over what the lower shows', () => {
    fc.assert(
      fc.property(per, per, per, per, mm, mm, share, (K1, S1, K2, S2, X1, X2, ground) => {
        const [top, under] = [layerFlux(K1, S1, X1), layerFlux(K2, S2, X2)];
        expect(seenThrough(stacked(top, under), ground)).toBeCloseTo(seenThrough(top, seenThrough(under, ground)), 9);
      }),
    );
  });
  test('the order of two layers matters when one scatters, and not when neither does', () => {
    const [milk, dark] = [layerFlux(0.01, 0.6, 2), layerFlux(0.5, 0, 2)];
    expect(seenThrough(stacked(milk, dark), 0.4)).toBeGreaterThan(seenThrough(stacked(dark, milk), 0.4) + 0.2);
    const [a, b] = [layerFlux(0.2, 0, 3), layerFlux(0.7, 0, 1)];
    expect(seenThrough(stacked(a, b), 0.4)).toBeCloseTo(seenThrough(stacked(b, a), 0.4), 14);
  });
  test('stays between nothing and all for tiny and huge figures', () => {
    for (const K of [0, 1e-300, 1e-15, 1, 1e6])
      for (const S of [0, 1e-300, 1e-15, 1, 1e6])
        for (const X of [0, 1e-300, 1e-9, 1, 1e6]) {
          const { reflects, passes } = layerFlux(K, S, X);
          for (const value of [reflects, passes, seenThrough({ reflects, passes }, 0.5)]) {
            expect(value).toBeGreaterThanOrEqual(0);
            expect(value).toBeLessThanOrEqual(1 + 1e-12);
          }
        }
  });
});
