import { eq, lt, sql } from 'drizzle-orm';
import type { BenchWindow } from '@/core/time/benchWindows';
import { planAmounts, planRequestSchema } from '@/core/plan';
import { batchSchema, pourRecordSchema, type PourRecord } from '@/core/records/recordSchemas';
import { shapeOf, upgraded, type DocumentKind, type UpgradeContext } from '@/core/records/upgrade';
import { batchStorage } from './batches';
import { keepPlan } from './keptPlans';
import { appendEntry } from './pours';
import { DOCUMENT_KINDS, tableOf } from './documents';
import type { Connection, RowImage, Database, Change } from './storage';
import { edits } from './schema';

/**
 * Brings what a data file holds to today's shapes, after its tables have been migrated: documents and the journal's images of
 * them by their upgraders, batches from documents into rows. In one transaction; does nothing to a file of today.
 */
export function upgradeRecords(db: Database, now: string): void {
  db.transaction(
    (tx) => {
      const old = tx.all(sql`select name from sqlite_master where name = 'old_batches'`).length > 0;
      const behind = DOCUMENT_KINDS.some(
        (kind) =>
          tx
            .select({ id: tableOf(kind).id })
            .from(tableOf(kind))
            .where(lt(tableOf(kind).shape, shapeOf(kind)))
            .get() !== undefined,
      );
      if (!old && !behind) return;
      const context = contextOf(tx);
      for (const kind of DOCUMENT_KINDS) upgradeDocuments(tx, kind, context);
      if (old) takeBatchesOver(tx, now);
      upgradeJournal(tx, context);
      if (old) tx.run(sql`drop table old_batches`);
    },
    { behavior: 'immediate' },
  );
}

function upgradeDocuments(db: Connection, kind: DocumentKind, context: UpgradeContext): void {
  const table = tableOf(kind);
  const rows = db
    .select({ id: table.id, data: table.data, shape: table.shape })
    .from(table)
    .where(lt(table.shape, shapeOf(kind)))
    .all();
  for (const { id, data, shape } of rows)
    db.update(table)
      .set({ data: upgraded(kind, data, shape, context), shape: shapeOf(kind) })
      .where(eq(table.id, id))
      .run();
}

/** Designs by their tags, those too that only the journal remembers; and the windows that most sets have. */
function contextOf(db: Connection): UpgradeContext {
  const tags: { id: string; tag: string }[] = db.all(
    sql`select id, json_extract(data, '$.tag') as tag from designs
      union select json_extract(c.value, '$.id'), json_extract(c.value, '$.before.data.tag') from edits, json_each(edits.changes) c
        where json_extract(c.value, '$.kind') = 'design' and json_extract(c.value, '$.before.data.tag') is not null`,
  );
  const windows = db.all<{ windows: string }>(sql`
    select json_extract(data, '$.benchWindows') as windows from sets
    where json_array_length(data, '$.benchWindows') > 0 group by 1 order by count(*) desc limit 1`);
  return {
    workshopWindows: windows[0] ? (JSON.parse(windows[0].windows) as BenchWindow[]) : [],
    pieceNamed(text) {
      const exact = tags.find(({ tag }) => tag === text);
      if (exact) return { designId: exact.id, copy: null };
      const found = /^(.*) #(\d+)$/.exec(text);
      // Long tags were cut so that the number fitted.
      const owner = found && tags.find(({ tag }) => tag === found[1] || tag.startsWith(found[1]!));
      return owner ? { designId: owner.id, copy: Number(found[2]) } : { designId: text, copy: null };
    },
  };
}

/** A batch as it was kept before: a document with its pours and the request of its first one. */
interface OldBatch {
  name: string;
  items: { designId: string; copies: number }[];
  pourAt: string;
  pours?: unknown[];
  planned?: unknown;
}

const wishOf = ({ name, items, pourAt }: OldBatch): unknown => ({ name, items, pourAt, benchWindows: null });

/** What happened at the bench, of an old batch: its plan worked out once more, now to be kept, and its pours as entries. */
function benchOf({ planned, pours = [] }: OldBatch): RowImage['attached'] {
  const request = planRequestSchema.safeParse(planned);
  const entries = pours.flatMap((pour): PourRecord[] => {
    const read = pourRecordSchema.safeParse(pour);
    return read.success ? [read.data] : [];
  });
  if (!request.success || entries.length === 0) return undefined;
  return {
    kept: { request: request.data, amounts: planAmounts(request.data) },
    entries: entries.map((entry) => ({ ...entry, struck: false, enteredAt: entry.pouredAt })),
  };
}

function takeBatchesOver(db: Connection, now: string): void {
  const rows = db.all<{ id: string; version: number; position: number; setId: string; data: string }>(
    sql`select id, version, position, set_id as setId, data from old_batches`,
  );
  const designs = new Set(db.all<{ id: string }>(sql`select id from designs`).map(({ id }) => id));
  for (const { id, version, position, setId, data } of rows) {
    const old = JSON.parse(data) as OldBatch;
    const wish = batchSchema.parse(wishOf(old));
    const items = wish.items.filter(({ designId }) => designs.has(designId));
    batchStorage.write(db, id, { position, setId, data: { ...wish, items } }, version, now);
    const bench = benchOf(old) as { kept: Parameters<typeof keepPlan>[2]; entries: PourRecord[] } | undefined;
    if (!bench) continue;
    keepPlan(db, id, bench.kept, now);
    for (const entry of bench.entries) appendEntry(db, id, entry, { struck: false, enteredAt: entry.pouredAt });
  }
}

/** The journal's images in today's shapes. Pours were edits of a batch; now they are entries, and no edit is left of them. */
function upgradeJournal(db: Connection, context: UpgradeContext): void {
  for (const { id, changes } of db.select({ id: edits.id, changes: edits.changes }).from(edits).all()) {
    const next = (changes as Change[]).flatMap((change): Change[] => {
      const image = <T extends RowImage | null>(old: T): T => (old ? imageOf(change.kind, old, context) : old) as T;
      const [before, after] = [image(change.before), image(change.after)];
      const same = before && after && JSON.stringify(before.data) === JSON.stringify(after.data);
      return same ? [] : [{ ...change, before, after }];
    });
    if (next.length === 0) db.delete(edits).where(eq(edits.id, id)).run();
    else db.update(edits).set({ changes: next }).where(eq(edits.id, id)).run();
  }
}

function imageOf(kind: Change['kind'], image: RowImage, context: UpgradeContext): RowImage {
  if (kind === 'pour' || kind === 'lot' || kind === 'movement') return image;
  if (kind !== 'batch')
    return { ...image, data: upgraded(kind, image.data, image.shape ?? 1, context), shape: shapeOf(kind) };
  const old = image.data as OldBatch;
  if (!('pours' in old)) return image;
  return { ...image, data: wishOf(old), attached: benchOf(old) };
}
