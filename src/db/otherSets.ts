import { sql } from 'drizzle-orm';
import type { OtherSet } from '@/core/records/views';
import type { Connection } from './storage';

/** The other sets of the workshop that are not put away, in short: their water, and the paint of their first bed. */
export const otherSets = (db: Connection, setId: string): OtherSet[] =>
  db.all<OtherSet>(sql`
    select s.id as id, json_extract(s.data, '$.name') as name, s.product_id as productId, s.recipe_id as recipeId,
      (select json_extract(d.data, '$.bedColour') from designs d where d.set_id = s.id order by d.position limit 1)
        as bedColour
    from sets s where s.id <> ${setId} and json_extract(s.data, '$.putAway') is not 1 order by s.position`);
