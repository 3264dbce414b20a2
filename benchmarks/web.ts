import { STAGES } from '../src/core/model/stages';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import BetterSqlite3 from 'better-sqlite3';
import { CHROMIUM, CHROMIUM_FLAGS } from '../playwright.config';
import { openArchive } from '../src/server/archive';
import { yearsOfLog } from './log';
import { BIG_SET, writeBigFile } from './bigFile';
import { median } from './measure';
import { rest, until, type Line } from './page';
import { photoTaken } from './photo';
import { ended, serve } from './server';
import { fromTheCommand, slowTablet } from './start';

const SAMPLE = 'heron-slack';
const KB = 1000;
const WARM_VISITS = 3;

async function timed(ask: () => Promise<Response>, runs = 7): Promise<{ ms: number; bytes: number }> {
  const times: number[] = [];
  let bytes = 0;
  for (let i = 0; i < runs; i++) {
    const start = performance.now();
    const response = await ask();
    bytes = (await response.arrayBuffer()).byteLength;
    if (!response.ok) throw new Error(`What is measured answered ${response.status}`);
    times.push(performance.now() - start);
  }
  return { ms: median(times), bytes };
}

/** A workshop of years: how long each stage, an edit and the list of sets take the server, and what they weigh. */
async function years(folder: string, lines: Line[]): Promise<void> {
  const path = join(folder, 'years.db');
  const rows = writeBigFile(path, { sets: 500, lots: 400 });
  const { url, server } = await serve(path, false);
  const weigh = (what: string, { ms, bytes }: { ms: number; bytes: number }, mostMs: number, mostKb: number): void => {
    lines.push({
      what,
      measured: `${ms.toFixed(0)} ms, ${(bytes / KB).toFixed(1)} kB`,
      limit: `${mostMs} ms${Number.isFinite(mostKb) ? `, ${mostKb} kB` : ''}`,
      within: ms <= mostMs && bytes <= mostKb * KB,
    });
  };
  try {
    console.log(`a data file of ${rows} rows: 500 sets, 470 batches, 50,000 movements of stock`);
    // The first visits fill the caches and warm the server up, whichever stage is measured first; what streams in later is awaited too.
    for (let visit = 0; visit < WARM_VISITS; visit++)
      for (const { path: stage } of STAGES) await (await fetch(`${url}/sets/${BIG_SET}/${stage}?warm=${visit}`)).text();
    for (const { path: stage } of STAGES) {
      const page = `${url}/sets/${BIG_SET}/${stage}`;
      // Each time by an address of its own: the page is to be drawn, not given out as it was kept.
      let visit = 0;
      weigh(`${stage}, years of work`, await timed(() => fetch(`${page}?visit=${visit++}`)), 150, 250);
    }
    const added = await fetch(`${url}/api/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        wanted: { view: 'desk', setId: BIG_SET },
        command: { do: 'add', kind: 'batch', setId: BIG_SET, data: await hugeBatch(url) },
      }),
    });
    const { id } = (await added.json()) as { id: string };
    const huge = `${url}/sets/${BIG_SET}/pour?batch=${id}`;
    for (let i = 0; i < 3; i++) await (await fetch(huge)).text();
    let opened = 0;
    weigh('a batch of 2,000 pieces, opened', await timed(() => fetch(`${huge}&visit=${opened++}`)), 200, Infinity);
    let version = 1;
    const edit = (): Promise<Response> =>
      fetch(`${url}/api/edits`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          wanted: { view: 'desk', setId: BIG_SET },
          command: {
            do: 'put',
            kind: 'set',
            id: BIG_SET,
            version: version++,
            data: {
              name: `Years ${version}`,
              figureScaleMm: 28,
              levelMm: 15,
              productId: 'coating-epoxy',
              recipeId: 'clear',
              benchWindows: null,
              job: null,
            },
          },
        }),
      });
    weigh('an edit', await timed(edit), 60, 30);
    for (const [what, path] of [
      ['the list of 500 sets', '/'],
      ['the shelf with 400 lots', '/shelf'],
      ['the week of 24 batches', `/week/${BIG_SET}`],
      ['the bench of the workshop', '/bench'],
    ] as const) {
      let visit = 0;
      const ask = (): Promise<Response> => fetch(`${url}${path}?visit=${visit++}`);
      for (let i = 0; i < WARM_VISITS; i++) await (await ask()).text();
      weigh(what, await timed(ask), 400, 250);
    }
  } finally {
    await ended(server);
  }
}

/** As many copies of the first designs as one plan takes. */
async function hugeBatch(url: string): Promise<object> {
  const archive = await fetch(`${url}/api/sets/${BIG_SET}/archive`);
  const at = join(tmpdir(), `aguada-${crypto.randomUUID()}.zip`);
  writeFileSync(at, Buffer.from(await archive.arrayBuffer()));
  const opened = await openArchive(at, `${at}.db`);
  rmSync(at);
  if (opened.holds !== 'set') throw new Error('This is no archive of a set');
  const items = opened.file.designs.slice(0, 4).map(({ id }) => ({ designId: id, copies: 500 }));
  return { name: 'Two thousand', items, pourAt: '2026-11-28T10:00' };
}

const HOVER_MS = 200;
/** The calendar goes on looking for a better plan for some seconds, on a processor that the server would be short of. */
const searched = (page: Page): Promise<void> =>
  page.getByRole('progressbar', { name: 'Search for a better plan' }).waitFor({ state: 'detached', timeout: 60_000 });

/** Moves the level of the sample: nothing that was worked out of it holds any longer. */
async function changeSample(url: string, dataFile: string, levelMm: number): Promise<void> {
  const file = new BetterSqlite3(dataFile, { readonly: true });
  const set = file.prepare('select version, data from sets where id = ?').get(SAMPLE) as {
    version: number;
    data: string;
  };
  file.close();
  const answer = await fetch(`${url}/api/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      wanted: { view: 'desk', setId: SAMPLE },
      command: {
        do: 'put',
        kind: 'set',
        id: SAMPLE,
        version: set.version,
        data: { ...(JSON.parse(set.data) as object), levelMm },
      },
    }),
  });
  if (!answer.ok) throw new Error(`The level could not be moved: ${answer.status}`);
}

/**
 * The sample in a browser: from request to figures on each stage, against a bare page; and one step of navigation. Nothing is
 * worked out ahead, and before each cold visit the set is changed, so that all its figures are to be made.
 */
async function firstPaint(folder: string, lines: Line[]): Promise<void> {
  const dataFile = join(folder, 'sample.db');
  const { url, server } = await serve(dataFile, true, { AGUADA_AHEAD: 'off' });
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    const visit = async (path: string, text: string): Promise<number> => {
      const ms = await until(page, `${url}/${path}`, text);
      await rest(page);
      await searched(page);
      return ms;
    };
    const several = async (path: string, text: string, times: number): Promise<number> => {
      const all: number[] = [];
      for (let i = 0; i < times; i++) all.push(await visit(path, text));
      return median(all);
    };
    await visit('nowhere', 'is not here');
    const bare = [await several('nowhere', 'is not here', 3)];
    await visit(`sets/${SAMPLE}/shape`, 'Water in each');
    const stages: { stage: string; coldMs: number; drawnMs: number; cachedMs: number }[] = [];
    let levelMm = 15;
    for (const { path: stage, shows: text } of STAGES) {
      const cold: number[] = [];
      for (let i = 0; i < 3; i++) {
        await changeSample(url, dataFile, (levelMm += 0.1));
        cold.push(await visit(`sets/${SAMPLE}/${stage}`, text));
      }
      const drawn: number[] = [];
      for (let i = 0; i < 3; i++) drawn.push(await visit(`sets/${SAMPLE}/${stage}?visit=${i}`, text));
      stages.push({
        stage,
        coldMs: median(cold),
        drawnMs: median(drawn),
        cachedMs: await several(`sets/${SAMPLE}/${stage}`, text, 5),
      });
      // The yardstick is taken between the stages: the machine is not as quick at all times.
      bare.push(await several('nowhere', 'is not here', 3));
    }
    const bareMs = median(bare);
    lines.push(
      { what: 'a bare page in the browser', measured: `${bareMs.toFixed(0)} ms`, limit: 'yardstick', within: true },
      ...stages.map(({ stage, coldMs, drawnMs, cachedMs }) => ({
        what: `${stage}, request to figures`,
        measured: `${(coldMs / bareMs).toFixed(1)} × cold, ${(drawnMs / bareMs).toFixed(1)} × drawn anew of kept figures, ${(cachedMs / bareMs).toFixed(1)} × cached`,
        limit: '6 × cold, 2 × cached',
        within: coldMs <= 6 * bareMs && cachedMs <= 2 * bareMs,
      })),
    );
    await page.goto(`${url}/sets/${SAMPLE}/pour`);
    await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
    await rest(page);
    const steps: number[] = [];
    for (const [stage, text] of [
      ['Cure', 'What follows'],
      ['Tint', 'Smallest cup for drops'],
      ['Pour', 'To mix'],
      ['Log', 'Layer'],
      ['Match', 'Gap of the beds'],
    ] as const) {
      const link = page.getByRole('link', { name: stage, exact: false }).first();
      // A hand that comes to a link rests on it for a moment before it presses.
      await link.hover();
      await page.waitForTimeout(HOVER_MS);
      // Counted by the page itself, from the press to the frame that shows the figures: the browser's driver takes 80 ms of its own.
      const shown = page.evaluate(
        ([name, wanted]) =>
          new Promise<number>((resolve) => {
            setTimeout(resolve, 5000, 5000);
            addEventListener(
              'click',
              () => {
                const pressed = performance.now();
                const timer = setInterval(() => {
                  const there =
                    document.querySelector('nav [aria-current=page]')?.textContent.startsWith(name) &&
                    document.querySelector('main')!.textContent.toLowerCase().includes(wanted.toLowerCase());
                  if (!there) return;
                  clearInterval(timer);
                  requestAnimationFrame(() => resolve(performance.now() - pressed));
                }, 4);
              },
              { once: true, capture: true },
            );
          }),
        [stage, text] as const,
      );
      await link.click();
      steps.push(await shown);
      await rest(page);
    }
    lines.push(await turning(page, url));
    lines.push(await dosing(page, url));
    lines.push(await photoTaken(page, `${url}/sets/${SAMPLE}/log?show=looked&batch=hs-batch-1`));
    const step = median(steps);
    lines.push({
      what: 'one step of navigation',
      measured: `${step.toFixed(0)} ms (${steps.map((ms) => ms.toFixed(0)).join(', ')})`,
      limit: '150 ms',
      within: step <= 150,
    });
  } finally {
    await browser.close();
    await ended(server);
  }
}

/** Runs in the page: drags the slider of a dose from frame to frame for three seconds. As text, as below. */
const DOSE = `new Promise((resolve) => {
  const slider = document.querySelector('.MuiSlider-root');
  const box = slider.getBoundingClientRect();
  const at = (share) => ({ bubbles: true, cancelable: true, button: 0, buttons: 1, clientX: box.x + box.width * share, clientY: box.y + box.height / 2 });
  slider.dispatchEvent(new MouseEvent('mousedown', at(0.3)));
  const started = performance.now();
  let [last, count, longest] = [started, 0, 0];
  const step = () => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
    count++;
    document.dispatchEvent(new MouseEvent('mousemove', at(0.3 + 0.4 * Math.abs(((now - started) / 1500) % 2 - 1))));
    if (now - started < 3000) requestAnimationFrame(step);
    else {
      document.dispatchEvent(new MouseEvent('mouseup', at(0.3)));
      resolve({ perSecond: (count * 1000) / (now - started), longest });
    }
  };
  requestAnimationFrame(step);
})`;
/** How many frames the page gets when nothing is asked of it. */
const IDLE = `new Promise((resolve) => {
  const started = performance.now();
  let count = 0;
  const step = () => {
    count++;
    const gone = performance.now() - started;
    if (gone < 1500) requestAnimationFrame(step);
    else resolve((count * 1000) / gone);
  };
  requestAnimationFrame(step);
})`;

/** The recipe's pictures while a dose is dragged, against the frames of the same page at rest. */
async function dosing(page: Page, url: string): Promise<Line> {
  await page.goto(`${url}/sets/${SAMPLE}/tint`);
  await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
  await rest(page);
  const idle = (await page.evaluate(IDLE)) as number;
  const { perSecond, longest } = (await page.evaluate(DOSE)) as { perSecond: number; longest: number };
  return {
    what: 'a dose dragged, all pictures following',
    measured: `${perSecond.toFixed(0)} frames a second of ${idle.toFixed(0)} at rest, the longest ${longest.toFixed(0)} ms`,
    limit: 'nine tenths of them',
    within: perSecond >= 0.9 * idle,
  };
}

/**
 * Runs in the page: drags from frame to frame for three seconds, reading a pixel back each time, which waits until the picture is
 * really drawn. As text: what runs this file adds helpers to functions that the page does not have.
 */
const TURN = `new Promise((resolve) => {
  const frame = document.querySelector('[role=application]');
  const gl = frame.querySelector('canvas').getContext('webgl2');
  const started = performance.now();
  let count = 0;
  const step = () => {
    const movementY = count % 2 ? 1 : -1;
    frame.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, buttons: 1, movementX: 3, movementY }));
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
    count++;
    const gone = performance.now() - started;
    if (gone < 3000) requestAnimationFrame(step);
    else resolve((1000 * count) / gone);
  };
  requestAnimationFrame(step);
})`;

/** The sample looked through and turned: frames a second of the page while it is dragged, and none once it rests. */
async function turning(page: Page, url: string): Promise<Line> {
  await page.goto(`${url}/sets/${SAMPLE}/tint?show=look`);
  await page.getByLabel('Look at').click();
  await page.getByRole('option', { name: 'every design' }).click();
  const view = page.getByRole('application', { name: /looked through/ });
  await view.locator('canvas').waitFor();
  await rest(page);
  const box = (await view.boundingBox())!;
  await page.mouse.move(box.x + 200, box.y + 200);
  await page.mouse.down();
  const frames = await page.evaluate<number>(TURN);
  await page.mouse.up();
  return {
    what: 'the sample looked through, turned',
    measured: `${frames.toFixed(0)} frames a second`,
    limit: 'at least 30',
    within: frames >= 30,
  };
}

/** A frame of a sixtieth of a second, and what of jitter a browser shows even when nothing happens. */
const FRAME_MS = 1000 / 60 + 1.5;

/** The log of twenty thousand entries, scrolled by 40 px a frame: how long frames take, the middle one and the slowest of twenty. */
async function logScrolled(folder: string, lines: Line[]): Promise<void> {
  const dataFile = join(folder, 'log.db');
  yearsOfLog().$client.prepare('vacuum into ?').run(dataFile);
  const { url, server } = await serve(dataFile, false);
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`${url}/log`);
    await rest(page);
    // As text: what compiles this file would name the function that calls itself, by a helper that the page does not have.
    const frames = await page.evaluate<number[]>(`new Promise((resolve) => {
      const gaps = [];
      let last = performance.now();
      requestAnimationFrame(function next(now) {
        gaps.push(now - last);
        last = now;
        window.scrollBy(0, 40);
        if (gaps.length < 400) requestAnimationFrame(next);
        else resolve(gaps.sort((a, b) => a - b));
      });
    })`);
    const [middle, slow] = [frames[200]!, frames[380]!];
    lines.push({
      what: 'a frame of scrolling the log of 20,000 entries',
      measured: `${middle.toFixed(1)} ms, nineteen of twenty within ${slow.toFixed(1)} ms`,
      limit: `${FRAME_MS.toFixed(1)} ms`,
      within: middle <= FRAME_MS,
    });
  } finally {
    await browser.close();
    await ended(server);
  }
}

/** Measures the built app. Says whether all is within its limits. */
export async function webBench(): Promise<boolean> {
  if (!existsSync('.next/BUILD_ID') || !existsSync('.next/compute.mjs')) {
    console.log('the server is not measured: build it first (npm run build)\n');
    return true;
  }
  const folder = mkdtempSync(join(tmpdir(), 'aguada-bench-'));
  const lines: Line[] = [];
  try {
    await years(folder, lines);
    await fromTheCommand(folder, lines);
    await slowTablet(folder, lines);
    await logScrolled(folder, lines);
    await firstPaint(folder, lines);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  const width = (key: 'what' | 'measured' | 'limit'): number => Math.max(...lines.map((line) => line[key].length));
  for (const { what, measured, limit, within } of lines)
    console.log(
      `${what.padEnd(width('what'))}  ${measured.padEnd(width('measured'))}  ${limit.padEnd(width('limit'))}  ${within ? 'within' : 'OVER'}`,
    );
  return lines.every(({ within }) => within);
}
