import { diagnose, type Diagnosis, type Neighbours, type Weights } from '../findings/diagnose';
import { bondOf, nothingOver, type Bond } from '../findings/bonds';
import { tooEarly, type FindingKind } from '../findings/findingKinds';
import { MENDS, type Mend } from '../findings/mends';
import { pieceKey, type PieceRef } from '../model/pieceRef';
import type { Product } from '../model/productSchema';
import { layerProduct } from '../plan/request';
import { copyFacts, cupsOfCopy, type BatchRecord } from './copyFacts';
import { lastInspection } from './inspections';
import { anewTakes, mendTakes, type Taken, type Ways } from './mendCost';
import type { Batch } from './recordSchemas';

/** Why a copy has a finding, by what is on record of its batch. */
export interface Why extends Diagnosis {
  /** Why it is too early to judge; null when it is not. */
  early: string | null;
  /** What may be done, and what each way takes; null: nothing that can be told ahead. */
  mends: readonly (Mend & { takes: Taken | null })[];
  /** What the piece takes when it is made anew. */
  anew: Taken;
  /** Other products of the shelf that may go over it, those that are known to hold first; or why nothing may. */
  over: readonly ({ name: string } & Bond)[] | string;
}

/** The cups of each poured layer from which a copy was poured, as keys. */
const cupKeys = ({ amounts, pours }: BatchRecord, piece: PieceRef): string[] =>
  amounts.layers.flatMap((layer) => {
    const entry = pours.find((one) => one.layer === layer.number);
    return entry ? cupsOfCopy(layer, entry, piece).map(({ number }) => `${layer.number}.${number}`) : [];
  });

/** The copies that were looked over beside one: those that shared a cup with it, and the others. */
export function neighboursOf(
  record: BatchRecord,
  batch: Pick<Batch, 'inspections'>,
  piece: PieceRef,
  finding: FindingKind,
): Neighbours {
  const own = new Set(cupKeys(record, piece));
  const others = new Map(
    (batch.inspections ?? []).filter((one) => pieceKey(one) !== pieceKey(piece)).map((one) => [pieceKey(one), one]),
  );
  const counts: Neighbours = { sameCup: { looked: 0, with: 0 }, otherCups: { looked: 0, with: 0 } };
  for (const { designId, copy } of others.values()) {
    const shared = cupKeys(record, { designId, copy }).some((key) => own.has(key));
    const count = shared ? counts.sameCup : counts.otherCups;
    count.looked += 1;
    const { findings } = lastInspection(batch, { designId, copy })!;
    if (findings.some(({ kind }) => kind === finding)) count.with += 1;
  }
  return counts;
}

/** What is known beside the record of a batch. */
interface Known {
  now: string;
  curedAt: string | null;
  weights?: Weights | undefined;
  /** The shelf. */
  products?: readonly Pick<Product, 'name' | 'cureModel'>[];
}

/** Products that may go over another, one of each way of curing that lies on the shelf beside it. */
const overOf = (
  products: NonNullable<Known['products']>,
  beneath: Product,
): { name: string; sure: boolean; words: string }[] =>
  products
    .filter(({ name }) => name !== beneath.name)
    .map(({ name, cureModel }) => ({ name, ...bondOf(cureModel, beneath.cureModel) }))
    .toSorted((a, b) => Number(b.sure) - Number(a.sure));

/** Diagnoses a finding of a copy. `curedAt`: when all that it has got is cured; null: long ago. */
export function whyOf(
  record: BatchRecord,
  batch: Pick<Batch, 'inspections'>,
  piece: PieceRef,
  finding: FindingKind,
  { now, curedAt, weights, products = [], ...ways }: Known & Ways,
): Why {
  const last = record.amounts.layers.findLast(({ number }) => record.pours.some(({ layer }) => layer === number));
  const foundMm = lastInspection(batch, piece)?.findings.find(({ kind }) => kind === finding)?.mm;
  const beneath = last ? layerProduct(record.request, last) : record.request.product;
  const { cureModel } = beneath;
  return {
    ...diagnose(finding, cureModel, copyFacts(record, piece), neighboursOf(record, batch, piece, finding), weights),
    early: tooEarly(finding, cureModel, curedAt === null || now >= curedAt),
    mends: MENDS[finding].map((mend) => ({ ...mend, takes: mendTakes(record, piece, mend, foundMm) })),
    anew: anewTakes(record, piece, ways),
    over: nothingOver(finding) ?? overOf(products, beneath),
  };
}
