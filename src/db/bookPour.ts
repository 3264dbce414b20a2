import { eq } from 'drizzle-orm';
import type { KeptPlan } from '@/core/records/views';
import type { PourRecord } from '@/core/records/recordSchemas';
import { colourIn, type TintLeft } from '@/core/pouring/portions';
import { consumableTakes, cupTakes, lotMovements, tintTakes } from '@/core/stock/pourMovements';
import { isPast, type LotState } from '@/core/stock/lots';
import type { StockItem } from '@/core/model/stockSchema';
import { getDocument, listDocuments } from './documents';
import type { Connection } from './storage';
import { lots } from './schema';
import { counterMovements, lotsOf, move, movementsOfLayer, release } from './stock';

const UNPLANNED = { pouredGrams: 0, mixGrams: 0, doses: [] };

/** What was planned of a layer, as far as it decides what leaves the shelf. */
export interface PlannedLayer {
  productId: string;
  cups: readonly { number: number; pouredGrams: number; mixGrams: number; doses: { id: string; grams: number }[] }[];
  /** What of its stock tint and premixes goes into no cup. */
  tintLeft: TintLeft;
  /** Cups of the layers below. */
  cupsBefore: number;
  pieces: number;
  damMm: number;
  isLast: boolean;
}

/** A layer of a plan that was kept; null when it has no such layer. */
export function plannedLayer({ request, amounts }: KeptPlan, layer: number): PlannedLayer | null {
  const planned = amounts.layers[layer - 1];
  return planned
    ? {
        productId: planned.productId ?? request.product.id,
        // Where the bench read nothing, colourants are taken as they were to be measured.
        cups: planned.cups.map(({ doses, ...cup }) => ({
          ...cup,
          doses: doses.map(({ id }) => ({ id, grams: colourIn(cup.portions, id) })),
        })),
        tintLeft: planned.tintLeft,
        cupsBefore: amounts.layers.slice(0, layer - 1).reduce((sum, { cups }) => sum + cups.length, 0),
        pieces: amounts.totals.pieces,
        damMm: amounts.totals.damMm,
        isLast: layer === amounts.layers.length,
      }
    : null;
}

/** What is poured, of which batch (which may be gone by now), and by which plan. */
interface Poured {
  batchId: string;
  batchName: string;
  layer: number;
  planned: PlannedLayer | null;
  /** Null: it was not poured after all. */
  pour: PourRecord | null;
}

/**
 * Books a poured layer: what its cups took leaves the lots, and a sealed lot that is begun is open from then on. Entered again, what
 * was booked before is taken back first; nothing is edited away. With the last layer what is still reserved is released.
 */
export function bookPour(db: Connection, { batchId, batchName, layer, planned, pour }: Poured, now: string): void {
  const before = movementsOfLayer(db, batchId, layer);
  counterMovements(db, before, pour ? 'entered again' : 'not poured after all', now);
  if (!pour || !planned) return;
  const cups = pour.cups.flatMap((weighed) => {
    const plan = planned.cups.find(({ number }) => number === weighed.number);
    // A cup that the bench added has no plan: what was read says all.
    return plan || weighed.pouredGrams !== undefined ? [{ ...weighed, planned: plan ?? UNPLANNED }] : [];
  });
  const takes = [
    ...cupTakes(planned.productId, cups),
    ...tintTakes(
      planned.productId,
      pour.tintLeft ?? planned.tintLeft,
      cups.some(({ partBGrams }) => partBGrams !== null),
    ),
    ...consumableTakes(listDocuments(db, 'consumable').records, {
      cups: cups.length,
      cupsBefore: planned.cupsBefore,
      layersBefore: layer - 1,
      pieces: planned.pieces,
      damMm: planned.damMm,
    }),
  ];
  const note = `${batchName}, layer ${layer}`.slice(0, 160);
  // Of what reached no piece nothing was lost on the way.
  const reached = pour.cups.some(({ pouredGrams }) => pouredGrams !== 0);
  const day = pour.pouredAt.slice(0, 10);
  const named = new Set(pour.expiredLots);
  // What is past its date is taken only when the maker named it at the bench.
  const lotsFor = (item: StockItem): LotState[] =>
    lotsOf(db, item).filter(({ id, lot }) => named.has(id) || !isPast(lot, shelfLifeOf(db, item), day));
  for (const { lotId, item, part, amount, kind, cup } of lotMovements(takes, lotsFor)) {
    const where = { lotId, item, part, batchId, layer, cup, at: pour.pouredAt };
    if (amount < 0) openLot(db, lotId, item, where.part, pour.pouredAt, now);
    move(
      db,
      {
        ...where,
        amount,
        kind: kind === 'lost' && !reached ? 'thrown away' : kind,
        note: kind === 'found' ? `${note}: the lot held more than was entered` : note,
      },
      now,
    );
  }
  if (planned.isLast) release(db, batchId, `${batchName} is poured`, now);
}

/** A sealed lot that something is taken from is open from that day on. */
function openLot(
  db: Connection,
  lotId: string,
  item: StockItem,
  part: Parameters<typeof move>[1]['part'],
  at: string,
  now: string,
): void {
  const row = db.select().from(lots).where(eq(lots.id, lotId)).get();
  if (!row || row.openedOn !== null) return;
  const day = at.slice(0, 10);
  db.update(lots)
    .set({ openedOn: day < row.boughtOn ? row.boughtOn : day, version: row.version + 1, updatedAt: now })
    .where(eq(lots.id, lotId))
    .run();
  move(db, { lotId, item, part, amount: 0, kind: 'opened', at, note: '' }, now);
}

/** Months that a thing keeps once it is open; null where nothing is known of it. */
export const shelfLifeOf = (db: Connection, { kind, id }: StockItem): number | null =>
  kind === 'product' ? (getDocument(db, 'product', id)?.data.shelfLifeMonths ?? null) : null;
