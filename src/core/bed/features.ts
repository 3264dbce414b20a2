import { channelCentreline } from './centreline';
import { distanceToPolyline } from './distance';
import { roundHeight, type BedGrid } from './grid';
import { outlinePolygon, ovalPolygon, type Polygon } from './outline';
import type { Feature, FeatureKind, FeatureOf, PieceDesign } from './schema';
import { sectionHeightMm, sectionReachMm, type CrossSection } from './section';

type Shaper<K extends FeatureKind> = (grid: BedGrid, feature: FeatureOf<K>, design: PieceDesign) => void;

/** Lowers the bed to `height(x, y)` wherever that is lower. */
function carve(grid: BedGrid, height: (x: number, y: number) => number): void {
  const { cellMm, columns, rows, heightMm } = grid;
  for (let row = 0; row < rows; row++) {
    const y = (row + 0.5) * cellMm;
    for (let column = 0; column < columns; column++) {
      const cut = height((column + 0.5) * cellMm, y);
      const index = row * columns + column;
      if (cut < heightMm[index]!) heightMm[index] = roundHeight(cut);
    }
  }
}

/** Carves a cross-section along a line. */
function carveAlong(grid: BedGrid, line: Polygon, closed: boolean, cut: CrossSection, landMm: number): void {
  const distance = distanceToPolyline(grid, line, closed, sectionReachMm(cut, landMm));
  const { heightMm } = grid;
  for (let i = 0; i < heightMm.length; i++) {
    if (distance[i] === Infinity) continue;
    const height = sectionHeightMm(cut, distance[i]!);
    if (height < heightMm[i]!) heightMm[i] = roundHeight(height);
  }
}

const crossSection = (design: PieceDesign, feature: { widthMm: number; depthMm: number; bankSlope: number }, section: CrossSection['section']): CrossSection => ({
  section,
  widthMm: feature.widthMm,
  depthMm: feature.depthMm,
  bankSlope: feature.bankSlope,
  levelMm: design.drawnLevelMm,
});

const channel: Shaper<'channel'> = (grid, feature, design) => {
  const cut = crossSection(design, feature, feature.section);
  const reach = sectionReachMm(cut, design.landMm);
  carveAlong(grid, channelCentreline(design.outline, feature, reach + 1), false, cut, design.landMm);
};

const ring: Shaper<'ring'> = (grid, feature, design) => {
  const cut = crossSection(design, { ...feature, widthMm: feature.ringMm }, 'trapezoid');
  const line = ovalPolygon(feature.xMm, feature.yMm, (feature.widthMm - feature.ringMm) / 2, (feature.lengthMm - feature.ringMm) / 2, 128);
  carveAlong(grid, line, true, cut, design.landMm);
};

/** The land lies towards `landSide`; from the waterline the bed falls at the slope to its deepest, and rises at it to the land. */
const shore: Shaper<'shore'> = (grid, feature, { outline, drawnLevelMm }) => {
  const deepest = drawnLevelMm - feature.depthMm;
  const fromLand = (x: number, y: number): number => {
    if (feature.landSide === 'north') return outline.lengthMm - y;
    if (feature.landSide === 'south') return y;
    return feature.landSide === 'west' ? x : outline.widthMm - x;
  };
  carve(grid, (x, y) => Math.max(deepest, drawnLevelMm - (fromLand(x, y) - feature.waterlineMm) / feature.slope));
};

/** An ellipse: paraboloid (bowl), cone (v), or flat floor with banks whose slope is measured along rays from the centre. */
const pool: Shaper<'pool'> = (grid, feature, { drawnLevelMm }) => {
  const [halfX, halfY] = [feature.widthMm / 2, feature.lengthMm / 2];
  const floor = drawnLevelMm - feature.depthMm;
  carve(grid, (x, y) => {
    const [dx, dy] = [x - feature.xMm, y - feature.yMm];
    const ratio = Math.hypot(dx / halfX, dy / halfY);
    if (feature.section === 'bowl') return floor + feature.depthMm * ratio * ratio;
    if (feature.section === 'v') return floor + feature.depthMm * ratio;
    const inside = ratio === 0 ? Math.min(halfX, halfY) : Math.hypot(dx, dy) * (1 / ratio - 1);
    if (feature.bankSlope === 0) return inside >= 0 ? floor : Infinity;
    return Math.max(floor, drawnLevelMm - inside / feature.bankSlope);
  });
};

const basin: Shaper<'basin'> = (grid, feature, { outline, drawnLevelMm }) => {
  const toRim = distanceToPolyline(grid, outlinePolygon(outline), true, feature.rimMm);
  const floor = roundHeight(drawnLevelMm - feature.depthMm);
  const { heightMm, coverage } = grid;
  for (let i = 0; i < heightMm.length; i++) if (toRim[i] === Infinity && coverage[i]! > 0 && floor < heightMm[i]!) heightMm[i] = floor;
};

/** A solid that stands on the bed as it is at its centre; a dome is a spherical cap (a flattened one when wider than high). */
const rock: Shaper<'rock'> = (grid, feature) => {
  const { cellMm, columns, rows, heightMm } = grid;
  const radius = feature.diameterMm / 2;
  const clampTo = (value: number, most: number): number => Math.max(0, Math.min(most, value));
  const foot = heightMm[clampTo(Math.floor(feature.yMm / cellMm), rows - 1) * columns + clampTo(Math.floor(feature.xMm / cellMm), columns - 1)]!;
  const capRadius = (radius * radius + feature.heightMm * feature.heightMm) / (2 * feature.heightMm);
  const top = (r: number): number => {
    if (feature.form === 'block') return feature.heightMm;
    if (feature.form === 'cone') return feature.heightMm * (1 - r / radius);
    return Math.sqrt(Math.max(0, capRadius * capRadius - r * r)) - (capRadius - feature.heightMm);
  };
  for (let row = clampTo(Math.floor((feature.yMm - radius) / cellMm), rows); row < rows && row * cellMm <= feature.yMm + radius; row++) {
    for (let column = clampTo(Math.floor((feature.xMm - radius) / cellMm), columns); column < columns && column * cellMm <= feature.xMm + radius; column++) {
      const r = Math.hypot((column + 0.5) * cellMm - feature.xMm, (row + 0.5) * cellMm - feature.yMm);
      if (r > radius) continue;
      const index = row * columns + column;
      heightMm[index] = Math.max(heightMm[index]!, roundHeight(foot + top(r)));
    }
  }
};

const SHAPERS: { [K in FeatureKind]: Shaper<K> } = { channel, shore, pool, ring, basin, rock };

/** Applies one feature to the bed in place. */
export function applyFeature<K extends FeatureKind>(grid: BedGrid, feature: Extract<Feature, { kind: K }>, design: PieceDesign): void {
  (SHAPERS[feature.kind] as Shaper<K>)(grid, feature as FeatureOf<K>, design);
}
