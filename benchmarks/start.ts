import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { CHROMIUM, CHROMIUM_FLAGS } from '../playwright.config';
import { median } from './measure';
import { rest, until, type Line } from './page';
import { ended, serve } from './server';

/** So long a maker looks at the list of sets before one is opened. */
const LOOK_MS = 5000;

/** A built checkout from the command to its first page, and from pressing a set there to its figures. */
export async function fromTheCommand(folder: string, lines: Line[]): Promise<void> {
  const began = performance.now();
  const { url, server } = await serve(join(folder, 'fresh.db'), true, {}, '/');
  const firstPageMs = performance.now() - began;
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await until(page, `${url}/`, 'Heron Slack');
    await page.waitForTimeout(LOOK_MS);
    const pressed = performance.now();
    await page.getByRole('link', { name: 'Heron Slack', exact: true }).first().click();
    await page.getByText('Water in each').first().waitFor();
    const firstStageMs = performance.now() - pressed;
    const bare: number[] = [];
    for (let i = 0; i < 5; i++) {
      bare.push(await until(page, `${url}/nowhere`, 'is not here'));
      await rest(page);
    }
    const bareMs = median(bare);
    lines.push(
      {
        what: 'first page of a fresh server, from the command',
        measured: `${(firstPageMs / 1000).toFixed(1)} s`,
        limit: '2 s',
        within: firstPageMs <= 2000,
      },
      {
        what: `its very first stage, pressed after ${LOOK_MS / 1000} s`,
        measured: `${(firstStageMs / bareMs).toFixed(1)} ×`,
        limit: '6 × a bare page',
        within: firstStageMs <= 6 * bareMs,
      },
    );
  } finally {
    await browser.close();
    await ended(server);
  }
}

/** Where the tablet of the benchmark asks: another address of this machine counts as another device. */
const AWAY = '127.0.0.2';
/** A tablet of some years ago on a full network: a quarter of this processor, 5 Mbit/s down, 1 up. */
const SLOWER = 4;
const NETWORK = { offline: false, latency: 40, downloadThroughput: 625_000, uploadThroughput: 125_000 };

/** The bench of a run on a slow tablet that is paired: from asking for it to the first press that it answers. */
export async function slowTablet(folder: string, lines: Line[]): Promise<void> {
  const { url, server } = await serve(join(folder, 'tablet.db'), true, { AGUADA_OPEN: '1', AGUADA_AWAY: AWAY });
  const away = url.replace('127.0.0.1', AWAY);
  const post = (to: string, path: string, data: object): Promise<Response> =>
    fetch(`${to}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: to },
      body: JSON.stringify(data),
    });
  const { pairing } = (await (await post(url, '/api/devices', { do: 'code', role: 'bench' })).json()) as {
    pairing: { code: string };
  };
  const paired = await post(away, '/api/pair', { code: pairing.code, name: 'Tablet' });
  const [name, value] = paired.headers.get('set-cookie')!.split(';')[0]!.split(/=(.*)/) as [string, string];
  const { id } = (await (await post(url, '/api/runs', { batchId: 'hs-batch-3' })).json()) as { id: string };
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_FLAGS });
  try {
    const times: number[] = [];
    for (let i = 0; i < 5; i++) {
      const context = await browser.newContext({ viewport: { width: 820, height: 1180 } });
      await context.addCookies([{ name, value, url: away }]);
      const page = await context.newPage();
      const session = await context.newCDPSession(page);
      await session.send('Network.enable');
      await session.send('Network.emulateNetworkConditions', NETWORK);
      await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
      const start = performance.now();
      await page.goto(`${away}/run/${id}`, { waitUntil: 'commit' });
      await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
      times.push(performance.now() - start);
      await context.close();
    }
    const ms = median(times);
    lines.push({
      what: 'the bench on a slow tablet, until it can be pressed',
      measured: `${(ms / 1000).toFixed(1)} s (${times.map((one) => (one / 1000).toFixed(1)).join(', ')})`,
      limit: '3 s',
      within: ms <= 3000,
    });
  } finally {
    await browser.close();
    await ended(server);
  }
}
