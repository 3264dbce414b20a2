import type { Page } from '@playwright/test';
import { linearFromHex } from '../src/core/tint/colour';
import { WHITE_CARD } from '../src/core/tint/photoColour';
import { deltaE } from '../src/core/tint/difference';
import { hexFromLinear } from '../src/core/tint/colour';
import { addPiece, awake, choose, expect, fillMeasure, makeSet, ownSample, test } from './guarded';

/** A photo as a camera writes it: a JPEG of three bands, lying on its side, with the note that it is to be turned upright. */
async function sidewaysPhoto(page: Page, bands: readonly string[], across: number, down: number): Promise<Buffer> {
  const data = await page.evaluate(
    ([colours, width, height]) => {
      const canvas = document.createElement('canvas');
      [canvas.width, canvas.height] = [width, height];
      const pen = canvas.getContext('2d')!;
      // Upright they stand side by side from the left; turned a quarter to the left they lie one over another, the first lowest.
      colours.forEach((colour, i) => {
        pen.fillStyle = colour;
        pen.fillRect(0, height - ((i + 1) * height) / colours.length, width, height / colours.length);
      });
      return canvas.toDataURL('image/jpeg', 0.95).split(',')[1]!;
    },
    [bands, across, down] as const,
  );
  const jpeg = Buffer.from(data, 'base64');
  // Orientation 6: turn it a quarter to the right to see it upright.
  const tiff = Buffer.from('4d4d002a0000000800010112000300000001000600000000000000', 'hex');
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff]);
  const length = Buffer.alloc(2);
  length.writeUInt16BE(body.length + 2);
  return Buffer.concat([jpeg.subarray(0, 2), Buffer.from([0xff, 0xe1]), length, body, jpeg.subarray(2)]);
}

test('a photo of 24 million points that lies on its side is turned upright, and its colours read', async ({ page }) => {
  await page.goto('/sets/heron-slack/tint?show=find');
  const card = hexFromLinear({ red: WHITE_CARD, green: WHITE_CARD, blue: WHITE_CARD });
  const water = '#5a3d1e';
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'stream.jpg',
      mimeType: 'image/jpeg',
      buffer: await sidewaysPhoto(page, [card, water, '#203040'], 4000, 6000),
    });
  const photo = page.getByRole('application', { name: /^Photo/ });
  const { width, height } = (await photo.boundingBox())!;
  // Upright it is wider than high, and its bands stand from left to right.
  expect(width / height).toBeGreaterThan(1.3);
  await photo.click({ position: { x: width / 6, y: height / 2 } });
  await photo.click({ position: { x: width / 2, y: height / 2 } });
  const wanted = page.getByRole('textbox', { name: 'Colour', exact: true });
  await expect.poll(async () => deltaE(linearFromHex(await wanted.inputValue()), linearFromHex(water))).toBeLessThan(2);
});

test('a browser without solid pictures says so, and shows the flat ones', async ({ page }) => {
  await page.addInitScript(() => {
    const real = HTMLCanvasElement.prototype.getContext;
    HTMLCanvasElement.prototype.getContext = function (this: HTMLCanvasElement, kind: string, ...rest: unknown[]) {
      return kind.startsWith('webgl') ? null : (real as (...all: unknown[]) => unknown).call(this, kind, ...rest);
    } as typeof real;
  });
  await page.goto('/sets/heron-slack/tint?show=look');
  await expect(page.getByText('This browser draws no solid pictures')).toBeVisible();
  await expect(page.getByRole('application', { name: /looked through/ })).toHaveCount(0);
  await expect(page.getByRole('img', { name: /from above/ }).first()).toBeVisible();
});

test('a dose by eye: the picture follows the slider, it is one edit, and the earlier version can be taken back', async ({
  page,
}) => {
  const setId = await ownSample(page, 'Slider Test');
  await page.goto(`/sets/${setId}/tint`);
  await page.getByRole('button', { name: 'Add a recipe' }).click();
  const name = page.getByRole('textbox', { name: 'Name of the recipe' });
  await expect(name).toHaveValue('New recipe');
  await name.fill('Slider water');
  await name.press('Enter');
  await page.getByRole('button', { name: 'Add a colourant' }).click();
  await page.getByRole('menuitem', { name: 'Sea blue resin dye' }).click();
  await expect(page.getByRole('textbox', { name: /^Sea blue resin dye/ })).toHaveValue('0.05');
  const slider = page.getByRole('slider', { name: 'Sea blue resin dye by eye' });
  const seam = page.getByRole('status').filter({ hasText: 'Side by side at the deepest' });
  await slider.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByRole('textbox', { name: /^Sea blue resin dye/ })).not.toHaveValue('0.05');
  const dosed = await page.getByRole('textbox', { name: /^Sea blue resin dye/ }).inputValue();
  expect(Number(dosed)).toBeGreaterThan(0.08);

  // What it was before stands in the list; held beside it shows at the seam; taken back it is what it was.
  await page.reload();
  await page.getByRole('button', { name: /^Earlier versions/ }).click();
  await page
    .getByRole('button', { name: /^Show beside/ })
    .first()
    .click();
  await expect(seam).toContainText(/ΔE \d/);
  await expect(seam).toContainText(/shows|passes/);
  await page
    .getByRole('button', { name: /^Take back/ })
    .first()
    .click();
  await expect(page.getByRole('textbox', { name: /^Sea blue resin dye/ })).toHaveValue('0.05');

  // Beside the water of another set.
  await choose(page, 'Beside', 'the set Heron Slack');
  await expect(page.getByRole('heading', { name: 'The set Heron Slack' })).toBeVisible();
  await expect(seam).toContainText('another colour');
});

test('the label of a stock tint says what is in it and what each cup takes', async ({ page }) => {
  await page.goto('/sets/heron-slack/tint?show=cups');
  const stock = page.getByRole('region', { name: 'Stock tint' });
  await stock.getByRole('textbox', { name: /^Cups, g of mix each/ }).fill('60, 60, 45');
  await stock.getByRole('textbox', { name: /^Cups, g of mix each/ }).press('Enter');
  const first = await stock.getByRole('listitem').first().locator('b').innerText();
  await stock.getByRole('link', { name: 'Print its label' }).click();
  const label = page.getByRole('region', { name: 'Stock tint' });
  await expect(label.getByRole('heading', { name: 'Creek green' })).toBeVisible();
  await expect(label).toContainText(/\d+ drops Deep green ink/);
  await expect(label.getByRole('listitem')).toHaveCount(3);
  await expect(label.getByRole('listitem').first()).toContainText(first.replace(' of stock', ''));
  await expect(label).toContainText('no part B in it');
  await page.goto('/labels/heron-slack/stock?cups=rubbish');
  await expect(page.getByText('These cups make no stock tint.')).toBeVisible();
});

test('a copy that was poured in an old batch is matched in the water that it really has', async ({ page }) => {
  const setId = await ownSample(page, 'Old Water');
  await page.goto(`/sets/${setId}/tint`);
  await page.getByRole('button', { name: 'Lagoon blue' }).first().click();
  await page.getByRole('link', { name: 'Shape', exact: true }).click();
  await choose(page, 'Which bed to show', /^copy #1\b/);
  await choose(page, 'Its water, for its seams', 'as mixed in Creek tiles');
  await expect(page.getByRole('combobox', { name: 'Its water, for its seams' })).toContainText('as mixed in');
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await expect(page.getByRole('button', { name: /#1 .*the colours differ by \d/ }).first()).toBeVisible();
});

test('rocks in a colour of their own show in the plan', async ({ page }) => {
  await makeSet(page, 'Rocky');
  await addPiece(page, 'Tile, straight channel');
  await awake(page);
  await page.getByRole('button', { name: 'Add to the bed' }).click();
  await page.getByRole('menuitem', { name: 'Rock', exact: true }).click();
  const apart = page.getByRole('checkbox', { name: 'Rocks in a colour of their own' });
  await apart.click();
  await expect(apart).toBeChecked();
  await page.getByRole('textbox', { name: 'Rocks', exact: true }).fill('#ff00ff');
  await page.getByRole('textbox', { name: 'Rocks', exact: true }).press('Enter');
  const plan = page.locator('main canvas').first();
  const magenta = (): Promise<number> =>
    plan.evaluate((canvas) => {
      const source = canvas as HTMLCanvasElement;
      const { data } = source.getContext('2d')!.getImageData(0, 0, source.width, source.height);
      let count = 0;
      for (let i = 0; i < data.length; i += 4) if (data[i]! > 120 && data[i + 1]! < 60 && data[i + 2]! > 120) count++;
      return count;
    });
  await expect.poll(magenta).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'across the middle', exact: true }).click();
  const face = page.getByRole('group', { name: 'The set at eye level' }).locator('path[stroke="#ff00ff"]');
  await expect(face).toHaveCount(1);
  await fillMeasure(page, 'Rocks', '#3a4a2e');
  await expect.poll(magenta).toBe(0);
  await expect(face).toHaveCount(0);
});

test('pours are found for a wished gradient, each with colourants of its own, and the layers of a batch are dosed by them', async ({
  page,
}, info) => {
  const setId = await ownSample(page, 'Pour by Pour');
  await page.goto(`/sets/${setId}/tint`);
  await page.getByRole('button', { name: 'Add a recipe' }).click();
  const name = page.getByRole('textbox', { name: 'Name of the recipe' });
  await expect(name).toHaveValue('New recipe');
  await name.fill(`Layered ${info.retry}`);
  await name.press('Enter');
  for (const colourant of ['Deep green ink', 'Raw umber ink']) {
    await page.getByRole('button', { name: 'Add a colourant', exact: true }).click();
    await page.getByRole('menuitem', { name: colourant }).click();
  }
  await page
    .getByRole('region', { name: 'Doses' })
    .getByRole('textbox', { name: /^Raw umber ink/ })
    .waitFor();
  await page.getByRole('link', { name: 'Pour by pour' }).last().click();
  const wish = page.getByRole('region', { name: 'Wish' });
  await wish.getByRole('textbox', { name: 'At the deepest', exact: true }).fill('#2c1d0c');
  await wish.getByRole('textbox', { name: 'At the deepest', exact: true }).press('Enter');
  const mean = async (): Promise<number> =>
    Number(/ΔE ([\d.]+)\) on the average/.exec(await wish.innerText())?.[1] ?? NaN);
  const settled = wish.locator('[aria-busy=false]');
  await settled.waitFor();
  const thinned = await mean();
  await wish.getByRole('button', { name: 'its own colourants' }).click();
  await settled.waitFor();
  await expect.poll(mean).toBeLessThan(thinned - 0.5);

  // The middle of the wish by keys: a shore that stays clear for longer has less in its top pour.
  const slider = page.getByRole('slider', { name: 'Half as dark at' });
  const before = await slider.getAttribute('aria-valuetext');
  await slider.press('ArrowRight');
  await expect(slider).not.toHaveAttribute('aria-valuetext', before!);
  await settled.waitFor();
  await wish.getByRole('button', { name: 'Pour it so' }).click();
  const table = page.getByRole('table', { name: 'Pours, from the surface down' });
  await expect(table.getByRole('row')).toHaveCount(4);
  const grams = async (pour: string): Promise<number> =>
    Number(await table.getByRole('textbox', { name: new RegExp(`^Raw umber ink in ${pour}`) }).inputValue());
  expect(await grams('the top pour')).toBeLessThan(await grams('the lowest'));
  await fillMeasure(page, /^Deep green ink in the top pour/, '0.2');
  await expect(table.getByRole('textbox', { name: /^Deep green ink in the top pour/ })).toHaveValue('0.2');

  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await expect(page.getByText('a tint of its own').first()).toBeVisible();
});
