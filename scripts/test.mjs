// npm test: types, format, lint, unit tests, build, browser tests; ends with one line that adds up all tests.
import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { spawn } from 'node:child_process';
import { findChromium, installChromium, installPackagesApart } from './ready.mjs';

process.env.NEXT_TELEMETRY_DISABLED = '1';
const JEST = '.test-tmp/jest.json';
const PLAYWRIGHT = '.test-tmp/playwright.json';
const totals = { passed: 0, failed: 0 };
const broken = [];

/** One stage, shown as it goes, or (`beside` others) once it has ended. */
function stage(name, command, args, { env = {}, beside = false } = {}) {
  const heading = `\n== ${name}`;
  if (!beside) console.log(heading);
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: beside ? ['ignore', 'pipe', 'pipe'] : 'inherit',
      shell: process.platform === 'win32',
      env: { ...process.env, ...env },
    });
    let said = '';
    for (const stream of beside ? [child.stdout, child.stderr] : []) stream.on('data', (text) => (said += text));
    const end = (ok) => {
      if (!ok) broken.push(name);
      if (beside) console.log(`${heading}\n${said}`);
      resolve(ok);
    };
    child.on('error', () => end(false));
    child.on('close', (code) => end(code === 0));
  });
}

const readReport = (path) => {
  try {
    return JSON.parse(readFileSync(path, 'utf8'));
  } catch {
    return null;
  }
};

const chromiumReady = installChromium();
const packagesReady = installPackagesApart();
rmSync('.test-tmp', { recursive: true, force: true });
mkdirSync('.test-tmp');

// The build asks for the types of everything, tests and scripts too.
const looked = Promise.all([
  stage('format', 'npx', ['prettier', '--check', '.'], { beside: true }),
  stage('lint', 'npx', ['eslint', '.'], { beside: true }),
]);
if (!(await packagesReady)) broken.push('packages with native code');
const built =
  (await stage('types and build', 'npx', ['next', 'build'])) && (await stage('bundle', 'node', ['scripts/bundle.mjs']));
await looked;
await stage('unit tests', 'npx', ['jest', '--json', `--outputFile=${JEST}`]);
await chromiumReady;
if (built)
  await stage('browser tests', 'npx', ['playwright', 'test'], {
    env: { CHROMIUM_PATH: findChromium(), PLAYWRIGHT_JSON_OUTPUT_NAME: PLAYWRIGHT },
  });

const jest = readReport(JEST);
totals.passed += jest?.numPassedTests ?? 0;
totals.failed += (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0);
const browser = readReport(PLAYWRIGHT)?.stats;
totals.passed += browser?.expected ?? 0;
totals.failed += browser?.unexpected ?? 0;
if (!jest || !browser) broken.push('a report is missing');

if (broken.length > 0) console.log(`\nFailed: ${broken.join(', ')}`);
console.log(`\n${totals.passed} passed, ${totals.failed} failed`);
process.exit(broken.length > 0 || totals.failed > 0 || totals.passed === 0 ? 1 : 0);
