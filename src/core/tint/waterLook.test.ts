import { hexFromLinear, linearFromHex } from './colour';
import { CLEAR_TONE, lookAt, waterLook } from './waterLook';
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
const brightness = (hex: string): number => {
  const { red, green: g, blue } = linearFromHex(hex);
  return 0.2126 * red + 0.7152 * g + 0.0722 * blue;
};

test('a look runs from the surface to the deepest, ever darker under a tint', () => {
  const look = waterLook({ bedColour: '#b9a883' }, [green], 6);
  expect(look.stepMm * (look.colours.length - 1)).toBeCloseTo(6, 9);
  const light = look.colours.map(brightness);
  light.slice(1).forEach((value, i) => expect(value).toBeLessThanOrEqual(light[i]! + 1e-6));
  expect(light.at(-1)!).toBeLessThan(0.6 * light[0]!);
});
test('clear water wets the bed and has a breath of tone of its own: by exp(−2 × tone × depth), down and up again', () => {
  const look = waterLook({ bedColour: '#b9a883' }, [], 9);
  expect(brightness(look.colours[0]!)).toBeLessThan(brightness('#b9a883'));
  expect(brightness(look.colours[0]!)).toBeGreaterThan(0.85 * brightness('#b9a883'));
  const [top, deep] = [linearFromHex(look.colours[0]!), linearFromHex(look.colours.at(-1)!)];
  for (const channel of ['red', 'green', 'blue'] as const)
    expect(deep[channel] / top[channel]).toBeCloseTo(Math.exp(-2 * CLEAR_TONE[channel] * 9), 1);
  // Colours are whole steps of 255, so the ratio is good to a few hundredths.
  expect(look.colours.at(-1)).not.toBe(look.colours[0]);
});
test('a depth beyond the look takes its last colour, one above the surface its first', () => {
  const look = waterLook({ bedColour: '#b9a883' }, [green], 6);
  expect(lookAt(look, 99)).toBe(look.colours.at(-1));
  expect(lookAt(look, -3)).toBe(look.colours[0]);
  expect(lookAt(look, 3)).toBe(look.colours[12]);
});
test('a dry bed has a look all the same', () =>
  expect(waterLook({ bedColour: '#b9a883' }, [green], 0).stepMm).toBeGreaterThan(0));
test.each(['#000000', '#ffffff', '#b9a883', '#123456'])('%s goes to linear light and back', (hex) =>
  expect(hexFromLinear(linearFromHex(hex))).toBe(hex),
);
