import type { Amounts } from './plan';

/** Digits that a first look at figures shows. */
const DIGITS = 6;
/** Of more pieces than this a first look carries the first design's only. */
const MOST_FIRST = 14;

/** Figures of a first look: to six digits. */
function rounded<T>(value: T): T {
  if (typeof value === 'number') return (Number.isInteger(value) ? value : Number(value.toPrecision(DIGITS))) as T;
  if (Array.isArray(value)) return value.map(rounded) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, part]) => [key, rounded(part)])) as T;
}

/** Whether a first look carries only an extract of so many pieces. */
export const isExtract = (pieces: number): boolean => pieces > MOST_FIRST;

/**
 * What a first look at the amounts of a whole set needs: no cups (a whole set is not poured in one go), rounded figures, and of a
 * large set the pieces of its first design. What is left out is worked out once the page is awake.
 */
export function slimAmounts(amounts: Amounts): { amounts: Amounts; partial: boolean } {
  const { pieces, layers } = amounts;
  const partial = isExtract(pieces.length);
  const first = pieces[0]?.designId;
  return {
    partial,
    amounts: rounded({
      ...amounts,
      pieces: partial ? pieces.filter(({ designId }) => designId === first) : pieces,
      layers: layers.map((layer) => ({ ...layer, cups: [] })),
    }),
  };
}

/** A short fingerprint of a text: figures that come from elsewhere are known by that of what they were worked out from. */
export function fingerprint(text: string): string {
  let [a, b] = [0x811c9dc5, 0x1000193];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    a = Math.imul(a ^ code, 0x01000193);
    b = Math.imul(b ^ code, 0x85ebca6b) ^ (b >>> 13);
  }
  return `${(a >>> 0).toString(36)}${(b >>> 0).toString(36)}`;
}
