import { hexFromLinear, linearFromHex } from './colour';
import { againstWhite, pixelLight, WHITE_CARD, type Pixels } from './photoColour';

/** A photo of stripes, one colour each, every stripe ten pixels wide. */
function stripes(...colours: string[]): Pixels {
  const [width, height] = [colours.length * 10, 12];
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < width * height; i++) {
    const colour = colours[Math.floor((i % width) / 10)]!;
    for (let channel = 0; channel < 3; channel++)
      data[i * 4 + channel] = parseInt(colour.slice(1 + channel * 2, 3 + channel * 2), 16);
    data[i * 4 + 3] = 255;
  }
  return { width, height, data };
}

test('a place is the mean of its pixels in linear light, kept within the photo', () => {
  const photo = stripes('#000000', '#ffffff');
  expect(hexFromLinear(pixelLight(photo, 4, 6, 3).light)).toBe('#000000');
  // Half black, half white: half the light, which is not the grey half way between the bytes.
  expect(pixelLight(photo, 9, 6, 0).light.red).toBe(0);
  expect(pixelLight({ ...photo }, 10, 0, 40).light.red).toBeCloseTo(0.5, 6);
  expect(pixelLight(photo, 19, 6, 2).burnt).toBe(true);
  expect(pixelLight(photo, 2, 6, 2).burnt).toBe(false);
});

test('each channel is its own; half of the pixels burnt are not yet too many', () => {
  const { light } = pixelLight(stripes('#0a64c8'), 5, 5, 2);
  expect(hexFromLinear(light)).toBe('#0a64c8');
  const dark = [9, 9, 9, 255];
  const burnt = [255, 255, 255, 255];
  const row = (...pixels: number[][]): Pixels => ({
    width: pixels.length,
    height: 1,
    data: Uint8ClampedArray.from(pixels.flat()),
  });
  expect(pixelLight(row(dark, burnt), 0, 0, 1).burnt).toBe(false);
  expect(pixelLight(row(dark, burnt, burnt), 1, 0, 1).burnt).toBe(true);
});

test('a photo in warm light gives its daylight colours back by its white card', () => {
  const lamp = { red: 0.9, green: 0.62, blue: 0.33 };
  const real = linearFromHex('#5a6b4e');
  const lit = (light: typeof real): typeof real => ({
    red: light.red * lamp.red,
    green: light.green * lamp.green,
    blue: light.blue * lamp.blue,
  });
  const card = { red: WHITE_CARD, green: WHITE_CARD, blue: WHITE_CARD };
  expect(hexFromLinear(againstWhite(lit(real), lit(card))!)).toBe('#5a6b4e');
});

test('what is too dark to be a white card is refused; what is brighter than the card stays within white', () => {
  expect(againstWhite(linearFromHex('#404040'), linearFromHex('#303030'))).toBeNull();
  // Yellow lacks the blue that a white card has.
  expect(againstWhite(linearFromHex('#404040'), linearFromHex('#e0e010'))).toBeNull();
  expect(againstWhite(linearFromHex('#ffffff'), linearFromHex('#c0c0c0'))).toEqual({ red: 1, green: 1, blue: 1 });
});
