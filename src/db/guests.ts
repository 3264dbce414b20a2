import { sql } from 'drizzle-orm';
import { withJoints } from '@/core/bed/joints';
import type { Guest } from '@/core/records/views';
import { lastCopyTaken } from './batches';
import { getDocument, listDocuments } from './documents';
import type { Connection } from './storage';

/** A design of another set as a batch takes it: with its bed drawn to the standards of its own set, and its measured copies. */
function guestOf(db: Connection, { id, setId }: { id: string; setId: string }): Guest[] {
  const [design, set] = [getDocument(db, 'design', id), getDocument(db, 'set', setId)];
  if (!design || !set) return [];
  const { name, levelMm, standards = [] } = set.data;
  return [
    {
      set: { id: setId, name, levelMm },
      design: { ...design, data: withJoints(design.data, standards) },
      pieces: listDocuments(db, 'piece', setId).records.filter((piece) => piece.data.designId === id),
      taken: lastCopyTaken(db, id),
    },
  ];
}

/** Designs of other sets that batches of a set take copies of. */
export const guestsOf = (db: Connection, setId: string): Guest[] =>
  db
    .all<{ id: string; setId: string }>(
      sql`
        select distinct d.id as id, d.set_id as setId from batch_items i
          join batches b on b.id = i.batch_id join designs d on d.id = i.design_id
        where b.set_id = ${setId} and d.set_id <> ${setId} order by d.set_id, d.position`,
    )
    .flatMap((row) => guestOf(db, row));

/** More than these are no choice any more. */
const MOST_POSSIBLE = 120;

/** Designs of other sets, not put away, whose water stands at the same level: a batch may take copies of them along. */
export const possibleGuests = (db: Connection, setId: string): Guest[] =>
  db
    .all<{ id: string; setId: string }>(
      sql`
        select d.id as id, d.set_id as setId from designs d join sets s on s.id = d.set_id, sets own
        where own.id = ${setId} and s.id <> ${setId} and json_extract(s.data, '$.putAway') is not 1
          and abs(json_extract(s.data, '$.levelMm') - json_extract(own.data, '$.levelMm')) < 0.05
        order by s.position, d.position limit ${MOST_POSSIBLE}`,
    )
    .flatMap((row) => guestOf(db, row));
