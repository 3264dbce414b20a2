// What every command needs before it starts: the packages, and (for the browser tests) Chromium.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const STAMP = 'node_modules/.installed-from';

/** Runs a command in the foreground; its exit code, 1 when it could not be started. */
export function run(command, args, options = {}) {
  const { status } = spawnSync(command, args, { stdio: 'inherit', shell: process.platform === 'win32', ...options });
  return status ?? 1;
}

/** Installs the packages of the lock file when they are missing or of another lock file. */
export function installPackages() {
  const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return;
  console.log('Installing packages…');
  if (run('npm', ['ci', '--include=dev']) !== 0) {
    console.error('The packages could not be installed; see above.');
    process.exit(1);
  }
  writeFileSync(STAMP, wanted);
}

/**
 * The same for the tests, in two steps so that types and lint need not wait for native code to compile: the promise is of that.
 * It resolves to false when something could not be built; what was printed is shown then.
 */
export function installPackagesApart() {
  const wanted = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return Promise.resolve(true);
  console.log('Installing packages…');
  if (run('npm', ['ci', '--include=dev', '--ignore-scripts']) !== 0) {
    console.error('The packages could not be installed; see above.');
    process.exit(1);
  }
  return meanwhile('npm', ['rebuild', '--foreground-scripts']).then((ok) => {
    if (ok) writeFileSync(STAMP, wanted);
    return ok;
  });
}

/** Runs a command beside others; what it prints is shown only when it fails. */
function meanwhile(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      shell: process.platform === 'win32',
      ...options,
    });
    const printed = [];
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk) => printed.push(chunk));
    child.on('error', () => resolve(false));
    child.on('close', (code) => {
      if (code !== 0) process.stderr.write(Buffer.concat(printed));
      resolve(code === 0);
    });
  });
}

// The shell without a window of its own is a fifth quicker.
const SHELL = '/usr/bin/chromium-headless-shell';
const CHROMIUM = [SHELL, '/usr/bin/chromium', '/usr/bin/chromium-browser'];
const INSTALL = 'apt-get update && (apt-get install -y chromium-headless-shell || apt-get install -y chromium)';

const found = () => process.env.CHROMIUM_PATH ?? CHROMIUM.find((path) => existsSync(path));

/** Installs Debian's Chromium beside what else goes on, when it is missing and that may be done here. */
export function installChromium() {
  if (process.env.CHROMIUM_PATH || existsSync(SHELL) || process.getuid?.() !== 0) return Promise.resolve(true);
  console.log('Installing Chromium meanwhile…');
  return meanwhile('sh', ['-c', INSTALL], { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
}

/** The path of Debian's Chromium; says how to install it and ends where it is missing. */
export function findChromium() {
  if (found()) return found();
  console.error(
    `The browser tests need Chromium. Install it with:\n\n  sudo sh -c "${INSTALL}"\n\nor set CHROMIUM_PATH to one that is there.`,
  );
  process.exit(1);
}
