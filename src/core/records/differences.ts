import { formatMeasure, METRIC, type UnitPreferences } from '../units/formatMeasure';

/** A field in which two versions of a record differ, in words. */
export interface Difference {
  field: string;
  mine: string;
  theirs: string;
}

/** Where two versions of a record differ, field by field; a list that has grown or shrunk is told by its length. */
export function differences(mine: unknown, theirs: unknown, prefs: UnitPreferences = METRIC): Difference[] {
  return leaves(mine, theirs, []).map(({ path, ...both }) => ({
    field: fieldWords(path),
    mine: valueWords(path, both.mine, prefs),
    theirs: valueWords(path, both.theirs, prefs),
  }));
}

interface Leaf {
  path: (string | number)[];
  mine: unknown;
  theirs: unknown;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

function leaves(mine: unknown, theirs: unknown, path: Leaf['path']): Leaf[] {
  if (Array.isArray(mine) && Array.isArray(theirs) && mine.length === theirs.length)
    return mine.flatMap((value, i) => leaves(value, theirs[i], [...path, i]));
  if (isObject(mine) && isObject(theirs))
    return [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].flatMap((key) =>
      leaves(mine[key], theirs[key], [...path, key]),
    );
  // What is not there and what is nothing are the same.
  return JSON.stringify(mine ?? null) === JSON.stringify(theirs ?? null) ? [] : [{ path, mine, theirs }];
}

/** Units that end the name of a field. */
const UNITS = [
  ['Mm', 'length'],
  ['Grams', 'mass'],
  ['Ml', 'volume'],
] as const;

const spoken = (key: string): string =>
  key
    .replace(/(Mm|Grams|Ml|Id)$/, '')
    .replace(/([a-z])([A-Z])/g, '$1 $2')
    .toLowerCase();

/** `features.0.widthMm` as `feature 1, width`. */
const fieldWords = (path: readonly (string | number)[]): string =>
  path
    .flatMap((part, i) => {
      if (typeof part === 'number') return [];
      const next = path[i + 1];
      return typeof next === 'number' ? `${spoken(part).replace(/s$/, '')} ${next + 1}` : spoken(part);
    })
    .join(', ');

function valueWords(path: readonly (string | number)[], value: unknown, prefs: UnitPreferences): string {
  const key = path.findLast((part) => typeof part === 'string') ?? '';
  if (value === null || value === undefined || value === '') return 'none';
  if (Array.isArray(value)) return `${value.length} of them`;
  if (isObject(value)) return 'something else';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  const quantity = UNITS.find(([ending]) => String(key).endsWith(ending))?.[1];
  return typeof value === 'number' && quantity ? formatMeasure(value, quantity, prefs) : String(value);
}
