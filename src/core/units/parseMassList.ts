import { METRIC, preferredUnit } from './formatMeasure';
import { parseMeasure } from './parseMeasure';

/** The most masses in one list. */
const MOST = 40;

/** `60, 60, 45` as grams; null where one does not read, or where there are none or too many. */
export function parseMassList(text: string): number[] | null {
  const parts = text.split(/[,;\s]+(?=\d)/).filter((part) => part.trim() !== '');
  const read = parts.map((part) => parseMeasure(part, 'mass', preferredUnit('mass', METRIC)));
  return read.every(({ ok }) => ok) && parts.length > 0 && parts.length <= MOST
    ? read.map((part) => (part.ok ? part.value : 0))
    : null;
}
