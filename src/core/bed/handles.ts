import { edgePoint, outlineSides, outlineSize, sideOf, type PointMm } from './outline';
import { distanceToSegment, LEVEL_MARKS, movePoint, OUTLINE, pointList } from './pointLists';
import { FEATURE_NAMES, type EdgeName, type Feature, type PieceDesign, type Port } from '../model/designSchema';
import { snapped, type PortSnap } from './snaps';
import { fromFrame, landFrame, toFrame } from './waterline';

type PortGrip = 'from' | 'to' | 'stem' | 'left' | 'right';
export type Grip =
  PortGrip | 'centre' | 'waterline' | 'point' | 'width' | 'length' | 'turn' | 'bank' | 'rim' | 'near' | 'far';

/** Which handle: the feature by index (`OUTLINE` for the piece itself), what is held, and for a point which one. */
export interface HandleRef {
  feature: number;
  grip: Grip;
  point?: number;
}

/** A place on the plan by which a feature can be moved or sized. */
export interface Handle extends PointMm, HandleRef {
  label: string;
  /** Where it stands, in words. */
  place: string;
  /** Sizes: shown only for the feature in hand. */
  minor: boolean;
}

const mm = (value: number): string => `${Number(value.toFixed(1))} mm`;
const placeWords = ({ xMm, yMm }: PointMm): string => `${mm(xMm)} across, ${mm(yMm)} up`;
const isPort = (grip: Grip): grip is PortGrip => ['from', 'to', 'stem', 'left', 'right'].includes(grip);

/** Every handle of a design, in the order of its features, the corners of a free outline last. */
export function designHandles(design: PieceDesign): Handle[] {
  return [
    ...design.features.flatMap((feature, index) => [
      ...placeHandles(feature, index, design),
      ...pointHandles(design, index),
      ...sizeHandles(feature, index, design),
    ]),
    ...pointHandles(design, OUTLINE),
    ...pointHandles(design, LEVEL_MARKS),
  ];
}

function placeHandles(feature: Feature, index: number, { outline }: PieceDesign): Handle[] {
  const name = FEATURE_NAMES[feature.kind];
  const port = (grip: PortGrip, { edge, positionMm }: Port): Handle[] =>
    sideOf(outline, edge)
      ? [
          {
            feature: index,
            grip,
            ...edgePoint(outline, { edge, positionMm }),
            label: `${name}, ${edge} port`,
            place: `${mm(positionMm)} along the ${edge} edge`,
            minor: false,
          },
        ]
      : [];
  if (feature.kind === 'channel')
    return [...port('from', feature.from), ...(feature.endsInside ? [] : port('to', feature.to))];
  if (feature.kind === 'fork')
    return [
      ...port('stem', feature.stem),
      ...port('left', feature.left),
      ...port('right', feature.right),
      centre(feature, index, 'Fork, where the arms part'),
    ];
  if (feature.kind === 'shore') {
    const frame = landFrame(outline, feature.landSide);
    return [
      {
        feature: index,
        grip: 'waterline',
        ...fromFrame(frame, frame.lengthMm / 2, feature.waterlineMm),
        label: 'Waterline',
        place: `${mm(feature.waterlineMm)} from the ${feature.landSide} edge`,
        minor: (feature.line?.length ?? 0) > 0,
      },
    ];
  }
  return 'xMm' in feature ? [centre(feature, index, name)] : [];
}

const centre = ({ xMm, yMm }: PointMm, feature: number, label: string): Handle => ({
  feature,
  grip: 'centre',
  xMm,
  yMm,
  label,
  place: placeWords({ xMm, yMm }),
  minor: false,
});

const pointHandles = (design: PieceDesign, feature: number): Handle[] => {
  const list = pointList(design, feature);
  return (list?.points ?? []).map((point, i) => ({
    feature,
    grip: 'point',
    point: i,
    xMm: point.xMm,
    yMm: point.yMm,
    label: `${list!.noun} ${i + 1}`,
    place: placeWords(point),
    minor: false,
  }));
};

/** Handles at the east and north of what has a size, at the end of what can be turned, on banks, rims and steps. */
function sizeHandles(feature: Feature, index: number, { outline }: PieceDesign): Handle[] {
  const name = FEATURE_NAMES[feature.kind];
  const at = (grip: Grip, xMm: number, yMm: number, what: string, value: string): Handle => ({
    feature: index,
    grip,
    xMm,
    yMm,
    label: `${name}, ${what}`,
    place: value,
    minor: true,
  });
  if (feature.kind === 'log' || feature.kind === 'wreck') {
    const [cos, sin] = [
      Math.cos((feature.turnDegrees * Math.PI) / 180),
      Math.sin((feature.turnDegrees * Math.PI) / 180),
    ];
    const half = (feature.kind === 'log' ? feature.lengthMm : feature.widthMm) / 2;
    return [
      at(
        'turn',
        feature.xMm + half * cos,
        feature.yMm + half * sin,
        'its end',
        `${mm(2 * half)} long, turned ${Math.round(feature.turnDegrees)}°`,
      ),
    ];
  }
  if (feature.kind === 'channel' || feature.kind === 'fork') {
    const port = feature.kind === 'channel' ? feature.from : feature.stem;
    const side = sideOf(outline, port.edge);
    if (!side) return [];
    // Left and right of the port lie along its side; the half that stays on the side is the one to hold.
    const along = port.positionMm + feature.widthMm / 2 <= side.lengthMm ? 1 : -1;
    const { xMm, yMm } = edgePoint(outline, {
      edge: port.edge,
      positionMm: port.positionMm + (along * feature.widthMm) / 2,
    });
    return [at('bank', xMm, yMm, 'its bank', `${mm(feature.widthMm)} wide`)];
  }
  if (feature.kind === 'basin')
    return [
      at('rim', feature.rimMm, outlineSize(outline).lengthMm / 2, 'its rim', `${mm(feature.rimMm)} from the edge`),
    ];
  if (feature.kind === 'terrace') {
    const frame = landFrame(outline, feature.landSide);
    const step = (grip: Grip, offMm: number, what: string): Handle =>
      at(
        grip,
        fromFrame(frame, frame.lengthMm / 2, offMm).xMm,
        fromFrame(frame, frame.lengthMm / 2, offMm).yMm,
        what,
        `${mm(offMm)} from the ${feature.landSide} edge`,
      );
    return [step('near', feature.fromMm, 'its near side'), step('far', feature.toMm, 'its far side')];
  }
  if ('diameterMm' in feature)
    return [
      at('width', feature.xMm + feature.diameterMm / 2, feature.yMm, 'its size', `${mm(feature.diameterMm)} across`),
    ];
  if ('xMm' in feature && 'lengthMm' in feature && !(feature.kind === 'pool' && feature.form === 'polygon')) {
    return [
      at('width', feature.xMm + feature.widthMm / 2, feature.yMm, 'its width', `${mm(feature.widthMm)} wide`),
      at('length', feature.xMm, feature.yMm + feature.lengthMm / 2, 'its length', `${mm(feature.lengthMm)} long`),
    ];
  }
  return [];
}

const LEAST_SIZE_MM = 2;

/**
 * The design with one handle moved to a point: a port slides along the nearest side that its feature does not use
 * already and is caught by the middle of it and by the set's ports (not when `free`); everything else stays on the
 * piece. Places are rounded to `stepMm`.
 */
export function moveHandle(
  design: PieceDesign,
  { feature: index, grip, point }: HandleRef,
  to: PointMm,
  { stepMm = 0.5, snaps = [], free = false }: { stepMm?: number; snaps?: readonly PortSnap[]; free?: boolean } = {},
): PieceDesign {
  const round = (value: number): number => Math.round(value / stepMm) * stepMm;
  const { widthMm, lengthMm } = outlineSize(design.outline);
  const clamp = (value: number, most: number): number => Math.min(most, Math.max(0, round(value)));
  if (grip === 'point') {
    const place =
      index === OUTLINE
        ? { xMm: clamp(to.xMm, 3000), yMm: clamp(to.yMm, 3000) }
        : { xMm: clamp(to.xMm, widthMm), yMm: clamp(to.yMm, lengthMm) };
    return movePoint(design, index, point ?? 0, place);
  }
  const feature = design.features[index];
  if (!feature) return design;
  const size = (value: number): number => Math.max(LEAST_SIZE_MM, round(2 * Math.abs(value)));
  const moved = (): Feature => {
    if (isPort(grip)) return { ...feature, [grip]: nearestPort(design, feature, grip, to, round, free ? null : snaps) };
    if (grip === 'bank' && (feature.kind === 'channel' || feature.kind === 'fork')) {
      const port = edgePoint(design.outline, feature.kind === 'channel' ? feature.from : feature.stem);
      return { ...feature, widthMm: size(Math.hypot(to.xMm - port.xMm, to.yMm - port.yMm)) };
    }
    if (feature.kind === 'basin') return { ...feature, rimMm: clamp(to.xMm, Math.min(widthMm, lengthMm) / 2 - 1) };
    if (feature.kind === 'terrace')
      return {
        ...feature,
        [grip === 'near' ? 'fromMm' : 'toMm']: clamp(
          toFrame(landFrame(design.outline, feature.landSide), to).offMm,
          3000,
        ),
      };
    if (feature.kind === 'shore') {
      const frame = landFrame(design.outline, feature.landSide);
      return { ...feature, waterlineMm: clamp(toFrame(frame, to).offMm, frame.acrossMm) };
    }
    if (!('xMm' in feature)) return feature;
    if (grip === 'centre') return { ...feature, xMm: clamp(to.xMm, widthMm), yMm: clamp(to.yMm, lengthMm) };
    const [dx, dy] = [to.xMm - feature.xMm, to.yMm - feature.yMm];
    if (grip === 'turn')
      return {
        ...feature,
        [feature.kind === 'log' ? 'lengthMm' : 'widthMm']: size(Math.hypot(dx, dy)),
        turnDegrees: Math.round((Math.atan2(dy, dx) * 180) / Math.PI),
      } as Feature;
    if (grip === 'width') return { ...feature, ['diameterMm' in feature ? 'diameterMm' : 'widthMm']: size(dx) };
    return { ...feature, lengthMm: size(dy) } as Feature;
  };
  return { ...design, features: design.features.map((other, i) => (i === index ? moved() : other)) };
}

function nearestPort(
  { outline }: PieceDesign,
  feature: Feature,
  grip: PortGrip,
  to: PointMm,
  round: (value: number) => number,
  snaps: readonly PortSnap[] | null,
): Port {
  const { taken, widthMm } = otherPorts(feature, grip);
  const side = outlineSides(outline)
    .filter(({ edge }) => !taken.includes(edge))
    .reduce((a, b) => (distanceToSegment(b.from, b.to, to) < distanceToSegment(a.from, a.to, to) ? b : a));
  const along =
    ((to.xMm - side.from.xMm) * (side.to.xMm - side.from.xMm) +
      (to.yMm - side.from.yMm) * (side.to.yMm - side.from.yMm)) /
    side.lengthMm;
  const half = Math.min(widthMm, side.lengthMm) / 2;
  const caught = snaps ? snapped(along, side.lengthMm, snaps) : along;
  return {
    edge: side.edge,
    positionMm: Math.min(side.lengthMm - half, Math.max(half, caught === along ? round(along) : caught)),
  };
}

/** The sides that a feature's other ports use, and how wide the water is at this one. */
function otherPorts(feature: Feature, grip: PortGrip): { taken: EdgeName[]; widthMm: number } {
  if (feature.kind === 'channel') {
    const other = feature[grip === 'from' ? 'to' : 'from'].edge;
    return {
      taken: feature.endsInside ? [] : [other],
      widthMm: grip === 'to' ? (feature.toWidthMm ?? feature.widthMm) : feature.widthMm,
    };
  }
  if (feature.kind !== 'fork') return { taken: [], widthMm: 0 };
  const ports = { stem: feature.stem, left: feature.left, right: feature.right };
  return {
    taken: Object.entries(ports).flatMap(([name, { edge }]) => (name === grip ? [] : [edge])),
    widthMm: grip === 'stem' ? feature.widthMm : feature.armWidthMm,
  };
}
