import { createViewStore } from './viewStore';
import { eyeOf, FIRST_SHARPNESS, nearer, paced, turned, type View } from './view';

const view: View = { roundDeg: 0, upDeg: 30, distanceMm: 200, target: [10, 20, 5] };

test('the eye is as far away as is said, in the south, and up stands square to the way it looks', () => {
  for (const upDeg of [2, 30, 90]) {
    const { position, up, target } = eyeOf({ ...view, upDeg });
    const way = position.map((value, i) => value - target[i]!);
    expect(Math.hypot(...way)).toBeCloseTo(200, 9);
    expect(way[1]).toBeLessThan(1e-9);
    expect(way.reduce((sum, value, i) => sum + value * up[i]!, 0)).toBeCloseTo(0, 9);
  }
  // Straight down, north is up.
  expect(eyeOf({ ...view, upDeg: 90 }).up[1]).toBeCloseTo(1, 9);
});
test('it is not turned below the table nor over the top, and round and round', () => {
  expect(turned(view, -30, 100)).toMatchObject({ roundDeg: 330, upDeg: 90 });
  expect(turned(view, 400, -100)).toMatchObject({ roundDeg: 40, upDeg: 2 });
  expect(nearer(view, 0.01).distanceMm).toBe(60);
});
test('who listens hears of every new view until they stop', () => {
  const views = createViewStore(view);
  const heard: number[] = [];
  const stop = views.subscribe(() => heard.push(views.now().upDeg));
  views.set(turned(view, 0, 5));
  stop();
  views.set(turned(view, 0, 10));
  expect(heard).toEqual([35]);
});
test('what stutters is drawn coarser at once, what has room finer, and neither without end', () => {
  const after = (frameMs: number, times: number): number => {
    let sharpness = FIRST_SHARPNESS;
    for (let i = 0; i < times; i++) sharpness = paced(sharpness, frameMs);
    return sharpness;
  };
  expect(after(40, 1)).toBeLessThan(0.8 * FIRST_SHARPNESS);
  expect([after(40, 50), after(16, 50)]).toEqual([0.35, 1]);
  expect(after(22, 50)).toBe(FIRST_SHARPNESS);
});
