import { sql } from 'drizzle-orm';
import type { PieceDesign } from '@/core/model/designSchema';
import type { PlannedWork, PouredBatch } from '@/core/records/work';
import { currentPourTimes, DRY_POURS } from './pours';
import type { Connection } from './storage';

/** Full cure takes at most so many days; older pours need no look. */
const CURING_DAYS = 30;

/** Batches with layers still to pour, and those poured lately, with what their times follow from: by set. */
export function pouredBatches(db: Connection, now: string, setId?: string): Map<string, PouredBatch[]> {
  const since = new Date(Date.parse(`${now}:00Z`) - CURING_DAYS * 86_400_000).toISOString().slice(0, 16);
  const rows = db.all<
    Record<'setId' | 'batchId' | 'name' | 'request' | 'pieces' | 'finish' | 'own' | 'course', string>
  >(sql`
    select b.set_id as setId, b.id as batchId, b.name as name, b.own as own, b.course as course,
      json_remove(k.request, '$.pieces') as request, json_extract(k.amounts, '$.totals.pieces') as pieces,
      json_extract(k.amounts, '$.finish') as finish
    from (select c.batch_id, sum(${DRY_POURS} = 0) as layers, max(c.poured_at) as last_at
      from current_pours c group by c.batch_id) p
    join batches b on b.id = p.batch_id join kept_plans k on k.batch_id = b.id
    where (p.last_at >= ${since} or p.layers < (select count(*) from layers l where l.batch_id = b.id))
      and (${setId ?? null} is null or b.set_id = ${setId ?? null})`);
  const bySet = new Map<string, PouredBatch[]>();
  for (const { setId: set, batchId, name, request, pieces, finish, own, course } of rows)
    bySet.set(set, [
      ...(bySet.get(set) ?? []),
      {
        batchId,
        name,
        request: JSON.parse(request) as PouredBatch['request'],
        totals: { pieces: Number(pieces) },
        ...(finish && { finish: JSON.parse(finish) as NonNullable<PouredBatch['finish']> }),
        batch: {
          ...(own && { own: JSON.parse(own) as NonNullable<PouredBatch['batch']['own']> }),
          ...(course && { course: JSON.parse(course) as NonNullable<PouredBatch['batch']['course']> }),
        },
        layers: layersOf(db, batchId),
        pours: currentPourTimes(db, batchId),
      },
    ]);
  return bySet;
}

/** The layers of a kept plan as far as their times go. */
const layersOf = (db: Connection, batchId: string): PouredBatch['layers'] =>
  db
    .all<{
      number: number;
      wetMm: number;
      mixGrams: number;
      plantsBefore: number | null;
      productId: string | null;
      cups: number;
      pours: number;
    }>(
      sql`
    select number, wet_mm as wetMm, mix_grams as mixGrams, plants_before as plantsBefore, product_id as productId,
      (select count(*) from cups c where c.batch_id = l.batch_id and c.layer = l.number) as cups,
      (select count(*) from cup_pours c where c.batch_id = l.batch_id and c.layer = l.number) as pours
    from layers l where l.batch_id = ${batchId} order by number`,
    )
    .map(({ plantsBefore, productId, cups, pours: count, ...layer }) => ({
      ...layer,
      ...(plantsBefore && { plantsBefore: true }),
      ...(productId !== null && { productId }),
      cups: Array.from({ length: cups }, (_, i) => ({ pours: Array.from({ length: i === 0 ? count : 0 }) })),
    }));

/** The batch that is planned to be poured first, of each set. */
export function plannedWork(db: Connection, setId?: string): Map<string, PlannedWork[]> {
  const rows = db.all<PlannedWork & { setId: string }>(sql`
    select b.set_id as setId, b.id as batchId, b.name as name, min(b.pour_at) as pourAt
    from batches b where not exists (select 1 from current_pours p where p.batch_id = b.id)
      and (${setId ?? null} is null or b.set_id = ${setId ?? null})
    group by b.set_id`);
  return new Map(rows.map(({ setId: set, ...row }) => [set, [row]]));
}

/** How many batches each set has. */
export function batchCounts(db: Connection): Map<string, number> {
  const rows = db.all<{ setId: string; count: number }>(
    sql`select set_id as setId, count(*) as count from batches group by set_id`,
  );
  return new Map(rows.map(({ setId, count }) => [setId, count]));
}

/** How many copies of each kind of piece each set has: one entry a design. */
export function pieceCounts(db: Connection): Map<string, { kind: PieceDesign['kind']; copies: number }[]> {
  const rows = db.all<{ setId: string; kind: PieceDesign['kind']; copies: number }>(sql`
    select set_id as setId, json_extract(data, '$.kind') as kind, json_extract(data, '$.copies') as copies from designs`);
  const bySet = new Map<string, { kind: PieceDesign['kind']; copies: number }[]>();
  for (const { setId, kind, copies } of rows) {
    const own = bySet.get(setId) ?? [];
    own.push({ kind, copies });
    bySet.set(setId, own);
  }
  return bySet;
}
