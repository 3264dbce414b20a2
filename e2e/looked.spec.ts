import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import type { BatchDetail } from '../src/core/records/views';
import { madeUpPhoto } from './madeUpPhoto';
import { expect, test, type Workshop } from './workshop';

test.describe.configure({ timeout: 240_000 });
let own: Workshop;
test.beforeEach(({ workshop }) => {
  own = workshop;
});

const BATCH = 'hs-batch-1';
/** The first cup of the sample's creek tiles as if its part B had been weighed short. */
async function weighedShort(page: Page): Promise<void> {
  const answer = await page.request.get(`${own.url}/api/batches/${BATCH}`);
  const { pours } = (await answer.json()) as BatchDetail;
  const [pour] = pours;
  const cups = pour!.cups.map((cup) => ({ ...cup, partBGrams: cup.partBGrams! * 0.88 }));
  const edit = await page.request.post(`${own.url}/api/edits`, {
    headers: { 'content-type': 'application/json' },
    data: {
      command: { do: 'pour', batchId: BATCH, version: 1, layer: pour!.layer, pour: { ...pour, cups } },
      wanted: { view: 'desk', setId: 'heron-slack' },
    },
  });
  expect(edit.status()).toBe(200);
}

test('pieces are looked over by keys along the row; one is tacky for the ratio that was weighed, and its mend comes into the calendar', async ({
  page,
}) => {
  await page.goto(own.url);
  await weighedShort(page);
  await page.goto(`${own.url}/sets/heron-slack/log?show=looked&batch=${BATCH}`);
  const row = page.getByRole('toolbar', { name: 'Pieces along the row' });
  await row.getByRole('button', { name: /^HS-1 #1/ }).focus();
  await page.keyboard.press('t');
  await expect(row.getByRole('button', { name: /^HS-1 #1, tacky, to mend/ })).toBeFocused();
  await page.keyboard.press('ArrowRight');
  // What passes takes one key, and the next is at hand.
  await page.keyboard.press('Enter');
  await expect(row.getByRole('button', { name: /^HS-1 #2, passed/ })).toBeAttached();
  await expect(row.getByRole('button', { name: /^HS-1 #3/ })).toBeFocused();
  await page.keyboard.press('Delete');
  await expect(page.getByText('2 of 7 looked over')).toBeVisible();
  await page.keyboard.press('Home');
  const why = page.getByRole('region', { name: 'Why HS-1 #1 is so' });
  await expect(why.getByRole('listitem').first()).toContainText('ratio off');
  await expect(why.getByText(/A to B 1\d % off, too much A/)).toBeVisible();
  await expect(why.getByText('What is on record speaks for: ratio off.')).toBeVisible();
  // What a mend takes, against the piece made anew.
  await expect(why.getByText(/Made anew, it takes about \d+\sg, /)).toBeVisible();
  await expect(why.getByRole('listitem').filter({ hasText: 'Abrade, wipe' })).toContainText(
    /Takes about \d+\sg, .*\smin at the bench/,
  );
  await why.getByRole('button', { name: 'Another product over it' }).click();
  await expect(why.getByText('Nothing holds on what is tacky', { exact: false })).toBeVisible();
  await why.getByRole('button', { name: 'Remind me before each run' }).click();
  await expect(why.getByRole('button', { name: 'Take it off the runs' })).toBeVisible();
  await expect(why.getByText('1 of 3 others of its cup', { exact: false })).toHaveCount(0);
  for (const theme of ['light', 'dark']) {
    await page.evaluate((mode) => document.documentElement.setAttribute('data-theme', mode), theme);
    const { violations } = await new AxeBuilder({ page })
      .setLegacyMode()
      .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
      .analyze();
    expect(
      violations.map(({ id, nodes }) => `${theme} ${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
    ).toEqual([]);
  }
  await why.getByRole('button', { name: 'Into the calendar' }).click();
  await page.waitForURL(/\/cure/);
  await expect(page.getByRole('button', { name: /^Abrade.*Creek tiles/ }).first()).toBeAttached();
  // It stands in the strip of every stage, and in the list of copies.
  await expect(page.getByRole('button', { name: /HS-1, 4 copies.*#1 to mend: tacky/ })).toBeVisible();
  await expect(page.getByRole('link', { name: '1 to mend' })).toHaveAttribute(
    'href',
    /log\?show=looked&batch=hs-batch-1/,
  );
  // A seam of it says so in Match.
  await page.goto(`${own.url}/sets/heron-slack/match`);
  await page
    .getByRole('button', { name: /HS-1 north and HS-5 north/ })
    .first()
    .click();
  await expect(page.getByText('HS-1 #1 is to be mended: tacky.')).toBeVisible();
  await page.goto(`${own.url}/sets/heron-slack/log?show=copies`);
  await expect(page.getByRole('button', { name: /^HS-1 #1, to mend: tacky/ })).toBeVisible();
  // What it taught is said before every run, until it is taken off.
  await page.goto(`${own.url}/learnt`);
  const reminders = page.getByRole('region', { name: 'Said before every run' });
  await expect(reminders.getByRole('listitem')).toHaveText(/Weigh part B to the gram.*ratio off: tacky, HS-1 #1/);
  await reminders.getByRole('button', { name: 'Take it off' }).click();
  await expect(reminders).toHaveCount(0);
});

test('a photo from a phone comes in upright and without its place, shows the colour against the recipe, and stands in the log', async ({
  page,
}) => {
  await page.goto(`${own.url}/sets/heron-slack/log?show=looked&batch=${BATCH}`);
  const row = page.getByRole('toolbar', { name: 'Pieces along the row' });
  await row.getByRole('button', { name: /^HS-1 #2/ }).click();
  const file = page.getByLabel('Photo of HS-1 #2', { exact: true });
  // What is no photo is said so, and what is there stays.
  await file.setInputFiles({ name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('no photo at all') });
  await expect(page.getByText(/^notes.jpg is no picture that this browser can open/)).toBeVisible();
  const photo = await madeUpPhoto(page, 4000, 3000, '#6b1f1f');
  expect(photo.toString('latin1')).toContain('PLACE 12.3456');
  await file.setInputFiles({ name: 'IMG_0001.jpg', mimeType: 'image/jpeg', buffer: photo });
  const small = page.getByRole('button', { name: /^Photo of HS-1 #2, / });
  await expect(small).toBeVisible();
  const address = await small.locator('img').getAttribute('src');
  const kept = await (await page.request.get(`${own.url}${address}`)).body();
  expect(kept.toString('latin1')).not.toMatch(/Exif|PLACE/);
  await small.click();
  const dialog = page.getByRole('dialog', { name: /^HS-1 #2/ });
  // It lay on its side in the file.
  const picture = dialog.getByRole('img', { name: 'HS-1 #2 as it was photographed' });
  expect(
    await picture.evaluate((img) => [(img as HTMLImageElement).naturalWidth, (img as HTMLImageElement).naturalHeight]),
  ).toEqual([1600, 1200]);
  await dialog.getByRole('button', { name: 'Its colour against the recipe' }).click();
  const frame = dialog.getByRole('application');
  await expect(dialog.locator('canvas')).toHaveJSProperty('width', 1600);
  const box = (await frame.boundingBox())!;
  const pick = (x: number, y: number): Promise<void> =>
    frame.click({ position: { x: x * box.width, y: y * box.height } });
  await pick(0.86, 0.42);
  await pick(0.45, 0.5);
  await expect(dialog.getByRole('status')).toContainText(/another colour \(ΔE \d+\.\d\)/);
  await dialog.getByRole('button', { name: 'Note it down' }).click();
  await expect(row.getByRole('button', { name: /^HS-1 #2, off colour, to mend/ })).toBeVisible();
  await expect(page.getByText(/Against the recipe: another colour/)).toBeVisible();
  await page.goto(`${own.url}/log?kinds=photo`);
  await expect(page.getByRole('link', { name: 'Creek tiles: 1 photo' })).toBeVisible();
  await expect(page.getByRole('img', { name: 'HS-1 #2' })).toHaveJSProperty('naturalWidth', 1600);
});

test('a level is read by the gauge: low or high by so much, or as planned', async ({ page }) => {
  await page.goto(`${own.url}/sets/heron-slack/log?show=looked&batch=${BATCH}`);
  const row = page.getByRole('toolbar', { name: 'Pieces along the row' });
  await row.getByRole('button', { name: /^HS-1 #3/ }).click();
  const level = page.getByRole('textbox', { name: 'Water stands at, mm' });
  await level.fill('14.4');
  await level.press('Enter');
  await expect(row.getByRole('button', { name: /^HS-1 #3, low by 0.6 mm, to mend/ })).toBeVisible();
  await page.getByRole('button', { name: 'simulated' }).click();
  await page.getByRole('button', { name: 'Read it into the next field' }).click();
  // The simulated gauge reads a piece near what was planned: off by 0.45 mm at most.
  await expect(row.getByRole('button', { name: /^HS-1 #3, low by 0.6 mm/ })).toHaveCount(0);
  expect(Math.abs(Number(await level.inputValue()) - 15)).toBeLessThanOrEqual(0.45);
});
