import { expect, test } from './workshop';

test('a loss that was learnt is taken over: the next plan mixes less by it, what is poured stays, and it is taken back', async ({
  page,
  workshop,
}) => {
  await page.goto(`${workshop.url}/log`);
  await page.getByRole('link', { name: 'Learnt' }).click();
  const offered = page.getByRole('region', { name: 'What the record says otherwise' });
  const losses = page.getByRole('article', { name: 'What stays in a cup' });
  await expect(offered.getByRole('article', { name: 'What stays in a cup' })).toContainText(
    'instead of 1.5 g a cup + 2.0 % of the mix + 0.3 g a piece',
  );
  await expect(losses).toContainText(/Learnt from \d+ cups in 13 batches/);

  // Each dot says where it comes from; arrows go from one to the next, and one that is left out no longer counts.
  const dots = losses.getByRole('group').getByRole('button');
  await dots.first().click();
  await expect(losses.getByRole('link', { name: 'Otter Cut, A first try' })).toBeVisible();
  await page.keyboard.press('End');
  await expect(losses.getByRole('link', { name: 'Otter Cut, Last boards' })).toBeVisible();
  await losses.getByRole('button', { name: 'Leave it out' }).click();
  await expect(losses).toContainText('1 far off or left out');
  await losses.getByRole('button', { name: 'Count it' }).click();
  await expect(losses).not.toContainText('left out');

  await losses.getByRole('button', { name: 'What it changes' }).click();
  const change = losses.getByRole('listitem').filter({ hasText: 'Bases and the last tiles' });
  await expect(change).toContainText('mixed become');
  const [, was = '', now = ''] = /([\d.]+)\sg mixed become ([\d.]+)\sg/.exec(await change.innerText())!;
  expect(Number(now)).toBeLessThan(Number(was));
  await losses.getByRole('button', { name: 'Take it over' }).click();
  await expect(losses.getByRole('button', { name: /^Back to 1\.5 g a cup/ })).toBeVisible();

  const mixed = page.getByText(new RegExp(`^${now.replace('.', '\\.')}$`)).first();
  await page.goto(`${workshop.url}/sets/heron-slack/pour?batch=hs-batch-3`);
  await expect(mixed).toBeVisible();

  await page.goto(`${workshop.url}/learnt`);
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(offered.getByRole('article', { name: 'What stays in a cup' })).toBeVisible();
  await losses.getByRole('button', { name: 'Leave it as it is' }).click();
  await expect(
    page.getByRole('region', { name: 'Left as it was' }).getByRole('article', { name: 'What stays in a cup' }),
  ).toBeVisible();
});
