import { HEIGHT_TICKS_PER_MM, type BedGrid } from './grid';
import type { PointMm } from './outline';
import type { EdgeName, Outline } from './schema';

export type OutlineEdge = EdgeName | 'rim';

/** Where a pool would run over first if it rose. */
export interface Spill extends PointMm {
  levelMm: number;
  /** Over an open or bank edge, into another pool, or over a dam. */
  over: 'edge' | 'pool' | 'dam';
  edge: OutlineEdge | null;
  /** Index of the other pool. */
  pool: number | null;
}

/** One body of water: cells below the level that hang together. Water does not jump over land. */
export interface Pool {
  volumeMl: number;
  surfaceCm2: number;
  greatestDepthMm: number;
  meanDepthMm: number;
  /** The deepest place. */
  deepest: PointMm;
  /** Null when nothing up to `capMm` lets it out. A spill below the level is an overflow. */
  spill: Spill | null;
}

interface PoolOptions {
  outline: Outline;
  /** Edges with a dam where the bed is below the level; its top stands `damMarginMm` above it, its ends overlap the bank. */
  dammed: ReadonlySet<OutlineEdge>;
  damMarginMm: number;
  damOverlapMm: number;
}

const NONE = -1;

/**
 * The pools at a level and how each would spill, largest first. A rising sweep: cells join in the order of their
 * heights (union–find, 4 neighbours); where two bodies join is the saddle between them, where one reaches an edge that
 * is not dammed it runs out. Levels are exact for the grid: within the height difference of neighbouring cells.
 * O(n α(n)) for the n cells up to the dams' tops.
 */
export function findPools(grid: BedGrid, levelMm: number, { outline, dammed, damMarginMm, damOverlapMm }: PoolOptions): Pool[] {
  const { columns, rows, heightMm, cellMm } = grid;
  const capMm = levelMm + damMarginMm;
  const order = cellsByHeight(grid, capMm);
  const rank = new Int32Array(columns * rows).fill(NONE);
  const parent = new Int32Array(order.length);
  /** For each body, by its root: the cell at which it reached the outside, and the pool it is. */
  const outsideCell = new Int32Array(order.length).fill(NONE);
  const poolOf = new Int32Array(order.length).fill(NONE);
  const find = (member: number): number => {
    let root = member;
    while (parent[root]! !== root) root = parent[root]!;
    while (parent[member]! !== root) [member, parent[member]] = [parent[member]!, root];
    return root;
  };
  const edgeOf = edgeFinder(grid, outline);
  const behindDam = cellsBehindDams(grid, levelMm, dammed, damOverlapMm, edgeOf);
  const isOpen = (cell: number): boolean => behindDam[cell] === 0 && edgeOf(cell) !== null;

  const pools: Pool[] = [];
  const spillOf = (cell: number, over: Spill['over'], pool: number | null): Spill => ({ levelMm: heightMm[cell]!, over, edge: over === 'pool' ? null : edgeOf(cell), pool, ...centreOf(cell, columns, cellMm) });
  const settle = (root: number, cell: number, over: Spill['over'], other: number | null): void => {
    const pool = poolOf[root]!;
    if (pool !== NONE && pools[pool]!.spill === null) pools[pool]!.spill = spillOf(cell, over, other);
  };
  /** Joins two bodies at a cell. The one that was there first (the deeper) lives on. */
  const join = (a: number, b: number, cell: number): void => {
    const [first, second] = a < b ? [a, b] : [b, a];
    const [firstPool, secondPool] = [poolOf[first]!, poolOf[second]!];
    if (firstPool !== NONE && secondPool !== NONE) {
      settle(first, cell, 'pool', secondPool);
      settle(second, cell, 'pool', firstPool);
    }
    parent[second] = first;
    if (outsideCell[first] === NONE && outsideCell[second] !== NONE) {
      outsideCell[first] = cell;
      settle(first, cell, 'edge', null);
    }
    if (outsideCell[first] !== NONE && secondPool !== NONE) settle(second, cell, 'edge', null);
    if (firstPool === NONE) poolOf[first] = secondPool;
  };
  const add = (position: number): void => {
    const cell = order[position]!;
    rank[cell] = position;
    parent[position] = position;
    const column = cell % columns;
    const neighbours = [column > 0 ? cell - 1 : NONE, column < columns - 1 ? cell + 1 : NONE, cell - columns, cell + columns];
    for (const neighbour of neighbours) {
      const other = neighbour < 0 || neighbour >= rank.length ? NONE : rank[neighbour]!;
      if (other === NONE) continue;
      const [mine, theirs] = [find(position), find(other)];
      if (mine !== theirs) join(mine, theirs, cell);
    }
    const root = find(position);
    if (outsideCell[root] === NONE && isOpen(cell)) {
      outsideCell[root] = cell;
      settle(root, cell, 'edge', null);
    }
  };

  let position = 0;
  while (position < order.length && heightMm[order[position]!]! < levelMm) add(position++);
  measurePools(grid, levelMm, order.subarray(0, position), find, poolOf, pools);
  for (let root = 0; root < position; root++) if (poolOf[root] !== NONE && outsideCell[root] !== NONE) settle(root, outsideCell[root]!, 'edge', null);
  while (position < order.length) add(position++);
  for (let cell = 0; cell < rank.length; cell++) {
    if (behindDam[cell] === 0 || rank[cell] === NONE) continue;
    const root = find(rank[cell]!);
    const pool = poolOf[root]!;
    if (pool !== NONE && pools[pool]!.spill === null) pools[pool]!.spill = { ...spillOf(cell, 'dam', null), levelMm: capMm };
  }
  return largestFirst(pools);
}

/** Marks the edge cells that a dam closes: those below the level on a dammed edge, and the bank that its ends overlap. */
function cellsBehindDams({ columns, rows, heightMm, coverage, cellMm }: BedGrid, levelMm: number, dammed: ReadonlySet<OutlineEdge>, overlapMm: number, edgeOf: (cell: number) => OutlineEdge | null): Uint8Array {
  const behind = new Uint8Array(columns * rows);
  if (dammed.size === 0) return behind;
  const edgeCells: number[] = [];
  for (let cell = 0; cell < behind.length; cell++) if (coverage[cell]! > 0 && edgeOf(cell) !== null) edgeCells.push(cell);
  const wet = edgeCells.filter((cell) => heightMm[cell]! < levelMm && dammed.has(edgeOf(cell) ?? 'rim'));
  for (const cell of wet) behind[cell] = 1;
  const reach = Math.round(overlapMm / cellMm);
  for (const cell of wet) {
    const [column, row] = [cell % columns, Math.floor(cell / columns)];
    for (let r = Math.max(0, row - reach); r <= Math.min(rows - 1, row + reach); r++) {
      // A straight edge lies in one row or column; only a rim needs the whole square.
      const step = r === row || edgeOf(cell) === 'rim' ? 1 : 2 * reach;
      for (let c = step === 1 ? Math.max(0, column - reach) : column; c <= Math.min(columns - 1, column + reach); c += step) {
        const other = r * columns + c;
        if (behind[other] === 0 && heightMm[other]! >= levelMm && coverage[other]! > 0 && edgeOf(other) === edgeOf(cell)) behind[other] = 1;
      }
    }
  }
  return behind;
}

/** Cells inside the outline up to a height, lowest first: a counting sort by ticks. */
function cellsByHeight({ heightMm, coverage }: BedGrid, capMm: number): Int32Array {
  const perMm = HEIGHT_TICKS_PER_MM;
  let lowest = Infinity;
  let count = 0;
  for (let i = 0; i < heightMm.length; i++) {
    if (coverage[i]! > 0 && heightMm[i]! <= capMm) {
      count++;
      if (heightMm[i]! < lowest) lowest = heightMm[i]!;
    }
  }
  if (count === 0) return new Int32Array(0);
  const starts = new Int32Array(Math.round((capMm - lowest) * perMm) + 2);
  const tick = (i: number): number => ((heightMm[i]! - lowest) * perMm + 0.5) | 0;
  for (let i = 0; i < heightMm.length; i++) if (coverage[i]! > 0 && heightMm[i]! <= capMm) starts[tick(i) + 1]!++;
  for (let k = 1; k < starts.length; k++) starts[k] = starts[k]! + starts[k - 1]!;
  const order = new Int32Array(count);
  for (let i = 0; i < heightMm.length; i++) if (coverage[i]! > 0 && heightMm[i]! <= capMm) order[starts[tick(i)]!++] = i;
  return order;
}

/** Measures each body below the level and marks its root as a pool. */
function measurePools({ heightMm, coverage, cellMm, columns }: BedGrid, levelMm: number, wet: Int32Array, find: (member: number) => number, poolOf: Int32Array, pools: Pool[]): void {
  const cellArea = cellMm * cellMm;
  for (let i = 0; i < wet.length; i++) {
    const root = find(i);
    const cell = wet[i]!;
    if (poolOf[root] === NONE) {
      poolOf[root] = pools.length;
      // Cells come lowest first, so the first of a body is its deepest.
      pools.push({ volumeMl: 0, surfaceCm2: 0, greatestDepthMm: levelMm - heightMm[cell]!, meanDepthMm: 0, deepest: centreOf(cell, columns, cellMm), spill: null });
    }
    const pool = pools[poolOf[root]!]!;
    pool.volumeMl += (coverage[cell]! * cellArea * (levelMm - heightMm[cell]!)) / 1000;
    pool.surfaceCm2 += (coverage[cell]! * cellArea) / 100;
  }
  for (const pool of pools) pool.meanDepthMm = (pool.volumeMl * 10) / pool.surfaceCm2;
}

const centreOf = (cell: number, columns: number, cellMm: number): PointMm => ({ xMm: ((cell % columns) + 0.5) * cellMm, yMm: (Math.floor(cell / columns) + 0.5) * cellMm });

/** Which edge a cell lies on, if any. */
function edgeFinder({ columns, rows, coverage }: BedGrid, { kind }: Outline): (cell: number) => OutlineEdge | null {
  if (kind === 'rectangle') {
    return (cell) => {
      const [column, row] = [cell % columns, Math.floor(cell / columns)];
      if (row === 0) return 'south';
      if (row === rows - 1) return 'north';
      if (column === 0) return 'west';
      return column === columns - 1 ? 'east' : null;
    };
  }
  const bare = (cell: number): boolean => !(coverage[cell]! > 0);
  return (cell) => {
    const column = cell % columns;
    const atBorder = column === 0 || column === columns - 1 || cell < columns || cell >= columns * (rows - 1);
    return atBorder || bare(cell - 1) || bare(cell + 1) || bare(cell - columns) || bare(cell + columns) ? 'rim' : null;
  };
}

/** Sorts pools by volume and lets their spills follow. Specks of less than a drop are grid noise and left out. */
function largestFirst(pools: Pool[]): Pool[] {
  const kept = pools.map((pool, index) => ({ pool, index })).filter(({ pool }) => pool.volumeMl >= 0.01).sort((a, b) => b.pool.volumeMl - a.pool.volumeMl);
  const place = new Map(kept.map(({ index }, i) => [index, i]));
  return kept.map(({ pool }) => ({ ...pool, spill: pool.spill && { ...pool.spill, pool: pool.spill.pool === null ? null : (place.get(pool.spill.pool) ?? null) } }));
}
