import { channelCentreline } from './centreline';
import { drawnPoints, type PointMm } from './outline';
import {
  MOST_OUTLINE_POINTS,
  MOST_POINTS,
  type Feature,
  type Outline,
  type PieceDesign,
  type Via,
} from '../model/designSchema';
import { fromFrame, landFrame, toFrame } from './waterline';

/** In place of a feature's index: the outline of the piece itself. */
export const OUTLINE = -1;

/** In place of a feature's index: the marks of pools with levels of their own. */
export const LEVEL_MARKS = -2;

/** Points that a maker draws by: those of a channel, a free waterline, a polygon pool, a free outline. In mm of the piece. */
export interface PointList {
  points: PointMm[];
  /** True when the last point joins the first. */
  closed: boolean;
  least: number;
  most: number;
  /** What one of its points is called. */
  noun: string;
}

type Kept = PointMm & { kept?: Via; levelMm?: number };

/** The points of a feature (or of the outline), or null when it is not drawn by points. */
export function pointList(design: PieceDesign, feature: number): PointList | null {
  const drawn = drawnPoints(design.outline);
  if (feature === OUTLINE)
    return drawn ? { points: [...drawn], closed: true, least: 3, most: MOST_OUTLINE_POINTS, noun: 'Corner' } : null;
  if (feature === LEVEL_MARKS)
    return { points: design.poolLevels ?? [], closed: false, least: 0, most: 8, noun: 'Level mark' };
  const shape = design.features[feature];
  if (shape?.kind === 'channel')
    return { points: shape.via ?? [], closed: false, least: 0, most: MOST_POINTS, noun: 'Channel point' };
  if (shape?.kind === 'shore') {
    const frame = landFrame(design.outline, shape.landSide);
    return {
      points: (shape.line ?? []).map(({ alongMm, offMm }) => fromFrame(frame, alongMm, offMm)),
      closed: false,
      least: 0,
      most: MOST_POINTS,
      noun: 'Waterline point',
    };
  }
  if (shape?.kind === 'pool' && shape.form === 'polygon')
    return {
      points: (shape.corners ?? []).map(({ xMm, yMm }) => ({ xMm: xMm + shape.xMm, yMm: yMm + shape.yMm })),
      closed: true,
      least: 3,
      most: MOST_POINTS,
      noun: 'Pool corner',
    };
  return null;
}

/** The design with other points in place of those of a feature or of the outline. Points that were there keep what else they say. */
export function withPoints(design: PieceDesign, feature: number, points: readonly Kept[]): PieceDesign {
  if (feature === OUTLINE) {
    if (drawnPoints(design.outline) === null) return design;
    const outline: Outline = {
      kind: 'free',
      points: points.map(({ xMm, yMm }) => ({ xMm: Math.max(0, xMm), yMm: Math.max(0, yMm) })),
    };
    return { ...design, outline };
  }
  if (feature === LEVEL_MARKS)
    return {
      ...design,
      poolLevels: points.map(({ xMm, yMm, levelMm }) => ({ levelMm: levelMm ?? design.drawnLevelMm, xMm, yMm })),
    };
  return {
    ...design,
    features: design.features.map((shape, i) => (i === feature ? shapeWithPoints(shape, design, points) : shape)),
  };
}

function shapeWithPoints(shape: Feature, { outline }: PieceDesign, points: readonly Kept[]): Feature {
  if (shape.kind === 'channel')
    return {
      ...shape,
      via: points.map(({ xMm, yMm, kept }) => ({
        widthMm: kept?.widthMm ?? null,
        depthMm: kept?.depthMm ?? null,
        xMm,
        yMm,
      })),
    };
  if (shape.kind === 'shore') {
    const frame = landFrame(outline, shape.landSide);
    return { ...shape, line: points.map((point) => toFrame(frame, point)) };
  }
  if (shape.kind === 'pool')
    return { ...shape, corners: points.map(({ xMm, yMm }) => ({ xMm: xMm - shape.xMm, yMm: yMm - shape.yMm })) };
  return shape;
}

const keptPoints = (design: PieceDesign, feature: number, { points }: PointList): Kept[] => {
  const shape = design.features[feature];
  if (feature === LEVEL_MARKS) return (design.poolLevels ?? []).map(({ xMm, yMm, levelMm }) => ({ xMm, yMm, levelMm }));
  const via = shape?.kind === 'channel' ? shape.via : undefined;
  return points.map(({ xMm, yMm }, i) => (via?.[i] ? { xMm, yMm, kept: via[i] } : { xMm, yMm }));
};

/** The design with one point moved. */
export function movePoint(design: PieceDesign, feature: number, point: number, { xMm, yMm }: PointMm): PieceDesign {
  const list = pointList(design, feature);
  return list
    ? withPoints(
        design,
        feature,
        keptPoints(design, feature, list).map((old, i) => (i === point ? { ...old, xMm, yMm } : old)),
      )
    : design;
}

/** The design without one point, or null when the fewest are left. */
export function removePoint(design: PieceDesign, feature: number, point: number): PieceDesign | null {
  const list = pointList(design, feature);
  return list && list.points.length > list.least
    ? withPoints(
        design,
        feature,
        keptPoints(design, feature, list).filter((_, i) => i !== point),
      )
    : null;
}

/** The design with a point put in at a place, between the two neighbours nearest to it; null when there is no more room. */
export function insertPoint(
  design: PieceDesign,
  feature: number,
  place: PointMm,
): { design: PieceDesign; point: number } | null {
  const list = pointList(design, feature);
  if (!list || list.points.length >= list.most) return null;
  const point = placeOf(design, feature, list, place);
  const points = keptPoints(design, feature, list);
  return {
    design: withPoints(design, feature, [
      ...points.slice(0, point),
      { xMm: place.xMm, yMm: place.yMm },
      ...points.slice(point),
    ]),
    point,
  };
}

/** Where in its list a new point belongs. */
function placeOf(design: PieceDesign, feature: number, { points, closed }: PointList, place: PointMm): number {
  const shape = design.features[feature];
  if (shape?.kind === 'shore') {
    const along = ({ xMm, yMm }: PointMm): number =>
      toFrame(landFrame(design.outline, shape.landSide), { xMm, yMm }).alongMm;
    return points.filter((point) => along(point) < along(place)).length;
  }
  if (shape?.kind === 'channel') {
    const { line, knots } = channelCentreline(design.outline, shape, 0);
    let [nearest, least] = [0, Infinity];
    for (let i = 0; i < line.length / 2; i++) {
      const away = Math.hypot(line[2 * i]! - place.xMm, line[2 * i + 1]! - place.yMm);
      if (away < least) [nearest, least] = [i, away];
    }
    return Math.min(points.length, knots.slice(1).filter((knot) => knot <= nearest).length);
  }
  const away = (i: number): number => distanceToSegment(points[i]!, points[(i + 1) % points.length]!, place);
  const segments = points.map((_, i) => i).slice(0, closed ? undefined : -1);
  return segments.reduce((best, i) => (away(i) < away(best) ? i : best), 0) + 1;
}

/** Distance in mm from a point to a stretch between two others. */
export function distanceToSegment(a: PointMm, b: PointMm, { xMm, yMm }: PointMm): number {
  const [dx, dy] = [b.xMm - a.xMm, b.yMm - a.yMm];
  const t = Math.max(0, Math.min(1, ((xMm - a.xMm) * dx + (yMm - a.yMm) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(xMm - a.xMm - t * dx, yMm - a.yMm - t * dy);
}

/** How near a place must be to something drawn by points for a point to be put in there. */
const NEAR_MM = 8;

/** The feature drawn by points (or the outline) whose line passes nearest to a place, within reach; null: none. */
export function nearestDrawn(design: PieceDesign, place: PointMm): number | null {
  const lines: { feature: number; points: PointMm[]; closed: boolean }[] = design.features.flatMap(
    (shape, feature): { feature: number; points: PointMm[]; closed: boolean }[] => {
      if (shape.kind === 'channel') {
        const { line } = channelCentreline(design.outline, shape, 0);
        return [
          {
            feature,
            points: Array.from({ length: line.length / 2 }, (_, i) => ({ xMm: line[2 * i]!, yMm: line[2 * i + 1]! })),
            closed: false,
          },
        ];
      }
      if (shape.kind === 'shore') {
        const frame = landFrame(design.outline, shape.landSide);
        const points = pointList(design, feature)!.points;
        const ends =
          points.length > 0
            ? points
            : [fromFrame(frame, 0, shape.waterlineMm), fromFrame(frame, frame.lengthMm, shape.waterlineMm)];
        return [{ feature, points: ends, closed: false }];
      }
      const list = pointList(design, feature);
      return list ? [{ feature, points: list.points, closed: true }] : [];
    },
  );
  const corners = drawnPoints(design.outline);
  if (corners) lines.push({ feature: OUTLINE, points: [...corners], closed: true });
  const near = lines.map(({ feature, points, closed }) => ({
    feature,
    away: Math.min(
      ...points
        .slice(0, closed ? undefined : -1)
        .map((point, i) => distanceToSegment(point, points[(i + 1) % points.length]!, place)),
    ),
  }));
  const best = near.reduce((a, b) => (b.away < a.away ? b : a), { feature: 0, away: Infinity });
  return best.away <= NEAR_MM ? best.feature : null;
}
