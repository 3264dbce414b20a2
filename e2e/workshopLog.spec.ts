import { choose } from './guarded';
import { expect, test } from './workshop';

test('the year stands as a tide over its days; what was said is found by words, and a note is written, changed and taken back', async ({
  page,
  workshop,
}) => {
  await page.goto(workshop.url);
  await page.getByRole('link', { name: 'Log', exact: true }).click();
  await expect(page.getByText(/were mixed in a year/)).toBeVisible();
  const days = page.getByRole('region', { name: /^\w+day, / });
  await expect(days.filter({ hasText: 'Shore boards, layer 1' })).toBeVisible();

  // The week in hand has the focus of the tide; arrows go along it, and a press opens the days of a week.
  const tide = page.getByRole('region', { name: 'The year as a tide' });
  const swell = tide.getByRole('button', { name: /: \d+\sg mixed/ }).first();
  await swell.click();
  await expect(swell).toHaveAttribute('aria-pressed', 'true');
  await expect(days.first()).toContainText('A first try, layer 1');
  await page.keyboard.press('ArrowRight');
  await expect(swell).not.toBeFocused();
  await page.getByRole('button', { name: 'The newest again' }).click();
  await expect(days.filter({ hasText: 'Shore boards, layer 1' })).toBeVisible();

  // All words must be there; the address keeps what was asked.
  const find = page.getByRole('textbox', { name: 'Find in the log' });
  await page.keyboard.press('f');
  await expect(find).toBeFocused();
  await page.keyboard.type('heater Late');
  await expect(days).toHaveCount(1);
  await expect(days.first()).toContainText('The heater came on late.');
  await expect(page).toHaveURL(/words=heater\+Late/);
  await find.fill('nightingale');
  await expect(page.getByText('Nothing in the log says that.')).toBeVisible();
  await find.fill('');
  await page.getByRole('checkbox', { name: /^Notes/ }).click();
  await expect(days.first()).toContainText('Otter Cut is done');
  await expect(page.getByText('Shore boards, layer 1')).toHaveCount(0);
  await page.getByRole('checkbox', { name: /^Notes/ }).click();

  // About one bottle: that it was bought, and the batches that took of it.
  await choose(page, 'About', 'Drum 1, Slow casting epoxy');
  await expect(page).toHaveURL(/about=lot%3Aoc-kit-1/);
  await expect(days.first()).toContainText('Otter Cut');
  await expect(page.getByText('Shore boards, layer 1')).toHaveCount(0);
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'About' })).toHaveText('Drum 1, Slow casting epoxy');
  await expect(days.first()).toContainText('Otter Cut');
  await choose(page, 'About', 'everything');
  await expect(days.filter({ hasText: 'Shore boards, layer 1' })).toBeVisible();
  // Loaded again far down, it is drawn as the server drew it, and then where one was.
  await page.evaluate(() => window.scrollTo(0, 1500));
  await page.reload();
  await expect(days.filter({ hasText: 'Otter Cut' }).first()).toBeVisible();
  await page.evaluate(() => window.scrollTo(0, 0));

  await page.keyboard.press('n');
  await page.keyboard.type('Reeds are ordered');
  await page.getByRole('button', { name: 'Into the log' }).click();
  await expect(days.first()).toContainText('Reeds are ordered');
  await days.first().getByRole('button', { name: 'Note' }).click();
  await page.getByRole('textbox', { name: 'Note' }).fill('Reeds have come');
  await page.getByRole('button', { name: 'Change it' }).click();
  await expect(days.first()).toContainText('Reeds have come');
  await page.keyboard.press('Control+z');
  await expect(days.first()).toContainText('Reeds are ordered');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByText('Reeds are ordered')).toHaveCount(0);
});

test('entries lead to where they were written, by arrow keys', async ({ page, workshop }) => {
  await page.goto(`${workshop.url}/log?words=shims`);
  const entry = page.getByRole('link', { name: 'Creek tiles, layer 1' });
  await entry.focus();
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/sets\/heron-slack\/log\?batch=hs-batch-1/);
  await expect(page.getByText('Bench levelled with two card shims').first()).toBeVisible();
});

test('a log out of a spreadsheet comes in: what cannot be read is told with its line, then all of it stands there', async ({
  page,
  workshop,
  expectComplaint,
}) => {
  expectComplaint(/422/);
  await page.goto(`${workshop.url}/log`);
  const file = page.getByLabel('Log out of a file');
  const send = (lines: readonly string[]): Promise<void> =>
    file.setInputFiles({ name: 'winter.csv', mimeType: 'text/csv', buffer: Buffer.from(lines.join('\r\n')) });
  const heads = 'when;set;batch;piece;found;said';
  await send([heads, '20.11.2026;Heron Slack;Creek tiles;HS-1 #2;wobbly;']);
  await expect(page.getByText(/^Line 2: “wobbly” is nothing that is found on pieces/)).toBeVisible();
  await send([heads, '20.11.2026;Heron Slack;Creek tiles;HS-9 #2;low 0,4;']);
  await expect(page.getByText('Line 2: there is no piece HS-9 in Heron Slack. Nothing was taken in.')).toBeVisible();
  await page.keyboard.press('Escape');
  await send([
    heads,
    '24.11.2026 19:30;Heron Slack;Creek tiles;HS-1 #2;low 0,4;',
    '24.11.2026;;;;;The resin came late',
  ]);
  await expect(page.getByText('Took in 1 note and 1 piece looked over.').last()).toBeVisible();
  const day = page.getByRole('region', { name: /24 November 2026/ });
  await expect(day.getByText('The resin came late')).toBeVisible();
  await expect(day.getByText('HS-1 #2: low by 0.4 mm')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('The resin came late')).toHaveCount(0);
});
