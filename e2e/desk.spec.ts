import { addPiece, awake, expect, fillMeasure, makeSet, pick, reading, test } from './guarded';

test('the level is dragged on the strip and moved by key; figures follow', async ({ page }) => {
  await makeSet(page, 'Level Test');
  await addPiece(page, 'Whole basin inside a rim');
  const level = page.getByRole('slider', { name: 'Level above the underside' });
  const water = reading(page, 'Water in each');
  await expect(water).toHaveText('98.3');
  await level.focus();
  await page.keyboard.press('PageUp');
  await expect(level).toHaveAttribute('aria-valuetext', /16\.0/);
  await expect(water).toHaveText('114.7');
  const box = (await level.boundingBox())!;
  await page.mouse.move(box.x + 20, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 20, box.y + box.height / 2 + 40, { steps: 8 });
  await page.mouse.up();
  await expect(level).toHaveAttribute('aria-valuetext', /^1[0-4]\.\d/);
  await expect(page.getByText(/Drawn for a level of 15\.0\smm; the set now stands at 1[0-4]\.\d/)).toBeVisible();
  await page.getByRole('button', { name: 'Redraw the bed for it' }).click();
  await expect(water).toHaveText('98.3');
});

test('a port is dragged on the plan and nudged by key', async ({ page }) => {
  await makeSet(page, 'Port Test');
  await addPiece(page, 'Tile, straight channel');
  const port = page.getByRole('slider', { name: 'Channel, south port' });
  await port.focus();
  await page.keyboard.press('ArrowRight');
  await expect(port).toHaveAttribute('aria-valuetext', '71 mm along the south edge');
  const [knob, sheet] = [
    (await port.locator('circle').last().boundingBox())!,
    (await page
      .getByRole('img', { name: /from above/ })
      .first()
      .boundingBox())!,
  ];
  await page.mouse.move(knob.x + knob.width / 2, knob.y + knob.height / 2);
  await page.mouse.down();
  await page.mouse.move(sheet.x + sheet.width * 0.7, sheet.y + sheet.height - 2, { steps: 10 });
  await page.mouse.up();
  await expect(page.getByRole('button', { name: /Undo “Move channel, south port/ })).toBeVisible();
  await expect(port).toHaveAttribute('aria-valuetext', /^9\d(\.5)? mm along the south edge/);
  const west = page.getByRole('slider', { name: /Channel, (west|south) port/ });
  await page.keyboard.press('Control+z');
  await expect(west.first()).toHaveAttribute('aria-valuetext', '71 mm along the south edge');
});

test('undo takes back the edit that it names, whatever another window did meanwhile', async ({ page, context }) => {
  await makeSet(page, 'Two Windows');
  await addPiece(page, 'Whole basin inside a rim');
  const level = page.getByRole('slider', { name: 'Level above the underside' });
  await level.focus();
  await page.keyboard.press('PageUp');
  await expect(level).toHaveAttribute('aria-valuetext', /16\.0/);
  await expect(page.getByRole('button', { name: 'Undo “Move the level”' })).toBeVisible();
  const other = await context.newPage();
  await other.goto('/shelf');
  await awake(other);
  await pick(other, 'Bought a product', 'Clear sealant');
  await expect(other.getByRole('complementary', { name: /^Bottle/ })).toBeVisible();
  // What the other window bought is the last edit now; on this desk the level is meant.
  await page.keyboard.press('Control+z');
  await expect(level).toHaveAttribute('aria-valuetext', /15\.0/);
});

test('a figure opens to how it came about', async ({ page }) => {
  await page.goto('/sets/heron-slack/pour?batch=hs-batch-3');
  await page.getByRole('button', { name: 'Part A' }).click();
  const how = page.getByRole('dialog');
  await expect(how).toContainText('1 : 1 by volume');
  await expect(how).toContainText('1.137 : 1');
  await how.getByRole('button', { name: 'Close' }).click();
  await expect(how).toBeHidden();
});

test('keys: stages by number, the list by ?, the finder by /', async ({ page }) => {
  await page.goto('/sets/heron-slack/shape');
  await expect(reading(page, 'Water in each')).toHaveText(/\d/);
  await page.keyboard.press('4');
  await expect(page).toHaveURL(/\/pour/);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Help' })).toContainText('Go to Cure');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('skerry');
  await expect(page.getByText('Nothing is called that', { exact: false })).toBeVisible();
  await page.getByRole('combobox').fill('rocky');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /SH-B Shore board, rocky/ })).toHaveAttribute('aria-pressed', 'true');
});

test('a set is removed, and taken back from the list of sets', async ({ page }) => {
  await makeSet(page, 'Gone And Back');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('button', { name: 'Change the set' }).click();
  await page.getByRole('button', { name: 'Remove this set' }).click();
  await expect(page.getByRole('heading', { name: 'Sets', level: 1 })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Gone And Back' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo “Remove Gone And Back”' }).click();
  await page.getByRole('link', { name: 'Gone And Back' }).click();
  await expect(reading(page, 'Water in each')).toHaveText('98.3');
});

test('the first pour is moved along the cure line', async ({ page }) => {
  await makeSet(page, 'Cure Test');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('link', { name: 'Cure', exact: true }).click();
  await page.getByRole('link', { name: 'One batch' }).click();
  await page.getByRole('button', { name: 'Plan a batch' }).click();
  const pour = page.getByRole('slider', { name: 'First pour' });
  const before = (await pour.getAttribute('aria-valuetext'))!;
  await pour.focus();
  await page.keyboard.press('PageUp');
  await expect(pour).not.toHaveAttribute('aria-valuetext', before);
  await expect(page.getByRole('button', { name: /Undo “Pour Batch 1 at another time/ })).toBeVisible();
});

test('a recipe follows its doses; a product in use is not thrown out', async ({ page, expectComplaint }) => {
  expectComplaint(/409/);
  await makeSet(page, 'Tint Test');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('link', { name: 'Tint', exact: true }).click();
  await page.getByRole('button', { name: 'Add a recipe' }).click();
  // Others of that name may stand on the shelf: this one is chosen.
  await expect(page.getByRole('button', { name: 'New recipe', pressed: true })).toBeVisible();
  await pick(page, 'Add a colourant', 'Deep green ink');
  const dose = page.getByRole('textbox', { name: /Deep green ink/ });
  await dose.fill('0.1');
  await dose.press('Enter');
  await expect(reading(page, 'Smallest cup for drops')).toHaveText('31.9');
  await dose.fill('1.5');
  await dose.press('Enter');
  await expect(page.getByText('water-based colourant; over 1', { exact: false })).toBeVisible();

  await page.goto('/shelf');
  await page.getByRole('button', { name: /Slow casting epoxy 2:1/ }).click();
  await page.getByRole('button', { name: 'Remove Slow casting epoxy' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Tint Test' })).toBeVisible();
});

test('by keyboard alone: a new set, its first piece in inches, a rock, taken back from within its own field', async ({
  page,
}) => {
  const focused = page.locator(':focus');
  const tabTo = async (name: RegExp): Promise<void> => {
    for (let i = 0; i < 80; i++) {
      await page.keyboard.press('Tab');
      if (name.test((await focused.getAttribute('aria-label')) ?? (await focused.textContent()) ?? '')) return;
    }
    throw new Error(`No ${name} within 80 steps`);
  };
  await page.goto('/');
  await awake(page);
  await tabTo(/^New set$/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Name' })).toBeFocused();
  await page.keyboard.type('Keys Only');
  await page.keyboard.press('Tab');
  await page.keyboard.press('Tab');
  await page.keyboard.type('1/2 in');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Tile, straight channel' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: /^T-1/ })).toBeFocused();
  await tabTo(/^Width, mm/);
  await page.keyboard.type('6 in');
  await page.keyboard.press('Enter');
  await expect(focused).toHaveValue('152.4');
  await tabTo(/^Add to the bed/);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('menuitem').first()).toBeFocused();
  await page.keyboard.type('ro');
  await page.keyboard.press('Enter');
  const foot = page.getByRole('textbox', { name: 'Across its foot, mm' });
  await expect(foot).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(foot).toHaveCount(0);
  await expect(page.getByRole('textbox', { name: /^Width, mm/ })).toHaveValue('152.4');
});

test('back from the shelf a set is as it is by now, and so is the list of sets', async ({ page }) => {
  await makeSet(page, 'Back Again', '15');
  await addPiece(page, 'Tile, straight channel');
  const tile = page.getByRole('button', { name: /^T-1/ }).first();
  await expect(tile).toBeVisible();
  await page.getByRole('link', { name: 'Shelf', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Products' }).first()).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Back Again', level: 1 })).toBeVisible();
  await expect(tile).toBeVisible();
  await fillMeasure(page, 'Copies', '3');
  await page.getByRole('link', { name: 'Aguada' }).click();
  const row = page.getByRole('row').filter({ hasText: 'Back Again' });
  await expect(row).toContainText('3 tiles');
});
