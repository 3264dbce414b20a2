import { sql } from 'drizzle-orm';
import type { PieceDesign } from '@/core/bed/schema';
import type { PlanRequest } from '@/core/plan';
import type { PlannedWork, PouredWork } from '@/core/records/work';
import type { Connection } from './images';

/** Full cure takes at most so many days; older pours need no look. */
const CURING_DAYS = 30;

/** Batches with layers still to pour, and those poured lately: by set. */
export function pouredWork(db: Connection, now: string, setId?: string): Map<string, PouredWork[]> {
  const since = new Date(Date.parse(`${now}:00Z`) - CURING_DAYS * 86_400_000).toISOString().slice(0, 16);
  const rows = db.all<Omit<PouredWork, 'product' | 'room'> & { setId: string; product: string; room: string }>(sql`
    select b.set_id as setId, b.id as batchId, b.name as name, p.layers as layers,
      (select count(*) from layers l where l.batch_id = b.id) as "of", p.last_at as lastAt,
      coalesce((select l.wet_mm from layers l where l.batch_id = b.id and l.number = p.top), 1) as lastWetMm,
      json_extract(k.request, '$.product') as product, json_extract(k.request, '$.room') as room
    from (select batch_id, count(distinct layer) as layers, max(poured_at) as last_at, max(layer) as top
      from current_pours group by batch_id) p
    join batches b on b.id = p.batch_id join kept_plans k on k.batch_id = b.id
    where (p.last_at >= ${since} or p.layers < (select count(*) from layers l where l.batch_id = b.id))
      and (${setId ?? null} is null or b.set_id = ${setId ?? null})`);
  const bySet = new Map<string, PouredWork[]>();
  for (const { setId: set, product, room, ...row } of rows)
    bySet.set(set, [
      ...(bySet.get(set) ?? []),
      {
        ...row,
        product: JSON.parse(product) as PlanRequest['product'],
        room: JSON.parse(room) as PlanRequest['room'],
      },
    ]);
  return bySet;
}

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
