import { buildBed } from '../src/core/bed/buildBed';
import { outlineSize } from '../src/core/bed/outline';
import type { Feature } from '../src/core/model/designSchema';
import { testDesign } from '../src/core/bed/testShapes';
import { bedStl } from '../src/core/formats/stl';
import { addPiece, choose, expect, fillMeasure, makeSet, ownSample, pick, reading, test } from './guarded';

/** A tile with a pond whose bank has a notch down to 16.5 mm at its east edge. */
function notchedPond(): Buffer {
  const pond: Feature = {
    kind: 'pool',
    id: 'p',
    xMm: 70,
    yMm: 70,
    widthMm: 80,
    lengthMm: 80,
    depthMm: 6,
    section: 'trapezoid',
    bankSlope: 0,
  };
  const notch: Feature = {
    kind: 'channel',
    id: 'n',
    from: { edge: 'east', positionMm: 70 },
    to: { edge: 'west', positionMm: 70 },
    widthMm: 10,
    depthMm: 0.1,
    section: 'trapezoid',
    bankSlope: 0,
    via: [{ xMm: 90, yMm: 70, widthMm: null, depthMm: null }],
    endsInside: true,
  };
  const design = testDesign([pond]);
  const notched = testDesign([notch], { drawnLevelMm: 16.6 });
  const [bed, cut] = [buildBed(design, 0.8), buildBed(notched, 0.8)];
  return Buffer.from(
    bedStl(
      { ...bed, heightMm: bed.heightMm.map((z, i) => Math.min(z, cut.heightMm[i]!)) },
      outlineSize(design.outline),
      'notched pond',
    ),
  );
}

test('a forked creek tile, drawn by hand: the grams follow every move', async ({ page }) => {
  await makeSet(page, 'Fork Test');
  await addPiece(page, 'Tile, straight channel');
  await expect(reading(page, 'Water in each')).toHaveText(/\d/);
  const straight = await reading(page, 'Water in each').innerText();
  await pick(page, 'Add to the bed', 'Fork');
  await page.getByRole('button', { name: /Remove channel from/ }).click();
  await expect(page.getByRole('slider', { name: 'Fork, south port' })).toBeVisible();
  await expect(page.getByText(/^dam \d/)).toHaveCount(3);
  await expect(reading(page, 'Water in each')).not.toHaveText(straight);
  const before = await reading(page, 'Water in each').innerText();

  const joint = page.getByRole('slider', { name: 'Fork, where the arms part' });
  await joint.focus();
  for (let i = 0; i < 4; i++) await joint.press('Shift+ArrowUp');
  await expect(joint).toHaveAttribute('aria-valuetext', /90 mm up/);
  await expect(reading(page, 'Water in each')).not.toHaveText(before);

  // Dragged near the middle of its edge a port is caught by it.
  const box = (await page.getByRole('img', { name: /from above/ }).boundingBox())!;
  const port = (await page.getByRole('slider', { name: 'Fork, south port' }).boundingBox())!;
  await page.mouse.move(port.x + port.width / 2, port.y + port.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height - 3, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByRole('slider', { name: 'Fork, south port' })).not.toHaveAttribute('aria-valuetext', /^70 mm/);
  const moved = (await page.getByRole('slider', { name: 'Fork, south port' }).boundingBox())!;
  await page.mouse.move(moved.x + moved.width / 2, moved.y + moved.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.515, box.y + box.height - 3, { steps: 3 });
  await page.mouse.up();
  await expect(page.getByRole('slider', { name: 'Fork, south port' })).toHaveAttribute('aria-valuetext', /^70 mm/);
});

test('a channel is led through points: put in by double-click and by key, taken out again', async ({ page }) => {
  await makeSet(page, 'Point Test');
  await addPiece(page, 'Tile, straight channel');
  const box = (await page.getByRole('img', { name: /from above/ }).boundingBox())!;
  await page.mouse.dblclick(box.x + box.width / 2, box.y + box.height * 0.4);
  const first = page.getByRole('slider', { name: 'Channel point 1' });
  await expect(first).toHaveAttribute('aria-valuetext', /^70(\.\d)? mm across, 8[34](\.\d)? mm up/);
  const straight = await reading(page, 'Water in each').innerText();
  await first.focus();
  for (let i = 0; i < 5; i++) await first.press('Shift+ArrowRight');
  await expect(reading(page, 'Water in each')).not.toHaveText(straight);
  await first.press('Insert');
  await expect(page.getByRole('slider', { name: 'Channel point 2' })).toBeVisible();
  const width = page.getByRole('group', { name: 'Channel point 1' }).getByRole('textbox', { name: /^Width, mm/ });
  await width.fill('30');
  await width.press('Enter');
  await expect(width).toHaveValue('30');
  await expect(page.getByRole('button', { name: /Undo “Change the width at channel point 1/ })).toBeVisible();
  // By the rows: a new point's field has the focus, and after it is taken out that of the one beside it.
  await page.getByRole('button', { name: 'Add a channel point' }).click();
  await expect(page.getByRole('slider', { name: 'Channel point 3' })).toBeVisible();
  await expect(page.getByRole('group', { name: /^Channel point \d/ }).locator(':focus')).toHaveCount(1);
  await page.getByRole('button', { name: 'Take out channel point 3' }).click();
  await expect(page.getByRole('group', { name: 'Channel point 2' }).getByRole('textbox').first()).toBeFocused();
  await page.getByRole('slider', { name: 'Channel point 2' }).press('Delete');
  await expect(page.getByRole('slider', { name: 'Channel point 2' })).toHaveCount(0);
});

test('a scan is imported, the level set, and the spill shown at its place', async ({ page }) => {
  await makeSet(page, 'Scan Test', '15');
  await page.getByRole('button', { name: 'From a scan or drawing' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles({
      name: 'notes.stl',
      mimeType: 'model/stl',
      buffer: Buffer.from('these are only words, not a solid'),
    });
  await expect(page.getByRole('alert')).toContainText(/notes\.stl: This is no STL/);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'pond.stl', mimeType: 'model/stl', buffer: notchedPond() });
  await expect(page.getByText(/triangles, 140 × 140 × 18 units/)).toBeVisible();
  await expect(page.getByText(/its hollows hold (29|30)\.\d\sml/)).toBeVisible();
  await choose(page, 'Its units are', 'inches');
  await expect(page.getByRole('alert')).toContainText('Choose smaller units');
  await choose(page, 'Its units are', 'mm');
  await page.getByRole('button', { name: 'Make a new piece of it' }).click();

  await expect(page.getByText(/heights, 0\.\d+ mm apart/)).toBeVisible();
  await expect(reading(page, 'Water in each')).toHaveText(/^(29|30)\.\d/);
  await expect(reading(page, 'Would run over at')).toHaveText('16.5');
  const level = page.getByRole('slider', { name: 'Level above the underside' });
  await level.focus();
  await level.press('PageUp');
  await expect(reading(page, 'Water in each')).toHaveText(/^3[45]\.\d/);
  await level.press('PageUp');
  await expect(page.getByText(/dam \d+/)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(reading(page, 'Water in each')).toHaveText(/^(29|30)\.\d/);
});

test('a scan lower than the level is told apart: water of its hollow, water over its land, and the floor that mends it', async ({
  page,
}) => {
  await makeSet(page, 'Low Scan', '15');
  const low = testDesign([], { landMm: 12.3, drawnLevelMm: 11 });
  const hollow: Feature = {
    kind: 'pool',
    id: 'p',
    xMm: 70,
    yMm: 70,
    widthMm: 80,
    lengthMm: 80,
    depthMm: 4,
    section: 'trapezoid',
    bankSlope: 0,
  } as Feature;
  const design = { ...low, features: [hollow] };
  await page.getByRole('button', { name: 'From a scan or drawing' }).click();
  await page
    .locator('input[type=file]')
    .setInputFiles({
      name: 'low.stl',
      mimeType: 'model/stl',
      buffer: Buffer.from(bedStl(buildBed(design, 0.8), outlineSize(design.outline), 'low')),
    });
  const warning = page.getByRole('alert').filter({ hasText: 'over the land of this scan' });
  await expect(warning).toContainText(/stands 2\.7\smm over/);
  await expect(
    page.getByText(/Up to 12\.3\smm its hollows hold \d+\.\d\sml; \d+\.\d\sml more would stand over its land/),
  ).toBeVisible();
  await page.getByRole('button', { name: /^Lay 5\.7\smm of floor/ }).click();
  await expect(warning).toHaveCount(0);
  await expect(page.getByText(/Up to 15\.0\smm its hollows hold \d/)).toBeVisible();
  await page.getByRole('button', { name: 'Make a new piece of it' }).click();
  await expect(page.getByRole('textbox', { name: /^Floor laid under it, mm/ })).toHaveValue('5.7');
  await expect(reading(page, 'Water in each')).toHaveText(/\d/);
});

test('features are put in another order by keys; undo puts them back', async ({ page }) => {
  await makeSet(page, 'Order Test');
  await addPiece(page, 'Tile, straight channel');
  await pick(page, 'Add to the bed', 'Rock');
  const order = page.locator('[data-feature] legend');
  await expect(order).toHaveText(['Channel', 'Rock']);
  const grip = page.getByRole('button', { name: 'Move rock 2' });
  await grip.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('rock 2 lifted, place 2 of 2.')).toBeAttached();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByText('rock 2 over place 1 of 2.')).toBeAttached();
  await page.keyboard.press('Space');
  await expect(order).toHaveText(['Rock', 'Channel']);
  await expect(page.getByRole('button', { name: 'Move rock 1' })).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(order).toHaveText(['Channel', 'Rock']);
});

test('a drawing becomes the outline; an open one is explained', async ({ page }) => {
  await makeSet(page, 'Outline Test');
  await page.getByRole('button', { name: 'From a scan or drawing' }).click();
  const file = (body: string): { name: string; mimeType: string; buffer: Buffer } => ({
    name: 'island.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="120mm" viewBox="0 0 120 90">${body}</svg>`),
  });
  await page.locator('input[type=file]').setInputFiles(file('<path id="bank" d="M0 0h100v60"/>'));
  await expect(page.getByRole('alert')).toContainText('Open: bank');
  await page.locator('input[type=file]').setInputFiles(file('<path d="M5 5h110v50q-50 40 -110 25z"/>'));
  await expect(page.getByRole('img', { name: 'The outline' })).toBeVisible();
  await page.getByRole('button', { name: 'Make a new piece of it' }).click();
  await expect(page.getByRole('combobox', { name: 'Outline' })).toHaveText('Free, by points');
  await expect(reading(page, 'Water in each')).toHaveText(/\d/);
  await choose(page, 'Outline', 'Hexagon');
  await expect(page.getByRole('textbox', { name: /^Across flats/ })).toBeVisible();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByRole('combobox', { name: 'Outline' })).toHaveText('Free, by points');
});

test('a section line shows the cut; the plan is enlarged by key', async ({ page }) => {
  await page.goto(`/sets/${await ownSample(page, 'Beds of my own')}/shape`);
  await page
    .getByRole('button', { name: /^HS-4 / })
    .last()
    .click();
  await page.getByRole('button', { name: 'Section line', exact: true }).click();
  const cut = page.getByRole('figure', { name: 'Section' });
  await expect(cut).toContainText(/9\.\d\smm deep at most/);
  const end = page.getByRole('slider', { name: 'Section line, start' });
  await end.focus();
  for (let i = 0; i < 14; i++) await end.press('Shift+ArrowDown');
  await expect(end).toHaveAttribute('aria-valuetext', '0.0\u00a0mm across, 0.0\u00a0mm up');
  await expect(cut).toContainText(/of 15[67]\.\d\smm under water/);
  const saved = page.waitForEvent('download');
  await cut.getByRole('button', { name: /Save as SVG/ }).click();
  expect((await saved).suggestedFilename()).toBe('HS-4-section.svg');
  await end.press('+');
  await expect(page.getByRole('button', { name: 'Whole piece, now 150 %' })).toBeVisible();
  await end.press('0');
  await expect(page.getByRole('button', { name: 'Whole piece, now 100 %' })).toBeDisabled();
});

test('a pool is given a level of its own; a mirrored variant keeps it', async ({ page }) => {
  await makeSet(page, 'Level Test', '15');
  await addPiece(page, 'Tile, curved channel');
  await pick(page, 'Add to the bed', 'Pool');
  await fillMeasure(page, /^Centre across/, '110');
  await fillMeasure(page, /^Centre up/, '112');
  await fillMeasure(page, /^Width at the level, mm/, '40');
  const pools = page.getByRole('region', { name: 'Pools' });
  await expect(pools.getByRole('heading')).toHaveText(['Pool A', 'Pool B']);
  const before = await reading(page, 'Water in each').innerText();
  const own = pools.getByRole('textbox', { name: /^Its level/ }).last();
  await own.fill('16.5');
  await own.press('Enter');
  await expect(page.getByText('Pool B, at 16.5')).toBeVisible();
  await expect(reading(page, 'Water in each')).not.toHaveText(before);
  const at = await reading(page, 'Water in each').innerText();
  await pick(page, /^Make a variant/, 'mirrored, left for right');
  await page
    .getByRole('button', { name: /^T-1\.2 / })
    .last()
    .click();
  await expect(page.getByText('Pool B, at 16.5')).toBeVisible();
  await expect(reading(page, 'Water in each')).toHaveText(at);
});
