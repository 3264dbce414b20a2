import { sql } from 'drizzle-orm';
import type { Spent } from '@/core/records/views';
import type { Connection } from './images';

/**
 * Money that went out of the lots for each batch of a set: grams poured, lost and used, corrections counted, at the price of their own
 * lot (both parts of a kit at the same price a gram). What was found to have been in a lot after all cost nothing; what no lot was
 * ever entered of is not in it.
 */
export const spentOnSet = (db: Connection, setId: string): Spent[] =>
  db.all<Spent>(sql`
    select m.batch_id as batchId,
      sum(-m.amount * l.price / (select sum(json_extract(part.value, '$.amount')) from json_each(l.bought) part)) as money
    from movements m
      join lots l on l.id = m.lot_id
      join batches b on b.id = m.batch_id
    where b.set_id = ${setId} and m.kind in ('poured', 'lost', 'used', 'corrected')
      and not exists (select 1 from movements found where found.id = m.counters and found.kind = 'found')
    group by m.batch_id order by b.position, b.id`);
