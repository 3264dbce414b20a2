import { mkdirSync, rmSync } from 'node:fs';
import { BIG_SET, writeBigFile } from '../benchmarks/bigFile';
import { flatGrid } from '../src/core/bed/grid';
import { outlineSize } from '../src/core/bed/outline';
import { STAGES as STAGE_LIST, type StagePath } from '../src/core/model/stages';
import { seeded } from '../src/core/chance/random';
import { bedStl } from '../src/core/formats/stl';
import { addPiece, choose, expect, fillMeasure, makeSet, reading, test } from './guarded';
import { ended, serve } from './server';

/** What stands on each stage, and the figure beside it; one that has none says so. */
const FIGURES: Record<StagePath, [string, string, RegExp] | null> = {
  shape: ['shape', 'Water in each', /\d+\.\d\s*ml/],
  match: ['match', 'Gap of the beds', /\d/],
  tint: ['tint', 'Smallest cup for drops', /\d+\.\d\s*g/],
  pour: ['pour', 'To mix', /\d+\.\d\s*g/],
  cure: ['cure', 'All ready', /(Mon|Tue|Wed|Thu|Fri|Sat|Sun) \d/],
  bench: null,
  log: ['log?batch=hs-batch-1', 'All cups', /\d+\.\d\sg/],
};
const STAGES = [
  ...STAGE_LIST.flatMap(({ path }) => (FIGURES[path] ? [FIGURES[path]] : [])),
  ['cure?show=batch&batch=hs-batch-3', 'Cure takes', /×\d/] as const,
];

test.describe('with script switched off', () => {
  test.use({ javaScriptEnabled: false });
  for (const [stage, label, figure] of STAGES)
    test(`a visit to ${stage} shows its figures`, async ({ browser, baseURL }) => {
      // A page of its own: the guarded one waits until a page is awake, and this one never wakes.
      const context = await browser.newContext({ javaScriptEnabled: false });
      const page = await context.newPage();
      await page.goto(`${baseURL}/sets/heron-slack/${stage}`);
      // What takes longer than a moment streams in; without script the page asks again until it is there.
      await expect(page.getByText(label).first()).toBeVisible();
      await expect(page.locator('main')).toContainText(figure);
      await context.close();
    });
});

test('sixty batches are paged through, newest first', async ({ page }) => {
  const folder = '.test-tmp/years';
  rmSync(folder, { recursive: true, force: true });
  mkdirSync(folder, { recursive: true });
  writeBigFile(`${folder}/years.db`, { sets: 2, batches: 60, designs: 10 });
  const { url, server } = await serve(`${folder}/years.db`);
  try {
    await page.goto(`${url}/sets/${BIG_SET}/log`);
    const list = page.getByRole('list', { name: 'Batches, newest first' }).getByRole('button');
    await expect(list.first()).toContainText('Batch 60');
    const before = await list.count();
    await page.getByRole('button', { name: /^Older ones, \d+/ }).click();
    await expect.poll(() => list.count()).toBeGreaterThan(before);
    await list.last().click();
    const name = (await list.last().innerText()).split('\n')[0]!;
    await expect(page.getByRole('heading', { name, level: 2 })).toBeVisible();
    await expect(page.getByText('All cups').first()).toBeVisible();
  } finally {
    // What the page fetches ahead must not find the server gone.
    await page.close();
    await ended(server);
  }
});

test('a creek of 4 × 6 inch tiles is laid on a 30 inch table, either way round', async ({ page }) => {
  await makeSet(page, 'Inch Creek', '15');
  await addPiece(page, 'Tile, straight channel');
  await fillMeasure(page, /^Width, mm/, '4"');
  await expect(page.getByRole('textbox', { name: /^Width, mm/ })).toHaveValue('101.6');
  await fillMeasure(page, /^Length, mm/, '6"');
  await expect(page.getByRole('textbox', { name: /^Length, mm/ })).toHaveValue('152.4');
  await fillMeasure(page, 'Copies', '8');
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await page.getByRole('link', { name: 'Tiles on a table' }).click();
  const table = page.getByRole('region', { name: 'Table', exact: true });
  await fillMeasure(page, /^Table across/, '30"');
  await fillMeasure(page, /^Table up/, '30"');
  await expect(
    table.getByText(/With width across: 7 × 5 places, 35 in all; a strip of 51\smm left at the side/),
  ).toBeVisible();
  await expect(table.getByText(/With length across: 5 × 7 places/)).toBeVisible();
  // A straight creek runs from south to north of its tile: let it run up the table.
  for (const side of ['west edge, row 2', 'east edge, row 2'])
    await table.getByRole('button', { name: `Water at the ${side}` }).click();
  for (const side of ['south edge, column 3', 'north edge, column 3'])
    await table.getByRole('button', { name: `Water at the ${side}` }).click();
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status').first()).toContainText('5 tiles, all in stock.');
  await table.getByRole('button', { name: 'length across' }).click();
  await expect(table.getByRole('button', { name: /^Column 5, row 7/ })).toBeVisible();
});

test('a tile that is resized keeps its ports in the middle, in one undo; a switch keeps them in place', async ({
  page,
}) => {
  await makeSet(page, 'Resize Test', '15');
  await addPiece(page, 'Tile, straight channel');
  const port = page.getByRole('slider', { name: 'Channel, south port' });
  await expect(port).toHaveAttribute('aria-valuetext', '70 mm along the south edge');
  await fillMeasure(page, /^Width, mm/, '200');
  await expect(port).toHaveAttribute('aria-valuetext', '100 mm along the south edge');
  await expect(page.getByRole('button', { name: /^Undo “Change width/ })).toBeVisible();
  await page.getByRole('button', { name: /^Undo “Change width/ }).click();
  await expect(port).toHaveAttribute('aria-valuetext', '70 mm along the south edge');
  await expect(page.getByRole('textbox', { name: /^Width, mm/ })).toHaveValue('140');
  await page.getByRole('checkbox', { name: 'A new size takes ports, points and solids along' }).uncheck();
  await fillMeasure(page, /^Width, mm/, '200');
  await expect(page.getByRole('textbox', { name: /^Width, mm/ })).toHaveValue('200');
  await expect(port).toHaveAttribute('aria-valuetext', '70 mm along the south edge');
});

test('a noisy scan of 160 000 samples is kept, planned, and still there after a reload', async ({ page }) => {
  const outline = { kind: 'rectangle', widthMm: 140, lengthMm: 140 } as const;
  const random = seeded(7);
  const grid = flatGrid(outline, 18, 0.35);
  for (let i = 0; i < grid.heightMm.length; i++) {
    const [x, y] = [((i % grid.columns) + 0.5) * 0.35 - 70, (Math.floor(i / grid.columns) + 0.5) * 0.35 - 70];
    const bowl = Math.hypot(x, y) < 45 ? 9 : 18;
    grid.heightMm[i] = bowl + random() * 1.2;
  }
  await makeSet(page, 'Noise Test', '15');
  await page.getByRole('button', { name: 'From a scan or drawing' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles({
      name: 'rough_pond.stl',
      mimeType: 'model/stl',
      buffer: Buffer.from(bedStl(grid, outlineSize(outline), 'rough')),
    });
  const wide = page.waitForResponse(/\/api\/edits\/large$/);
  await page.getByRole('button', { name: 'Make a new piece of it' }).click();
  expect((await wide).status()).toBe(200);
  // Named after its file. A disc of 45 mm, 15 − 9.6 mm deep: 34.4 ml.
  await expect(page.getByRole('button', { name: /rough pond/ }).first()).toBeVisible();
  await expect(reading(page, 'Water in each')).toHaveText(/^3[3-5]\.\d/);
  const water = await reading(page, 'Water in each').innerText();
  await page.reload();
  await expect(reading(page, 'Water in each')).toHaveText(water);
  await choose(page, 'The bed is made', /already; it was scanned/);
});
