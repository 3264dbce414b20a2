import { addPiece, expect, fillMeasure, makeSet, reading, test } from './guarded';

test('two boards are measured, the step is seen, a shim closes it', async ({ page }) => {
  await makeSet(page, 'Shim Test', '15');
  await addPiece(page, 'Board with a shore');
  await fillMeasure(page, /^Copies/, '3');
  await expect(page.getByText('3 boards')).toBeVisible();
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  const row = page.getByRole('region', { name: 'Row of boards' });
  await expect(row.getByText('closes')).toHaveCount(2);
  await page.getByRole('button', { name: /S-1 east and S-1 west/ }).click();
  await page.getByText(/^Measure the east edge of S-1/).click();
  await page.getByLabel('Copy').first().selectOption('2');
  const edge = page.locator('details[open]');
  for (const place of ['south end', 'middle', 'north end']) {
    const field = edge.getByRole('textbox', { name: new RegExp(`^Level, ${place}`) }).first();
    await field.fill('14.1');
    await field.press('Enter');
    await expect(field).toHaveValue('14.1');
  }
  await expect(page.getByRole('button', { name: /S-1 west and S-1 #2 east/ })).toContainText('the levels differ by 0.9 mm');
  await expect(row).toContainText('S-1 #2');

  await page.getByRole('button', { name: /S-1 west and S-1 #2 east/ }).click();
  await expect(reading(page, 'Step')).toHaveText('0.9');
  await expect(page.getByText(/Shim S-1 #2 by 0\.9\smm/)).toBeVisible();
  const strips = row.getByRole('textbox', { name: /^Shim strips at hand/ });
  await strips.fill('0.5, 1');
  await strips.press('Enter');
  await expect(strips).toHaveValue('0.5, 1');
});

test('the best order of four boards; a pin moves it; contradictory pins cannot be set', async ({ page }) => {
  await page.goto('/sets/heron-slack/match');
  const row = page.getByRole('region', { name: 'Row of boards' });
  await expect(row).toContainText('No order is better.');
  await expect(row).toContainText(/\d+ % of all orders pass/);
  const boards = row.getByRole('listitem');
  await expect(boards).toHaveCount(4);
  const last = await boards.last().locator('strong').innerText();
  await boards.last().getByRole('button', { name: 'pin here' }).click();
  await expect(boards.last().locator('strong')).toHaveText(last);
  await expect(boards.last().getByRole('button', { name: 'unpin' })).toHaveAttribute('aria-pressed', 'true');
  await row.getByRole('button', { name: /the beds differ by/ }).first().click();
  await expect(page.getByRole('region', { name: 'The seam' })).toContainText(/SH-[AB] (east|west) and SH-[AB] (east|west)/);
});

test('an edge standard is taken, given, departed from, and cut as a gauge', async ({ page }) => {
  await makeSet(page, 'Standard Test', '15');
  await addPiece(page, 'Tile, straight channel');
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  const standards = page.getByRole('region', { name: 'Edge standards' });
  await standards.getByLabel('Take one from').selectOption({ label: 'T-1 north' });
  const own = standards.locator('summary').filter({ hasText: 'T-1 north' });
  await expect(own).toBeVisible();
  await standards.getByLabel('Standard of T-1 south').selectOption({ label: 'T-1 north' });
  await expect(standards.getByText('keeps to it')).toBeVisible();
  await own.click();
  await fillMeasure(page, /^Depth, mm/, '4');
  await expect(standards.getByText(/mm low, \d+\smm from the left/)).toBeVisible();
  const saved = page.waitForEvent('download');
  await standards.getByRole('button', { name: 'male, SVG', exact: true }).click();
  expect((await saved).suggestedFilename()).toBe('T-1-north-male.svg');
});

test('bases stand free: nothing to match, and no empty lists', async ({ page }) => {
  await makeSet(page, 'Free Test', '8');
  await addPiece(page, 'Round base with a pool');
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await expect(page.getByText('These pieces stand free')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Seams, worst first' })).toHaveCount(0);
});

test('a creek is laid across a table; one that needs more bends says which', async ({ page }) => {
  await page.goto('/sets/heron-slack/match');
  const table = page.getByRole('region', { name: 'Table' });
  await table.getByRole('button', { name: /^Column 3, row 3/ }).click();
  await expect(table.getByRole('button', { name: 'Column 3, row 3: water must reach it' })).toBeVisible();
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status')).toContainText(/\d+ tiles, all in stock\./);
  await expect(table.getByRole('button', { name: /^Column 3, row 3: HS-\d.*; water must reach it/ })).toBeVisible();
  await table.getByRole('button', { name: 'Another layout' }).click();
  await expect(table.getByRole('status')).toContainText(/\d+ tiles, all in stock\./);
  // A third way out asks for a fork; without any place left for it the table says so.
  await table.getByRole('button', { name: 'Water at the west edge, row 2' }).click();
  await table.getByRole('button', { name: 'Water at the east edge, row 2' }).click();
  for (const side of ['south edge, column 1', 'south edge, column 4', 'north edge, column 1', 'north edge, column 4']) await table.getByRole('button', { name: `Water at the ${side}` }).click();
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status')).toContainText(/It needs \d more HS-\d|cannot be laid|may be one/);
  await table.getByRole('button', { name: /^Column 3, row 3/ }).click();
  await expect(table.getByRole('button', { name: 'Column 3, row 3: blocked' })).toBeVisible();
});
