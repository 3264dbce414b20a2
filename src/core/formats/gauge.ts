import type { EdgeStandard } from '../model/edgeStandardSchema';
import { standardHeights } from '../seams/seamEdge';
import { binaryStl, type Corner } from './stl';
import { drawingSheet, escaped } from './svg';

/**
 * How far the body of a male gauge stands over the bank, to hold it by. A female one stands on its straight side, which
 * is the underside.
 */
const GRIP_MM = 25;
export const GAUGE_SIDES = ['male', 'female'] as const;
export type GaugeSide = (typeof GAUGE_SIDES)[number];
export const DEFAULT_KERF_MM = 0.1;

/** The profile of a gauge from left to right, mm from its straight side; half the cut's kerf is taken off (male) or left on (female). */
export function gaugeProfile(standard: EdgeStandard, side: GaugeSide, kerfMm: number): Float32Array {
  const bed = standardHeights(standard);
  const half = kerfMm / 2;
  // A male gauge fills the channel: pressed on, it touches bed and banks. A female one is the bed itself.
  return side === 'male'
    ? bed.map((height) => standard.bankMm + GRIP_MM - height - half)
    : bed.map((height) => height + half);
}

/** A gauge as a drawing: its closed outline, y downwards, mm; and its text with the middle of its foot. */
export interface GaugeDrawing {
  widthMm: number;
  heightMm: number;
  path: string;
  label: { text: string; xMm: number; yMm: number };
}

const n = (mm: number): string => String(Math.round(mm * 1000) / 1000);

/** What a gauge looks like at 1:1. The text is the standard's own label, else its name, and the side. */
export function gaugeDrawing(standard: EdgeStandard, side: GaugeSide, kerfMm: number): GaugeDrawing {
  const profile = gaugeProfile(standard, side, kerfMm);
  const { edgeMm } = standard;
  const heightMm = side === 'male' ? standard.bankMm + GRIP_MM : standard.bankMm + kerfMm / 2;
  const last = profile.length - 1;
  // y runs downwards: the male's grip is above, its profile below; the female stands on its straight side.
  const edge = Array.from(profile, (mm, i) => `${n((edgeMm * i) / last)} ${n(side === 'male' ? mm : heightMm - mm)}`);
  const path =
    side === 'male'
      ? `M0 0H${n(edgeMm)}V${n(profile[last]!)}L${edge.reverse().join('L')}Z`
      : `M0 ${n(heightMm)}L${edge.join('L')}L${n(edgeMm)} ${n(heightMm)}Z`;
  return {
    widthMm: edgeMm,
    heightMm,
    path,
    label: {
      text: `${standard.gaugeLabel || standard.name} · ${side}`,
      xMm: edgeMm / 2,
      yMm: side === 'male' ? 8 : heightMm - 3,
    },
  };
}

/** A gauge to cut at 1:1, male (fills the channel) or female (is the bed), with its label and a bar to check the print by. */
export function gaugeSvg(standard: EdgeStandard, side: GaugeSide, kerfMm: number): string {
  const { widthMm, heightMm, path, label } = gaugeDrawing(standard, side, kerfMm);
  const text = `<text x="${n(label.xMm)}" y="${n(label.yMm)}" font-size="5" font-family="sans-serif" text-anchor="middle">${escaped(label.text)}</text>`;
  return drawingSheet(
    widthMm,
    heightMm,
    `${standard.name}, ${side} gauge`,
    `<path id="gauge" d="${path}" fill="none" stroke="#111" stroke-width="0.2"/>\n${text}`,
  );
}

/**
 * A gauge as a plate to print, lying flat: x along the edge, y from its straight side, z its thickness, mm. A closed solid.
 * A male one keeps the profile's far side at its greatest y; a plate that is printed needs no kerf but what the printer spreads.
 */
export function gaugeStl(
  standard: EdgeStandard,
  side: GaugeSide,
  kerfMm: number,
  thicknessMm: number,
): Uint8Array<ArrayBuffer> {
  const profile = gaugeProfile(standard, side, kerfMm);
  const last = profile.length - 1;
  const x = (i: number): number => (standard.edgeMm * i) / last;
  const triangles: (readonly [Corner, Corner, Corner])[] = [];
  const quad = (a: Corner, b: Corner, c: Corner, d: Corner): void => void triangles.push([a, b, c], [a, c, d]);
  for (let i = 0; i < last; i++) {
    const [x0, x1, y0, y1] = [x(i), x(i + 1), profile[i]!, profile[i + 1]!];
    quad([x0, 0, thicknessMm], [x1, 0, thicknessMm], [x1, y1, thicknessMm], [x0, y0, thicknessMm]);
    quad([x0, 0, 0], [x0, y0, 0], [x1, y1, 0], [x1, 0, 0]);
    quad([x0, y0, 0], [x0, y0, thicknessMm], [x1, y1, thicknessMm], [x1, y1, 0]);
    quad([x0, 0, 0], [x1, 0, 0], [x1, 0, thicknessMm], [x0, 0, thicknessMm]);
  }
  quad([0, 0, 0], [0, 0, thicknessMm], [0, profile[0]!, thicknessMm], [0, profile[0]!, 0]);
  quad(
    [standard.edgeMm, 0, 0],
    [standard.edgeMm, profile[last]!, 0],
    [standard.edgeMm, profile[last]!, thicknessMm],
    [standard.edgeMm, 0, thicknessMm],
  );
  return binaryStl(triangles, `${standard.name} ${side} gauge`);
}

/** Stretches of a gauge that fit a page, with an overlap to join them by, mm from its left. */
export function pageStretches(widthMm: number, pageMm: number, overlapMm = 10): { fromMm: number; toMm: number }[] {
  if (widthMm <= pageMm) return [{ fromMm: 0, toMm: widthMm }];
  const count = Math.ceil((widthMm - overlapMm) / (pageMm - overlapMm));
  const length = (widthMm + (count - 1) * overlapMm) / count;
  return Array.from({ length: count }, (_, i) => ({
    fromMm: i * (length - overlapMm),
    toMm: i * (length - overlapMm) + length,
  }));
}
