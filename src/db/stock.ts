import { and, asc, desc, eq, isNull, max, sql } from 'drizzle-orm';
import {
  lotSchema,
  movementSchema,
  type Lot,
  type MovementKind,
  type StockItem,
  type StockPart,
} from '@/core/model/stockSchema';
import { inUseOrder, lotUnitPrice, NOTHING, type LotState } from '@/core/stock/lots';
import type { StockLevel } from '@/core/stock/haveAndNeed';
import type { LotRow, MovementRow } from '@/core/records/views';
import type { Connection, Storage } from './storage';
import { lots, movements } from './schema';

/** What the database says when a lot would hold less than nothing; the trigger has the same words. */
const LESS_THAN_NOTHING = 'a lot cannot hold less than nothing';

/** Whether something was refused because a lot would hold less than nothing. */
export const isLessThanNothing = (error: unknown): boolean =>
  error instanceof Error && (error.message.includes(LESS_THAN_NOTHING) || isLessThanNothing(error.cause));

/** A movement as it is written. */
export interface NewMovement {
  key?: string;
  lotId: string | null;
  item: StockItem;
  part: StockPart;
  amount: number;
  kind: MovementKind;
  at: string;
  note: string;
  batchId?: string | null;
  layer?: number | null;
  cup?: number | null;
  counters?: number | null;
}

export function move(db: Connection, { item, ...movement }: NewMovement, now: string): void {
  db.insert(movements)
    .values({ ...movement, itemKind: item.kind, itemId: item.id, enteredAt: now })
    .run();
}

interface LotLine {
  id: string;
  version: number;
  itemKind: StockItem['kind'];
  itemId: string;
  name: string;
  bought: string;
  boughtOn: string;
  openedOn: string | null;
  bestBefore: string | null;
  price: number;
  left: string;
  lastAt: string | null;
}

const LOT_LINE = sql`
  select l.id, l.version, l.item_kind as itemKind, l.item_id as itemId, l.name, l.bought, l.bought_on as boughtOn,
    l.opened_on as openedOn, l.best_before as bestBefore, l.price,
    (select json_group_array(json_object('part', m.part, 'amount', m.amount)) from (
      select part, sum(amount) as amount from movements where lot_id = l.id group by part order by part) m) as "left",
    (select max(at) from movements where lot_id = l.id) as lastAt
  from lots l where l.gone = 0`;

const lotOf = (line: Omit<LotLine, 'left' | 'lastAt' | 'id' | 'version'>): Lot => ({
  of: { kind: line.itemKind, id: line.itemId },
  name: line.name,
  bought: JSON.parse(line.bought) as Lot['bought'],
  boughtOn: line.boughtOn,
  openedOn: line.openedOn,
  bestBefore: line.bestBefore,
  price: line.price,
});

/** Adding and taking away leaves crumbs of a binary fraction; they are not stock. */
const tidy = (amount: number): number => (Math.abs(amount) < NOTHING ? 0 : amount);

const rowOf = (line: LotLine): LotRow => ({
  id: line.id,
  version: line.version,
  data: lotOf(line),
  left: (JSON.parse(line.left) as LotRow['left']).map(({ part, amount }) => ({ part, amount: tidy(amount) })),
  lastAt: line.lastAt,
});

/** Every lot with what is left in it, in the order in which they were entered. */
export const listLots = (db: Connection): LotRow[] =>
  db.all<LotLine>(sql`${LOT_LINE} order by l.position, l.id`).map(rowOf);

/** So many emptied lots of each thing are still shown: what was used last is bought again. */
const EMPTIED_SHOWN = 2;

/** Lots that hold something, and of each thing the newest that do not; how many more there are of a thing, by kind and id. */
export function lotsInUse(db: Connection): { lots: LotRow[]; emptied: Record<string, number> } {
  const emptied: Record<string, number> = {};
  const shown = new Map<string, number>();
  const lots = listLots(db)
    .toReversed()
    .filter(({ data: { of }, left }) => {
      if (left.some(({ amount }) => amount > 0)) return true;
      const key = `${of.kind} ${of.id}`;
      shown.set(key, (shown.get(key) ?? 0) + 1);
      if (shown.get(key)! <= EMPTIED_SHOWN) return true;
      emptied[key] = (emptied[key] ?? 0) + 1;
      return false;
    });
  return { lots: lots.toReversed(), emptied };
}

export function getLot(db: Connection, id: string): LotRow | null {
  const line = db.get<LotLine | undefined>(sql`${LOT_LINE} and l.id = ${id}`);
  return line ? rowOf(line) : null;
}

/** Lots of one thing, as what is poured is taken out of them. */
export const lotsOf = (db: Connection, { kind, id }: StockItem): LotState[] =>
  db
    .all<LotLine>(sql`${LOT_LINE} and l.item_kind = ${kind} and l.item_id = ${id}`)
    .map(rowOf)
    .map(({ id: lotId, data, left }) => ({ id: lotId, lot: data, left }));

/** The bottles of products that what was poured of a batch came out of. */
export const bottlesTakenBy = (db: Connection, batchId: string): LotState[] =>
  db
    .all<LotLine>(
      sql`${LOT_LINE} and l.item_kind = 'product' and l.id in (
        select lot_id from movements where batch_id = ${batchId} and kind in ('poured', 'lost') and amount < 0)`,
    )
    .map(rowOf)
    .map(({ id, data, left }) => ({ id, lot: data, left }));

/** The newest movements of a lot, the latest first; with what was left after each. */
export const lotHistory = (db: Connection, lotId: string, most = 200): MovementRow[] =>
  db.all<MovementRow>(sql`
    select * from (
      select id, part, amount, kind, at, note, batch_id as batchId, layer, cup,
        sum(amount) over (partition by part order by id) as leftAfter
      from movements where lot_id = ${lotId})
    order by id desc limit ${most}`);

/** What stands on the shelf of each thing; `batchId` is the batch for which it is asked. `today` tells which lots are past their date. */
export function stockLevels(db: Connection, batchId: string | null, expired: (lot: LotState) => boolean): StockLevel[] {
  const levels = new Map<string, StockLevel>();
  const levelOf = (item: StockItem, part: StockPart): StockLevel => {
    const key = `${item.kind} ${item.id} ${part}`;
    const level = levels.get(key) ?? {
      item,
      part,
      good: 0,
      expired: 0,
      reservedHere: 0,
      reservedElsewhere: 0,
      known: false,
      pricePerUnit: null,
      lots: [],
    };
    levels.set(key, level);
    return level;
  };
  const lots = listLots(db).map(({ id, data: lot, left }) => ({ id, lot, left }));
  for (const { id, lot, left } of inUseOrder(lots))
    for (const { part, amount } of left) {
      const level = levelOf(lot.of, part);
      level.known = true;
      const before = level.good + level.expired;
      if (before + amount > NOTHING)
        level.pricePerUnit = ((level.pricePerUnit ?? 0) * before + lotUnitPrice(lot) * amount) / (before + amount);
      if (expired({ id, lot, left })) level.expired += amount;
      else {
        level.good += amount;
        if (amount > NOTHING) level.lots.push({ id, name: lot.name, left: amount });
      }
    }
  for (const { kind, id, part, batch, amount } of reservations(db)) {
    const level = levelOf({ kind, id }, part);
    if (batch === batchId) level.reservedHere += amount;
    else level.reservedElsewhere += amount;
  }
  return [...levels.values()];
}

interface Reservation {
  kind: StockItem['kind'];
  id: string;
  part: StockPart;
  batch: string;
  amount: number;
}

/** What is reserved for batches that still stand: what was reserved, less what was released. */
const reservations = (db: Connection, batchId?: string): Reservation[] =>
  db.all<Reservation>(sql`
    select item_kind as kind, item_id as id, part, batch_id as batch, sum(amount) as amount from movements
    where lot_id is null and (${batchId ?? null} is null or batch_id = ${batchId ?? null})
    group by item_kind, item_id, part, batch_id having sum(amount) > ${NOTHING}`);

/** Gives back whatever is still reserved for a batch. */
export function release(db: Connection, batchId: string, note: string, now: string): void {
  for (const { kind, id, part, amount } of reservations(db, batchId))
    move(db, { lotId: null, item: { kind, id }, part, amount: -amount, kind: 'released', at: now, note, batchId }, now);
}

/** Reserves for a batch what it needs, in place of what was reserved for it before. */
export function reserve(
  db: Connection,
  batchId: string,
  needs: readonly { item: StockItem; part: StockPart; amount: number }[],
  note: string,
  now: string,
): void {
  release(db, batchId, note, now);
  for (const { item, part, amount } of needs)
    if (amount > NOTHING) move(db, { lotId: null, item, part, amount, kind: 'reserved', at: now, note, batchId }, now);
}

/** How lots are kept: a row, and a movement for each part that was bought. Taken away it leaves the books by movements too. */
export const lotStorage: Storage = {
  image(db, id) {
    const row = db
      .select()
      .from(lots)
      .where(and(eq(lots.id, id), eq(lots.gone, false)))
      .get();
    if (!row) return null;
    const data = lotSchema.parse(lotOf({ ...row, bought: JSON.stringify(row.bought) }));
    return { version: row.version, position: row.position, setId: null, data };
  },
  write(db, id, { position, data }, version, now) {
    const { of, ...lot } = lotSchema.parse(data);
    const values = { ...lot, itemKind: of.kind, itemId: of.id, position, version, gone: false, updatedAt: now };
    const before = db.select().from(lots).where(eq(lots.id, id)).get();
    if (before) db.update(lots).set(values).where(eq(lots.id, id)).run();
    else
      db.insert(lots)
        .values({ id, ...values })
        .run();
    const at = `${lot.boughtOn}T12:00`;
    if (!before) {
      for (const { part, amount } of lot.bought)
        move(db, { lotId: id, item: of, part, amount, kind: 'bought', at, note: '' }, now);
    } else if (before.gone) counterAll(db, id, 'put back in the books', now);
    else {
      // A mistake in what it held when it was bought is corrected by as much.
      for (const part of new Set([...before.bought, ...lot.bought].map((one) => one.part))) {
        const held = (bought: Lot['bought']): number => bought.find((one) => one.part === part)?.amount ?? 0;
        const amount = held(lot.bought) - held(before.bought);
        const note = 'what it held when it was bought';
        if (amount !== 0) move(db, { lotId: id, item: of, part, amount, kind: 'corrected', at: now, note }, now);
      }
    }
    if (lot.openedOn !== null && before?.openedOn !== lot.openedOn)
      move(
        db,
        {
          lotId: id,
          item: of,
          part: lot.bought[0]!.part,
          amount: 0,
          kind: 'opened',
          at: `${lot.openedOn}T12:00`,
          note: '',
        },
        now,
      );
  },
  remove(db, id, now) {
    db.update(lots).set({ gone: true, updatedAt: now }).where(eq(lots.id, id)).run();
    const row = db.select().from(lots).where(eq(lots.id, id)).get();
    if (!row) return undefined;
    const item: StockItem = { kind: row.itemKind, id: row.itemId };
    const sums = db.all<{ part: StockPart; amount: number }>(
      sql`select part, sum(amount) as amount from movements where lot_id = ${id} group by part`,
    );
    for (const { part, amount } of sums)
      move(db, { lotId: id, item, part, amount: -amount, kind: 'corrected', at: now, note: OUT_OF_THE_BOOKS }, now);
    return undefined;
  },
  nextPosition(db) {
    const last = db
      .select({ last: max(lots.position) })
      .from(lots)
      .get();
    return (last?.last ?? -1) + 1;
  },
};

const OUT_OF_THE_BOOKS = 'taken out of the books';

/** Takes back the movements by which a lot left the books the last time. */
function counterAll(db: Connection, lotId: string, note: string, now: string): void {
  const out = db
    .select()
    .from(movements)
    .where(and(eq(movements.lotId, lotId), eq(movements.note, OUT_OF_THE_BOOKS)))
    .all();
  for (const one of out.filter(({ id }) => !isCountered(db, id))) counter(db, one, note, now);
}

const isCountered = (db: Connection, id: number): boolean =>
  db.select({ id: movements.id }).from(movements).where(eq(movements.counters, id)).get() !== undefined;

function counter(db: Connection, row: typeof movements.$inferSelect, note: string, now: string): void {
  const { lotId, itemKind, itemId, part, amount, id, batchId, layer, cup } = row;
  const item: StockItem = { kind: itemKind, id: itemId };
  move(
    db,
    { lotId, item, part, amount: -amount, kind: 'corrected', at: now, note, batchId, layer, cup, counters: id },
    now,
  );
}

/** Takes movements back: those first that took something away, so that no lot falls below nothing on the way. */
export function counterMovements(
  db: Connection,
  rows: readonly (typeof movements.$inferSelect)[],
  note: string,
  now: string,
): void {
  for (const row of [...rows].sort((a, b) => a.amount - b.amount)) counter(db, row, note, now);
}

/** Movements that a poured layer caused and that still hold. */
export const movementsOfLayer = (db: Connection, batchId: string, layer: number): (typeof movements.$inferSelect)[] =>
  db
    .select()
    .from(movements)
    .where(
      and(
        eq(movements.batchId, batchId),
        eq(movements.layer, layer),
        isNull(movements.counters),
        sql`${movements.lotId} is not null`,
        sql`not exists (select 1 from movements c where c.counters = ${movements.id})`,
      ),
    )
    .orderBy(asc(movements.id))
    .all();

/** How what the maker enters of a lot is kept: a movement; taken back by another. Known by its key. */
export const movementStorage: Storage = {
  image(db, key) {
    const row = newestOf(db, key);
    if (!row || isCountered(db, row.id) || row.lotId === null) return null;
    const { lotId, part, amount, kind, at, note } = row;
    const data = movementSchema.parse({ lotId, part, amount, kind, at, note });
    return { version: 1, position: 0, setId: null, data };
  },
  write(db, key, { data }, _version, now) {
    const { lotId, ...movement } = movementSchema.parse(data);
    const lot = db.select().from(lots).where(eq(lots.id, lotId)).get();
    // Made again after it was taken back, it is another entry of the same edit.
    const again = newestOf(db, key) !== undefined;
    if (lot)
      move(
        db,
        {
          ...movement,
          lotId,
          item: { kind: lot.itemKind, id: lot.itemId },
          key: again ? `${key}+${now}+${countOf(db, key)}` : key,
        },
        now,
      );
  },
  remove(db, key, now) {
    const row = newestOf(db, key);
    if (row && !isCountered(db, row.id)) counter(db, row, 'taken back', now);
    return undefined;
  },
  nextPosition: () => 0,
};

/** The lot that an entered movement is of; null when there is none. */
export const lotOfMovement = (db: Connection, key: string): string | null => newestOf(db, key)?.lotId ?? null;

/** An entry, and those that it was made again by: `+` and `,` are neighbours. */
const ofKey = (key: string) =>
  sql`(${movements.key} = ${key} or (${movements.key} > ${`${key}+`} and ${movements.key} < ${`${key},`}))`;
const newestOf = (db: Connection, key: string): typeof movements.$inferSelect | undefined =>
  db.select().from(movements).where(ofKey(key)).orderBy(desc(movements.id)).limit(1).get();
const countOf = (db: Connection, key: string): number =>
  db.select({ id: movements.id }).from(movements).where(ofKey(key)).all().length;
