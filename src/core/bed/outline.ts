import { EDGE_NAMES, type EdgeName, type Outline, type Port } from './schema';

/** A flat list x0, y0, x1, y1, … in mm. */
export type Polygon = Float64Array;
export interface PointMm {
  xMm: number;
  yMm: number;
}

/** Sides of the polygon that stands for an oval; it is grown so that its area is the oval's own. */
const OVAL_SIDES = 512;

/** The outline as a closed polygon, anticlockwise from the south-west, first point not repeated. Area exact. */
export function outlinePolygon(outline: Outline): Polygon {
  const { widthMm: w, lengthMm: l } = outline;
  if (outline.kind === 'rectangle') return Float64Array.of(0, 0, w, 0, w, l, 0, l);
  const step = (2 * Math.PI) / OVAL_SIDES;
  const grow = Math.sqrt(step / Math.sin(step));
  return ovalPolygon(w / 2, l / 2, (w / 2) * grow, (l / 2) * grow);
}

/** An ellipse of these half-axes as a closed polygon. */
export function ovalPolygon(centreX: number, centreY: number, halfX: number, halfY: number, sides = OVAL_SIDES): Polygon {
  const points = new Float64Array(sides * 2);
  for (let i = 0; i < sides; i++) {
    const angle = (2 * Math.PI * i) / sides;
    points[2 * i] = centreX + halfX * Math.cos(angle);
    points[2 * i + 1] = centreY + halfY * Math.sin(angle);
  }
  return points;
}

/** Area in mm²: closed form, not from the grid. */
export const outlineAreaMm2 = ({ kind, widthMm, lengthMm }: Outline): number => (kind === 'rectangle' ? 1 : Math.PI / 4) * widthMm * lengthMm;

/** Edges that can meet another piece. An oval has none: its rim is free. */
export const outlineEdges = (outline: Outline): readonly EdgeName[] => (outline.kind === 'rectangle' ? EDGE_NAMES : []);

export const edgeLengthMm = (outline: Outline, edge: EdgeName): number => (edge === 'north' || edge === 'south' ? outline.widthMm : outline.lengthMm);

/** The point of an edge at a distance from its west or south end. */
export function edgePoint(outline: Outline, { edge, positionMm }: Port): PointMm {
  if (edge === 'south') return { xMm: positionMm, yMm: 0 };
  if (edge === 'north') return { xMm: positionMm, yMm: outline.lengthMm };
  if (edge === 'west') return { xMm: 0, yMm: positionMm };
  return { xMm: outline.widthMm, yMm: positionMm };
}

/** Unit vector from an edge into the piece. */
export function inwardOf(edge: EdgeName): readonly [number, number] {
  if (edge === 'south') return [0, 1];
  if (edge === 'north') return [0, -1];
  return edge === 'west' ? [1, 0] : [-1, 0];
}
