import { fromBottle, broughtGrams, leftOfTint, type TintLeft } from '../pouring/portions';
import { attemptKey, inCupGrams, mixedGrams, type CupState } from './cupState';
import { namedBottles } from './bottles';
import { HARDENED, type HardenedLook } from '../cure/hardened';
import { STEPS_TO_WEIGH } from '../pouring/stockTint';
import { stockAtHand } from './keptStock';
import { answerWords, touchesOf } from './clocks';
import { cureMoment, lastPourAt } from './cureMoment';
import { FIRM_ALREADY } from './steps';
import { layerOf, type RunState } from './runState';
import { THREADS } from './runSchema';

/** A cup as the log and the ledger take it. */
export interface CupRecord {
  number: number;
  partAGrams: number;
  /** Null for one-part products. */
  partBGrams: number | null;
  note: string;
  /** What reached the pieces. */
  pouredGrams: number;
  discarded: boolean;
  doses: { id: string; grams: number }[];
  /** Bottles that were named for it. */
  lots: string[];
  pieces: { designId: string; copy: number; tag: string; grams: number }[];
  bench: AtTheBench;
}

/** What was read and timed of a cup at the bench: later plans learn from it. */
export interface AtTheBench {
  /** All of it was read: what went in, what went out. Out of the bottle nothing is. */
  read: boolean;
  stirMinutes: number | null;
  /** What it was stirred further, scraped and changed, until it was said to be clear. */
  clearMinutes: number | null;
  /** Drops that were counted while the scale was read. */
  drops: { id: string; count: number; grams: number }[];
  /** From when its parts met until it was said to draw threads. */
  thickMinutes: number | null;
  /** Of each piece, in the order of `pieces`: since the press before; null where the piece was not read. */
  pieceMinutes: (number | null)[];
}

/** A layer as it was carried out. */
export interface LayerRecord {
  layer: number;
  /** The moment the first piece was poured, or the first cup mixed; and the last piece. */
  at: number;
  until: number;
  temperatureC: number;
  cups: CupRecord[];
  /**
   * What of its stock and premixes went into no cup: part A or product, and colourants. Of a stock that an earlier run made, what this
   * one took: less than nothing, for it was left over then.
   */
  tintLeft: TintLeft;
  /** How it was found while it hardened. */
  hardened: HardenedLook[];
  note: string;
}

/** Where the grams of a run went: bottle to cup to piece to what was lost. */
export interface Balance {
  /** All that left the bottles, product and colourants, stock tint that was kept among it; and of that the colourants in the cups. */
  mixedGrams: number;
  colourGrams: number;
  inPiecesGrams: number;
  /** In cups that are still in use. */
  inUseGrams: number;
  /** Left in cups, dripped, on sticks. */
  lostGrams: number;
  thrownAwayGrams: number;
  /** Stock and premixes that went into no cup. */
  tintLeftGrams: number;
}

/** What of a layer's stock and premixes was made in a run and went into no cup of it. */
function tintLeftOf(state: RunState, number: number): TintLeft {
  const layer = layerOf(state, number);
  const made = layer.stock && !layer.stockKept && stockAtHand(state, layer) > 0 ? [layer.stock] : [];
  return leftOfTint(
    made,
    everyCup(state).flatMap((cup) => (cup.layer === number ? cup.putIn : [])),
  );
}

const sumOf = (parts: readonly { grams: number }[]): number => parts.reduce((sum, { grams }) => sum + grams, 0);
const everyCup = ({ cups, thrownAway }: Pick<RunState, 'cups' | 'thrownAway'>): CupState[] => [...cups, ...thrownAway];
const pouredGrams = ({ poured }: CupState): number => sumOf(poured);

/** Where all grams of a run are. Mixed = in pieces + in use + lost + thrown away + left of the tint, to rounding. */
export function balanceOf(state: RunState): Balance {
  const balance: Balance = {
    mixedGrams: 0,
    colourGrams: 0,
    inPiecesGrams: 0,
    inUseGrams: 0,
    lostGrams: 0,
    thrownAwayGrams: 0,
    tintLeftGrams: 0,
  };
  for (const cup of everyCup(state)) {
    const layer = layerOf(state, cup.layer);
    const mixed = mixedGrams(cup, layer);
    const poured = pouredGrams(cup);
    const holds = fromBottle(layer, cup.plan) ? 0 : inCupGrams(cup, layer);
    const inUse = cup.closedAt === null ? holds : 0;
    const thrown = cup.discarded ? holds : 0;
    balance.mixedGrams += mixed;
    balance.colourGrams += sumOf(cup.putIn.flatMap(({ colours }) => colours));
    balance.inPiecesGrams += poured;
    balance.inUseGrams += inUse;
    balance.thrownAwayGrams += thrown;
    balance.lostGrams += mixed - poured - inUse - thrown;
  }
  for (const layer of state.plan.layers) {
    const { resinGrams, colours } = tintLeftOf(state, layer.number);
    const left = resinGrams + sumOf(colours) + (layer.stockKept ? stockAtHand(state, layer) : 0);
    balance.tintLeftGrams += left;
    balance.mixedGrams += left;
  }
  return balance;
}

/** Whether all of a layer is poured: every cup is closed. */
export const layerIsPoured = (state: RunState, layer: number): boolean => {
  const cups = state.cups.filter((cup) => cup.layer === layer);
  const thrown = state.thrownAway.some((cup) => cup.layer === layer);
  return (cups.length > 0 || thrown) && cups.every(({ closedAt }) => closedAt !== null);
};

/** Layers of which anything was mixed. */
export const layersBegun = (state: RunState): number[] => [
  ...new Set(everyCup(state).flatMap((cup) => (mixedGrams(cup, layerOf(state, cup.layer)) > 0 ? [cup.layer] : []))),
];

/**
 * What a layer was, for the log: parts weighed into each cup, what reached the pieces, cups that were thrown away as cups of their own,
 * and in words what else happened. `null` when nothing of it was mixed.
 */
export function layerRecord(state: RunState, number: number): LayerRecord | null {
  const layer = layerOf(state, number);
  const all = everyCup(state)
    .filter((cup) => cup.layer === number && mixedGrams(cup, layer) > 0)
    .sort((a, b) => a.number - b.number || Number(b.discarded === null) - Number(a.discarded === null));
  if (all.length === 0) return null;
  let spare = Math.max(...layer.cups.map((cup) => cup.number), ...all.map((cup) => cup.number));
  const used = new Set<number>();
  const cups = all.map((cup): CupRecord => {
    const own = used.has(cup.number) ? ++spare : cup.number;
    used.add(own);
    const { A, B, all: whole } = cup.weighed;
    const one = layer.product.parts === null;
    const ofProduct = fromBottle(layer, cup.plan) ? mixedGrams(cup, layer) : whole + broughtGrams(cup.putIn);
    return {
      number: own,
      partAGrams: one ? ofProduct : A + broughtGrams(cup.putIn),
      partBGrams: one ? null : B,
      note: [
        cup.discarded ? `thrown away: ${cup.discarded.why}` : '',
        cup.mends.length > 0 ? 'over-poured and mended' : '',
        cup.assumed && !fromBottle(layer, cup.plan) ? 'not read: taken as planned' : '',
      ]
        .filter(Boolean)
        .join('; '),
      pouredGrams: pouredGrams(cup),
      discarded: cup.discarded !== null,
      doses: summed(cup.putIn.flatMap(({ colours }) => colours)),
      lots: namedBottles(state, cup),
      pieces: cup.poured.map(({ designId, copy, tag, grams }) => ({ designId, copy, tag, grams })),
      bench: atTheBench(state, cup, fromBottle(layer, cup.plan)),
    };
  });
  const firstAt = Math.min(
    ...all.flatMap(({ poured, contactAt, closedAt }) => [
      poured[0]?.at ?? contactAt ?? closedAt ?? Number.MAX_SAFE_INTEGER,
    ]),
  );
  const at = firstAt === Number.MAX_SAFE_INTEGER ? state.since : firstAt;
  return {
    until: Math.max(at, ...all.flatMap(({ poured }) => poured.map((piece) => piece.at))),
    layer: number,
    at,
    cups,
    tintLeft: tintLeftOf(state, number),
    hardened: hardenedOf(state, number),
    temperatureC: (state.room.findLast((one) => one.at <= at) ?? state.room[0]!).temperatureC,
    note: noteOf(state, number),
  };
}

const MINUTE_MS = 60_000;

function atTheBench(state: RunState, cup: CupState, bottle: boolean): AtTheBench {
  const stirred = state.done.get(`${attemptKey(cup)}.stir`);
  const clear = state.done.get(`${attemptKey(cup)}.clear`);
  const left = state.done.get(`${attemptKey(cup)}.left`);
  const threads = state.notes.find(
    ({ at, text }) =>
      text === THREADS && cup.contactAt !== null && at > cup.contactAt && (cup.closedAt === null || at <= cup.closedAt),
  );
  return {
    read: !bottle && !cup.assumed && left?.grams != null && cup.poured.every(({ assumed }) => !assumed),
    stirMinutes: stirred && !stirred.skipped ? (stirred.at - stirred.from) / MINUTE_MS : null,
    clearMinutes: clear && !clear.skipped ? (clear.at - clear.from) / MINUTE_MS : null,
    drops: cup.putIn.flatMap(({ colours, drops, roseGrams }) =>
      roseGrams !== null && roseGrams >= STEPS_TO_WEIGH * state.plan.scaleStepGrams - 1e-9 && colours[0] && drops > 0
        ? [{ id: colours[0].id, count: drops, grams: roseGrams }]
        : [],
    ),
    thickMinutes: threads ? (threads.at - cup.contactAt!) / MINUTE_MS : null,
    pieceMinutes: cup.poured.map(({ minutes, assumed, filler }) => (assumed || filler ? null : minutes)),
  };
}

/** What was found of a layer as it hardened, each against what was reckoned of the room as it was read; of what nobody touched nothing. */
function hardenedOf(state: RunState, number: number): HardenedLook[] {
  const { product, wetMm } = layerOf(state, number);
  const poured = lastPourAt(state.cups, number);
  const last = state.plan.layers.at(-1)!.number === number;
  if (poured === null) return [];
  const clocks = last
    ? ([
        ['firm', `L${number}.firm`, 'firm'],
        ['cured', `L${number}.cured`, 'cured'],
      ] as const)
    : ([['recoat', `L${number}.opens`, `L${number}.recoat`]] as const);
  return clocks.flatMap(([what, clock, step]): HardenedLook[] => {
    const waited = state.done.get(step);
    const firm = [...touchesOf(state, clock, 'so far'), ...(waited?.why === FIRM_ALREADY ? [waited.at] : [])];
    const soft = touchesOf(state, clock, 'not yet');
    if (firm.length === 0 && soft.length === 0) return [];
    const labelMinutes = product[HARDENED[what]];
    const since = (at: number): number => (at - poured) / MINUTE_MS;
    return [
      {
        what,
        labelMinutes,
        reckonedMinutes: since(cureMoment(poured, labelMinutes, product, wetMm, state)),
        softMinutes: soft.length > 0 ? since(Math.max(...soft)) : null,
        firmMinutes: firm.length > 0 ? since(Math.min(...firm)) : null,
      },
    ];
  });
}

function summed(colours: readonly { id: string; grams: number }[]): { id: string; grams: number }[] {
  const sums = new Map<string, number>();
  for (const { id, grams } of colours) sums.set(id, (sums.get(id) ?? 0) + grams);
  return [...sums].map(([id, grams]) => ({ id, grams }));
}

const LONGEST_NOTE = 1900;

/** What there is to say of a layer: notes, answers to alarms, what was skipped and why. */
function noteOf(state: RunState, layer: number): string {
  const prefix = `L${layer}.`;
  const first = state.plan.layers[0]?.number === layer;
  const lines = [
    ...state.notes.map(({ text }) => text),
    ...state.bottles.flatMap(({ lot, anyway }) =>
      anyway ? [`past its date, ${state.plan.bottles.find(({ id }) => id === lot)?.name ?? lot}: ${anyway}`] : [],
    ),
    ...[...state.answers].flatMap(([id, { did }]) =>
      id.startsWith(prefix) && id.includes('.look') ? [`${lookName(id)}: ${answerWords(did)}`] : [],
    ),
    ...[...state.done.values()].flatMap(({ step, skipped, why }) =>
      why && (step.layer === layer || (first && step.kind === 'ready')) && step.kind !== 'weigh'
        ? [
            `${skipped ? 'skipped' : 'all the same'}, ${step.kind === 'ready' ? step.item.text.toLowerCase() : step.kind}: ${why}`,
          ]
        : [],
    ),
    ...(state.over?.how === 'given up' && state.over.why ? [`given up: ${state.over.why}`] : []),
  ];
  const text = lines.join(' · ');
  return text.length > LONGEST_NOTE ? `${text.slice(0, LONGEST_NOTE)} …` : text;
}

const lookName = (id: string): string => {
  const [, cup, minutes] = /C(\d+)\.\d+\.look(\d+)/.exec(id) ?? [];
  return `cup ${cup} after ${minutes} min`;
};

/** The layers of a run that the log should know of: poured to the end, or as far as it went when it was given up. */
export const layersToLog = (state: RunState): LayerRecord[] =>
  layersBegun(state).flatMap((layer) => {
    const whole = layerIsPoured(state, layer) || state.over?.how === 'given up';
    const record = whole ? layerRecord(state, layer) : null;
    return record ? [record] : [];
  });
