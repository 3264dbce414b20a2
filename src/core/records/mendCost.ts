import type { Mend } from '../findings/mends';
import { mixForPour } from '../mixing/losses';
import { pouredDensity } from '../mixing/ratio';
import { pieceKey, type PieceRef } from '../model/pieceRef';
import { layerProduct } from '../plan/request';
import type { BatchRecord } from './copyFacts';

/** What something takes off the shelf: grams mixed, and their price in the maker's currency. An estimate. */
export interface Taken {
  grams: number;
  price: number;
}

type Planned = Pick<BatchRecord, 'request' | 'amounts'>;

/** What a copy that is made anew takes: its share of all that its batch was planned to mix. Body, bed and hours are not in it. */
export function anewTakes({ amounts }: Planned, piece: PieceRef): Taken {
  const pours = amounts.layers.flatMap(({ cups }) => cups.flatMap((cup) => cup.pours));
  const gramsOf = (some: typeof pours): number => some.reduce((sum, { grams }) => sum + grams, 0);
  const share = gramsOf(pours.filter((one) => pieceKey(one) === pieceKey(piece))) / gramsOf(pours);
  return { grams: share * amounts.totals.mixGrams, price: share * amounts.cost.total };
}

/**
 * What a mend takes: a film of its thickness over the water of the piece, mixed in a cup of its own of the product that lies on
 * top. `foundMm`: by how much the water was found low. Null for a mend that takes no product, or none that can be told ahead.
 */
export function mendTakes({ request, amounts }: Planned, piece: PieceRef, mend: Mend, foundMm = 1): Taken | null {
  const planned = amounts.pieces.find(({ designId }) => designId === piece.designId);
  if (mend.filmMm === undefined || !planned) return null;
  const product = layerProduct(request, amounts.layers.at(-1) ?? {});
  const wetMm = (mend.filmMm === 'as found' ? foundMm : mend.filmMm) / (1 - product.shrinkage);
  const pouredMl = (planned.water.surfaceCm2 * wetMm) / 10;
  const grams = mixForPour(pouredMl * pouredDensity(product), 1, request.losses);
  return { grams, price: (grams * product.packPrice) / product.packGrams + request.bench.pricePerCup };
}
