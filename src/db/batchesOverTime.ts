import { sql } from 'drizzle-orm';
import { hardeningShare } from '@/core/cure/hardened';
import { reckonedByBatch } from '@/core/records/job';
import { meanStepMm, type BatchOverTime } from '@/core/records/overTime';
import { pieceKey } from '@/core/model/pieceRef';
import type { CopyInspection } from '@/core/records/recordSchemas';
import type { StepMinutes } from '@/core/schedule/routes';
import { recordedHardening, recordedLevels, recordedSteps } from './recordedWork';
import type { Connection } from './storage';
import { POUR_SUMS } from './workshopLog';

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Levels at edges that were measured after the pour, by batch: the mean of each edge’s places. */
function measuredEdges(db: Connection): Map<string, { piece: string; mm: number }[]> {
  const edges = new Map<string, { piece: string; mm: number }[]>();
  const measured = db.all<{ batchId: string; piece: string; mm: number }>(
    sql`select distinct u.batch_id as batchId, p.id as piece, edge.key as edge,
        (select avg(level.value) from json_each(edge.value, '$.levels') level) as mm
      from pieces p, json_each(p.data, '$.edges') edge
        join cup_pours u on u.design_id = json_extract(p.data, '$.designId') and u.copy = json_extract(p.data, '$.copy')
      where json_type(edge.value, '$.levels') = 'array'`,
  );
  for (const { batchId, piece, mm } of measured) edges.set(batchId, [...(edges.get(batchId) ?? []), { piece, mm }]);
  return edges;
}

/** Every batch of which anything was poured, the oldest first; grams and money are the log’s. */
export function batchesOverTime(db: Connection, own: StepMinutes): BatchOverTime[] {
  const reckoned = reckonedByBatch(recordedSteps(db), own);
  const levels = new Map<string, number[]>();
  for (const { batchId, lowMm } of recordedLevels(db))
    if (batchId !== null) levels.set(batchId, [...(levels.get(batchId) ?? []), Math.abs(lowMm)]);
  const hardening = new Map<string, number[]>();
  for (const look of recordedHardening(db)) {
    const share = hardeningShare(look);
    if (look.batchId !== null && share !== null)
      hardening.set(look.batchId, [...(hardening.get(look.batchId) ?? []), share]);
  }
  const edges = measuredEdges(db);
  return db
    .all<
      Omit<BatchOverTime, 'looked' | 'passed' | 'offMm' | 'colourApart' | 'timesReckoned' | 'curedShare' | 'stepMm'> & {
        inspections: string | null;
      }
    >(
      sql`select batchId, name, setId, "set", min(at) as at, sum(mixedGrams) as mixedGrams, sum(lostGrams) as lostGrams,
          sum(money) as money, pieces, inspections
        from (select b.id as batchId, b.name as name, b.set_id as setId, json_extract(s.data, '$.name') as "set", c.poured_at as at,
            (select sum(copies) from batch_items i where i.batch_id = b.id) as pieces, b.inspections as inspections,
            ${sql.raw(POUR_SUMS)}
          from current_pours c join batches b on b.id = c.batch_id join sets s on s.id = b.set_id)
        group by batchId order by at, batchId`,
    )
    .map(({ inspections, ...batch }) => {
      const first = new Map<string, CopyInspection>();
      const all = inspections ? (JSON.parse(inspections) as CopyInspection[]) : [];
      const apart = all.flatMap(({ colour }) => colour?.apart ?? []);
      for (const one of all) if (!first.has(pieceKey(one))) first.set(pieceKey(one), one);
      const off = levels.get(batch.batchId);
      const times = reckoned.get(batch.batchId);
      return {
        ...batch,
        looked: first.size,
        passed: [...first.values()].filter(({ outcome }) => outcome === 'pass').length,
        offMm: off ? mean(off) : null,
        colourApart: apart.length > 0 ? mean(apart) : null,
        timesReckoned: times ? times.real / times.reckoned : null,
        stepMm: meanStepMm(edges.get(batch.batchId) ?? []),
        curedShare: hardening.has(batch.batchId) ? mean(hardening.get(batch.batchId)!) : null,
      };
    });
}
