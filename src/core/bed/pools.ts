import { HEIGHT_TICKS_PER_MM, type BedGrid } from './grid';
import { fillsBox, outlineSides, roundedMm, type PointMm } from './outline';
import { distanceToSide, hasRim } from './profile';
import type { EdgeName, Outline } from '../model/designSchema';

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

export interface PoolOptions {
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
export function findPools(
  grid: BedGrid,
  levelMm: number,
  { outline, dammed, damMarginMm, damOverlapMm }: PoolOptions,
): Pool[] {
  const capMm = levelMm + damMarginMm;
  const edges = edgeCells(grid, outline);
  const behindDam = cellsBehindDams(grid, levelMm, dammed, damOverlapMm, edges, fillsBox(outline));
  const sweep = new Sweep(grid, capMm, edges, behindDam);
  sweep.riseTo(levelMm);
  sweep.measure(levelMm);
  sweep.riseTo(Infinity);
  sweep.spillOverDams(behindDam, capMm);
  return largestFirst(sweep.pools);
}

/**
 * The rising water: which cells hang together so far, which bodies are pools, and which have found a way out.
 * Cells are addressed on a grid with a border of one cell, so that the loop over neighbours needs no bounds, and bodies by
 * their deepest cell: what is looked up in the loop lies side by side in memory.
 */
class Sweep {
  readonly pools: Pool[] = [];
  private readonly stride: number;
  /** Bordered cells, lowest first. */
  private readonly order: Int32Array;
  private position = 0;
  /** For each cell that has been reached, one of its body nearer to its deepest; that one is its own. */
  private readonly parent: Int32Array;
  /** 1 where a cell lies on an edge that no dam closes. */
  private readonly open: Uint8Array;
  /** For each body, by its deepest cell: the cell at which it reached the outside, and the pool it is. */
  private readonly outside: Int32Array;
  private readonly poolOf: Int32Array;

  constructor(
    private readonly grid: BedGrid,
    capMm: number,
    private readonly edges: ReadonlyMap<number, OutlineEdge>,
    behindDam: Uint8Array,
  ) {
    this.stride = grid.columns + 2;
    this.order = cellsByHeight(grid, capMm, this.stride);
    const cells = this.stride * (grid.rows + 2);
    this.parent = new Int32Array(cells).fill(NONE);
    this.open = new Uint8Array(cells);
    for (const cell of edges.keys()) if (behindDam[cell] === 0) this.open[this.bordered(cell)] = 1;
    this.outside = new Int32Array(cells).fill(NONE);
    this.poolOf = new Int32Array(cells).fill(NONE);
  }

  private bordered(cell: number): number {
    return (Math.floor(cell / this.grid.columns) + 1) * this.stride + (cell % this.grid.columns) + 1;
  }

  /** The grid's own cell of a bordered one. */
  private plain(bordered: number): number {
    return (Math.floor(bordered / this.stride) - 1) * this.grid.columns + (bordered % this.stride) - 1;
  }

  private heightOf(bordered: number): number {
    return this.grid.heightMm[this.plain(bordered)]!;
  }

  /** How many cells lie below a height: a binary search in the order. */
  private countBelow(heightMm: number): number {
    let [low, high] = [0, this.order.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.heightOf(this.order[middle]!) < heightMm) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Lets every cell below a height join its neighbours. This loop is the whole cost: plain arrays, nothing made anew. */
  riseTo(heightMm: number): void {
    const { order, parent, open, outside, stride } = this;
    const end = this.countBelow(heightMm);
    for (let place = this.position; place < end; place++) {
      const cell = order[place]!;
      parent[cell] = cell;
      let root = cell;
      for (let side = 0; side < 4; side++) {
        let other = parent[side === 0 ? cell - 1 : side === 1 ? cell + 1 : side === 2 ? cell - stride : cell + stride]!;
        if (other === NONE) continue;
        while (parent[other] !== other) {
          parent[other] = parent[parent[other]!]!;
          other = parent[other]!;
        }
        if (other === root) continue;
        // A cell that has just come has nothing to tell; only two bodies have.
        if (root === cell) {
          parent[cell] = other;
          root = other;
        } else root = this.join(root, other, cell);
      }
      if (open[cell] === 1 && outside[root] === NONE) {
        outside[root] = cell;
        this.settle(root, cell, 'edge', null);
      }
    }
    this.position = end;
  }

  /** Joins two bodies at a cell. The one that was there first (the deeper) lives on: it is given back. */
  private join(one: number, other: number, cell: number): number {
    const { poolOf, outside } = this;
    const apart = this.heightOf(one) - this.heightOf(other);
    const [first, second] = apart < 0 || (apart === 0 && one < other) ? [one, other] : [other, one];
    const firstPool = poolOf[first]!;
    const secondPool = poolOf[second]!;
    if (firstPool !== NONE && secondPool !== NONE) {
      this.settle(first, cell, 'pool', secondPool);
      this.settle(second, cell, 'pool', firstPool);
    }
    this.parent[second] = first;
    if (outside[first] === NONE && outside[second] !== NONE) {
      outside[first] = cell;
      this.settle(first, cell, 'edge', null);
    }
    if (outside[first] !== NONE && secondPool !== NONE) this.settle(second, cell, 'edge', null);
    if (firstPool === NONE) poolOf[first] = secondPool;
    return first;
  }

  /** Notes a pool's first way out. */
  private settle(root: number, cell: number, over: Spill['over'], other: number | null): void {
    const pool = this.pools[this.poolOf[root]!];
    if (pool && pool.spill === null) pool.spill = this.spillAt(this.plain(cell), over, other);
  }

  private spillAt(cell: number, over: Spill['over'], pool: number | null): Spill {
    return {
      levelMm: this.grid.heightMm[cell]!,
      over,
      edge: over === 'pool' ? null : (this.edges.get(cell) ?? null),
      pool,
      ...centreOf(cell, this.grid),
    };
  }

  private find(member: number): number {
    const { parent } = this;
    let root = member;
    while (parent[root] !== root) {
      parent[root] = parent[parent[root]!]!;
      root = parent[root]!;
    }
    return root;
  }

  /** Measures each body as it stands now and makes it a pool. */
  measure(levelMm: number): void {
    const { heightMm, coverage, cellMm, columns, rows } = this.grid;
    const { poolOf, stride } = this;
    // Sums in plain arrays of numbers: adding to a property of an object makes a new number each time.
    const depths: number[] = [];
    const areas: number[] = [];
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        const index = row * columns + column;
        const z = heightMm[index]!;
        const share = coverage[index]!;
        if (z >= levelMm || !(share > 0)) continue;
        const root = this.find((row + 1) * stride + column + 1);
        let pool = poolOf[root]!;
        if (pool === NONE) {
          pool = this.addPool(root, levelMm);
          depths.push(0);
          areas.push(0);
        }
        depths[pool]! += share * (levelMm - z);
        areas[pool]! += share;
      }
    }
    this.pools.forEach((pool, i) => {
      pool.volumeMl = (depths[i]! * cellMm * cellMm) / 1000;
      pool.surfaceCm2 = (areas[i]! * cellMm * cellMm) / 100;
      pool.meanDepthMm = depths[i]! / areas[i]!;
    });
  }

  private addPool(root: number, levelMm: number): number {
    const deepest = this.plain(root);
    this.poolOf[root] = this.pools.length;
    this.pools.push({
      volumeMl: 0,
      surfaceCm2: 0,
      greatestDepthMm: levelMm - this.grid.heightMm[deepest]!,
      meanDepthMm: 0,
      deepest: centreOf(deepest, this.grid),
      spill: null,
    });
    if (this.outside[root] !== NONE) this.settle(root, this.outside[root]!, 'edge', null);
    return this.poolOf[root]!;
  }

  /** What has found no other way out runs over its dam. */
  spillOverDams(behindDam: Uint8Array, damTopMm: number): void {
    for (const cell of this.edges.keys()) {
      const member = this.bordered(cell);
      if (behindDam[cell] === 0 || this.parent[member] === NONE) continue;
      const pool = this.pools[this.poolOf[this.find(member)]!];
      if (pool && pool.spill === null) pool.spill = { ...this.spillAt(cell, 'dam', null), levelMm: damTopMm };
    }
  }
}

/** Marks the edge cells that a dam closes: those below the level on a dammed edge, and the bank that its ends overlap. */
function cellsBehindDams(
  { columns, rows, heightMm, cellMm }: BedGrid,
  levelMm: number,
  dammed: ReadonlySet<OutlineEdge>,
  overlapMm: number,
  edges: ReadonlyMap<number, OutlineEdge>,
  square: boolean,
): Uint8Array {
  const behind = new Uint8Array(columns * rows);
  const reach = Math.round(overlapMm / cellMm);
  const wet: number[] = [];
  for (const [cell, edge] of edges) {
    if (heightMm[cell]! >= levelMm || !dammed.has(edge)) continue;
    behind[cell] = 1;
    wet.push(cell);
  }
  for (const cell of wet) {
    const edge = edges.get(cell)!;
    const [column, row] = [cell % columns, Math.floor(cell / columns)];
    // A rectangle's edge lies in one row or column; a rim or a slanted side needs the whole square.
    const [across, up] = !square ? [reach, reach] : edge === 'south' || edge === 'north' ? [reach, 0] : [0, reach];
    for (let r = Math.max(0, row - up); r <= Math.min(rows - 1, row + up); r++) {
      for (let c = Math.max(0, column - across); c <= Math.min(columns - 1, column + across); c++) {
        const other = r * columns + c;
        if (behind[other] === 0 && edges.get(other) === edge) behind[other] = 1;
      }
    }
  }
  return behind;
}

/** Cells inside the outline up to a height, lowest first, as cells of the bordered grid: a counting sort by ticks. */
function cellsByHeight({ columns, rows, heightMm, coverage }: BedGrid, capMm: number, stride: number): Int32Array {
  const perMm = HEIGHT_TICKS_PER_MM;
  let lowest = Infinity;
  let count = 0;
  for (let i = 0; i < heightMm.length; i++) {
    const z = heightMm[i]!;
    if (z <= capMm && coverage[i]! > 0) {
      count++;
      if (z < lowest) lowest = z;
    }
  }
  if (count === 0) return new Int32Array(0);
  const starts = new Int32Array(Math.round((capMm - lowest) * perMm) + 2);
  for (let i = 0; i < heightMm.length; i++)
    if (heightMm[i]! <= capMm && coverage[i]! > 0) starts[(((heightMm[i]! - lowest) * perMm + 0.5) | 0) + 1]!++;
  for (let k = 1; k < starts.length; k++) starts[k] = starts[k]! + starts[k - 1]!;
  const order = new Int32Array(count);
  for (let row = 0, i = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, i++) {
      if (heightMm[i]! <= capMm && coverage[i]! > 0)
        order[starts[((heightMm[i]! - lowest) * perMm + 0.5) | 0]!++] = (row + 1) * stride + column + 1;
    }
  }
  return order;
}

const centreOf = (cell: number, { columns, cellMm }: Pick<BedGrid, 'columns' | 'cellMm'>): PointMm => ({
  xMm: ((cell % columns) + 0.5) * cellMm,
  yMm: (Math.floor(cell / columns) + 0.5) * cellMm,
});

/**
 * The cells along the outline, each with its edge: the nearest side, or the rim. Corners of a rectangle belong to its
 * south or north edge.
 */
function edgeCells({ columns, rows, coverage, cellMm }: BedGrid, outline: Outline): Map<number, OutlineEdge> {
  const edges = new Map<number, OutlineEdge>();
  if (fillsBox(outline) && roundedMm(outline) === 0) {
    for (let row = 0; row < rows; row++) edges.set(row * columns, 'west').set(row * columns + columns - 1, 'east');
    for (let column = 0; column < columns; column++)
      edges.set(column, 'south').set((rows - 1) * columns + column, 'north');
    return edges;
  }
  const sides = outlineSides(outline);
  const rim = hasRim(outline);
  const nameOf = (xMm: number, yMm: number): OutlineEdge => {
    const nearest = sides
      .map((side) => ({ edge: side.edge, away: distanceToSide(side, xMm, yMm) }))
      .reduce((a, b) => (b.away < a.away ? b : a), { edge: 'rim' as OutlineEdge, away: Infinity });
    return rim && nearest.away > 1.5 * cellMm ? 'rim' : nearest.edge;
  };
  const bare = (column: number, row: number): boolean =>
    column < 0 || row < 0 || column >= columns || row >= rows || !(coverage[row * columns + column]! > 0);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      if (
        !bare(column, row) &&
        (bare(column - 1, row) || bare(column + 1, row) || bare(column, row - 1) || bare(column, row + 1))
      )
        edges.set(row * columns + column, nameOf((column + 0.5) * cellMm, (row + 0.5) * cellMm));
    }
  }
  return edges;
}

/** Sorts pools by volume and lets their spills follow. Specks of less than a drop are grid noise and left out. */
function largestFirst(pools: Pool[]): Pool[] {
  const kept = pools
    .map((pool, index) => ({ pool, index }))
    .filter(({ pool }) => pool.volumeMl >= 0.01)
    .sort((a, b) => b.pool.volumeMl - a.pool.volumeMl);
  const place = new Map(kept.map(({ index }, i) => [index, i]));
  return kept.map(({ pool }) => ({
    ...pool,
    spill: pool.spill && {
      ...pool.spill,
      pool: pool.spill.pool === null ? null : (place.get(pool.spill.pool) ?? null),
    },
  }));
}
