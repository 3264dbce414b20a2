import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const PORT = 4173;
/** Debian’s Chromium; its shell without a window of its own is a fifth quicker. */
export const CHROMIUM =
  process.env['CHROMIUM_PATH'] ??
  ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'].find((path) => existsSync(path)) ??
  'chromium';
export const CHROMIUM_FLAGS = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Journeys in Debian's Chromium against the built app with the sample set in a data file of its own. */
export default defineConfig({
  testDir: 'e2e',
  outputDir: '.test-tmp/browser',
  fullyParallel: true,
  // Journeys wait more than they work: three keep two cores busy.
  workers: 3,
  // Machines differ: waiting is cheap, a test that gives up on a slow one is not.
  timeout: 240_000,
  expect: { timeout: 75_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ?? '.test-tmp/playwright.json' }],
  ],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    reducedMotion: 'reduce',
    acceptDownloads: true,
    launchOptions: { executablePath: CHROMIUM, args: CHROMIUM_FLAGS },
  },
  webServer: {
    command: `rm -rf .test-tmp/e2e.db* && node .next/serve.mjs`,
    url: `http://127.0.0.1:${PORT}/`,
    reuseExistingServer: false,
    env: { PORT: String(PORT), AGUADA_DATA: '.test-tmp/e2e.db', AGUADA_DEMO: '1' },
  },
});
