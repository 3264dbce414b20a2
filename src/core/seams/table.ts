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

/** The search: which cells are decided, what still waits, and what is left of the stock. */
class Table {
  readonly placed: (LaidTile | null)[];
  private readonly dry: Uint8Array;
  readonly left: number[];
  extras = 0;
  steps = 0;
  private readonly openings: Uint8Array;
  private readonly wanted: Set<number>;

  constructor(
    private readonly wish: TableWish,
    private readonly tiles: readonly TableTile[],
    private readonly meet: SidesMeet,
    private readonly mostExtras: number,
    private readonly random: () => number,
    private readonly budget: { steps: number; tick: (steps: number) => void },
  ) {
    const { columns, rows } = wish;
    this.placed = new Array<LaidTile | null>(columns * rows).fill(null);
    this.dry = new Uint8Array(columns * rows);
    for (const { column, row } of wish.blocked) if (column >= 0 && row >= 0 && column < columns && row < rows) this.dry[row * columns + column] = 1;
    this.left = tiles.map(({ copies }) => copies);
    this.openings = new Uint8Array(columns * rows);
    for (const { column, row, side } of wish.openings) this.openings[row * columns + column]! |= 1 << side;
    this.wanted = new Set([...wish.pass, ...wish.openings].map(({ column, row }) => row * columns + column));
  }

  /** What a side of a cell must be: wet (and with whom), dry, or still open. */
  private demand(cell: number, side: number): { must: 'wet' | 'dry' | 'free'; by: LaidTile | null } {
    const { columns, rows } = this.wish;
    const [column, row] = [(cell % columns) + DX[side]!, Math.floor(cell / columns) + DY[side]!];
    if (column < 0 || row < 0 || column >= columns || row >= rows) return { must: this.openings[cell]! & (1 << side) ? 'wet' : 'dry', by: null };
    const other = row * columns + column;
    if (this.dry[other]) return { must: 'dry', by: null };
    const neighbour = this.placed[other];
    if (!neighbour) return { must: 'free', by: null };
    return { must: this.tiles[neighbour.tile]!.wet[drawnSide(opposite(side), neighbour.quarters)] ? 'wet' : 'dry', by: neighbour };
  }

  private candidates(cell: number): LaidTile[] {
    const { columns } = this.wish;
    const demands = [0, 1, 2, 3].map((side) => this.demand(cell, side));
    const found: LaidTile[] = [];
    this.tiles.forEach(({ turnable, wet }, tile) => {
      if (!wet.some(Boolean) || (this.left[tile]! <= 0 && this.extras >= this.mostExtras)) return;
      const seen = new Set<string>();
      for (let quarters = 0; quarters < (turnable ? 4 : 1); quarters++) {
        const fits = demands.every(({ must, by }, side) => {
          const mine = drawnSide(side, quarters);
          if (must === 'free') return true;
          if (must === 'dry') return !wet[mine];
          return wet[mine]! && (!by || this.meet(tile, mine, by.tile, drawnSide(opposite(side), by.quarters)));
        });
        if (!fits) continue;
        // A tile that is the same when turned need not be tried twice.
        const key = [0, 1, 2, 3].map((side) => (wet[drawnSide(side, quarters)] ? drawnSide(side, quarters) : '-')).join();
        if (seen.has(key)) continue;
        seen.add(key);
        found.push({ column: cell % columns, row: Math.floor(cell / columns), tile, quarters });
      }
    });
    return found;
  }

  /** Undecided cells that something waits for: wanted ones, and neighbours of open water. */
  private waiting(): number[] {
    const cells: number[] = [];
    for (let cell = 0; cell < this.placed.length; cell++) {
      if (this.placed[cell] || this.dry[cell]) continue;
      if (this.wanted.has(cell) || [0, 1, 2, 3].some((side) => this.demand(cell, side).must === 'wet')) cells.push(cell);
    }
    return cells;
  }

  /** Depth first, the most constrained cell first. True when a layout stands, false when there is none, null out of steps. */
  solve(accept: () => boolean): boolean | null {
    if (this.steps >= this.budget.steps) return null;
    let best: { cell: number; choices: LaidTile[] } | null = null;
    for (const cell of this.waiting()) {
      const choices = this.candidates(cell);
      if (choices.length === 0) return false;
      if (!best || choices.length < best.choices.length) best = { cell, choices };
      if (choices.length === 1) break;
    }
    if (!best) return accept();
    for (const choice of this.shuffled(best.choices)) {
      if (++this.steps % 2048 === 0) this.budget.tick(this.steps);
      const extra = this.left[choice.tile]! <= 0;
      if (extra && this.extras >= this.mostExtras) continue;
      this.left[choice.tile]!--;
      if (extra) this.extras++;
      this.placed[best.cell] = choice;
      const result = this.solve(accept);
      if (result !== false) return result;
      this.placed[best.cell] = null;
      this.left[choice.tile]!++;
      if (extra) this.extras--;
    }
    return false;
  }

  /** In a seeded order, kinds in stock before kinds that would be extra. */
  private shuffled(choices: readonly LaidTile[]): LaidTile[] {
    return choices.map((choice) => ({ choice, key: this.random() + (this.left[choice.tile]! > 0 ? 0 : 10) })).sort((a, b) => a.key - b.key).map(({ choice }) => choice);
  }
}

/**
 * Lays tiles on a table so that every wanted place has water, every wet side meets a wet side that may stand against it
 * or leaves the table where it should, all water hangs together, and tiles that run one way point downstream from the first
 * opening. Exhaustive with as few extra pieces as will do: none, one more, and so on. `none` is a proof.
 */
export function layTable(wish: TableWish, tiles: readonly TableTile[], meet: SidesMeet, { seed = 1, mostExtras = 0, mostSteps = 400_000, tick = () => undefined }: TableOptions = {}): TableResult {
  let gaveUp = false;
  for (let extras = 0; extras <= mostExtras; extras++) {
    const table = new Table(wish, tiles, meet, extras, stream(seed + extras * 7919), { steps: mostSteps, tick });
    const result = table.solve(() => hangsTogether(wish, tiles, table.placed) && runsDownstream(wish, tiles, table.placed));
    if (result === null) gaveUp = true;
    if (result) {
      const laid = table.placed.filter((place) => place !== null);
      return { kind: 'found', fewest: !gaveUp, layout: { laid, extras: table.left.flatMap((left, tile) => (left < 0 ? [{ tile, count: -left }] : [])) } };
    }
  }
  return gaveUp ? { kind: 'gave up' } : { kind: 'none' };
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
