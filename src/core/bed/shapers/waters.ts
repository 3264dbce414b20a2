import { turnedBlob } from '../blob';
import { distanceToPolyline } from '../distance';
import { roundHeight, type BedGrid } from '../grid';
import { flatten, isInside, outlinePolygon, roundCorners } from '../outline';
import type { FeatureOf, PieceDesign } from '../../model/designSchema';
import { landFrame, toFrame, waterlineOff, waterlinePoints } from '../waterline';
import { carve, highest, lengthOf, visitCells, type Shaper } from './carve';

/**
 * How deep the bed lies at a distance from the waterline. The slope is the mean one down to the deepest: a straight
 * profile keeps it, a concave one follows the equilibrium form of beaches (depth ∝ distance^⅔), a plunging one starts
 * gently and falls away (∝ distance^1.5). Landwards (negative) the bank rises at the slope.
 */
export function shoreDepthMm(
  {
    slope,
    depthMm,
    profile = 'straight',
    dropOffMm = null,
  }: Pick<FeatureOf<'shore'>, 'slope' | 'depthMm' | 'profile' | 'dropOffMm'>,
  distanceMm: number,
): number {
  if (distanceMm <= 0) return distanceMm / slope;
  if (dropOffMm !== null && distanceMm >= dropOffMm) return depthMm;
  const share = distanceMm / (slope * depthMm);
  if (share >= 1) return depthMm;
  return depthMm * (profile === 'straight' ? share : profile === 'concave' ? share ** (2 / 3) : share ** 1.5);
}

export const shore: Shaper<'shore'> = (grid, feature, { outline, drawnLevelMm, landMm }) => {
  const frame = landFrame(outline, feature.landSide);
  const { origin, inward, along } = frame;
  if (!feature.line?.length) {
    carve(
      grid,
      (x, y) =>
        drawnLevelMm -
        shoreDepthMm(feature, (x - origin.xMm) * inward[0] + (y - origin.yMm) * inward[1] - feature.waterlineMm),
    );
    return;
  }
  const off = waterlineOff(feature);
  const reach = feature.slope * Math.max(feature.depthMm, landMm - drawnLevelMm) + 1;
  const distance = distanceToPolyline(
    grid,
    waterlinePoints(outline, feature),
    false,
    Math.max(reach, feature.dropOffMm ?? 0),
  );
  carve(grid, (x, y, index) => {
    const [dx, dy] = [x - origin.xMm, y - origin.yMm];
    const wet = dx * inward[0] + dy * inward[1] > off(dx * along[0] + dy * along[1]);
    return drawnLevelMm - shoreDepthMm(feature, wet ? distance[index]! : -distance[index]!);
  });
};

/**
 * An ellipse or an irregular form within it: paraboloid (bowl), cone (v), or flat floor with banks whose slope is
 * measured along rays from the centre.
 */
function roundPool(grid: BedGrid, feature: FeatureOf<'pool'>, drawnLevelMm: number): void {
  const [halfX, halfY] = [feature.widthMm / 2, feature.lengthMm / 2];
  const floor = drawnLevelMm - feature.depthMm;
  const form = feature.form === 'irregular' ? turnedBlob(feature) : null;
  const height = (x: number, y: number): number => {
    const [dx, dy] = [x - feature.xMm, y - feature.yMm];
    const ratio = lengthOf(dx / halfX, dy / halfY) / (form ? form(Math.atan2(dy / halfY, dx / halfX)) : 1);
    if (feature.section === 'bowl') return floor + feature.depthMm * ratio * ratio;
    if (feature.section === 'v') return floor + feature.depthMm * ratio;
    const inside = ratio === 0 ? Math.min(halfX, halfY) : lengthOf(dx, dy) * (1 / ratio - 1);
    if (feature.bankSlope === 0) return inside >= 0 ? floor : Infinity;
    return Math.max(floor, drawnLevelMm - inside / feature.bankSlope);
  };
  carve(grid, height, { ...feature, reachMm: poolReachMm(feature, drawnLevelMm, highest(grid)) });
}

/** How far from the middle of a round pool its banks have risen to the highest land for certain. */
function poolReachMm(feature: FeatureOf<'pool'>, drawnLevelMm: number, highestMm: number): number {
  const half = Math.max(feature.widthMm, feature.lengthMm) / 2;
  const overLevel = Math.max(0, highestMm - drawnLevelMm);
  const overFloor = 1 + overLevel / feature.depthMm;
  if (feature.section === 'bowl') return half * Math.sqrt(overFloor);
  return feature.section === 'v' ? half * overFloor : half + feature.bankSlope * overLevel;
}

/** The corners of a polygon pool, rounded, in place on the piece. */
export const poolPolygon = ({ corners = [], cornerMm = 0, xMm, yMm }: FeatureOf<'pool'>): Float64Array =>
  flatten(
    roundCorners(
      corners.map((corner) => ({ xMm: corner.xMm + xMm, yMm: corner.yMm + yMm })),
      cornerMm,
    ),
  );

/** A polygon: depths go by the distance from its bank, the deepest where that is greatest. */
function polygonPool(grid: BedGrid, feature: FeatureOf<'pool'>, { drawnLevelMm, landMm }: PieceDesign): void {
  const polygon = poolPolygon(feature);
  const span = Math.max(...polygon) - Math.min(...polygon);
  const distance = distanceToPolyline(
    grid,
    polygon,
    true,
    Math.max(span, 1) + (landMm - drawnLevelMm) * Math.max(1, feature.bankSlope),
  );
  const inside = (x: number, y: number): boolean => isInside(polygon, { xMm: x, yMm: y });
  const signed = new Float32Array(distance.length);
  let widest = 0;
  visitCells(grid, null, (index, x, y) => {
    signed[index] = inside(x, y) ? distance[index]! : -distance[index]!;
    widest = Math.max(widest, signed[index]!);
  });
  if (widest === 0) return;
  const { depthMm, bankSlope, section } = feature;
  carve(grid, (_, __, index) => {
    const bank = signed[index]!;
    if (section === 'trapezoid')
      return bankSlope === 0
        ? bank > 0
          ? drawnLevelMm - depthMm
          : Infinity
        : Math.max(drawnLevelMm - depthMm, drawnLevelMm - bank / bankSlope);
    const share = bank / widest;
    return (
      drawnLevelMm - depthMm * (section === 'v' || share < 0 ? share * (section === 'v' ? 1 : 2) : 1 - (1 - share) ** 2)
    );
  });
}

export const pool: Shaper<'pool'> = (grid, feature, design) => {
  const drawnLevelMm = feature.atLevelMm ?? design.drawnLevelMm;
  if (feature.form === 'polygon' && (feature.corners?.length ?? 0) >= 3)
    polygonPool(grid, feature, { ...design, drawnLevelMm });
  else roundPool(grid, feature, drawnLevelMm);
};

/** Everything within the rim, to one depth. */
export const basin: Shaper<'basin'> = (grid, feature, { outline, drawnLevelMm }) => {
  const toRim = distanceToPolyline(grid, outlinePolygon(outline), true, feature.rimMm);
  const floor = roundHeight(drawnLevelMm - feature.depthMm);
  const { heightMm, coverage } = grid;
  for (let i = 0; i < heightMm.length; i++)
    if (toRim[i] === Infinity && coverage[i]! > 0 && floor < heightMm[i]!) heightMm[i] = floor;
};

/** A level step along a side: what is higher is cut down, what is lower is filled up. */
export const terrace: Shaper<'terrace'> = (grid, feature, { outline, drawnLevelMm }) => {
  const frame = landFrame(outline, feature.landSide);
  const height = roundHeight(Math.max(0, drawnLevelMm - feature.depthMm));
  visitCells(grid, null, (index, x, y) => {
    const { offMm } = toFrame(frame, { xMm: x, yMm: y });
    if (offMm >= feature.fromMm && offMm < feature.toMm) grid.heightMm[index] = height;
  });
};
