import type { Locator, Page } from '@playwright/test';
import { expect } from './guarded';

/** The title of the step that is next. */
export const title = (page: Page): Locator => page.getByRole('heading', { level: 1 });
export const stepKind = (page: Page): Promise<string | null> => page.locator('main').getAttribute('data-step');
const struck = new WeakMap<Page, number>();
/** A knuckle does not press twice within a third of a second: the next press waits for as long as that is not over. */
export async function strike(page: Page): Promise<void> {
  const last = struck.get(page) ?? 0;
  await expect.poll(() => Date.now() - last, { intervals: [40] }).toBeGreaterThan(400);
  await page.keyboard.press(' ');
  struck.set(page, Date.now());
}

/** The large press, and what comes of it: another step, or a question. */
export async function press(page: Page): Promise<void> {
  const before = await page.locator('main').innerText();
  await strike(page);
  await expect.poll(() => page.locator('main').innerText()).not.toBe(before);
}

/** Waits until the server has every press: until then the window keeps them. */
export const sent = (page: Page): Promise<void> =>
  expect
    .poll(() => page.evaluate(() => Object.entries(localStorage).filter(([key]) => key.startsWith('aguada.presses'))))
    .toEqual([]);

/** Presses what has to be ready. */
export async function ready(page: Page): Promise<void> {
  while ((await stepKind(page)) === 'ready') {
    const item = await title(page).innerText();
    await strike(page);
    await expect(title(page)).not.toHaveText(item);
  }
}
