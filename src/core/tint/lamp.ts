import { hexFromLinear, linearFromHex } from './colour';

/** By which light water is looked at. */
export const LIGHTS = ['daylight', 'warm lamp', 'warm lamp, raw'] as const;
export type Light = (typeof LIGHTS)[number];

/** The light of a filament lamp of about 2700 K against daylight, linear, its green as it was: what a camera set to daylight sees. */
const RAW = { red: 1.62, green: 1, blue: 0.4 };
/** The eye takes most of that out again; this much of it is left once it has grown used to the lamp. */
const LEFT = 0.18;

/** Factors for each channel in a light. */
export function lightFactors(light: Light): { red: number; green: number; blue: number } {
  const share = light === 'daylight' ? 0 : light === 'warm lamp' ? LEFT : 1;
  const of = (factor: number): number => factor ** share;
  return { red: of(RAW.red), green: of(RAW.green), blue: of(RAW.blue) };
}

/** A colour of daylight as it looks in another light; what is brighter than the screen stays at its brightest. An estimate. */
export function inLight(hex: string, light: Light): string {
  if (light === 'daylight') return hex;
  const { red, green, blue } = linearFromHex(hex);
  const factors = lightFactors(light);
  return hexFromLinear({
    red: Math.min(1, red * factors.red),
    green: Math.min(1, green * factors.green),
    blue: Math.min(1, blue * factors.blue),
  });
}
