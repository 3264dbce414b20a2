import { linearFromHex } from './colour';
import { lightByDepth, paintByDepth, type BedPaint, type WaterLook } from './waterLook';
import type { WaterTint } from './waterTint';

/**
 * What is seen of a painted bed by depth, as a table: `count` entries of red, green, blue and 1 in linear light, the first at the
 * surface, the last at `deepestMm`. In between, straight lines.
 */
export function lightTable(paint: BedPaint, tint: WaterTint, deepestMm: number, count: number): Float32Array {
  const table = new Float32Array(count * 4);
  const paintAt = paintByDepth(paint, deepestMm);
  const plain = paint.shoreColour || paint.deepColour ? null : lightByDepth(paintAt(0), tint);
  for (let i = 0; i < count; i++) {
    const depthMm = (i / (count - 1)) * deepestMm;
    const { red, green, blue } = (plain ?? lightByDepth(paintAt(depthMm), tint))(depthMm);
    table.set([red, green, blue, 1], i * 4);
  }
  return table;
}

/** A look as screen pixels, red in the lowest byte: `count` entries from the surface to the deepest. */
export function pixelTable({ colours }: WaterLook, count: number): Uint32Array {
  const steps = colours.map((hex) => [1, 3, 5].map((from) => parseInt(hex.slice(from, from + 2), 16)));
  return Uint32Array.from({ length: count }, (_, i) => {
    const at = (i / (count - 1)) * (steps.length - 1);
    const [low, high] = [steps[Math.floor(at)]!, steps[Math.min(steps.length - 1, Math.floor(at) + 1)]!];
    const share = at - Math.floor(at);
    const [red, green, blue] = [0, 1, 2].map((c) => Math.round(low[c]! + share * (high[c]! - low[c]!)));
    return ((255 << 24) | (blue! << 16) | (green! << 8) | red!) >>> 0;
  });
}

/**
 * Colours a bed by its depth through a pixel table: `out` gets a pixel a cell, water from the table, land in its own colour.
 * One multiplication and one look-up a cell, however many layers the water has.
 */
export function paintDepths(
  heightMm: Float32Array,
  levelMm: number,
  deepestMm: number,
  table: Uint32Array,
  landColour: string,
  out: Uint32Array,
): void {
  const [land] = pixelTable({ stepMm: 1, colours: [landColour] }, 2);
  const last = table.length - 1;
  const scale = last / Math.max(deepestMm, 1e-6);
  for (let i = 0; i < heightMm.length; i++) {
    const depth = levelMm - heightMm[i]!;
    const at = (depth * scale + 0.5) | 0;
    out[i] = depth > 0 ? table[at < last ? at : last]! : land!;
  }
}

/** The linear light of a table at a depth, as the pictures take it. */
export function lightAt(
  table: Float32Array,
  deepestMm: number,
  depthMm: number,
): { red: number; green: number; blue: number } {
  const last = table.length / 4 - 1;
  const at = Math.min(last, Math.max(0, (depthMm / deepestMm) * last));
  const [low, share] = [Math.min(last - 1, Math.floor(at)), at - Math.min(last - 1, Math.floor(at))];
  const of = (channel: number): number =>
    table[low * 4 + channel]! + share * (table[low * 4 + 4 + channel]! - table[low * 4 + channel]!);
  return { red: of(0), green: of(1), blue: of(2) };
}

/** A colour as three numbers in linear light. */
export const lightTriple = (hex: string): [number, number, number] => {
  const { red, green, blue } = linearFromHex(hex);
  return [red, green, blue];
};
