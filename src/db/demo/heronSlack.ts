import { minuteOfDay, toWallTime, wallMinutes, weekdayOf, type WallTime } from '@/core/cure/wallTime';
import { planBatch } from '@/core/plan';
import { batchRequest } from '@/core/records/buildRequest';
import type { Batch, PieceRecord, PourRecord, WaterSet } from '@/core/records/schema';
import type { DeskView } from '@/core/records/views';
import type { Database } from '../dataFile';
import { shippedId, SETTINGS_ID } from '../defaults';
import { edit, type EditWriter } from '../journal';
import { getRecord, listRecords } from '../records';
import { CREEK_MOUTH, HERON_SLACK_DESIGNS } from './heronSlackDesigns';
import { HERON_SLACK_TABLES } from './heronSlackTables';

export const HERON_SLACK_ID = 'heron-slack';
const DAY = 1440;
const evening = (weekday: number): WaterSet['benchWindows'][number] => ({
  weekday,
  fromMinute: 19 * 60,
  toMinute: 21 * 60 + 30,
});

/** Midnight of the Saturday at or before a time. */
const lastSaturday = (minutes: number): number => minutes - minuteOfDay(minutes) - ((weekdayOf(minutes) + 2) % 7) * DAY;

function heronSlackSet(now: number): WaterSet {
  return {
    name: 'Heron Slack',
    figureScaleMm: 28,
    levelMm: 15,
    productId: shippedId('Coating epoxy'),
    recipeId: 'creek-green',
    benchWindows: [
      evening(1),
      evening(3),
      { weekday: 5, fromMinute: 9 * 60, toMinute: 18 * 60 },
      { weekday: 6, fromMinute: 10 * 60, toMinute: 17 * 60 },
    ],
    standards: [CREEK_MOUTH],
    shimsMm: [0.25, 0.5, 1],
    tableMm: 1800,
    tables: HERON_SLACK_TABLES,
    job: { customer: 'The Mudlarks, a made-up club', due: toWallTime(now + 18 * DAY).slice(0, 10), budget: 140 },
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
function strayPour(
  desk: DeskView,
  batch: Batch,
  layerNumber: number,
  pouredAt: WallTime,
  temperatureC: number,
  note: string,
): PourRecord {
  const request = batchRequest(desk, batch);
  const layer = request ? planBatch(request).layers[layerNumber - 1] : undefined;
  const cups = (layer?.cups ?? []).map((cup, i) => {
    const [strayA, strayB] = STRAYS[i % STRAYS.length]!;
    const tenth = (grams: number): number => Math.round(grams * 10) / 10;
    return {
      number: cup.number,
      partAGrams: tenth((cup.parts?.partAGrams ?? cup.mixGrams) + strayA),
      partBGrams: cup.parts ? tenth(cup.parts.partBGrams + strayB) : null,
      note: i === 2 ? 'Dripped a little on the second tile' : '',
    };
  });
  return { layer: layerNumber, pouredAt, temperatureC, cups, note };
}

/** Loads the sample set Heron Slack: pieces, and a finished, a half done and a planned batch, dated around `now`. */
export function loadHeronSlack(db: Database, now: WallTime): void {
  edit(db, 'sets', 'Load the sample Heron Slack', now, (writer) => writeHeronSlack(writer, now));
}

/** The same as part of another edit. */
export function writeHeronSlack(writer: EditWriter, now: WallTime): void {
  const minutes = wallMinutes(now);
  const set = heronSlackSet(minutes);
  writer.add('set', HERON_SLACK_ID, set);
  for (const { id, ...design } of HERON_SLACK_DESIGNS) writer.add('design', id, design, HERON_SLACK_ID);
  writer.add(
    'piece',
    'hs-4-1',
    { designId: 'hs-4', copy: 1, measured: { atLevelMm: 15, readings: CREEK_POOL_READINGS, fillMl: null } },
    HERON_SLACK_ID,
  );
  writer.add(
    'piece',
    'sh-a-2',
    { designId: 'sh-a', copy: 2, measured: { atLevelMm: 15, readings: [], fillMl: null }, edges: SHORE_EDGES.a2 },
    HERON_SLACK_ID,
  );
  writer.add(
    'piece',
    'sh-b-1',
    { designId: 'sh-b', copy: 1, measured: { atLevelMm: 15, readings: [], fillMl: null }, edges: SHORE_EDGES.b1 },
    HERON_SLACK_ID,
  );
  const desk = deskOf(writer, set, now);
  const saturday = lastSaturday(minutes);
  const firstSaturday = saturday - 7 * DAY;

  const tiles: Batch = {
    name: 'Creek tiles',
    items: items([
      ['hs-1', 4],
      ['hs-2', 3],
    ]),
    pourAt: toWallTime(firstSaturday + 9.5 * 60),
    pours: [],
    planned: null,
  };
  writer.add(
    'batch',
    'hs-batch-1',
    poured(desk, tiles, [
      [1, firstSaturday + 9.5 * 60 + 10, 19.5, 'Bench levelled with two card shims under the west side.'],
      [2, firstSaturday + 16.25 * 60, 20, 'Three bubbles by the stones, gone after one pass of warm air.'],
    ]),
    HERON_SLACK_ID,
  );
  const shore: Batch = {
    name: 'Shore boards',
    items: items([
      ['sh-a', 2],
      ['sh-b', 2],
    ]),
    pourAt: toWallTime(saturday + 10 * 60),
    pours: [],
    planned: null,
  };
  writer.add(
    'batch',
    'hs-batch-2',
    poured(desk, shore, [
      [1, saturday + 10 * 60 + 20, 18.5, 'Second dam behind the south edge held. Nothing leaked after an hour.'],
    ]),
    HERON_SLACK_ID,
  );
  const rest: Batch = {
    name: 'Bases and the last tiles',
    items: items([
      ['hs-3', 1],
      ['hs-4', 1],
      ['hs-5', 1],
      ['b-32', 12],
      ['b-50', 8],
      ['b-60', 4],
    ]),
    pourAt: toWallTime(saturday + 7 * DAY + 9.5 * 60),
    pours: [],
    planned: null,
  };
  writer.add('batch', 'hs-batch-3', rest, HERON_SLACK_ID);
}

const items = (list: readonly (readonly [string, number])[]): Batch['items'] =>
  list.map(([designId, copies]) => ({ designId, copies }));

/** A batch after some of its layers were poured: the plan kept, the weighings entered. */
function poured(desk: DeskView, batch: Batch, layers: readonly (readonly [number, number, number, string])[]): Batch {
  const planned = batchRequest(desk, batch);
  return {
    ...batch,
    planned,
    pours: layers.map(([layer, at, temperatureC, note]) =>
      strayPour(desk, batch, layer, toWallTime(at), temperatureC, note),
    ),
  };
}

function deskOf({ db }: EditWriter, set: WaterSet, now: WallTime): DeskView {
  const settings = getRecord(db, 'settings', SETTINGS_ID);
  if (!settings) throw new Error('The shelf must be stocked before the sample is loaded');
  return {
    set: { id: HERON_SLACK_ID, version: 1, data: set },
    designs: listRecords(db, 'design', HERON_SLACK_ID),
    pieces: listRecords(db, 'piece', HERON_SLACK_ID),
    batches: [],
    shelf: {
      settings,
      products: listRecords(db, 'product'),
      colourants: listRecords(db, 'colourant'),
      recipes: listRecords(db, 'recipe'),
    },
    history: { undo: null, redo: null },
    now,
  };
}
