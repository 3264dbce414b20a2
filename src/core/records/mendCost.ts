import type { Mend } from '../findings/mends';
import { mixForPour } from '../mixing/losses';
import { pouredDensity } from '../mixing/ratio';
import { pieceKey, type PieceRef } from '../model/pieceRef';
import type { Product } from '../model/productSchema';
import { layerProduct } from '../plan/request';
import { layerHandsOnMinutes } from '../pouring/handsOn';
import { batchFacts } from '../schedule/facts';
import { abradeMinutes } from '../schedule/repair';
import type { Route, StepMinutes } from '../schedule/routes';
import { routeOf } from '../schedule/workplace';
import type { BatchRecord } from './copyFacts';

/** What something takes: grams mixed, their price in the maker's currency, minutes at the bench. An estimate. */
export interface Taken {
  grams: number;
  price: number;
  minutes: number;
}

/** By what ways a piece goes: the set's own route, and minutes of steps that are the workshop's own. */
export interface Ways {
  route?: Route | undefined;
  stepMinutes?: StepMinutes | undefined;
}

/** Minutes at the bench for one cup that is mixed for so many pours, set up for by itself. */
const onceMinutes = ({ pourGramsPerMinute, stirMinutes }: Product, mixGrams: number, pours: number): number =>
  layerHandsOnMinutes({ cups: 1, pours, mixGrams, pourGramsPerMinute, stirMinutes });

type Planned = Pick<BatchRecord, 'request' | 'amounts'>;

/**
 * What a copy that is made anew takes: its share of all that its batch was planned to mix, and its steps alone: those of the set's
 * `route`, else the usual one in the workshop's own minutes, and each layer in a cup of its own. Its body is not in it.
 */
export function anewTakes({ request, amounts }: Planned, piece: PieceRef, ways: Ways = {}): Taken {
  const pours = amounts.layers.flatMap(({ cups }) => cups.flatMap((cup) => cup.pours));
  const own = pours.filter((one) => pieceKey(one) === pieceKey(piece));
  const gramsOf = (some: typeof pours): number => some.reduce((sum, { grams }) => sum + grams, 0);
  const share = gramsOf(own) / gramsOf(pours);
  const route = routeOf({ route: ways.route ?? null, facts: batchFacts(request, amounts) }, ways.stepMinutes);
  const steps = route.reduce(
    (sum, { on, perBatchMinutes, perPieceMinutes }) => sum + (on ? perBatchMinutes + perPieceMinutes : 0),
    0,
  );
  const layers = amounts.layers.reduce((sum, layer) => {
    const held = layer.cups.flatMap((cup) => cup.pours).filter((one) => pieceKey(one) === pieceKey(piece));
    return sum + (held.length > 0 ? onceMinutes(layerProduct(request, layer), gramsOf(held), held.length) : 0);
  }, 0);
  return { grams: share * amounts.totals.mixGrams, price: share * amounts.cost.total, minutes: steps + layers };
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
  return {
    grams,
    price: (grams * product.packPrice) / product.packGrams + request.bench.pricePerCup,
    minutes: (mend.inCalendar ? abradeMinutes(1) : 0) + onceMinutes(product, grams, 1),
  };
}
