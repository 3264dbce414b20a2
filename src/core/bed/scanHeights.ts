import { unzlibSync, zlibSync } from 'fflate';
import { LRUCache } from 'lru-cache';

/** Heights of a scan are kept to 1/100 mm, up to 655 mm. */
const PER_MM = 100;
const MOST_UNITS = 65_535;

/** Heights of a scan, mm, as the text that a design keeps: deflated 16-bit differences from sample to sample, base64. */
export function packHeights(heightMm: ArrayLike<number>): string {
  const units = new Uint16Array(heightMm.length);
  let before = 0;
  for (let i = 0; i < heightMm.length; i++) {
    const here = Math.max(0, Math.min(MOST_UNITS, Math.round(heightMm[i]! * PER_MM)));
    units[i] = here - before;
    before = here;
  }
  const packed = zlibSync(new Uint8Array(units.buffer), { level: 9 });
  let text = '';
  for (const byte of packed) text += String.fromCharCode(byte);
  return btoa(text);
}

const unpacked = new LRUCache<string, Float32Array>({ max: 12 });

/** The heights of a packed scan, mm. Throws a RangeError when the text is damaged or does not hold `count` heights. */
export function unpackHeights(text: string, count: number): Float32Array {
  const known = unpacked.get(text);
  if (known?.length === count) return known;
  let bytes: Uint8Array;
  try {
    bytes = unzlibSync(Uint8Array.from(atob(text), (character) => character.charCodeAt(0)));
  } catch {
    throw new RangeError('The heights of the scan are damaged; import it again');
  }
  if (bytes.length !== count * 2)
    throw new RangeError(`The scan should hold ${count} heights and holds ${bytes.length / 2}; import it again`);
  const units = new Uint16Array(bytes.buffer, bytes.byteOffset, count);
  const heights = new Float32Array(count);
  let before = 0;
  for (let i = 0; i < count; i++) {
    before = (before + units[i]!) & MOST_UNITS;
    heights[i] = before / PER_MM;
  }
  unpacked.set(text, heights);
  return heights;
}

/** What is wrong with the text of a scan, or null. */
export function scanComplaint(text: string, count: number): string | null {
  try {
    unpackHeights(text, count);
    return null;
  } catch (error) {
    return error instanceof Error ? error.message : String(error);
  }
}
