import fc from 'fast-check';
import { channelCentreline } from './centreline';
import { polygonCoverage } from './coverage';
import { distanceToPolyline } from './distance';
import { flatGrid, previewCellMm, chooseCellMm } from './grid';
import { edgePoint, inwardOf, outlineEdges, outlinePolygon } from './outline';
import { heightAt, sectionProfile } from './profile';
import type { EdgeName, Outline } from '../model/designSchema';
import { floorHalfWidthMm, sectionAreaMm2, sectionHeightMm, sectionReachMm, type CrossSection } from './section';
import { formulaGrid } from './testShapes';

const tile: Outline = { kind: 'rectangle', widthMm: 140, lengthMm: 140 };

describe('coverage of cells by a polygon', () => {
  const inside = (polygon: Float64Array, x: number, y: number): boolean => {
    let odd = false;
    for (let i = 0, j = polygon.length / 2 - 1; i < polygon.length / 2; j = i++) {
      const [xi, yi, xj, yj] = [polygon[2 * i]!, polygon[2 * i + 1]!, polygon[2 * j]!, polygon[2 * j + 1]!];
      if (yi > y !== yj > y && x < ((xj - xi) * (y - yi)) / (yj - yi) + xi) odd = !odd;
    }
    return odd;
  };
  const corner = fc.double({ min: 0, max: 8, noNaN: true });
  const triangles = fc
    .tuple(corner, corner, corner, corner, corner, corner)
    .filter(([ax, ay, bx, by, cx, cy]) => Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) > 0.5);

  test('agrees with a thousand points a cell', () => {
    fc.assert(
      fc.property(triangles, (points) => {
        const polygon = Float64Array.from(points);
        const coverage = polygonCoverage(polygon, 8, 8, 1);
        const fine = 32;
        for (let cell = 0; cell < 64; cell += 7) {
          let hits = 0;
          for (let i = 0; i < fine * fine; i++)
            if (
              inside(
                polygon,
                (cell % 8) + ((i % fine) + 0.5) / fine,
                Math.floor(cell / 8) + (Math.floor(i / fine) + 0.5) / fine,
              )
            )
              hits++;
          expect(Math.abs(coverage[cell]! - hits / fine ** 2)).toBeLessThan(0.05);
        }
      }),
      { numRuns: 60 },
    );
  });
  test('adds up to the polygon’s area, whichever way round it runs', () => {
    fc.assert(
      fc.property(triangles, fc.boolean(), (points, turned) => {
        const [ax, ay, bx, by, cx, cy] = points;
        const area = Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) / 2;
        const polygon = Float64Array.from(turned ? [cx, cy, bx, by, ax, ay] : points);
        expect(polygonCoverage(polygon, 8, 8, 1).reduce((sum, share) => sum + share, 0)).toBeCloseTo(area, 3);
      }),
    );
  });
  test('a cell size that does not divide the piece leaves part cells at its far edges', () => {
    const grid = flatGrid({ kind: 'rectangle', widthMm: 2.5, lengthMm: 1.25 }, 10, 1);
    expect([grid.columns, grid.rows]).toEqual([3, 2]);
    expect(Array.from(grid.coverage)).toEqual([1, 1, 0.5, 0.25, 0.25, 0.125]);
  });
});

describe('distance to a line', () => {
  test('is the shortest to any of its segments, within the reach', () => {
    const lines = fc.array(
      fc.tuple(fc.double({ min: -3, max: 13, noNaN: true }), fc.double({ min: -3, max: 13, noNaN: true })),
      { minLength: 2, maxLength: 5 },
    );
    fc.assert(
      fc.property(lines, fc.boolean(), (points, closed) => {
        const grid = flatGrid({ kind: 'rectangle', widthMm: 10, lengthMm: 10 }, 10, 2);
        const found = distanceToPolyline(grid, Float64Array.from(points.flat()), closed, 4);
        const ends = points.slice(1).map((point, i) => [points[i]!, point] as const);
        if (closed) ends.push([points.at(-1)!, points[0]!]);
        for (let cell = 0; cell < found.length; cell++) {
          const [x, y] = [((cell % 5) + 0.5) * 2, (Math.floor(cell / 5) + 0.5) * 2];
          const expected = Math.min(
            ...ends.map(([[ax, ay], [bx, by]]) => {
              const length = Math.hypot(bx - ax, by - ay) || 1e-9;
              const t = Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length ** 2));
              return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
            }),
          );
          if (expected < 3.99) expect(found[cell]!).toBeCloseTo(expected, 4);
          if (expected > 4.01) expect(found[cell]).toBe(Infinity);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('distance to a line of many segments', () => {
  // Blocks of cells try few segments only: each cell against all of them, and the place on the line that it names.
  const grid = { cellMm: 1.3, columns: 70, rows: 50 };
  const shapes = fc.array(
    fc.tuple(fc.double({ min: -20, max: 110, noNaN: true }), fc.double({ min: -20, max: 85, noNaN: true })),
    { minLength: 2, maxLength: 30 },
  );
  test('leaves none out that is the nearest of a cell', () => {
    fc.assert(
      fc.property(shapes, fc.boolean(), fc.double({ min: 1, max: 150, noNaN: true }), (points, closed, reach) => {
        const line = Float64Array.from(points.flat());
        const along = new Float32Array(grid.columns * grid.rows);
        const found = distanceToPolyline(grid, line, closed, reach, along);
        const ends = points.map((point, i) => [point, points[(i + 1) % points.length]!] as const);
        if (!closed) ends.pop();
        for (let cell = 0; cell < found.length; cell += 3) {
          const x = ((cell % grid.columns) + 0.5) * grid.cellMm;
          const y = (Math.floor(cell / grid.columns) + 0.5) * grid.cellMm;
          let least = Infinity;
          for (const [[ax, ay], [bx, by]] of ends) {
            const [dx, dy] = [bx - ax, by - ay];
            const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
            least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
          }
          if (least > reach + 0.01) expect(found[cell]).toBe(Infinity);
          if (least > reach - 0.01) continue;
          expect(Math.abs(found[cell]! - least)).toBeLessThan(1e-4);
          const segment = Math.min(ends.length - 1, Math.floor(along[cell]!));
          const [[ax, ay], [bx, by]] = ends[segment]!;
          const t = along[cell]! - segment;
          expect(Math.abs(Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)) - least)).toBeLessThan(1e-3);
        }
      }),
      { numRuns: 40 },
    );
  });
});

describe('centrelines', () => {
  const line = (from: EdgeName, to: EdgeName, at = 70): Float64Array =>
    channelCentreline(tile, { from: { edge: from, positionMm: 70 }, to: { edge: to, positionMm: at } }, 10).line;
  test('leave both edges at right angles and pass through both ports', () => {
    for (const from of outlineEdges(tile)) {
      for (const to of outlineEdges(tile)) {
        if (from === to) continue;
        const points = line(from, to, 55);
        const start = edgePoint(tile, { edge: from, positionMm: 70 });
        const end = edgePoint(tile, { edge: to, positionMm: 55 });
        expect([points[2], points[3]]).toEqual([start.xMm, start.yMm]);
        expect(points.at(-4)).toBeCloseTo(end.xMm, 9);
        expect(points.at(-3)).toBeCloseTo(end.yMm, 9);
        const [nx, ny] = inwardOf(tile, from);
        const [dx, dy] = [points[4]! - points[2]!, points[5]! - points[3]!];
        expect((dx * nx + dy * ny) / Math.hypot(dx, dy)).toBeGreaterThan(0.995);
      }
    }
  });
  test('a bend between neighbouring edges is a quarter circle within 0.03 %', () => {
    const points = line('south', 'west');
    for (let i = 2; i < points.length - 2; i += 2)
      expect(Math.abs(Math.hypot(points[i]!, points[i + 1]!) / 70 - 1)).toBeLessThan(3e-4);
  });
  test('between facing ports in line it is straight', () => {
    const points = line('south', 'north');
    for (let i = 0; i < points.length; i += 2) expect(points[i]).toBeCloseTo(70, 9);
  });
});

describe('cross-sections', () => {
  const cuts = fc.record({
    section: fc.constantFrom<CrossSection['section']>('trapezoid', 'bowl', 'v'),
    widthMm: fc.double({ min: 20, max: 90, noNaN: true }),
    depthMm: fc.double({ min: 1, max: 8, noNaN: true }),
    levelMm: fc.constant(15),
    bankSlope: fc.double({ min: 0.1, max: 1.2, noNaN: true }),
  });
  test('are as wide at the level and as deep in the middle as they were drawn', () => {
    fc.assert(
      fc.property(cuts, (cut) => {
        expect(sectionHeightMm(cut, cut.widthMm / 2)).toBeCloseTo(15, 6);
        expect(sectionHeightMm(cut, 0)).toBeCloseTo(15 - cut.depthMm, 9);
      }),
    );
  });
  test('reach the land where they say', () => {
    fc.assert(
      fc.property(cuts, fc.double({ min: 15, max: 30, noNaN: true }), (cut, land) =>
        expect(sectionHeightMm(cut, sectionReachMm(cut, land))).toBeCloseTo(land, 6),
      ),
    );
  });
  test('have the area that summing them gives', () => {
    fc.assert(
      fc.property(
        cuts.filter((cut) => floorHalfWidthMm(cut) >= 0),
        (cut) => {
          const steps = 4000;
          let area = 0;
          for (let i = 0; i < steps; i++)
            area +=
              Math.max(0, 15 - sectionHeightMm(cut, ((i + 0.5) / steps) * (cut.widthMm / 2))) * (cut.widthMm / steps);
          expect(area / sectionAreaMm2(cut)).toBeCloseTo(1, 4);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('upright banks are walls', () => {
    const cut: CrossSection = { section: 'trapezoid', widthMm: 40, depthMm: 5, levelMm: 15, bankSlope: 0 };
    expect([sectionHeightMm(cut, 19.9), sectionHeightMm(cut, 20.1)]).toEqual([10, Infinity]);
  });
});

describe('reading a bed', () => {
  const plane = formulaGrid(tile, 0.5, (x, y) => 5 + 0.03 * x + 0.02 * y);
  test('between cells a plane is read as a plane', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 139, noNaN: true }), fc.double({ min: 1, max: 139, noNaN: true }), (x, y) =>
        expect(heightAt(plane, x, y)).toBeCloseTo(5 + 0.03 * x + 0.02 * y, 3),
      ),
    );
  });
  test('a section has its ends where they were put', () => {
    const { heightMm, lengthMm } = sectionProfile(plane, 10, 20, 110, 95);
    expect(lengthMm).toBeCloseTo(125, 9);
    expect(heightMm[0]).toBeCloseTo(5.7, 3);
    expect(heightMm.at(-1)).toBeCloseTo(5 + 3.3 + 1.9, 3);
  });
  test('a bed one cell wide can still be read', () =>
    expect(
      heightAt(
        formulaGrid({ kind: 'rectangle', widthMm: 1, lengthMm: 1 }, 1, () => 7),
        0.3,
        0.9,
      ),
    ).toBe(7));
});

test('cells: fine for small pieces, never more than a picture needs while dragging', () => {
  expect(chooseCellMm({ kind: 'oval', widthMm: 32, lengthMm: 32 })).toBe(0.25);
  expect(chooseCellMm({ kind: 'rectangle', widthMm: 280, lengthMm: 280 })).toBe(0.5);
  fc.assert(
    fc.property(
      fc.double({ min: 10, max: 3000, noNaN: true }),
      fc.double({ min: 10, max: 3000, noNaN: true }),
      (widthMm, lengthMm) => {
        const outline: Outline = { kind: 'rectangle', widthMm, lengthMm };
        expect((widthMm * lengthMm) / previewCellMm(outline) ** 2).toBeLessThanOrEqual(12_001);
        expect(previewCellMm(outline)).toBeGreaterThanOrEqual(chooseCellMm(outline));
      },
    ),
  );
});

test('an oval’s polygon has the oval’s own area', () => {
  const polygon = outlinePolygon({ kind: 'oval', widthMm: 60, lengthMm: 35 });
  let doubled = 0;
  for (let i = 0; i < polygon.length; i += 2)
    doubled += polygon[i]! * polygon[(i + 3) % polygon.length]! - polygon[(i + 2) % polygon.length]! * polygon[i + 1]!;
  expect(doubled / 2).toBeCloseTo((Math.PI * 60 * 35) / 4, 6);
});
