// What every command needs before it starts: the packages, and (for the browser tests) Chromium.
import { spawnSync } from 'node:child_process';
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

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser'];
const INSTALL = 'apt-get update && apt-get install -y chromium';

/** The path of Debian's Chromium, installed first when it is missing and that may be done here. */
export function findChromium() {
  const found = () => process.env.CHROMIUM_PATH ?? CHROMIUM.find((path) => existsSync(path));
  if (found()) return found();
  if (process.getuid?.() === 0) {
    console.log('Installing Chromium…');
    run('sh', ['-c', INSTALL], { env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } });
  }
  if (found()) return found();
  console.error(`The browser tests need Chromium. Install it with:\n\n  sudo sh -c "${INSTALL}"\n\nor set CHROMIUM_PATH to one that is there.`);
  process.exit(1);
}
