import { buildBed } from './buildBed';
import { capillaryLengthMm, puddleThicknessMm, wallLengthMm, wallMlPerMm, wallRiseMm } from './meniscus';
import { testDesign } from './testShapes';

describe('closed forms for liquid epoxy', () => {
  test('capillary length is 2.0 mm', () => expect(capillaryLengthMm()).toBeCloseTo(1.996, 3));
  test('a wetting wall lifts it √2·a; at 90° not at all', () => {
    expect(wallRiseMm(0)).toBeCloseTo(Math.SQRT2 * capillaryLengthMm());
    expect(wallRiseMm(90)).toBeCloseTo(0);
  });
  test('what creeps up is the integral of the meniscus', () => {
    // The profile of a wide meniscus: x(z) from the wall; its area by numbers against a²·cos θ.
    const a = capillaryLengthMm();
    for (const degrees of [0, 30, 60]) {
      const h = wallRiseMm(degrees);
      let area = 0;
      const steps = 40_000;
      for (let i = 0; i < steps; i++) {
        const z = ((i + 0.5) / steps) * h;
        // Height z has slope angle φ with 1 − cos φ = z²/(2a²); dA = x dz is summed by parts as z·cot φ dz.
        const cosine = 1 - (z * z) / (2 * a * a);
        area += ((z * cosine) / Math.sqrt(1 - cosine * cosine)) * (h / steps);
      }
      expect(area / 1000).toBeCloseTo(wallMlPerMm(degrees), 6);
    }
  });
  test('a puddle: 2a·sin(θ/2), √2·a at a pinned edge', () => {
    expect(puddleThicknessMm(90)).toBeCloseTo(Math.SQRT2 * capillaryLengthMm());
    expect(puddleThicknessMm(0)).toBe(0);
    expect(puddleThicknessMm(180)).toBeCloseTo(2 * capillaryLengthMm());
  });
});

describe('length of upright wall at the level', () => {
  const within = (actual: number, expected: number, share: number): void =>
    expect(Math.abs(actual / expected - 1)).toBeLessThan(share);
  test('all round a square basin', () =>
    within(wallLengthMm(buildBed(testDesign([{ kind: 'basin', id: 'b', rimMm: 4, depthMm: 6 }])), 15), 4 * 132, 0.02));
  test.each([32, 50, 90])('round a %d mm tube', (diameter) => {
    const tube = testDesign([{ kind: 'basin', id: 'b', rimMm: 2, depthMm: 5 }], {
      outline: { kind: 'oval', widthMm: diameter, lengthMm: diameter },
    });
    within(wallLengthMm(buildBed(tube), 15), Math.PI * (diameter - 4), 0.02);
  });
  test('none along a sloping bank', () => {
    expect(
      wallLengthMm(
        buildBed(
          testDesign([
            {
              kind: 'pool',
              id: 'p',
              xMm: 70,
              yMm: 70,
              widthMm: 80,
              lengthMm: 80,
              depthMm: 6,
              section: 'bowl',
              bankSlope: 0,
            },
          ]),
        ),
        15,
      ),
    ).toBe(0);
  });
});
