import AxeBuilder from '@axe-core/playwright';
import type { BrowserContext, Page } from '@playwright/test';
import type { RunView } from '../src/core/run/views';
import { press, ready, sent, stepKind, strike, title } from './atBench';
import { awake, choose } from './guarded';
import { expect, test, type Workshop } from './workshop';

test.describe.configure({ timeout: 600_000 });
let own: Workshop;
test.beforeEach(({ workshop }) => {
  own = workshop;
});

/** Kills the server as a power cut would, and starts it again. */
async function killAndStart(): Promise<void> {
  await own.killed();
  await own.started();
}

/** Two small tiles in cups so small that each needs its own. */
async function twoCups(page: Page): Promise<void> {
  await page.goto(`${own.url}/sets/heron-slack/pour?batch=hs-batch-3`);
  const answer = await page.request.post(`${own.url}/api/edits`, {
    headers: { 'content-type': 'application/json' },
    data: {
      command: {
        do: 'put',
        kind: 'batch',
        id: 'hs-batch-3',
        version: 1,
        data: {
          name: 'Two cups',
          pourAt: '2026-12-01T18:00',
          benchWindows: null,
          own: { cupGrams: 24, hands: 2 },
          items: [
            { designId: 'hs-3', copies: 1 },
            { designId: 'hs-4', copies: 1 },
          ],
        },
      },
      wanted: { view: 'desk', setId: 'heron-slack' },
    },
  });
  expect(answer.status()).toBe(200);
}

async function begin(page: Page, button = 'Begin the run'): Promise<void> {
  await page.goto(`${own.url}/sets/heron-slack/bench?batch=hs-batch-3`);
  await page.getByRole('button', { name: button }).click();
  await page.waitForURL(/\/run\//);
  await awake(page);
}

async function onScale(page: Page, source: string): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: source }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

/** Grams to go, as the screen says; negative when it is over. */
async function toGo(page: Page): Promise<number> {
  const said = await page.locator('main').innerText();
  const [, grams, way] = /([\d.]+)\s*g (to go|over)/.exec(said) ?? [];
  return grams === undefined ? 0 : way === 'over' ? -Number(grams) : Number(grams);
}

/** Pours onto (or out of) the scale until no more than `near` is to go; past it by `extra`. */
async function pourTo(page: Page, perSecond: number, near: number, extra = 0): Promise<void> {
  await expect(page.locator('main')).toContainText('to go');
  const hold = async (key: string, seconds: number): Promise<void> => {
    await page.keyboard.down(key);
    await page.waitForTimeout(seconds * 1000);
    await page.keyboard.up(key);
    // The readings settle before they are read.
    let [last, same] = [NaN, 0];
    await expect
      .poll(
        async () => {
          const now = await toGo(page);
          same = now === last ? same + 1 : 0;
          last = now;
          return same;
        },
        { intervals: [300] },
      )
      .toBeGreaterThanOrEqual(3);
  };
  const left = async (): Promise<number> => (await toGo(page)) + extra;
  if ((await left()) > 3) await hold('ArrowDown', Math.max(0.2, ((await left()) - 2) / perSecond));
  for (let i = 0; i < 40 && (await left()) > near; i++)
    await hold('ArrowUp', Math.min(2.5, Math.max(0.2, (0.8 * (await left())) / (perSecond / 10))));
}

test('a whole pour of two cups on the simulated scale: an overshoot is mended, the log writes itself', async ({
  page,
}) => {
  await twoCups(page);
  await begin(page);
  // What must not be left out asks why; the next item is asked for itself.
  await page.getByRole('button', { name: 'Leave out' }).click();
  await page.getByRole('button', { name: 'was done before' }).click();
  await ready(page);
  // Drops would not do for cups so small: one stock serves both.
  await expect(title(page)).toHaveText('Make the stock tint');
  await press(page);
  await expect(title(page)).toHaveText('Weigh in part A');
  await onScale(page, 'Simulated');
  let mended = false;
  let cups = 0;
  let byEye = false;
  for (let i = 0; i < 60 && (await stepKind(page)) !== 'cover' && (await stepKind(page)) !== 'wait'; i++) {
    const kind = await stepKind(page);
    if (kind === 'weigh' && (await title(page).innerText()) === 'Weigh in part B' && !mended) {
      await pourTo(page, 6, 0.5, 4);
      await strike(page);
      const over = page.getByRole('region', { name: 'Over-poured' });
      await expect(over).toContainText(/over 1?\d/);
      // More may have gone in since: it is read again, and still decided then.
      await over.getByRole('button', { name: 'Weigh it again' }).click();
      await expect(over).toBeHidden();
      await strike(page);
      await expect(over).toContainText(/over 1?\d/);
      await page.getByRole('button', { name: /Mend: add [\d.]+ g of part A/ }).click();
      await expect(title(page)).toHaveText(/Add [\d.]+\sg of part A/);
      mended = true;
      continue;
    }
    const shown = await page.locator('main').innerText();
    const drops = kind === 'dose' && /\bdrops?, one press each/.test(shown);
    // Stock tint holds part A: what is not poured of it would be missing in the ratio.
    // What a shaking hand has made too little of is left out.
    const weighed = kind === 'weigh' || (kind === 'dose' && !drops && !shown.includes('too little to measure'));
    if (kind === 'left' && ++cups === 1) {
      // The scale has shown what it can: the second cup goes by eye.
      await onScale(page, 'By eye, typed');
      byEye = true;
    } else if (weighed && !byEye) await pourTo(page, 6, 0.15);
    else if (kind === 'pour' && !byEye) await pourTo(page, 2, 0.8);
    const before = await title(page).innerText();
    await strike(page);
    if (drops) {
      continue;
    }
    // A hand that shakes is asked again: more, or the other part.
    const asked = page.getByRole('button', { name: /^(Pour more|Mend: )/ });
    await expect.poll(async () => (await title(page).innerText()) !== before || (await asked.count()) > 0).toBe(true);
    if ((await asked.count()) > 0) await asked.first().click();
  }
  expect([mended, cups]).toEqual([true, 2]);
  await page.goto(`${own.url}/sets/heron-slack/log?batch=hs-batch-3`);
  const layer = page.getByRole('region', { name: 'Layer 1' });
  await expect(layer).toContainText('over-poured and mended');
  await expect(layer).toContainText('skipped, beds sealed');
  // The mend brought the ratio back: both cups are good.
  await expect(layer.getByText('wrong', { exact: false })).toHaveCount(0);
  await page.goto(`${own.url}/shelf`);
  await expect(page.getByText('Two cups, layer 1, cup 2').first()).toBeVisible();
});

test('the server is killed between A and B: presses are kept, the clock is right, nothing comes twice', async ({
  page,
  expectComplaint,
}) => {
  expectComplaint(/ERR_CONNECTION|ERR_INCOMPLETE|ERR_EMPTY|Failed to fetch|net::/);
  await begin(page);
  await ready(page);
  await press(page);
  while (['weigh', 'dose'].includes((await stepKind(page))!) && (await title(page).innerText()) !== 'Weigh in part B')
    await press(page);
  await sent(page);
  await own.killed();
  // Part B goes in while nobody answers: the parts meet, the clock runs.
  const met = Date.now();
  await press(page);
  await expect(page.getByRole('status').filter({ hasText: 'kept here' })).toContainText('1 press is kept here');
  const clock = page.getByRole('timer').first();
  await expect(clock).toBeVisible();
  const digits = async (): Promise<number> => {
    const [m, s] = (await clock.innerText()).split(':').map(Number);
    return m! * 60 + s!;
  };
  const potLife = (await digits()) + (Date.now() - met) / 1000;
  await own.started();
  await expect(page.getByRole('status').filter({ hasText: 'kept here' })).toHaveCount(0);
  const step = await title(page).innerText();
  await killAndStart();
  await page.reload();
  await expect(title(page)).toHaveText(step);
  expect(Math.abs(potLife - ((await digits()) + (Date.now() - met) / 1000))).toBeLessThan(2.5);
  const run = new URL(page.url()).pathname.split('/').at(-1)!;
  const { events } = (await (await page.request.get(`${own.url}/api/runs/${run}`)).json()) as {
    events: { event: { step?: string; type: string } }[];
  };
  const partB = events.filter(({ event }) => event.type === 'done' && event.step?.endsWith('.B'));
  expect(partB).toHaveLength(1);
});

test('a run that is given up: its layer is begun and not poured, everywhere; the rest is poured in a run of its own', async ({
  page,
}) => {
  await begin(page);
  await ready(page);
  while ((await stepKind(page)) !== 'pour') await press(page);
  const run = new URL(page.url()).pathname.split('/').at(-1)!;
  const { plan } = (await (await page.request.get(`${own.url}/api/runs/${run}`)).json()) as RunView;
  const dry = plan.layers[0]!.cups.flatMap(({ pours }) => pours).length - 1;
  await press(page);
  await sent(page);
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Give the run up' }).click();
  await page.getByRole('textbox', { name: /^Why is it given up/ }).fill('a dam broke');
  await page.getByRole('button', { name: 'Give it up' }).click();
  await expect(page.getByText('Given up', { exact: false }).first()).toBeVisible();

  const words = `${dry} pieces still dry`;
  await page.goto(`${own.url}/sets/heron-slack/log?batch=hs-batch-3`);
  await expect(page.getByRole('listitem').filter({ hasText: 'Bases and the last tiles' }).first()).toContainText(words);
  await expect(page.getByRole('region', { name: 'Layer 1' })).toContainText('Still dry:');
  await page.goto(`${own.url}/sets/heron-slack/cure`);
  await expect(page.getByRole('button', { name: /^Pour layer 1, Bases and the last tiles/ }).first()).toBeAttached();
  await expect(page.getByRole('button', { name: /^Pour layer 1, Bases and the last tiles.*done/ })).toHaveCount(0);
  await page.goto(`${own.url}/sets/heron-slack/log?batch=hs-batch-3`);
  await page.getByRole('link', { name: 'Pour the rest' }).click();
  await expect(page.getByRole('region', { name: 'Begin' })).toContainText(`into ${dry} pieces`);
  await page.getByRole('button', { name: 'Pour the rest' }).click();
  await awake(page);
  await ready(page);
  for (let i = 0; i < 80 && !['cover', 'wait'].includes((await stepKind(page))!); i++) await press(page);
  await sent(page);
  await page.goto(`${own.url}/sets/heron-slack/log?batch=hs-batch-3`);
  await expect(page.getByRole('region', { name: 'Layer 1' })).toContainText('given up: a dam broke');
  await expect(page.getByRole('region', { name: 'Layer 1' })).not.toContainText('Still dry');
});

/** Counts the tones that a window sounds. */
const countTones = (context: BrowserContext) =>
  context.addInitScript(() => {
    const counted = window as unknown as { tones: number };
    counted.tones = 0;
    const make = AudioContext.prototype.createOscillator;
    AudioContext.prototype.createOscillator = function () {
      const tone = make.call(this);
      // Clicks of presses are sines; the alarm is not.
      setTimeout(() => tone.type === 'triangle' && counted.tones++);
      return tone;
    };
  });
const tones = (page: Page): Promise<number> => page.evaluate(() => (window as unknown as { tones: number }).tones);

test('an alarm sounds in one window, is answered there, and is silent in the other', async ({ page, context }) => {
  await countTones(context);
  await begin(page);
  const other = await context.newPage();
  await other.goto(page.url());
  await awake(other);
  // Both have been touched: either might sound.
  await other.getByRole('button', { name: 'Ready' }).click();
  await expect(title(page)).toHaveText(await title(other).innerText());
  await page.bringToFront();
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('textbox', { name: 'Rings in' }).fill('0.05 min');
  const asked = Date.now();
  await page.getByRole('button', { name: 'Start it' }).click();
  const [here, there] = [page.getByRole('alertdialog'), other.getByRole('alertdialog')];
  await expect(here).toBeVisible();
  expect(Math.abs(Date.now() - asked - 3000)).toBeLessThan(1500);
  await expect(there).toBeVisible();
  await expect(page).toHaveTitle(/^●|Aguada$/);
  await expect.poll(async () => (await tones(page)) + (await tones(other))).toBeGreaterThan(2);
  const sounding = [await tones(page), await tones(other)].filter((count) => count > 0);
  expect(sounding).toHaveLength(1);
  await there.getByRole('button', { name: /^done/ }).click();
  await expect(here).toHaveCount(0);
  await expect(there).toHaveCount(0);
  const quiet = (await tones(page)) + (await tones(other));
  // An alarm that is not answered sounds again every second: silence takes a moment to be heard.
  await page.waitForTimeout(1500);
  expect((await tones(page)) + (await tones(other))).toBe(quiet);
});

test('a practice run ends with its verdict, and leaves nothing in the log or on the shelf', async ({ page }) => {
  await page.goto(`${own.url}/sets/heron-slack/bench?batch=hs-batch-3`);
  await page.getByRole('button', { name: '10 × faster' }).click();
  await begin(page, 'Practise it');
  await expect(page.getByText('practice', { exact: true })).toBeVisible();
  await onScale(page, 'By eye, typed');
  await ready(page);
  // A careless maker: no stir, no scrape, ten steps on.
  for (let i = 0; i < 40 && (await stepKind(page)) !== 'wait'; i++) {
    const alarm = page.getByRole('alertdialog');
    if ((await alarm.count()) > 0) await alarm.getByRole('button').first().click();
    else await strike(page);
  }
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Close the run' }).click();
  await expect(page.getByRole('heading', { name: 'Practice is over' })).toBeVisible();
  await expect(page.getByText('What would have gone wrong')).toBeVisible();
  await expect(page.getByText('Streaks and sticky spots').first()).toBeVisible();
  await page.goto(`${own.url}/sets/heron-slack/log?batch=hs-batch-3`);
  await expect(page.getByText('Nothing is poured yet')).toBeVisible();
});

test('two windows of a run are one; an instrument speaks the open protocol; a phone and both themes hold it', async ({
  page,
  context,
}) => {
  await begin(page);
  const other = await context.newPage();
  await other.setViewportSize({ width: 390, height: 844 });
  // A tablet on the local network has no secure context: no ids, no locks, no lock on its screen.
  await other.addInitScript(() => {
    Object.defineProperty(crypto, 'randomUUID', { value: undefined });
    for (const name of ['locks', 'wakeLock']) delete (Navigator.prototype as unknown as Record<string, unknown>)[name];
  });
  await other.goto(page.url());
  await awake(other);
  const first = await title(page).innerText();
  await other.getByRole('button', { name: /^Ready/ }).click();
  await expect(title(page)).not.toHaveText(first);
  await ready(page);
  await expect(title(other)).toHaveText('Weigh in part A');
  await onScale(page, 'What is on the bench');
  const read = (value: unknown, unit = 'g') =>
    page.request.post(`${own.url}/api/readings`, {
      headers: { 'content-type': 'application/json' },
      data: { device: 'scale', value, unit },
    });
  await expect(async () => {
    await read(7.3);
    await expect(page.locator('main')).toContainText('7.3g', { timeout: 500 });
  }).toPass();
  await read(0.3, 'oz');
  await expect(page.getByRole('alert').filter({ hasText: 'from g to oz' })).toBeVisible();
  expect(((await (await read('heavy')).json()) as { taken: { ok: boolean }[] }).taken[0]!.ok).toBe(false);
  // A scale that falls silent says so, and the run goes on by hand.
  await expect(page.getByRole('alert').filter({ hasText: 'The scale has stopped' })).toBeVisible();
  await page.getByRole('button', { name: 'Type what it shows' }).click();
  const field = page.getByRole('textbox', { name: /The scale shows/ });
  await field.fill('heavy');
  await field.press('Enter');
  await expect(field).toHaveAttribute('aria-invalid', 'true');
  await field.fill('1');
  await field.press('Enter');
  await expect(page.getByRole('region', { name: 'Too little' })).toBeVisible();
  await expect(other.getByRole('region', { name: 'Too little' })).toBeVisible();
  for (const window of [page, other]) {
    for (const theme of ['Paper', 'Lamp']) {
      const { violations } = await new AxeBuilder({ page: window })
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
        .withRules(['color-contrast-enhanced'])
        .analyze();
      expect(
        violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`),
      ).toEqual([]);
      await window.getByRole('button', { name: theme }).click();
    }
    expect(await window.evaluate(() => document.documentElement.scrollWidth - innerWidth)).toBeLessThanOrEqual(0);
    const cutOff = await window
      .getByRole('region', { name: 'Too little' })
      .getByRole('button')
      .evaluateAll((buttons) => buttons.filter((one) => one.scrollHeight > one.clientHeight + 1).length);
    expect(cutOff).toBe(0);
  }
});

test('by volume marks are read: too much is mended in ml, the pours fall from mark to mark', async ({ page }) => {
  await page.goto(`${own.url}/shelf`);
  await choose(page, 'Parts are measured', 'by volume');
  await expect(page.getByRole('button', { name: /^Undo/ })).toBeEnabled();
  await begin(page);
  await ready(page);
  await expect(title(page)).toHaveText('Fill in part A');
  const ml = Number(/([\d.]+)\s*ml \(/.exec(await page.locator('main').innerText())![1]);
  await page.getByRole('button', { name: 'Type the mark' }).click();
  await page.getByRole('textbox', { name: 'It went in up to, ml' }).fill(String(ml + 4));
  await page.keyboard.press('Enter');
  const over = page.getByRole('region', { name: 'Over-poured' });
  await expect(over).toContainText('4.0\u00a0ml over');
  await over.getByRole('button', { name: /^Mend: part B becomes [\d.]+\sml/ }).click();
  for (let i = 0; i < 20 && (await stepKind(page)) !== 'pour'; i++) await press(page);
  await expect(page.locator('main')).toContainText(/the cup falls to the mark of [\d.]+\sml/);
});
