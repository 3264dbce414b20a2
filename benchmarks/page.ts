import type { Page } from '@playwright/test';

/** One line of the report of the server. */
export interface Line {
  what: string;
  measured: string;
  limit: string;
  within: boolean;
}

/** From asking for a page to seeing a text on it, ms. */
export async function until(page: Page, address: string, text: string): Promise<number> {
  const start = performance.now();
  await page.goto(address, { waitUntil: 'commit' });
  await page.getByText(text).first().waitFor();
  return performance.now() - start;
}

/** Lets the page before come to rest: what it still does would be counted to the next one. */
const REST_MS = 1200;
export const rest = (page: Page): Promise<void> => page.waitForTimeout(REST_MS);
