import type { LaidTile, SidesMeet, TableLayout, TableTile } from './tableTypes';
import { classesOf } from './tableRules';
import { drawnSide, opposite, TABLE_SHAPES } from './tableShape';
import { seeded } from '../chance/random';
import type { TablePlace, TableSide, TableGridKind } from '../model/tableSchema';

/** How bad the seam between two sides of two tiles is; sides as drawn. */
export type SideScore = (tileA: number, sideA: TableSide, tileB: number, sideB: TableSide) => number;

/** Two places of a layout whose water meets: the second lies to the east or north of the first. */
export interface LaidSeam {
  a: number;
  b: number;
  sideA: TableSide;
  sideB: TableSide;
}

/** Seams of a layout, by the index of what is laid. */
export function laidSeams(
  laid: readonly LaidTile[],
  tiles: readonly Pick<TableTile, 'wet'>[],
  grid: TableGridKind,
): LaidSeam[] {
  const shape = TABLE_SHAPES[grid];
  // One of each pair of opposite sides: the eastern ones and the north.
  const onward = shape.sides.filter((side) => side > 0 && side <= shape.sides.length / 2);
  const at = new Map(laid.map(({ column, row }, i) => [`${column},${row}`, i]));
  return laid.flatMap((place, a) =>
    onward.flatMap((side): LaidSeam[] => {
      const { tile, turns } = place;
      const { column, row } = shape.beyond(place, side);
      const b = at.get(`${column},${row}`);
      const sideA = drawnSide(shape, side, turns);
      return b === undefined || !tiles[tile]!.wet[sideA]
        ? []
        : [{ a, b, sideA, sideB: drawnSide(shape, opposite(shape, side), laid[b]!.turns) }];
    }),
  );
}

const TRIES = 6;

/**
 * Puts the copies at hand into the places of a layout so that the worst seam is least, then the sum: exchanges between places
 * whose tiles can stand for one another, and with copies that were left over, as long as one helps; from several starts. No proof
 * that nothing is better. Tiles in `kept` places stay.
 */
export function bestCopies(
  { laid, extras }: TableLayout,
  tiles: readonly TableTile[],
  meet: SidesMeet,
  score: SideScore,
  kept: readonly TablePlace[],
  grid: TableGridKind,
  seed = 1,
): TableLayout {
  const { members } = classesOf(tiles, meet);
  const kindOf = new Map(members.flatMap((own, kind) => own.map((tile) => [tile, kind] as const)));
  const seams = laidSeams(laid, tiles, grid);
  const stays = laid.map(({ column, row }) => kept.some((place) => place.column === column && place.row === row));
  const cost = (placed: readonly number[]): { worst: number; sum: number } => {
    let [worst, sum] = [0, 0];
    for (const { a, b, sideA, sideB } of seams) {
      const value = score(placed[a]!, sideA, placed[b]!, sideB);
      if (value > worst) worst = value;
      sum += value;
    }
    return { worst, sum };
  };
  const better = (a: { worst: number; sum: number }, b: { worst: number; sum: number }): boolean =>
    a.worst < b.worst - 1e-9 || (a.worst <= b.worst + 1e-9 && a.sum < b.sum - 1e-9);
  const random = seeded(seed);
  const start = laid.map(({ tile }) => tile);
  const spare = tiles.map(({ copies }, tile) => Math.max(0, copies - start.filter((other) => other === tile).length));
  let best = { placed: start, spare, ...cost(start) };
  for (let round = 0; round < TRIES; round++) {
    let now = round === 0 ? best : shuffledStart(best, kindOf, stays, random, cost);
    for (let improved = true; improved;) {
      improved = false;
      for (const next of exchanges(now, kindOf, members, stays)) {
        const value = cost(next.placed);
        if (!better(value, now)) continue;
        now = { ...next, ...value };
        improved = true;
        break;
      }
    }
    if (better(now, best)) best = now;
  }
  return { laid: laid.map((place, i) => ({ ...place, tile: best.placed[i]! })), extras };
}

interface Assignment {
  placed: number[];
  spare: number[];
}

function* exchanges(
  { placed, spare }: Assignment,
  kindOf: ReadonlyMap<number, number>,
  members: readonly (readonly number[])[],
  stays: readonly boolean[],
): Generator<Assignment> {
  for (let i = 0; i < placed.length; i++) {
    if (stays[i]) continue;
    const kind = kindOf.get(placed[i]!)!;
    for (const tile of members[kind]!) {
      if (tile === placed[i] || spare[tile]! <= 0) continue;
      yield {
        placed: placed.map((other, k) => (k === i ? tile : other)),
        spare: spare.map((count, other) => count + (other === placed[i] ? 1 : 0) - (other === tile ? 1 : 0)),
      };
    }
    for (let j = i + 1; j < placed.length; j++) {
      if (stays[j] || placed[j] === placed[i] || kindOf.get(placed[j]!) !== kind) continue;
      yield { placed: placed.map((other, k) => (k === i ? placed[j]! : k === j ? placed[i]! : other)), spare };
    }
  }
}

function shuffledStart<T extends { worst: number; sum: number }>(
  { placed, spare }: Assignment,
  kindOf: ReadonlyMap<number, number>,
  stays: readonly boolean[],
  random: () => number,
  cost: (placed: readonly number[]) => T,
): Assignment & T {
  const next = [...placed];
  for (let i = next.length - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1));
    if (stays[i] || stays[j] || kindOf.get(next[i]!) !== kindOf.get(next[j]!)) continue;
    [next[i], next[j]] = [next[j]!, next[i]!];
  }
  return { placed: next, spare, ...cost(next) };
}
