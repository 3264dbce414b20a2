import type { BedGrid } from '../bed/grid';
import { outlineSize, sideOf, type PointMm } from '../bed/outline';
import { profileAt, sectionProfile, type BedProfile } from '../bed/profile';
import type { EdgeName, Outline } from '../model/designSchema';
import { drawnSide, opposite, TABLE_SHAPES, type TableShape } from './tableShape';
import type { LaidTile } from './tableTypes';
import type { Opening, TableSide, TableGridKind } from '../model/tableSchema';

/** Spacing of the samples of a walk. */
const STEP_MM = 1;

/**
 * A board cut from its left to its right end as it stands, where the water at its ends is deepest: `levelMm` decides what is
 * water. Of the ends' deepest places the one nearest the middle.
 */
export function boardCut(grid: BedGrid, outline: Outline, levelMm: number, turned: boolean): BedProfile {
  const { widthMm, lengthMm } = outlineSize(outline);
  let [best, bestDepth] = [lengthMm / 2, -Infinity];
  const count = Math.max(2, Math.round(lengthMm / 5));
  for (let i = 1; i < count; i++) {
    const y = (lengthMm * i) / count;
    const { heightMm } = sectionProfile(grid, 0, y, widthMm, y, widthMm / 2);
    const depth = Math.min(levelMm - heightMm[0]!, 20) + Math.min(levelMm - heightMm.at(-1)!, 20);
    // Of places equally deep the one nearest the middle.
    if (
      depth > bestDepth + 0.05 ||
      (depth > bestDepth - 0.05 && Math.abs(y - lengthMm / 2) < Math.abs(best - lengthMm / 2))
    )
      [best, bestDepth] = [y, Math.max(depth, bestDepth)];
  }
  return turned
    ? sectionProfile(grid, widthMm, best, 0, best, STEP_MM)
    : sectionProfile(grid, 0, best, widthMm, best, STEP_MM);
}

/** A tile cut along its water from the port of one side to the port of another, in a curve by way of its middle. */
export function tileCut(grid: BedGrid, outline: Outline, from: EdgeName, to: EdgeName): BedProfile {
  const { widthMm, lengthMm } = outlineSize(outline);
  const [a, b] = [deepestAlong(grid, outline, from), deepestAlong(grid, outline, to)];
  const point = (t: number): PointMm => {
    const [start, middle, end] = [(1 - t) ** 2, 2 * t * (1 - t), t * t];
    return {
      xMm: start * a.xMm + (middle * widthMm) / 2 + end * b.xMm,
      yMm: start * a.yMm + (middle * lengthMm) / 2 + end * b.yMm,
    };
  };
  const count = Math.max(2, Math.round((widthMm + lengthMm) / 2 / STEP_MM));
  const points = Array.from({ length: count + 1 }, (_, i) => point(i / count));
  const lengthOfWay = points
    .slice(1)
    .reduce((sum, { xMm, yMm }, i) => sum + Math.hypot(xMm - points[i]!.xMm, yMm - points[i]!.yMm), 0);
  return profileAt(grid, lengthOfWay, points);
}

/** Where just inside a side the bed is deepest: the middle of the deepest stretch. */
function deepestAlong(grid: BedGrid, outline: Outline, edge: EdgeName): PointMm {
  const side = sideOf(outline, edge);
  const { widthMm, lengthMm } = outlineSize(outline);
  if (!side) return { xMm: widthMm / 2, yMm: lengthMm / 2 };
  const inset = grid.cellMm / 2;
  const [dx, dy] = [side.inward[0] * inset, side.inward[1] * inset];
  const { heightMm } = sectionProfile(
    grid,
    side.from.xMm + dx,
    side.from.yMm + dy,
    side.to.xMm + dx,
    side.to.yMm + dy,
    STEP_MM,
  );
  const lowest = heightMm.reduce((a, b) => Math.min(a, b), Infinity);
  const [first, last] = [
    heightMm.findIndex((z) => z < lowest + 0.1),
    heightMm.length - 1 - [...heightMm].reverse().findIndex((z) => z < lowest + 0.1),
  ];
  const share = (first + last) / 2 / (heightMm.length - 1);
  return {
    xMm: side.from.xMm + share * (side.to.xMm - side.from.xMm),
    yMm: side.from.yMm + share * (side.to.yMm - side.from.yMm),
  };
}

/** One tile on the way of the water: which of what is laid, and at which of its sides, as drawn, one comes in and goes out. */
export interface WalkStep {
  laid: number;
  from: TableSide;
  to: TableSide;
}

/** The shortest way over a layout from one opening to another; without a second, to the tile furthest along. Empty where there is none. */
export function wayThrough(
  laid: readonly LaidTile[],
  wet: (tile: number, drawn: TableSide) => boolean,
  start: Opening,
  end: Opening | null,
  grid: TableGridKind,
): WalkStep[] {
  const shape = TABLE_SHAPES[grid];
  const at = new Map(laid.map((place, i) => [`${place.column},${place.row}`, i]));
  const first = at.get(`${start.column},${start.row}`);
  if (first === undefined) return [];
  /** By tile: from which side of the table it was come to, and from which tile. */
  const came = new Map<number, { side: TableSide; before: number | null }>([
    [first, { side: start.side, before: null }],
  ]);
  const queue = [first];
  for (let i = 0; i < queue.length; i++) {
    const here = laid[queue[i]!]!;
    for (const side of shape.sides) {
      const { column, row } = shape.beyond(here, side);
      const next = at.get(`${column},${row}`);
      if (next === undefined || came.has(next) || !wet(here.tile, drawnSide(shape, side, here.turns))) continue;
      came.set(next, { side: opposite(shape, side), before: queue[i]! });
      queue.push(next);
    }
  }
  const last = end ? at.get(`${end.column},${end.row}`) : queue.at(-1);
  if (last === undefined || !came.has(last)) return [];
  const steps: WalkStep[] = [];
  let out: TableSide = end?.side ?? anyWayOut(shape, laid[last]!, wet, came.get(last)!.side);
  for (let tile: number | null = last; tile !== null;) {
    const { side, before }: { side: TableSide; before: number | null } = came.get(tile)!;
    const { turns } = laid[tile]!;
    steps.unshift({ laid: tile, from: drawnSide(shape, side, turns), to: drawnSide(shape, out, turns) });
    out = opposite(shape, side);
    tile = before;
  }
  return steps;
}

/** Any wet side of a tile but the one that was come in by; that one where there is no other. */
const anyWayOut = (
  shape: TableShape,
  place: LaidTile,
  wet: (tile: number, drawn: TableSide) => boolean,
  cameBy: TableSide,
): TableSide =>
  shape.sides.find((side) => side !== cameBy && wet(place.tile, drawnSide(shape, side, place.turns))) ??
  opposite(shape, cameBy);
