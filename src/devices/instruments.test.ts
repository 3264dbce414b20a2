import fc from 'fast-check';
import { Stillness } from '@/core/run/stillness';
import type { Reading } from '@/core/model/readingSchema';
import { KeyedIn, lineInstrument, type Heard } from './instrument';
import { GAUGE_MM, SimulatedGauge } from './levelGauge';
import { simulatedRoomAt, simulatedSensor } from './roomSensor';
import { CHEAP_SCALE, SimulatedScale, type ScaleReading } from './scale';

const pass = (scale: SimulatedScale, seconds: number): number[] => {
  const readings: number[] = [];
  for (let t = 0; t < seconds * 10; t++) {
    scale.pass(0.1);
    readings.push(scale.read());
  }
  return readings;
};

describe('the simulated scale', () => {
  it('settles to what lies on it, to its step and its drift', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 500, noNaN: true }), fc.nat(1000), (grams, seed) => {
        const scale = new SimulatedScale(CHEAP_SCALE, seed);
        scale.put(grams);
        const last = pass(scale, 6).slice(-10);
        for (const reading of last) expect(Math.abs(reading - grams)).toBeLessThan(0.35);
        expect(last.every((reading) => Math.abs(Math.round(reading / 0.1) * 0.1 - reading) < 1e-6)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });

  it('pours so many grams a second into it, and drips on after it is let go', () => {
    const scale = new SimulatedScale({ ...CHEAP_SCALE, noiseSteps: 0 }, 4);
    scale.pour(5);
    pass(scale, 6);
    scale.pour(0);
    const at = scale.trueGrams;
    pass(scale, 4);
    // Six seconds less the half that the bottle takes to tilt; what runs on is a gram or so.
    expect(at).toBeGreaterThan(26);
    expect(at).toBeLessThan(30);
    expect(scale.trueGrams - at).toBeGreaterThan(0.5);
    expect(scale.trueGrams - at).toBeLessThan(2.5);
  });

  it('out of a cup there comes no more than is in it', () => {
    const scale = new SimulatedScale(CHEAP_SCALE, 2);
    scale.setDown(8);
    scale.pour(-6, 0);
    pass(scale, 6);
    expect(scale.trueGrams).toBe(0);
  });

  it('is tared, and a knock leaves it crooked until it is again', () => {
    const scale = new SimulatedScale({ ...CHEAP_SCALE, noiseSteps: 0, driftGramsPerMinute: 0 }, 3);
    scale.put(30);
    pass(scale, 4);
    scale.tare();
    expect(scale.read()).toBeCloseTo(0, 5);
    scale.knock(6);
    expect(pass(scale, 6).at(-1)).toBeCloseTo(6, 1);
    scale.tare();
    expect(scale.read()).toBeCloseTo(0, 1);
  });

  it('the same seed and hands show the same', () => {
    const run = (): number[] => {
      const scale = new SimulatedScale(CHEAP_SCALE, 9);
      scale.pour(4);
      return pass(scale, 3);
    };
    expect(run()).toEqual(run());
  });
});

describe('telling a weight from a scale that still moves', () => {
  it('holds while it is poured, lets go once it rests', () => {
    const scale = new SimulatedScale(CHEAP_SCALE, 5);
    const still = new Stillness(0.1);
    let t = 0;
    const look = (seconds: number) => pass(scale, seconds).map((grams) => still.take(grams, (t += 100)));
    scale.pour(5);
    expect(
      look(3)
        .slice(5)
        .some((one) => one.still),
    ).toBe(false);
    scale.pour(0);
    expect(look(5).at(-1)!.still).toBe(true);
  });

  it('sees a jump, and hears nothing from before', () => {
    const still = new Stillness(0.1);
    still.take(10, 0);
    expect(still.take(60, 100).jumped).toBe(true);
    expect(still.take(60, 50).still).toBe(false);
    expect(still.take(60, 400).still).toBe(false);
    expect(still.take(60.1, 900)).toEqual({ grams: 60.1, still: true, jumped: false });
  });
});

describe('one interface', () => {
  it('what is keyed in and what comes in lines is heard alike, until nobody listens', () => {
    const heard: Heard<ScaleReading>[] = [];
    const keyed = new KeyedIn<ScaleReading>('by eye');
    const stop = keyed.listen((one) => heard.push(one));
    keyed.enter({ device: 'scale', grams: 12, at: null });
    stop();
    keyed.enter({ device: 'scale', grams: 13, at: null });
    let send: (one: Heard) => void = () => undefined;
    const lines = lineInstrument('scale', 'bench', (take) => {
      send = take;
      return () => undefined;
    });
    lines.listen((one) => heard.push(one));
    const room: Reading = { device: 'room', temperatureC: 20, humidity: null, at: 0 };
    send({ reading: room, trouble: null });
    send({ reading: { device: 'scale', grams: 14, at: 0 }, trouble: null });
    expect(heard.map(({ reading }) => reading?.grams)).toEqual([12, 14]);
  });

  it('the level gauge is good to its 0.05 mm, point by point the same', () => {
    const gauge = new SimulatedGauge(3);
    for (const place of ['north 10', 'north 20', 'south 5']) {
      const all = Array.from({ length: 50 }, (_, i) => gauge.read(9, place, i).mm);
      expect(Math.max(...all) - Math.min(...all)).toBeLessThanOrEqual(2 * GAUGE_MM + 0.011);
      expect(Math.abs(all[0]! - 9)).toBeLessThan(0.46);
    }
  });

  it('the room is coldest before dawn, and silent now and then', async () => {
    const sensor = simulatedSensor();
    const day = Math.floor(Date.parse('2026-01-20T00:00Z') / 60_000);
    const all = await Promise.all(
      Array.from({ length: 24 * 40 }, (_, hour) => simulatedRoomAt(sensor, day + hour * 60)),
    );
    const gaps = all.filter((one) => one === null).length;
    expect(gaps).toBeGreaterThan(2);
    expect(gaps).toBeLessThan(60);
    const mean = (hour: number): number => {
      const own = all.filter((one, i) => i % 24 === hour && one !== null);
      return own.reduce((sum, one) => sum + one!.temperatureC, 0) / own.length;
    };
    expect(mean(5)).toBeLessThan(mean(17) - 2);
  });
});
