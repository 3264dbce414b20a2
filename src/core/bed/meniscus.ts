import type { BedGrid } from './grid';

/** Surface tension, N/m, and density, kg/m³, of liquid epoxy; other clear products lie within a tenth. */
export const SURFACE_TENSION = 0.043;
export const LIQUID_DENSITY = 1100;
const GRAVITY = 9.81;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Capillary length a = √(γ/ρg) in mm: about 2.0 for liquid epoxy. */
export const capillaryLengthMm = (surfaceTension = SURFACE_TENSION, densityKgPerM3 = LIQUID_DENSITY): number =>
  1000 * Math.sqrt(surfaceTension / (densityKgPerM3 * GRAVITY));

/** How high the liquid creeps up an upright wall, mm: h = a·√(2(1 − sin θ)). Static, no wall opposite. */
export const wallRiseMm = (contactDegrees: number, capillaryMm = capillaryLengthMm()): number =>
  capillaryMm * Math.sqrt(2 * (1 - Math.sin(radians(contactDegrees))));

/**
 * What creeps up, in ml for each mm of wetted wall: a²·cos θ. From the balance of weight and surface tension, exact for
 * a straight wall.
 */
export const wallMlPerMm = (contactDegrees: number, capillaryMm = capillaryLengthMm()): number =>
  (capillaryMm ** 2 * Math.cos(radians(contactDegrees))) / 1000;

/** Thickness of a wide free puddle, mm: e = 2a·sin(θ/2). On a sharp tile edge the front holds up to about 90°. */
export const puddleThicknessMm = (contactDegrees: number, capillaryMm = capillaryLengthMm()): number =>
  2 * capillaryMm * Math.sin(radians(contactDegrees) / 2);

/** The angle up to which water holds on to a sharp, undammed edge. */
export const PINNED_DEGREES = 90;
/**
 * The most that a flat piece holds with no dam at all, ml: a puddle as thick as a sharp edge can hold, less its rounded
 * rim. The rim lacks a²·sin θ for each mm (the balance of its weight and surface tension, exact for a straight edge);
 * pieces less than about 10 mm across hold a little less.
 */
export const flatTileMl = (
  areaMm2: number,
  perimeterMm: number,
  contactDegrees = PINNED_DEGREES,
  capillaryMm = capillaryLengthMm(),
): number =>
  Math.max(
    0,
    areaMm2 * puddleThicknessMm(contactDegrees, capillaryMm) -
      perimeterMm * capillaryMm ** 2 * Math.sin(radians(contactDegrees)),
  ) / 1000;

/** How liquid resin meets a sealed, painted bank. */
export const BANK_CONTACT_DEGREES = 35;

/** A bank counts as a wall when it rises this steeply, and this far over the level, from one cell to the next. */
const WALL_SLOPE = 2;
const WALL_RISE_MM = 1;
/** Cells on each side that tell which way a wall faces. */
const WINDOW = 6;

/**
 * Length in mm of upright bank that the water meets at a level. Cell faces between water and wall are counted, each
 * weighted by how squarely it faces the wall's direction there, so that slanted and round walls come out right (within 2 %).
 */
export function wallLengthMm(grid: BedGrid, levelMm: number): number {
  const { columns, rows, heightMm, coverage, cellMm } = grid;
  const wet = (column: number, row: number): boolean => {
    const index = row * columns + column;
    return coverage[index]! > 0 && heightMm[index]! < levelMm;
  };
  const wallMm = levelMm + WALL_RISE_MM;
  const steep = WALL_SLOPE * cellMm;
  const isWall = (index: number, leastMm: number): boolean => heightMm[index]! >= leastMm && coverage[index]! > 0;
  let length = 0;
  const meet = (column: number, row: number, dx: number, dy: number): void => {
    const [nx, ny] = facing(wet, columns, rows, column, row);
    length += cellMm * Math.abs(dx * nx + dy * ny);
  };
  for (let row = 0, index = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++, index++) {
      const z = heightMm[index]!;
      if (coverage[index]! <= 0 || z >= levelMm) continue;
      const least = Math.max(wallMm, z + steep);
      if (column + 1 < columns && isWall(index + 1, least)) meet(column, row, 1, 0);
      if (column > 0 && isWall(index - 1, least)) meet(column, row, -1, 0);
      if (row + 1 < rows && isWall(index + columns, least)) meet(column, row, 0, 1);
      if (row > 0 && isWall(index - columns, least)) meet(column, row, 0, -1);
    }
  }
  return length;
}

/** The direction in which the water ends, from the wet cells round about: a unit vector. */
function facing(
  wet: (column: number, row: number) => boolean,
  columns: number,
  rows: number,
  column: number,
  row: number,
): readonly [number, number] {
  let [x, y] = [0, 0];
  for (let dy = -WINDOW; dy <= WINDOW; dy++) {
    for (let dx = -WINDOW; dx <= WINDOW; dx++) {
      if (dx * dx + dy * dy > WINDOW * WINDOW + 1) continue;
      const [c, r] = [column + dx, row + dy];
      if (c >= 0 && r >= 0 && c < columns && r < rows && wet(c, r)) continue;
      x += dx;
      y += dy;
    }
  }
  const size = Math.hypot(x, y);
  return size === 0 ? [0, 0] : [x / size, y / size];
}
