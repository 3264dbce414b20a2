import { doubledArea, EDGE_NAMES, MOST_SIDES, type EdgeName, type Outline } from '../model/outlineSchema';
import type { Port } from '../model/designSchema';
import type { TableGridKind } from '../model/tableSchema';

/** A flat list x0, y0, x1, y1, … in mm. */
export type Polygon = Float64Array;
export interface PointMm {
  xMm: number;
  yMm: number;
}

/** Sides of the polygon that stands for an oval; it is grown so that its area is the oval's own. */
const OVAL_SIDES = 512;
/** Sides of the quarter circle that rounds a corner. */
const CORNER_SIDES = 32;

/** What is asked of each kind of outline. */
interface OutlineKind<O extends Outline> {
  size: (outline: O) => { widthMm: number; lengthMm: number };
  /** Its corners, anticlockwise; none of one that is all curve. */
  corners: (outline: O) => PointMm[];
  /** As a closed polygon, anticlockwise, first point not repeated; area exact (a rounded corner's within 0.1 % of the corner). */
  polygon: (outline: O) => Polygon;
  /** In closed form, not from the grid. */
  areaMm2: (outline: O) => number;
  /** To what radius its corners are rounded. */
  roundedMm: (outline: O) => number;
  /** It fills its box but for rounded corners: its corners are south-west and so on, however long it is. */
  fillsBox: boolean;
  /** Whether some of it belongs to no straight side. */
  rim: 'none' | 'all' | 'what is not straight';
  /** The points it is drawn by; null where it is given by measures. */
  points: (outline: O) => readonly PointMm[] | null;
  /** The grids of a table that a tile of it fills. */
  tableGrids: (outline: O) => readonly TableGridKind[];
}

/** Sides that differ by less are equal. */
const SAME_SIDE_MM = 0.5;
const BY_MEASURES = { roundedMm: () => 0, points: () => null } as const;

/** Every kind of outline; one that is left out does not compile. */
const OUTLINES: { [K in Outline['kind']]: OutlineKind<Extract<Outline, { kind: K }>> } = {
  rectangle: {
    size: (outline) => outline,
    corners: rectangleCorners,
    polygon: (outline) => {
      const radius = cornerRadiusMm(outline);
      const corners = rectangleCorners(outline);
      return flatten(radius > 0 ? roundCorners(corners, radius) : corners);
    },
    areaMm2: (outline) => outline.widthMm * outline.lengthMm - (4 - Math.PI) * cornerRadiusMm(outline) ** 2,
    ...BY_MEASURES,
    roundedMm: (outline) => cornerRadiusMm(outline),
    fillsBox: true,
    rim: 'none',
    tableGrids: ({ widthMm, lengthMm }) =>
      Math.abs(widthMm - lengthMm) < SAME_SIDE_MM ? ['square'] : ['rectangle', 'rectangle across'],
  },
  oval: {
    size: (outline) => outline,
    corners: () => [],
    polygon: ({ widthMm: w, lengthMm: l }) => {
      const step = (2 * Math.PI) / OVAL_SIDES;
      const grow = Math.sqrt(step / Math.sin(step));
      return ovalPolygon(w / 2, l / 2, (w / 2) * grow, (l / 2) * grow);
    },
    areaMm2: ({ widthMm, lengthMm }) => (Math.PI / 4) * widthMm * lengthMm,
    ...BY_MEASURES,
    fillsBox: false,
    rim: 'all',
    tableGrids: () => [],
  },
  regular: {
    size: (outline) => boxOf(regularCorners(outline)),
    corners: regularCorners,
    polygon: (outline) => flatten(regularCorners(outline)),
    areaMm2: (outline) => Math.abs(doubledArea(regularCorners(outline))) / 2,
    ...BY_MEASURES,
    fillsBox: false,
    rim: 'none',
    tableGrids: ({ sides }) => (sides === 6 ? ['hexagon'] : []),
  },
  free: {
    size: ({ points }) => boxOf(points),
    corners: freeCorners,
    polygon: (outline) => flatten(freeCorners(outline)),
    areaMm2: ({ points }) => Math.abs(doubledArea(points)) / 2,
    roundedMm: () => 0,
    fillsBox: false,
    rim: 'what is not straight',
    points: ({ points }) => points,
    tableGrids: () => [],
  },
};
const kindOf = <O extends Outline>(outline: O): OutlineKind<O> => OUTLINES[outline.kind] as unknown as OutlineKind<O>;

const boxOf = (corners: readonly PointMm[]): { widthMm: number; lengthMm: number } => ({
  widthMm: Math.max(...corners.map(({ xMm }) => xMm)),
  lengthMm: Math.max(...corners.map(({ yMm }) => yMm)),
});

/** Width and length of the box round an outline, mm. */
export const outlineSize = (outline: Outline): { widthMm: number; lengthMm: number } => kindOf(outline).size(outline);

/** To what radius the corners of an outline are really rounded. */
export const roundedMm = (outline: Outline): number => kindOf(outline).roundedMm(outline);
/** Whether an outline fills its box but for rounded corners. */
export const fillsBox = ({ kind }: Pick<Outline, 'kind'>): boolean => OUTLINES[kind].fillsBox;
/** The points that an outline is drawn by; null where it is given by measures. */
export const drawnPoints = (outline: Outline): readonly PointMm[] | null => kindOf(outline).points(outline);
/** The grids of a table that tiles of this outline fill. */
export const tableGridsOf = (outline: Outline): readonly TableGridKind[] => kindOf(outline).tableGrids(outline);
/** Whether a part of an outline belongs to no straight side. */
export const rimOf = ({ kind }: Pick<Outline, 'kind'>): OutlineKind<Outline>['rim'] => OUTLINES[kind].rim;

/** The radius to which a rectangle's corners are really rounded: at most half its shorter side. */
export const cornerRadiusMm = ({ widthMm, lengthMm, cornerMm = 0 }: Extract<Outline, { kind: 'rectangle' }>): number =>
  Math.min(cornerMm, widthMm / 2, lengthMm / 2);

/** Corners of a regular polygon, anticlockwise from the west end of its south side. */
function regularCorners({ sides, acrossMm }: Extract<Outline, { kind: 'regular' }>): PointMm[] {
  const radius = acrossMm / 2 / Math.cos(Math.PI / sides);
  const corners = Array.from({ length: sides }, (_, i) => {
    const angle = -Math.PI / 2 - Math.PI / sides + (2 * Math.PI * i) / sides;
    return { xMm: radius * Math.cos(angle), yMm: radius * Math.sin(angle) };
  });
  const [west, south] = [Math.min(...corners.map(({ xMm }) => xMm)), Math.min(...corners.map(({ yMm }) => yMm))];
  return corners.map(({ xMm, yMm }) => ({ xMm: xMm - west, yMm: yMm - south }));
}

function rectangleCorners({ widthMm: w, lengthMm: l }: Extract<Outline, { kind: 'rectangle' }>): PointMm[] {
  return [
    { xMm: 0, yMm: 0 },
    { xMm: w, yMm: 0 },
    { xMm: w, yMm: l },
    { xMm: 0, yMm: l },
  ];
}

function freeCorners({ points }: Extract<Outline, { kind: 'free' }>): PointMm[] {
  return doubledArea(points) > 0 ? points : [...points].reverse();
}

/** The corners of an outline without curves, anticlockwise; none of an oval. */
const straightCorners = (outline: Outline): PointMm[] => kindOf(outline).corners(outline);

/** A flat polygon of points. */
export function flatten(points: readonly PointMm[]): Polygon {
  const flat = new Float64Array(points.length * 2);
  points.forEach(({ xMm, yMm }, i) => flat.set([xMm, yMm], 2 * i));
  return flat;
}

/** The outline as a closed polygon, anticlockwise, first point not repeated. */
export const outlinePolygon = (outline: Outline): Polygon => kindOf(outline).polygon(outline);

/** A convex or concave polygon with its corners rounded to a radius, as far as its sides allow. */
export function roundCorners(corners: readonly PointMm[], radiusMm: number): PointMm[] {
  return corners.flatMap((corner, i) => {
    const before = corners[(i + corners.length - 1) % corners.length]!;
    const after = corners[(i + 1) % corners.length]!;
    const [toBefore, toAfter] = [unit(corner, before), unit(corner, after)];
    const half = Math.acos(Math.max(-1, Math.min(1, toBefore[0] * toAfter[0] + toBefore[1] * toAfter[1]))) / 2;
    const room =
      Math.min(
        Math.hypot(before.xMm - corner.xMm, before.yMm - corner.yMm),
        Math.hypot(after.xMm - corner.xMm, after.yMm - corner.yMm),
      ) / 2;
    const cut = Math.min(radiusMm / Math.tan(half), room);
    const radius = cut * Math.tan(half);
    if (!(radius > 1e-6) || !Number.isFinite(cut) || half > Math.PI / 2 - 1e-3) return [corner];
    const toCentre = Math.hypot(radius, cut);
    const [mx, my] = [toBefore[0] + toAfter[0], toBefore[1] + toAfter[1]];
    const size = Math.hypot(mx, my);
    const centre = { xMm: corner.xMm + (mx / size) * toCentre, yMm: corner.yMm + (my / size) * toCentre };
    const from = Math.atan2(corner.yMm + toBefore[1] * cut - centre.yMm, corner.xMm + toBefore[0] * cut - centre.xMm);
    const to = Math.atan2(corner.yMm + toAfter[1] * cut - centre.yMm, corner.xMm + toAfter[0] * cut - centre.xMm);
    const turn = Math.atan2(Math.sin(to - from), Math.cos(to - from));
    return Array.from({ length: CORNER_SIDES + 1 }, (_, k) => ({
      xMm: centre.xMm + radius * Math.cos(from + (turn * k) / CORNER_SIDES),
      yMm: centre.yMm + radius * Math.sin(from + (turn * k) / CORNER_SIDES),
    }));
  });
}

function unit(from: PointMm, to: PointMm): readonly [number, number] {
  const length = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm) || 1;
  return [(to.xMm - from.xMm) / length, (to.yMm - from.yMm) / length];
}

/** An ellipse of these half-axes as a closed polygon. */
export function ovalPolygon(
  centreX: number,
  centreY: number,
  halfX: number,
  halfY: number,
  sides = OVAL_SIDES,
): Polygon {
  const points = new Float64Array(sides * 2);
  for (let i = 0; i < sides; i++) {
    const angle = (2 * Math.PI * i) / sides;
    points[2 * i] = centreX + halfX * Math.cos(angle);
    points[2 * i + 1] = centreY + halfY * Math.sin(angle);
  }
  return points;
}

/** Area in mm²: closed form, not from the grid. */
export const outlineAreaMm2 = (outline: Outline): number => kindOf(outline).areaMm2(outline);

/** A straight side that can meet another piece, from its west (else its south) end. */
export interface Side {
  edge: EdgeName;
  from: PointMm;
  to: PointMm;
  lengthMm: number;
  /** Unit vector into the piece. */
  inward: readonly [number, number];
}

/** Shorter straight runs of a free outline belong to its curves: in mm, and as a share of the way round. */
const LEAST_SIDE_MM = 10;
const LEAST_SIDE_SHARE = 0.05;
const COMPASS = ['east', 'north-east', 'north', 'north-west', 'west', 'south-west', 'south', 'south-east'] as const;
const STRAIGHT_RADIANS = 0.02;

/** The nearest of the eight points of the compass. */
export const compassName = (x: number, y: number): (typeof COMPASS)[number] =>
  COMPASS[(Math.round((Math.atan2(y, x) * 4) / Math.PI) + 8) % 8]!;

const known = new WeakMap<Outline, readonly Side[]>();

/** The straight sides of an outline. An oval has none: its rim is free. */
export function outlineSides(outline: Outline): readonly Side[] {
  const kept = known.get(outline) ?? nameSides(straightRuns(outline));
  known.set(outline, kept);
  return kept;
}

/** Straight runs between true corners, anticlockwise; of a free outline only those long enough to meet a neighbour. */
function straightRuns(outline: Outline): { from: PointMm; to: PointMm }[] {
  const corners = straightCorners(outline);
  const runs = corners
    .map((from, i) => ({ from, to: corners[(i + 1) % corners.length]! }))
    .filter(({ from, to }) => Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm) > 1e-6);
  // What is drawn by points has runs that lie in one line, and curves of short ones.
  if (drawnPoints(outline) === null) return runs;
  const joined: typeof runs = [];
  for (const run of runs) {
    const last = joined.at(-1);
    if (last && inLine(last, run)) last.to = run.to;
    else joined.push({ ...run });
  }
  const [first, last] = [joined[0]!, joined.at(-1)!];
  if (joined.length > 2 && inLine(last, first)) {
    first.from = last.from;
    joined.pop();
  }
  const length = ({ from, to }: (typeof runs)[number]): number => Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm);
  const least = Math.max(LEAST_SIDE_MM, LEAST_SIDE_SHARE * joined.reduce((sum, run) => sum + length(run), 0));
  return joined.filter((run) => length(run) >= least).slice(0, MOST_SIDES);
}

function inLine(a: { from: PointMm; to: PointMm }, b: { from: PointMm; to: PointMm }): boolean {
  const turn =
    Math.atan2(b.to.yMm - b.from.yMm, b.to.xMm - b.from.xMm) - Math.atan2(a.to.yMm - a.from.yMm, a.to.xMm - a.from.xMm);
  return Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) < STRAIGHT_RADIANS;
}

/** Names sides by the way they face, or by number when two face the same way. In the order of `EDGE_NAMES`. */
function nameSides(runs: readonly { from: PointMm; to: PointMm }[]): Side[] {
  const sides = runs.map(({ from, to }) => {
    const lengthMm = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm);
    const inward = [-(to.yMm - from.yMm) / lengthMm, (to.xMm - from.xMm) / lengthMm] as const;
    const turned = to.xMm < from.xMm - 1e-9 || (Math.abs(to.xMm - from.xMm) <= 1e-9 && to.yMm < from.yMm);
    return {
      from: turned ? to : from,
      to: turned ? from : to,
      lengthMm,
      inward,
      facing: compassName(-inward[0], -inward[1]),
    };
  });
  const distinct = new Set(sides.map(({ facing }) => facing)).size === sides.length;
  return sides
    .map(({ facing, ...side }, i): Side => ({ ...side, edge: distinct ? facing : (`side ${i + 1}` as EdgeName) }))
    .sort((a, b) => EDGE_NAMES.indexOf(a.edge) - EDGE_NAMES.indexOf(b.edge));
}

/** Names of the sides of an outline. */
export const outlineEdges = (outline: Outline): readonly EdgeName[] => outlineSides(outline).map(({ edge }) => edge);

export const sideOf = (outline: Outline, edge: EdgeName): Side | undefined =>
  outlineSides(outline).find((side) => side.edge === edge);

/** Length of a side in mm; 0 when the outline has no such side. */
export const edgeLengthMm = (outline: Outline, edge: EdgeName): number => sideOf(outline, edge)?.lengthMm ?? 0;

/** The point of a side at a distance from its west or south end; the middle of the piece when there is no such side. */
export function edgePoint(outline: Outline, { edge, positionMm }: Port): PointMm {
  const side = sideOf(outline, edge);
  if (!side) {
    const { widthMm, lengthMm } = outlineSize(outline);
    return { xMm: widthMm / 2, yMm: lengthMm / 2 };
  }
  const share = positionMm / side.lengthMm;
  return {
    xMm: side.from.xMm + share * (side.to.xMm - side.from.xMm),
    yMm: side.from.yMm + share * (side.to.yMm - side.from.yMm),
  };
}

/** Unit vector from a side into the piece; north when there is no such side. */
export const inwardOf = (outline: Outline, edge: EdgeName): readonly [number, number] =>
  sideOf(outline, edge)?.inward ?? [0, 1];

/** True when the edge's west (or south) end is its left end, looking out from the middle of the piece. */
export function startsAtLeft(outline: Outline, edge: EdgeName): boolean {
  const side = sideOf(outline, edge);
  if (!side) return true;
  // Looking out, right is the outward direction turned clockwise.
  const [x, y] = side.inward;
  return (side.to.xMm - side.from.xMm) * -y + (side.to.yMm - side.from.yMm) * x > 0;
}

/** True when a point lies inside a closed polygon (even–odd). */
export function isInside(polygon: Polygon, { xMm, yMm }: PointMm): boolean {
  let odd = false;
  const count = polygon.length / 2;
  for (let i = 0, j = count - 1; i < count; j = i++) {
    const [xi, yi, xj, yj] = [polygon[2 * i]!, polygon[2 * i + 1]!, polygon[2 * j]!, polygon[2 * j + 1]!];
    if (yi > yMm !== yj > yMm && xMm < ((xj - xi) * (yMm - yi)) / (yj - yi) + xi) odd = !odd;
  }
  return odd;
}

/** Where a line of points crosses itself, or null. Touching ends of neighbouring segments do not count. */
export function selfCrossing(line: Polygon, closed: boolean): PointMm | null {
  const count = line.length / 2;
  const segments = closed ? count : count - 1;
  const at = (i: number): [number, number] => [line[2 * (i % count)]!, line[2 * (i % count) + 1]!];
  for (let i = 0; i < segments; i++) {
    const [[ax, ay], [bx, by]] = [at(i), at(i + 1)];
    for (let j = i + 2; j < segments; j++) {
      if (closed && i === 0 && j === segments - 1) continue;
      const [[cx, cy], [dx, dy]] = [at(j), at(j + 1)];
      const cross = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
      if (cross === 0) continue;
      const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / cross;
      const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / cross;
      if (t >= 0 && t <= 1 && u >= 0 && u <= 1) return { xMm: ax + t * (bx - ax), yMm: ay + t * (by - ay) };
    }
  }
  return null;
}
