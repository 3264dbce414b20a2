import { standardHeights, SEAM_STEP_MM } from '../seams/seamEdge';
import type { EdgeStandard } from '../bed/edgeStandardSchema';
import { drawingSheet } from './svg';

/** How far the body of a gauge stands over the bank (female: under the deepest), to hold it by. */
const GRIP_MM = 25;

/** The profile of a gauge from left to right, mm from its straight side; the cut's kerf is taken off (male) or left on (female). */
export function gaugeProfile(standard: EdgeStandard, side: 'male' | 'female', kerfMm: number): Float32Array {
  const bed = standardHeights(standard);
  const half = kerfMm / 2;
  // A male gauge fills the channel: pressed on, it touches bed and banks. A female one is the bed itself.
  return side === 'male' ? bed.map((height) => standard.bankMm + GRIP_MM - height - half) : bed.map((height) => height + half);
}

/** A gauge to cut at 1:1, male (fills the channel) or female (is the bed), with its name and a bar to check the print by. */
export function gaugeSvg(standard: EdgeStandard, side: 'male' | 'female', kerfMm: number): string {
  const profile = gaugeProfile(standard, side, kerfMm);
  const height = standard.bankMm + GRIP_MM;
  const n = (mm: number): string => String(Math.round(mm * 1000) / 1000);
  const x = (i: number): string => n(Math.min(standard.edgeMm, i * SEAM_STEP_MM));
  // y runs downwards: the male's grip is above, its profile below; the female stands on its straight side.
  const edge = Array.from(profile, (mm, i) => `${x(i)} ${n(side === 'male' ? mm : height - mm)}`).join('L');
  const d = side === 'male' ? `M0 0H${n(standard.edgeMm)}V${n(profile.at(-1)!)}L${edge.split('L').reverse().join('L')}Z` : `M0 ${n(height)}L${edge}L${n(standard.edgeMm)} ${n(height)}Z`;
  const label = `<text x="${n(standard.edgeMm / 2)}" y="${n(side === 'male' ? 8 : height - 3)}" font-size="5" font-family="sans-serif" text-anchor="middle">${standard.name.replace(/[<>&]/g, ' ')} · ${side}</text>`;
  return drawingSheet(standard.edgeMm, height, `${standard.name}, ${side} gauge`, `<path id="gauge" d="${d}" fill="none" stroke="#111" stroke-width="0.2"/>\n${label}`);
}
