import { and, asc, desc, eq, max, sql } from 'drizzle-orm';
import { madeUp, requestOfLayer, type Amounts, type PlanRequest } from '@/core/plan';
import {
  batchPourSchema,
  batchSchema,
  pourId,
  type Batch,
  type PourRecord,
  type WeighedCup,
} from '@/core/records/recordSchemas';
import type { BatchDetail, BatchRow, KeptPlan } from '@/core/records/views';
import { bookPour, plannedLayer } from './bookPour';
import type { Connection, RowImage, Storage } from './storage';
import { release } from './stock';
import { batches, batchItems, cupPours, cups, keptPlans, layers, pouredPieces, pours, weighings } from './schema';

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

type KeptLayer = Amounts['layers'][number];

/** What is kept of a plan in one piece: all but the layers, and of those what has no columns of its own. */
type KeptAmounts = Omit<Amounts, 'layers'> & ReturnType<typeof layerParts>;

const layerParts = (
  planned: readonly KeptLayer[],
): { layerDoses: KeptLayer['doses'][]; layerMade?: ReturnType<typeof madeUp>[] } => ({
  layerDoses: planned.map(({ doses }) => doses),
  layerMade: planned.map(({ stock, tintLeft, mostMix, cups: own }) => ({
    stock,
    tintLeft,
    mostMix,
    portions: own.map(({ portions }) => portions),
  })),
});

/** The plan that is kept with a batch; null before its first pour. */
export function keptPlan(db: Connection, batchId: string): KeptPlan | null {
  const kept = db.select().from(keptPlans).where(eq(keptPlans.batchId, batchId)).get();
  if (!kept) return null;
  const request = kept.request as PlanRequest;
  const pieceRows = db
    .select()
    .from(cupPours)
    .where(eq(cupPours.batchId, batchId))
    .orderBy(asc(cupPours.position))
    .all();
  const cupRows = db.select().from(cups).where(eq(cups.batchId, batchId)).orderBy(asc(cups.number)).all();
  const layerRows = db.select().from(layers).where(eq(layers.batchId, batchId)).orderBy(asc(layers.number)).all();
  const { layerDoses, layerMade, ...amounts } = kept.amounts as KeptAmounts;
  const partsOf = (cup: (typeof cupRows)[number]): Amounts['layers'][number]['cups'][number]['parts'] =>
    cup.partAGrams === null
      ? null
      : {
          partAGrams: cup.partAGrams,
          partBGrams: cup.partBGrams ?? 0,
          partAMl: cup.partAMl ?? 0,
          partBMl: cup.partBMl ?? 0,
        };
  return {
    request,
    amounts: {
      ...amounts,
      layers: layerRows.map(({ batchId: _, strength, own: ownDoses, productId, plantsBefore, ...layer }, i) => {
        const rows = cupRows.filter((cup) => cup.layer === layer.number);
        const tint = { ...(strength !== null && { strength }), ...(ownDoses && { own: ownDoses }) };
        const product = productId === null ? {} : { productId };
        // Plans of older versions did not carry how their cups are made up.
        const { portions, ...made } =
          layerMade?.[i] ??
          madeUp(
            requestOfLayer(request, product),
            { strength: 1, ...tint },
            rows.map(({ mixGrams }) => mixGrams),
          );
        const own = rows.map((cup, at) => ({
          number: cup.number,
          pouredGrams: cup.pouredGrams,
          mixGrams: cup.mixGrams,
          parts: partsOf(cup),
          potLifeMinutes: cup.potLifeMinutes,
          doses: cup.doses as Amounts['layers'][number]['doses'],
          portions: portions[at] ?? [],
          pours: pieceRows
            .filter((pour) => pour.layer === layer.number && pour.cup === cup.number)
            .map(({ designId, copy, tag, grams }) => ({ designId, copy, tag, grams })),
        }));
        return {
          ...layer,
          ...tint,
          ...product,
          ...made,
          ...(plantsBefore && { plantsBefore }),
          parts: summed(own.map(({ parts }) => parts)),
          doses: layerDoses[i] ?? [],
          cups: own,
        };
      }),
    },
  };
}

type Parts = Amounts['layers'][number]['parts'];

function summed(parts: readonly Parts[]): Parts {
  return parts.reduce<Parts>(
    (sum, part) =>
      part && {
        partAGrams: (sum?.partAGrams ?? 0) + part.partAGrams,
        partBGrams: (sum?.partBGrams ?? 0) + part.partBGrams,
        partAMl: (sum?.partAMl ?? 0) + part.partAMl,
        partBMl: (sum?.partBMl ?? 0) + part.partBMl,
      },
    null,
  );
}

/** Keeps what is planned of a batch as it is now, in place of what was kept before. */
export function keepPlan(db: Connection, batchId: string, { request, amounts }: KeptPlan, now: string): void {
  db.delete(keptPlans).where(eq(keptPlans.batchId, batchId)).run();
  const { layers: planned, ...rest } = amounts;
  db.insert(keptPlans)
    .values({ batchId, request, amounts: { ...rest, ...layerParts(planned) }, keptAt: now })
    .run();
  for (const {
    number,
    fromMm,
    toMm,
    thicknessMm,
    wetMm,
    strength = null,
    own = null,
    productId = null,
    plantsBefore = null,
    volumeMl,
    pouredGrams,
    mixGrams,
    fewestCups,
    ...layer
  } of planned) {
    db.insert(layers)
      .values({
        batchId,
        number,
        fromMm,
        toMm,
        thicknessMm,
        wetMm,
        strength,
        own,
        productId,
        plantsBefore,
        volumeMl,
        pouredGrams,
        mixGrams,
        fewestCups,
      })
      .run();
    for (const cup of layer.cups) {
      const { parts, doses, potLifeMinutes } = cup;
      const amount = { pouredGrams: cup.pouredGrams, mixGrams: cup.mixGrams };
      db.insert(cups)
        .values({ batchId, layer: number, number: cup.number, ...amount, ...parts, doses, potLifeMinutes })
        .run();
      const filled = cup.pours.map(({ designId, copy, tag, grams }, position) => ({
        batchId,
        layer: number,
        cup: cup.number,
        position,
        designId,
        copy,
        tag,
        grams,
      }));
      // SQLite takes so many values at once.
      for (let i = 0; i < filled.length; i += 500)
        db.insert(cupPours)
          .values(filled.slice(i, i + 500))
          .run();
    }
  }
}

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

const pourOf = (db: Connection, entry: typeof pours.$inferSelect): PourRecord => {
  const { id, layer, pouredAt, pouredUntil, temperatureC, note, tintLeft, expiredLots } = entry;
  return {
    layer,
    pouredAt,
    ...(pouredUntil && { pouredUntil }),
    temperatureC,
    cups: weighed(db, id),
    ...(tintLeft && { tintLeft }),
    ...(expiredLots && { expiredLots }),
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
    .map(({ cup, partAGrams, partBGrams, note, pouredGrams, discarded, doses, lots }) => ({
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
  { layer, pouredAt, pouredUntil, temperatureC, note, tintLeft, expiredLots, cups: filled }: PourRecord,
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

export { pourId };
