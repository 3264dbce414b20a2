import { and, desc, eq } from 'drizzle-orm';
import { batchPourSchema, type PourRecord } from '@/core/records/recordSchemas';
import { getBatch, setOfBatch, touchBatch } from './batches';
import { bookPour, plannedLayer } from './bookPour';
import { keptPlan } from './keptPlans';
import { appendEntry, currentPours, pourOf } from './pours';
import type { Connection, Storage } from './storage';
import { pours } from './schema';

const partsOfId = (id: string): { batchId: string; layer: number } => {
  const dot = id.lastIndexOf('.');
  return { batchId: id.slice(0, dot), layer: Number(id.slice(dot + 1)) };
};

/** What a poured layer took leaves the shelf. */
function book(db: Connection, batchId: string, layer: number, pour: PourRecord | null, now: string): void {
  const kept = keptPlan(db, batchId);
  const batchName = getBatch(db, batchId)?.data.name ?? '';
  if (kept) bookPour(db, { batchId, batchName, layer, planned: plannedLayer(kept, layer), pour }, now);
}

/** All of an entry that decides what left the bottles. */
const taking = ({ pouredAt, tintLeft, expiredLots, cups: filled }: PourRecord): string =>
  JSON.stringify([pouredAt, tintLeft, expiredLots, filled.map(({ note: _, ...cup }) => cup)]);

/** How poured layers are kept: every write is a further entry, and so is taking one back. */
export const pourStorage: Storage = {
  image(db, id) {
    const { batchId, layer } = partsOfId(id);
    const holds = currentPours(db, batchId).find((pour) => pour.layer === layer);
    const entries = db
      .select({ id: pours.id })
      .from(pours)
      .where(and(eq(pours.batchId, batchId), eq(pours.layer, layer)))
      .all().length;
    // In the schema's own order of fields: images are compared as text.
    const data = holds && batchPourSchema.parse({ ...holds, batchId });
    return data ? { version: entries, position: 0, setId: setOfBatch(db, batchId), data } : null;
  },
  write(db, _id, { data }, _version, now) {
    const { batchId, ...pour } = batchPourSchema.parse(data);
    const before = currentPours(db, batchId).find(({ layer }) => layer === pour.layer);
    appendEntry(db, batchId, pour, { struck: false, enteredAt: now });
    // A further word on what was poured moves nothing on the shelf.
    if (!before || taking(before) !== taking(pour)) book(db, batchId, pour.layer, pour, now);
    touchBatch(db, batchId, now);
  },
  remove(db, id, now) {
    const { batchId, layer } = partsOfId(id);
    const last = db
      .select()
      .from(pours)
      .where(and(eq(pours.batchId, batchId), eq(pours.layer, layer)))
      .orderBy(desc(pours.id))
      .limit(1)
      .get();
    if (last) appendEntry(db, batchId, { ...pourOf(db, last), cups: [] }, { struck: true, enteredAt: now });
    book(db, batchId, layer, null, now);
    touchBatch(db, batchId, now);
    return undefined;
  },
  nextPosition: () => 0,
};
