import { LRUCache } from 'lru-cache';
import type { FeatureOf } from '../model/featureSchema';
import { scanComplaint, unpackHeights } from './scanHeights';

/** Below this the rim of a scan is one height, with no hollow that runs out through it. */
const LEAST_HOLLOW_MM = 1;
/** Heights of a rim are sorted into bins of this size. */
const BIN_MM = 0.1;

/**
 * The height of the land of a scanned bed, mm: its banks where they reach the rim. The heights along the rim (the second ring of
 * samples, as the outermost often catch the side wall) are split into the two groups that differ most (Otsu's threshold: greatest
 * variance between them); water runs out through the lower one, and the land is the median of the upper. A rim of one height is
 * all land. A hill inside is not asked.
 */
export function scanLand(columns: number, rows: number, heightMm: ArrayLike<number>): number {
  const rim = rimOf(columns, rows, heightMm);
  const split = otsu(rim);
  return median(split === null ? rim : rim.filter((mm) => mm > split));
}

function rimOf(columns: number, rows: number, heightMm: ArrayLike<number>): number[] {
  const inset = columns > 6 && rows > 6 ? 1 : 0;
  const [east, north] = [columns - 1 - inset, rows - 1 - inset];
  const rim: number[] = [];
  for (let column = inset; column <= east; column++)
    rim.push(heightMm[inset * columns + column]!, heightMm[north * columns + column]!);
  for (let row = inset + 1; row < north; row++)
    rim.push(heightMm[row * columns + inset]!, heightMm[row * columns + east]!);
  return rim;
}

/** The height that splits a rim into lower and upper, or null when it is all of one height. */
function otsu(rim: readonly number[]): number | null {
  const sorted = [...rim].sort((a, b) => a - b);
  const bins = new Map<number, { count: number; sum: number }>();
  for (const mm of sorted) {
    const bin = Math.floor(mm / BIN_MM);
    const { count, sum } = bins.get(bin) ?? { count: 0, sum: 0 };
    bins.set(bin, { count: count + 1, sum: sum + mm });
  }
  const total = sorted.reduce((sum, mm) => sum + mm, 0);
  let best: { between: number; at: number; apartMm: number } | null = null;
  let [count, sum] = [0, 0];
  for (const [bin, part] of bins) {
    count += part.count;
    sum += part.sum;
    const above = sorted.length - count;
    if (above === 0) break;
    const apartMm = (total - sum) / above - sum / count;
    const between = count * above * apartMm ** 2;
    if (!best || between > best.between) best = { between, at: (bin + 1) * BIN_MM, apartMm };
  }
  return best && best.apartMm >= LEAST_HOLLOW_MM ? best.at : null;
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

const known = new LRUCache<string, { landMm: number }>({ max: 24 });

/** The height of the land of a scan that a design carries, mm above its underside; null when its heights are damaged. */
export function landOfScan({ columns, rows, heights, baseMm = 0 }: FeatureOf<'scan'>): number | null {
  const kept = known.get(heights);
  if (kept) return kept.landMm + baseMm;
  if (scanComplaint(heights, columns * rows) !== null) return null;
  const landMm = scanLand(columns, rows, unpackHeights(heights, columns * rows));
  known.set(heights, { landMm });
  return landMm + baseMm;
}
