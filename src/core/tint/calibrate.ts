import type { LinearRgb } from './colour';
import { deltaE } from './difference';
import { downhill } from './downhill';
import { layerFlux, seenThrough } from './twoFlux';
import { CHANNELS, CLARITY_OPTICS, type Optics } from './waterTint';
import type { Clarity } from '../model/tintSchema';

/** A test pour of one colourant: how much in 100 g, how deep, over which ground, and the colour that it came to. Linear light. */
export interface MeasuredSwatch {
  gramsPer100: number;
  depthMm: number;
  ground: LinearRgb;
  seen: LinearRgb;
}

/** What swatches say of a colourant, per mm and gram in 100 g, and how well each of them agrees. */
export interface Calibration extends Optics {
  /** CIEDE2000 between each swatch and what the fit says of it. */
  residuals: number[];
  /** Whether the scattering was fitted; without a dark ground it cannot be told from a weaker absorption. */
  cloudy: boolean;
}

/** A ground that throws back less than this shows what water scatters. */
const DARK_GROUND = 0.1;
/** Below this per mm and gram nothing is swallowed or thrown back that anyone could see. */
const LEAST = 1e-5;

/**
 * Absorption and scattering of a colourant from test pours, channel by channel: least squares of the cube roots of the
 * reflectances (steps of lightness, near enough), two unknowns found downhill from several starts. Scattering is fitted only where
 * some swatch lies over a dark ground. Grounds count as they are seen, so the wetting of paper is in them.
 * Throws a RangeError without a swatch that holds colourant and has depth.
 */
export function calibrate(swatches: readonly MeasuredSwatch[], clarity: Clarity = 'water-clear'): Calibration {
  if (!swatches.some(({ gramsPer100, depthMm }) => gramsPer100 > 0 && depthMm > 0))
    throw new RangeError('A calibration needs a swatch with colourant in it, and some depth');
  const cloudy = swatches.some(
    ({ ground }) => 0.2126 * ground.red + 0.7152 * ground.green + 0.0722 * ground.blue < DARK_GROUND,
  );
  const own = CLARITY_OPTICS[clarity];
  const optics: Optics = { absorption: { red: 0, green: 0, blue: 0 }, scattering: { red: 0, green: 0, blue: 0 } };
  for (const channel of CHANNELS) {
    const seenAs = (absorption: number, scattering: number, { gramsPer100, depthMm, ground }: MeasuredSwatch): number =>
      seenThrough(
        layerFlux(
          own.absorption[channel] + absorption * gramsPer100,
          own.scattering[channel] + scattering * gramsPer100,
          depthMm,
        ),
        ground[channel],
      );
    const misfit = ([logK = 0, logS]: readonly number[]): number => {
      const [absorption, scattering] = [Math.exp(logK), logS === undefined ? 0 : Math.exp(logS)];
      return swatches.reduce((sum, swatch) => {
        const off = Math.cbrt(seenAs(absorption, scattering, swatch)) - Math.cbrt(Math.max(0, swatch.seen[channel]));
        return sum + off * off;
      }, 0);
    };
    const starts = cloudy
      ? [-4, -1, 1].flatMap((logK) => [-6, -2, 0].map((logS) => [logK, logS]))
      : [[-6], [-3], [-1], [1]];
    const { at } = starts
      .map((start) => downhill(misfit, start, 0.8, { steps: 200, within: 1e-12 }))
      .reduce((a, b) => (b.value < a.value ? b : a));
    const real = (log: number | undefined): number => (log === undefined || Math.exp(log) < LEAST ? 0 : Math.exp(log));
    optics.absorption[channel] = real(at[0]);
    optics.scattering[channel] = real(at[1]);
  }
  return {
    ...optics,
    cloudy,
    residuals: swatches.map(({ gramsPer100, depthMm, ground, seen }) =>
      deltaE(seen, {
        red: expected('red', gramsPer100, depthMm, ground),
        green: expected('green', gramsPer100, depthMm, ground),
        blue: expected('blue', gramsPer100, depthMm, ground),
      }),
    ),
  };
  function expected(channel: 'red' | 'green' | 'blue', grams: number, depthMm: number, ground: LinearRgb): number {
    return seenThrough(
      layerFlux(
        own.absorption[channel] + optics.absorption[channel] * grams,
        own.scattering[channel] + optics.scattering[channel] * grams,
        depthMm,
      ),
      ground[channel],
    );
  }
}
