import type { PieceDesign } from '../model/designSchema';
import { hexFromLinear, linearFromHex, type LinearRgb } from './colour';
import { layerFlux, seenThrough, type Flux } from './twoFlux';
import { type CHANNELS, pourDoses, tintOptics, type Optics, type WaterTint } from './waterTint';
import { EVEN_POUR } from '../model/tintSchema';

/** The colours of a piece's water from the surface down: `colours[i]` at depth `i·stepMm`, linear in between. */
export interface WaterLook {
  stepMm: number;
  colours: string[];
  /** The same over rocks, where they have a paint of their own. */
  rock?: string[];
}

const STEPS = 24;

/** A wet bed looks a little darker than a dry one even when the water is clear. */
export const WET = 0.93;

/** What one thickness of water does to each channel. */
export type FluxRgb = Record<(typeof CHANNELS)[number], Flux>;
export const layerRgb = ({ absorption, scattering }: Optics, mm: number): FluxRgb => ({
  red: layerFlux(absorption.red, scattering.red, mm),
  green: layerFlux(absorption.green, scattering.green, mm),
  blue: layerFlux(absorption.blue, scattering.blue, mm),
});
export const throughRgb = (flux: FluxRgb, bed: LinearRgb): LinearRgb => ({
  red: seenThrough(flux.red, bed.red),
  green: seenThrough(flux.green, bed.green),
  blue: seenThrough(flux.blue, bed.blue),
});

/** How thick each pour is over a place of some depth, from the surface down. */
function pouredOver(pours: NonNullable<WaterTint['pours']>, depthMm: number): number[] {
  let left = depthMm;
  return pours.map(({ thicknessMm }, i) => {
    const mm = i === pours.length - 1 || thicknessMm === null ? left : Math.min(left, thicknessMm);
    left -= mm;
    return mm;
  });
}

/**
 * The one predictor of colours: what is seen of a colour (a bed, or a detail on it; linear light) under water by its depth, from
 * straight above, in diffuse light. Two-flux layers of the recipe and the product itself, pour upon pour. An estimate: as good as
 * the calibration of its colourants.
 */
export function lightByDepth(bed: LinearRgb, tint: WaterTint): (depthMm: number) => LinearRgb {
  const wet = { red: bed.red * WET, green: bed.green * WET, blue: bed.blue * WET };
  const pours: NonNullable<WaterTint['pours']> = tint.pours?.length ? tint.pours : [EVEN_POUR];
  const optics = pours.map((pour) =>
    tintOptics({ clarity: pour.clarity ?? tint.clarity, doses: pourDoses(tint.doses, pour) }),
  );
  return (depthMm) =>
    // From the bed up: each pour is seen over what shows beneath it.
    pouredOver(pours, Math.max(0, depthMm)).reduceRight(
      (under, mm, i) => (mm > 0 ? throughRgb(layerRgb(optics[i]!, mm), under) : under),
      wet,
    );
}

/** The same as the screen colour `#rrggbb`. */
export function colourByDepth(bedColour: string, tint: WaterTint): (depthMm: number) => string {
  const light = lightByDepth(linearFromHex(bedColour), tint);
  return (depthMm) => hexFromLinear(light(depthMm));
}

/** How a bed is painted: one colour, or from the shore to the deep by depth. */
export type BedPaint = Pick<PieceDesign, 'bedColour' | 'shoreColour' | 'deepColour' | 'rockColour'>;

/**
 * The painted colour of a bed by depth, in linear light: the shore colour at the waterline, the bed colour half way down, the deep
 * colour at the deepest; where one of them is not painted the bed colour stands in.
 */
export function paintByDepth(
  { bedColour, shoreColour, deepColour }: BedPaint,
  deepestMm: number,
): (depthMm: number) => LinearRgb {
  const middle = linearFromHex(bedColour);
  const shore = shoreColour ? linearFromHex(shoreColour) : middle;
  const deep = deepColour ? linearFromHex(deepColour) : middle;
  return (depthMm) => {
    const share = deepestMm > 0 ? Math.min(1, Math.max(0, depthMm / deepestMm)) : 0;
    return share < 0.5 ? mixed(shore, middle, share * 2) : mixed(middle, deep, share * 2 - 1);
  };
}

const mixed = (from: LinearRgb, to: LinearRgb, share: number): LinearRgb => ({
  red: from.red + (to.red - from.red) * share,
  green: from.green + (to.green - from.green) * share,
  blue: from.blue + (to.blue - from.blue) * share,
});

/** The screen colour of the water over a painted bed, by depth. */
export function paintedByDepth(paint: BedPaint, tint: WaterTint, deepestMm: number): (depthMm: number) => string {
  const paintAt = paintByDepth(paint, deepestMm);
  const plain = paint.shoreColour || paint.deepColour ? null : lightByDepth(paintAt(0), tint);
  return (depthMm) => hexFromLinear((plain ?? lightByDepth(paintAt(depthMm), tint))(depthMm));
}

/** Colours of the water over one painted bed, seen from straight above, down to `deepestMm`. */
export function waterLook(paint: BedPaint, tint: WaterTint, deepestMm: number, steps = STEPS): WaterLook {
  const stepMm = Math.max(deepestMm, 0.1) / steps;
  const colourAt = paintedByDepth(paint, tint, deepestMm);
  const down = (at: (depthMm: number) => string): string[] =>
    Array.from({ length: steps + 1 }, (_, i) => at(i * stepMm));
  return {
    stepMm,
    colours: down(colourAt),
    ...(paint.rockColour && { rock: down(colourByDepth(paint.rockColour, tint)) }),
  };
}

/** The colour for a depth. */
export const lookAt = ({ stepMm, colours }: WaterLook, depthMm: number): string =>
  colours[Math.min(colours.length - 1, Math.max(0, Math.round(depthMm / stepMm)))]!;

/** A mix is told by a chip of this depth over white. */
const CHIP_MM = 4;
const CHIP_GROUND: LinearRgb = { red: 0.9, green: 0.9, blue: 0.9 };

/** The colour by which the eye tells a mix from others: a few millimetres of it over white. */
export const cupColour = (tint: WaterTint): string => hexFromLinear(lightByDepth(CHIP_GROUND, tint)(CHIP_MM));
