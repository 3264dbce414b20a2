import { asc, eq } from 'drizzle-orm';
import { madeUp, requestOfLayer, type Amounts, type PlanRequest } from '@/core/plan';
import type { KeptPlan } from '@/core/records/views';
import type { Connection } from './storage';
import { cupPours, cups, keptPlans, layers } from './schema';

type KeptLayer = Amounts['layers'][number];

/** What is kept of a plan in one piece: all but the layers, and of those what has no columns of its own. */
type KeptAmounts = Omit<Amounts, 'layers'> & ReturnType<typeof layerParts>;

const layerParts = (
  planned: readonly KeptLayer[],
): { layerDoses: KeptLayer['doses'][]; layerMade?: ReturnType<typeof madeUp>[] } => ({
  layerDoses: planned.map(({ doses }) => doses),
  layerMade: planned.map(({ stock, tintLeft, mostMix, cups: own }) => ({
    stock,
    tintLeft,
    mostMix,
    portions: own.map(({ portions }) => portions),
  })),
});

/** The plan that is kept with a batch; null before its first pour. */
export function keptPlan(db: Connection, batchId: string): KeptPlan | null {
  const kept = db.select().from(keptPlans).where(eq(keptPlans.batchId, batchId)).get();
  if (!kept) return null;
  const request = kept.request as PlanRequest;
  const pieceRows = db
    .select()
    .from(cupPours)
    .where(eq(cupPours.batchId, batchId))
    .orderBy(asc(cupPours.position))
    .all();
  const cupRows = db.select().from(cups).where(eq(cups.batchId, batchId)).orderBy(asc(cups.number)).all();
  const layerRows = db.select().from(layers).where(eq(layers.batchId, batchId)).orderBy(asc(layers.number)).all();
  const { layerDoses, layerMade, ...amounts } = kept.amounts as KeptAmounts;
  const partsOf = (cup: (typeof cupRows)[number]): Amounts['layers'][number]['cups'][number]['parts'] =>
    cup.partAGrams === null
      ? null
      : {
          partAGrams: cup.partAGrams,
          partBGrams: cup.partBGrams ?? 0,
          partAMl: cup.partAMl ?? 0,
          partBMl: cup.partBMl ?? 0,
        };
  return {
    request,
    amounts: {
      ...amounts,
      layers: layerRows.map(({ batchId: _, strength, own: ownDoses, productId, plantsBefore, ...layer }, i) => {
        const rows = cupRows.filter((cup) => cup.layer === layer.number);
        const tint = { ...(strength !== null && { strength }), ...(ownDoses && { own: ownDoses }) };
        const product = productId === null ? {} : { productId };
        // Plans of older versions did not carry how their cups are made up.
        const { portions, ...made } =
          layerMade?.[i] ??
          madeUp(
            requestOfLayer(request, product),
            { strength: 1, ...tint },
            rows.map(({ mixGrams }) => mixGrams),
          );
        const own = rows.map((cup, at) => ({
          number: cup.number,
          pouredGrams: cup.pouredGrams,
          mixGrams: cup.mixGrams,
          parts: partsOf(cup),
          potLifeMinutes: cup.potLifeMinutes,
          doses: cup.doses as Amounts['layers'][number]['doses'],
          portions: portions[at] ?? [],
          pours: pieceRows
            .filter((pour) => pour.layer === layer.number && pour.cup === cup.number)
            .map(({ designId, copy, tag, grams }) => ({ designId, copy, tag, grams })),
        }));
        return {
          ...layer,
          ...tint,
          ...product,
          ...made,
          ...(plantsBefore && { plantsBefore }),
          parts: summed(own.map(({ parts }) => parts)),
          doses: layerDoses[i] ?? [],
          cups: own,
        };
      }),
    },
  };
}

type Parts = Amounts['layers'][number]['parts'];

function summed(parts: readonly Parts[]): Parts {
  return parts.reduce<Parts>(
    (sum, part) =>
      part && {
        partAGrams: (sum?.partAGrams ?? 0) + part.partAGrams,
        partBGrams: (sum?.partBGrams ?? 0) + part.partBGrams,
        partAMl: (sum?.partAMl ?? 0) + part.partAMl,
        partBMl: (sum?.partBMl ?? 0) + part.partBMl,
      },
    null,
  );
}

/** Keeps what is planned of a batch as it is now, in place of what was kept before. */
export function keepPlan(db: Connection, batchId: string, { request, amounts }: KeptPlan, now: string): void {
  db.delete(keptPlans).where(eq(keptPlans.batchId, batchId)).run();
  const { layers: planned, ...rest } = amounts;
  db.insert(keptPlans)
    .values({ batchId, request, amounts: { ...rest, ...layerParts(planned) }, keptAt: now })
    .run();
  for (const {
    number,
    fromMm,
    toMm,
    thicknessMm,
    wetMm,
    strength = null,
    own = null,
    productId = null,
    plantsBefore = null,
    volumeMl,
    pouredGrams,
    mixGrams,
    fewestCups,
    ...layer
  } of planned) {
    db.insert(layers)
      .values({
        batchId,
        number,
        fromMm,
        toMm,
        thicknessMm,
        wetMm,
        strength,
        own,
        productId,
        plantsBefore,
        volumeMl,
        pouredGrams,
        mixGrams,
        fewestCups,
      })
      .run();
    for (const cup of layer.cups) {
      const { parts, doses, potLifeMinutes } = cup;
      const amount = { pouredGrams: cup.pouredGrams, mixGrams: cup.mixGrams };
      db.insert(cups)
        .values({ batchId, layer: number, number: cup.number, ...amount, ...parts, doses, potLifeMinutes })
        .run();
      const filled = cup.pours.map(({ designId, copy, tag, grams }, position) => ({
        batchId,
        layer: number,
        cup: cup.number,
        position,
        designId,
        copy,
        tag,
        grams,
      }));
      // SQLite takes so many values at once.
      for (let i = 0; i < filled.length; i += 500)
        db.insert(cupPours)
          .values(filled.slice(i, i + 500))
          .run();
    }
  }
}
