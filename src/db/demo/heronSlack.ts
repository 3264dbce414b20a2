import { minuteOfDay, toWallTime, wallMinutes, weekdayOf, type WallTime } from '@/core/time/wallTime';
import type { BenchWindow } from '@/core/time/benchWindows';
import { planAmounts, type Amounts, type PlanRequest } from '@/core/plan';
import { batchPieces, drawnDesigns, setRequest } from '@/core/records/buildRequest';
import type { Batch, PieceRecord, PourRecord, WaterSet } from '@/core/records/recordSchemas';
import type { SetDocuments } from '@/core/records/views';
import type { Course } from '@/core/schedule/routes';
import { FIRST_WORKPLACE, type Workplace } from '@/core/schedule/workplace';
import { keepPlan } from '../keptPlans';
import { appendEntry } from '../pours';
import { bookPour, plannedLayer } from '../bookPour';
import type { Database, EditWriter } from '@/db/storage';
import { DEFAULT_SETTINGS, SETTINGS_ID } from '../defaults';
import { getDocument, listDocuments } from '../documents';
import { edit } from '../journal';
import { CREEK_MOUTH, HERON_SLACK_DESIGNS } from './heronSlackDesigns';
import { writeHeronSlackStock } from './heronSlackStock';
import {
  OTTER_CUT,
  OTTER_CUT_DESIGNS,
  OTTER_CUT_ID,
  isOfYear,
  otterCutYear,
  writeOtterCut,
  writeOtterCutEnd,
} from './otterCut';
import { listLots } from '../stock';
import { HERON_SLACK_TABLES } from './heronSlackTables';
import type { Stored } from '@/core/model/stored';

export const HERON_SLACK_ID = 'heron-slack';
const DAY = 1440;
const evening = (weekday: number): BenchWindow => ({ weekday, fromMinute: 19 * 60, toMinute: 21 * 60 + 30 });

/** Midnight of the Saturday at or before a time. */
const lastSaturday = (minutes: number): number => minutes - minuteOfDay(minutes) - ((weekdayOf(minutes) + 2) % 7) * DAY;

/** When the sample's maker is at the bench: two evenings and the weekend. */
const BENCH_WINDOWS: readonly BenchWindow[] = [
  evening(1),
  evening(3),
  { weekday: 5, fromMinute: 9 * 60, toMinute: 18 * 60 },
  { weekday: 6, fromMinute: 10 * 60, toMinute: 17 * 60 },
];

function heronSlackSet(now: number): WaterSet {
  return {
    name: 'Heron Slack',
    figureScaleMm: 28,
    levelMm: 15,
    productId: 'coating-epoxy',
    recipeId: 'creek-green',
    benchWindows: null,
    standards: [CREEK_MOUTH],
    shimsMm: [0.25, 0.5, 1],
    tableMm: 1800,
    tables: HERON_SLACK_TABLES,
    job: {
      customer: 'The Mudlarks, a made-up club',
      due: toWallTime(now + 18 * DAY).slice(0, 10),
      budget: 480,
      hours: 28,
    },
  };
}

/** What a rule on its edge found on two finished boards: one stands low at its west end, the other's water leans. */
const SHORE_EDGES: Record<'a2' | 'b1', NonNullable<PieceRecord['edges']>> = {
  a2: {
    west: {
      bed: [
        { atMm: 60, heightMm: 7.7 },
        { atMm: 150, heightMm: 10.3 },
      ],
      levels: [14.1, 14.1, 14.2],
    },
    east: { bed: [], levels: [14.4, 14.4, 14.4] },
  },
  b1: { west: { bed: [], levels: [15, 15, 15] }, east: { bed: [], levels: [14.6, 15, 15.3] } },
};

/** What a pin and a rule found on the carved creek pool: a little deeper than drawn to the east. */
const CREEK_POOL_READINGS = [
  { xMm: 70, yMm: 68, depthMm: 9.8 },
  { xMm: 94, yMm: 70, depthMm: 8.4 },
  { xMm: 46, yMm: 66, depthMm: 7.1 },
  { xMm: 70, yMm: 98, depthMm: 7.6 },
  { xMm: 72, yMm: 36, depthMm: 7.2 },
  { xMm: 70, yMm: 128, depthMm: 6.9 },
];

/** How the sample's real weighings stray from the plan, in grams of A and B, cup after cup. */
const STRAYS: readonly (readonly [number, number])[] = [
  [0.2, -0.1],
  [-0.3, 0.1],
  [0.6, 0.2],
  [-0.1, -0.2],
  [0.4, -0.3],
];

/** Lays out a pour as it might really have gone: the plan's cups, each a little off. */
function strayPour(amounts: Amounts, layer: number, { at, temperatureC, note, read }: Poured): PourRecord {
  const tenth = (grams: number): number => Math.round(grams * 10) / 10;
  const planned = amounts.layers[layer - 1];
  const cups = (planned?.cups ?? []).map((cup, i) => {
    const [strayA, strayB] = STRAYS[i % STRAYS.length]!;
    return {
      number: cup.number,
      partAGrams: tenth((cup.parts?.partAGrams ?? cup.mixGrams) + strayA),
      partBGrams: cup.parts ? tenth(cup.parts.partBGrams + strayB) : null,
      note: i === 2 ? 'Dripped a little on the second tile' : '',
    };
  });
  const pour = { layer, pouredAt: toWallTime(at), temperatureC, cups, note };
  return read && planned ? read(pour, planned) : pour;
}

/** A layer of the sample that was poured. */
interface Poured {
  at: number;
  temperatureC: number;
  note: string;
  /** What the bench read of it beside the parts. */
  read?: (pour: PourRecord, planned: Amounts['layers'][number]) => PourRecord;
}

interface SampleBatch {
  id: string;
  batch: Batch;
  course?: Course;
  poured: readonly Poured[];
}

const spanOf = (from: number, length: number): { from: WallTime; to: WallTime } => ({
  from: toWallTime(from),
  to: toWallTime(from + length),
});

/** A small workshop: dams for fourteen pieces, a board and a half of level place, cold nights, neighbours. */
const WORKPLACE: Workplace = {
  ...FIRST_WORKPLACE,
  levelCm2: 9000,
  damKits: 14,
  nightC: 16,
  quiet: { fromMinute: 21 * 60, toMinute: 8 * 60 },
};

/** A finished, a half done and a planned batch, dated around now. */
function sampleBatches(minutes: number): SampleBatch[] {
  const saturday = lastSaturday(minutes);
  const firstSaturday = saturday - 7 * DAY;
  const batch = (name: string, at: number, list: readonly (readonly [string, number])[]): Batch => ({
    name,
    items: list.map(([designId, copies]) => ({ designId, copies })),
    pourAt: toWallTime(at),
    benchWindows: null,
  });
  return [
    {
      id: 'hs-batch-1',
      batch: batch('Creek tiles', firstSaturday + 9.5 * 60, [
        ['hs-1', 4],
        ['hs-2', 3],
      ]),
      poured: [
        {
          at: firstSaturday + 9.5 * 60 + 10,
          temperatureC: 19.5,
          note: 'Bench levelled with two card shims under the west side.',
        },
        {
          at: firstSaturday + 16.25 * 60,
          temperatureC: 20,
          note: 'Three bubbles by the stones, gone after one pass of warm air.',
        },
      ],
    },
    {
      id: 'hs-batch-2',
      batch: batch('Shore boards', saturday + 10 * 60, [
        ['sh-a', 2],
        ['sh-b', 2],
      ]),
      poured: [
        {
          at: saturday + 10 * 60 + 20,
          temperatureC: 18.5,
          note: 'Second dam behind the south edge held. Nothing leaked after an hour.',
        },
      ],
    },
    {
      id: 'hs-batch-3',
      batch: batch('Bases and the last tiles', saturday + 7 * DAY + 9.5 * 60, [
        ['hs-3', 1],
        ['hs-4', 1],
        ['hs-5', 1],
        ['b-32', 12],
        ['b-50', 8],
        ['b-60', 4],
      ]),
      // Its bodies were cut on the Sunday before last, and sealed the Tuesday after.
      course: {
        marks: [
          { step: 'cut', done: spanOf(firstSaturday + DAY + 10 * 60, 285) },
          { step: 'seal', done: spanOf(firstSaturday + 3 * DAY + 19 * 60, 91) },
        ],
      },
      poured: [],
    },
  ];
}

/** Copies of the sample that have been measured. */
const MEASURED: readonly { id: string; data: PieceRecord }[] = [
  {
    id: 'hs-4-1',
    data: { designId: 'hs-4', copy: 1, measured: { atLevelMm: 15, readings: CREEK_POOL_READINGS, fillMl: null } },
  },
  {
    id: 'sh-a-2',
    data: { designId: 'sh-a', copy: 2, measured: { atLevelMm: 15, readings: [], fillMl: null }, edges: SHORE_EDGES.a2 },
  },
  {
    id: 'sh-b-1',
    data: { designId: 'sh-b', copy: 1, measured: { atLevelMm: 15, readings: [], fillMl: null }, edges: SHORE_EDGES.b1 },
  },
];

const requestsOf = (
  documents: SetDocuments,
  batches: readonly { id: string; batch: Batch }[],
): [string, PlanRequest][] =>
  batches.flatMap(({ id, batch }) => {
    const pieces = batchPieces(batch, drawnDesigns(documents), documents.pieces);
    const request = setRequest(documents, pieces, { pourAt: batch.pourAt, clockChanges: [] });
    return request ? [[id, request] as [string, PlanRequest]] : [];
  });

/** What the sample would have planned for its poured batches, by id. The same documents, so the same plans, wherever it is loaded. */
export const heronSlackRequests = (shelf: SetDocuments['shelf'], now: WallTime): Map<string, PlanRequest> =>
  new Map(
    requestsOf(
      documentsOf(shelf, now),
      sampleBatches(wallMinutes(now)).filter(({ poured }) => poured.length > 0),
    ),
  );

/** The same for the year behind it. */
export const yearRequests = (shelf: SetDocuments['shelf'], now: WallTime): Map<string, PlanRequest> =>
  new Map(
    requestsOf(
      {
        set: stored(OTTER_CUT_ID, OTTER_CUT),
        designs: OTTER_CUT_DESIGNS.map(({ id, ...design }) => stored(id, design)),
        pieces: [],
        shelf,
      },
      otterCutYear(lastSaturday(wallMinutes(now))),
    ),
  );

const stored = <T>(id: string, data: T): Stored<T> => ({ id, version: 1, data });

const documentsOf = (shelf: SetDocuments['shelf'], now: WallTime): SetDocuments => ({
  set: stored(HERON_SLACK_ID, heronSlackSet(wallMinutes(now))),
  designs: HERON_SLACK_DESIGNS.map(({ id, ...design }) => stored(id, design)),
  pieces: MEASURED.map(({ id, data }) => stored(id, data)),
  shelf,
});

/** What the plans of the sample's poured batches come to, by id. They hold no dates: on an untouched shelf they are the same on any day. */
export type HeronSlackAmounts = Record<string, Amounts>;
/** Where the build leaves them. */
export const PLANNED_AT_BUILD = '.next/heron-slack.json';

/** Works them out on the shelf of a data file, those of the year behind it too. */
export function plannedSample(db: Database, now: WallTime): HeronSlackAmounts {
  const shelf = shelfOf(db);
  const all = [...heronSlackRequests(shelf, now), ...yearRequests(shelf, now)];
  return Object.fromEntries(all.map(([id, request]) => [id, planAmounts(request)]));
}

/** The plans of the sample: of the year behind it those of which the amounts are known. */
export function samplePlans(shelf: SetDocuments['shelf'], now: WallTime, known: HeronSlackAmounts): Plans {
  const all = [...heronSlackRequests(shelf, now), ...yearRequests(shelf, now)];
  return new Map(all.flatMap(([id, request]) => (known[id] ? [[id, { request, amounts: known[id] }] as const] : [])));
}

/**
 * Loads the sample set Heron Slack into a new data file. With amounts that the build worked out the year behind it comes along; else the
 * set alone is planned on the spot.
 */
export function loadHeronSlack(db: Database, now: WallTime, known?: HeronSlackAmounts): void {
  const shelf = shelfOf(db);
  const amounts =
    known ?? Object.fromEntries([...heronSlackRequests(shelf, now)].map(([id, request]) => [id, planAmounts(request)]));
  const plans = samplePlans(shelf, now, amounts);
  edit(db, 'sets', 'Load the sample Heron Slack', now, (writer) => writeHeronSlack(writer, now, plans));
}

/** The same as part of another edit, with plans that were worked out elsewhere. */
export function writeHeronSlack(writer: EditWriter, now: WallTime, plans: Plans): void {
  const minutes = wallMinutes(now);
  const settings = getDocument(writer.db, 'settings', SETTINGS_ID);
  if (settings?.data.benchWindows.length === 0)
    writer.put(
      'settings',
      SETTINGS_ID,
      { ...settings.data, benchWindows: [...BENCH_WINDOWS], workplace: settings.data.workplace ?? WORKPLACE },
      null,
    );
  // The year behind it and the bottles come only to a workshop that has none; the year before there are cups and gloves to take.
  if (listLots(writer.db).length === 0) {
    if ([...plans.keys()].some(isOfYear)) writeYear(writer, minutes, plans, now);
    writeHeronSlackStock(writer, minutes);
  }
  writer.add('set', HERON_SLACK_ID, heronSlackSet(minutes));
  for (const { id, ...design } of HERON_SLACK_DESIGNS) writer.add('design', id, design, HERON_SLACK_ID);
  for (const { id, data } of MEASURED) writer.add('piece', id, data, HERON_SLACK_ID);
  for (const { id, batch, course, poured } of sampleBatches(minutes)) {
    writer.add('batch', id, { ...batch, ...(course && { course }) }, HERON_SLACK_ID);
    writePours(writer, { id, batch, poured }, plans, now);
  }
}

type Plans = ReadonlyMap<string, { request: PlanRequest; amounts: Amounts }>;

/** The layers of a batch as they were poured, in log and ledger. */
function writePours(
  { db }: EditWriter,
  { id, batch, poured }: Pick<SampleBatch, 'id' | 'batch' | 'poured'>,
  plans: Plans,
  now: WallTime,
): void {
  const plan = plans.get(id);
  if (!plan) return;
  keepPlan(db, id, plan, now);
  poured.forEach((layer, i) => {
    const pour = strayPour(plan.amounts, i + 1, layer);
    appendEntry(db, id, pour, { struck: false, enteredAt: toWallTime(layer.at) });
    bookPour(db, { batchId: id, batchName: batch.name, layer: i + 1, planned: plannedLayer(plan, i + 1), pour }, now);
  });
}

/** Otter Cut, the year before. */
function writeYear(writer: EditWriter, minutes: number, plans: Plans, now: WallTime): void {
  const saturday = lastSaturday(minutes);
  writeOtterCut(writer, saturday);
  for (const { id, batch, poured } of otterCutYear(saturday)) {
    writer.add('batch', id, batch, OTTER_CUT_ID);
    writePours(writer, { id, batch, poured: [poured] }, plans, now);
  }
  writeOtterCutEnd(writer, saturday);
}

const shelfOf = (db: Database): SetDocuments['shelf'] => ({
  settings: getDocument(db, 'settings', SETTINGS_ID) ?? stored(SETTINGS_ID, DEFAULT_SETTINGS),
  products: listDocuments(db, 'product').records,
  colourants: listDocuments(db, 'colourant').records,
  recipes: listDocuments(db, 'recipe').records,
  consumables: listDocuments(db, 'consumable').records,
});
