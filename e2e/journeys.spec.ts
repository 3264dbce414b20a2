import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { addPiece, awake, expect, fillMeasure, makeSet, reading, test } from './guarded';

test('from nothing to a printed pour card, with two designs', async ({ page }) => {
  await makeSet(page, 'Otter Cut', '14.5');
  await expect(page.getByText('The table is bare')).toBeVisible();
  await addPiece(page, 'Tile, straight channel');
  await expect(reading(page, 'Water in each')).toHaveText(/^\d+\.\d$/);
  await fillMeasure(page, /^Width, mm/, '5 1/2"');
  await expect(page.getByRole('textbox', { name: /^Width, mm/ })).toHaveValue('139.7');
  await addPiece(page, 'Round base with a pool');
  await expect(page.getByRole('button', { name: /B-1 Round base, pool/ })).toHaveAttribute('aria-pressed', 'true');
  await fillMeasure(page, 'Copies', '3*4');
  await expect(page.getByText('4 tiles, 12 bases')).toBeVisible();

  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await page.getByRole('button', { name: 'Plan a batch' }).click();
  await expect(page.getByRole('article', { name: /Cup 1/ }).first()).toBeVisible();
  await expect(page.getByRole('heading', { name: /16 pieces/ })).toBeVisible();
  await page.getByRole('link', { name: 'Pour card' }).click();
  await expect(page.getByRole('heading', { name: 'Otter Cut: Batch 1' })).toBeVisible();

  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  for (const format of ['A4', 'Letter'] as const) {
    await page.emulateMedia({ media: 'screen' });
    await page.getByRole('button', { name: format }).click();
    const pdf = (await page.pdf({ format, preferCSSPageSize: true })).toString('latin1');
    const box = /\/MediaBox\s*\[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf)!;
    expect(Math.round(Number(box[1]))).toBe(format === 'A4' ? 595 : 612);
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)!.length).toBeLessThanOrEqual(2);
  }
});

test('an edit is still there after a reload, and undo reaches back before it', async ({ page }) => {
  await makeSet(page, 'Heron Test');
  await addPiece(page, 'Tile, curved channel');
  const before = await reading(page, 'Water in each').textContent();
  await fillMeasure(page, /^Depth below the level, mm/, '4');
  await expect(reading(page, 'Water in each')).not.toHaveText(before!);
  await expect(page.getByRole('button', { name: /Undo “Change depth/ })).toBeVisible();
  const changed = await reading(page, 'Water in each').textContent();
  await page.reload();
  await expect(reading(page, 'Water in each')).toHaveText(changed!);
  await expect(page.getByRole('textbox', { name: /^Depth below the level, mm/ })).toHaveValue('4');
  await page.keyboard.press('Control+z');
  await expect(reading(page, 'Water in each')).toHaveText(before!);
  await page.keyboard.press('Control+Shift+z');
  await expect(reading(page, 'Water in each')).toHaveText(changed!);
});

test('what is being typed when the tab closes is kept', async ({ page, context }) => {
  await makeSet(page, 'Closed Tab');
  await addPiece(page, 'Whole basin inside a rim');
  const field = page.getByRole('textbox', { name: /^Rim, mm/ });
  await field.fill('9');
  const address = page.url();
  await page.close({ runBeforeUnload: true });
  const again = await context.newPage();
  await expect(async () => {
    await again.goto(address);
    await expect(again.getByRole('textbox', { name: /^Rim, mm/ })).toHaveValue('9', { timeout: 1000 });
  }).toPass();
});

test('a bad size is explained at its field, and nothing is lost', async ({ page }) => {
  await makeSet(page, 'Bad Sizes');
  await addPiece(page, 'Tile, straight channel');
  const depth = page.getByRole('textbox', { name: /^Depth below the level, mm/ });
  for (const [text, complaint] of [
    ['0', 'The depth must be more than 0'],
    ['-3', 'The depth must be more than 0'],
    ['deep', '“deep” is not understood here'],
    ['12 g', '“g” is not understood here'],
  ] as const) {
    await fillMeasure(page, /^Depth below the level, mm/, text);
    await expect(page.getByText(complaint, { exact: false })).toBeVisible();
    await expect(depth).toHaveValue(text);
  }
  await depth.press('Escape');
  await expect(depth).toHaveValue('6');
  await fillMeasure(page, 'Copies', '1000000000');
  await expect(page.getByText('At most 500 copies', { exact: false })).toBeVisible();
  await page.getByRole('textbox', { name: 'Copies' }).press('Escape');

  await fillMeasure(page, /^Width at the level, mm/, '170');
  await expect(page.getByRole('alert').getByText('the south edge only 140.0')).toBeVisible();
  await page
    .getByRole('button', { name: /Narrow it to 130.0/ })
    .first()
    .click();
  await expect(page.getByRole('textbox', { name: /^Width at the level, mm/ })).toHaveValue('130');
  await expect(page.getByText('the south edge only')).toHaveCount(0);
});

test('a poured layer stands in the log, its ratio read out and mended', async ({ page }) => {
  await makeSet(page, 'Log Test');
  await addPiece(page, 'Whole basin inside a rim');
  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await page.getByRole('button', { name: 'Plan a batch' }).click();
  await page.getByRole('link', { name: 'Layer 1 is poured' }).click();
  await page.getByRole('button', { name: 'Put it in the log' }).click();
  await expect(page.getByText('Type what the scale showed', { exact: false }).first()).toBeVisible();

  const partA = page.getByLabel('Part A, g').first();
  await partA.fill('100');
  await page.getByLabel('Part B, g').first().fill('40');
  await expect(page.getByRole('status').filter({ hasText: 'ratio wrong' })).toContainText(
    /Add 4\.6\sg of part B; the cup then holds 144\.6\sg/,
  );
  await page.reload();
  await expect(partA).toHaveValue('100');
  await page.getByLabel('Part B, g').first().fill('44.6');
  await expect(page.getByRole('status').filter({ hasText: 'ratio good' })).toBeVisible();
  await page.getByLabel('Note on the whole layer').fill('No leaks after an hour');
  await page.getByRole('button', { name: 'Put it in the log' }).click();
  await expect(page.getByRole('region', { name: 'Layer 1' })).toContainText('144.6 g');
  await expect(page.getByText('No leaks after an hour')).toBeVisible();
  await page.getByRole('link', { name: 'Pour', exact: true }).click();
  await expect(page.getByText('The plan is kept as it was')).toBeVisible();
});

test('a second tab is told when the first has changed the same piece', async ({ page, context, expectComplaint }) => {
  expectComplaint(/409/);
  await makeSet(page, 'Two Tabs');
  await addPiece(page, 'Tile, straight channel');
  await expect(reading(page, 'Water in each')).toHaveText(/\d/);
  const second = await context.newPage();
  await second.goto(page.url());
  await awake(second);
  await fillMeasure(page, /^Depth below the level, mm/, '5');
  await expect(page.getByRole('button', { name: /Undo “Change depth/ })).toBeVisible();
  await fillMeasure(second, /^Depth below the level, mm/, '3');
  await expect(second.getByRole('alert').filter({ hasText: 'changed in another window' })).toBeVisible();
  // Both values, and the keys are where it is decided.
  await expect(second.getByRole('row', { name: /depth 3\.0\smm 5\.0\smm/ })).toBeVisible();
  await expect(second.getByRole('button', { name: 'Write mine over it' })).toBeFocused();
  await expect(second.getByRole('textbox', { name: /^Depth below the level, mm/ })).toHaveValue('5');
  await second.getByRole('button', { name: 'Write mine over it' }).click();
  await expect(second.getByRole('textbox', { name: /^Depth below the level, mm/ })).toHaveValue('3');
  await expect(second.getByText('changed in another window')).toHaveCount(0);
});

test('the exported request, run through the command, gives the exported plan to the letter', async ({ page }) => {
  await page.goto('/sets/heron-slack/pour?batch=hs-batch-3');
  const save = async (name: string): Promise<string> => {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name, exact: true }).click();
    return (await download).path();
  };
  const [request, plan, card] = [await save('plan request'), await save('plan'), await save('card as CSV')];
  const command = spawnSync('npm', ['run', '--silent', 'aguada', '--', 'plan', request], { encoding: 'utf8' });
  expect(command.stderr.replace(/^npm warn.*\n/gm, '')).toBe('');
  expect(command.stdout).toBe(readFileSync(plan, 'utf8'));
  const piped = spawnSync('npm', ['run', '--silent', 'aguada', '--', 'plan', '-'], {
    encoding: 'utf8',
    input: readFileSync(request, 'utf8').replace('"temperatureC": 20', '"temperatureC": -40'),
  });
  expect(piped.status).toBe(2);
  expect(piped.stderr).toContain('room.temperatureC: Between 5 and 40');
  expect(readFileSync(card, 'utf8')).toContain('layer,pour_at,cup,cup_mix_g');
});
