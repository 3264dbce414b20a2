import { MOST_READINGS, readingSchema, type DepthReading } from '../model/measuredSchema';
import { measuredEdgeSchema, type MeasuredEdge } from '../model/seamSchema';
import { editText, preferredUnit, type UnitPreferences } from '../units/formatMeasure';
import { parseMeasure } from '../units/parseMeasure';

/** Depth readings from text, or what is wrong with which line. */
export interface ParsedReadings {
  readings: DepthReading[];
  errors: { line: number; message: string }[];
}

const HEADER = /^\s*"?\s*(x|across|along)\b/i;

const NUMBERS = ['no figure', 'one figure', 'two figures', 'three figures'];

/**
 * Lines of figures as they are typed or pasted from a spreadsheet, parted by commas, semicolons, tabs or blanks; a
 * first line of names is passed over. Lengths in mm.
 */
function parseLines<T>(
  text: string,
  prefs: UnitPreferences,
  names: readonly string[],
  read: (values: number[]) => { success: true; data: T } | { success: false; message: string },
): { readings: T[]; errors: ParsedReadings['errors'] } {
  const readings: T[] = [];
  const errors: ParsedReadings['errors'] = [];
  text.split(/\r?\n/).forEach((raw, index) => {
    const line = index + 1;
    if (raw.trim() === '' || (readings.length === 0 && HEADER.test(raw))) return;
    const fields =
      raw.includes('\t') || raw.includes(';')
        ? raw.split(/[\t;]/)
        : /,\s|,.*,/.test(raw) || names.length === 2
          ? raw.split(',')
          : raw.trim().split(/\s{1,}(?=[-−.\d])/);
    const parts = (fields.length === 1 ? raw.trim().split(/\s{1,}(?=[-−.\d])/) : fields)
      .map((field) => field.trim().replace(/^"(.*)"$/, '$1'))
      .filter((field) => field !== '');
    if (parts.length !== names.length) {
      errors.push({
        line,
        message: `Line ${line}: ${NUMBERS[names.length]} are wanted, ${names.slice(0, -1).join(', ')} and ${names.at(-1)}; there ${parts.length === 1 ? 'is' : 'are'} ${parts.length}.`,
      });
      return;
    }
    const values = parts.map((part) => parseMeasure(part, 'length', preferredUnit('length', prefs)));
    const bad = values.find((value) => !value.ok);
    if (bad && !bad.ok) {
      errors.push({ line, message: `Line ${line}: ${bad.message}` });
      return;
    }
    const reading = read(values.map((value) => (value.ok ? value.value : 0)));
    if (reading.success) readings.push(reading.data);
    else errors.push({ line, message: `Line ${line}: ${reading.message}` });
  });
  return { readings, errors };
}

/** Reads depth readings: one a line, across, up, depth. Each figure may carry its unit; bare ones are in the maker's own. */
export function parseReadings(text: string, prefs: UnitPreferences): ParsedReadings {
  const result = parseLines(text, prefs, ['across', 'up', 'depth'], ([xMm, yMm, depthMm]) => {
    const reading = readingSchema.safeParse({ xMm, yMm, depthMm });
    return reading.success ? reading : { success: false, message: reading.error.issues[0]!.message };
  });
  if (result.readings.length > MOST_READINGS)
    result.errors.push({ line: MOST_READINGS + 1, message: `At most ${MOST_READINGS} readings of one piece.` });
  return result;
}

/** Readings as text that `parseReadings` reads back. */
export const readingsText = (readings: readonly DepthReading[], prefs: UnitPreferences): string =>
  linesText(
    readings.map(({ xMm, yMm, depthMm }) => [xMm, yMm, depthMm]),
    prefs,
  );

/** Heights of the bed along an edge, or what is wrong with which line. */
export interface ParsedEdge {
  readings: MeasuredEdge['bed'];
  errors: ParsedReadings['errors'];
}

/** Reads heights along an edge: one a line, along from its west or south end, height above the underside. */
export function parseEdgeReadings(text: string, prefs: UnitPreferences, edgeMm: number): ParsedEdge {
  return parseLines(text, prefs, ['along', 'height'], ([atMm, heightMm]) => {
    if (atMm! > edgeMm)
      return { success: false, message: `It lies past the end of the edge, which is ${edgeMm.toFixed(1)} mm long.` };
    const reading = measuredEdgeSchema.shape.bed.element.safeParse({ atMm, heightMm });
    return reading.success ? reading : { success: false, message: reading.error.issues[0]!.message };
  });
}

/** Heights along an edge as text that `parseEdgeReadings` reads back. */
export const edgeReadingsText = (bed: MeasuredEdge['bed'], prefs: UnitPreferences): string =>
  linesText(
    bed.map(({ atMm, heightMm }) => [atMm, heightMm]),
    prefs,
  );

const linesText = (lines: readonly (readonly number[])[], prefs: UnitPreferences): string =>
  lines.map((line) => line.map((mm) => editText(mm, 'length', prefs)).join(', ')).join('\n');
