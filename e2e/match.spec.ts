import AxeBuilder from '@axe-core/playwright';
import { addPiece, choose, expect, fillMeasure, makeSet, pick, reading, test, ownSample } from './guarded';
import type { Page } from '@playwright/test';

/** Goes to a part of the Match stage. */
const part = (page: Page, name: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Parts of Match' }).getByRole('link', { name }).click();

test('a set gets a standard, two boards are measured, the step is seen, the shim is taken, the step closes', async ({
  page,
}) => {
  await makeSet(page, 'Shim Test', '15');
  await addPiece(page, 'Board with a shore');
  await fillMeasure(page, /^Copies/, '3');
  await expect(page.getByText('3 boards')).toBeVisible();
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await part(page, 'Edge standards');
  const standards = page.getByRole('region', { name: 'Edge standards' });
  await pick(standards, 'Take one from', 'S-1 east');
  await expect(standards.getByRole('button', { name: 'S-1 east', exact: true })).toBeVisible();

  await part(page, 'Measuring');
  for (const [edge, place] of [
    ['east', 'start'],
    ['west', 'start'],
  ] as const) {
    const field = page.getByRole('textbox', { name: `S-1 #2 ${edge}, level at the ${place}` });
    await field.fill('14.1');
    await field.press('Enter');
    await expect(page.getByRole('textbox', { name: `S-1 #2 ${edge}, level at the end` })).toHaveValue('14.1');
  }
  await expect(page.getByText('2 of 9 edges are measured')).toBeVisible();

  await part(page, 'Row of boards');
  const row = page.getByRole('region', { name: 'Row of boards' });
  await row.getByRole('button', { name: 'the levels differ by 0.9 mm' }).first().click();
  await expect(reading(page, 'Step')).toHaveText('0.9');
  const closing = page.getByRole('region', { name: 'What closes it' });
  await expect(closing.getByText(/Shim S-1 #2 by 0\.9\smm/)).toBeVisible();
  await expect(closing.getByText(/Or top S-1 #2 up by 0\.9\smm, [\d.]+\sg of clear mix/)).toBeVisible();
  await closing.getByRole('button', { name: 'Lay the shim under S-1 #2' }).click();
  await expect(row.getByText('closes', { exact: true })).toHaveCount(2);
  await expect(reading(page, 'Step')).toHaveText('0.0');
  await expect(page.getByText('S-1 #2 stands on shims')).toBeVisible();
  await page.getByRole('button', { name: 'Take all shims out' }).click();
  await expect(row.getByText('the levels differ by 0.9 mm').first()).toBeVisible();

  // From the maker's own strips the worst step cannot be closed, only lessened.
  const strips = page.getByRole('textbox', { name: /^Shim strips at hand/ });
  await strips.fill('0.5, 1');
  await strips.press('Enter');
  await expect(page.getByText(/falls from 0\.9\smm to 0\.1\smm/)).toBeVisible();
  await page.getByRole('button', { name: 'Lay these shims' }).click();
  await expect(page.getByText('They lie there.')).toBeVisible();
  await expect(row.getByText('closes', { exact: true })).toHaveCount(2);
});

test('the best order of four boards: walked along, pinned, kept apart, and still so after a reload', async ({
  page,
}) => {
  await page.goto(`/sets/${await ownSample(page, 'Row of my own')}/match?show=row`);
  const row = page.getByRole('region', { name: 'Row of boards' });
  await expect(row).toContainText('No order is better.');
  await expect(row).toContainText(/\d+ % of all orders pass/);
  await expect(row.getByText(/spoils most: it does not (pass|close) with \d of 3/)).toBeVisible();
  const boards = row.getByRole('listitem');
  await expect(boards).toHaveCount(4);
  const walk = page.getByRole('group', { name: /^The row of boards at eye level/ });
  await expect(page.getByText('joint 1 of 3')).toBeVisible();
  await walk.focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByText('joint 2 of 3')).toBeVisible();

  await boards.last().getByRole('button', { name: 'keep at the right end' }).click();
  await expect(boards.last().getByRole('button', { name: 'unpin' })).toHaveAttribute('aria-pressed', 'true');
  const last = await boards.last().locator('strong').innerText();
  await page.reload();
  await expect(boards.last().locator('strong')).toHaveText(last);
  await expect(boards.last().getByRole('button', { name: 'unpin' })).toBeVisible();

  const [first, second] = [
    await boards.nth(0).locator('strong').innerText(),
    await boards.nth(1).locator('strong').innerText(),
  ];
  await choose(row, 'Keep a board apart', first);
  await pick(row, 'Keep it apart from', second);
  await expect(row.getByText(`${first} and ${second} are kept apart.`)).toBeVisible();
  await expect
    .poll(async () => {
      const names = await boards.locator('strong').allInnerTexts();
      return Math.abs(names.indexOf(first) - names.indexOf(second));
    })
    .toBeGreaterThan(1);
});

test('an edge standard is taken, given, drawn to, and cut as gauges', async ({ page }) => {
  await makeSet(page, 'Standard Test', '15');
  await addPiece(page, 'Tile, straight channel');
  const before = await reading(page, 'Water in each').innerText();
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await part(page, 'Edge standards');
  const standards = page.getByRole('region', { name: 'Edge standards' });
  await pick(standards, 'Take one from', 'T-1 north');
  const own = standards.getByRole('button', { name: 'T-1 north', exact: true });
  await expect(own).toBeVisible();
  const who = page.getByRole('region', { name: 'Who keeps to what' });
  await choose(who, 'Standard of T-1 south', 'T-1 north');
  await expect(who.getByText('keeps to it')).toBeVisible();
  // It was just added and stands open.
  await fillMeasure(page, /^Depth, mm/, '4');
  await expect(who.getByText(/Carved .*mm low, \d+\smm from the left; drawn to it all the same/)).toBeVisible();
  await fillMeasure(page, /^Width at the level/, '160');
  await expect(standards.getByText('Its water reaches past the end of the edge', { exact: false })).toBeVisible();
  await page.getByRole('textbox', { name: /^Width at the level/ }).press('Escape');
  for (const [name, file] of [
    ['male, SVG', 'T-1-north-male.svg'],
    ['female, STL', 'T-1-north-female.stl'],
  ] as const) {
    const saved = page.waitForEvent('download');
    await standards.getByRole('button', { name, exact: true }).click();
    expect((await saved).suggestedFilename()).toBe(file);
  }
  // The tile holds less water now that its south end is drawn shallower.
  await page.getByRole('link', { name: 'Shape', exact: true }).click();
  await expect.poll(async () => Number(await reading(page, 'Water in each').innerText())).toBeLessThan(Number(before));
  await expect(page.getByRole('note', { name: 'Edges off their standard' })).toContainText(
    /The south edge is carved .*mm lower than T-1 north, \d+\smm from its left; its last 12\smm are drawn to it\./,
  );
  await page.goBack();
  await page.getByRole('button', { name: 'T-1 north', exact: true }).click();
  await page.getByRole('link', { name: 'Print both at true size' }).click();
  await expect(page.getByRole('img', { name: 'A bar of 50 mm to check the print by' })).toHaveAttribute(
    'width',
    '52mm',
  );
  await expect(page.getByRole('img', { name: /T-1 north · (fe)?male, true size/ })).toHaveCount(2);
});

test('bases stand free: nothing to match, and no empty lists', async ({ page }) => {
  await makeSet(page, 'Free Test', '8');
  await addPiece(page, 'Round base with a pool');
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await expect(page.getByText('These pieces stand free')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Seams, worst first' })).toHaveCount(0);
  await expect(page.getByRole('navigation', { name: 'Parts of Match' })).toHaveCount(0);
});

test('a creek is laid across a table with a fork; kept, printed; one that needs an extra bend says so', async ({
  page,
}) => {
  await page.goto(`/sets/${await ownSample(page, 'Table of my own')}/match?show=table`);
  const table = page.getByRole('region', { name: 'Table', exact: true });
  await expect(table.getByRole('button', { name: 'Column 3, row 2: a fork is wanted' })).toBeVisible();
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status')).toContainText(/\d+ tiles, all in stock\./);
  await expect(table.getByRole('button', { name: /^Column 3, row 2: HS-3.*; a fork is wanted/ })).toBeVisible();
  await expect(page.getByText('joint 1 of')).toBeVisible();
  await table.getByRole('radio', { name: 'keep this tile' }).check();
  await table.getByRole('button', { name: /^Column 2, row 2/ }).click();
  await expect(table.getByRole('button', { name: /^Column 2, row 2: HS-\d.*, kept/ })).toBeVisible();
  await table.getByRole('button', { name: 'Another layout' }).click();
  await expect(table.getByRole('status')).toContainText(/all in stock\./);
  await expect(table.getByRole('button', { name: /^Column 2, row 2: HS-\d.*, kept/ })).toBeVisible();
  await table.getByRole('button', { name: 'Keep this layout' }).click();
  await table.getByRole('link', { name: 'Print it' }).click();
  await expect(page.getByRole('heading', { name: 'Table of my own: Club night' })).toBeVisible();
  await expect(page.getByText(/1 × HS-3/)).toBeVisible();
  await page.getByRole('link', { name: 'Back to the tables' }).click();
  await expect(page.getByRole('button', { name: 'Club night, laid' })).toBeVisible();

  // Two more ways out ask for more forks than there are.
  for (const column of [2, 4])
    await table.getByRole('button', { name: `Water at the south edge, column ${column}` }).click();
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status')).toContainText(/It needs .*more HS-3/);
});

test('a second table is added, and what to make for both is worked out; wishes that contradict are named', async ({
  page,
}) => {
  await makeSet(page, 'Make Test', '15');
  for (const [tile, name] of [
    ['Tile, straight channel', 'Creek straight'],
    ['Tile, curved channel', 'Creek bend'],
  ] as const) {
    await addPiece(page, tile);
    await expect(page.getByRole('region', { name: `Measures of ${name}` })).toBeVisible();
    await fillMeasure(page, /^Copies/, '1');
  }
  await expect(page.getByText('2 tiles')).toBeVisible();
  await page.getByRole('link', { name: 'Match', exact: true }).click();
  await part(page, 'Tiles on a table');
  const table = page.getByRole('region', { name: 'Table', exact: true });
  await table.getByRole('button', { name: 'Lay it' }).click();
  await expect(table.getByRole('status')).toContainText(/It needs \d more T-\d; fewer will not do/);
  // The set's water is clear: nothing may be written on its pale tint.
  const { violations } = await new AxeBuilder({ page }).withTags(['wcag2aa']).analyze();
  expect(
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
  ).toEqual([]);
  await page.getByRole('button', { name: 'Another table' }).click();
  await table.getByRole('button', { name: 'Water at the east edge, row 2' }).click();
  await table.getByRole('button', { name: 'Water at the north edge, column 1' }).click();
  const make = page.getByRole('region', { name: 'What to make' });
  await make.getByRole('button', { name: 'Work it out' }).click();
  await expect(make.getByRole('status')).toContainText(/Make \d pieces?: .*Fewer will not do\./);
  await table.getByRole('radio', { name: 'no tile here' }).check();
  await table.getByRole('button', { name: /^Column 1, row 2/ }).click();
  await expect(table.getByRole('alert').first()).toContainText('Water is wanted at column 1, row 2, which is blocked.');
  await table.getByRole('checkbox', { name: 'a fork somewhere' }).check();
  await expect(table.getByText('A fork is wanted, but no tile has water at three sides.')).toBeVisible();
});

test('readings come in from a CSV, all of them or none', async ({ page }) => {
  await page.goto(`/sets/${await ownSample(page, 'Measures of my own')}/match?show=measure`);
  const file = page.getByLabel('A CSV of edge readings');
  const csv = (rows: string): { name: string; mimeType: string; buffer: Buffer } => ({
    name: 'bench.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`piece,edge,reading,along_mm,height_mm\n${rows}`),
  });
  const level = page.getByRole('textbox', { name: 'HS-2 #3 south, level at the start' });
  await expect(level).toHaveValue('');
  await file.setInputFiles(csv('HS-2 #3,south,level,0,14.7\nHS-2 #9,south,level,0,14.7'));
  await expect(page.getByText('Line 3: HS-2 has 3 copies; there is no #9.')).toBeVisible();
  await expect(level).toHaveValue('');
  await file.setInputFiles(csv('HS-2 #3,south,level,0,13.9\nHS-2 #3,south,bed,70,8.4'));
  await expect(page.getByText('Readings of 1 piece taken in.')).toBeVisible();
  await expect(level).toHaveValue('13.9');
  await expect(page.getByRole('textbox', { name: 'HS-2 #3 south, bed reading 1, along' })).toHaveValue('70');
  await expect(page.getByRole('textbox', { name: 'HS-2 #3 south, bed reading 1, height' })).toHaveValue('8.4');
  await part(page, 'Seams');
  await expect(page.getByRole('button', { name: /HS-1 north and HS-2 #3 south/ })).toContainText(
    'the levels differ by 1.1 mm',
  );
  await choose(page, 'Hold this edge', 'HS-1 north');
  await choose(page, 'against this one', 'SH-A east');
  await expect(
    page.getByText(/It shows: the edges are (140\smm and 300|300\smm and 140)\smm long: only equal ones can meet\./),
  ).toBeVisible();
});

test('a level gauge fills the levels in the order of the bench, simulated or by the open protocol', async ({
  page,
}) => {
  const setId = await ownSample(page, 'Gauge Slack');
  await page.goto(`/sets/${setId}/match?show=measure`);
  const fields = page.locator('input[data-gauge]');
  await expect(fields.first()).toBeVisible();
  const sources = page.getByRole('group', { name: 'Where levels come from' });
  await sources.getByRole('button', { name: 'simulated' }).click();
  const first = page.locator('input[data-gauge]').filter({ visible: true }).first();
  await first.fill('');
  await first.press('Enter');
  await first.focus();
  await page.keyboard.press(' ');
  await expect(first).toHaveValue(/^1[45]\.?\d*$/);
  // The next field has the focus: the row goes on by the space bar alone.
  await expect(fields.nth(1)).toBeFocused();
  await sources.getByRole('button', { name: 'what is on the bench' }).click();
  await fields.nth(2).focus();
  await expect(async () => {
    await page.request.post('/api/readings', {
      headers: { 'content-type': 'application/json' },
      data: { device: 'gauge', value: 14.87 },
    });
    await expect(fields.nth(2)).toHaveValue('14.87', { timeout: 1000 });
  }).toPass();
});
