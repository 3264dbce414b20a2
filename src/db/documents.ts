import { asc, eq, max, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { RECORD_SCHEMAS, type RecordData } from '@/core/records/recordSchemas';
import { shapeOf, type DocumentKind } from '@/core/records/upgrade';
import type { Unreadable } from '@/core/records/views';
import { KIND_WORDS, type Connection, type Storage } from './storage';
import * as schema from './schema';
import type { Stored } from '@/core/model/stored';

const TABLES = {
  settings: schema.settings,
  product: schema.products,
  colourant: schema.colourants,
  recipe: schema.recipes,
  consumable: schema.consumables,
  set: schema.sets,
  design: schema.designs,
  piece: schema.pieces,
  note: schema.notes,
} as const satisfies Record<DocumentKind, unknown>;
export const DOCUMENT_KINDS = Object.keys(TABLES) as DocumentKind[];

// The tables share their columns; one stand-in type lets one function serve all of them.
export const tableOf = (kind: DocumentKind): typeof schema.designs => TABLES[kind] as typeof schema.designs;
const hasSet = (kind: DocumentKind): boolean => kind === 'design' || kind === 'piece';

// A document that was read and checked stays so while its text is the same.
const parsed = new LRUCache<string, object>({
  max: 4000,
  maxSize: 64_000_000,
  sizeCalculation: (_, key) => key.length,
});

function parse<K extends DocumentKind>(kind: K, text: string): RecordData<K> | { complaint: string } {
  const key = `${kind} ${text}`;
  const known = parsed.get(key);
  if (known) return known as RecordData<K>;
  let result;
  try {
    result = RECORD_SCHEMAS[kind].safeParse(JSON.parse(text));
  } catch {
    return { complaint: 'it is not JSON' };
  }
  if (!result.success) {
    const issue = result.error.issues[0];
    return { complaint: `${issue?.path.join('.')}: ${issue?.message}` };
  }
  parsed.set(key, result.data);
  return result.data as RecordData<K>;
}

const columnsOf = (kind: DocumentKind) => {
  const table = tableOf(kind);
  return { id: table.id, version: table.version, text: sql<string>`${table.data}` };
};

/** Records of a kind in their order; those that cannot be read apart, so that one does not spoil a page. */
export interface Documents<K extends DocumentKind> {
  records: Stored<RecordData<K>>[];
  unreadable: Unreadable[];
}

/** All documents of a kind in their order; of designs and pieces, those of one set. */
export function listDocuments<K extends DocumentKind>(db: Connection, kind: K, setId?: string): Documents<K> {
  const table = tableOf(kind);
  const rows = db
    .select(columnsOf(kind))
    .from(table)
    .where(setId === undefined ? undefined : eq(table.setId, setId))
    .orderBy(asc(table.position), asc(table.id))
    .all();
  const documents: Documents<K> = { records: [], unreadable: [] };
  for (const { id, version, text } of rows) {
    const data = parse(kind, text);
    if ('complaint' in data)
      documents.unreadable.push({ kind, id, message: unreadableWords(kind, text, data.complaint) });
    else documents.records.push({ id, version, data });
  }
  return documents;
}

function unreadableWords(kind: DocumentKind, text: string, complaint: string): string {
  const name = /"(?:tag|name)":"([^"]{1,60})"/.exec(text)?.[1];
  return `The ${KIND_WORDS[kind]}${name ? ` ${name}` : ''} in the data file cannot be read (${complaint}). Everything else can; the file was left as it is.`;
}

/** One document, or null when there is none or it cannot be read. */
export function getDocument<K extends DocumentKind>(db: Connection, kind: K, id: string): Stored<RecordData<K>> | null {
  const row = db
    .select(columnsOf(kind))
    .from(tableOf(kind))
    .where(eq(tableOf(kind).id, id))
    .get();
  const data = row && parse(kind, row.text);
  return row && data && !('complaint' in data) ? { id: row.id, version: row.version, data } : null;
}

/** Foreign keys that are kept in columns too, so that the database itself guards them. */
function keyColumns(kind: DocumentKind, setId: string | null, data: unknown): object {
  if (hasSet(kind)) return { setId };
  if (kind !== 'set') return {};
  const { productId, recipeId } = data as RecordData<'set'>;
  return { productId, recipeId };
}

/** How documents of a kind are kept. */
export function documentStorage(kind: DocumentKind): Storage {
  const table = tableOf(kind);
  return {
    image(db, id) {
      const columns = {
        version: table.version,
        shape: table.shape,
        position: table.position,
        data: table.data,
        ...(hasSet(kind) && { setId: table.setId }),
      };
      const row = db.select(columns).from(table).where(eq(table.id, id)).get();
      return row ? { ...row, setId: row.setId ?? null } : null;
    },
    write(db, id, { position, data, setId, shape = shapeOf(kind) }, version, now) {
      const values = { position, data, shape, version, updatedAt: now, ...keyColumns(kind, setId, data) };
      const updated = db.update(table).set(values).where(eq(table.id, id)).run();
      if (updated.changes === 0)
        db.insert(table)
          .values({ id, ...values } as typeof schema.designs.$inferInsert)
          .run();
    },
    remove(db, id) {
      db.delete(table).where(eq(table.id, id)).run();
      return undefined;
    },
    nextPosition(db, setId) {
      const last = db
        .select({ last: max(table.position) })
        .from(table)
        .where(setId === null ? undefined : eq(table.setId, setId))
        .get();
      return (last?.last ?? -1) + 1;
    },
  };
}
