import type { DayConditions } from '../cure/conditions';
import type { CopyFacts } from '../findings/facts';
import { ratioByWeight } from '../mixing/ratio';
import { pieceKey, type PieceRef } from '../model/pieceRef';
import type { Amounts, LayerAmounts } from '../plan/plan';
import { planTimes } from '../plan/pourTimes';
import { layerProduct, type PlanRequest } from '../plan/request';
import { looksAfter } from '../pouring/looks';
import { tellsOfLeak } from '../run/clocks';
import { cupEnds, type CupState } from '../run/cupState';
import { layerOf, type RunState } from '../run/runState';
import { isWaterBased } from '../model/recipeSchema';
import { MOST_COLOURANT_SHARE, MOST_WATER_BASED_SHARE } from '../tint/limits';
import { pourDoses } from '../tint/waterTint';
import { wallMinutes } from '../time/wallTime';
import { pouredLayers } from './buildRequest';
import type { PourRecord, WeighedCup } from './recordSchemas';

/** What is on record of a batch. */
export interface BatchRecord {
  request: PlanRequest;
  amounts: Amounts;
  pours: readonly PourRecord[];
  /** Its runs in earnest, the oldest first. */
  runs: readonly RunState[];
  /** Days of the room as a sensor read them. */
  days: readonly DayConditions[];
  /** Months by which each lot that it took was past its date at the pour; those with no date are left out. */
  monthsPast: readonly number[];
}

const MINUTE_MS = 60_000;
/** The largest of what is known; null when nothing is. */
const most = (values: readonly (number | null)[]): number | null => {
  const known = values.filter((value): value is number => value !== null);
  return known.length === 0 ? null : Math.max(...known);
};
const least = (values: readonly (number | null)[]): number | null => {
  const worst = most(values.map((value) => (value === null ? null : -value)));
  return worst === null ? null : -worst;
};
/** What is furthest from nothing. */
const furthest = (values: readonly number[]): number | null =>
  values.length === 0 ? null : values.reduce((worst, value) => (Math.abs(value) > Math.abs(worst) ? value : worst));
/** True when all that is known is, false when any is not, null when nothing is known. */
const all = (values: readonly (boolean | null)[]): boolean | null => {
  const known = values.filter((value): value is boolean => value !== null);
  return known.length === 0 ? null : known.every(Boolean);
};

const holds = (pieces: readonly PieceRef[] | undefined, piece: PieceRef): boolean =>
  pieces?.some((one) => pieceKey(one) === pieceKey(piece)) ?? false;

/** The cups of a layer from which a copy was poured: as the bench says, or as they were planned. */
export function cupsOfCopy(
  layer: Pick<LayerAmounts, 'cups'>,
  { cups }: Pick<PourRecord, 'cups'>,
  piece: PieceRef,
): WeighedCup[] {
  if (cups.some(({ pieces }) => pieces !== undefined)) return cups.filter(({ pieces }) => holds(pieces, piece));
  const planned = layer.cups.filter(({ pours }) => holds(pours, piece)).map(({ number }) => number);
  return cups.filter(({ number, discarded }) => planned.includes(number) && !discarded);
}

/** A layer that a copy got some of, with the cups from which it did. */
interface Got {
  layer: LayerAmounts;
  entry: PourRecord;
  cups: WeighedCup[];
}

/** What is on record of how one copy got its water: the facts that causes of findings are judged by. */
export function copyFacts(record: BatchRecord, piece: PieceRef): CopyFacts {
  const { request, amounts, pours } = record;
  const got = amounts.layers.flatMap((layer): Got[] => {
    const entry = pours.find((one) => one.layer === layer.number);
    const cups = entry ? cupsOfCopy(layer, entry, piece) : [];
    return entry && cups.length > 0 ? [{ layer, entry, cups }] : [];
  });
  const first = got[0] ? layerProduct(request, got[0].layer) : request.product;
  return {
    ratioOff: furthest(got.flatMap((one) => ratiosOff(request, one))),
    labelC: first.referenceC,
    pouredC: least(got.map(({ entry }) => entry.temperatureC)),
    monthsPast: most(record.monthsPast),
    thickShare: most(got.map(({ layer }) => layer.wetMm / layerProduct(request, layer).greatestLayerMm)),
    gramsOff: gramsOff(got, piece),
    ...coloursOf(request, got),
    ...weatherOf(record, got),
    ...windowsOf(record),
    ...benchFacts(record, got, piece),
  };
}

const ratiosOff = (request: PlanRequest, { layer, cups }: Got): number[] => {
  const { parts } = layerProduct(request, layer);
  return parts
    ? cups.flatMap(({ partAGrams: a, partBGrams: b }) => (a > 0 && b ? [a / b / ratioByWeight(parts) - 1] : []))
    : [];
};

/** What the copy got of the layers whose cups say what each piece got, against what was planned for it. */
function gramsOff(got: readonly Got[], piece: PieceRef): number | null {
  const ofPiece = (pieces: readonly (PieceRef & { grams: number })[] | undefined): number =>
    (pieces ?? []).reduce((sum, one) => (pieceKey(one) === pieceKey(piece) ? sum + one.grams : sum), 0);
  const read = got.filter(({ cups }) => cups.some(({ pieces }) => pieces !== undefined));
  const made = read.flatMap(({ cups }) => cups).reduce((sum, { pieces }) => sum + ofPiece(pieces), 0);
  const planned = read.flatMap(({ layer }) => layer.cups).reduce((sum, { pours }) => sum + ofPiece(pours), 0);
  return planned > 0 ? made / planned - 1 : null;
}

/** Colour in its cups: against the recipe, and against the most that the product bears. */
function coloursOf(
  request: PlanRequest,
  got: readonly Got[],
): Pick<CopyFacts, 'tintOff' | 'tintShare' | 'waterTintShare'> {
  const shares = got.flatMap(({ layer, cups }) => {
    const { strength = 1, own } = layer;
    const recipe = pourDoses(request.recipe.doses, { strength, ...(own && { own }) });
    return cups.flatMap(({ doses, partAGrams, partBGrams }) => {
      const mix = partAGrams + (partBGrams ?? 0);
      if (!doses || !(mix > 0)) return [];
      const gramsOf = (id: string): number => doses.reduce((sum, one) => (one.id === id ? sum + one.grams : sum), 0);
      const per100 = recipe.map(({ colourant, gramsPer100 }) => ({
        wanted: gramsPer100,
        has: (100 * gramsOf(colourant.id)) / mix,
        water: isWaterBased(colourant.kind),
      }));
      return [
        {
          off: furthest(per100.flatMap(({ wanted, has }) => (wanted > 0 ? [has / wanted - 1] : []))),
          total: per100.reduce((sum, { has }) => sum + has, 0) / 100 / MOST_COLOURANT_SHARE,
          water: per100.reduce((sum, { has, water }) => sum + (water ? has : 0), 0) / 100 / MOST_WATER_BASED_SHARE,
        },
      ];
    });
  });
  return {
    tintOff: furthest(shares.flatMap(({ off }) => off ?? [])),
    tintShare: most(shares.map(({ total }) => total)),
    waterTintShare: most(shares.map(({ water }) => water)),
  };
}

/** So long after a pour the room still matters, days. */
const HARDENS_DAYS = 3;

/** The coldest and the dampest that it was while the layers hardened, as far as it was read. */
function weatherOf({ days }: BatchRecord, got: readonly Got[]): Pick<CopyFacts, 'coldestC' | 'humidity'> {
  const near = days.filter(({ date }) =>
    got.some(({ entry }) => {
      const after = wallMinutes(`${date}T12:00`) - wallMinutes(`${entry.pouredAt.slice(0, 10)}T12:00`);
      return after >= 0 && after < HARDENS_DAYS * 1440;
    }),
  );
  return {
    coldestC: least(near.map(({ nightC, dayC }) => Math.min(nightC, dayC))),
    humidity: most(near.map(({ humidity }) => humidity)),
  };
}

/** How each layer went on the one below: against the window of that, in the room as it was. */
function windowsOf({ request, amounts, pours, runs }: BatchRecord): Pick<CopyFacts, 'recoatLate' | 'recoatEarly'> {
  if (pours.length < 2) return { recoatLate: null, recoatEarly: null };
  const abraded = runs.some(
    ({ done, answers }) =>
      [...done.values()].some(({ why }) => why === 'abraded and wiped') ||
      [...answers.values()].some(({ did }) => did === 'will be abraded'),
  );
  const { cures } = planTimes(amounts, { ...request, poured: pouredLayers(pours) });
  const gaps = amounts.layers.flatMap(({ number }, i) => {
    const [below, entry] = [cures[i - 1], pours.find(({ layer }) => layer === number)];
    if (!below?.poured || !entry) return [];
    const at = wallMinutes(entry.pouredAt);
    return [
      {
        early: wallMinutes(below.recoatOpensAt) - at,
        late: below.recoatClosesAt === null ? null : at - wallMinutes(below.recoatClosesAt),
      },
    ];
  });
  const late = most(gaps.map((gap) => gap.late));
  return {
    recoatEarly: most(gaps.map(({ early }) => early)),
    recoatLate: late !== null && late > 0 && abraded ? 0 : late,
  };
}

/** What the runs say of the cups of a copy: stirring, scraping, looking, leaks, the clock; and of what was ready before. */
function benchFacts(
  { runs, amounts }: BatchRecord,
  got: readonly Got[],
  piece: PieceRef,
): Pick<
  CopyFacts,
  'stirredShare' | 'scraped' | 'looked' | 'leaked' | 'sealed' | 'leakTested' | 'levelled' | 'potLate'
> {
  const cups = runs.flatMap((state) =>
    state.cups
      .filter(({ layer, poured }) => got.some((one) => one.layer.number === layer) && holds(poured, piece))
      .map((cup) => ({ state, cup })),
  );
  const ready = (item: string): boolean | null =>
    all(
      runs.flatMap(({ done }) =>
        [...done.values()].flatMap(({ step, skipped }) =>
          step.kind === 'ready' && step.item.id === item ? [!skipped] : [],
        ),
      ),
    );
  const dammed = amounts.pieces.some(({ designId, dams }) => designId === piece.designId && dams.length > 0);
  return {
    stirredShare: least(cups.map(({ state, cup }) => stirredShare(state, cup))),
    scraped: all(cups.flatMap(({ state, cup }) => stepsOf(state, cup, 'scrape').map(({ skipped }) => !skipped))),
    looked: all(cups.map(({ state, cup }) => lookedFor(state, cup))),
    leaked: dammed
      ? cups.length === 0
        ? null
        : cups.some(({ state, cup }) =>
            [...state.answers].some(([id, { did }]) => id.startsWith(`${cup.key}.`) && tellsOfLeak(did)),
          )
      : null,
    sealed: ready('bed'),
    leakTested: dammed ? ready('leak test') : null,
    levelled: ready('level'),
    potLate: most(cups.map(({ state, cup }) => minutesLate(state, cup, piece))),
  };
}

const stepsOf = (state: RunState, cup: CupState, kind: 'scrape' | 'stir') =>
  [...state.done.values()].filter(({ step }) => step.kind === kind && 'cup' in step && step.cup === cup.key);

function stirredShare(state: RunState, cup: CupState): number | null {
  const shares = stepsOf(state, cup, 'stir').flatMap(({ step, from, at, skipped, why }) => {
    if (step.kind !== 'stir' || (skipped && why === 'stirred by machine')) return [];
    return [skipped ? 0 : (at - from) / MINUTE_MS / step.minutes];
  });
  return least(shares);
}

/** Whether somebody looked for bubbles; null where none rise. */
function lookedFor(state: RunState, cup: CupState): boolean | null {
  const [minutes] = looksAfter(layerOf(state, cup.layer).product, state.plan.dammed).bubbles;
  if (minutes === undefined || cup.closedAt === null) return null;
  return [...state.answers.keys()].some((id) => id.startsWith(`${cup.key}.`) && id.includes('.look'));
}

function minutesLate(state: RunState, cup: CupState, piece: PieceRef): number | null {
  const ends = cupEnds(cup, layerOf(state, cup.layer), state.room);
  const at = cup.poured.filter((one) => pieceKey(one) === pieceKey(piece)).map((one) => one.at);
  return ends && at.length > 0 ? (Math.max(...at) - ends.by) / MINUTE_MS : null;
}
