import { addPiece, expect, makeSet, reading, test } from './guarded';

test('an edge left open is a stop with its mend, and the pour card waits for it', async ({ page }) => {
  await makeSet(page, 'Open Edge');
  await addPiece(page, 'Tile, straight channel');
  await expect(reading(page, 'Would run over at')).toHaveText('18.0');
  await page.getByLabel('South edge').selectOption('none');
  const warning = page.getByText('Water would run out at the south edge of T-1', { exact: false });
  await expect(warning).toBeVisible();
  await expect(reading(page, 'Would run over at')).toHaveText('9.0');
  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await page.getByRole('button', { name: 'Plan a batch' }).click();
  await expect(page.getByText('Mend what is in the way, then print the pour card.')).toBeVisible();
  await page.getByRole('link', { name: /^Shape/ }).click();
  await page.getByRole('button', { name: /Dam the south edge, 6\d × 18/ }).click();
  await expect(warning).toHaveCount(0);
  await expect(page.getByLabel('South edge', { exact: true })).toHaveValue('plastic strip');
});

test('two pools are named, with the saddle between them', async ({ page }) => {
  await makeSet(page, 'Two Pools');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('button', { name: 'Remove basin inside a rim from T-1' }).click();
  for (const [i, [across, width]] of ([['40', '58'], ['100', '50']] as const).entries()) {
    await page.getByLabel('Add to the bed').selectOption({ label: 'Pool' });
    await expect(page.getByRole('group', { name: 'Pool' })).toHaveCount(i + 1);
    for (const [label, value] of [['Width at the level, mm', width], ['Length at the level, mm', width], ['Centre across, mm', across]] as const) {
      const field = page.getByRole('group', { name: 'Pool' }).last().getByRole('textbox', { name: label });
      await field.fill(value);
      await field.press('Enter');
      await expect(field).toHaveValue(value);
    }
  }
  await expect(page.getByText('Pool A', { exact: true })).toBeVisible();
  await expect(page.getByText('Pool B', { exact: true })).toBeVisible();
  await expect(page.getByText('2 pools; first into Pool', { exact: false })).toBeVisible();
});
