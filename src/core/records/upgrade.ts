import type { PieceRef } from '../model/pieceRef';
import type { BenchWindow } from '../time/benchWindows';
import type { RecordKind } from './recordSchemas';

/** Kinds that are kept as documents. */
export type DocumentKind = Exclude<RecordKind, 'batch' | 'pour' | 'lot' | 'movement'>;

/** What an upgrader may ask about the data file that it works on. */
export interface UpgradeContext {
  /** The piece that older documents name by its text, `HS-2 #3`. */
  pieceNamed: (text: string) => PieceRef;
  /** When most sets said that the maker is at the bench. */
  workshopWindows: readonly BenchWindow[];
}

type Json = Record<string, unknown>;
type Upgrader = (data: Json, context: UpgradeContext) => Json;

const isObject = (value: unknown): value is Json =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const listOf = (value: unknown): Json[] => (Array.isArray(value) ? value.filter(isObject) : []);

const refs = (value: unknown, { pieceNamed }: UpgradeContext): unknown =>
  typeof value === 'string' ? pieceNamed(value) : value;

const laidByRef =
  (context: UpgradeContext) =>
  ({ quarters, ...place }: Json): Json => ({
    ...place,
    piece: refs(place['piece'], context),
    ...(quarters !== undefined && { turns: quarters }),
  });

/** Rows and tables name pieces by what they are; bench windows belong to the workshop unless a set has its own. */
const setByRef: Upgrader = (set, context) => {
  const { row, tables, benchWindows } = set;
  const own = JSON.stringify(benchWindows);
  return {
    ...set,
    benchWindows: own === '[]' || own === JSON.stringify(context.workshopWindows) ? null : (benchWindows ?? null),
    ...(isObject(row) && {
      row: {
        pins: listOf(row['pins']).map((pin) => ({ ...pin, piece: refs(pin['piece'], context) })),
        apart: (Array.isArray(row['apart']) ? row['apart'] : []).map((pair: unknown) =>
          Array.isArray(pair) ? pair.map((piece) => refs(piece, context)) : pair,
        ),
      },
    }),
    ...(Array.isArray(tables) && {
      tables: listOf(tables).map((table) => ({
        ...table,
        laid: Array.isArray(table['laid']) ? listOf(table['laid']).map(laidByRef(context)) : null,
        wish: isObject(table['wish'])
          ? { ...table['wish'], fixed: listOf(table['wish']['fixed']).map(laidByRef(context)) }
          : table['wish'],
      })),
    }),
  };
};

/** The workshop knows when the maker is at the bench. */
const settingsWithWindows: Upgrader = (settings, { workshopWindows }) => ({
  ...settings,
  benchWindows: settings['benchWindows'] ?? workshopWindows,
});

/** By kind, what brings a document from the first shape to the second, from that to the third, and so on. */
const UPGRADERS: Partial<Record<DocumentKind, readonly Upgrader[]>> = {
  set: [setByRef],
  settings: [settingsWithWindows],
};

/** The shape in which this program keeps documents of a kind. */
export const shapeOf = (kind: DocumentKind): number => 1 + (UPGRADERS[kind]?.length ?? 0);

/** A document of an older shape as one of today's. */
export function upgraded(kind: DocumentKind, data: unknown, shape: number, context: UpgradeContext): unknown {
  if (!isObject(data)) return data;
  return (UPGRADERS[kind] ?? []).slice(shape - 1).reduce((now, upgrade) => upgrade(now, context), data);
}
