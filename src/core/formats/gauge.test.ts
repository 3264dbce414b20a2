import { SEAM_STEP_MM, standardHeights } from '../seams/seamEdge';
import type { EdgeStandard } from '../bed/edgeStandardSchema';
import { gaugeProfile, gaugeSvg } from './gauge';

const creek: EdgeStandard = { id: 'c', name: 'Creek <mouth>', edgeMm: 140, portMm: 70, widthMm: 50, depthMm: 6, section: 'trapezoid', bankSlope: 1, levelMm: 15, bankMm: 18, toleranceMm: 0.5, blendMm: 12 };

test('male and female fit into each other, the kerf between them', () => {
  const [male, female] = [gaugeProfile(creek, 'male', 0.2), gaugeProfile(creek, 'female', 0.2)];
  // Laid on one another they fill the height from the female's straight side to the male's.
  for (let i = 0; i < male.length; i++) expect(male[i]! + female[i]!).toBeCloseTo(18 + 25, 4);
  expect(female[Math.round(70 / SEAM_STEP_MM)]).toBeCloseTo(9.1, 4);
  expect(Array.from(gaugeProfile(creek, 'female', 0))).toEqual(Array.from(standardHeights(creek)));
});
test('is drawn at 1:1 with its name and a bar to check the print by', () => {
  for (const side of ['male', 'female'] as const) {
    const svg = gaugeSvg(creek, side, 0.1);
    expect(svg).toMatch(/width="164mm" height="77mm"/);
    expect(svg).toContain('50 mm when printed at true size');
    expect(svg).toContain(`Creek  mouth  · ${side}`);
    const numbers = [.../id="gauge" d="([^"]+)"/.exec(svg)![1]!.matchAll(/([\d.]+) ([\d.]+)(?=[LZ])/g)].map(([, x, y]) => [Number(x), Number(y)] as const);
    const area = numbers.reduce((sum, [x, y], i) => sum + x * numbers[(i + 1) % numbers.length]![1] - numbers[(i + 1) % numbers.length]![0] * y, 0) / 2;
    // A closed outline: it has the area of its profile, straight side included or not.
    expect(Math.abs(area)).toBeGreaterThan(50);
  }
});
