import fc from 'fast-check';
import type { BedGrid } from './grid';
import { findPools, type OutlineEdge, type Pool } from './pools';
import type { Outline } from '../model/designSchema';
import { formulaGrid } from './testShapes';

const square = (mm: number): Outline => ({ kind: 'rectangle', widthMm: mm, lengthMm: mm });
const ALL: ReadonlySet<OutlineEdge> = new Set<OutlineEdge>(['north', 'east', 'south', 'west', 'rim']);
const NONE_DAMMED: ReadonlySet<OutlineEdge> = new Set();
const pools = (grid: BedGrid, outline: Outline, level: number, dammed = ALL): Pool[] =>
  findPools(grid, level, { outline, dammed, damMarginMm: 3, damOverlapMm: 5 });
const tick = (mm: number): number => Math.round(mm * 512) / 512;

describe('two cones joined by a saddle', () => {
  // Cones of slope 0.5 with their tips at 4 mm, 50 mm apart: they meet at 4 + 0.5·25 = 16.5 mm.
  const cell = 0.25;
  const grid = formulaGrid(square(120), cell, (x, y) =>
    tick(Math.min(22, 4 + 0.5 * Math.hypot(x - 35, y - 60), 6 + 0.5 * Math.hypot(x - 85, y - 60))),
  );
  const saddle = (4 + 6 + 0.5 * 50) / 2;

  test('are two pools below the saddle, each with its own volume', () => {
    const [a, b, ...others] = pools(grid, square(120), 15);
    expect(others).toEqual([]);
    const cone = (tip: number): number => (Math.PI * (2 * (15 - tip)) ** 2 * (15 - tip)) / 3 / 1000;
    expect(Math.abs(a!.volumeMl / cone(4) - 1)).toBeLessThan(0.005);
    expect(Math.abs(b!.volumeMl / cone(6) - 1)).toBeLessThan(0.005);
    expect(a!.deepest.xMm).toBeCloseTo(35, 0);
    expect(a!.meanDepthMm).toBeCloseTo(11 / 3, 1);
  });
  test('spill into each other at the saddle, within a cell’s height', () => {
    const found = pools(grid, square(120), 15);
    for (const [i, pool] of found.entries()) {
      expect(pool.spill).toMatchObject({ over: 'pool', pool: 1 - i });
      expect(Math.abs(pool.spill!.levelMm - saddle)).toBeLessThanOrEqual(0.5 * cell + 0.01);
      expect(pool.spill!.yMm).toBeCloseTo(60, 0);
    }
  });
  test('are one pool above it', () => expect(pools(grid, square(120), saddle + 0.3)).toHaveLength(1));
});

describe('edges', () => {
  const trough = formulaGrid(square(40), 0.5, (x) => tick(8 + Math.abs(x - 20) * 0.5));
  test('an undammed channel runs out at its bed, and says where', () => {
    const [pool] = pools(trough, square(40), 14, NONE_DAMMED);
    expect(pool!.spill).toMatchObject({ over: 'edge' });
    expect(['south', 'north']).toContain(pool!.spill!.edge);
    expect(Math.abs(pool!.spill!.levelMm - 8)).toBeLessThan(0.3);
  });
  test('a dammed one holds to the top of its dams', () => {
    const steep = formulaGrid(square(40), 0.5, (x) => (Math.abs(x - 20) < 10 ? 8 : 20));
    expect(pools(steep, square(40), 14)[0]!.spill).toMatchObject({ over: 'dam', levelMm: 17 });
  });
  test('where the bank is still low past the end of a dam, it runs out there', () => {
    // The dam ends 5 mm beyond the water; the bank has risen 2.5 mm by then.
    const [pool] = pools(trough, square(40), 14);
    expect(pool!.spill).toMatchObject({ over: 'edge' });
    expect(Math.abs(pool!.spill!.levelMm - 16.5)).toBeLessThan(0.3);
  });
  test('a hollow deeper than the way out spills at the way out', () => {
    const withHollow = formulaGrid(square(40), 0.5, (x, y) =>
      tick(Math.min(8 + Math.abs(x - 20) * 0.5, 3 + Math.hypot(x - 20, y - 20))),
    );
    expect(Math.abs(pools(withHollow, square(40), 7, NONE_DAMMED)[0]!.spill!.levelMm - 8)).toBeLessThan(0.3);
  });
  test('land lower than the dams lets the water out first', () => {
    const low = formulaGrid(square(40), 0.5, (x, y) => (Math.hypot(x - 20, y - 20) < 10 ? 9 : 15));
    expect(pools(low, square(40), 14)[0]!.spill).toMatchObject({ over: 'edge', levelMm: 15 });
  });
  test('the rim of a round base counts as an edge', () => {
    const outline: Outline = { kind: 'oval', widthMm: 40, lengthMm: 40 };
    const bowl = formulaGrid(outline, 0.5, (x, y) => tick(10 + Math.hypot(x - 20, y - 20) * 0.2));
    expect(pools(bowl, outline, 13, NONE_DAMMED)[0]!.spill).toMatchObject({ over: 'edge', edge: 'rim' });
    expect(Math.abs(pools(bowl, outline, 13, NONE_DAMMED)[0]!.spill!.levelMm - 14)).toBeLessThan(0.2);
  });
  test('an island keeps its moat one pool; a causeway parts it', () => {
    const moat = (causeway: boolean): BedGrid =>
      formulaGrid(square(60), 0.5, (x, y) => {
        const r = Math.hypot(x - 30, y - 30);
        return r > 10 && r < 20 && !(causeway && Math.abs(y - 30) < 3) ? 9 : 18;
      });
    expect(pools(moat(false), square(60), 14)).toHaveLength(1);
    expect(pools(moat(true), square(60), 14)).toHaveLength(2);
  });
});

test('agrees with a walk over every path on small random beds', () => {
  const size = 6;
  const beds = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: size * size, maxLength: size * size });
  fc.assert(
    fc.property(beds, fc.integer({ min: 1, max: 12 }), fc.boolean(), (whole, level, damAll) => {
      // No two cells equally high: which of two equal hollows is the deepest would be a matter of taste.
      const heights = whole.map((height, i) => height + i / 512);
      const grid: BedGrid = {
        cellMm: 4,
        columns: size,
        rows: size,
        heightMm: Float32Array.from(heights),
        coverage: new Float32Array(size * size).fill(1),
      };
      const found = findPools(grid, level, {
        outline: square(size * 4),
        dammed: damAll ? ALL : NONE_DAMMED,
        damMarginMm: 3,
        damOverlapMm: 0,
      });
      const expected = bruteForce(heights, size, level, damAll);
      const expectedMl = expected
        .map(({ cells }) => cells.reduce((sum, cell) => sum + level - heights[cell]!, 0) * 0.016)
        .sort((a, b) => b - a);
      expect(found).toHaveLength(expectedMl.length);
      found.forEach(({ volumeMl }, i) => expect(volumeMl).toBeCloseTo(expectedMl[i]!, 9));
      const spills = (list: (number | null)[]): string => list.map(String).sort().join(' ');
      expect(spills(found.map(({ spill }) => spill?.levelMm ?? null))).toBe(spills(expected.map(({ spill }) => spill)));
    }),
    { numRuns: 300 },
  );
});

/** Pools by flooding, and each one's way out by the lowest highest step to the outside or to another pool's water. */
function bruteForce(
  heights: number[],
  size: number,
  level: number,
  damAll: boolean,
): { cells: number[]; spill: number | null }[] {
  const around = (cell: number): number[] =>
    [cell % size > 0 ? cell - 1 : -1, cell % size < size - 1 ? cell + 1 : -1, cell - size, cell + size].filter(
      (other) => other >= 0 && other < size * size,
    );
  const atEdge = (cell: number): boolean =>
    cell % size === 0 || cell % size === size - 1 || cell < size || cell >= size * (size - 1);
  const poolOf = new Map<number, number[]>();
  heights.forEach((height, cell) => {
    if (height >= level || poolOf.has(cell)) return;
    const cells = [cell];
    poolOf.set(cell, cells);
    for (const here of cells)
      for (const next of around(here))
        if (heights[next]! < level && !poolOf.has(next)) {
          cells.push(next);
          poolOf.set(next, cells);
        }
  });
  return [...new Set(poolOf.values())].map((cells) => {
    const deepest = cells.reduce((a, b) => (heights[b]! < heights[a]! ? b : a));
    const reach = new Map([[deepest, heights[deepest]!]]);
    const queue = [deepest];
    while (queue.length > 0) {
      queue.sort((a, b) => reach.get(a)! - reach.get(b)!);
      const here = queue.shift()!;
      for (const next of around(here)) {
        const step = Math.max(reach.get(here)!, heights[next]!);
        if (step < (reach.get(next) ?? Infinity)) {
          reach.set(next, step);
          queue.push(next);
        }
      }
    }
    const outs = [...reach]
      .flatMap(([cell, step]) => {
        if (poolOf.has(cell) && poolOf.get(cell) !== cells) return [step];
        if (!atEdge(cell)) return [];
        return damAll && heights[cell]! < level ? [level + 3] : [step];
      })
      .filter((step) => step <= level + 3);
    return { cells, spill: outs.length > 0 ? Math.min(...outs) : null };
  });
}
