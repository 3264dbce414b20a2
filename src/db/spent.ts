import { sql } from 'drizzle-orm';
import type { Spent } from '@/core/records/views';
import type { Connection } from './storage';

/**
 * Money that went out of the lots for each batch of a set: grams poured, lost and used, corrections counted, at the price of their own
 * lot (both parts of a kit at the same price a gram). What was found to have been in a lot after all cost nothing; what no lot was
 * ever entered of is not in it.
 */
export const spentOnSet = (db: Connection, setId: string): Spent[] =>
  db.all<Spent>(sql`
    with priced as materialized (
      select l.id, l.price / (select sum(json_extract(part.value, '$.amount')) from json_each(l.bought) part) as a_unit
      from lots l)
    select m.batch_id as batchId, sum(-m.amount * p.a_unit) as money
    from batches b
      join movements m on m.batch_id = b.id
      join priced p on p.id = m.lot_id
      left join movements found on found.id = m.counters and found.kind = 'found'
    where b.set_id = ${setId} and m.kind in ('poured', 'lost', 'used', 'corrected') and found.id is null
    group by m.batch_id order by b.position, b.id`);
