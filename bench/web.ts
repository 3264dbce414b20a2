import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { CHROMIUM_FLAGS } from '../playwright.config';
import { BIG_SET, writeBigFile } from './bigFile';
import { median } from './measure';

/** One line of the report of the server. */
interface Line {
  what: string;
  measured: string;
  limit: string;
  within: boolean;
}

const STAGES = [
  ['shape', 'Water in each'],
  ['match', 'Gap of the beds'],
  ['tint', 'Smallest cup for drops'],
  ['pour', 'To mix'],
  ['cure', 'Full cure'],
  ['log', 'Layer'],
] as const;
const SAMPLE = 'heron-slack';
const KB = 1000;

const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => resolve(port));
    });
  });

async function serve(data: string, demo: boolean): Promise<{ url: string; server: ChildProcess }> {
  const port = await freePort();
  const server = spawn('node', ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)], {
    env: { ...process.env, NODE_ENV: 'production', AGUADA_DATA: data, AGUADA_DEMO: demo ? '1' : '' },
    stdio: 'ignore',
  });
  const url = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 200; tries++) {
    const up = await fetch(`${url}/shelf`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (up) return { url, server };
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('The server did not start');
}

async function ended(server: ChildProcess): Promise<void> {
  const gone = once(server, 'exit');
  server.kill();
  await gone;
}

/** Milliseconds and bytes of an answer, body and all; the median of several. */
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
  const rows = writeBigFile(path);
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
    console.log(`a data file of ${rows} rows: 60 designs, 300 finished batches of 6 cups, 60 sets`);
    for (const [stage] of STAGES) {
      const page = `${url}/sets/${BIG_SET}/${stage}`;
      // The first visits fill the caches; what streams in later is awaited too.
      await (await fetch(page)).text();
      await (await fetch(page)).text();
      weigh(`${stage}, years of work`, await timed(() => fetch(page)), 150, 250);
    }
    let version = 1;
    const edit = (): Promise<Response> =>
      fetch(`${url}/api/edits`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({
          wanted: { view: 'desk', setId: BIG_SET },
          command: {
            ...{ do: 'put', kind: 'set', id: BIG_SET, version: version++ },
            data: {
              ...{ name: `Years ${version}`, figureScaleMm: 28, levelMm: 15, productId: 'coating-epoxy' },
              ...{ recipeId: 'clear', benchWindows: null, job: null },
            },
          },
        }),
      });
    weigh('an edit', await timed(edit), 60, 30);
    await (await fetch(url)).text();
    weigh('the list of 60 sets', await timed(() => fetch(url)), 200, Infinity);
  } finally {
    await ended(server);
  }
}

/** From asking for a page to seeing a text on it, ms. */
async function until(page: Page, address: string, text: string): Promise<number> {
  const start = performance.now();
  await page.goto(address, { waitUntil: 'commit' });
  await page.getByText(text).first().waitFor();
  return performance.now() - start;
}

/** The sample in a browser: from request to figures on each stage, against a bare page; and one step of navigation. */
async function firstPaint(folder: string, lines: Line[]): Promise<void> {
  const { url, server } = await serve(join(folder, 'sample.db'), true);
  const browser = await chromium.launch({
    executablePath: process.env['CHROMIUM_PATH'] ?? '/usr/bin/chromium',
    args: CHROMIUM_FLAGS,
  });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await until(page, `${url}/nowhere`, 'is not here');
    const bare: number[] = [];
    for (let i = 0; i < 7; i++) bare.push(await until(page, `${url}/nowhere`, 'is not here'));
    const bareMs = median(bare);
    lines.push({
      what: 'a bare page in the browser',
      measured: `${bareMs.toFixed(0)} ms`,
      limit: 'yardstick',
      within: true,
    });
    for (const [stage, text] of STAGES) {
      const address = `${url}/sets/${SAMPLE}/${stage}`;
      const cold = await until(page, address, text);
      const cached: number[] = [];
      for (let i = 0; i < 5; i++) cached.push(await until(page, address, text));
      const [coldRatio, cachedRatio] = [cold / bareMs, median(cached) / bareMs];
      lines.push({
        what: `${stage}, request to figures`,
        measured: `${coldRatio.toFixed(1)} × cold, ${cachedRatio.toFixed(1)} × cached`,
        limit: '6 × cold, 2 × cached',
        within: coldRatio <= 6 && cachedRatio <= 2,
      });
    }
    await page.goto(`${url}/sets/${SAMPLE}/pour`);
    await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
    const steps: number[] = [];
    for (const [stage, text] of [
      ['Cure', 'What follows'],
      ['Pour', 'To mix'],
      ['Cure', 'What follows'],
      ['Pour', 'To mix'],
      ['Cure', 'What follows'],
    ] as const) {
      const start = performance.now();
      await page.getByRole('link', { name: stage, exact: true }).click();
      await page.getByText(text).first().waitFor();
      steps.push(performance.now() - start);
    }
    const step = median(steps);
    lines.push({
      what: 'one step of navigation',
      measured: `${step.toFixed(0)} ms`,
      limit: '150 ms',
      within: step <= 150,
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
