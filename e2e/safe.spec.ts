import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { awake, makeSet } from './guarded';
import { ended, serve } from './server';
import { expect, test } from './workshop';

const FOLDER = '.test-tmp/safe';
test.describe.configure({ mode: 'serial' });
test.beforeAll(() => {
  rmSync(FOLDER, { recursive: true, force: true });
  mkdirSync(FOLDER, { recursive: true });
});

test('a copy is saved, something changed, the copy put back, and what was there kept', async ({
  page,
  expectComplaint,
}) => {
  expectComplaint(/422/);
  const { url, server } = await serve(`${FOLDER}/copies.db`);
  try {
    await page.goto(url);
    await awake(page);
    await page.getByRole('button', { name: 'Look at the sample, Heron Slack' }).click();
    await expect(page.getByRole('link', { name: 'Heron Slack', exact: true })).toBeVisible();
    await page.goto(`${url}/shelf`);
    await awake(page);
    await page.getByRole('button', { name: 'Save a copy' }).click();
    await expect(page.getByText(/^Saved as /)).toBeVisible();
    const archive = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Download an archive' }).click();
    const archived = readFileSync(await (await archive).path());
    const drop = page.getByRole('textbox', { name: 'A drop, g' }).first();
    await drop.fill('0.05');
    await drop.press('Enter');
    await expect(page.getByRole('button', { name: /^Undo “/ })).toBeVisible();
    await page.getByRole('button', { name: /^Put back the copy of .*, saved by hand$/ }).click();
    await page.getByRole('button', { name: 'Put it back' }).click();
    await expect(page.getByRole('textbox', { name: 'A drop, g' }).first()).toHaveValue('0.035');
    await expect(page.getByRole('cell', { name: 'before another was put back', exact: true })).toBeVisible();

    // The archive does it too, from a file; a file that is none is refused in words.
    const chooser = page.locator('#copies input[type=file]');
    await chooser.setInputFiles({ name: 'list.db', mimeType: 'text/plain', buffer: Buffer.from('eggs and flour') });
    await expect(page.getByRole('alert').filter({ hasText: 'neither an archive nor a data file' })).toBeVisible();
    await chooser.setInputFiles({ name: 'aguada.zip', mimeType: 'application/zip', buffer: archived });
    await expect(page.getByRole('cell', { name: 'before another was put back', exact: true })).toHaveCount(2);
  } finally {
    await page.close();
    await ended(server);
  }
});

test('a set is handed on, and taken in again beside itself', async ({ page, workshop: { url } }) => {
  await page.goto(url);
  await awake(page);
  await makeSet(page, 'Otter Reach', '15', url);
  await page.getByRole('button', { name: 'Change the set' }).click();
  const saved = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Hand it on' }).click();
  const download = await saved;
  expect(download.suggestedFilename()).toBe('otter-reach.zip');
  const bytes = readFileSync(await download.path());
  const first = page.url();
  await page.goto(url);
  await awake(page);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'otter-reach.zip', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByRole('heading', { name: 'Otter Reach', level: 1 })).toBeVisible();
  expect(page.url()).not.toBe(first);
  await page.goto(url);
  await expect(page.getByRole('link', { name: 'Otter Reach', exact: true })).toHaveCount(2);
});

test('the data file is taken away while it is open: it is said, and what was in hand is written anew', async ({
  page,
  expectComplaint,
}) => {
  expectComplaint(/409/);
  const path = `${FOLDER}/gone.db`;
  const { url, server } = await serve(path);
  try {
    await page.goto(url);
    await awake(page);
    await page.getByRole('button', { name: 'Look at the sample, Heron Slack' }).click();
    await expect(page.getByRole('link', { name: 'Heron Slack', exact: true })).toBeVisible();
    rmSync(path);
    await expect(async () => {
      await page.goto(url);
      await expect(page.getByText(/was moved or deleted while Aguada had it open/)).toBeVisible({ timeout: 1000 });
    }).toPass();
    await page.getByRole('button', { name: 'Write what is in hand to a new file' }).click();
    const words = await page.getByText(/^Written to /).innerText();
    const rescued = /Written to (\S+)\.$/.exec(words)![1]!;
    await page.getByRole('button', { name: 'Go on with what lies there now' }).click();
    await expect(page.getByRole('heading', { name: 'Nothing on the table yet' })).toBeVisible();
    await page.goto(`${url}/shelf`);
    await awake(page);
    await page.locator('#copies input[type=file]').setInputFiles(rescued);
    await expect(page.getByRole('cell', { name: 'before another was put back', exact: true })).toBeVisible();
    await page.goto(url);
    await expect(page.getByRole('link', { name: 'Heron Slack', exact: true })).toBeVisible();
  } finally {
    await page.close();
    await ended(server);
  }
});

/** At this address of this machine everybody counts as another device. */
const AWAY = '127.0.0.2';

test('a tablet pairs with the code of the desk, carries out a run, gets nothing else, and is shut out', async ({
  page,
  browser,
  expectComplaint,
}) => {
  expectComplaint(/403|401/);
  const { url, server } = await serve(`${FOLDER}/tablet.db`, { AGUADA_OPEN: '1', AGUADA_DEMO: '1', AGUADA_AWAY: AWAY });
  const far = url.replace('127.0.0.1', AWAY);
  const context = await browser.newContext({ viewport: { width: 820, height: 1180 } });
  const tablet = await context.newPage();
  try {
    // Not paired: the pairing page, and nothing else.
    await tablet.goto(`${far}/sets/heron-slack/shape`);
    await expect(tablet.getByRole('heading', { name: 'Pair this device' })).toBeVisible();
    expect((await tablet.request.get(`${far}/api/backups/archive`)).status()).toBe(401);
    expect((await tablet.request.get(`${far}/`, { headers: { host: 'evil.example' } })).status()).toBe(421);

    await page.goto(`${url}/shelf`);
    await awake(page);
    await page.getByRole('button', { name: 'Pair a device' }).click();
    const code = (await page.getByLabel(/^Code \d/).innerText()).trim();
    expect(code).toMatch(/^\d{6}$/);
    await expect(page.getByRole('img', { name: /^Leads to http/ })).toBeVisible();
    await tablet.getByLabel('Code').fill(String((Number(code) + 1) % 1_000_000).padStart(6, '0'));
    await tablet.getByLabel('Name of this device').fill('Tablet at the bench');
    await tablet.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect(tablet.getByRole('alert').filter({ hasText: 'not the code; 4 more tries' })).toBeVisible();
    await tablet.getByLabel('Code').fill(code);
    await tablet.getByRole('button', { name: 'Pair', exact: true }).click();
    await expect(tablet.getByRole('heading', { name: 'Bench', level: 1 })).toBeVisible();
    await expect(page.getByRole('cell', { name: 'Tablet at the bench', exact: true })).toBeVisible();

    // It is led to the bench from wherever it has no business, and to no desk from there.
    await tablet.goto(`${far}/sets/heron-slack/shape`);
    await expect(tablet.getByRole('heading', { name: 'Bench', level: 1 })).toBeVisible();
    await expect(tablet.getByRole('link', { name: 'All sets' })).toHaveCount(0);
    // What it is there for: a batch is begun, and stands at the desk as under way.
    await tablet
      .getByRole('button', { name: /^Begin / })
      .first()
      .click();
    await tablet.waitForURL(/\/run\//);
    await tablet.getByRole('link', { name: 'Leave the run; it goes on' }).click();
    await expect(tablet.getByRole('region', { name: 'Under way' }).getByRole('link')).toHaveCount(1);
    await page.goto(`${url}/bench`);
    await expect(page.getByRole('region', { name: 'Under way' }).getByRole('link')).toHaveCount(1);
    await expect(page.getByRole('link', { name: 'All sets' })).toBeVisible();
    await page.goto(`${url}/shelf`);
    await awake(page);

    expect((await tablet.request.get(`${far}/api/backups`)).status()).toBe(403);
    expect((await tablet.request.get(`${far}/api/devices`)).status()).toBe(403);
    const edit = { command: { do: 'undo', scope: 'shelf' }, wanted: { view: 'shelf' } };
    expect((await tablet.request.post(`${far}/api/edits`, { data: edit })).status()).toBe(403);

    await page.getByRole('button', { name: 'Shut out Tablet at the bench' }).click();
    await expect(page.getByRole('cell', { name: 'shut out', exact: true })).toBeVisible();
    await tablet.goto(`${far}/sets/heron-slack/shape`);
    await expect(tablet.getByRole('heading', { name: 'Pair this device' })).toBeVisible();
  } finally {
    await context.close();
    await page.close();
    await ended(server);
  }
});
