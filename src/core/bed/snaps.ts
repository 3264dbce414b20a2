import { edgeLengthMm } from './outline';
import type { EdgeStandard } from '../model/edgeStandardSchema';
import type { Port, PieceDesign } from '../model/designSchema';

/** A place on edges of one length at which the set's pieces have their ports. */
export interface PortSnap {
  lengthMm: number;
  positionMm: number;
}

/** Edges count as equally long within this. */
const SAME_LENGTH_MM = 0.5;
/** How near a port must come to be caught. */
const SNAP_MM = 3;

/** Every port of a design, whatever it belongs to. */
export const portsOf = ({ features }: Pick<PieceDesign, 'features'>): Port[] =>
  features.flatMap((feature) => {
    if (feature.kind === 'channel') return feature.endsInside ? [feature.from] : [feature.from, feature.to];
    return feature.kind === 'fork' ? [feature.stem, feature.left, feature.right] : [];
  });

/** Where the ports of a set's designs lie; each also as a neighbour sees it that is turned round. */
export const portSnaps = (designs: readonly Pick<PieceDesign, 'features' | 'outline'>[]): PortSnap[] =>
  designs.flatMap((design) =>
    portsOf(design).flatMap(({ edge, positionMm }) => {
      const lengthMm = edgeLengthMm(design.outline, edge);
      return lengthMm > 0
        ? [
            { lengthMm, positionMm },
            { lengthMm, positionMm: lengthMm - positionMm },
          ]
        : [];
    }),
  );

/** Ports of the set's edge standards, which are measured from the left: an edge may be read from either end. */
export const standardSnaps = (standards: readonly Pick<EdgeStandard, 'edgeMm' | 'portMm' | 'widthMm'>[]): PortSnap[] =>
  standards
    .filter(({ widthMm }) => widthMm > 0)
    .flatMap(({ edgeMm, portMm }) => [
      { lengthMm: edgeMm, positionMm: portMm },
      { lengthMm: edgeMm, positionMm: edgeMm - portMm },
    ]);

/** A place along an edge, caught by the middle of the edge or by a port of the set when near one. */
export function snapped(positionMm: number, lengthMm: number, snaps: readonly PortSnap[]): number {
  const places = [
    lengthMm / 2,
    ...snaps.filter((snap) => Math.abs(snap.lengthMm - lengthMm) <= SAME_LENGTH_MM).map((snap) => snap.positionMm),
  ];
  const nearest = places.reduce((a, b) => (Math.abs(b - positionMm) < Math.abs(a - positionMm) ? b : a));
  return Math.abs(nearest - positionMm) <= SNAP_MM ? nearest : positionMm;
}
