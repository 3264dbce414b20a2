import { sql } from 'drizzle-orm';
import type { Batch, Settings } from '@/core/records/recordSchemas';
import { numbersOf, type CopyInBatch } from '@/core/records/copies';
import { lastInspection } from '@/core/records/inspections';
import type { ClockAndRoom } from '@/core/records/views';
import { pouredWork, type PouredWork } from '@/core/records/work';
import { getBatch } from './batches';
import { POURED_COPIES } from './pours';
import { getDocument } from './documents';
import type { Connection } from './storage';
import { pouredBatches } from './work';

/** Batches that take copies of a set's designs, its own and those of other sets, in the order in which they are poured. */
const batchesTaking = (db: Connection, setId: string): { id: string; setId: string }[] =>
  db.all<{ id: string; setId: string }>(sql`
    select distinct b.id as id, b.set_id as setId, b.pour_at, b.position from batches b
      join batch_items i on i.batch_id = b.id join designs d on d.id = i.design_id
    where d.set_id = ${setId} order by b.pour_at, b.position, b.id`);

interface LayerGot {
  layer: number;
  pouredAt: string;
  pieces: [designId: string, copy: number, planned: number, made: number][];
}

/** The layers of a batch that were poured, with what each planned copy got of them. */
const layersGot = (db: Connection, batchId: string): { of: number; got: LayerGot[] } => ({
  of: db.get<{ count: number }>(sql`select count(*) as count from layers where batch_id = ${batchId}`).count,
  got: db
    .all<Omit<LayerGot, 'pieces'> & { pieces: string }>(
      sql`
      select c.layer as layer, c.poured_at as pouredAt, ${POURED_COPIES} as pieces
      from current_pours c where c.batch_id = ${batchId} order by c.layer`,
    )
    .map(({ pieces, ...layer }) => ({ ...layer, pieces: JSON.parse(pieces) as LayerGot['pieces'] })),
});

/** When the step of a batch in which its pieces are looked over was done. */
function inspectedAt(db: Connection, setId: string, { course }: Pick<Batch, 'course'>): string | null {
  const route = getDocument(db, 'set', setId)?.data.route ?? [];
  const looks = new Set(['inspect', ...route.filter(({ kind }) => kind === 'inspect').map(({ id }) => id)]);
  return course?.marks.find(({ step, done }) => done && looks.has(step))?.done?.to ?? null;
}

/**
 * The copies of a set's designs that batches have taken, older batches first: what each has got of its batch's layers. Times come from
 * the plans that were kept; what was poured longer ago than anything cures has none.
 */
export function copiesInBatches(
  db: Connection,
  setId: string,
  { now, settings, known }: { now: string; settings: Pick<Settings, 'room' | 'workplace'>; known: ClockAndRoom },
): CopyInBatch[] {
  const taking = batchesTaking(db, setId);
  const ours = new Set(
    db.all<{ id: string }>(sql`select id from designs where set_id = ${setId}`).map(({ id: design }) => design),
  );
  const works = new Map<string, PouredWork>(
    [...new Set(taking.map((batch) => batch.setId))].flatMap((home) =>
      (pouredBatches(db, now, home).get(home) ?? []).map((batch) => [
        batch.batchId,
        pouredWork(batch, settings, known),
      ]),
    ),
  );
  return taking.flatMap(({ id, setId: home }): CopyInBatch[] => {
    const { data, poured } = getBatch(db, id)!;
    const { of, got } = poured ? layersGot(db, id) : { of: 0, got: [] };
    const [work, looked] = [works.get(id), inspectedAt(db, home, data)];
    return data.items
      .filter(({ designId }) => ours.has(designId))
      .flatMap((item) =>
        numbersOf(item).map((copy): CopyInBatch => {
          const layers = got.flatMap(({ pouredAt, pieces }) => {
            const [, , planned, made] = pieces.find((one) => one[0] === item.designId && one[1] === copy) ?? [];
            return made ? [{ pouredAt, whole: made === planned }] : [];
          });
          const fate = data.fates?.find((one) => one.designId === item.designId && one.copy === copy);
          return {
            designId: item.designId,
            copy,
            batchId: id,
            batchName: data.name,
            setId: home,
            pourAt: data.pourAt,
            layers: layers.filter(({ whole }) => whole).length,
            partly: layers.some(({ whole }) => !whole),
            of,
            lastAt: layers.at(-1)?.pouredAt ?? null,
            firmAt: work?.firmAt ?? null,
            curedAt: work?.curedAt ?? null,
            inspectedAt: looked,
            inspection: lastInspection(data, { designId: item.designId, copy }),
            fate: fate ? { fate: fate.fate, at: fate.at, why: fate.why } : null,
          };
        }),
      );
  });
}
