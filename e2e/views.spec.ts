import AxeBuilder from '@axe-core/playwright';
import { STAGES } from '../src/core/model/stages';
import { expect, test } from './guarded';

const VIEWS: [string, string, string][] = [
  ['sets', '/', 'Heron Slack'],
  ...STAGES.map(({ path, shows }): [string, string, string] => [path, `/sets/heron-slack/${path}`, shows]),
  ['match, row', '/sets/heron-slack/match?show=row', 'joint 1 of 3'],
  ['match, table', '/sets/heron-slack/match?show=table', 'Tiles at hand'],
  ['match, standards', '/sets/heron-slack/match?show=standards', 'Creek mouth'],
  ['match, measuring', '/sets/heron-slack/match?show=measure', 'edges are measured'],
  ['gauges', '/gauges/heron-slack/creek-mouth', 'Male: pressed'],
  ['tint, looked through', '/sets/heron-slack/tint?show=look', 'over the table'],
  ['tint, finding', '/sets/heron-slack/tint?show=find', 'Clear water, for comparison'],
  ['tint, cups', '/sets/heron-slack/tint?show=cups', 'A cup that went wrong'],
  ['tint, swatches', '/sets/heron-slack/tint?show=swatches', 'A ladder to pour'],
  ['tint, pour by pour', '/sets/heron-slack/tint?show=pours', 'on the average'],
  ['builds', '/sets/heron-slack/pour?show=builds', 'running water, falls and foam'],
  ['cure, route', '/sets/heron-slack/cure?show=route', 'Each piece'],
  ['cure, one batch', '/sets/heron-slack/cure?show=batch&batch=hs-batch-3', 'Recoat window'],
  ['week sheet', '/week/heron-slack', 'The week at the bench'],
  ['bench of the workshop', '/bench', 'To be poured'],
  ['log of a poured batch', '/sets/heron-slack/log?batch=hs-batch-1', 'All cups'],
  ['log entry', '/sets/heron-slack/log?batch=hs-batch-3&layer=1', 'Put it in the log'],
  ['pour card', '/cards/heron-slack/hs-batch-3', 'Dams, before anything is mixed'],
  ['cup labels', '/labels/heron-slack/cups/hs-batch-3', 'layer 1, cup 1'],
  ['shelf', '/shelf', 'Colourants'],
  ['log of the workshop', '/log', 'were mixed in a year'],
  ['learnt', '/learnt', 'would change by what is on record'],
  ['figures over time', '/figures', 'were mixed in'],
  ['batches beside each other', '/beside?a=hs-batch-1&b=oc-batch-1', 'Different'],
  ['job', '/job/heron-slack', 'Stage by stage'],
  ['delivery sheet', '/job/heron-slack/sheet', 'How to keep them'],
];

for (const [name, path, landmark] of VIEWS) {
  test(`${name}: no accessibility violations in either theme, and it fits tablet and phone`, async ({ page }) => {
    await page.goto(path);
    await expect(page.getByText(landmark).first()).toBeVisible();
    for (const theme of ['light', 'dark'] as const) {
      await page.evaluate((mode) => document.documentElement.setAttribute('data-theme', mode), theme);
      // The themes differ in nothing but their colours.
      // In the page itself: there is no frame in it, and the other way takes twice as long.
      const axe = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] });
      const { violations } = await (
        theme === 'light'
          ? axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
          : axe.withRules(['color-contrast'])
      ).analyze();
      expect(
        violations.map(({ id, nodes }) => `${theme} ${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
      ).toEqual([]);
    }
    for (const [width, height] of [
      [820, 1180],
      [390, 844],
    ] as const) {
      await page.setViewportSize({ width, height });
      await expect.poll(() => page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
  });
}

test('the lamp switch changes the theme and it stays', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Lamp theme' }).click();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.getByRole('button', { name: 'Back to paper' })).toBeVisible();
});

test('dialogs have no accessibility violations', async ({ page }) => {
  await page.goto('/sets/heron-slack/shape');
  for (const [open, title] of [
    ['e', 'Set: Heron Slack'],
    ['?', 'Help'],
    ['/', 'Find'],
  ] as const) {
    await expect(page.getByText('Water in each')).toBeVisible();
    await page.keyboard.press(open);
    await expect(page.getByRole('dialog', { name: title })).toBeVisible();
    const { violations } = await new AxeBuilder({ page }).include('[role="dialog"]').analyze();
    expect(
      violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
    ).toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
    await expect(page.getByRole('dialog')).toHaveCount(0);
  }
});
