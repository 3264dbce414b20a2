import { edgePoint, outlineSides, outlineSize, sideOf, type PointMm } from './outline';
import { distanceToSide } from './profile';
import { packHeights, unpackHeights } from './scanHeights';
import type { EdgeName, Feature, FeatureOf, Outline, PieceDesign, Port } from '../model/designSchema';
import { fromFrame, landFrame, toFrame } from './waterline';

/** How a variant of a design is made from it. */
export const TRANSFORMS = ['mirrored', 'quarter turn', 'half turn'] as const;
export type Transform = (typeof TRANSFORMS)[number];

/** One step: over the middle line from south to north, or a quarter turn anticlockwise. */
type Step = 'mirror' | 'quarter';

/** The design mirrored left to right, or turned anticlockwise. What was measured on copies of the old one does not hold for it. */
export function transformDesign(design: PieceDesign, transform: Transform): PieceDesign {
  if (transform === 'mirrored') return stepped(design, 'mirror');
  const turned = stepped(design, 'quarter');
  return transform === 'quarter turn' ? turned : stepped(turned, 'quarter');
}

function stepped(design: PieceDesign, step: Step): PieceDesign {
  const { outline } = design;
  const { widthMm, lengthMm } = outlineSize(outline);
  const point = ({ xMm, yMm }: PointMm): PointMm =>
    step === 'mirror' ? { xMm: widthMm - xMm, yMm } : { xMm: lengthMm - yMm, yMm: xMm };
  const next = steppedOutline(outline, step, point);
  const moves: Moves = {
    step,
    old: outline,
    next,
    point,
    edge: (edge) => steppedEdge(outline, next, edge, point),
    port: (port) => steppedPort(outline, next, port, point),
  };
  const dams = Object.fromEntries(
    Object.entries(design.dams).map(([edge, method]) => [edge === 'rim' ? edge : moves.edge(edge as EdgeName), method]),
  );
  const edgeStandards =
    design.edgeStandards &&
    Object.fromEntries(Object.entries(design.edgeStandards).map(([edge, id]) => [moves.edge(edge as EdgeName), id]));
  return {
    ...design,
    outline: next,
    dams,
    ...(edgeStandards && { edgeStandards }),
    ...(design.flowsFrom && { flowsFrom: moves.edge(design.flowsFrom) }),
    measured: null,
    copyNumbers: null,
    ...(design.poolLevels && { poolLevels: design.poolLevels.map((mark) => ({ ...mark, ...point(mark) })) }),
    features: design.features.map((feature) => steppedFeature(feature, moves)),
  };
}

interface Moves {
  step: Step;
  old: Outline;
  next: Outline;
  point: (point: PointMm) => PointMm;
  edge: (edge: EdgeName) => EdgeName;
  port: (port: Port) => Port;
}

type Stepped<O> = (outline: O, step: Step, point: (point: PointMm) => PointMm) => Outline;
const acrossAndAlong = <O extends Extract<Outline, { widthMm: number }>>(outline: O, step: Step): O =>
  step === 'mirror' ? outline : { ...outline, widthMm: outline.lengthMm, lengthMm: outline.widthMm };

/** How each kind of outline is turned or mirrored; one that is left out does not compile. */
const STEPPED: { [K in Outline['kind']]: Stepped<Extract<Outline, { kind: K }>> } = {
  rectangle: acrossAndAlong,
  oval: acrossAndAlong,
  // One with an odd or a half-odd number of sides does not fall on itself; as a free outline it can be turned.
  regular: (outline, step, point) =>
    step === 'mirror' || outline.sides % 4 === 0
      ? outline
      : { kind: 'free', points: regularPoints(outline).map(point) },
  free: ({ points }, _step, point) => ({ kind: 'free', points: points.map(point) }),
};

const steppedOutline: Stepped<Outline> = (outline, step, point) =>
  (STEPPED[outline.kind] as Stepped<Outline>)(outline, step, point);

const regularPoints = (outline: Outline): PointMm[] => {
  // Sides run from their west end; anticlockwise order is by the way they face.
  const sides = [...outlineSides(outline)].sort(
    (a, b) => Math.atan2(-a.inward[1], -a.inward[0]) - Math.atan2(-b.inward[1], -b.inward[0]),
  );
  return sides.map(({ from, to, inward }) =>
    (to.xMm - from.xMm) * -inward[1] + (to.yMm - from.yMm) * inward[0] < 0 ? from : to,
  );
};

function steppedEdge(old: Outline, next: Outline, edge: EdgeName, point: (point: PointMm) => PointMm): EdgeName {
  const side = sideOf(old, edge);
  if (!side) return edge;
  const { xMm, yMm } = point(edgePoint(old, { edge, positionMm: side.lengthMm / 2 }));
  return outlineSides(next).reduce((a, b) => (distanceToSide(b, xMm, yMm) < distanceToSide(a, xMm, yMm) ? b : a)).edge;
}

function steppedPort(old: Outline, next: Outline, port: Port, point: (point: PointMm) => PointMm): Port {
  const edge = steppedEdge(old, next, port.edge, point);
  const side = sideOf(next, edge);
  const place = point(edgePoint(old, port));
  return {
    edge,
    positionMm: side
      ? Math.round(Math.hypot(place.xMm - side.from.xMm, place.yMm - side.from.yMm) * 1e6) / 1e6
      : port.positionMm,
  };
}

/** A corner of the compass for features that lie along a side which the outline may not have (a shore on an oval). */
function steppedSide(edge: EdgeName, { step, old, edge: mapped }: Moves): EdgeName {
  if (sideOf(old, edge)) return mapped(edge);
  const table: Partial<Record<EdgeName, EdgeName>> =
    step === 'mirror' ? { east: 'west', west: 'east' } : { north: 'west', west: 'south', south: 'east', east: 'north' };
  return table[edge] ?? edge;
}

function steppedFeature(feature: Feature, moves: Moves): Feature {
  const { step, point, port } = moves;
  const sized = 'xMm' in feature ? { ...feature, ...point(feature) } : feature;
  const swapped = <T extends { widthMm: number; lengthMm: number }>(value: T): T =>
    step === 'quarter' ? { ...value, widthMm: value.lengthMm, lengthMm: value.widthMm } : value;
  switch (sized.kind) {
    case 'channel':
      return {
        ...sized,
        from: port(sized.from),
        to: port(sized.to),
        ...(sized.via && { via: sized.via.map((via) => ({ ...via, ...point(via) })) }),
      };
    case 'fork':
      return { ...sized, stem: port(sized.stem), left: port(sized.left), right: port(sized.right) };
    case 'shore':
      return steppedShore(sized, moves);
    case 'terrace':
      return { ...sized, landSide: steppedSide(sized.landSide, moves) };
    case 'pool':
      return {
        ...swapped(sized),
        ...spun(sized, step),
        ...(sized.corners && {
          corners: sized.corners.map(({ xMm, yMm }) =>
            step === 'mirror' ? { xMm: -xMm, yMm } : { xMm: -yMm, yMm: xMm },
          ),
        }),
      };
    case 'rock':
      return { ...sized, ...(sized.form === 'irregular' && spun(sized, step)) };
    case 'ring':
    case 'hill':
    case 'plateau':
      return swapped(sized);
    case 'log':
    case 'wreck':
      return {
        ...sized,
        turnDegrees: step === 'mirror' ? withinTurn(180 - sized.turnDegrees) : withinTurn(sized.turnDegrees + 90),
      };
    case 'scan':
      return steppedScan(sized, step);
    default:
      return sized;
  }
}

const withinTurn = (degrees: number): number => ((degrees % 360) + 360) % 360;

/** Irregular forms keep their seed and say how they have been turned and mirrored. */
function spun(
  {
    form,
    turnDegrees = 0,
    mirrored = false,
  }: Pick<FeatureOf<'pool'>, 'turnDegrees' | 'mirrored'> & { form?: string | undefined },
  step: Step,
): Pick<FeatureOf<'pool'>, 'turnDegrees' | 'mirrored'> {
  if (form !== 'irregular') return {};
  return step === 'mirror'
    ? { turnDegrees: withinTurn(-turnDegrees), mirrored: !mirrored }
    : { turnDegrees: withinTurn(turnDegrees + 90), mirrored };
}

function steppedShore(shore: FeatureOf<'shore'>, moves: Moves): FeatureOf<'shore'> {
  const landSide = steppedSide(shore.landSide, moves);
  if (!shore.line) return { ...shore, landSide };
  const [before, after] = [landFrame(moves.old, shore.landSide), landFrame(moves.next, landSide)];
  const line = shore.line.map(({ alongMm, offMm }) => toFrame(after, moves.point(fromFrame(before, alongMm, offMm))));
  return { ...shore, landSide, line: line.sort((a, b) => a.alongMm - b.alongMm) };
}

function steppedScan(scan: FeatureOf<'scan'>, step: Step): FeatureOf<'scan'> {
  const { columns, rows } = scan;
  const old = unpackHeights(scan.heights, columns * rows);
  const [newColumns, newRows] = step === 'mirror' ? [columns, rows] : [rows, columns];
  const heights = new Float32Array(old.length);
  for (let row = 0; row < newRows; row++) {
    for (let column = 0; column < newColumns; column++) {
      heights[row * newColumns + column] =
        step === 'mirror'
          ? old[row * columns + columns - 1 - column]!
          : old[(newColumns - 1 - column) * columns + row]!;
    }
  }
  return { ...scan, columns: newColumns, rows: newRows, heights: packHeights(heights) };
}
