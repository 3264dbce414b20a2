import { bestRow } from '../src/core/seams/row';
import { SEAM_LIMITS } from '../src/core/model/seamSchema';
import { compareEdges } from '../src/core/seams/seam';
import { piecesToMake } from '../src/core/seams/makeList';
import { shimRow, type EndLevels } from '../src/core/seams/shims';
import type { SeamEdge } from '../src/core/seams/seamEdge';
import { emptyWish, layTable } from '../src/core/seams/table';
import type { TableTile } from '../src/core/seams/tableTypes';
import type { TableWish } from '../src/core/model/tableSchema';
import { medianMs } from './measure';

type Against = (what: string, ms: number, limit: string, within: boolean) => void;
const SECOND = 1000;

/** Boards whose ends stand at levels of their own: the cost of a seam is the step. */
function boards(
  count: number,
): (left: { board: number; turned: boolean }, right: { board: number; turned: boolean }) => number {
  const ends = Array.from({ length: count }, (_, i) => [((i * 7919) % 101) / 20, ((i * 104_729) % 103) / 20] as const);
  return (left, right) => Math.abs(ends[left.board]![left.turned ? 0 : 1] - ends[right.board]![right.turned ? 1 : 0]);
}

/** Seams, rows and tables, against seconds: they run in a worker. */
export function matchBench(against: Against): void {
  const exactMs = medianMs(() => bestRow(12, boards(12), 1), 3);
  against('best row of 12 boards that may be turned, exact, counted', exactMs, 'under 2 s', exactMs < 2 * SECOND);
  const many = medianMs(() => bestRow(40, boards(40), 1), 1);
  against('row of 40 boards, with its bound', many, 'under 2 s', many < 2 * SECOND);

  const edges = Array.from({ length: 240 }, (_, i): SeamEdge => ({
    piece: `P${i >> 2}`,
    edge: 'north',
    lengthMm: 140,
    levelMm: [15, 15, 15 + (i % 7) / 10],
    measured: true,
    look: { colours: ['#ffffff', '#446644', '#113311'], stepMm: 3 },
    heightMm: Float32Array.from({ length: 281 }, (_, k) => (Math.abs(k - 140) < 56 ? 9 + ((i * k) % 11) / 20 : 18)),
  }));
  const matrixMs = medianMs(
    () =>
      edges.reduce(
        (sum, a, i) => sum + edges.slice(i).reduce((inner, b) => inner + compareEdges(a, b, SEAM_LIMITS).gapMm, 0),
        0,
      ),
    3,
  );
  against('all seams of 60 pieces with 4 edges, turned too', matrixMs, 'under 1 s', matrixMs < SECOND);

  const ends = (count: number): EndLevels[] =>
    Array.from({ length: count }, (_, i) => ({
      left: [15, 15 + (i % 5) / 10, 15.2],
      right: [14.6 + (i % 3) / 5, 14.8, 15],
    }));
  const shimMs = medianMs(() => shimRow(ends(40), [0.25, 0.5, 1], { perCorner: true }), 1);
  against('shims under the corners of 40 boards, exact', shimMs, 'under 1 s', shimMs < SECOND);

  const wet = (...sides: number[]): TableTile['wet'] => [0, 1, 2, 3].map((side) => sides.includes(side));
  const tiles: TableTile[] = [
    wet(0, 2),
    wet(0, 1),
    wet(0, 1, 2),
    wet(0),
    wet(0, 2),
    wet(0, 1),
    wet(0, 1, 2, 3),
    wet(0, 2),
  ].map((sides, i) => ({
    tag: `D${i}`,
    designId: `D${i}`,
    copy: null,
    copies: [12, 12, 4, 4, 8, 10, 2, 8][i]!,
    turnable: true,
    wet: sides,
  }));
  const wish: TableWish = {
    ...emptyWish(8, 6),
    blocked: [
      { column: 3, row: 2 },
      { column: 4, row: 4 },
    ],
    pass: [
      { column: 2, row: 4 },
      { column: 6, row: 1 },
    ],
    openings: [
      { column: 0, row: 3, side: 3 },
      { column: 7, row: 2, side: 1 },
      { column: 5, row: 0, side: 0 },
    ],
  };
  const layMs = medianMs(() => {
    const result = layTable(wish, tiles, () => true);
    if (result.kind !== 'found') throw new Error(`No layout: ${result.kind}`);
  }, 3);
  against('first layout of an 8 × 6 table from 60 pieces of 8 designs', layMs, 'under 1 s', layMs < SECOND);
  const scarce = tiles.map((tile, i) => ({ ...tile, copies: i === 0 ? 3 : i === 1 ? 1 : 0 }));
  const fewestMs = medianMs(() => {
    const result = layTable({ ...wish, pass: [], openings: wish.openings.slice(0, 2) }, scarce, () => true, {
      mostExtras: 8,
    });
    if (result.kind !== 'found' || !result.fewest) throw new Error(`No proof: ${result.kind}`);
  }, 1);
  against('the fewest extra pieces where the stock will not do, proved', fewestMs, 'under 5 s', fewestMs < 5 * SECOND);
  const small = (openings: TableWish['openings'], blocked: TableWish['blocked'] = []): TableWish => ({
    ...emptyWish(5, 4),
    openings,
    blocked,
  });
  const list = [
    small([
      { column: 0, row: 1, side: 3 },
      { column: 4, row: 2, side: 1 },
    ]),
    small(
      [
        { column: 0, row: 3, side: 3 },
        { column: 2, row: 0, side: 0 },
      ],
      [{ column: 1, row: 3 }],
    ),
    small([
      { column: 0, row: 0, side: 0 },
      { column: 4, row: 3, side: 2 },
      { column: 4, row: 0, side: 1 },
    ]),
  ];
  const makeMs = medianMs(() => {
    const result = piecesToMake(
      list,
      tiles.slice(0, 4).map((tile) => ({ ...tile, copies: 1 })),
      () => true,
    );
    if (result.kind !== 'found') throw new Error(`Nothing to make: ${result.kind}`);
  }, 1);
  against('what to make for three 5 × 4 tables', makeMs, 'under 10 s', makeMs < 10 * SECOND);
}
