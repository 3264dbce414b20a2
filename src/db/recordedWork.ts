import { sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import { madeByOf } from '@/core/bed/measured';
import { offDrawing } from '@/core/bed/offDrawing';
import type { HardenedLook } from '@/core/cure/hardened';
import type {
  RecordedBed,
  RecordedCup,
  RecordedHardening,
  RecordedLevel,
  RecordedPack,
  RecordedStep,
  RecordedWork,
} from '@/core/learn/recordedWork';
import { measuredSchema } from '@/core/model/measuredSchema';
import { RECORD_SCHEMAS, type CopyInspection, type Finding } from '@/core/records/recordSchemas';
import { pieceKey } from '@/core/model/pieceRef';
import type { Course, Route } from '@/core/schedule/routes';
import { STEP_KIND_KEYS, type StepKind } from '@/core/schedule/stepKinds';
import { wallMinutes } from '@/core/time/wallTime';
import type { Connection } from './storage';

/** Everything on record that figures are learnt from, the oldest first. Practice leaves nothing here. */
export const recordedWork = (db: Connection): RecordedWork => ({
  cups: recordedCups(db),
  packs: recordedPacks(db),
  levels: recordedLevels(db),
  steps: recordedSteps(db),
  hardened: recordedHardening(db),
  beds: recordedBeds(db),
});

/** Of what a layer of a kept plan was poured. */
const PLANNED_PRODUCTS = `products_of as materialized (
  select batch_id, json_extract(request, '$.product.id') as id, json_extract(request, '$.product.shrinkage') as shrinkage
  from kept_plans)`;

function recordedCups(db: Connection): RecordedCup[] {
  const cups = db.all<Omit<RecordedCup, 'pours' | 'drops'> & { minutes: string; grams: string; drops: string | null }>(
    sql`with ${sql.raw(PLANNED_PRODUCTS)}
      select 'cup ' || w.pour_id || '.' || w.cup as key, c.poured_at as at, c.batch_id as batchId,
        coalesce(y.product_id, p.id) as productId, c.temperature_c as temperatureC,
        w.part_a_grams + coalesce(w.part_b_grams, 0)
          + coalesce((select sum(json_extract(d.value, '$.grams')) from json_each(w.doses) d), 0) as mixGrams,
        w.poured_grams as pouredGrams, json_extract(w.bench, '$.thickMinutes') as thickMinutes,
        json_extract(w.bench, '$.stirMinutes') as stirMinutes, json_extract(w.bench, '$.clearMinutes') as clearMinutes,
        json_extract(w.bench, '$.drops') as drops,
        json_array_length(w.bench, '$.pieceMinutes') as pieces, json_extract(w.bench, '$.pieceMinutes') as minutes,
        (select json_group_array(r.grams) from (select grams from poured_pieces r
          where r.pour_id = w.pour_id and r.cup = w.cup order by r.position) r) as grams
      from weighings w join current_pours c on c.id = w.pour_id
        join products_of p on p.batch_id = c.batch_id
        left join layers y on y.batch_id = c.batch_id and y.number = c.layer
      where w.discarded = 0 and w.poured_grams is not null and json_extract(w.bench, '$.read') and pieces > 0
      order by c.poured_at, w.pour_id, w.cup`,
  );
  return cups.map(({ minutes, grams, drops, ...one }) => {
    const poured = JSON.parse(grams) as number[];
    const taken = JSON.parse(minutes) as (number | null)[];
    const pours: RecordedCup['pours'] = [];
    for (let i = 0; i < poured.length; i++)
      if (typeof taken[i] === 'number') pours.push({ grams: poured[i]!, minutes: taken[i]! });
    return { ...one, pours, drops: drops === null ? [] : (JSON.parse(drops) as RecordedCup['drops']) };
  });
}

/** Layers that were touched while they hardened. */
export const recordedHardening = (db: Connection): RecordedHardening[] =>
  db
    .all<{ key: string; at: string; batchId: string; productId: string; looks: string }>(
      sql`with ${sql.raw(PLANNED_PRODUCTS)}
        select 'layer ' || c.id as key, c.poured_at as at, c.batch_id as batchId, coalesce(y.product_id, p.id) as productId,
          c.hardened as looks
        from current_pours c join products_of p on p.batch_id = c.batch_id
          left join layers y on y.batch_id = c.batch_id and y.number = c.layer
        where c.hardened is not null order by c.poured_at, c.id`,
    )
    .flatMap(({ looks, ...layer }) => (JSON.parse(looks) as HardenedLook[]).map((look) => ({ ...layer, ...look })));

/** Of so many beds at the most that were felt the drawings are laid out again, the newest ones. */
const MOST_BEDS = 60;
/** What a bed was found to be off its drawing, by piece and what it follows from. */
const beds = new LRUCache<string, number[]>({ max: 4 * MOST_BEDS });

/** Pieces, drawn ones and single copies, in which depths were felt. */
function recordedBeds(db: Connection): RecordedBed[] {
  const felt = db.all<{ id: string; at: string; state: string; design: string; measured: string }>(
    sql`select * from (
        select id, updated_at as at, version as state, data as design, json_extract(data, '$.measured') as measured from designs
        union all
        select p.id, p.updated_at, d.version || '.' || p.version, d.data, json_extract(p.data, '$.measured')
          from pieces p join designs d on d.id = json_extract(p.data, '$.designId'))
      where json_array_length(measured, '$.readings') >= 3 order by at desc, id limit ${MOST_BEDS}`,
  );
  return felt.toReversed().map(({ id, at, state, ...one }) => {
    const design = RECORD_SCHEMAS.design.parse(JSON.parse(one.design));
    const key = `${id} ${state} ${one.measured}`;
    const offMm = beds.get(key) ?? offDrawing(design, measuredSchema.parse(JSON.parse(one.measured)));
    beds.set(key, offMm);
    return { key: `bed ${id}`, at, batchId: null, madeBy: madeByOf(design), offMm };
  });
}

const recordedPacks = (db: Connection): RecordedPack[] =>
  db.all<RecordedPack>(
    sql`select * from (
      select 'lot ' || id as key, bought_on || 'T12:00' as at, null as batchId, item_id as productId, price,
        (select sum(json_extract(b.value, '$.amount')) from json_each(bought) b) as grams
      from lots where gone = 0 and item_kind = 'product' and price > 0) where grams > 0 order by at, key`,
  );

/** Findings beside which a level says nothing of how far the product shrank: what moved, and what ran out. */
const MOVED: ReadonlySet<Finding['kind']> = new Set(['wall gap', 'crack', 'warp', 'floated', 'leaked']);

/** How far off its level a piece was found; null where that was not said. */
function lowOf({ findings, outcome }: Pick<CopyInspection, 'findings' | 'outcome'>): number | null {
  if (findings.some(({ kind }) => MOVED.has(kind))) return null;
  const off = findings.find(({ kind }) => kind === 'low' || kind === 'high');
  if (!off) return outcome === 'remake' ? null : 0;
  return off.mm === undefined ? null : off.kind === 'low' ? off.mm : -off.mm;
}

/** Levels of pieces as they were first looked over, of batches that were poured of one product. */
export function recordedLevels(db: Connection): RecordedLevel[] {
  const batches = db.all<{
    batchId: string;
    productId: string;
    shrinkage: number;
    inspections: string;
    depths: string | null;
  }>(
    sql`with ${sql.raw(PLANNED_PRODUCTS)}
      select b.id as batchId, p.id as productId, p.shrinkage as shrinkage, b.inspections as inspections,
        -- Only where a level was off does its depth matter.
        case when instr(b.inspections, '"low"') or instr(b.inspections, '"high"') then (select json_group_object(json_extract(one.value, '$.designId'),
            10 * json_extract(one.value, '$.water.volumeMl') / max(0.01, json_extract(one.value, '$.water.surfaceCm2')))
          from kept_plans k, json_each(k.amounts, '$.pieces') one where k.batch_id = b.id) end as depths
      from batches b join products_of p on p.batch_id = b.id
      where b.inspections is not null
        and not exists (select 1 from layers y where y.batch_id = b.id and y.product_id <> p.id)
      order by b.pour_at, b.id`,
  );
  return batches.flatMap(({ batchId, productId, shrinkage, inspections, depths }) => {
    const depthOf = depths === null ? null : (JSON.parse(depths) as Record<string, number>);
    const first = new Map<string, CopyInspection>();
    for (const one of JSON.parse(inspections) as CopyInspection[])
      if (!first.has(pieceKey(one))) first.set(pieceKey(one), one);
    const read = [...first].flatMap(([key, one]) => {
      const [lowMm, depthMm] = [lowOf(one), depthOf ? (depthOf[one.designId] ?? 0) : 1];
      return lowMm !== null && depthMm > Math.abs(lowMm) ? [{ key, at: one.at, lowMm, depthMm }] : [];
    });
    return read.map(({ key, ...one }) => ({
      ...one,
      key: `piece ${batchId} ${key}`,
      batchId,
      productId,
      shrinkage,
      of: read.length,
    }));
  });
}

const KINDS: ReadonlySet<string> = new Set(STEP_KIND_KEYS);

/** Steps that were marked as done; a step of a set's own route is of the kind that it has there. */
export function recordedSteps(db: Connection): RecordedStep[] {
  const batches = db.all<{ batchId: string; course: string; route: string | null; pieces: number }>(
    sql`select b.id as batchId, b.course as course, json_extract(s.data, '$.route') as route,
        (select sum(copies) from batch_items i where i.batch_id = b.id) as pieces
      from batches b join sets s on s.id = b.set_id where b.course is not null order by b.pour_at, b.id`,
  );
  return batches.flatMap(({ batchId, course, route, pieces }) => {
    const own = new Map((route ? (JSON.parse(route) as Route) : []).map(({ id, kind }) => [id, kind]));
    return (JSON.parse(course) as Course).marks.flatMap(({ step, done }): RecordedStep[] => {
      const kind = own.get(step) ?? (KINDS.has(step) ? (step as StepKind) : undefined);
      const minutes = done ? wallMinutes(done.to) - wallMinutes(done.from) : 0;
      return kind && done && minutes > 0 && pieces > 0
        ? [{ key: `step ${batchId} ${step}`, at: done.to, batchId, kind, minutes, pieces }]
        : [];
    });
  });
}

/** What some batches are called, and of which set they are, by id. */
export const batchNames = (
  db: Connection,
  ids: readonly string[],
): Record<string, { name: string; set: string; setId: string }> =>
  Object.fromEntries(
    db
      .all<{ id: string; name: string; set: string; setId: string }>(
        sql`select b.id as id, b.name as name, json_extract(s.data, '$.name') as "set", b.set_id as setId
          from json_each(${JSON.stringify(ids)}) one join batches b on b.id = one.value join sets s on s.id = b.set_id`,
      )
      .map(({ id, ...names }) => [id, names]),
  );
