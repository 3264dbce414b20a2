import { roundHeight, type BedGrid } from './grid';
import type { PointMm } from './outline';
import { findPools, type Pool, type PoolOptions } from './pools';
import type { PoolLevel } from '../model/designSchema';

/** A bed of which some pools stand at levels of their own. */
export interface OwnLevels {
  /** The bed with those pools' hollows moved up or down, so that at the set's level every pool is as full as it will be. */
  grid: BedGrid;
  /** For each cell the mark whose hollow it belongs to, or −1. */
  region: Int16Array;
  /** By how much each mark's level lies over the set's. */
  overMm: number[];
  /** Marks that stand on dry land at their own level. */
  dry: number[];
  /** Marks whose hollows hang together: they cannot stand at two levels. */
  joined: [number, number][];
}

const NONE = -1;

/**
 * Moves the hollow round each mark by as much as its level differs from the set's. A hollow is what hangs together
 * below the higher of the two levels (4 neighbours): up to there its own water, and none of the set's, can be.
 * Volumes, areas and depths at the set's level are then those of all pools, each at its own.
 */
export function levelPools(grid: BedGrid, marks: readonly PoolLevel[], levelMm: number): OwnLevels {
  const { columns, rows, coverage } = grid;
  const heightMm = grid.heightMm.slice();
  const region = new Int16Array(heightMm.length).fill(NONE);
  const own: OwnLevels = {
    grid: { ...grid, heightMm },
    region,
    overMm: marks.map((mark) => mark.levelMm - levelMm),
    dry: [],
    joined: [],
  };
  marks.forEach((mark, number) => {
    const start = cellOf(mark, grid);
    if (!(grid.heightMm[start]! < mark.levelMm)) {
      own.dry.push(number);
      return;
    }
    const brim = Math.max(levelMm, mark.levelMm);
    const shift = roundHeight(own.overMm[number]!);
    const stack = [start];
    while (stack.length > 0) {
      const cell = stack.pop()!;
      if (region[cell] !== NONE) {
        const other = region[cell]!;
        if (other !== number && !own.joined.some(([a, b]) => a === other && b === number))
          own.joined.push([other, number]);
        continue;
      }
      region[cell] = number;
      heightMm[cell] = roundHeight(grid.heightMm[cell]! - shift);
      const column = cell % columns;
      const row = (cell - column) / columns;
      if (column > 0 && isBelow(cell - 1)) stack.push(cell - 1);
      if (column < columns - 1 && isBelow(cell + 1)) stack.push(cell + 1);
      if (row > 0 && isBelow(cell - columns)) stack.push(cell - columns);
      if (row < rows - 1 && isBelow(cell + columns)) stack.push(cell + columns);
    }
    function isBelow(cell: number): boolean {
      return coverage[cell]! > 0 && grid.heightMm[cell]! < brim && region[cell] !== number;
    }
  });
  return own;
}

const cellOf = ({ xMm, yMm }: PointMm, { columns, rows, cellMm }: BedGrid): number =>
  Math.min(rows - 1, Math.max(0, Math.floor(yMm / cellMm))) * columns +
  Math.min(columns - 1, Math.max(0, Math.floor(xMm / cellMm)));

/** By how much the water at a point stands over the set's level. */
export function overLevelMm({ region, overMm, grid }: OwnLevels, point: PointMm): number {
  const mark = region[cellOf(point, grid)]!;
  return mark === NONE ? 0 : overMm[mark]!;
}

/** A mark whose water, at its own level, runs together with water that would be a pool by itself at the set's. */
export interface Merger extends PointMm {
  mark: number;
  /** The saddle between them: up to there they are two. */
  saddleMm: number;
}

/** What stands where on a bed with marks. */
export interface OwnPools {
  /** Each at its own level and with its own spill; largest first. */
  pools: (Pool & { levelMm: number })[];
  mergers: Merger[];
}

/** Pools of a bed with marks. `drawn` is the bed as it is. */
export function findOwnPools(drawn: BedGrid, own: OwnLevels, levelMm: number, options: PoolOptions): OwnPools {
  const markAt = (pool: Pool): number => own.region[cellOf(pool.deepest, drawn)]!;
  const atLevel = findPools(drawn, levelMm, options);
  const groups = [NONE, ...own.overMm.keys()].filter((mark) => !own.dry.includes(mark));
  const found = groups.flatMap((mark) => {
    const at = mark === NONE ? levelMm : levelMm + own.overMm[mark]!;
    const all = mark === NONE ? atLevel : findPools(drawn, at, options);
    return all.flatMap((pool) =>
      markAt(pool) === mark
        ? [{ pool: { ...pool, levelMm: at }, other: pool.spill?.pool == null ? null : all[pool.spill.pool]! }]
        : [],
    );
  });
  const sorted = found.sort((a, b) => b.pool.volumeMl - a.pool.volumeMl);
  // A pool may spill into one that was found at another level: it is known by where it is deepest.
  const placeOf = (other: Pool): number | null => {
    const place = sorted.findIndex(
      ({ pool }) =>
        markAt(pool) === markAt(other) &&
        (markAt(other) !== NONE || cellOf(pool.deepest, drawn) === cellOf(other.deepest, drawn)),
    );
    return place < 0 ? null : place;
  };
  const pools = sorted.map(({ pool, other }) => ({
    ...pool,
    spill: pool.spill && { ...pool.spill, pool: other && placeOf(other) },
  }));
  return { pools, mergers: own.overMm.flatMap((over, mark) => (over > 0 ? mergersOf(atLevel, mark, markAt) : [])) };
}

/** Saddles below a mark's level between pools that its water covers. */
function mergersOf(atLevel: readonly Pool[], mark: number, markAt: (pool: Pool) => number): Merger[] {
  const covered = atLevel.filter((pool) => markAt(pool) === mark);
  const saddles = covered.flatMap(({ spill }) =>
    spill?.over === 'pool' && spill.pool !== null && markAt(atLevel[spill.pool]!) === mark ? [spill] : [],
  );
  const lowest = saddles.sort((a, b) => a.levelMm - b.levelMm)[0];
  return covered.length > 1 && lowest ? [{ mark, saddleMm: lowest.levelMm, xMm: lowest.xMm, yMm: lowest.yMm }] : [];
}
