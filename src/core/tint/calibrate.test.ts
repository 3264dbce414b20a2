import { seeded } from '../chance/random';
import { calibrate, type MeasuredSwatch } from './calibrate';
import type { LinearRgb } from './colour';
import { deltaE } from './difference';
import { layerFlux, seenThrough } from './twoFlux';
import { CHANNELS, CLARITY_OPTICS } from './waterTint';

const WHITE: LinearRgb = { red: 0.86, green: 0.85, blue: 0.82 };
const BLACK: LinearRgb = { red: 0.03, green: 0.03, blue: 0.035 };
const own = CLARITY_OPTICS['water-clear'];

/** A swatch as it would come out, its colour off by up to `noise` of itself. */
function poured(
  K: LinearRgb,
  S: LinearRgb,
  gramsPer100: number,
  depthMm: number,
  ground: LinearRgb,
  noise = 0,
  random: () => number = () => 0.5,
): MeasuredSwatch {
  const seen = { red: 0, green: 0, blue: 0 };
  for (const channel of CHANNELS)
    seen[channel] =
      seenThrough(
        layerFlux(
          own.absorption[channel] + K[channel] * gramsPer100,
          own.scattering[channel] + S[channel] * gramsPer100,
          depthMm,
        ),
        ground[channel],
      ) *
      (1 + noise * (2 * random() - 1));
  return { gramsPer100, depthMm, ground, seen };
}
const NONE = { red: 0, green: 0, blue: 0 };
const LADDER = [0.05, 0.1, 0.2, 0.4];

test('clear colourants: absorption comes back from one clean swatch, and residuals are nothing', () => {
  const K = { red: 1.15, green: 0.32, blue: 0.72 };
  const { absorption, scattering, residuals, cloudy } = calibrate([poured(K, NONE, 0.1, 5, WHITE)]);
  for (const channel of CHANNELS) expect(absorption[channel]).toBeCloseTo(K[channel], 3);
  expect({ scattering, cloudy }).toEqual({ scattering: NONE, cloudy: false });
  expect(residuals[0]).toBeLessThan(0.01);
});

test('random colourants with 2 % of noise: absorption within 6 %, scattering within 10 %, from a ladder over white and black', () => {
  const random = seeded(5);
  for (let round = 0; round < 25; round++) {
    const some = (most: number): LinearRgb => ({
      red: most * (0.15 + random()),
      green: most * (0.15 + random()),
      blue: most * (0.15 + random()),
    });
    const [K, S] = [some(1.2), some(0.8)];
    const swatches = [WHITE, BLACK].flatMap((ground) =>
      LADDER.flatMap((grams) => [2, 5].map((mm) => poured(K, S, grams, mm, ground, 0.02, random))),
    );
    const fit = calibrate(swatches);
    expect(fit.cloudy).toBe(true);
    for (const channel of CHANNELS) {
      expect(Math.abs(fit.absorption[channel] / K[channel] - 1)).toBeLessThan(0.06);
      expect(Math.abs(fit.scattering[channel] / S[channel] - 1)).toBeLessThan(0.1);
    }
    // What is left is the noise itself, not a misfit.
    swatches.forEach(({ seen, ground, gramsPer100, depthMm }, i) => {
      const noise = deltaE(seen, poured(K, S, gramsPer100, depthMm, ground).seen);
      expect(Math.abs(fit.residuals[i]! - noise)).toBeLessThan(0.7);
    });
  }
});

test('one swatch that contradicts the others stands out by its residual', () => {
  const K = { red: 1.15, green: 0.32, blue: 0.72 };
  const swatches = LADDER.map((grams) => poured(K, NONE, grams, 4, WHITE));
  // Twice the dose was written down.
  swatches[1] = { ...swatches[1]!, gramsPer100: 0.2 };
  const { residuals } = calibrate(swatches);
  expect(residuals.indexOf(Math.max(...residuals))).toBe(1);
  expect(residuals[1]).toBeGreaterThan(3);
});

test('nothing to learn from is said', () => {
  expect(() => calibrate([])).toThrow(RangeError);
  expect(() => calibrate([poured(NONE, NONE, 0, 5, WHITE)])).toThrow('with colourant in it');
});
