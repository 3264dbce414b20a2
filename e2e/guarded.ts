import { rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { makeSetArchive, openArchive } from '../src/server/archive';

/** Every page of every test: nothing may be asked of another machine, and the page may not complain. */
export const test = base.extend<{ guarded: undefined; expectComplaint: (pattern: RegExp) => void }>({
  page: async ({ page }, provide) => {
    const { goto, reload } = { goto: page.goto.bind(page), reload: page.reload.bind(page) };
    page.goto = async (...args) => {
      const response = await goto(...args);
      await awake(page);
      return response;
    };
    page.reload = async (...args) => {
      const response = await reload(...args);
      await awake(page);
      return response;
    };
    await provide(page);
  },
  // Complaints that a test provokes on purpose, such as the browser's own line about a 409.
  expectComplaint: async ({ page: _ }, provide, info) => {
    await provide((pattern) => void info.annotations.push({ type: 'complaint', description: pattern.source }));
  },
  guarded: [
    async ({ context, baseURL }, provide, info) => {
      const complaints: string[] = [];
      context.on('request', (request) => {
        const { protocol, hostname } = new URL(request.url());
        if (protocol.startsWith('http') && hostname !== '127.0.0.1') complaints.push(`asked ${request.url()}`);
      });
      context.on('console', (message) => message.type() === 'error' && complaints.push(message.text()));
      context.on('weberror', (error) => complaints.push(String(error.error())));
      context.on(
        'response',
        (response) => response.status() >= 400 && complaints.push(`${response.status()} from ${response.url()}`),
      );
      await provide(undefined);
      const expected = info.annotations
        .filter(({ type }) => type === 'complaint')
        .map(({ description }) => new RegExp(description ?? ''));
      expect(
        complaints.filter((text) => !expected.some((pattern) => pattern.test(text))),
        `pages served from ${baseURL ?? ''}`,
      ).toEqual([]);
    },
    { auto: true },
  ],
});

/** Waits until the page answers: what is pressed before that is lost, as it would be for the quickest of makers. */
export async function awake(page: Page): Promise<void> {
  await page.waitForFunction(() => document.documentElement.dataset['awake'] !== undefined);
}

export { expect };

/** The sample taken in once more under a name and ids of its own: what a test changes of it, no other test sees. */
export async function ownSample({ request }: Page, name: string): Promise<string> {
  const archive = await request.get('/api/sets/heron-slack/archive');
  const at = join(tmpdir(), `aguada-${crypto.randomUUID()}.zip`);
  writeFileSync(at, await archive.body());
  const opened = await openArchive(at, `${at}.unpacked`);
  rmSync(at);
  rmSync(`${at}.unpacked`, { recursive: true, force: true });
  if (opened.holds !== 'set') throw new Error('This is no archive of a set');
  const { set } = opened.file;
  const renamed = { ...opened.file, set: { ...set, data: { ...set.data, name } } };
  const taken = await request.post('/api/backups/file?only=set', {
    headers: { 'content-type': 'application/octet-stream' },
    data: await buffer(makeSetArchive(renamed, '2026-11-26T10:00')),
  });
  return ((await taken.json()) as { setId: string }).setId;
}

/** Makes a set from the first screen and leaves the browser on its Shape stage. */
export async function makeSet(page: Page, name: string, level = '15', at = '/'): Promise<void> {
  await page.goto(at);
  await page.getByRole('button', { name: 'New set' }).click();
  await page.getByLabel('Name', { exact: true }).fill(name);
  // Enter in the last field sends the form.
  const field = page.getByRole('textbox', { name: 'Level above the underside' });
  await field.fill(level);
  await field.press('Enter');
  await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible();
}

/** Types a measure and leaves the field. */
export async function fillMeasure(page: Page, label: string | RegExp, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(text);
  await field.press('Enter');
  await field.blur();
}

/** Adds a piece from the list of starters. */
export async function addPiece(page: Page, starter: string): Promise<void> {
  await pick(page, 'Add a piece', starter);
}

/** Chooses in a list of one of a few, by the words of the choice. */
export async function choose(within: Page | Locator, label: string | RegExp, option: string | RegExp): Promise<void> {
  const field = within.getByRole('combobox', { name: label });
  await field.click();
  const page = 'page' in within ? within.page() : within;
  await page.getByRole('option', { name: option, exact: typeof option === 'string' }).click();
  await expect(page.getByRole('listbox')).toHaveCount(0);
}

/** Opens a menu of things to do, and does one. */
export async function pick(within: Page | Locator, menu: string | RegExp, item: string | RegExp): Promise<void> {
  await within.getByRole('button', { name: menu }).click();
  const page = 'page' in within ? within.page() : within;
  await page.getByRole('menuitem', { name: item, exact: typeof item === 'string' }).click();
}

/** The digits of a reading, by its label. */
export const reading = (page: Page, label: string) =>
  page
    .locator('dl > div', { has: page.getByText(label, { exact: true }) })
    .locator('dd > span')
    .first();
