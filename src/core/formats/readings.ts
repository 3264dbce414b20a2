import { MOST_READINGS, readingSchema, type DepthReading } from '../bed/measuredSchema';
import { editText, preferredUnit, type UnitPreferences } from '../units/formatMeasure';
import { parseMeasure } from '../units/parseMeasure';

/** Depth readings from text, or what is wrong with which line. */
export interface ParsedReadings {
  readings: DepthReading[];
  errors: { line: number; message: string }[];
}

const HEADER = /^\s*"?\s*(x|across)\b/i;

/**
 * Reads depth readings as they are typed or pasted from a spreadsheet: one a line, across, up, depth, parted by commas,
 * semicolons, tabs or blanks; a first line of names is passed over. Each figure may carry its unit; bare ones are in
 * the maker's own.
 */
export function parseReadings(text: string, prefs: UnitPreferences): ParsedReadings {
  const result: ParsedReadings = { readings: [], errors: [] };
  text.split(/\r?\n/).forEach((raw, index) => {
    const line = index + 1;
    if (raw.trim() === '' || (result.readings.length === 0 && HEADER.test(raw))) return;
    const fields = raw.includes('\t') || raw.includes(';') ? raw.split(/[\t;]/) : /,\s|,.*,/.test(raw) ? raw.split(',') : raw.trim().split(/\s{1,}(?=[-−.\d])/);
    const parts = fields.map((field) => field.trim().replace(/^"(.*)"$/, '$1')).filter((field) => field !== '');
    if (parts.length !== 3) {
      result.errors.push({ line, message: `Line ${line}: three figures are wanted, across, up and depth; there ${parts.length === 1 ? 'is' : 'are'} ${parts.length}.` });
      return;
    }
    const values = parts.map((part) => parseMeasure(part, 'length', preferredUnit('length', prefs)));
    const bad = values.find((value) => !value.ok);
    if (bad && !bad.ok) {
      result.errors.push({ line, message: `Line ${line}: ${bad.message}` });
      return;
    }
    const [xMm, yMm, depthMm] = values.map((value) => (value.ok ? value.value : 0));
    const reading = readingSchema.safeParse({ xMm, yMm, depthMm });
    if (reading.success) result.readings.push(reading.data);
    else result.errors.push({ line, message: `Line ${line}: ${reading.error.issues[0]!.message}` });
  });
  if (result.readings.length > MOST_READINGS) result.errors.push({ line: MOST_READINGS + 1, message: `At most ${MOST_READINGS} readings of one piece.` });
  return result;
}

/** Readings as text that `parseReadings` reads back. */
export const readingsText = (readings: readonly DepthReading[], prefs: UnitPreferences): string => readings.map(({ xMm, yMm, depthMm }) => [xMm, yMm, depthMm].map((mm) => editText(mm, 'length', prefs)).join(', ')).join('\n');
