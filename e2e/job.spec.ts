import { readFileSync } from 'node:fs';
import { expect, test } from './workshop';

test('a job that goes over its hours says so on every stage, with what would bring it back; hours are stopped and taken back', async ({
  page,
  workshop,
}) => {
  await page.goto(`${workshop.url}/sets/heron-slack/shape`);
  const told = page.getByRole('link', { name: /^Job: [\d.]+ h over$/ });
  await expect(told).toBeVisible();
  await told.click();
  const hours = page.getByRole('figure', { name: 'Hours' });
  await expect(hours).toContainText(/[\d.]+ h over/);
  await expect(page.getByRole('figure', { name: 'Money' })).toContainText('left');
  const ways = page.getByRole('region', { name: 'What would bring it back' });
  await expect(ways.getByRole('listitem').first()).toContainText(/h and €\s[\d.]+ less/);

  const spent = async (): Promise<number> =>
    Number(/spent\s*([\d.]+) h/.exec((await hours.innerText()).replace(/\n/g, ' '))![1]);
  const before = await spent();
  const watch = page.getByRole('region', { name: 'Stop-watch' });
  await watch.getByRole('button', { name: 'Start' }).click();
  await expect(watch).toContainText('Bed, since');
  await page.reload();
  await watch.getByRole('button', { name: 'Drop it' }).click();
  await watch.getByRole('textbox', { name: 'or type minutes' }).fill('2*60+30');
  await page.keyboard.press('Enter');
  await expect(watch).toContainText('2.5 h, bed');
  await expect.poll(spent).toBeCloseTo(before + 2.5, 1);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect.poll(spent).toBeCloseTo(before, 1);

  // More hours are agreed: nothing runs over any more.
  await page.getByRole('textbox', { name: 'Hours it may take' }).fill('60');
  await page.keyboard.press('Enter');
  await expect(hours).toContainText('h left');
  await expect(ways).toHaveCount(0);

  await page.getByRole('button', { name: 'Keep this as the quote' }).click();
  await expect(page.getByText(/At the price that was quoted/)).toBeVisible();
  const approvals = page.getByRole('region', { name: 'Approvals' });
  await approvals.getByRole('textbox').fill('Photos before delivery');
  await page.keyboard.press('Enter');
  await expect(approvals.getByRole('checkbox', { name: 'Photos before delivery' })).not.toBeChecked();

  const price = /Price\s+€\s[\d.]+\s+€\s([\d.]+)/.exec(
    await page.getByRole('region', { name: 'Quote' }).innerText(),
  )![1]!;
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Invoice lines (CSV)' }).click();
  const rows = readFileSync(await (await file).path(), 'utf8')
    .trim()
    .split('\n')
    .slice(1);
  const cents = rows.reduce((sum, row) => sum + Math.round(100 * Number(row.split(',').at(-2))), 0);
  expect(cents / 100).toBeCloseTo(Number(price), 2);

  await page.getByRole('link', { name: 'Delivery sheet' }).click();
  await expect(page.getByText('Not approved yet: Photos before delivery.')).toBeVisible();
  await expect(page.getByRole('row', { name: /HS-1 Creek straight/ })).toContainText('g');
});

test('a job that is delivered stands against its quote', async ({ page, workshop }) => {
  await page.goto(`${workshop.url}/job/otter-cut`);
  const quote = page.getByRole('region', { name: 'Quote' });
  await expect(quote.getByRole('columnheader', { name: 'real' })).toBeVisible();
  await expect(quote).toContainText(/are (earned|lost)/);
  // Nothing is still to come.
  const hours = await page.getByRole('figure', { name: 'Hours' }).innerText();
  const [, spent, likely] = /spent\s+([\d.]+) h\s+in the end, likely\s+([\d.]+) h/.exec(hours)!;
  expect(spent).toBe(likely);
});
