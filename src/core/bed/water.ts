import { surfaceMm2, volumeMl, type VolumeCurve } from './volumeCurve';

/** The water of one piece at a level. Depths are 0 when the bed is dry. */
export interface WaterFigures {
  volumeMl: number;
  surfaceCm2: number;
  greatestDepthMm: number;
  meanDepthMm: number;
}

/** Volume, surface and depths at a level. Assumes the water reaches every part of the bed that lies below it. */
export function waterAt(curve: VolumeCurve, levelMm: number): WaterFigures {
  const surface = surfaceMm2(curve, levelMm);
  const volume = volumeMl(curve, levelMm);
  return {
    volumeMl: volume,
    surfaceCm2: surface / 100,
    greatestDepthMm: Math.max(0, levelMm - curve.lowestMm),
    meanDepthMm: surface > 0 ? (volume * 1000) / surface : 0,
  };
}
