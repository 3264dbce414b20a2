import type { Page } from '@playwright/test';
import { madeUpPhoto } from '../e2e/madeUpPhoto';
import { median } from './measure';
import { rest, type Line } from './page';

/** Runs in the page: how long it takes until a further photo stands there, and the longest that no frame came. As text, as elsewhere. */
const TAKEN_IN = `new Promise((resolve) => {
  const shown = () => document.querySelectorAll('img[src^="/api/photos/"]').length;
  const [before, started] = [shown(), performance.now()];
  let [last, longest] = [started, 0];
  const step = () => {
    const now = performance.now();
    longest = Math.max(longest, now - last);
    last = now;
    if (shown() > before || now - started > 20000) resolve({ ms: now - started, longest });
    else requestAnimationFrame(step);
  };
  requestAnimationFrame(step);
})`;
const MOST_MS = 1000;
/** Longer than this without a frame, a page is felt to hang. */
const FROZEN_MS = 200;
const TIMES = 3;

/** A photo of twelve megapixels, from the file that is chosen to the picture that stands with its piece; and the page meanwhile. */
export async function photoTaken(page: Page, log: string): Promise<Line> {
  await page.goto(log);
  const file = page.getByLabel(/^Photo of HS-1 #1$/);
  await file.waitFor({ state: 'attached' });
  await rest(page);
  const times: { ms: number; longest: number }[] = [];
  for (let i = 0; i < TIMES; i++) {
    // Each of its own: one that is there already is not put there again.
    const buffer = await madeUpPhoto(page, 4000, 3000, `#2f4a4${i}`);
    const taken = page.evaluate(TAKEN_IN) as Promise<{ ms: number; longest: number }>;
    await file.setInputFiles({ name: 'IMG.jpg', mimeType: 'image/jpeg', buffer });
    times.push(await taken);
    await rest(page);
  }
  const ms = median(times.map((one) => one.ms));
  const longest = median(times.map((one) => one.longest));
  return {
    what: 'a photo of 12 megapixels, from file to piece',
    measured: `${ms.toFixed(0)} ms, ${longest.toFixed(0)} ms without a frame`,
    limit: `${MOST_MS} ms, ${FROZEN_MS} ms`,
    within: ms <= MOST_MS && longest <= FROZEN_MS,
  };
}
