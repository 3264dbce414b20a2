import fc from 'fast-check';
import { edgeStandardSchema, type EdgeStandard } from '../model/edgeStandardSchema';
import { standardHeights } from '../seams/seamEdge';
import { gaugeDrawing, gaugeProfile, gaugeStl, gaugeSvg, GAUGE_SIDES, pageStretches } from './gauge';
import { readStl } from './stl';

const creek: EdgeStandard = edgeStandardSchema.parse({
  id: 'c',
  name: 'Creek <mouth>',
  edgeMm: 140,
  portMm: 70,
  widthMm: 50,
  depthMm: 6,
  section: 'trapezoid',
  bankSlope: 1,
  levelMm: 15,
  bankMm: 18,
  toleranceMm: 0.5,
});

test('a male gauge fills what a female one leaves: together one plate, less the kerf', () => {
  const [male, female] = [gaugeProfile(creek, 'male', 0.2), gaugeProfile(creek, 'female', 0.2)];
  expect(new Set(Array.from(male, (mm, i) => Math.round((mm + female[i]!) * 1000) / 1000))).toEqual(new Set([18 + 25]));
  expect(Array.from(gaugeProfile(creek, 'female', 0))).toEqual(Array.from(standardHeights(creek)));
});
test.each(GAUGE_SIDES)('%s: drawn at 1:1 with its label and a 50 mm bar', (side) => {
  const svg = gaugeSvg(creek, side, 0);
  expect(svg).toMatch(/<svg [^>]*width="164mm"/);
  expect(svg).toContain(`Creek &lt;mouth&gt; · ${side}`);
  expect(svg).toContain('M0 0h50M0 -1.5v3M50 -1.5v3');
  expect(gaugeSvg({ ...creek, gaugeLabel: 'Slack' }, side, 0)).toContain(`Slack · ${side}`);
});
test('the drawing runs along the profile and back over the straight side', () => {
  const { path, heightMm } = gaugeDrawing(creek, 'female', 0);
  const points = [...path.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)] as const);
  // Shoelace: the female gauge is the area under the standard's bed.
  const area =
    Math.abs(
      points.reduce((sum, [x, y], i) => {
        const [nextX, nextY] = points[(i + 1) % points.length]!;
        return sum + x * nextY - nextX * y;
      }, 0),
    ) / 2;
  const bed = standardHeights(creek);
  expect(heightMm).toBe(18);
  expect(area).toBeCloseTo(
    bed.slice(1).reduce((sum, z, i) => sum + ((z + bed[i]!) / 2) * 0.5, 0),
    0,
  );
});
test.each(GAUGE_SIDES)(
  '%s: a plate to print is a closed solid of the drawing’s area times its thickness',
  async (side) => {
    const bytes = gaugeStl(creek, side, 0, 3);
    const corners = await readStl(
      (async function* () {
        yield await Promise.resolve(bytes);
      })(),
      bytes.length,
    );
    const edges = new Map<string, number>();
    let volume = 0;
    for (let t = 0; t < corners.length; t += 9) {
      const at = (k: number): number[] => Array.from(corners.subarray(t + 3 * k, t + 3 * k + 3));
      const [a, b, c] = [at(0), at(1), at(2)] as [number[], number[], number[]];
      volume +=
        (a[0]! * (b[1]! * c[2]! - b[2]! * c[1]!) +
          a[1]! * (b[2]! * c[0]! - b[0]! * c[2]!) +
          a[2]! * (b[0]! * c[1]! - b[1]! * c[0]!)) /
        6;
      for (const [p, q] of [
        [a, b],
        [b, c],
        [c, a],
      ] as const) {
        edges.set(`${p.join()}>${q.join()}`, (edges.get(`${p.join()}>${q.join()}`) ?? 0) + 1);
      }
    }
    // Every side of a triangle is the side of one other, the other way round.
    expect([...edges].every(([key, count]) => count === 1 && edges.get(key.split('>').reverse().join('>')) === 1)).toBe(
      true,
    );
    const profile = gaugeProfile(creek, side, 0);
    expect(volume).toBeCloseTo(3 * profile.slice(1).reduce((sum, y, i) => sum + ((y + profile[i]!) / 2) * 0.5, 0), 0);
  },
);
test('stretches for pages cover the gauge, fit the page, and overlap', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 3000 }), (width) => {
      const stretches = pageStretches(width, 180);
      expect(stretches[0]!.fromMm).toBe(0);
      expect(stretches.at(-1)!.toMm).toBeCloseTo(width, 6);
      for (const [i, { fromMm, toMm }] of stretches.entries()) {
        expect(toMm - fromMm).toBeLessThanOrEqual(180 + 1e-9);
        if (i > 0) expect(stretches[i - 1]!.toMm - fromMm).toBeCloseTo(10, 6);
      }
    }),
  );
});
