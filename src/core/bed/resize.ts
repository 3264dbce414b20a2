import { outlineSize, sideOf, type PointMm } from './outline';
import type { Feature, FeatureOf, Outline, PieceDesign, Port } from '../model/designSchema';
import { fromFrame, landFrame, toFrame } from './waterline';

const hundredth = (mm: number): number => Math.round(mm * 100) / 100;

/**
 * A design on an outline of another size: ports keep their share of their edge, points, solids and pools their share of the
 * piece; how wide and deep anything is stays. Heights of a scan stay where they are.
 */
export function resized(design: PieceDesign, outline: Outline): PieceDesign {
  const [before, after] = [outlineSize(design.outline), outlineSize(outline)];
  const point = <T extends PointMm>(at: T): T => ({
    ...at,
    xMm: hundredth((at.xMm * after.widthMm) / before.widthMm),
    yMm: hundredth((at.yMm * after.lengthMm) / before.lengthMm),
  });
  const moves: Moves = { before: design.outline, after: outline, point };
  return {
    ...design,
    outline,
    features: design.features.map((feature) => moved(feature, moves)),
    ...(design.poolLevels && { poolLevels: design.poolLevels.map(point) }),
    ...(design.sectionLine && {
      sectionLine: { from: point(design.sectionLine.from), to: point(design.sectionLine.to) },
    }),
  };
}

interface Moves {
  before: Outline;
  after: Outline;
  point: <T extends PointMm>(at: T) => T;
}

function movedPort(port: Port, { before, after }: Moves): Port {
  const [old, next] = [sideOf(before, port.edge), sideOf(after, port.edge)];
  return old && next ? { ...port, positionMm: hundredth((port.positionMm * next.lengthMm) / old.lengthMm) } : port;
}

function moved(feature: Feature, moves: Moves): Feature {
  const placed = 'xMm' in feature ? moves.point(feature) : feature;
  const port = (at: Port): Port => movedPort(at, moves);
  switch (placed.kind) {
    case 'channel':
      return {
        ...placed,
        from: port(placed.from),
        to: port(placed.to),
        ...(placed.via && { via: placed.via.map(moves.point) }),
      };
    case 'fork':
      return { ...placed, stem: port(placed.stem), left: port(placed.left), right: port(placed.right) };
    case 'shore':
      return movedShore(placed, moves);
    default:
      return placed;
  }
}

function movedShore(shore: FeatureOf<'shore'>, { before, after, point }: Moves): FeatureOf<'shore'> {
  if (!shore.line) return shore;
  const [old, next] = [landFrame(before, shore.landSide), landFrame(after, shore.landSide)];
  const line = shore.line.map(({ alongMm, offMm }) => {
    const at = toFrame(next, point(fromFrame(old, alongMm, offMm)));
    return { alongMm: hundredth(at.alongMm), offMm: hundredth(at.offMm) };
  });
  return { ...shore, line };
}
