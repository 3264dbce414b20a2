import { samePiece, type PieceRef } from '../model/pieceRef';
import { isFork, wantedPlaces, type TileKinds } from './tableRules';
import { drawnSide, opposite, TABLE_SHAPES, tableSide, type TableShape } from './tableShape';
import type { LaidTile, TableTile } from './tableTypes';
import type { TableSide, TableWish } from '../model/tableSchema';

/** Placements that may still be tried, how many were, and who is told. */
export interface Budget {
  left: number;
  done: number;
  tick: (steps: number) => void;
}

const FORK = 1;
const POND = 2;

/** A kind of tile in one of the ways it may lie: which sides of its place are wet. */
interface Oriented {
  tile: number;
  turns: number;
  /** Bit for each side of the place. */
  wet: number;
  /** The side as drawn that faces each side of the place. */
  drawn: readonly TableSide[];
  /** The side of the place at which water comes in, of a tile that reads one way. */
  upstream: TableSide | null;
  /** Whether it is a fork, a pond. */
  holds: number;
}

/** Every kind in every way it may lie; ways that look alike once only. */
function orient(tiles: readonly TableTile[], shape: TableShape): Oriented[] {
  return tiles.flatMap(({ turnable, wet, from, pond }, tile) => {
    if (!wet.some(Boolean)) return [];
    const seen = new Set<string>();
    const ways = turnable ? shape.turns : shape.turns.slice(0, 1);
    return ways
      .map((turns): Oriented => {
        const drawn = shape.sides.map((side) => drawnSide(shape, side, turns));
        const upstream = from === undefined ? null : tableSide(shape, from, turns);
        return {
          tile,
          turns,
          drawn,
          upstream,
          holds: (isFork(wet) ? FORK : 0) | (pond ? POND : 0),
          wet: drawn.reduce<number>((bits, side, i) => bits | (wet[side] ? 1 << i : 0), 0),
        };
      })
      .filter(({ drawn }) => {
        const key = drawn.map((side) => (wet[side] ? side : '-')).join();
        return !seen.has(key) && Boolean(seen.add(key));
      });
  });
}

const FREE = -1;
/** Sides that must be wet are kept in the low bits of a demand, those that must be dry above them. */
const DRY_SHIFT = 6;
const WET_BITS = (1 << DRY_SHIFT) - 1;

/** The search: which cells are decided, what still waits, and what is left of the stock. Cells in a frame of one dry cell. */
export class TableSearch {
  private readonly stride: number;
  /** Index of the way a tile lies, for each framed cell, or `FREE`. */
  private readonly shape: TableShape;
  /** The framed cell beyond each side of each: index cell·sides + side. */
  private readonly beyond: Int32Array;
  private readonly lies: Int16Array;
  private readonly dry: Uint8Array;
  private readonly wanted: Uint8Array;
  private readonly openings: Uint8Array;
  /** What a place must hold, as bits: a fork, a pond. */
  private readonly holds: Uint8Array;
  private readonly cells: number[] = [];
  private readonly left: number[];
  /** Kinds of which no more can be made. */
  private readonly once: boolean[];
  private readonly ways: Oriented[];
  /** 1 where a way may have another at one of its sides: ((way·sides) + side)·ways + other. */
  private readonly fits: Uint8Array;
  private extras = 0;
  private count = 0;
  /** False when the tiles that are kept contradict each other. */
  private readonly stands: boolean;

  constructor(
    private readonly wish: TableWish,
    { tiles, members, refs, meet }: TileKinds,
    private readonly mostExtras: number,
    /** The most tiles that may be laid. */
    private readonly mostTiles: number,
    private readonly random: () => number,
    private readonly budget: Budget,
  ) {
    const { columns, rows, grid } = wish;
    this.shape = TABLE_SHAPES[grid];
    const { sides } = this.shape;
    this.stride = columns + 2;
    const size = this.stride * (rows + 2);
    this.beyond = new Int32Array(size * sides.length);
    this.lies = new Int16Array(size).fill(FREE);
    this.dry = new Uint8Array(size).fill(1);
    this.wanted = new Uint8Array(size);
    this.openings = new Uint8Array(size);
    for (let row = 0; row < rows; row++)
      for (let column = 0; column < columns; column++) {
        const cell = this.cell(column, row);
        this.cells.push(cell);
        for (const side of sides) {
          const other = this.shape.beyond({ column, row }, side);
          this.beyond[cell * sides.length + side] = this.cell(other.column, other.row);
        }
      }
    for (const cell of this.cells) this.dry[cell] = 0;
    for (const { column, row } of wish.blocked) this.dry[this.cell(column, row)] = 1;
    for (const { column, row } of wantedPlaces(wish)) this.wanted[this.cell(column, row)] = 1;
    this.holds = new Uint8Array(size);
    for (const { column, row } of wish.forks) this.holds[this.cell(column, row)]! |= FORK;
    for (const { column, row } of wish.ponds) this.holds[this.cell(column, row)]! |= POND;
    for (const { column, row, side } of wish.openings) this.openings[this.cell(column, row)]! |= 1 << side;
    this.left = tiles.map(({ copies }) => copies);
    this.once = tiles.map(({ once }) => once ?? false);
    this.ways = orient(tiles, this.shape);
    const count = this.ways.length;
    this.fits = new Uint8Array(count * sides.length * count);
    this.ways.forEach((a, i) =>
      sides.forEach((side) =>
        this.ways.forEach((b, j) => {
          const other = opposite(this.shape, side);
          if (
            a.wet & (1 << side) &&
            b.wet & (1 << other) &&
            meet(a.tile, a.drawn[side]!, b.tile, b.drawn[other]!) &&
            !headOn(a, side, b, other)
          )
            this.fits[(i * sides.length + side) * count + j] = 1;
        }),
      ),
    );
    this.stands = this.layFixed(wish, members, refs);
  }

  /** Lays the tiles that are kept; false when they do not go together. */
  private layFixed({ fixed }: TableWish, members: readonly (readonly number[])[], refs: readonly PieceRef[]): boolean {
    return fixed.every((place) => {
      const cell = this.cell(place.column, place.row);
      const way = this.candidates(
        cell,
        (candidate) =>
          candidate.turns === place.turns &&
          members[candidate.tile]!.some((member) => samePiece(refs[member]!, place.piece)),
      )[0];
      if (way === undefined) return false;
      this.lay(cell, way);
      return true;
    });
  }

  private lay(cell: number, way: number): boolean {
    const { tile } = this.ways[way]!;
    const extra = this.left[tile]! <= 0;
    this.left[tile]!--;
    this.count++;
    if (extra) this.extras++;
    this.lies[cell] = way;
    return extra;
  }

  private lift(cell: number, extra: boolean): void {
    this.left[this.ways[this.lies[cell]!]!.tile]!++;
    this.lies[cell] = FREE;
    this.count--;
    if (extra) this.extras--;
  }

  private cell(column: number, row: number): number {
    return (row + 1) * this.stride + column + 1;
  }

  private neighbour(cell: number, side: number): number {
    return this.beyond[cell * this.shape.sides.length + side]!;
  }

  /** Sides of a free cell that must be wet (low bits) and that must be dry (high bits). */
  private demand(cell: number): number {
    let [wet, dry] = [this.openings[cell]!, 0];
    for (const side of this.shape.sides) {
      if (wet & (1 << side)) continue;
      const other = this.neighbour(cell, side);
      const way = this.lies[other]!;
      if (way === FREE) dry |= this.dry[other]! << side;
      else if (this.ways[way]!.wet & (1 << opposite(this.shape, side))) wet |= 1 << side;
      else dry |= 1 << side;
    }
    return wet | (dry << DRY_SHIFT);
  }

  private candidates(cell: number, only: (way: Oriented) => boolean = () => true): number[] {
    const demand = this.demand(cell);
    const [wet, dry] = [demand & WET_BITS, demand >> DRY_SHIFT];
    const holds = this.holds[cell]!;
    const count = this.ways.length;
    const sides = this.shape.sides.length;
    const found: number[] = [];
    for (let way = 0; way < count; way++) {
      const mine = this.ways[way]!;
      if ((mine.wet & wet) !== wet || (mine.wet & dry) !== 0 || (mine.holds & holds) !== holds || !only(mine)) continue;
      if (this.againstTheStream(cell, mine)) continue;
      if (this.left[mine.tile]! <= 0 && (this.extras >= this.mostExtras || this.once[mine.tile])) continue;
      let fits = true;
      for (let side = 0; side < sides && fits; side++) {
        const other = this.lies[this.neighbour(cell, side)]!;
        if (other !== FREE && mine.wet & (1 << side)) fits = this.fits[(way * sides + side) * count + other] === 1;
      }
      if (fits) found.push(way);
    }
    return found;
  }

  /** At the table's edge a tile that reads one way comes in at the first opening and goes out at the others. */
  private againstTheStream(cell: number, { upstream }: Oriented): boolean {
    if (upstream === null) return false;
    const source = this.wish.openings[0];
    const isSource = source !== undefined && cell === this.cell(source.column, source.row);
    const open = this.openings[cell]!;
    if (isSource && upstream !== source.side) return true;
    return (open & (1 << upstream)) !== 0 && !(isSource && upstream === source.side);
  }

  /** Undecided cells that something waits for: wanted ones, and neighbours of open water. */
  private waiting(): number[] {
    const found: number[] = [];
    for (const cell of this.cells)
      if (
        this.lies[cell] === FREE &&
        this.dry[cell] === 0 &&
        (this.wanted[cell] === 1 || (this.demand(cell) & WET_BITS) !== 0)
      )
        found.push(cell);
    return found;
  }

  /** True when some water is shut in while other water, or a place that wants some, lies elsewhere: they can never hang together. */
  private shutOff(waiting: readonly number[]): boolean {
    if (this.count === 0) return false;
    const seen = new Uint8Array(this.lies.length);
    const stack: number[] = [];
    let [bodies, closed] = [0, 0];
    for (const start of this.cells) {
      if (this.lies[start] === FREE || seen[start]) continue;
      bodies++;
      let reachesOut = false;
      stack.push(start);
      seen[start] = 1;
      while (stack.length > 0) {
        const cell = stack.pop()!;
        const { wet } = this.ways[this.lies[cell]!]!;
        for (const side of this.shape.sides) {
          const other = this.neighbour(cell, side);
          if (!(wet & (1 << side)) || this.dry[other]) continue;
          if (this.lies[other] === FREE) reachesOut = true;
          else if (!seen[other]) {
            seen[other] = 1;
            stack.push(other);
          }
        }
      }
      if (!reachesOut) closed++;
    }
    return closed > 0 && (bodies > 1 || waiting.length > 0);
  }

  /** Depth first, the most constrained cell first. True when a layout stands, false when there is none, null out of steps. */
  solve(accept: (placed: (LaidTile | null)[]) => boolean): boolean | null {
    if (!this.stands) return false;
    if (this.budget.left <= 0) return null;
    const waiting = this.waiting();
    if (this.count + waiting.length > this.mostTiles || this.shutOff(waiting)) return false;
    let best: { cell: number; choices: number[] } | null = null;
    for (const cell of waiting) {
      const choices = this.candidates(cell);
      if (choices.length === 0) return false;
      if (!best || choices.length < best.choices.length) best = { cell, choices };
      if (choices.length === 1) break;
    }
    if (!best) return accept(this.placed());
    for (const way of this.shuffled(best.choices)) {
      this.budget.left--;
      if (++this.budget.done % 2048 === 0) this.budget.tick(this.budget.done);
      const extra = this.lay(best.cell, way);
      const result = this.solve(accept);
      if (result !== false) return result;
      this.lift(best.cell, extra);
    }
    return false;
  }

  /** In a seeded order: kinds in stock before kinds that would be extra, few open ends before many (each must be led somewhere). */
  private shuffled(ways: readonly number[]): number[] {
    const ends = (way: number): number => this.shape.sides.filter((side) => this.ways[way]!.wet & (1 << side)).length;
    return ways
      .map((way) => ({
        way,
        key: this.random() + Math.max(0, ends(way) - 2) * 0.6 + (this.left[this.ways[way]!.tile]! > 0 ? 0 : 10),
      }))
      .sort((a, b) => a.key - b.key)
      .map(({ way }) => way);
  }

  /** What lies where, row by row from the south-west. */
  placed(): (LaidTile | null)[] {
    const { columns } = this.wish;
    return this.cells.map((cell, i) => {
      const way = this.lies[cell]!;
      return way === FREE
        ? null
        : {
            column: i % columns,
            row: Math.floor(i / columns),
            tile: this.ways[way]!.tile,
            turns: this.ways[way]!.turns,
          };
    });
  }
}

/** Two tiles that read one way meet where one's water goes out and the other's comes in. */
const headOn = (a: Oriented, side: number, b: Oriented, other: number): boolean =>
  a.upstream !== null && b.upstream !== null && (a.upstream === side) === (b.upstream === other);
