// npm test: types, lint, unit tests, build, browser tests; ends with one line that adds up all tests.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { findChromium, installPackages, run } from './ready.mjs';

process.env.NEXT_TELEMETRY_DISABLED = '1';
const JEST = '.test-tmp/jest.json';
const PLAYWRIGHT = '.test-tmp/playwright.json';
const totals = { passed: 0, failed: 0 };
const broken = [];

function stage(name, command, args, env = {}) {
  console.log(`\n== ${name}`);
  const ok = run(command, args, { env: { ...process.env, ...env } }) === 0;
  if (!ok) broken.push(name);
  return ok;
}

const readReport = (path) => {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return null;
  }
};

installPackages();
const chromium = findChromium();
rmSync('.test-tmp', { recursive: true, force: true });
mkdirSync('.test-tmp');

stage('types', 'npx', ['tsc', '--noEmit']);
stage('lint', 'npx', ['eslint', '.']);
stage('unit tests', 'npx', ['jest', '--json', `--outputFile=${JEST}`]);
if (stage('build', 'npx', ['next', 'build'])) stage('browser tests', 'npx', ['playwright', 'test'], { CHROMIUM_PATH: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: PLAYWRIGHT });

const jest = readReport(JEST);
totals.passed += jest?.numPassedTests ?? 0;
totals.failed += (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0);
const browser = readReport(PLAYWRIGHT)?.stats;
totals.passed += (browser?.expected ?? 0) + (browser?.flaky ?? 0);
totals.failed += browser?.unexpected ?? 0;
if (!jest || !browser) broken.push('a report is missing');

if (broken.length > 0) console.log(`\nFailed: ${broken.join(', ')}`);
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(broken.length > 0 || totals.failed > 0 || totals.passed === 0 ? 1 : 0);
