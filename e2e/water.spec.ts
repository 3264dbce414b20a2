import { addPiece, choose, expect, makeSet, pick, reading, test } from './guarded';

test('an edge left open is a stop with its mend, and the pour card waits for it', async ({ page }) => {
  await makeSet(page, 'Open Edge');
  await addPiece(page, 'Tile, straight channel');
  await expect(reading(page, 'Would run over at')).toHaveText('18.0');
  await choose(page, 'South edge', 'none, surface tension');
  const warning = page.getByText('Water would run out at the south edge of T-1', { exact: false });
  await expect(warning).toBeVisible();
  await expect(reading(page, 'Would run over at')).toHaveText('9.0');
  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await page.getByRole('button', { name: 'Plan a batch' }).click();
  await expect(page.getByText('Mend what is in the way, then print the pour card.')).toBeVisible();
  await page.getByRole('link', { name: /^Shape/ }).click();
  await page.getByRole('button', { name: /Dam the south edge, 6\d × 18/ }).click();
  await expect(warning).toHaveCount(0);
  await expect(page.getByRole('combobox', { name: 'South edge' })).toHaveText('plastic strip');
});

test('two pools are named, with the saddle between them', async ({ page }) => {
  await makeSet(page, 'Two Pools');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('button', { name: 'Remove basin inside a rim from T-1' }).click();
  for (const [i, [across, width]] of (
    [
      ['40', '58'],
      ['100', '50'],
    ] as const
  ).entries()) {
    await pick(page, 'Add to the bed', 'Pool');
    await expect(page.getByRole('group', { name: 'Pool' })).toHaveCount(i + 1);
    for (const [label, value] of [
      ['Width at the level, mm', width],
      ['Length at the level, mm', width],
      ['Centre across, mm', across],
    ] as const) {
      const field = page.getByRole('group', { name: 'Pool' }).last().getByRole('textbox', { name: label });
      await field.fill(value);
      await field.press('Enter');
      await expect(field).toHaveValue(value);
    }
  }
  const plan = page.getByRole('region', { name: /from above$/ });
  await expect(plan.getByText('Pool A', { exact: true })).toBeVisible();
  await expect(plan.getByText('Pool B', { exact: true })).toBeVisible();
  await expect(page.getByText('2 pools; first into Pool', { exact: false })).toBeVisible();
});

test('six readings shrink the ± and move the grams; a fill test has the last word', async ({ page }) => {
  await makeSet(page, 'Measured');
  await addPiece(page, 'Tile, straight channel');
  const poured = page.locator('dl > div', { has: page.getByText('To pour into each', { exact: true }) });
  const plusMinus = async (): Promise<number> => Number(/± ([\d.]+)/.exec((await poured.textContent())!)![1]);
  await expect(poured).toContainText('carved by hand as drawn');
  const drawn = await plusMinus();

  await choose(page, 'Which bed to show', 'copy #2');
  const readings = page.getByLabel(/^Depths below the level/);
  await readings.fill('70, 20, 6.6\n70, 70');
  await readings.blur();
  await expect(page.getByText('Line 2: three figures are wanted', { exact: false })).toBeVisible();
  await expect(readings).toHaveValue('70, 20, 6.6\n70, 70');
  await readings.fill('70, 20, 6.6\n70, 70, 6.9\n70\t120\t6.5\n55, 45, 6.2\n85, 45, 6.4\n85, 100, 6.3');
  await readings.blur();
  await expect(page.getByRole('heading', { name: 'T-1 #2, as measured' })).toBeVisible();
  await expect(poured).toContainText('as measured');
  expect(await plusMinus()).toBeLessThan(drawn / 2);
  await expect(page.getByText(/Most: 0\.9\smm deeper than drawn at (69|70|71)\.\d\smm across/)).toBeVisible();

  await page.getByRole('textbox', { name: /^Fill test/ }).fill('3 fl oz');
  await page.getByRole('textbox', { name: /^Fill test/ }).press('Enter');
  await expect(reading(page, 'Water in each')).toHaveText('88.7');
  await page.reload();
  await choose(page, 'Which bed to show', 'copy #2, measured');
  await expect(reading(page, 'Water in each')).toHaveText('88.7');
  await page.getByRole('button', { name: 'Forget these measurements' }).click();
  await expect(page.getByRole('heading', { name: 'T-1, each of 4' })).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'T-1 #2, as measured' })).toBeVisible();
});
