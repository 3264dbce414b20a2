import { linearFromHex, hexFromLinear } from '../src/core/tint/colour';
import { deltaE } from '../src/core/tint/difference';
import { buildBed } from '../src/core/bed/buildBed';
import { COLOURANTS } from '../src/db/defaults';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { WHITE_CARD } from '../src/core/tint/photoColour';
import { colourByDepth } from '../src/core/tint/waterLook';
import { layerFlux, seenThrough } from '../src/core/tint/twoFlux';
import { CLARITY_OPTICS } from '../src/core/tint/waterTint';
import type { Page } from '@playwright/test';
import { addPiece, awake, choose, expect, fillMeasure, makeSet, ownSample, test } from './guarded';

const RED_LAMP = { red: 0.95, green: 0.7, blue: 0.45 };

/** A photo of a white card, bare ground and a swatch, a third of the picture each, in the light of a lamp. */
async function photoOf(page: Page, colours: readonly string[]): Promise<Buffer> {
  const lit = colours.map((hex) => {
    const { red, green, blue } = linearFromHex(hex);
    return hexFromLinear({ red: red * RED_LAMP.red, green: green * RED_LAMP.green, blue: blue * RED_LAMP.blue });
  });
  const data = await page.evaluate((stripes) => {
    const canvas = document.createElement('canvas');
    [canvas.width, canvas.height] = [600, 300];
    const pen = canvas.getContext('2d')!;
    stripes.forEach((stripe, i) => {
      pen.fillStyle = stripe;
      pen.fillRect(i * 200, 0, 200, 300);
    });
    return canvas.toDataURL('image/png').split(',')[1]!;
  }, lit);
  return Buffer.from(data, 'base64');
}

test('a colourant is calibrated from a photo in lamp light, and the figure is the one that made the photo', async ({
  page,
}) => {
  const setId = await ownSample(page, 'Swatch Test');
  await page.goto(`/sets/${setId}/tint?show=swatches`);
  await awake(page);
  await page
    .getByRole('button', { name: /Turquoise alcohol ink/ })
    .first()
    .click();
  await expect(page.getByText('uncalibrated: typical of alcohol ink')).toBeVisible();

  // Twice as strong as typical: what 0.1 g in 100 g does over pale card, 4 mm deep.
  const K = { red: 2.8, green: 0.32, blue: 0.52 };
  const ground = { red: 0.8, green: 0.8, blue: 0.78 };
  const own = CLARITY_OPTICS['water-clear'].absorption;
  const seen = (channel: 'red' | 'green' | 'blue'): number =>
    seenThrough(layerFlux(own[channel] + K[channel] * 0.1, 0, 4), ground[channel]);
  const card = { red: WHITE_CARD, green: WHITE_CARD, blue: WHITE_CARD };
  const swatch = { red: seen('red'), green: seen('green'), blue: seen('blue') };
  await expect(page.getByRole('button', { name: 'Add the swatch' })).toBeDisabled();
  await page
    .locator('input[type=file]')
    .setInputFiles({
      name: 'swatch.png',
      mimeType: 'image/png',
      buffer: await photoOf(page, [card, ground, swatch].map(hexFromLinear)),
    });
  const photo = page.getByRole('application', { name: /^Photo/ });
  const { width, height } = (await photo.boundingBox())!;
  for (const third of [0, 1, 2]) await photo.click({ position: { x: (width * (2 * third + 1)) / 6, y: height / 2 } });
  await fillMeasure(page, /^Colourant in 100 g/, '0.1');
  await page.getByRole('button', { name: 'Add the swatch' }).click();
  await expect(page.getByText('calibrated, 1 swatch')).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'At the worst a swatch and the fit are' })).toContainText(
    'the same to the eye',
  );
  const shelf = await page.request.get(`/api/sets/${setId}/archive`);
  expect(shelf.ok()).toBe(true);

  // What is no picture is told, and nothing is lost.
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'notes.png', mimeType: 'image/png', buffer: Buffer.from('no picture at all') });
  await expect(page.getByRole('alert').getByText('notes.png is no picture')).toBeVisible();
  await page.getByRole('button', { name: 'Remove swatch 1' }).click();
  await expect(page.getByText('None yet.')).toBeVisible();
});

test('a peat stream is found over the bed, made the recipe, and counted in drops for two cups', async ({ page }) => {
  const setId = await ownSample(page, 'Peat Test');
  await page.goto(`/sets/${setId}/tint?show=find`);
  await awake(page);
  await page
    .getByRole('button', { name: /Peat stream/ })
    .first()
    .click();
  await expect(page.getByRole('textbox', { name: 'Colour', exact: true })).toHaveValue('#5a3d1e');
  const first = page.getByRole('region', { name: 'Answers' }).getByRole('listitem').first();
  await expect(first.getByText(/\(ΔE \d\.\d\)/)).toBeVisible();
  await first.getByRole('button', { name: 'Make it a recipe of this set' }).click();
  await page.getByRole('link', { name: 'Recipe', exact: true }).click();
  await expect(page.getByRole('textbox', { name: 'Name of the recipe' })).toHaveValue('Peat stream');

  await page.getByRole('link', { name: 'Cups and drops' }).click();
  // Drops grow with the cup: whole ones, as the recipe wants them to the nearest.
  const counted = async (grams: string): Promise<number[]> => {
    await fillMeasure(page, /^A cup of/, grams);
    const cup = page.getByRole('region', { name: 'One cup' });
    await expect(cup.locator('dd', { hasText: /drop/ }).first()).toBeVisible();
    const texts = await cup.locator('dl > div', { hasText: /g wanted|would be/ }).allInnerTexts();
    return texts.map((text) => Number(/(\d+)\s*drops?/.exec(text)![1]));
  };
  const [small, large] = [await counted('60'), await counted('145')];
  expect(large).toHaveLength(small.length);
  large.forEach((drops, i) => expect(drops).toBeGreaterThanOrEqual(Math.floor(small[i]! * 2)));
  expect(Math.max(...large)).toBeGreaterThan(1);
});

test('a colour brighter than the bed is said to be out of reach', async ({ page }) => {
  const setId = await ownSample(page, 'Bright Test');
  await page.goto(`/sets/${setId}/tint?show=find`);
  await awake(page);
  const colour = page.getByRole('textbox', { name: 'Colour', exact: true });
  await colour.fill('milk');
  await colour.press('Enter');
  await expect(page.getByRole('alert').getByText('A colour such as #b8a888')).toBeVisible();
  await colour.fill('f4f8ff');
  await colour.press('Enter');
  await expect(page.getByText('brighter than the bed itself')).toBeVisible();
});

test('an over-tinted cup is rescued: the clear mix by its parts, or a new cup', async ({ page }) => {
  const setId = await ownSample(page, 'Rescue Test');
  await page.goto(`/sets/${setId}/tint?show=cups`);
  await awake(page);
  const panel = page.getByRole('region', { name: 'A cup that went wrong' });
  await expect(panel).toContainText('Type how much mix is in the cup');
  await fillMeasure(page, /^Mix in it/, '50');
  await fillMeasure(page, /^Drops of Deep green ink/, '4');
  await fillMeasure(page, /^Drops of Raw umber ink/, '2');
  // 0.12 and 0.07 g in 100 g: four drops do for 116.7 g, two for 100.
  await expect(panel.getByRole('status').first()).toContainText('Add 66.7 g of clear mix');
  await expect(panel).toContainText('It then holds 116.7 g');
  await fillMeasure(page, /^Minutes since mixed/, '55');
  await expect(panel).toContainText('It sets before that is done');
  await fillMeasure(page, /^Drops of Deep green ink/, '40');
  await fillMeasure(page, /^Minutes since mixed/, '2');
  await expect(panel).toContainText(/a new cup is the better way|A new cup is cheaper/);
});

test('looked through from straight above, water shows just the colour that is predicted', async ({ page }) => {
  await page.goto('/sets/heron-slack/tint?show=look');
  await awake(page);
  await choose(page, 'Look at', /HS-1/);
  await page.getByRole('checkbox', { name: /figure for size/ }).uncheck();
  const view = page.getByRole('application', { name: /looked through/ });
  await view.focus();
  await page.keyboard.press('Home');
  await expect(view).toContainText('90° over the table');
  const design = HERON_SLACK_DESIGNS[0]!;
  const bed = buildBed(design, 1);
  const middle = bed.heightMm[Math.floor(bed.rows / 2) * bed.columns + Math.floor(bed.columns / 2)]!;
  const dose = (id: string, gramsPer100: number) => ({ colourant: { ...COLOURANTS[id]!, id }, gramsPer100 });
  const predicted = colourByDepth(design.bedColour, {
    clarity: 'water-clear',
    doses: [dose('deep-green-ink', 0.12), dose('raw-umber-ink', 0.07)],
  })(15 - middle);
  const seen = (): Promise<string> =>
    view.locator('canvas').evaluate((canvas) => {
      const copy = document.createElement('canvas');
      const source = canvas as HTMLCanvasElement;
      [copy.width, copy.height] = [source.width, source.height];
      const pen = copy.getContext('2d')!;
      pen.drawImage(source, 0, 0);
      const [red, green, blue] = pen.getImageData(source.width / 2, source.height / 2, 1, 1).data;
      return `#${[red!, green!, blue!].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
    });
  await expect
    .poll(async () => deltaE(linearFromHex(await seen()), linearFromHex(predicted)), { timeout: 15_000 })
    .toBeLessThan(1);
  // Turned by keys, it is another picture.
  const before = await seen();
  await page.keyboard.press('End');
  await expect(view).toContainText('6° over the table');
  await expect.poll(seen).not.toBe(before);
});

test('a seam shows because one bed is deeper: the colour is named as the cause', async ({ page }) => {
  await makeSet(page, 'Depth Seam');
  await addPiece(page, 'Tile, straight channel');
  await addPiece(page, 'Tile, straight channel');
  await expect(page.getByRole('button', { name: /^T-2/ })).toHaveAttribute('aria-pressed', 'true');
  await fillMeasure(page, /^Depth below the level/, '8.9');
  await page.getByRole('link', { name: 'Tint', exact: true }).click();
  await page
    .getByRole('button', { name: /Creek green|Lagoon blue/ })
    .first()
    .click();
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  // The beds are 2.9 mm apart, which passes; the water over them does not.
  await expect(
    page.getByRole('button', { name: /shows T-1 north and T-2 south the colours differ by \d/ }).first(),
  ).toBeVisible();
});
