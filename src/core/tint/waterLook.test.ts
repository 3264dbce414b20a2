import { hexFromLinear, linearFromHex } from './colour';
import { colourByDepth, lightByDepth, lookAt, paintByDepth, waterLook } from './waterLook';
import { CLEAR_TINT, CLEAR_TONE, type WaterTint } from './waterTint';
import type { RecipeDose } from './doses';

const green: RecipeDose = {
  colourant: {
    id: 'green',
    name: 'Green',
    kind: 'ink',
    absorption: { red: 1.2, green: 0.3, blue: 0.7 },
    dropGrams: 0.035,
    bottleGrams: 30,
    bottlePrice: 5,
  },
  gramsPer100: 0.12,
};
const tinted = (doses: RecipeDose[]): WaterTint => ({ clarity: 'water-clear', doses });
const BED = linearFromHex('#b9a883');
const brightness = (hex: string): number => {
  const { red, green: g, blue } = linearFromHex(hex);
  return 0.2126 * red + 0.7152 * g + 0.0722 * blue;
};

test('a bed is painted from its shore over its middle to its deepest; one without depth is all shore', () => {
  const paint = paintByDepth({ bedColour: '#808080', shoreColour: '#e0d0b0', deepColour: '#203020' }, 8);
  expect([0, 4, 8, 20].map((mm) => hexFromLinear(paint(mm)))).toEqual(['#e0d0b0', '#808080', '#203020', '#203020']);
  expect(hexFromLinear(paintByDepth({ bedColour: '#808080', shoreColour: '#e0d0b0' }, 0)(0))).toBe('#e0d0b0');
});

test('rock has a look of its own where there is rock, and only there', () => {
  const tint = tinted([green]);
  const { rock, stepMm } = waterLook({ bedColour: '#b9a883', rockColour: '#707078' }, tint, 8);
  const ofRock = colourByDepth('#707078', tint);
  expect(rock).toEqual(rock!.map((_, i) => ofRock(i * stepMm)));
  expect(rock!.length).toBeGreaterThan(8);
  expect(waterLook({ bedColour: '#b9a883' }, tint, 8)).not.toHaveProperty('rock');
});

test('a look runs from the surface to the deepest, ever darker under a tint', () => {
  const look = waterLook({ bedColour: '#b9a883' }, tinted([green]), 6);
  expect(look.stepMm * (look.colours.length - 1)).toBeCloseTo(6, 9);
  const light = look.colours.map(brightness);
  light.slice(1).forEach((value, i) => expect(value).toBeLessThanOrEqual(light[i]! + 1e-6));
  expect(light.at(-1)!).toBeLessThan(0.6 * light[0]!);
});
test('clear water wets the bed and has a breath of tone of its own: by exp(−2 × tone × depth), down and up again', () => {
  const look = waterLook({ bedColour: '#b9a883' }, CLEAR_TINT, 9);
  expect(brightness(look.colours[0]!)).toBeLessThan(brightness('#b9a883'));
  expect(brightness(look.colours[0]!)).toBeGreaterThan(0.85 * brightness('#b9a883'));
  const [top, deep] = [linearFromHex(look.colours[0]!), linearFromHex(look.colours.at(-1)!)];
  for (const channel of ['red', 'green', 'blue'] as const)
    expect(deep[channel] / top[channel]).toBeCloseTo(Math.exp(-2 * CLEAR_TONE[channel] * 9), 1);
  // Colours are whole steps of 255, so the ratio is good to a few hundredths.
  expect(look.colours.at(-1)).not.toBe(look.colours[0]);
});
test('a depth beyond the look takes its last colour, one above the surface its first', () => {
  const look = waterLook({ bedColour: '#b9a883' }, tinted([green]), 6);
  expect(lookAt(look, 99)).toBe(look.colours.at(-1));
  expect(lookAt(look, -3)).toBe(look.colours[0]);
  expect(lookAt(look, 3)).toBe(look.colours[12]);
});
test('a dry bed has a look all the same', () =>
  expect(waterLook({ bedColour: '#b9a883' }, tinted([green]), 0).stepMm).toBeGreaterThan(0));
test.each(['#000000', '#ffffff', '#b9a883', '#123456'])('%s goes to linear light and back', (hex) =>
  expect(hexFromLinear(linearFromHex(hex))).toBe(hex),
);

const milk: RecipeDose = {
  colourant: {
    ...green.colourant,
    id: 'milk',
    absorption: { red: 0.02, green: 0.02, blue: 0.02 },
    scattering: { red: 3, green: 3, blue: 3 },
  },
  gramsPer100: 0.2,
};

test('a cloudy colourant brightens water over a black bed, and hides it; a hazy product does so by itself', () => {
  const black = (tint: WaterTint) => brightness(colourByDepth('#000000', tint)(8));
  expect(black(tinted([green]))).toBe(0);
  expect(black(tinted([milk]))).toBeGreaterThan(0.3);
  expect(black({ clarity: 'hazy', doses: [] })).toBeGreaterThan(0.05);
});
test('pours count from the surface: a shallow shore shows the top pour only, the deep all of them', () => {
  const pours = [
    { thicknessMm: 2, strength: 0 },
    { thicknessMm: 2, strength: 1 },
    { thicknessMm: null, strength: 3 },
  ];
  const layered = colourByDepth('#b9a883', { ...tinted([green]), pours });
  const clear = colourByDepth('#b9a883', CLEAR_TINT);
  expect(layered(2)).toBe(clear(2));
  expect(brightness(layered(4))).toBeLessThan(brightness(clear(4)));
  // Without scattering, 2 mm at 1 and 3 mm at 3 take as much light as 7 mm at 11/7; the product's own part is the same.
  const even = colourByDepth('#b9a883', { ...tinted([green]), pours: [{ thicknessMm: null, strength: 11 / 7 }] });
  expect(layered(7)).toBe(even(7));
});
test('a pour with colourants of its own is the same as a recipe of those', () => {
  const peat = { ...tinted([green]).doses[0]!.colourant, id: 'peat', absorption: { red: 0.2, green: 0.5, blue: 0.9 } };
  const doses = [...tinted([green]).doses, { colourant: peat, gramsPer100: 0 }];
  const own = { [doses[0]!.colourant.id]: 0, peat: 0.25 };
  const layered = lightByDepth(BED, {
    clarity: 'water-clear',
    doses,
    pours: [{ thicknessMm: null, strength: 1, own }],
  });
  const alone = lightByDepth(BED, { clarity: 'water-clear', doses: [{ colourant: peat, gramsPer100: 0.25 }] });
  for (const mm of [0, 2, 9]) expect(layered(mm)).toEqual(alone(mm));
  // Order tells: a cloudy pour over a dark one hides it, under it it does not.
  const milky = { ...doses[0]!, colourant: milk.colourant };
  const two = (top: object, low: object) =>
    lightByDepth(BED, {
      clarity: 'water-clear',
      doses: [milky, doses[1]!],
      pours: [
        { thicknessMm: 4, strength: 1, own: top as Record<string, number> },
        { thicknessMm: null, strength: 1, own: low as Record<string, number> },
      ],
    })(8);
  const [cloud, dark] = [
    { [milk.colourant.id]: 0.3, peat: 0 },
    { [milk.colourant.id]: 0, peat: 0.6 },
  ];
  expect(two(cloud, dark).red).toBeGreaterThan(1.5 * two(dark, cloud).red);
});
test('the last pour goes on to the bed even where it was given a thickness', () => {
  const pours = [{ thicknessMm: 1, strength: 1 }];
  expect(colourByDepth('#b9a883', { ...tinted([green]), pours })(6)).toBe(colourByDepth('#b9a883', tinted([green]))(6));
});
test('a bed painted from the shore to the deep shows its colours at the shore, half way and at the deepest', () => {
  const paint = { bedColour: '#808080', shoreColour: '#ffffff', deepColour: '#101010' };
  const look = waterLook(paint, CLEAR_TINT, 8);
  for (const [i, colour] of [
    [0, paint.shoreColour],
    [12, paint.bedColour],
    [24, paint.deepColour],
  ] as const)
    expect(look.colours[i]).toBe(colourByDepth(colour, CLEAR_TINT)((i / 24) * 8));
});
