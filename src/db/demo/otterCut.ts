import { createHash } from 'node:crypto';
import type { PieceDesign } from '@/core/model/designSchema';
import type { Lot, StockItem } from '@/core/model/stockSchema';
import { seeded } from '@/core/chance/random';
import type { HardenedLook } from '@/core/cure/hardened';
import { temperatureFactor } from '@/core/cure/temperature';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import type { Amounts } from '@/core/plan';
import { factsOfStep, type StepKind } from '@/core/schedule/stepKinds';
import type { StepMark } from '@/core/schedule/routes';
import type {
  Batch,
  CopyFate,
  CopyInspection,
  Finding,
  PieceRecord,
  PourRecord,
  WaterSet,
  WeighedCup,
} from '@/core/records/recordSchemas';
import { toWallTime, wallMinutes } from '@/core/time/wallTime';
import { keepPhoto } from '../photos';
import { getLot } from '../stock';
import type { EditWriter } from '../storage';
import PHOTOS from './otterCutPhotos.json';

/*
 * The year behind the sample: what its makers poured for Otter Cut, a made-up mill stream, before they began with Heron Slack. It is
 * finished, handed over and put away; the log of the workshop has it.
 */

export const OTTER_CUT_ID = 'otter-cut';
const DAY = 1440;
const LEVEL_MM = 12;
const EPOXY: StockItem = { kind: 'product', id: 'slow-casting-epoxy' };

const TILE = 'oc-1';
const POND = 'oc-2';

/** One batch of the year: how many weeks ago, how many tiles and pond bases, the room, what was said, what was found on its first tile. */
interface PastBatch {
  weeks: number;
  name: string;
  tiles: number;
  ponds: number;
  roomC: number;
  note: string;
  found?: Finding[];
  outcome?: 'mend' | 'remake';
}

const YEAR: readonly PastBatch[] = [
  {
    weeks: 50,
    name: 'A first try',
    tiles: 2,
    ponds: 0,
    roomC: 14,
    note: 'The heater came on late.',
    found: [{ kind: 'tacky' }],
    outcome: 'remake',
  },
  { weeks: 48, name: 'Once more, warmer', tiles: 2, ponds: 2, roomC: 20, note: 'Bottles stood in warm water first.' },
  {
    weeks: 45,
    name: 'Mill race',
    tiles: 6,
    ponds: 0,
    roomC: 18,
    note: '',
    found: [{ kind: 'low', mm: 0.8 }],
    outcome: 'mend',
  },
  { weeks: 43, name: 'Ponds for the swap', tiles: 0, ponds: 12, roomC: 18.5, note: 'One cup for all of them.' },
  { weeks: 40, name: 'Mill race, the rest', tiles: 5, ponds: 2, roomC: 19, note: 'Two bubbles by the wheel, gone.' },
  { weeks: 36, name: 'Sluice', tiles: 3, ponds: 0, roomC: 19.5, note: 'A dam leaked at the corner; putty held it.' },
  {
    weeks: 33,
    name: 'Spring order',
    tiles: 8,
    ponds: 6,
    roomC: 20,
    note: '',
    found: [{ kind: 'bubbles' }],
    outcome: 'mend',
  },
  { weeks: 31, name: 'Spring order, second half', tiles: 8, ponds: 6, roomC: 21, note: 'Poured in one evening.' },
  { weeks: 26, name: 'Weir', tiles: 2, ponds: 0, roomC: 24, note: 'Warm: it set a good hour early.' },
  { weeks: 20, name: 'Garden show', tiles: 4, ponds: 8, roomC: 26, note: 'Half batches because of the heat.' },
  { weeks: 12, name: 'Autumn order', tiles: 7, ponds: 0, roomC: 20, note: '' },
  { weeks: 10, name: 'Autumn order, ponds', tiles: 0, ponds: 14, roomC: 19.5, note: 'Two left over for the shelf.' },
  { weeks: 6, name: 'Last boards', tiles: 5, ponds: 4, roomC: 19, note: 'The last of it.' },
];

/** How many weeks ago each drum was bought and opened, what it held and cost. */
const KITS: readonly { id: string; weeks: number; opened: number; a: number; b: number; price: number }[] = [
  { id: 'oc-kit-1', weeks: 52, opened: 50, a: 691, b: 309, price: 31 },
  { id: 'oc-kit-2', weeks: 41, opened: 40, a: 691, b: 309, price: 31 },
  { id: 'oc-kit-3', weeks: 34, opened: 33, a: 691, b: 309, price: 33.5 },
  { id: 'oc-kit-4', weeks: 21, opened: 20, a: 1382, b: 618, price: 61 },
];

const NOTES: readonly { weeks: number; text: string }[] = [
  { weeks: 49, text: 'Below 17 °C nothing is poured any more: the first tiles never got hard.' },
  { weeks: 42, text: 'Grey card cut to the bed is quicker than paint for a first look at a tint.' },
  { weeks: 34, text: 'Spring order: eight tiles and six ponds, twice. To be fetched by the end of April.' },
  { weeks: 19, text: 'Mixed half as much at a time at the show; hardly anything stayed in the cups.' },
  { weeks: 5, text: 'Otter Cut is done. Boxed and put away.' },
];

const LOTS_OF = (day: (weeks: number) => string): { id: string; data: Lot }[] =>
  KITS.map(({ id, weeks, opened, a, b, price }, i) => ({
    id,
    data: {
      of: EPOXY,
      name: `Drum ${i + 1}`,
      bought: [
        { part: 'A', amount: a },
        { part: 'B', amount: b },
      ],
      boughtOn: day(weeks),
      openedOn: day(opened),
      bestBefore: null,
      price,
    },
  }));

export const OTTER_CUT: WaterSet = {
  name: 'Otter Cut',
  figureScaleMm: 28,
  levelMm: LEVEL_MM,
  productId: EPOXY.id,
  recipeId: 'bog-brown',
  benchWindows: null,
  job: {
    customer: 'Friends of the mill, made up',
    due: null,
    budget: 1200,
    hours: 70,
    approvals: [{ what: 'Photos of the first four tiles', given: '2026-01-31' }],
    quoted: {
      at: '2025-12-20T20:30',
      hours: { low: 52, likely: 64, high: 88 },
      money: { low: 790, likely: 930, high: 1210 },
      price: { low: 948, likely: 1116, high: 1452 },
    },
  },
  putAway: true,
};

const plain = {
  landMm: 15,
  drawnLevelMm: LEVEL_MM,
  bedColour: '#a08a66',
  landColour: '#7d8461',
  dams: {},
  measured: null,
  copyNumbers: null,
} as const;
const made = (of: 'tiles' | 'ponds'): number => YEAR.reduce((sum, batch) => sum + batch[of], 0);

export const OTTER_CUT_DESIGNS: readonly (PieceDesign & { id: string })[] = [
  {
    ...plain,
    kind: 'tile',
    id: TILE,
    tag: 'OC-1',
    name: 'Mill stream',
    copies: made('tiles'),
    outline: { kind: 'rectangle', widthMm: 140, lengthMm: 140 },
    features: [
      {
        kind: 'channel',
        id: 'stream',
        widthMm: 72,
        depthMm: 7,
        section: 'trapezoid',
        bankSlope: 1,
        from: { edge: 'south', positionMm: 70 },
        to: { edge: 'north', positionMm: 70 },
      },
    ],
  },
  {
    ...plain,
    kind: 'base',
    id: POND,
    tag: 'OC-2',
    name: 'Mill pond base',
    copies: made('ponds'),
    outline: { kind: 'oval', widthMm: 60, lengthMm: 60 },
    features: [{ kind: 'basin', id: 'pond', rimMm: 3, depthMm: 5 }],
  },
];

const BATCH = 'oc-batch-';
/** Whether a batch of the sample is one of the year behind it. */
export const isOfYear = (batchId: string): boolean => batchId.startsWith(BATCH);

/** A batch of the year as it stands by now: poured in one layer, looked over, handed over. */
export interface PastWork {
  id: string;
  batch: Batch;
  poured: {
    at: number;
    temperatureC: number;
    note: string;
    read: (pour: PourRecord, planned: Amounts['layers'][number]) => PourRecord;
  };
}

/** How these makers really worked: they scrape their cups, pour slower than is usual, their drops are small, and the clock of one pour was wrong. */
const TRULY = {
  perCupGrams: 0.8,
  share: 0.012,
  gramsPerMinute: 34,
  lifeShare: 0.85,
  wrongClock: 5,
  /** A drop weighs so much of what is usual, and water is firm in such a share of its time. */
  dropShare: 0.86,
  firmShare: 0.88,
};

/** A pour with what the bench read of it: what reached the pieces, how long each took, when the cup drew threads. */
function asRead(pour: PourRecord, planned: Amounts['layers'][number], batch: number): PourRecord {
  const roll = seeded(batch + 1);
  const rollMore = seeded(500 + batch);
  const tenth = (value: number): number => Math.round(value * 10) / 10;
  const cups = pour.cups.map((cup, i): WeighedCup => {
    const plan = planned.cups[i]!;
    const doses = plan.doses.map(({ id, grams }) => ({ id, grams }));
    const mixed = cup.partAGrams + (cup.partBGrams ?? 0) + doses.reduce((sum, { grams }) => sum + grams, 0);
    const lost = TRULY.perCupGrams + TRULY.share * mixed + 0.3 * plan.pours.length;
    const reached = mixed - lost * (0.8 + 0.4 * roll());
    const pieces = plan.pours.map(({ designId, copy, tag, grams }) => ({
      designId,
      copy,
      tag,
      grams: tenth((grams * reached) / plan.pouredGrams),
    }));
    const minutes = pieces.map(({ grams }) => tenth((0.4 + grams / TRULY.gramsPerMinute) * (0.85 + 0.3 * roll())));
    if (batch === TRULY.wrongClock) minutes[0] = 61;
    return {
      ...cup,
      pouredGrams: tenth(pieces.reduce((sum, { grams }) => sum + grams, 0)),
      discarded: false,
      doses,
      pieces,
      bench: {
        read: true,
        stirMinutes: tenth(3 + 2 * roll()),
        clearMinutes: tenth(0.5 + 1.5 * rollMore()),
        ...countedIn(plan.portions, rollMore),
        thickMinutes:
          batch % 3 === 1 && i === 0 ? Math.round(plan.potLifeMinutes * TRULY.lifeShare * (0.95 + 0.1 * roll())) : null,
        pieceMinutes: minutes,
      },
    };
  });
  return { ...pour, cups, ...(batch % 2 === 0 && { hardened: [touched(pour.temperatureC, rollMore)] }) };
}

/** Drops of a cup, as the scale showed them. */
function countedIn(portions: Amounts['layers'][number]['cups'][number]['portions'], roll: () => number) {
  const drops = portions.flatMap(({ way, drops: count, grams, colours: [colour] }) =>
    way === 'drops' && colour && grams >= LEAST_READ_GRAMS
      ? [{ id: colour.id, count, grams: Math.round(100 * grams * TRULY.dropShare * (0.94 + 0.12 * roll())) / 100 }]
      : [],
  );
  return drops.length > 0 ? { drops } : {};
}
/** Less than this is not read off a kitchen scale. */
const LEAST_READ_GRAMS = 0.3;

const EPOXY_LABEL = PRODUCT_KINDS.find(({ id }) => id === EPOXY.id)!;

/** A layer that was felt too soft once, and firm when it was felt again. */
function touched(roomC: number, roll: () => number): HardenedLook {
  const { demouldMinutes: labelMinutes, referenceC } = EPOXY_LABEL;
  const reckonedMinutes = Math.round(labelMinutes * temperatureFactor(roomC, referenceC));
  const firm = reckonedMinutes * TRULY.firmShare * (0.94 + 0.12 * roll());
  return {
    what: 'firm',
    labelMinutes,
    reckonedMinutes,
    softMinutes: Math.round(firm * 0.93),
    firmMinutes: Math.round(firm * 1.05),
  };
}

/** Tiles whose bed was felt before the pour and whose water was measured at its edges after it: three of each of these batches. */
const FELT = [3, 5, 7, 8, 11, 13];
const FELT_OF_EACH = 3;

/** What was felt and measured on single tiles of the year: beds cut a little deep, levels that get steadier. */
function measuredTiles(batches: readonly PastWork[]): { id: string; data: PieceRecord }[] {
  const roll = seeded(77);
  const about = (spreadMm: number): number => (2 * roll() - 1) * spreadMm;
  const tenth = (mm: number): number => Math.round(mm * 10) / 10;
  return FELT.flatMap((number, at) => {
    const { items, pourAt } = batches[number - 1]!.batch;
    const measuredOn = toWallTime(wallMinutes(pourAt) + 4 * DAY + 9 * 60);
    const tiles = items.find(({ designId }) => designId === TILE)!;
    return Array.from({ length: FELT_OF_EACH }, (_, i) => {
      const copy = (tiles.first ?? 1) + i;
      const cutMm = 0.2 + about(0.25);
      const readings = [30, 70, 110].map((yMm) => ({ xMm: 70, yMm, depthMm: tenth(7 + cutMm + about(0.3)) }));
      const levelMm = LEVEL_MM + about(0.5 - 0.06 * at);
      const edge = () => {
        const level = (): number => tenth(levelMm + about(0.1));
        return { bed: [], levels: [level(), level(), level()] as [number, number, number], at: measuredOn };
      };
      return {
        id: `oc-felt-${copy}`,
        data: {
          designId: TILE,
          copy,
          measured: { atLevelMm: LEVEL_MM, readings, fillMl: null },
          edges: { south: edge(), north: edge() },
        },
      };
    });
  });
}

/** Steps that were marked as done, so many times the usual minutes. */
const MARKED: readonly { step: StepKind; daysAfter: number; times: number }[] = [
  { step: 'dam', daysAfter: -1, times: 1.35 },
  { step: 'demould', daysAfter: 2, times: 0.9 },
];

/** The batches of the year; `saturday` is the midnight of the last one, in minutes. */
export function otterCutYear(saturday: number): PastWork[] {
  let [tile, pond] = [1, 1];
  return YEAR.map(({ weeks, name, tiles, ponds, roomC, note, found, outcome }, i) => {
    const day = saturday - weeks * 7 * DAY;
    const numbered = [
      { designId: TILE, copies: tiles, first: tile },
      { designId: POND, copies: ponds, first: pond },
    ].filter(({ copies }) => copies > 0);
    const items = numbered.map(({ first, ...item }) => ({ ...item, ...(first > 1 && { first }) }));
    [tile, pond] = [tile + tiles, pond + ponds];
    const copies = numbered.flatMap(({ designId, copies: many, first }) =>
      Array.from({ length: many }, (_, at) => ({ designId, copy: first + at })),
    );
    const looked = toWallTime(day + 4 * DAY + 20 * 60);
    const inspections = copies.map((copy, at): CopyInspection => ({
      ...copy,
      at: looked,
      findings: at === 0 ? (found ?? []) : [],
      outcome: at === 0 ? (outcome ?? 'pass') : 'pass',
      note: '',
      // The first of a batch is held against the recipe, with a white card beside it.
      ...(at === 0 && { colour: { seen: SEEN, apart: apartOf(i, found ?? []) } }),
    }));
    const fates = copies.map((copy, at): CopyFate =>
      at === 0 && outcome === 'remake'
        ? { ...copy, fate: 'spoilt', at: looked, why: 'tacky' }
        : { ...copy, fate: 'delivered', at: toWallTime(day + 13 * DAY + 11 * 60), why: '' },
    );
    const at = day + 10 * 60 + (i % 3) * 25;
    return {
      id: `${BATCH}${i + 1}`,
      batch: {
        name,
        items,
        pourAt: toWallTime(day + 10 * 60),
        benchWindows: null,
        inspections,
        ...photosOf(i, copies, toWallTime(day + 4 * DAY + 20 * 60 + 10)),
        fates,
        course: { marks: marksOf(day, i, copies.length) },
      },
      poured: { at, temperatureC: roomC, note, read: (pour, planned) => asRead(pour, planned, i) },
    };
  });
}

/** Of which batches the first tile was photographed on the day on which it was looked over. */
const PHOTOGRAPHED = [2, 6, 12];
const JPEGS = PHOTOS.jpegs.map((lines) => Buffer.from(lines.join(''), 'base64'));
const sumOf = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

function photosOf(
  batch: number,
  [first]: readonly { designId: string; copy: number }[],
  at: string,
): Pick<Batch, 'photos'> {
  const jpeg = JPEGS[PHOTOGRAPHED.indexOf(batch)];
  const { width, height } = PHOTOS;
  return jpeg && first ? { photos: [{ ...first, photo: sumOf(jpeg), at, width, height }] } : {};
}

/** The water of the cut as its photos show it. */
const SEEN = '#4a6137';
/** A colour that was found off is another shade; the others get nearer to the recipe with the year. */
function apartOf(batch: number, found: readonly Finding[]): number {
  const near = 3.6 - 0.11 * batch + 0.9 * seeded(300 + batch)();
  return Math.round(10 * (found.some(({ kind }) => kind === 'off colour') ? near + 3.2 : near)) / 10;
}

function marksOf(day: number, batch: number, pieces: number): StepMark[] {
  const roll = seeded(100 + batch);
  return MARKED.map(({ step, daysAfter, times }) => {
    const { perBatchMinutes, perPieceMinutes } = factsOfStep(step);
    const from = day + daysAfter * DAY + 18 * 60 + 30;
    const minutes = Math.round((perBatchMinutes + pieces * perPieceMinutes) * times * (0.9 + 0.2 * roll()));
    return { step, done: { from: toWallTime(from), to: toWallTime(from + minutes) } };
  });
}

/** Set, drums and notes of the year, before its batches. */
export function writeOtterCut(writer: EditWriter, saturday: number): void {
  const moment = (weeks: number, minute: number): string => toWallTime(saturday - weeks * 7 * DAY + minute);
  for (const { id, data } of LOTS_OF((weeks) => moment(weeks, 0).slice(0, 10))) writer.add('lot', id, data);
  for (const jpeg of JPEGS) keepPhoto(writer.db, sumOf(jpeg), jpeg, moment(0, 0));
  writer.add('set', OTTER_CUT_ID, OTTER_CUT);
  for (const { id, ...design } of OTTER_CUT_DESIGNS) writer.add('design', id, design, OTTER_CUT_ID);
  NOTES.forEach(({ weeks, text }, i) =>
    writer.add('note', `oc-note-${i + 1}`, { at: moment(weeks, 21 * 60 + 10), text, setId: OTTER_CUT_ID }),
  );
}

/** What was measured on single tiles; and what was left in the last drum was thrown away: nothing of it is on the shelf any more. */
export function writeOtterCutEnd(writer: EditWriter, saturday: number): void {
  for (const { id, data } of measuredTiles(otterCutYear(saturday))) writer.add('piece', id, data, OTTER_CUT_ID);
  const last = KITS.at(-1)!.id;
  for (const { part, amount } of getLot(writer.db, last)?.left ?? [])
    if (amount > 0)
      writer.add('movement', `oc-thrown-${part}`, {
        lotId: last,
        part,
        amount: -amount,
        kind: 'thrown away',
        at: toWallTime(saturday - 4 * 7 * DAY + 19 * 60),
        note: 'Stood open too long, thick as honey',
      });
}
