import { pieceKey } from '../model/pieceRef';
import { steadyMinutes } from '../time/clockChanges';
import { CURE_MODELS } from '../cure/cureModels';
import { wallMinutes, type WallTime } from '../time/wallTime';
import { pourCautions } from '../cure/cautions';
import { STIFF_BELOW_C } from '../mixing/benchRules';
import { isQuick } from '../mixing/potLife';
import { layerMinutes } from '../plan/pourTimes';
import { FIRST_PIECE_MINUTES } from '../pouring/handsOn';
import { layerProduct, productsOf, type PlanRequest } from '../plan/request';
import type { Amounts, LayerAmounts } from '../plan/plan';
import type { BatchFacts } from '../schedule/facts';
import { portionsOfKept } from '../pouring/portions';
import { stockPart, tintings } from '../pouring/stockTint';
import type { KeptStock } from './keptStock';
import { pourDoses } from '../tint/waterTint';
import { expiredItems } from './expired';
import type { ReadyItem, RunLayer, RunPlan } from './runSchema';

/** What a run needs to know beside the plan of its batch. */
export interface RunSource {
  name: string;
  request: PlanRequest;
  amounts: Amounts;
  facts: Pick<BatchFacts, 'dammed' | 'moulds'>;
  by: 'weight' | 'volume';
  /** When it begins. */
  now: WallTime;
  /** The piece that leftovers are kept for. */
  filler: RunPlan['filler'];
  /** What the maker wants to be reminded of before every run. */
  reminders?: readonly ReadyItem[];
  /** Lots of what it takes, in the order in which they are used up. */
  bottles?: RunPlan['bottles'];
  /** What earlier runs left of the stock tints of layers, as far as it is still good. */
  keptStocks?: ReadonlyMap<number, KeptStock>;
  /** Beds cut open, by design; what has none is drawn without. */
  cuts?: ReadonlyMap<string, NonNullable<RunPlan['pieces'][number]['cut']>>;
}

/** What a run carries out: the layers of a batch that are not poured yet, cup by cup, and what is to be ready before them. */
export function buildRun(source: RunSource): RunPlan {
  const { name, request, amounts, facts, by, now, filler, cuts, bottles = [], keptStocks, reminders = [] } = source;
  const poured = new Set(request.poured.map(({ layer }) => layer));
  const layers = amounts.layers
    .filter(({ number }) => !poured.has(number))
    .map((layer) => layerOf(request, layer, keptStocks?.get(layer.number) ?? null));
  const taken = new Set(layers.flatMap(({ cups }) => cups.flatMap(({ pours }) => pours.map(pieceKey))));
  const standing = (request.standing ?? []).map(pieceKey);
  const { dammed, moulds } = facts;
  const things = [...productsOf(request), ...request.recipe.doses.map(({ colourant }) => colourant)];
  const nameOf = (thing: string): string => things.find(({ id }) => id === thing)?.name ?? '';
  return {
    format: 'aguada.run-plan',
    version: 1,
    name,
    setName: request.set.name,
    levelMm: request.set.levelMm,
    by,
    scaleStepGrams: request.bench.scaleStepGrams,
    cupGrams: request.bench.cupGrams,
    losses: request.losses,
    roomC: request.room.temperatureC,
    humidity: request.room.humidity,
    ready:
      layers.length > 0
        ? [
            ...readyItems(request, layers, { dammed: dammed > 0, moulded: moulds > 0, by }),
            ...reminders,
            ...expiredItems(bottles, nameOf),
          ]
        : [],
    bottles,
    cautions: [...new Set(layers.flatMap(({ product }) => pourCautions(product)))],
    below: request.poured.flatMap(({ layer, at, until }) => {
      const known = amounts.layers.find(({ number }) => number === layer);
      if (!known) return [];
      const steady = (time: WallTime): number => steadyMinutes(wallMinutes(time), request.clockChanges);
      const last = until ? steady(until) : steady(at) + layerMinutes(known, request) - FIRST_PIECE_MINUTES;
      return [
        { product: layerProduct(request, known), wetMm: known.wetMm, minutesBefore: Math.max(0, steady(now) - last) },
      ];
    }),
    climate: request.conditions
      ? { conditions: request.conditions, clockChanges: request.clockChanges, begunAt: now, read: false }
      : null,
    layers,
    dammed: dammed > 0,
    moulded: moulds > 0,
    filler,
    pieces: amounts.pieces.map(({ designId, tag, water, colour }) => ({
      designId,
      tag,
      surfaceCm2: water.surfaceCm2,
      colour: colour.deepest,
      cut: cuts?.get(designId) ?? null,
    })),
    pairs: standing.flatMap((key, i): [string, string][] => {
      const next = standing[i + 1];
      return next !== undefined && taken.has(key) && taken.has(next) ? [[key, next]] : [];
    }),
  };
}

function layerOf(request: PlanRequest, layer: LayerAmounts, kept: KeptStock | null): RunLayer {
  const { number, wetMm, fromMm, toMm, cups, stock, strength = 1, own } = layer;
  const priceOf = (id: string): number => {
    const colourant = request.recipe.doses.find((dose) => dose.colourant.id === id)?.colourant;
    return colourant ? colourant.bottlePrice / colourant.bottleGrams : 0;
  };
  const product = layerProduct(request, layer);
  const recipe = tintings(pourDoses(request.recipe.doses, { strength, ...(own && { own }) }));
  const withKept =
    kept &&
    portionsOfKept(
      cups.map(({ mixGrams }) => mixGrams),
      { recipe, resinShare: stockPart(product).share, scaleStepGrams: request.bench.scaleStepGrams },
      kept,
    );
  return {
    number,
    product,
    wetMm,
    fromMm,
    toMm,
    plantsBefore: layer.plantsBefore ?? false,
    recipe: recipe.map((one) => ({ ...one, pricePerGram: priceOf(one.id) })),
    ...(withKept ? { stock: kept.stock, stockKept: { leftGrams: kept.leftGrams, madeAt: kept.madeAt } } : { stock }),
    cups: cups.map(({ number: cup, mixGrams, pours, portions }, i) => ({
      number: cup,
      mixGrams,
      pours,
      portions: withKept?.[i] ?? portions,
    })),
  };
}

/** What has to be ready before anything is mixed, by how the water is made. What must not be skipped silently says why. */
function readyItems(
  request: PlanRequest,
  layers: readonly RunLayer[],
  { dammed, moulded, by }: { dammed: boolean; moulded: boolean; by: RunPlan['by'] },
): ReadyItem[] {
  const products = layers.map(({ product }) => product);
  const first = request.poured.length === 0;
  const two = products.some(({ parts }) => parts !== null);
  const own = new Map(
    products.flatMap(({ cureModel }) => CURE_MODELS[cureModel].ready.map((one) => [one.id, one] as const)),
  );
  const mixed = layers.reduce((sum, { cups }) => sum + cups.length, 0);
  const item = (id: string, must: boolean, text: string, why: string): ReadyItem => ({ id, must, text, why });
  const slow = products.some(({ parts, potLifeMinutes }) => parts !== null && !isQuick(potLifeMinutes));
  return [
    ...(first
      ? [
          item(
            'bed',
            true,
            'Beds sealed, painted, rocks fixed, all dry',
            'An unsealed pinhole leaks overnight; loose things float.',
          ),
        ]
      : []),
    ...(moulded ? [item('moulds', true, 'Moulds clean, dry, boxed in', 'Dust and water show in every cast.')] : []),
    ...(dammed
      ? [
          item('dams', true, 'Dams on, sealed, higher than the level', 'An open edge runs out.'),
          item('leak test', true, 'Leak test passed, dry again', 'A leak shows in water first, not in resin.'),
        ]
      : []),
    item('sheet', false, 'Non-stick sheet under every piece', 'Drips glue pieces to the bench.'),
    item('level', true, 'Bench level, checked both ways', 'The water finds the low side, and with it the colour.'),
    ...own.values(),
    ...(slow && request.room.temperatureC < STIFF_BELOW_C + 3
      ? [item('warm', false, 'Bottles lukewarm', 'Cold resin is stiff and holds its bubbles.')]
      : []),
    ...(two || products.some(({ parts }) => parts === null && request.recipe.doses.length > 0)
      ? [
          item(
            'cups',
            false,
            `${mixed} ${mixed === 1 ? 'cup' : 'cups'}, sticks, ${by === 'weight' ? 'the scale' : 'measuring cups'}, towels laid out`,
            'What is missing is looked for while the clock runs.',
          ),
        ]
      : []),
    ...(two ? [item('cover', false, 'Dust covers at hand', 'Dust falls in the first hour.')] : []),
  ];
}
