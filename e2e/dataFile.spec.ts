import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import Sqlite from 'better-sqlite3';
import { choose, pick } from './guarded';
import { ended, serve } from './server';
import { expect, test } from './workshop';

const FOLDER = '.test-tmp/files';
test.describe.configure({ mode: 'serial' });
test.beforeAll(() => {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
});

test('an empty start teaches, and loads the sample', async ({ page }) => {
  const { url, server } = await serve(`${FOLDER}/empty.db`);
  try {
    await page.goto(url);
    await expect(page.getByRole('heading', { name: 'Nothing on the table yet' })).toBeVisible();
    // How the maker measures is asked before the first set, and counts at once, one choice after the other.
    await choose(page, 'Lengths in', 'in');
    await choose(page, 'Masses in', 'oz');
    await expect(page.getByRole('combobox', { name: 'Masses in' })).toHaveText('oz');
    await page.getByRole('button', { name: 'New set' }).click();
    await expect(page.getByRole('dialog').getByText('in', { exact: true })).toBeVisible();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Look at the sample, Heron Slack' }).click();
    await page.getByRole('link', { name: 'Heron Slack', exact: true }).click();
    await expect(page.getByText('11 tiles, 4 boards, 24 bases')).toBeVisible();
    await page.goto(url);
    await page.getByRole('button', { name: /^Undo/ }).click();
    await expect(page.getByRole('heading', { name: 'Nothing on the table yet' })).toBeVisible();
  } finally {
    // What the page fetches ahead must not find the server gone.
    await page.close();
    await ended(server);
  }
});

test('a damaged file is explained on the page and by the edit route, and left alone', async ({
  page,
  request,
  expectComplaint,
}) => {
  expectComplaint(/409/);
  writeFileSync(`${FOLDER}/noise.db`, 'not a database at all, and long enough to be read as one '.repeat(40));
  const { url, server } = await serve(`${FOLDER}/noise.db`);
  try {
    await page.goto(url);
    await expect(page.getByRole('heading', { name: 'The data file cannot be used' })).toBeVisible();
    await expect(page.getByText('is damaged or is no Aguada file')).toBeVisible();
    const answer = await request.post(`${url}/api/edits`, {
      data: { command: { do: 'sample' }, wanted: { view: 'sets' } },
    });
    expect(answer.status()).toBe(409);
  } finally {
    await page.close();
    await ended(server);
  }
});

test('while another program holds the file an edit is refused in words, then goes through', async ({
  page,
  expectComplaint,
}) => {
  expectComplaint(/423/);
  const { url, server } = await serve(`${FOLDER}/held.db`);
  const other = new Sqlite(`${FOLDER}/held.db`);
  try {
    await page.goto(url);
    await page.getByRole('button', { name: 'New set' }).click();
    await page.getByLabel('Name', { exact: true }).fill('Held');
    other.exec('begin immediate');
    await page.getByRole('button', { name: 'Make the set' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'in use by another program' })).toBeVisible();
    await expect(page.getByLabel('Name', { exact: true })).toHaveValue('Held');
    other.exec('rollback');
    await page.getByRole('button', { name: 'Make the set' }).click();
    await expect(page.getByRole('heading', { name: 'Held', level: 1 })).toBeVisible();
  } finally {
    other.close();
    await page.close();
    await ended(server);
  }
});

test('fields and figures follow the workshop’s units, also where the sample was drawn in mm', async ({
  page,
  workshop: { url },
}) => {
  await page.goto(`${url}/shelf`);
  await choose(page, 'Lengths in', 'in');
  await expect(page.getByRole('button', { name: /Undo “Change the workshop/ })).toBeVisible();
  await page.goto(`${url}/sets/heron-slack/shape`);
  await expect(page.getByRole('textbox', { name: 'Width, in' })).toHaveValue('5.512');
  await expect(page.getByText('From above, 5 33/64″ × 5 33/64″', { exact: false })).toBeVisible();
});

test('a bench out of level: the corner to raise, from two readings too, and back to level', async ({
  page,
  workshop: { url },
}) => {
  await page.goto(`${url}/sets/heron-slack/shape`);
  await page.getByRole('button', { name: 'Bench: level' }).click();
  const north = page.getByRole('textbox', { name: 'Falls to the north, mm/m' });
  await north.fill('0.2 deg');
  await north.press('Enter');
  await expect(north).toHaveValue('3.49');
  await expect(
    page.getByText('Raise the north-west corner').or(page.getByText('Raise the north-east corner')).first(),
  ).toBeVisible();
  await expect(page.getByText('stands up to 0.2', { exact: false })).toBeVisible();
  for (const [label, value] of [
    ['West, mm', '15.3'],
    ['East, mm', '14.9'],
  ] as const) {
    await page.getByRole('textbox', { name: label, exact: true }).fill(value);
    await page.getByRole('textbox', { name: label, exact: true }).press('Enter');
  }
  await page.getByRole('button', { name: 'Falls 1.3 mm per m to the east: use it' }).click();
  await expect(page.getByRole('textbox', { name: 'Falls to the east, mm/m' })).toHaveValue('1.33');
  await page.getByRole('button', { name: 'It is level now' }).click();
  await expect(page.getByText('Bench: level')).toBeVisible();
  await expect(page.getByText('On this bench')).toHaveCount(0);
});

test('two dates that are typed are two edits, and nothing complains before a field is left', async ({
  page,
  workshop: { url },
}) => {
  await page.goto(`${url}/shelf`);
  await pick(page, 'Bought a product', 'Clear sealant');
  const lot = page.getByRole('complementary', { name: /^Bottle/ });
  await expect(lot.getByRole('listitem').filter({ hasText: 'bought' })).toHaveCount(1);
  let edits = 0;
  page.on('request', (request) => (edits += request.url().endsWith('/api/edits') ? 1 : 0));
  for (const [label, digits] of [
    ['Bought on', '03112026'],
    ['Best before', '05062027'],
  ] as const) {
    const field = lot.getByRole('group', { name: label });
    await field.getByRole('spinbutton').first().click();
    await page.keyboard.type(digits.slice(0, 4), { delay: 30 });
    await expect(lot.getByText('Not all of it is typed yet')).toHaveCount(0);
    await page.keyboard.type(digits.slice(4), { delay: 30 });
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('button', { name: /^Undo “/ })).toBeVisible();
  await expect(lot.getByText(/Good until 5 June 2027/)).toBeVisible();
  expect(edits).toBe(2);
});
