// Takes the pictures in docs/screenshots from the sample set, on a server and a data file of their own.
import { STAGES } from '../src/core/model/stages';
import { spawn } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';
import { chromium, type Page } from '@playwright/test';
import Sqlite from 'better-sqlite3';
import { madeUpPhoto } from '../e2e/madeUpPhoto';
import { CHROMIUM, CHROMIUM_FLAGS } from '../playwright.config';

const PORT = 4199;
const DATA = '.test-tmp/pictures.db';
const SHOTS: {
  name: string;
  path: string;
  size?: { width: number; height: number };
  theme?: 'light' | 'dark';
  first?: (page: Page) => Promise<void>;
  /** A figure that must stand on it: a picture of a stage without its figures is no picture of it. */
  shows: string | RegExp;
}[] = [
  { name: 'sets', shows: /Pour|Plan/, path: '/' },
  {
    name: 'shape',
    shows: /^\d+\.\d$/,
    path: '/sets/heron-slack/shape',
    first: (page) =>
      page
        .getByRole('button', { name: /HS-2 Creek bend/ })
        .first()
        .click(),
  },
  {
    name: 'match',
    shows: 'Gap of the beds',
    path: '/sets/heron-slack/match',
    size: { width: 1280, height: 1000 },
    first: (page) =>
      page
        .getByRole('button', { name: /SH-A #2 west and SH-B #1 east/ })
        .first()
        .click(),
  },
  {
    name: 'match-table',
    shows: /joint 1 of/,
    path: '/sets/heron-slack/match?show=table',
    size: { width: 1280, height: 1000 },
    first: layClubNight,
  },
  {
    name: 'tint',
    shows: 'Smallest cup for drops',
    path: '/sets/heron-slack/tint',
    size: { width: 1280, height: 1000 },
  },
  {
    name: 'tint-look',
    shows: '34° over the table',
    path: '/sets/heron-slack/tint?show=look',
    size: { width: 1280, height: 900 },
    first: lookThrough,
  },
  { name: 'pour', shows: 'To mix', path: '/sets/heron-slack/pour?batch=hs-batch-3' },
  {
    name: 'cure',
    shows: 'All ready',
    path: '/sets/heron-slack/cure',
    size: { width: 1280, height: 1000 },
    first: calendarRests,
  },
  { name: 'bench', shows: 'Instruments', path: '/sets/heron-slack/bench?batch=hs-batch-3' },
  {
    name: 'bench-weigh',
    shows: 'stop at',
    path: '/sets/heron-slack/bench?batch=hs-batch-3',
    size: { width: 820, height: 1180 },
    first: weighing,
  },
  {
    name: 'bench-pour',
    shows: 'cup falls to',
    path: '/sets/heron-slack/bench?batch=hs-batch-3',
    size: { width: 820, height: 1180 },
    first: pouring,
  },
  {
    name: 'bench-alarm',
    shows: 'Again in 5 min',
    path: '/sets/heron-slack/bench?batch=hs-batch-3',
    size: { width: 820, height: 1180 },
    first: alarm,
  },
  { name: 'log', shows: 'All cups', path: '/sets/heron-slack/log?batch=hs-batch-1' },
  { name: 'workshop-log', shows: /were mixed in a year/, path: '/log' },
  { name: 'learnt', shows: /would change by what is on record/, path: '/learnt', size: { width: 1280, height: 1000 } },
  { name: 'figures', shows: /were mixed in/, path: '/figures', size: { width: 1280, height: 1060 } },
  { name: 'job', shows: 'Stage by stage', path: '/job/heron-slack', size: { width: 1280, height: 960 } },
  { name: 'shelf', shows: 'Colourants', path: '/shelf' },
  // The last one: what is found stands in the strip of every picture after it.
  {
    name: 'looked-over',
    shows: /^Why is HS-1 #1/,
    path: '/sets/heron-slack/log?show=looked&batch=hs-batch-1',
    size: { width: 1280, height: 1180 },
    first: findTacky,
  },
];

/** The first piece of the row is tacky, and photographed. */
async function findTacky(page: Page): Promise<void> {
  const buffer = await madeUpPhoto(page, 1600, 1200, '#3f5a2c');
  await page
    .getByLabel('Photo of HS-1 #1', { exact: true })
    .setInputFiles({ name: 'tile.jpg', mimeType: 'image/jpeg', buffer });
  await page.getByRole('button', { name: /^Photo of HS-1 #1, / }).waitFor();
  const piece = page.getByRole('toolbar', { name: 'Pieces along the row' }).getByRole('button', { name: /^HS-1 #1/ });
  await piece.focus();
  await page.keyboard.press('t');
  await page.getByRole('button', { name: /^HS-1 #1, tacky/ }).waitFor();
}

/** Waits until no better plan is looked for. */
async function calendarRests(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Stop there' }).waitFor({ state: 'hidden', timeout: 180_000 });
  await page.getByText('A proposal: nothing of it is kept yet.').waitFor({ timeout: 60_000 });
}

/**
 * Waits until nothing is being worked out and nothing on the page has changed for half a second. The network is no measure of
 * that: where a clock of a run goes, a page listens for as long as it is open.
 */
async function stands(page: Page): Promise<void> {
  await page.waitForFunction(() => document.querySelector('[aria-busy="true"]') === null);
  await page.evaluate(async () => {
    await document.fonts.ready;
    await new Promise<void>((resolve) => {
      let timer = setTimeout(resolve, 500);
      new MutationObserver(() => {
        clearTimeout(timer);
        timer = setTimeout(resolve, 500);
      }).observe(document.body, { subtree: true, childList: true, characterData: true });
    });
  });
}

async function layClubNight(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Lay it' }).click();
  await page.getByText(/joint 1 of/).waitFor();
  await page.evaluate(() => window.scrollTo(0, 230));
}

/** Every design of the sample, turned a little. */
async function lookThrough(page: Page): Promise<void> {
  await page.getByLabel('Look at').click();
  await page.getByRole('option', { name: 'every design' }).click();
  await page.getByRole('application', { name: /looked through/ }).focus();
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowLeft');
  // Until it rests: then it is drawn finely.
  await page.waitForTimeout(2500);
}

/** Goes into the run of the page’s batch, on the simulated scale. */
async function intoTheRun(page: Page): Promise<void> {
  await page.evaluate(() => localStorage.setItem('aguada.scale', JSON.stringify('simulated')));
  await page
    .getByRole('button', { name: 'Begin the run' })
    .or(page.getByRole('link', { name: 'Go on with it' }))
    .click();
  await page.waitForURL(/\/run\//);
  await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
}

const KNUCKLE_MS = 420;
const stepOf = (page: Page): Promise<string | null> => page.locator('main').getAttribute('data-step');
/** Presses on, as planned, until a step of this kind is next. */
async function pressUntil(page: Page, kind: string): Promise<void> {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'By eye, typed' }).click();
  await page.keyboard.press('Escape');
  for (let i = 0; i < 60 && (await stepOf(page)) !== kind; i++) {
    await page.keyboard.press(' ');
    await page.waitForTimeout(KNUCKLE_MS);
  }
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('button', { name: 'Simulated', exact: true }).click();
  await page.keyboard.press('Escape');
  await page.waitForTimeout(KNUCKLE_MS);
}

async function pourFor(page: Page, ms: number): Promise<void> {
  await page.keyboard.down('ArrowDown');
  await page.waitForTimeout(ms);
  await page.keyboard.up('ArrowDown');
  await page.waitForTimeout(1200);
}

async function weighing(page: Page): Promise<void> {
  await intoTheRun(page);
  await pressUntil(page, 'weigh');
  await pourFor(page, 2300);
}

async function pouring(page: Page): Promise<void> {
  await intoTheRun(page);
  await pressUntil(page, 'pour');
  // The first piece whole, the second half.
  await pourFor(page, 18_000);
  await page.keyboard.press(' ');
  await page.waitForTimeout(1500);
  await pourFor(page, 9000);
}

/** A look for bubbles that is due: ten minutes go by in the file, not at the bench. */
async function alarm(page: Page): Promise<void> {
  await intoTheRun(page);
  await pressUntil(page, 'cover');
  const run = new URL(page.url()).pathname.split('/').at(-1)!;
  const made = new Sqlite(DATA);
  made.pragma('busy_timeout = 4000');
  const tenMinutes = 11 * 60_000;
  made.exec('drop trigger run_events_stay');
  made.prepare('update runs set begun_at = begun_at - ? where id = ?').run(tenMinutes, run);
  made
    .prepare(
      "update run_events set at = at - ?, data = json_set(data, '$.at', json_extract(data, '$.at') - ?) where run_id = ?",
    )
    .run(tenMinutes, tenMinutes, run);
  made.close();
  await page.reload();
  await page.getByRole('alertdialog').waitFor();
}

async function main(): Promise<void> {
  rmSync(DATA, { force: true });
  mkdirSync('docs/screenshots', { recursive: true });
  const server = spawn('node', ['.next/serve.mjs'], {
    env: { ...process.env, PORT: String(PORT), AGUADA_DATA: DATA, AGUADA_DEMO: '1' },
    stdio: 'ignore',
  });
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  try {
    for (let tries = 0; tries < 60; tries++) {
      if (
        await fetch(`http://127.0.0.1:${PORT}/`).then(
          () => true,
          () => false,
        )
      )
        break;
      await new Promise((resolve) => setTimeout(resolve, 250));
    }
    const without = STAGES.filter(({ path }) => !SHOTS.some(({ name }) => name === path));
    if (without.length > 0) throw new Error(`No picture is taken of ${without.map(({ path }) => path).join(', ')}`);
    // Names of pictures take those only.
    const names = process.argv.slice(2);
    const wanted = SHOTS.filter(({ name }) => names.length === 0 || names.includes(name));
    for (const { name, path, size = { width: 1280, height: 800 }, theme = 'light', first, shows } of wanted) {
      const page = await browser.newPage({ viewport: size, reducedMotion: 'reduce' });
      await page.addInitScript((mode) => localStorage.setItem('mui-mode', mode), theme);
      await page.goto(`http://127.0.0.1:${PORT}${path}`);
      await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
      await stands(page);
      await first?.(page);
      await stands(page);
      await page
        .getByText(shows)
        .first()
        .waitFor({ timeout: 20_000 })
        .catch(() => {
          throw new Error(`${name} shows no ${String(shows)}: no picture is taken of it`);
        });
      await page.screenshot({ path: `docs/screenshots/${name}.png` });
      await page.close();
    }
  } finally {
    await browser.close();
    server.kill();
  }
}

main().catch((error: unknown) => {
  console.error(error);
  process.exitCode = 1;
});
