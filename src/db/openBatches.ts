import { sql } from 'drizzle-orm';
import { DRY_POURS } from './pours';
import type { Connection } from './storage';

/** A batch is on the calendar until so many days after its last layer was poured or was said to have failed, with all that is done to it afterwards. */
const DAYS_AFTER_THE_LAST = 14;
/** More are not planned together. */
export const MOST_OPEN_BATCHES = 24;

/** Batches of all sets in sight that are still being made, with their sets: those poured next first. */
export const openBatches = (db: Connection, now: string): { id: string; setId: string }[] =>
  db.all<{ id: string; setId: string }>(sql`
    select b.id, b.set_id as setId
    from batches b join sets s on s.id = b.set_id and coalesce(json_extract(s.data, '$.putAway'), 0) = 0
      left join (
        select c.batch_id, sum(${DRY_POURS} = 0) as poured, max(c.poured_at) as last_at
        from current_pours c group by c.batch_id
      ) p on p.batch_id = b.id
      left join (select l.batch_id, count(*) as layers from layers l group by l.batch_id) k on k.batch_id = b.id
    where (p.poured is null or p.poured < k.layers
        or julianday(p.last_at) > julianday(${now}) - ${DAYS_AFTER_THE_LAST}
        or exists (select 1 from json_each(b.course, '$.marks') m
          where julianday(json_extract(m.value, '$.failed.at')) > julianday(${now}) - ${DAYS_AFTER_THE_LAST}))
      and exists (select 1 from batch_items i where i.batch_id = b.id)
    order by b.pour_at desc, b.id limit ${MOST_OPEN_BATCHES}`);
