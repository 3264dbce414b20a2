import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import type { BatchDetail } from '../src/core/records/views';
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
  await expect(why.getByRole('listitem').filter({ hasText: 'Abrade, wipe' })).toContainText(/Takes about \d+\sg, /);
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
  await page.goto(`${own.url}/sets/heron-slack/log?show=copies`);
  await expect(page.getByRole('button', { name: /^HS-1 #1, to mend: tacky/ })).toBeVisible();
});
