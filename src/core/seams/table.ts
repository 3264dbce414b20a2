import { copyName, samePiece } from '../model/pieceRef';
import { MOST_PLACES, type TablePlace, type TableWish } from '../model/tableSchema';
import { TABLE_SHAPES } from './tableShape';
import type { LaidTile, SidesMeet, TableLayout, TableResult, TableTile } from './tableTypes';
import {
  classesOf,
  hangsTogether,
  isFork,
  placeName,
  runsDownstream,
  samePlace,
  wantedPlaces,
  type Placed,
  type TileKinds,
} from './tableRules';
import { seeded } from '../chance/random';
import { TableSearch, type Budget } from './tableSearch';

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

/** A wish with nothing in it but its size. */
export const emptyWish = (columns: number, rows: number, grid: TableWish['grid'] = 'square'): TableWish => ({
  grid,
  columns,
  rows,
  blocked: [],
  pass: [],
  forks: [],
  ponds: [],
  anyFork: false,
  anyPond: false,
  openings: [],
  fixed: [],
});

/** Contradictions in what is wanted, in words. */
export function checkWish(wish: TableWish, tiles: readonly TableTile[]): string[] {
  const { columns, rows, blocked, openings, fixed, grid } = wish;
  const shape = TABLE_SHAPES[grid];
  const problems: string[] = [];
  const inside = ({ column, row }: TablePlace): boolean => column >= 0 && row >= 0 && column < columns && row < rows;
  if (columns < 1 || rows < 1 || columns * rows > MOST_PLACES)
    problems.push(`A table has between 1 and ${MOST_PLACES} places.`);
  if (tiles.length === 0) problems.push('There are no tiles to lay. Add some on the Shape stage.');
  else if (!tiles.some(({ wet }) => wet.some(Boolean))) problems.push('No tile of this set has water at its edges.');
  for (const place of wantedPlaces(wish)) {
    if (!inside(place)) problems.push(`There is no place at ${placeName(place)}.`);
    else if (blocked.some(samePlace(place))) problems.push(`Water is wanted at ${placeName(place)}, which is blocked.`);
  }
  for (const opening of openings)
    if (opening.side >= shape.sides.length)
      problems.push(`${placeName(opening)} has no such side. Take that opening out.`);
    else if (inside(opening) && inside(shape.beyond(opening, opening.side)))
      problems.push(`The ${shape.names[opening.side]} side of ${placeName(opening)} is not an edge of the table.`);
  if (wantedPlaces(wish).length === 0 && !wish.anyFork && !wish.anyPond)
    problems.push('Say where the water comes in, goes out, or must pass.');
  problems.push(...lacking(wish, tiles).map((one) => LACKING_WORDS[one]));
  for (const place of fixed) {
    const tile = tiles.find((candidate) => samePiece(candidate, place.piece));
    const name = tile?.tag ?? nameOf(place.piece, tiles);
    if (!tile)
      problems.push(`${name} is kept at ${placeName(place)}, but is no longer among the tiles. Free the place.`);
    else if (!shape.turns.includes(place.turns) || (!tile.turnable && place.turns !== shape.turns[0]))
      problems.push(`${name} may not be turned like that. Free ${placeName(place)}.`);
    else if (fixed.filter(({ piece }) => samePiece(piece, place.piece)).length > tile.copies)
      problems.push(`${name} is kept at more places than there are copies of it, ${tile.copies}. Free one.`);
    if (fixed.filter(samePlace(place)).length > 1) problems.push(`Two tiles are kept at ${placeName(place)}. Free it.`);
  }
  return [...new Set(problems)];
}

/** What a piece is called that is no longer among the tiles. */
const nameOf = ({ designId, copy }: TableWish['fixed'][number]['piece'], tiles: readonly TableTile[]): string => {
  const whole = tiles.find((tile) => tile.designId === designId && tile.copy === null);
  return whole ? copyName(whole.tag, copy) : 'A tile';
};

/** Forks and ponds that are wanted though no tile is one. */
export function lacking(
  { forks, ponds, anyFork, anyPond }: Pick<TableWish, 'forks' | 'ponds' | 'anyFork' | 'anyPond'>,
  tiles: readonly TableTile[],
): ('fork' | 'pond')[] {
  const fork = (forks.length > 0 || anyFork) && !tiles.some(({ wet }) => isFork(wet));
  const pond = (ponds.length > 0 || anyPond) && !tiles.some((tile) => tile.pond && tile.wet.some(Boolean));
  return [...(fork ? (['fork'] as const) : []), ...(pond ? (['pond'] as const) : [])];
}

const LACKING_WORDS = {
  fork: 'A fork is wanted, but no tile has water at three sides.',
  pond: 'A pond is wanted, but no tile with water at its edges has a pool on it.',
};

/**
 * Lays tiles on a table so that every wanted place has water (or a fork, a pond, the tile that is kept there), every wet side
 * meets a wet side that may stand against it or leaves the table where it should, all water hangs together, and tiles that read
 * one way point downstream from the first opening. Exhaustive with as few extra pieces as will do: none, one more, and so on.
 * `none` is a proof.
 */
export function layTable(
  wish: TableWish,
  tiles: readonly TableTile[],
  meet: SidesMeet,
  options: TableOptions = {},
): TableResult {
  const { seed = 1, mostExtras = 0 } = options;
  const kinds = classesOf(tiles, meet);
  const { wishes, all } = spelledOut(wish, seeded(seed));
  const progress = { done: 0 };
  let gaveUp = !all;
  for (let extras = 0; extras <= mostExtras; extras++) {
    for (const one of wishes) {
      const laid = layOne(one, kinds, extras, progress, {
        ...options,
        mostSteps: Math.max(4000, (options.mostSteps ?? 400_000) / wishes.length),
      });
      if (laid === 'gave up') gaveUp = true;
      else if (laid)
        return { kind: 'found', fewest: !gaveUp, layout: namedLayout(laid, one, kinds.members, tiles, seeded(seed)) };
    }
  }
  return gaveUp ? { kind: 'gave up' } : { kind: 'none' };
}

/** So many wishes are tried for what stands in the way, each with so many steps. */
const MOST_TRIED = 24;
const STEPS_EACH = 60_000;

/**
 * Of a table that cannot be laid: what alone stands in the way, in words. Each opening, and each place that wants water, a fork or a
 * pond, is let go in turn; those without which the rest can be laid are told. An arm of water that has no way out is among them.
 */
export function standsInTheWay(
  wish: TableWish,
  tiles: readonly TableTile[],
  meet: SidesMeet,
  { mostExtras = 0 }: Pick<TableOptions, 'mostExtras'> = {},
): string[] {
  const { names } = TABLE_SHAPES[wish.grid];
  const places = (['pass', 'forks', 'ponds'] as const).flatMap((key) =>
    wish[key].map((place, i) => ({
      words: `the ${{ pass: 'water', forks: 'fork', ponds: 'pond' }[key]} at ${placeName(place)}`,
      rest: { ...wish, [key]: wish[key].filter((_, other) => other !== i) },
    })),
  );
  const openings = wish.openings.map((opening, i) => ({
    words: `the opening on the ${names[opening.side]} side of ${placeName(opening)}`,
    rest: { ...wish, openings: wish.openings.filter((_, other) => other !== i) },
  }));
  return [...openings, ...places]
    .slice(0, MOST_TRIED)
    .filter(
      ({ rest }) =>
        checkWish(rest, tiles).length === 0 &&
        layTable(rest, tiles, meet, { mostExtras, mostSteps: STEPS_EACH }).kind === 'found',
    )
    .map(({ words }) => words);
}

/** More wishes than this are not tried one by one. */
const MOST_SPELLED = 900;

/** A fork or a pond anywhere is one at this place, or at that, and so on: each tried in turn, on a large table only some. */
function spelledOut(wish: TableWish, random: () => number): { wishes: TableWish[]; all: boolean } {
  const { columns, rows, blocked } = wish;
  const free = Array.from({ length: columns * rows }, (_, i) => ({
    column: i % columns,
    row: Math.floor(i / columns),
  })).filter((place) => !blocked.some(samePlace(place)));
  const shuffled = free
    .map((place) => ({ place, key: random() }))
    .sort((a, b) => a.key - b.key)
    .map(({ place }) => place);
  const forked =
    wish.anyFork && wish.forks.length === 0 ? shuffled.map((place) => ({ ...wish, forks: [place] })) : [wish];
  const both = wish.anyPond && wish.ponds.length === 0;
  const count = forked.length * (both ? shuffled.length : 1);
  if (!both) return { wishes: forked, all: true };
  // Beyond the limit every so manieth pair, so that forks and ponds both come from all over the table.
  const stride = Math.max(1, Math.ceil(count / MOST_SPELLED));
  const wishes: TableWish[] = [];
  for (let i = 0; i < count; i += stride)
    wishes.push({ ...forked[i % forked.length]!, ponds: [shuffled[Math.floor(i / forked.length)]!] });
  return { wishes, all: stride === 1 };
}

/** One wish with so many extras at most: what is laid, null when there is nothing, or neither in the steps allowed. */
function layOne(
  wish: TableWish,
  kinds: TileKinds,
  extras: number,
  progress: { done: number },
  { seed = 1, mostSteps = 400_000, tick = () => undefined }: TableOptions,
): LaidTile[] | null | 'gave up' {
  // No layout has more tiles than there are: with few of them the search is soon at its end.
  const most = Math.min(
    wish.columns * wish.rows - wish.blocked.length,
    kinds.tiles.reduce((sum, { copies, wet }) => sum + (wet.some(Boolean) ? copies : 0), 0) + extras,
  );
  if (leastTiles(wish) > most) return null;
  // Short layouts first: a search that may sprawl over the whole table gets lost on it.
  for (const mostTiles of tileLimits(wish, most)) {
    const budget: Budget = { left: mostTiles === most ? mostSteps : mostSteps / 8, done: progress.done, tick };
    const search = new TableSearch(wish, kinds, extras, mostTiles, seeded(seed + extras * 7919), budget);
    const result = search.solve((placed) => keepsTogether(wish, kinds.tiles, placed));
    progress.done = budget.done;
    if (result) return search.placed().filter((place) => place !== null);
    if (result === false && mostTiles === most) return null;
  }
  return 'gave up';
}

const keepsTogether = (wish: TableWish, tiles: readonly TableTile[], placed: Placed): boolean =>
  hangsTogether(wish, tiles, placed) && runsDownstream(wish, tiles, placed);

/**
 * Every way to make up the counts of tiles (by kind, as `classesOf` orders them) with which a table can be laid, at most
 * `mostTiles` on it: each set of counts once. Null in `counts` when the steps did not suffice to see them all.
 */
export function countsToLay(
  wish: TableWish,
  kinds: TileKinds,
  mostTiles: number,
  mostSteps: number,
  tick: (steps: number) => void = () => undefined,
): { counts: number[][]; all: boolean } {
  const unlimited: TileKinds = {
    ...kinds,
    tiles: kinds.tiles.map((tile) => ({ ...tile, copies: tile.once ? tile.copies : mostTiles })),
  };
  const seen = new Map<string, number[]>();
  const { wishes, all: every } = spelledOut(wish, seeded(1));
  let all = every;
  for (const one of wishes) {
    const search = new TableSearch(one, unlimited, 0, mostTiles, seeded(1), {
      left: mostSteps / wishes.length,
      done: 0,
      tick,
    });
    const result = search.solve((placed) => {
      if (!keepsTogether(one, unlimited.tiles, placed)) return false;
      const counts = kinds.tiles.map((_, kind) => placed.filter((place) => place?.tile === kind).length);
      seen.set(counts.join(), counts);
      return false;
    });
    if (result === null) all = false;
  }
  return { counts: [...seen.values()], all };
}

/** No layout has fewer tiles: every wanted place has one, and water that hangs together reaches from any of them to any other. */
function leastTiles(wish: TableWish): number {
  const wanted = wantedPlaces(wish);
  const distinct = new Set(wanted.map(({ column, row }) => row * wish.columns + column)).size;
  // On hexagons a step across may also go half a place up or down: only the larger way counts for sure.
  const apart = (across: number, up: number): number => (wish.grid === 'hexagon' ? Math.max(across, up) : across + up);
  const furthest = wanted.reduce(
    (most, a) =>
      wanted.reduce((far, b) => Math.max(far, apart(Math.abs(a.column - b.column), Math.abs(a.row - b.row)) + 1), most),
    1,
  );
  return Math.max(distinct, furthest);
}

/** How many tiles may be laid, try after try: from the least there can be up to the most. */
function tileLimits(wish: TableWish, most: number): number[] {
  const least = leastTiles(wish);
  const limits: number[] = [];
  for (let limit = least; limit < most && limit < least + wish.columns + wish.rows; limit += 2) limits.push(limit);
  return [...limits, most];
}

/** Which of tiles that can stand for one another is made when there are too few: never a measured copy where a drawn one is among them. */
export const toMake = (members: readonly number[], tiles: readonly TableTile[]): number =>
  members.find((member) => !tiles[member]!.once) ?? members[0]!;

/**
 * Gives each place a real tile: what is kept there, else from stock while there is any, in a seeded order, else the
 * first of its kind as an extra.
 */
function namedLayout(
  laid: readonly LaidTile[],
  { fixed }: TableWish,
  members: readonly (readonly number[])[],
  tiles: readonly TableTile[],
  random: () => number,
): TableLayout {
  const left = tiles.map(({ copies }) => copies);
  const extras = new Map<number, number>();
  const take = (place: LaidTile, tile: number): LaidTile => {
    if (left[tile]! <= 0) extras.set(tile, (extras.get(tile) ?? 0) + 1);
    left[tile]!--;
    return { ...place, tile };
  };
  const kept = new Map(
    fixed.map((place) => [`${place.column},${place.row}`, tiles.findIndex((tile) => samePiece(tile, place.piece))]),
  );
  const keptAt = ({ column, row }: TablePlace): number | undefined => kept.get(`${column},${row}`);
  const first = laid.filter((place) => keptAt(place) !== undefined).map((place) => take(place, keptAt(place)!));
  const rest = laid
    .filter((place) => keptAt(place) === undefined)
    .map((place) => {
      const inStock = members[place.tile]!.filter((member) => left[member]! > 0);
      return take(
        place,
        inStock.length > 0 ? inStock[Math.floor(random() * inStock.length)]! : toMake(members[place.tile]!, tiles),
      );
    });
  return { laid: [...first, ...rest], extras: [...extras].map(([tile, count]) => ({ tile, count })) };
}
