import { COLOURANTS } from '../src/db/defaults';
import { linearFromHex } from '../src/core/tint/colour';
import { findRecipes } from '../src/core/tint/finder';
import { solvePours } from '../src/core/tint/gradient';
import { paintDepths, pixelTable } from '../src/core/tint/lut';
import type { Colourant } from '../src/core/model/recipeSchema';
import { waterLook } from '../src/core/tint/waterLook';
import { gradientPours } from '../src/core/tint/waterTint';
import { medianMs } from './measure';

type Against = (what: string, ms: number, limit: string, within: boolean) => void;

const CELLS = 1_000_000;
const CLOUDY: Colourant = {
  name: 'White',
  kind: 'acrylic paint',
  absorption: { red: 0.01, green: 0.01, blue: 0.01 },
  scattering: { red: 1.4, green: 1.4, blue: 1.4 },
  dropGrams: 0.035,
  bottleGrams: 30,
  bottlePrice: 4,
};

/** Colouring through tables against a pass that copies the array, and the finder against its time. */
export function tintBench(against: Against): void {
  const heights = Float32Array.from({ length: CELLS }, (_, i) => 9 + 8 * Math.sin(i / 977) + ((i * 7919) % 512) / 512);
  const copy = new Float32Array(CELLS);
  const copyMs = medianMs(() => {
    for (let i = 0; i < CELLS; i++) copy[i] = heights[i]!;
    return copy;
  }, 25);
  const doses = [
    { colourant: { ...COLOURANTS['deep-green-ink']!, id: 'green' }, gramsPer100: 0.12 },
    { colourant: { ...CLOUDY, id: 'white' }, gramsPer100: 0.05 },
  ];
  const look = waterLook({ bedColour: '#b9a883' }, { clarity: 'hazy', doses, pours: gradientPours(14, 3) }, 14);
  const pixels = new Uint32Array(CELLS);
  const paintMs = medianMs(() => {
    paintDepths(heights, 15, 14, pixelTable(look, 1024), '#8b9166', pixels);
    return pixels;
  }, 25);
  const ratio = `${(paintMs / copyMs).toFixed(1)} × the copy, at most 12 ×`;
  against('colouring a million cells under three layers', paintMs, ratio, paintMs <= 12 * copyMs);

  const shelf = Object.entries(COLOURANTS).map(([id, one]) => ({ ...one, id }));
  const targets = ['#5a3d1e', '#4f9a8e', '#86755a', '#2a2013', '#85a59f'].map(linearFromHex);
  const bed = linearFromHex('#b9a883');
  let next = 0;
  const findMs = medianMs(
    () =>
      findRecipes({
        target: targets[next++ % targets.length]!,
        bed,
        depthMm: 6,
        clarity: 'water-clear',
        colourants: shelf,
      }),
    9,
  );
  against(`a recipe found among ${shelf.length} colourants, up to three`, findMs, 'under 300 ms', findMs < 300);

  const even = [
    { colourant: { ...COLOURANTS['deep-green-ink']!, id: 'green' }, gramsPer100: 0.12 },
    { colourant: { ...COLOURANTS['raw-umber-ink']!, id: 'umber' }, gramsPer100: 0.08 },
  ];
  const paint = { bedColour: '#b9a883', deepColour: '#6f6a4e' };
  const poursMs = medianMs(
    () =>
      solvePours({
        paint,
        clarity: 'water-clear',
        doses: even,
        deepestMm: 10,
        halfwayMm: 7,
        hideLineMm: null,
        deep: targets[next++ % targets.length]!,
        thicknessesMm: [3.3, 3.3, 3.4],
        by: 'colourant',
      }),
    9,
  );
  against('three pours with two colourants each for a wished gradient', poursMs, 'under 500 ms', poursMs < 500);
}
