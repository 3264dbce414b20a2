import { wallMinutes } from '@/core/time/wallTime';
import type { Evenings, Stream } from '@/core/schedule/evenings';
import type { PlannedStep } from '@/core/schedule/scheduleRequest';

/** How near one looks: from the quarter hour to months. */
export const ZOOMS = [
  { value: 'quarter hours', column: 292, empty: 56, gutter: 104, perMinute: 2.2, least: 44, lines: 3 },
  { value: 'evenings', column: 188, empty: 28, gutter: 88, perMinute: 0.5, least: 25, lines: 2 },
  { value: 'weeks', column: 84, empty: 14, gutter: 26, perMinute: 0.26, least: 17, lines: 1 },
  { value: 'months', column: 26, empty: 6, gutter: 9, perMinute: 0.16, least: 7, lines: 0 },
] as const;
export type Zoom = (typeof ZOOMS)[number];

/** The head of a column, above its blocks. */
export const HEAD = 52;
const PAD = 7;
const GAP = 3;
/** Idle time in an evening is drawn as space, but not as much as it is. */
const MOST_IDLE = 26;
const LANE = 17;
const LEAST_HEIGHT = 190;

export interface PlacedBlock {
  x: number;
  y: number;
  width: number;
  height: number;
}
export interface PlacedEvening {
  x: number;
  width: number;
  blocks: PlacedBlock[];
}
export interface PlacedStream {
  stream: Stream;
  path: string;
  width: number;
  fromX: number;
  toX: number;
  /** Where its words stand; null where there is no room for them. */
  words: { x: number; y: number } | null;
}
export interface Laid {
  width: number;
  /** Where the table edge is: under the columns, above the river of what flows past whole evenings. */
  table: number;
  height: number;
  evenings: PlacedEvening[];
  streams: PlacedStream[];
}

/** How broad a stream is, for so many pieces. */
const breadth = (pieces: number, zoom: Zoom): number =>
  (zoom.lines === 0 ? 0.4 : zoom.lines === 1 ? 0.7 : 1) * Math.min(20, 4 + Math.sqrt(pieces) * 2.6);

/**
 * Where everything stands: evenings wide, those without work and nights narrow; streams between, past whole evenings
 * under the table edge.
 */
export function layEvenings({ evenings, streams }: Evenings, zoom: Zoom): Laid {
  let x = 0;
  let tallest = 0;
  const placed = evenings.map((evening, i): PlacedEvening => {
    const used = evening.blocks.length > 0;
    const before = evenings[i - 1];
    if (i > 0)
      x += used || (before && before.blocks.length > 0) ? zoom.gutter / (used && before!.blocks.length > 0 ? 1 : 2) : 3;
    const width = used ? zoom.column : zoom.empty;
    let y = HEAD + PAD;
    const inset = zoom.lines > 0 ? PAD : 3;
    const blocks = evening.blocks.map(({ minutes, idle }): PlacedBlock => {
      if (idle > 4) y += Math.min(MOST_IDLE, 4 + idle * zoom.perMinute * 0.5);
      const height = Math.max(
        zoom.least,
        Math.min(zoom.lines === 3 ? 600 : 150, minutes * zoom.perMinute + zoom.least * 0.45),
      );
      const block = { x: x + inset, y, width: width - 2 * inset, height };
      y += height + GAP;
      return block;
    });
    tallest = Math.max(tallest, y + PAD);
    const laid = { x, width, blocks };
    x += width;
    return laid;
  });
  const table = Math.max(HEAD + LEAST_HEIGHT * (zoom.lines === 0 ? 0.6 : 1), tallest);
  const passes = ({ fromEvening, toEvening }: Stream): boolean =>
    evenings.slice(fromEvening + 1, toEvening).some(({ blocks }) => blocks.length > 0);
  const lanes = [...new Set(streams.filter(passes).map(({ batchId }) => batchId))];
  const streamsPlaced = streams.map((stream): PlacedStream => {
    const from = placed[stream.fromEvening]!.blocks[stream.fromBlock]!;
    const to = placed[stream.toEvening]!.blocks[stream.toBlock]!;
    const [x1, y1] = [placed[stream.fromEvening]!.x + placed[stream.fromEvening]!.width - 1, from.y + from.height / 2];
    const [x2, y2] = [placed[stream.toEvening]!.x + 1, to.y + Math.min(to.height / 2, 14)];
    const fromX = from.x + from.width;
    const toX = to.x;
    const width = Math.min(breadth(stream.pieces, zoom), Math.max(3, from.height - 4), Math.max(3, to.height - 4));
    const half = Math.max(6, (x2 - x1) * 0.5);
    if (!passes(stream)) {
      const path = `M${fromX} ${y1}H${x1}C${x1 + half} ${y1} ${x2 - half} ${y2} ${x2} ${y2}H${toX}`;
      const roomy = zoom.lines >= 2 && x2 - x1 >= 64;
      return { stream, path, width, fromX, toX, words: roomy ? { x: (x1 + x2) / 2, y: (y1 + y2) / 2 } : null };
    }
    const lane = table + 12 + lanes.indexOf(stream.batchId) * LANE;
    const turn = zoom.gutter * 0.8;
    const path =
      `M${fromX} ${y1}H${x1}C${x1 + turn * 0.6} ${y1} ${x1 + turn * 0.2} ${lane} ${x1 + turn} ${lane}` +
      `H${Math.max(x1 + turn, x2 - turn)}C${x2 - turn * 0.2} ${lane} ${x2 - turn * 0.6} ${y2} ${x2} ${y2}H${toX}`;
    return { stream, path, width: Math.min(width, LANE - 5), fromX, toX, words: null };
  });
  return {
    width: Math.max(x, 1),
    table,
    height: table + (lanes.length > 0 ? 8 + lanes.length * LANE : 4),
    evenings: placed,
    streams: streamsPlaced,
  };
}

/** What makes good a missed window stands where the step that it is for puts it: it is not moved by itself. */
export const isAgain = ({ repairs, stepId }: PlannedStep): boolean =>
  repairs !== undefined || stepId.endsWith(':abrade');

/** Hours between two evenings, in words. */
export function hoursBetween(from: string, to: string): string {
  const hours = (wallMinutes(to) - wallMinutes(from)) / 60;
  return hours >= 96 ? `${Math.round(hours / 24)}\u00a0days` : `${Math.round(hours)}\u00a0h`;
}
