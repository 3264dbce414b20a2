import { sql, type SQL } from 'drizzle-orm';
import {
  LOG_KINDS,
  logEntry,
  type About,
  type LogAsk,
  type LogEntry,
  type LogKind,
  type LogPage,
  type LogPlace,
  type LogRecord,
  type LogView,
  type LogWeek,
} from '@/core/records/workshopLog';
import type { MeasuredEdges } from '@/core/model/seamSchema';
import type { Swatch } from '@/core/model/recipeSchema';
import { folded } from './dataFile';
import { getDocument } from './documents';
import { TAKEN_MONEY } from './spent';
import type { Connection } from './storage';

/** A line that is found before anything else is read of it. */
interface Line {
  kind: LogKind;
  /** In its own table, or its batch and day. */
  key: string;
  at: string;
}

const wallTimeOf = (column: string): string => `strftime('%Y-%m-%dT%H:%M', ${column} / 1000, 'unixepoch', 'localtime')`;
const SET_WORDS = `coalesce(s.words, '')`;
const ITEM_NAME = `case m.item_kind
  when 'product' then (select json_extract(data, '$.name') from products where id = m.item_id)
  when 'colourant' then (select json_extract(data, '$.name') from colourants where id = m.item_id)
  else (select json_extract(data, '$.name') from consumables where id = m.item_id) end`;
const TAG = `coalesce((select json_extract(data, '$.tag') from designs where id = json_extract(one.value, '$.designId')), 'a piece')`;
/** When an edge of a piece was measured; of those of before when the piece was last changed. */
const EDGE_AT = `coalesce(json_extract(one.value, '$.at'), p.updated_at)`;
/** What the maker enters at the shelf, that still holds: what pours took stands with these. */
const AT_SHELF = `m.lot_id is not null and m.batch_id is null and m.counters is null
  and m.kind in ('used', 'thrown away', 'corrected', 'found')
  and not exists (select 1 from movements c where c.counters = m.id)`;

/**
 * Where entries of each kind are read from: kind, key, moment, set, batch and lot of each, and the words by which it is found. The words are only
 * put together where some are asked for.
 */
const SOURCES: Readonly<
  Record<LogKind, { columns: string; words: string; from: string; where?: string; names?: string }>
> = {
  poured: {
    columns: `'poured' as kind, cast(c.id as text) as key, c.poured_at as at, b.set_id as setId, b.id as batchId, null as lotId`,
    words: `b.name || ' ' || ${SET_WORDS} || ' ' || c.note || ' ' || coalesce(n.notes, '')
      || ' ' || coalesce((select group_concat(t.tag, ' ') from batch_items i join tags t on t.id = i.design_id
           where i.batch_id = b.id), '')
      || ' ' || coalesce((select group_concat(l.words) from movements m join lot_words l on l.id = m.lot_id
           where m.batch_id = c.batch_id and m.layer = c.layer), '')`,
    from: `current_pours c join batches b on b.id = c.batch_id`,
    names: `left join set_words s on s.id = b.set_id left join cup_notes n on n.pour_id = c.id`,
  },
  run: {
    columns: `'run' as kind, r.id as key, ${wallTimeOf('r.begun_at')} as at, r.set_id as setId, r.batch_id as batchId, null as lotId`,
    words: `r.name || ' ' || ${SET_WORDS} || ' ' || coalesce((select group_concat(json_extract(e.data, '$.text'), ' ')
        from run_events e where e.run_id = r.id and json_extract(e.data, '$.type') = 'note'), '')`,
    from: `runs r`,
    names: `left join set_words s on s.id = r.set_id`,
    where: `where r.practice_speed is null`,
  },
  'looked over': {
    columns: `'looked over' as kind, b.id || ' ' || substr(json_extract(one.value, '$.at'), 1, 10) as key,
      min(json_extract(one.value, '$.at')) as at, b.set_id as setId, b.id as batchId, null as lotId`,
    words: `b.name || ' ' || ${SET_WORDS} || ' ' || group_concat(${TAG} || ' ' || json_extract(one.value, '$.note') || ' '
        || coalesce((select group_concat(json_extract(f.value, '$.kind')) from json_each(one.value, '$.findings') f), ''), ' ')`,
    from: `batches b join json_each(b.inspections) one`,
    names: `left join set_words s on s.id = b.set_id`,
    where: `group by b.id, substr(json_extract(one.value, '$.at'), 1, 10)`,
  },
  photo: {
    columns: `'photo' as kind, b.id || ' ' || substr(json_extract(one.value, '$.at'), 1, 10) as key,
      min(json_extract(one.value, '$.at')) as at, b.set_id as setId, b.id as batchId, null as lotId`,
    words: `b.name || ' ' || ${SET_WORDS} || ' ' || group_concat(${TAG}, ' ')`,
    from: `batches b join json_each(b.photos) one`,
    names: `left join set_words s on s.id = b.set_id`,
    where: `group by b.id, substr(json_extract(one.value, '$.at'), 1, 10)`,
  },
  seam: {
    columns: `'seam' as kind, p.id || ' ' || substr(${EDGE_AT}, 1, 10) as key, min(${EDGE_AT}) as at, p.set_id as setId,
      (select u.batch_id from cup_pours u where u.design_id = json_extract(p.data, '$.designId')
        and u.copy = json_extract(p.data, '$.copy') limit 1) as batchId, null as lotId`,
    words: `${SET_WORDS} || ' ' || coalesce(t.tag, '')`,
    from: `pieces p join json_each(p.data, '$.edges') one`,
    names: `left join set_words s on s.id = p.set_id left join tags t on t.id = json_extract(p.data, '$.designId')`,
    where: `group by p.id, substr(${EDGE_AT}, 1, 10)`,
  },
  swatch: {
    columns: `'swatch' as kind, c.id || ' ' || substr(json_extract(one.value, '$.at'), 1, 10) as key,
      min(json_extract(one.value, '$.at')) as at, null as setId, null as batchId, null as lotId`,
    words: `json_extract(c.data, '$.name')`,
    from: `colourants c join json_each(c.data, '$.swatches') one`,
    where: `where json_extract(one.value, '$.at') is not null
      group by c.id, substr(json_extract(one.value, '$.at'), 1, 10)`,
  },
  became: {
    columns: `'became' as kind,
      b.id || ' ' || json_extract(one.value, '$.fate') || ' ' || substr(json_extract(one.value, '$.at'), 1, 10) as key,
      min(json_extract(one.value, '$.at')) as at, b.set_id as setId, b.id as batchId, null as lotId`,
    words: `b.name || ' ' || ${SET_WORDS} || ' ' || group_concat(${TAG} || ' ' || json_extract(one.value, '$.why'), ' ')`,
    from: `batches b join json_each(b.fates) one`,
    names: `left join set_words s on s.id = b.set_id`,
    where: `group by b.id, json_extract(one.value, '$.fate'), substr(json_extract(one.value, '$.at'), 1, 10)`,
  },
  bought: {
    columns: `'bought' as kind, m.id as key, m.bought_on || 'T12:00' as at, null as setId, null as batchId, m.id as lotId`,
    words: `m.name || ' ' || coalesce(${ITEM_NAME}, '')`,
    from: `lots m`,
    where: `where m.gone = 0`,
  },
  shelf: {
    columns: `'shelf' as kind, cast(m.id as text) as key, m.at as at, null as setId, null as batchId, m.lot_id as lotId`,
    words: `l.words || ' ' || m.note || ' ' || m.kind`,
    from: `movements m`,
    names: `join lot_words l on l.id = m.lot_id`,
    where: `where ${AT_SHELF}`,
  },
  note: {
    columns: `'note' as kind, n.id as key, json_extract(n.data, '$.at') as at, json_extract(n.data, '$.setId') as setId,
      null as batchId, null as lotId`,
    words: `json_extract(n.data, '$.text') || ' ' || ${SET_WORDS}`,
    from: `notes n`,
    names: `left join set_words s on s.id = json_extract(n.data, '$.setId')`,
  },
};

/** Names that many entries share, and notes of cups: taken once out of where they stand. */
const NAMES = `
  set_words as materialized (
    select id, json_extract(data, '$.name') || ' ' || coalesce(json_extract(data, '$.job.customer'), '') as words from sets),
  tags as materialized (select id, json_extract(data, '$.tag') as tag from designs),
  lot_words as materialized (select m.id, m.name || ' ' || coalesce(${ITEM_NAME}, '') as words from lots m),
  cup_notes as materialized (select pour_id, group_concat(note, ' ') as notes from weighings where note <> '' group by pour_id)`;

const entriesOf = (kind: LogKind, withWords: boolean): string => {
  const { columns, words, from, where = '', names = '' } = SOURCES[kind];
  return withWords
    ? `select ${columns}, ${words} as words from ${from} ${names} ${where}`
    : `select ${columns} from ${from} ${where}`;
};

const wordsOf = (words: string): string[] => folded(words).split(/\s+/).filter(Boolean);
/** What the database finds by itself where a text is plain; one with other letters is folded first, which takes ten times as long. */
const saysWord = (word: string): SQL =>
  sql`(words like ${`%${word.replace(/[!%_]/g, '!$&')}%`} escape '!' or (length(words) < length(cast(words as blob)) and says(words, ${word})))`;

const both = (rules: readonly SQL[]): SQL => sql.join([...rules], sql` and `);

/** Entries about one thing: of its batches, bottles, sets. */
const ABOUT_RULES: Record<About['kind'], (of: string) => SQL> = {
  product: (id) => sql`(batchId in (select batch_id from kept_plans where json_extract(request, '$.product.id') = ${id}
      union select batch_id from layers where product_id = ${id})
    or lotId in (select id from lots where item_kind = 'product' and item_id = ${id}))`,
  lot: (id) => sql`(lotId = ${id} or batchId in (select batch_id from movements where lot_id = ${id}))`,
  piece: (id) => sql`batchId in (select batch_id from batch_items where design_id = ${id})`,
  job: (customer) => sql`setId in (select id from sets where json_extract(data, '$.job.customer') = ${customer})`,
};

function entriesThat({ words, kinds, setId, about, before }: LogAsk): SQL {
  const wanted = kinds.length > 0 ? kinds : LOG_KINDS;
  const rules = both([
    sql`at is not null`,
    ...(before ? [sql`at < ${before}`] : []),
    ...(setId ? [sql`setId = ${setId}`] : []),
    ...(about ? [ABOUT_RULES[about.kind](about.of)] : []),
  ]);
  const said = wordsOf(words).map(saysWord);
  const arms = wanted.map((kind) => {
    const own = sql`select * from (${sql.raw(entriesOf(kind, said.length > 0))}) where ${rules}`;
    // With a limit its words are put together once, not for each rule that asks for them.
    return said.length > 0 ? sql`select kind, key, at from (${own} limit -1) where ${both(said)}` : own;
  });
  return sql`select kind, key, at from (${sql.join(arms, sql` union all `)})`;
}

/** So many entries at a time; a day that they would cut is left for the next time. */
const AT_ONCE = 30;
const dayOf = ({ at }: Line): string => at.slice(0, 10);

/** Whole days of the log, the newest that are asked for first. */
export function logPage(db: Connection, ask: LogAsk): LogPage {
  const newest = (most: number): Line[] =>
    db.all<Line>(
      sql`with ${sql.raw(NAMES)} select * from (${entriesThat(ask)}) order by at desc, key desc limit ${most}`,
    );
  let lines = newest(AT_ONCE);
  const cut = lines.length === AT_ONCE ? dayOf(lines.at(-1)!) : null;
  // A day that is more than that by itself comes whole.
  if (cut !== null && dayOf(lines[0]!) === cut) lines = newest(-1).filter((line) => dayOf(line) === cut);
  else if (cut !== null) lines = lines.filter((line) => dayOf(line) !== cut);
  const days = new Map<string, Line[]>();
  for (const line of lines) days.set(dayOf(line), [...(days.get(dayOf(line)) ?? []), line]);
  return {
    days: [...days].map(([day, own]) => ({ day, entries: own.toReversed().flatMap((line) => entryOf(db, line)) })),
    before: cut === null ? null : dayOf(lines.at(-1)!),
    pieces: ask.setId ? piecesOf(db, ask.setId) : [],
  };
}

/** The pieces of a set by their names. */
const piecesOf = (db: Connection, setId: string): LogPage['pieces'] =>
  db.all(sql`select id, json_extract(data, '$.tag') || ' ' || json_extract(data, '$.name') as name
    from designs where set_id = ${setId} order by position, id`);

/** What was ever bought that has a name, the newest first, and who jobs were for. */
export const logThings = (db: Connection): Pick<LogView, 'lots' | 'customers'> => ({
  lots: db.all(sql`select m.id as id, m.name || ', ' || coalesce(${sql.raw(ITEM_NAME)}, 'gone') as name from lots m
    where m.gone = 0 order by m.bought_on desc, m.id`),
  customers: db
    .all<{ customer: string }>(
      sql`select distinct json_extract(data, '$.job.customer') as customer from sets
        where coalesce(json_extract(data, '$.job.customer'), '') <> '' order by customer`,
    )
    .map(({ customer }) => customer),
});

/** Every entry that is asked for, the newest first: each is read when its turn comes. */
export function* allEntries(db: Connection, ask: LogAsk): Generator<LogEntry> {
  const lines = db.all<Line>(
    sql`with ${sql.raw(NAMES)} select * from (${entriesThat(ask)}) order by at desc, key desc`,
  );
  for (const line of lines) yield* entryOf(db, line);
}

const PLACE = {
  batch: `b.set_id as setId, json_extract(s.data, '$.name') as "set", b.id as batchId, b.name as name`,
  lot: `null as setId, null as "set", null as batchId, l.name as name, l.id as lotId`,
};
type Row<T> = Omit<LogPlace, 'key' | 'at' | 'lotId' | 'runId' | 'note'> & { lotId?: string | null } & T;
const parsed = <T>(text: string | null): T[] => (text === null ? [] : (JSON.parse(text) as T[]));

/**
 * Product in stock tint and premixes that went into no cup of an entry `c`: as it was read, or else what the ledger took for it beside
 * the cups. Where neither says it, and no bottle of the product was ever entered, it is not counted.
 */
const TINT_LEFT = `coalesce(json_extract(c.tint_left, '$.resinGrams'), (select -sum(m.amount) from movements m
  where m.batch_id = c.batch_id and m.layer = c.layer and m.cup is null and m.item_kind = 'product'), 0)`;

/** What a layer of a pour `c` came to: what was mixed, what of that reached no piece, what it cost. */
export const POUR_SUMS = `(select coalesce(sum(w.part_a_grams + coalesce(w.part_b_grams, 0)), 0) from weighings w where w.pour_id = c.id)
      + ${TINT_LEFT} as mixedGrams,
    (select coalesce(sum(w.part_a_grams + coalesce(w.part_b_grams, 0)
        - min(w.part_a_grams + coalesce(w.part_b_grams, 0), case when w.poured_grams is not null then w.poured_grams
            when p.mix_grams > 0 then (w.part_a_grams + coalesce(w.part_b_grams, 0)) * p.poured_grams / p.mix_grams
            else w.part_a_grams + coalesce(w.part_b_grams, 0) end)), 0)
      from weighings w left join cups p on p.batch_id = c.batch_id and p.layer = c.layer and p.number = w.cup
      where w.pour_id = c.id) + ${TINT_LEFT} as lostGrams,
    (select ${TAKEN_MONEY} and m.batch_id = c.batch_id and m.layer = c.layer) as money`;

/** A batch, with what a column of it says of its copies on one day; `key` is the batch and the day. */
function copiesOfDay(
  db: Connection,
  key: string,
  column: 'inspections' | 'photos',
): Row<{ copies: string }> | undefined {
  const [batchId, day] = key.split(' ');
  return db.get<Row<{ copies: string }> | undefined>(sql`select ${sql.raw(PLACE.batch)},
      (select json_group_array(json_set(one.value, '$.tag', ${sql.raw(TAG)})) from json_each(b.${sql.raw(column)}) one
        where substr(json_extract(one.value, '$.at'), 1, 10) = ${day}) as copies
    from batches b join sets s on s.id = b.set_id where b.id = ${batchId}`);
}

interface Readers {
  [kind: string]: (db: Connection, key: string) => { place: Row<object>; record: LogRecord } | null;
}
const READERS: Record<LogKind, Readers[string]> = {
  poured: (db, key) => {
    const row = db.get<
      | Row<{
          layer: number;
          product: string | null;
          temperatureC: number;
          note: string;
          mixedGrams: number;
          lostGrams: number;
          money: number | null;
          cups: string;
          pieces: string;
        }>
      | undefined
    >(sql`select ${sql.raw(PLACE.batch)}, c.layer as layer, c.temperature_c as temperatureC, c.note as note,
        (select json_extract(data, '$.name') from products where id = coalesce(
          (select product_id from layers y where y.batch_id = c.batch_id and y.number = c.layer),
          json_extract(s.data, '$.productId'))) as product,
        (select json_group_array(json_array(w.note, w.discarded)) from weighings w where w.pour_id = c.id) as cups,
        (select json_group_array(json_object('tag', tag, 'copies', copies)) from (
          select tag, count(distinct copy) as copies from cup_pours u
          where u.batch_id = c.batch_id and u.layer = c.layer group by tag order by min(u.cup), min(u.position))) as pieces,
        ${sql.raw(POUR_SUMS)}
      from pours c join batches b on b.id = c.batch_id join sets s on s.id = b.set_id where c.id = ${Number(key)}`);
    if (!row) return null;
    const cups = parsed<[note: string, discarded: number]>(row.cups);
    return {
      place: row,
      record: {
        kind: 'poured',
        layer: row.layer,
        product: row.product ?? 'a product that is gone',
        cups: cups.length,
        discarded: cups.filter(([, discarded]) => discarded === 1).length,
        mixedGrams: row.mixedGrams,
        lostGrams: row.lostGrams,
        money: row.money,
        temperatureC: row.temperatureC,
        pieces: parsed(row.pieces),
        notes: [row.note, ...cups.map(([note]) => note)],
      },
    };
  },
  run: (db, key) => {
    const row = db.get<
      Row<{ begunAt: number; overAt: number | null; notes: string; givenUp: string | null }> | undefined
    >(sql`select r.set_id as setId, json_extract(s.data, '$.name') as "set", r.batch_id as batchId, r.name as name,
        r.begun_at as begunAt, r.over_at as overAt,
        (select json_group_array(json_extract(e.data, '$.text')) from run_events e
          where e.run_id = r.id and json_extract(e.data, '$.type') = 'note') as notes,
        (select coalesce(json_extract(e.data, '$.why'), '') from run_events e
          where e.run_id = r.id and json_extract(e.data, '$.type') = 'give up' limit 1) as givenUp
      from runs r left join sets s on s.id = r.set_id where r.id = ${key}`);
    if (!row) return null;
    const { begunAt, overAt, notes, givenUp } = row;
    const minutes = overAt === null ? null : (overAt - begunAt) / 60_000;
    return { place: row, record: { kind: 'run', minutes, givenUp, notes: parsed<string>(notes) } };
  },
  'looked over': (db, key) => {
    const row = copiesOfDay(db, key, 'inspections');
    return row ? { place: row, record: { kind: 'looked over', copies: parsed(row.copies) } } : null;
  },
  photo: (db, key) => {
    const row = copiesOfDay(db, key, 'photos');
    return row ? { place: row, record: { kind: 'photo', copies: parsed(row.copies) } } : null;
  },
  seam: (db, key) => {
    const [id, day] = key.split(' ');
    const row = db.get<Row<{ tag: string | null; copy: number; edges: string }> | undefined>(sql`
      select p.set_id as setId, json_extract(s.data, '$.name') as "set", null as batchId, '' as name,
        (select json_extract(data, '$.tag') from designs where id = json_extract(p.data, '$.designId')) as tag,
        json_extract(p.data, '$.copy') as copy, (select json_group_object(one.key, json(one.value))
          from json_each(p.data, '$.edges') one where substr(${sql.raw(EDGE_AT)}, 1, 10) = ${day}) as edges
      from pieces p join sets s on s.id = p.set_id where p.id = ${id}`);
    if (!row) return null;
    const edges = JSON.parse(row.edges) as MeasuredEdges;
    return { place: row, record: { kind: 'seam', tag: row.tag ?? 'a piece', copy: row.copy, edges } };
  },
  swatch: (db, key) => {
    const [colourantId, day] = key.split(' ') as [string, string];
    const row = db.get<Row<{ swatches: string }> | undefined>(sql`
      select null as setId, null as "set", null as batchId, json_extract(c.data, '$.name') as name,
        (select json_group_array(json(one.value)) from json_each(c.data, '$.swatches') one
          where substr(json_extract(one.value, '$.at'), 1, 10) = ${day}) as swatches
      from colourants c where c.id = ${colourantId}`);
    return row
      ? {
          place: row,
          record: { kind: 'swatch', colourantId, colourant: row.name, swatches: parsed<Swatch>(row.swatches) },
        }
      : null;
  },
  became: (db, key) => {
    const [batchId, fate, day] = key.split(' ');
    const row = db.get<Row<{ copies: string }> | undefined>(sql`select ${sql.raw(PLACE.batch)},
        (select json_group_array(json_set(one.value, '$.tag', ${sql.raw(TAG)})) from json_each(b.fates) one
          where substr(json_extract(one.value, '$.at'), 1, 10) = ${day} and json_extract(one.value, '$.fate') = ${fate}) as copies
      from batches b join sets s on s.id = b.set_id where b.id = ${batchId}`);
    return row
      ? { place: row, record: { kind: 'became', fate: fate as 'delivered' | 'spoilt', copies: parsed(row.copies) } }
      : null;
  },
  bought: (db, key) => {
    const row = db.get<
      Row<{ item: string | null; kind: 'product'; bought: string; price: number }> | undefined
    >(sql`select ${sql.raw(PLACE.lot)}, l.item_kind as kind, l.bought as bought, l.price as price, ${sql.raw(ITEM_NAME)} as item
      from lots l join lots m on m.id = l.id where l.id = ${key}`);
    if (!row) return null;
    const { item, kind: of, bought, price } = row;
    return {
      place: row,
      record: { kind: 'bought', item: item ?? 'a thing that is gone', of, amounts: parsed(bought), price },
    };
  },
  shelf: (db, key) => {
    const row = db.get<
      Row<{ item: string | null; of: 'product'; did: string; part: 'all'; amount: number; note: string }> | undefined
    >(sql`select ${sql.raw(PLACE.lot)}, m.item_kind as "of", m.kind as did, m.part as part, m.amount as amount, m.note as note,
        ${sql.raw(ITEM_NAME)} as item
      from movements m join lots l on l.id = m.lot_id where m.id = ${Number(key)}`);
    if (!row) return null;
    const { item, of, did, part, amount, note } = row;
    return {
      place: row,
      record: { kind: 'shelf', did, item: item ?? 'a thing that is gone', of, amounts: [{ part, amount }], note },
    };
  },
  note: (db, key) => {
    const row = db.get<Row<{ text: string }> | undefined>(sql`
      select json_extract(n.data, '$.setId') as setId, json_extract(s.data, '$.name') as "set", null as batchId, '' as name,
        json_extract(n.data, '$.text') as text
      from notes n left join sets s on s.id = json_extract(n.data, '$.setId') where n.id = ${key}`);
    return row ? { place: row, record: { kind: 'note', text: row.text } } : null;
  },
};

function entryOf(db: Connection, { kind, key, at }: Line): LogEntry[] {
  const read = READERS[kind]!(db, key);
  if (!read) return [];
  const { setId, set, batchId, name, lotId = null } = read.place;
  const note = kind === 'note' ? getDocument(db, 'note', key) : null;
  const place = {
    key: `${kind} ${key}`,
    at,
    setId,
    set,
    batchId,
    name,
    lotId,
    runId: kind === 'run' ? key : null,
    note,
  };
  return [logEntry(place, read.record)];
}

/** What was poured and lost week by week, the oldest first; weeks without a pour are left out. */
export const logWeeks = (db: Connection): LogWeek[] =>
  db.all<LogWeek>(sql`
    select monday, sum(mixedGrams) as mixedGrams, sum(lostGrams) as lostGrams, coalesce(sum(money), 0) as money from (
      select date(substr(c.poured_at, 1, 10), '-6 days', 'weekday 1') as monday, ${sql.raw(POUR_SUMS)} from current_pours c)
    group by monday order by monday`);
