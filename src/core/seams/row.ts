import { stream } from '../chance/random';

/** A board in a row: which end stands left, and what its ends are for the costs. */
export interface RowPlace {
  board: number;
  turned: boolean;
}

/** What an arrangement must keep to. */
export interface RowRules {
  /** How a board must stand, turned or as drawn, whose water reads one way; null: either. By board. */
  facing?: readonly (boolean | null)[];
  /** Boards that must stand at a place, counted from the left. */
  pins?: readonly { board: number; place: number }[];
  /** Pairs that may not stand side by side. */
  apart?: readonly (readonly [number, number])[];
}

/** The best order of a row. */
export interface RowResult {
  places: RowPlace[];
  worst: number;
  sum: number;
  /** True when no order is better; otherwise no order can have a worst seam below `bound`. */
  exact: boolean;
  bound: number;
  /** Orders that pass, of all that the rules allow; null when there are too many to count. */
  passing: number | null;
  all: number | null;
}

/** Cost of the seam between the right end of one standing board and the left end of the next. */
export type SeamCost = (left: RowPlace, right: RowPlace) => number;

/** Up to so many boards the search is exact. */
export const MOST_EXACT = 13;

/** Contradictions among the rules, in words; empty when they can be kept. */
export function checkRowRules(count: number, { pins = [], apart = [] }: RowRules): string[] {
  const problems: string[] = [];
  if (count === 0) problems.push('There are no boards to arrange.');
  pins.forEach(({ board, place }, i) => {
    if (place < 0 || place >= count) problems.push(`Place ${place + 1} is not in a row of ${count}.`);
    const other = pins.slice(0, i).find((pin) => pin.place === place || pin.board === board);
    if (other)
      problems.push(
        other.place === place && other.board !== board
          ? `Two boards are pinned to place ${place + 1}. Take one pin out.`
          : `One board is pinned to places ${other.place + 1} and ${place + 1}. Take one pin out.`,
      );
  });
  for (const [a, b] of apart) {
    const [at, to] = [pins.find((pin) => pin.board === a)?.place, pins.find((pin) => pin.board === b)?.place];
    if (at !== undefined && to !== undefined && Math.abs(at - to) === 1)
      problems.push(`Two boards are pinned side by side and may not be neighbours. Take out a pin or the rule.`);
  }
  if (count > 1 && count === 2 && apart.length > 0)
    problems.push('With two boards that may not be neighbours there is no row.');
  return problems;
}

/** May a board stand as a state (2·board + turned) says? */
function mayStand(facing: RowRules['facing'], state: number): boolean {
  const wanted = facing?.[state >> 1] ?? null;
  return wanted === null || wanted === ((state & 1) === 1);
}

/** Costs as a table over standing boards: index 2·board + turned. Infinity where a rule forbids it. */
function costTable(count: number, cost: SeamCost, { apart = [], facing }: RowRules): Float64Array {
  const size = 2 * count;
  const table = new Float64Array(size * size).fill(Infinity);
  const forbidden = new Set(apart.flatMap(([a, b]) => [`${a},${b}`, `${b},${a}`]));
  const may = (state: number): boolean => mayStand(facing, state);
  for (let from = 0; from < size; from++) {
    for (let to = 0; to < size; to++) {
      if (from >> 1 === to >> 1 || !may(from) || !may(to) || forbidden.has(`${from >> 1},${to >> 1}`)) continue;
      table[from * size + to] = cost(
        { board: from >> 1, turned: (from & 1) === 1 },
        { board: to >> 1, turned: (to & 1) === 1 },
      );
    }
  }
  return table;
}

/**
 * The best order of a row of boards that may be turned: the least worst seam first, among those the least sum. Exact up
 * to `MOST_EXACT` boards (dynamic programme over subsets: once for the least worst seam, once for the least sum within it, once to
 * count); above that a local search, with the bound that no order can beat. `pass` is what still passes. Returns null when the rules
 * leave no order. `tick` is called now and then and may throw to stop.
 */
export function bestRow(
  count: number,
  cost: SeamCost,
  pass: number,
  rules: RowRules = {},
  tick: (share: number) => void = () => undefined,
  seed = 1,
): RowResult | null {
  if (count === 0) return null;
  const table = costTable(count, cost, rules);
  const allowed = placeRules(count, rules);
  return count <= MOST_EXACT
    ? exactRow(count, table, allowed, pass, tick)
    : searchRow(count, table, allowed, tick, seed);
}

/** May a standing board be at a place? */
type PlaceRule = (state: number, place: number) => boolean;

function placeRules(count: number, { pins = [], facing }: RowRules): PlaceRule {
  const boardAt = new Map(pins.map(({ board, place }) => [place, board]));
  const placeOf = new Map(pins.map(({ board, place }) => [board, place]));
  return (state, place) => {
    const board = state >> 1;
    if (!mayStand(facing, state)) return false;
    const pinned = placeOf.get(board);
    const wanted = boardAt.get(place);
    return (pinned === undefined || pinned === place) && (wanted === undefined || wanted === board) && place < count;
  };
}

const bits = (mask: number): number => {
  let [rest, set] = [mask, 0];
  for (; rest; rest &= rest - 1) set++;
  return set;
};

function exactRow(
  count: number,
  table: Float64Array,
  allowed: PlaceRule,
  pass: number,
  tick: (share: number) => void,
): RowResult | null {
  const size = 2 * count;
  const full = (1 << count) - 1;
  const index = (mask: number, state: number): number => mask * size + state;
  const sweep = (
    combine: (before: number, seam: number) => number,
    most: number,
    share: number,
  ): { value: Float64Array; from: Int16Array } => {
    const value = new Float64Array((full + 1) * size).fill(Infinity);
    const from = new Int16Array((full + 1) * size).fill(-1);
    for (let state = 0; state < size; state++) if (allowed(state, 0)) value[index(1 << (state >> 1), state)] = 0;
    for (let mask = 1; mask <= full; mask++) {
      if ((mask & 255) === 0) tick(share + mask / full / 3);
      const place = bits(mask);
      if (place === count) continue;
      for (let state = 0; state < size; state++) {
        const before = value[index(mask, state)]!;
        if (before === Infinity) continue;
        for (let next = 0; next < size; next++) {
          if (mask & (1 << (next >> 1)) || !allowed(next, place)) continue;
          const seam = table[state * size + next]!;
          if (seam > most) continue;
          const at = index(mask | (1 << (next >> 1)), next);
          const after = combine(before, seam);
          if (after < value[at]!) {
            value[at] = after;
            from[at] = state;
          }
        }
      }
    }
    return { value, from };
  };
  const worstFirst = sweep(Math.max, Infinity, 0);
  const ends = Array.from({ length: size }, (_, state) => state);
  const least = (value: Float64Array): number =>
    ends.reduce((best, state) => Math.min(best, value[index(full, state)]!), Infinity);
  const worst = least(worstFirst.value);
  if (worst === Infinity) return null;
  // Seams that differ by rounding alone are equally bad.
  const sums = sweep((before, seam) => before + seam, worst + SAME, 1 / 3);
  let state = ends.reduce((best, candidate) =>
    sums.value[index(full, candidate)]! < sums.value[index(full, best)]! ? candidate : best,
  );
  const sum = sums.value[index(full, state)]!;
  const places: RowPlace[] = [];
  for (let mask = full; mask;) {
    places.unshift({ board: state >> 1, turned: (state & 1) === 1 });
    const before = sums.from[index(mask, state)]!;
    mask &= ~(1 << (state >> 1));
    state = before;
  }
  return {
    places,
    worst,
    sum,
    exact: true,
    bound: worst,
    passing: countRows(count, table, allowed, pass),
    all: countRows(count, table, allowed, Number.MAX_VALUE),
  };
}

/** How many orders have no seam above a cost. Orders read from the other side count apart: each board can be told left from right. */
function countRows(count: number, table: Float64Array, allowed: PlaceRule, most: number): number {
  const size = 2 * count;
  const full = (1 << count) - 1;
  const ways = new Float64Array((full + 1) * size);
  for (let state = 0; state < size; state++) if (allowed(state, 0)) ways[(1 << (state >> 1)) * size + state] = 1;
  for (let mask = 1; mask < full; mask++) {
    const place = bits(mask);
    for (let state = 0; state < size; state++) {
      const here = ways[mask * size + state]!;
      if (here === 0) continue;
      for (let next = 0; next < size; next++) {
        if (mask & (1 << (next >> 1)) || !allowed(next, place) || table[state * size + next]! > most) continue;
        const at = (mask | (1 << (next >> 1))) * size + next;
        ways[at] = ways[at]! + here;
      }
    }
  }
  let sum = 0;
  for (let state = 0; state < size; state++) sum += ways[full * size + state]!;
  return sum;
}

const SAME = 1e-9;
const ROUNDS = 40;

/** Many boards: from several starts, reversals and moves of stretches as long as they help; pins are kept by not moving what is pinned. */
function searchRow(
  count: number,
  table: Float64Array,
  allowed: PlaceRule,
  tick: (share: number) => void,
  seed: number,
): RowResult | null {
  const size = 2 * count;
  const random = stream(seed);
  let best: { row: number[]; worst: number; sum: number } | null = null;
  for (let round = 0; round < ROUNDS; round++) {
    tick(round / ROUNDS);
    const start = greedyRow(count, table, allowed, random);
    if (!start) continue;
    const found = improve(start, table, size, allowed);
    if (
      !best ||
      found.worst < best.worst - 1e-12 ||
      (found.worst <= best.worst + 1e-12 && found.sum < best.sum - 1e-12)
    )
      best = found;
  }
  if (!best || best.worst === Infinity) return null;
  const bound = bottleneckBound(count, table);
  return {
    places: best.row.map((state) => ({ board: state >> 1, turned: (state & 1) === 1 })),
    worst: best.worst,
    sum: best.sum,
    exact: best.worst <= bound + 1e-12,
    bound,
    passing: null,
    all: null,
  };
}

function greedyRow(count: number, table: Float64Array, allowed: PlaceRule, random: () => number): number[] | null {
  const size = 2 * count;
  const used = new Uint8Array(count);
  const row: number[] = [];
  for (let place = 0; place < count; place++) {
    const choices = Array.from({ length: size }, (_, state) => state).filter(
      (state) => used[state >> 1] === 0 && allowed(state, place),
    );
    if (choices.length === 0) return null;
    const before = row.at(-1);
    const costs = choices.map((state) =>
      before === undefined ? random() : table[before * size + state]! + random() * 0.2,
    );
    const chosen = choices[costs.indexOf(Math.min(...costs))]!;
    row.push(chosen);
    used[chosen >> 1] = 1;
  }
  return row;
}

function improve(
  start: number[],
  table: Float64Array,
  size: number,
  allowed: PlaceRule,
): { row: number[]; worst: number; sum: number } {
  const measure = (row: readonly number[]): { worst: number; sum: number } => {
    let [worst, sum] = [0, 0];
    for (let i = 1; i < row.length; i++) {
      const seam = table[row[i - 1]! * size + row[i]!]!;
      if (seam > worst) worst = seam;
      sum += seam;
    }
    return { worst, sum };
  };
  let row = start;
  let now = measure(row);
  const better = (next: { worst: number; sum: number }): boolean =>
    next.worst < now.worst - 1e-12 || (next.worst <= now.worst + 1e-12 && next.sum < now.sum - 1e-12);
  for (let improved = true; improved;) {
    improved = false;
    for (let i = 0; i < row.length && !improved; i++) {
      for (let j = i; j < row.length && !improved; j++) {
        for (const candidate of neighbours(row, i, j)) {
          if (!candidate.every((state, place) => state === row[place] || allowed(state, place))) continue;
          const next = measure(candidate);
          if (!better(next)) continue;
          [row, now, improved] = [candidate, next, true];
          break;
        }
      }
    }
  }
  return { row, ...now };
}

/** A stretch read the other way round (every board in it turned), and two boards exchanged, as they stand or turned. */
function neighbours(row: readonly number[], i: number, j: number): number[][] {
  const turnedRound = [
    ...row.slice(0, i),
    ...row
      .slice(i, j + 1)
      .reverse()
      .map((state) => state ^ 1),
    ...row.slice(j + 1),
  ];
  if (i === j) return [turnedRound];
  const exchanged = [...row];
  [exchanged[i], exchanged[j]] = [row[j]!, row[i]!];
  const turned = [...exchanged];
  turned[i] = turned[i]! ^ 1;
  const both = [...turned];
  both[j] = both[j]! ^ 1;
  return [turnedRound, exchanged, turned, both];
}

/** No row can have its worst seam below this: every board but two needs a neighbour at both ends, the cheapest it can get. */
function bottleneckBound(count: number, table: Float64Array): number {
  const size = 2 * count;
  const needs = Array.from({ length: count }, (_, board) => {
    const ends = [0, 1].map((turned) => {
      const state = 2 * board + turned;
      let [out, into] = [Infinity, Infinity];
      for (let other = 0; other < size; other++) {
        out = Math.min(out, table[state * size + other]!);
        into = Math.min(into, table[other * size + state]!);
      }
      return { both: Math.max(out, into), one: Math.min(out, into) };
    });
    return { both: Math.min(...ends.map(({ both }) => both)), one: Math.min(...ends.map(({ one }) => one)) };
  });
  // Two boards stand at the ends: the two that gain most by it.
  const sorted = needs.map(({ both }) => both).sort((a, b) => b - a);
  return Math.max(sorted[2] ?? 0, ...needs.map(({ one }) => one));
}
