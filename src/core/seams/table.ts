/** Sides of a tile on the table, anticlockwise from the south as a tile is turned: 0 south, 1 east, 2 north, 3 west. */
export type TableSide = 0 | 1 | 2 | 3;
export const TABLE_SIDES = ['south', 'east', 'north', 'west'] as const;

/** A kind of tile: how many there are, whether it may be turned, and which sides have water. */
export interface TableTile {
  tag: string;
  copies: number;
  /** May be laid in any of four ways; else only as drawn. */
  turnable: boolean;
  /** Water on each side as drawn, south, east, north, west. */
  wet: readonly [boolean, boolean, boolean, boolean];
  /** A tile whose water runs one way: in at one side and out at another, as drawn. */
  flow?: { from: TableSide; to: TableSide } | undefined;
}

/** Where water leaves the table. */
export interface Opening {
  column: number;
  row: number;
  side: TableSide;
}

/** What is wanted of a layout. Columns run east, rows north. */
export interface TableWish {
  columns: number;
  rows: number;
  /** Cells without a tile: hills, buildings, the table's own holes. */
  blocked: readonly { column: number; row: number }[];
  /** Cells that water must reach. */
  pass: readonly { column: number; row: number }[];
  /** Where the water comes in, and where it goes out. */
  openings: readonly Opening[];
}

/** A tile on the table: which kind, turned by how many quarters anticlockwise. */
export interface LaidTile {
  column: number;
  row: number;
  tile: number;
  quarters: number;
}

export interface TableLayout {
  laid: LaidTile[];
  /** Pieces that the stock lacks, by kind. */
  extras: { tile: number; count: number }[];
}

/** What a search came to: a layout with as few extras as were allowed; the proof that there is none; or neither, in the steps allowed. */
export type TableResult = { kind: 'found'; layout: TableLayout; fewest: boolean } | { kind: 'none' } | { kind: 'gave up' };

/** Whether two sides of two kinds of tile may stand against each other under water. Sides as drawn. */
export type SidesMeet = (tileA: number, sideA: TableSide, tileB: number, sideB: TableSide) => boolean;

export interface TableOptions {
  /** Another number gives another layout. */
  seed?: number;
  /** How many pieces more than the stock may be asked for. */
  mostExtras?: number;
  /** Placements to try before giving up. */
  mostSteps?: number;
  /** Called now and then; may throw to stop. */
  tick?: (steps: number) => void;
}

const DX = [0, 1, 0, -1] as const;
const DY = [-1, 0, 1, 0] as const;
const opposite = (side: number): TableSide => ((side + 2) & 3) as TableSide;
/** The side of a drawn tile that faces a side of the table when it is turned. */
const drawnSide = (side: number, quarters: number): TableSide => ((side - quarters + 4) & 3) as TableSide;

/** Contradictions in what is wanted, in words. */
export function checkWish({ columns, rows, blocked, pass, openings }: TableWish, tiles: readonly TableTile[]): string[] {
  const problems: string[] = [];
  const inside = ({ column, row }: { column: number; row: number }): boolean => column >= 0 && row >= 0 && column < columns && row < rows;
  const isBlocked = (cell: { column: number; row: number }): boolean => blocked.some(({ column, row }) => column === cell.column && row === cell.row);
  const name = ({ column, row }: { column: number; row: number }): string => `column ${column + 1}, row ${row + 1}`;
  if (columns < 1 || rows < 1 || columns * rows > 400) problems.push('A table has between 1 and 400 places.');
  if (!tiles.some(({ wet }) => wet.some(Boolean))) problems.push('No tile of this set has water at its edges.');
  for (const cell of [...pass, ...openings]) {
    if (!inside(cell)) problems.push(`There is no place at ${name(cell)}.`);
    else if (isBlocked(cell)) problems.push(`Water is wanted at ${name(cell)}, which is blocked.`);
  }
  for (const opening of openings) if (inside(opening) && inside({ column: opening.column + DX[opening.side], row: opening.row + DY[opening.side] })) problems.push(`The ${TABLE_SIDES[opening.side]} side of ${name(opening)} is not an edge of the table.`);
  if (pass.length === 0 && openings.length === 0) problems.push('Say where the water comes in, goes out, or must pass.');
  return [...new Set(problems)];
}

/** A kind of tile in one of the ways it may lie: which sides of its place are wet. */
interface Oriented {
  tile: number;
  quarters: number;
  /** Bit for each side of the place. */
  wet: number;
  /** The side as drawn that faces each side of the place. */
  drawn: readonly TableSide[];
}

/** Every kind in every way it may lie; ways that look alike once only. */
function orient(tiles: readonly TableTile[]): Oriented[] {
  return tiles.flatMap(({ turnable, wet }, tile) => {
    if (!wet.some(Boolean)) return [];
    const seen = new Set<string>();
    return Array.from({ length: turnable ? 4 : 1 }, (_, quarters): Oriented => {
      const drawn = SIDES.map((side) => drawnSide(side, quarters));
      return { tile, quarters, drawn, wet: drawn.reduce<number>((bits, side, i) => bits | (wet[side] ? 1 << i : 0), 0) };
    }).filter(({ drawn }) => {
      const key = drawn.map((side) => (wet[side] ? side : '-')).join();
      return !seen.has(key) && Boolean(seen.add(key));
    });
  });
}

const SIDES = [0, 1, 2, 3] as const;
const FREE = -1;

/** The search: which cells are decided, what still waits, and what is left of the stock. Cells in a frame of one dry cell. */
class Table {
  private readonly stride: number;
  /** Index of the way a tile lies, for each framed cell, or `FREE`. */
  private readonly lies: Int16Array;
  private readonly dry: Uint8Array;
  private readonly wanted: Uint8Array;
  private readonly openings: Uint8Array;
  private readonly cells: number[] = [];
  private readonly left: number[];
  private readonly ways: Oriented[];
  /** 1 where a way may have another at one of its sides: ((way·4) + side)·ways + other. */
  private readonly fits: Uint8Array;
  private extras = 0;
  private count = 0;

  constructor(
    private readonly wish: TableWish,
    tiles: readonly TableTile[],
    meet: SidesMeet,
    private readonly mostExtras: number,
    /** The most tiles that may be laid. */
    private readonly mostTiles: number,
    private readonly random: () => number,
    private readonly budget: { left: number; done: number; tick: (steps: number) => void },
  ) {
    const { columns, rows } = wish;
    this.stride = columns + 2;
    const size = this.stride * (rows + 2);
    this.lies = new Int16Array(size).fill(FREE);
    this.dry = new Uint8Array(size).fill(1);
    this.wanted = new Uint8Array(size);
    this.openings = new Uint8Array(size);
    for (let row = 0; row < rows; row++) for (let column = 0; column < columns; column++) this.cells.push(this.cell(column, row));
    for (const cell of this.cells) this.dry[cell] = 0;
    for (const { column, row } of wish.blocked) this.dry[this.cell(column, row)] = 1;
    for (const { column, row } of [...wish.pass, ...wish.openings]) this.wanted[this.cell(column, row)] = 1;
    for (const { column, row, side } of wish.openings) this.openings[this.cell(column, row)]! |= 1 << side;
    this.left = tiles.map(({ copies }) => copies);
    this.ways = orient(tiles);
    const count = this.ways.length;
    this.fits = new Uint8Array(count * 4 * count);
    this.ways.forEach((a, i) => SIDES.forEach((side) => this.ways.forEach((b, j) => {
      const other = opposite(side);
      if (a.wet & (1 << side) && b.wet & (1 << other) && meet(a.tile, a.drawn[side]!, b.tile, b.drawn[other]!)) this.fits[(i * 4 + side) * count + j] = 1;
    })));
  }

  private cell(column: number, row: number): number {
    return (row + 1) * this.stride + column + 1;
  }

  private neighbour(cell: number, side: number): number {
    return cell + DX[side]! + DY[side]! * this.stride;
  }

  /** Sides of a free cell that must be wet (low bits) and that must be dry (high bits). */
  private demand(cell: number): number {
    let [wet, dry] = [this.openings[cell]!, 0];
    for (let side = 0; side < 4; side++) {
      if (wet & (1 << side)) continue;
      const other = this.neighbour(cell, side);
      const way = this.lies[other]!;
      if (way === FREE) dry |= this.dry[other]! << side;
      else if (this.ways[way]!.wet & (1 << opposite(side))) wet |= 1 << side;
      else dry |= 1 << side;
    }
    return wet | (dry << 4);
  }

  private candidates(cell: number): number[] {
    const demand = this.demand(cell);
    const [wet, dry] = [demand & 15, demand >> 4];
    const count = this.ways.length;
    const found: number[] = [];
    for (let way = 0; way < count; way++) {
      const mine = this.ways[way]!;
      if ((mine.wet & wet) !== wet || (mine.wet & dry) !== 0) continue;
      if (this.left[mine.tile]! <= 0 && this.extras >= this.mostExtras) continue;
      let fits = true;
      for (let side = 0; side < 4 && fits; side++) {
        const other = this.lies[this.neighbour(cell, side)]!;
        if (other !== FREE && mine.wet & (1 << side)) fits = this.fits[(way * 4 + side) * count + other] === 1;
      }
      if (fits) found.push(way);
    }
    return found;
  }

  /** Undecided cells that something waits for: wanted ones, and neighbours of open water. */
  private waiting(): number[] {
    const found: number[] = [];
    for (const cell of this.cells) if (this.lies[cell] === FREE && this.dry[cell] === 0 && (this.wanted[cell] === 1 || (this.demand(cell) & 15) !== 0)) found.push(cell);
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
        for (let side = 0; side < 4; side++) {
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
      const { tile } = this.ways[way]!;
      const extra = this.left[tile]! <= 0;
      if (extra && this.extras >= this.mostExtras) continue;
      this.left[tile]!--;
      this.count++;
      if (extra) this.extras++;
      this.lies[best.cell] = way;
      const result = this.solve(accept);
      if (result !== false) return result;
      this.lies[best.cell] = FREE;
      this.left[tile]!++;
      this.count--;
      if (extra) this.extras--;
    }
    return false;
  }

  /** In a seeded order: kinds in stock before kinds that would be extra, few open ends before many (each must be led somewhere). */
  private shuffled(ways: readonly number[]): number[] {
    const ends = (way: number): number => [0, 1, 2, 3].filter((side) => this.ways[way]!.wet & (1 << side)).length;
    return ways.map((way) => ({ way, key: this.random() + Math.max(0, ends(way) - 2) * 0.6 + (this.left[this.ways[way]!.tile]! > 0 ? 0 : 10) })).sort((a, b) => a.key - b.key).map(({ way }) => way);
  }

  /** What lies where, row by row from the south-west. */
  placed(): (LaidTile | null)[] {
    const { columns } = this.wish;
    return this.cells.map((cell, i) => {
      const way = this.lies[cell]!;
      return way === FREE ? null : { column: i % columns, row: Math.floor(i / columns), tile: this.ways[way]!.tile, quarters: this.ways[way]!.quarters };
    });
  }
}

/**
 * Lays tiles on a table so that every wanted place has water, every wet side meets a wet side that may stand against it
 * or leaves the table where it should, all water hangs together, and tiles that run one way point downstream from the first
 * opening. Exhaustive with as few extra pieces as will do: none, one more, and so on. `none` is a proof.
 */
export function layTable(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet, { seed = 1, mostExtras = 0, mostSteps = 400_000, tick = () => undefined }: TableOptions = {}): TableResult {
  const classes = classesOf(tiles, meet);
  const kinds = classes.map((members): TableTile => ({ ...tiles[members[0]!]!, copies: members.reduce((sum, member) => sum + tiles[member]!.copies, 0) }));
  const meetKinds: SidesMeet = (a, sideA, b, sideB) => meet(classes[a]![0]!, sideA, classes[b]![0]!, sideB);
  const places = wish.columns * wish.rows - wish.blocked.length;
  let [gaveUp, done] = [false, 0];
  const stock = kinds.reduce((sum, { copies, wet }) => sum + (wet.some(Boolean) ? copies : 0), 0);
  for (let extras = 0; extras <= mostExtras; extras++) {
    // No layout has more tiles than there are: with few of them the search is soon at its end.
    const most = Math.min(places, stock + extras);
    let proved = false;
    // Short layouts first: a search that may sprawl over the whole table gets lost on it.
    for (const mostTiles of tileLimits(wish, most)) {
      const budget = { left: mostTiles === most ? mostSteps : mostSteps / 8, done, tick };
      const table = new Table(wish, kinds, meetKinds, extras, mostTiles, stream(seed + extras * 7919), budget);
      const result = table.solve((placed) => hangsTogether(wish, kinds, placed) && runsDownstream(wish, kinds, placed));
      done = budget.done;
      if (result) return { kind: 'found', fewest: !gaveUp, layout: namedLayout(table.placed().filter((place) => place !== null), classes, tiles, stream(seed)) };
      if (result === false && mostTiles === most) proved = true;
    }
    if (!proved) gaveUp = true;
  }
  return gaveUp ? { kind: 'gave up' } : { kind: 'none' };
}

/** How many tiles may be laid, try after try: from what must be laid at least up to the most there can be. */
function tileLimits({ pass, openings, columns, rows }: TableWish, most: number): number[] {
  const wanted = new Set([...pass, ...openings].map(({ column, row }) => row * columns + column)).size;
  const across = openings.length > 1 ? Math.max(...openings.map((a) => Math.max(...openings.map((b) => Math.abs(a.column - b.column) + Math.abs(a.row - b.row))))) + 1 : 1;
  const least = Math.max(wanted, across);
  const limits: number[] = [];
  for (let limit = least; limit < most && limit < least + columns + rows; limit += 2) limits.push(limit);
  return [...limits, most];
}

/** Kinds that can stand for one another: the same water, the same freedom, the same partners. */
function classesOf(tiles: readonly TableTile[], meet: SidesMeet): number[][] {
  const byKey = new Map<string, number[]>();
  const sides = [0, 1, 2, 3] as const;
  tiles.forEach(({ wet, turnable, flow }, a) => {
    const partners = tiles.map((_, b) => sides.map((sideA) => sides.map((sideB) => (meet(a, sideA, b, sideB) ? 1 : 0)).join('')).join('')).join(',');
    const key = JSON.stringify([wet, turnable, flow, partners]);
    byKey.set(key, [...(byKey.get(key) ?? []), a]);
  });
  return [...byKey.values()];
}

/** Gives each place a real kind: from stock while there is any, in a seeded order, else the first of its class as an extra. */
function namedLayout(laid: readonly LaidTile[], classes: readonly (readonly number[])[], tiles: readonly TableTile[], random: () => number): TableLayout {
  const left = tiles.map(({ copies }) => copies);
  const extras = new Map<number, number>();
  const named = laid.map((place) => {
    const inStock = classes[place.tile]!.filter((member) => left[member]! > 0);
    const tile = inStock.length > 0 ? inStock[Math.floor(random() * inStock.length)]! : classes[place.tile]![0]!;
    if (left[tile]! <= 0) extras.set(tile, (extras.get(tile) ?? 0) + 1);
    left[tile]!--;
    return { ...place, tile };
  });
  return { laid: named, extras: [...extras].map(([tile, count]) => ({ tile, count })) };
}

/** Cells that water reaches from one, over wet sides. */
function reached(wish: TableWish, tiles: readonly TableTile[], placed: readonly (LaidTile | null)[], start: number, enter: (cell: number, from: TableSide | null) => boolean): Set<number> {
  const { columns, rows } = wish;
  const seen = new Set<number>();
  const stack: { cell: number; from: TableSide | null }[] = [{ cell: start, from: null }];
  for (let next = stack.pop(); next; next = stack.pop()) {
    const { cell, from } = next;
    const here = placed[cell];
    if (!here || seen.has(cell) || !enter(cell, from)) continue;
    seen.add(cell);
    for (let side = 0; side < 4; side++) {
      const [column, row] = [(cell % columns) + DX[side]!, Math.floor(cell / columns) + DY[side]!];
      if (column < 0 || row < 0 || column >= columns || row >= rows || !tiles[here.tile]!.wet[drawnSide(side, here.quarters)]) continue;
      stack.push({ cell: row * columns + column, from: opposite(side) });
    }
  }
  return seen;
}

function hangsTogether(wish: TableWish, tiles: readonly TableTile[], placed: readonly (LaidTile | null)[]): boolean {
  const laid = placed.flatMap((place, cell) => (place ? [cell] : []));
  return laid.length > 0 && reached(wish, tiles, placed, laid[0]!, () => true).size === laid.length;
}

/** From the first opening on, a tile that runs one way must be entered at its upstream side. */
function runsDownstream(wish: TableWish, tiles: readonly TableTile[], placed: readonly (LaidTile | null)[]): boolean {
  const source = wish.openings[0];
  if (!source || !tiles.some(({ flow }) => flow)) return true;
  let right = true;
  // Breadth first, so that each tile is entered the shortest way from the source.
  const { columns, rows } = wish;
  const queue: { cell: number; from: TableSide }[] = [{ cell: source.row * columns + source.column, from: source.side }];
  const seen = new Set<number>();
  for (let i = 0; i < queue.length; i++) {
    const { cell, from } = queue[i]!;
    const here = placed[cell];
    if (!here || seen.has(cell)) continue;
    seen.add(cell);
    const { flow, wet } = tiles[here.tile]!;
    if (flow && drawnSide(from, here.quarters) !== flow.from) right = false;
    for (let side = 0; side < 4; side++) {
      const [column, row] = [(cell % columns) + DX[side]!, Math.floor(cell / columns) + DY[side]!];
      if (side !== from && column >= 0 && row >= 0 && column < columns && row < rows && wet[drawnSide(side, here.quarters)]) queue.push({ cell: row * columns + column, from: opposite(side) });
    }
  }
  return right;
}

function stream(seed: number): () => number {
  let state = (seed * 2654435761) >>> 0 || 1;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 4294967296;
  };
}
