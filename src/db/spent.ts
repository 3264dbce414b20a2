import { sql } from 'drizzle-orm';
import type { Spent } from '@/core/records/views';
import type { Connection } from './storage';

/**
 * What movements `m` took out of the lots, in money: what was poured, lost, thrown away and used, less what was taken back, at the price
 * of their own lot (both parts of a kit at the same price a gram). What was found to have been in a lot after all cost nothing; what no
 * lot was ever entered of is not in it. More rules may be added to it with `and`.
 */
export const TAKEN_MONEY = `sum(-m.amount * l.price / (select sum(json_extract(part.value, '$.amount')) from json_each(l.bought) part))
  from movements m join lots l on l.id = m.lot_id left join movements countered on countered.id = m.counters
  where m.kind in ('poured', 'lost', 'thrown away', 'used', 'corrected') and coalesce(countered.kind, '') <> 'found'`;

/** What each batch of a set took out of the lots, in money. */
export const spentOnSet = (db: Connection, setId: string): Spent[] =>
  db.all<Spent>(sql`
    select id as batchId, money from (
      select b.id as id, b.position as position, (select ${sql.raw(TAKEN_MONEY)} and m.batch_id = b.id) as money
      from batches b where b.set_id = ${setId})
    where money is not null order by position, id`);
