import { eq, max, sql } from 'drizzle-orm';
import { batchSchema, type Batch } from '@/core/records/recordSchemas';
import type { BatchRow } from '@/core/records/views';
import { keepPlan } from './keptPlans';
import { appendEntry, benchWorkOf, DRY_POURS, type BenchWork } from './pours';
import { release } from './stock';
import type { Connection, RowImage, Storage } from './storage';
import { batches, batchItems } from './schema';

/** How a field of a batch is kept in its column; what is not said is null there, and is not said again. */
interface Column<V> {
  keep: (value: V | undefined) => unknown;
  read: (kept: unknown) => V;
}
const text: Column<string> = { keep: (value) => value, read: (kept) => kept as string };
const json = <V>(isEmpty: (value: NonNullable<V>) => boolean = () => false): Column<V> => ({
  keep: (value) => (value === undefined || value === null || isEmpty(value) ? null : value),
  read: (kept) => JSON.parse(kept as string) as V,
});

/** Every field of a batch but its pieces, which have rows of their own: one that is left out does not compile. */
const COLUMNS: { [K in Exclude<keyof Batch, 'items'>]-?: Column<NonNullable<Batch[K]>> } = {
  name: text,
  pourAt: text,
  benchWindows: json(),
  moves: json((moves) => moves.length === 0),
  own: json((own) => Object.keys(own).length === 0),
  course: json(({ marks, kept }) => marks.length === 0 && !kept),
  inspections: json((inspections) => inspections.length === 0),
  photos: json((photos) => photos.length === 0),
  fates: json((fates) => fates.length === 0),
};
type Field = keyof typeof COLUMNS;
const FIELDS = Object.keys(COLUMNS) as Field[];

/** One line of `listBatches` as the database gives it. */
interface BatchLine extends Record<Field, unknown> {
  id: string;
  version: number;
  items: string;
  pouredLayers: number | null;
  begun: number | null;
  dry: number | null;
  lastAt: string | null;
  ofLayers: number;
  mixGrams: number | null;
}

const FIELDS_SQL = sql.join(
  FIELDS.map((field) => sql`b.${sql.raw(batches[field].name)} as ${sql.raw(field)}`),
  sql`, `,
);

const LINE = sql`
  select b.id, b.version, ${FIELDS_SQL},
    (select json_group_array(json_object('designId', i.design_id, 'copies', i.copies, 'first', i.first, 'numbers', json(i.numbers)))
      from (select design_id, copies, first, numbers from batch_items where batch_id = b.id order by position) i) as items,
    p.whole as pouredLayers, p.begun as begun, p.dry as dry, p.last_at as lastAt, p.mix as mixGrams,
    (select count(*) from layers l where l.batch_id = b.id) as ofLayers
  from batches b left join (
    select c.batch_id, count(*) as begun, sum(c.dry = 0) as whole, sum(c.dry) as dry, max(c.poured_at) as last_at,
      sum((select sum(w.part_a_grams + coalesce(w.part_b_grams, 0)) from weighings w where w.pour_id = c.id)) as mix
    from (select c.*, ${DRY_POURS} as dry from current_pours c) c group by c.batch_id
  ) p on p.batch_id = b.id`;

interface KeptItem {
  designId: string;
  copies: number;
  first: number;
  numbers: number[] | null;
}

function rowOf(line: BatchLine): BatchRow {
  const said = FIELDS.flatMap((field) => (line[field] === null ? [] : [[field, COLUMNS[field].read(line[field])]]));
  const items = (JSON.parse(line.items) as KeptItem[]).map(({ first, numbers, ...item }) => ({
    ...item,
    ...(first > 1 && { first }),
    ...(numbers && { numbers }),
  }));
  // In the order of the schema: an edit is taken back where the row reads as it did.
  const fields: Record<string, unknown> = { benchWindows: null, ...Object.fromEntries(said), items };
  const data = Object.fromEntries(
    Object.keys(batchSchema.shape).flatMap((key) => (key in fields ? [[key, fields[key]]] : [])),
  ) as Batch;
  const poured =
    line.begun && line.lastAt
      ? {
          layers: line.pouredLayers ?? 0,
          begun: line.begun,
          dry: line.dry ?? 0,
          of: line.ofLayers,
          lastAt: line.lastAt,
          mixGrams: line.mixGrams ?? 0,
        }
      : null;
  return { id: line.id, version: line.version, data, poured };
}

/** Batches of a set in short, newest first. */
export const listBatches = (db: Connection, setId: string, most: number, skip = 0): BatchRow[] =>
  db
    .all<BatchLine>(sql`${LINE} where b.set_id = ${setId} order by b.position desc, b.id limit ${most} offset ${skip}`)
    .map(rowOf);

/** One batch in short; null when there is none. */
export function getBatch(db: Connection, id: string): BatchRow | null {
  const line = db.get<BatchLine | undefined>(sql`${LINE} where b.id = ${id}`);
  return line ? rowOf(line) : null;
}

export const countBatches = (db: Connection, setId: string): number =>
  db.get<{ count: number }>(sql`select count(*) as count from batches where set_id = ${setId}`).count;

/** The set that a batch belongs to; null when there is no such batch. */
export const setOfBatch = (db: Connection, id: string): string | null =>
  db.select({ setId: batches.setId }).from(batches).where(eq(batches.id, id)).get()?.setId ?? null;

/** The highest number that batches have given a copy of a design; 0 where none has taken any. */
export const lastCopyTaken = (db: Connection, designId: string): number =>
  db.get<{ last: number | null }>(
    sql`select max(max(first + copies - 1), coalesce((select max(value) from json_each(numbers)), 0)) as last
      from batch_items where design_id = ${designId}`,
  ).last ?? 0;

/** Ids of the batches that take copies of a design. */
export const batchesWith = (db: Connection, designId: string): string[] =>
  db
    .select({ id: batchItems.batchId })
    .from(batchItems)
    .where(eq(batchItems.designId, designId))
    .all()
    .map(({ id }) => id);

/** Says that something about a batch has changed beside its own row. */
export function touchBatch(db: Connection, id: string, now: string): void {
  db.update(batches)
    .set({ version: sql`${batches.version} + 1`, updatedAt: now })
    .where(eq(batches.id, id))
    .run();
}

/** How batches are kept: a row, its items, and with it what happened at the bench. */
export const batchStorage: Storage = {
  image(db, id) {
    const row = db.select().from(batches).where(eq(batches.id, id)).get();
    const batch = row && getBatch(db, id);
    return row && batch ? { version: row.version, position: row.position, setId: row.setId, data: batch.data } : null;
  },
  write(db, id, { position, setId, data, attached }: RowImage, version, now) {
    const { items, ...fields } = batchSchema.parse(data);
    const kept = Object.fromEntries(
      FIELDS.map((field) => [field, (COLUMNS[field] as Column<unknown>).keep(fields[field])]),
    ) as Pick<typeof batches.$inferInsert, Field>;
    const values = { ...kept, position, setId: setId!, version, updatedAt: now };
    const updated = db.update(batches).set(values).where(eq(batches.id, id)).run();
    if (updated.changes === 0)
      db.insert(batches)
        .values({ id, ...values })
        .run();
    db.delete(batchItems).where(eq(batchItems.batchId, id)).run();
    const rows = items.map(({ designId, copies, first = 1, numbers = null }, i) => ({
      batchId: id,
      designId,
      copies,
      first,
      numbers,
      position: i,
    }));
    if (rows.length > 0) db.insert(batchItems).values(rows).run();
    const bench = attached as BenchWork | undefined;
    if (updated.changes > 0 || !bench) return;
    if (bench.kept) keepPlan(db, id, bench.kept, now);
    for (const entry of bench.entries) appendEntry(db, id, entry, entry);
  },
  remove(db, id, now) {
    const bench = benchWorkOf(db, id);
    release(db, id, 'the batch was removed', now);
    db.delete(batches).where(eq(batches.id, id)).run();
    return bench;
  },
  nextPosition(db, setId) {
    const last = db
      .select({ last: max(batches.position) })
      .from(batches)
      .where(eq(batches.setId, setId ?? ''))
      .get();
    return (last?.last ?? -1) + 1;
  },
};
