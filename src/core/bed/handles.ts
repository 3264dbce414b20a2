import { edgeLengthMm, edgePoint, outlineEdges, type PointMm } from './outline';
import { FEATURE_NAMES, type EdgeName, type Feature, type Outline, type PieceDesign } from './schema';

/** A place on the plan by which a feature can be moved. */
export interface Handle extends PointMm {
  /** Index of the feature in its design. */
  feature: number;
  grip: 'from' | 'to' | 'centre' | 'waterline';
  label: string;
  /** Where it stands, in words. */
  place: string;
}

const mm = (value: number): string => `${Number(value.toFixed(1))} mm`;

/** Every handle of a design, in the order of its features. */
export const designHandles = (design: PieceDesign): Handle[] => design.features.flatMap((feature, index) => handlesOf(feature, index, design.outline));

function handlesOf(feature: Feature, index: number, outline: Outline): Handle[] {
  const name = FEATURE_NAMES[feature.kind];
  if (feature.kind === 'channel') {
    if (outlineEdges(outline).length === 0) return [];
    return (['from', 'to'] as const).map((grip) => ({ feature: index, grip, ...edgePoint(outline, feature[grip]), label: `${name}, ${feature[grip].edge} port`, place: `${mm(feature[grip].positionMm)} along the ${feature[grip].edge} edge` }));
  }
  if (feature.kind === 'shore') return [{ feature: index, grip: 'waterline', ...waterlinePoint(feature, outline), label: 'Waterline', place: `${mm(feature.waterlineMm)} from the ${feature.landSide} edge` }];
  if (feature.kind === 'basin') return [];
  return [{ feature: index, grip: 'centre', xMm: feature.xMm, yMm: feature.yMm, label: name, place: `${mm(feature.xMm)} across, ${mm(feature.yMm)} up` }];
}

function waterlinePoint({ landSide, waterlineMm }: Extract<Feature, { kind: 'shore' }>, { widthMm, lengthMm }: Outline): PointMm {
  if (landSide === 'north') return { xMm: widthMm / 2, yMm: lengthMm - waterlineMm };
  if (landSide === 'south') return { xMm: widthMm / 2, yMm: waterlineMm };
  return { xMm: landSide === 'west' ? waterlineMm : widthMm - waterlineMm, yMm: lengthMm / 2 };
}

/**
 * The design with one handle moved to a point: a port slides along the nearest edge that its channel does not
 * use at the other end, everything else stays on the piece. Places are rounded to `stepMm`.
 */
export function moveHandle(design: PieceDesign, { feature: index, grip }: Pick<Handle, 'feature' | 'grip'>, to: PointMm, stepMm = 0.5): PieceDesign {
  const feature = design.features[index];
  if (!feature) return design;
  const { outline } = design;
  const round = (value: number): number => Math.round(value / stepMm) * stepMm;
  const clamp = (value: number, most: number): number => Math.min(most, Math.max(0, round(value)));
  const moved = (): Feature => {
    if (feature.kind === 'channel' && (grip === 'from' || grip === 'to')) return { ...feature, [grip]: nearestPort(outline, to, feature.widthMm, feature[grip === 'from' ? 'to' : 'from'].edge, round) };
    if (feature.kind === 'shore') {
      const [along, most] = feature.landSide === 'north' || feature.landSide === 'south' ? [to.yMm, outline.lengthMm] : [to.xMm, outline.widthMm];
      return { ...feature, waterlineMm: clamp(feature.landSide === 'north' || feature.landSide === 'east' ? most - along : along, most) };
    }
    if (feature.kind === 'pool' || feature.kind === 'ring' || feature.kind === 'rock') return { ...feature, xMm: clamp(to.xMm, outline.widthMm), yMm: clamp(to.yMm, outline.lengthMm) };
    return feature;
  };
  return { ...design, features: design.features.map((other, i) => (i === index ? moved() : other)) };
}

function nearestPort(outline: Outline, { xMm, yMm }: PointMm, widthMm: number, taken: EdgeName, round: (value: number) => number): { edge: EdgeName; positionMm: number } {
  const distances: [EdgeName, number][] = [['south', yMm], ['north', outline.lengthMm - yMm], ['west', xMm], ['east', outline.widthMm - xMm]];
  const [edge] = distances.filter(([name]) => name !== taken).reduce((a, b) => (b[1] < a[1] ? b : a));
  const length = edgeLengthMm(outline, edge);
  const along = edge === 'north' || edge === 'south' ? xMm : yMm;
  const half = Math.min(widthMm, length) / 2;
  return { edge, positionMm: Math.min(length - half, Math.max(half, round(along))) };
}
