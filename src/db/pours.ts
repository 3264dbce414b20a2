import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { PourRecord, WeighedCup } from '@/core/records/recordSchemas';
import type { BatchDetail, KeptPlan } from '@/core/records/views';
import { keptPlan } from './keptPlans';
import type { Connection } from './storage';
import { pouredPieces, pours, weighings } from './schema';

/** Of each piece that is planned in the layer of an entry `c`: how many of its pours were made, by the rule of `dryPours`. */
const PIECE_POURS = `select design_id, copy, planned,
    case when exists (select 1 from weighings w where w.pour_id = c.id and w.poured_grams is not null)
      then min(planned, (select count(*) from poured_pieces r
        where r.pour_id = c.id and r.design_id = u.design_id and r.copy = u.copy))
      else planned end as made
  from (select design_id, copy, count(*) as planned from cup_pours
    where batch_id = c.batch_id and layer = c.layer group by design_id, copy) u`;

/** How many pours of the layer of an entry `c` were not made. */
export const DRY_POURS = sql.raw(`(select coalesce(sum(planned - made), 0) from (${PIECE_POURS}))`);

/** Each piece of the layer of an entry `c` as JSON: design, copy, pours planned, pours made. */
export const POURED_COPIES = sql.raw(
  `(select json_group_array(json_array(design_id, copy, planned, made)) from (${PIECE_POURS}))`,
);

/**
 * Whether the log has ever been told of a layer, and of one of its cups from a number on: a struck one was poured by what it says, and
 * then not after all.
 */
export const isEntered = (db: Connection, batchId: string, layer: number, cup: number): boolean =>
  db
    .select({ id: pours.id })
    .from(pours)
    .where(
      and(
        eq(pours.batchId, batchId),
        eq(pours.layer, layer),
        sql`exists (select 1 from weighings w where w.pour_id = ${pours.id} and w.cup >= ${cup})`,
      ),
    )
    .get() !== undefined;

/** The last entry of a layer whose cups all have numbers below one: what it was before a further run; null when there is none. */
export function entryBelow(db: Connection, batchId: string, layer: number, cup: number): PourRecord | null {
  const entry = db
    .select()
    .from(pours)
    .where(
      and(
        eq(pours.batchId, batchId),
        eq(pours.layer, layer),
        eq(pours.struck, false),
        sql`not exists (select 1 from weighings w where w.pour_id = ${pours.id} and w.cup >= ${cup})`,
      ),
    )
    .orderBy(desc(pours.id))
    .limit(1)
    .get();
  return entry ? pourOf(db, entry) : null;
}

/** The layers of a batch as they were poured: the entries that hold. */
export function currentPours(db: Connection, batchId: string): PourRecord[] {
  const entries = db
    .select()
    .from(pours)
    .where(and(eq(pours.batchId, batchId), sql`${pours.id} in (select id from current_pours)`))
    .orderBy(asc(pours.layer))
    .all();
  return entries.map((entry) => pourOf(db, entry));
}

/** When the layers of a batch were poured, without what went into them; and how many pours of each were not made. */
export const currentPourTimes = (
  db: Connection,
  batchId: string,
): (Pick<PourRecord, 'layer' | 'pouredAt' | 'pouredUntil'> & { dry: number })[] =>
  db
    .all<{ layer: number; pouredAt: string; pouredUntil: string | null; dry: number }>(
      sql`select layer, poured_at as pouredAt, poured_until as pouredUntil, ${DRY_POURS} as dry from current_pours c
        where batch_id = ${batchId} order by layer`,
    )
    .map(({ pouredUntil, ...pour }) => ({ ...pour, ...(pouredUntil !== null && { pouredUntil }) }));

export const pourOf = (db: Connection, entry: typeof pours.$inferSelect): PourRecord => {
  const { id, layer, pouredAt, pouredUntil, temperatureC, note, tintLeft, expiredLots, hardened } = entry;
  return {
    layer,
    pouredAt,
    ...(pouredUntil && { pouredUntil }),
    temperatureC,
    cups: weighed(db, id),
    ...(tintLeft && { tintLeft }),
    ...(expiredLots && { expiredLots }),
    ...(hardened && { hardened }),
    note,
  };
};

const weighed = (db: Connection, entry: number): PourRecord['cups'] =>
  db
    .select()
    .from(weighings)
    .where(eq(weighings.pourId, entry))
    .orderBy(asc(weighings.cup))
    .all()
    .map(({ cup, partAGrams, partBGrams, note, pouredGrams, discarded, doses, lots, bench }) => ({
      number: cup,
      partAGrams,
      partBGrams,
      note,
      ...(pouredGrams !== null && {
        pouredGrams,
        discarded,
        doses: doses ?? [],
        ...(lots && { lots }),
        pieces: piecesOf(db, entry, cup),
        ...(bench && { bench }),
      }),
    }));

const piecesOf = (db: Connection, entry: number, cup: number): NonNullable<WeighedCup['pieces']> =>
  db
    .select({
      designId: pouredPieces.designId,
      copy: pouredPieces.copy,
      tag: pouredPieces.tag,
      grams: pouredPieces.grams,
    })
    .from(pouredPieces)
    .where(and(eq(pouredPieces.pourId, entry), eq(pouredPieces.cup, cup)))
    .orderBy(asc(pouredPieces.position))
    .all();

/** A batch with what is kept of it and how it was poured. */
export function batchDetail(db: Connection, batchId: string): BatchDetail {
  const poured = currentPours(db, batchId);
  return { batchId, kept: poured.length > 0 ? keptPlan(db, batchId) : null, pours: poured };
}

/** What happened at the bench with a batch, entry by entry, and the plan that was kept: it leaves and comes back with it. */
export interface BenchWork {
  kept: KeptPlan | null;
  entries: (PourRecord & { struck: boolean; enteredAt: string })[];
}

export function benchWorkOf(db: Connection, batchId: string): BenchWork | undefined {
  const entries = db.select().from(pours).where(eq(pours.batchId, batchId)).orderBy(asc(pours.id)).all();
  const kept = keptPlan(db, batchId);
  // A plan is kept from the moment on at which a run begins.
  if (!kept && entries.length === 0) return undefined;
  return {
    kept,
    entries: entries.map((entry) => ({ ...pourOf(db, entry), struck: entry.struck, enteredAt: entry.enteredAt })),
  };
}

export function appendEntry(
  db: Connection,
  batchId: string,
  { layer, pouredAt, pouredUntil, temperatureC, note, tintLeft, expiredLots, hardened, cups: filled }: PourRecord,
  { struck, enteredAt }: { struck: boolean; enteredAt: string },
): void {
  const entry = db
    .insert(pours)
    .values({
      batchId,
      layer,
      pouredAt,
      pouredUntil: pouredUntil ?? null,
      temperatureC,
      note,
      tintLeft: tintLeft ?? null,
      expiredLots: expiredLots ?? null,
      hardened: hardened ?? null,
      struck,
      enteredAt,
    })
    .returning({ id: pours.id })
    .get();
  const rows = filled.map(({ number, pieces: _, ...cup }) => ({ pourId: entry.id, cup: number, ...cup }));
  if (rows.length > 0) db.insert(weighings).values(rows).run();
  const pieces = filled.flatMap(({ number, pieces: own = [] }) =>
    own.map((piece, position) => ({ pourId: entry.id, cup: number, position, ...piece })),
  );
  for (let i = 0; i < pieces.length; i += 500)
    db.insert(pouredPieces)
      .values(pieces.slice(i, i + 500))
      .run();
}
