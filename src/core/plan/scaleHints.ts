import type { Feature, PieceDesign } from '../model/designSchema';
import type { FIGURE_SCALES_MM } from './request';

export type FigureScaleMm = (typeof FIGURE_SCALES_MM)[number];

/** How many times smaller than life, by the height of a figure to its eyes. Customary pairs. */
export const SCALE_RATIO: Record<FigureScaleMm, number> = { 6: 285, 10: 180, 15: 110, 20: 87, 28: 60, 32: 54 };

/** One quiet hint: what it is about, and what follows for this scale. */
export interface ScaleHint {
  about: 'depth' | 'slope' | 'stones' | 'waves' | 'grit';
  words: string;
}

/** How deep water looks beside the figures. */
export function depthWords(depthMm: number, figureMm: FigureScaleMm): string {
  const share = depthMm / figureMm;
  if (share < 0.06) return 'it wets their soles';
  if (share < 0.2) return 'ankle-deep to them';
  if (share < 0.4) return 'knee-deep to them';
  if (share < 0.65) return 'waist-deep to them';
  if (share < 0.95) return 'chest-deep to them';
  return 'over their heads';
}

const metres = (mm: number, ratio: number): string => `${((mm * ratio) / 1000).toFixed(mm * ratio < 1000 ? 2 : 1)} m`;
const mm = (value: number): string =>
  value < 0.1 ? 'less than 0.1 mm' : `${value < 10 ? value.toFixed(1) : value.toFixed(0)} mm`;
const range = (leastM: number, mostM: number, ratio: number): string =>
  `${mm((leastM * 1000) / ratio)} to ${mm((mostM * 1000) / ratio)}`;

/** In nature, m: stepping stones and the stride between them; ripples, waves of a creek; gravel and cobbles. */
const STONES = [0.4, 0.8] as const;
const STRIDE_M = 0.6;
const RIPPLES = [0.02, 0.08] as const;
const CREEK_WAVES_M = 0.3;
const GRAVEL = [0.002, 0.064] as const;
/** A bank steeper than this (run per rise) is a scramble, steeper than that a cliff. */
const SCRAMBLE = 1.5;
const CLIFF = 0.5;

/** What the scale of the figures says about a piece: depth, slope, stepping stones, waves, grit. Taste comes first. */
export function scaleHints(
  { features, grainMm = 0 }: Pick<PieceDesign, 'features' | 'grainMm'>,
  deepestMm: number,
  figureMm: FigureScaleMm,
): ScaleHint[] {
  const ratio = SCALE_RATIO[figureMm];
  const hints: ScaleHint[] = [];
  if (deepestMm > 0)
    hints.push({
      about: 'depth',
      words: `${mm(deepestMm)} of water is ${metres(deepestMm, ratio)}: ${depthWords(deepestMm, figureMm)}.`,
    });
  hints.push(...features.flatMap(slopeHint));
  const stones = features.filter((feature) => feature.kind === 'stone');
  const wrong = stones.find(
    ({ diameterMm }) => (diameterMm * ratio) / 1000 < STONES[0] || (diameterMm * ratio) / 1000 > STONES[1],
  );
  hints.push({
    about: 'stones',
    words: `Stepping stones: ${range(...STONES, ratio)} across, ${mm((STRIDE_M * 1000) / ratio)} from middle to middle.${wrong ? ` Yours of ${mm(wrong.diameterMm)} is ${metres(wrong.diameterMm, ratio)}.` : ''}`,
  });
  hints.push({
    about: 'waves',
    words: `Ripples: ${range(...RIPPLES, ratio)} high; waves on a creek to ${mm((CREEK_WAVES_M * 1000) / ratio)}. None where boats or models are to stand.`,
  });
  const grain = (grainMm * ratio) / 1000;
  const grainWords = grain > GRAVEL[1] ? 'cobbles' : grain > GRAVEL[0] ? 'gravel' : 'sand';
  hints.push({
    about: 'grit',
    words: `Gravel: ${range(...GRAVEL, ratio)}; sand is dust.${grainMm > 0 ? ` Grains of ${mm(grainMm)} are ${grainWords} of ${metres(grainMm, ratio)}.` : ''}`,
  });
  return hints;
}

function slopeHint(feature: Feature): ScaleHint[] {
  if (feature.kind === 'shore')
    return [
      {
        about: 'slope',
        words:
          feature.slope < 5
            ? `A shore of 1 in ${feature.slope} is steep: beaches run 1 in 5 to 1 in 30.`
            : `A shore of 1 in ${feature.slope} is an easy beach.`,
      },
    ];
  if (
    (feature.kind === 'channel' || feature.kind === 'fork') &&
    feature.section === 'trapezoid' &&
    feature.bankSlope < SCRAMBLE
  ) {
    return [
      {
        about: 'slope',
        words:
          feature.bankSlope < CLIFF
            ? 'The channel’s banks are cliffs to a figure; it could not climb out.'
            : 'A figure could scramble up the channel’s banks, not walk.',
      },
    ];
  }
  return [];
}
