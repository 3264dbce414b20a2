// npm run demo: everything from a fresh clone to a running Aguada with the sample set.
import { spawn } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { installPackages, run } from './ready.mjs';

process.env.NEXT_TELEMETRY_DISABLED = '1';
const host = process.env.HOST ?? '127.0.0.1';
const port = process.env.PORT ?? '3000';
// Open to devices of the local network: each is asked to pair first.
const open = process.argv.includes('--open');

if (!/^\d{1,5}$/.test(port) || Number(port) < 1 || Number(port) > 65535) {
  console.error(`PORT must be a number from 1 to 65535, not “${port}”.`);
  process.exit(2);
}
installPackages();
if (buildIsOld()) {
  console.log('Building…');
  if (run('npx', ['next', 'build']) !== 0 || run('node', ['scripts/bundle.mjs']) !== 0) process.exit(1);
}
const server = spawn('node', ['.next/serve.mjs'], {
  stdio: ['ignore', 'pipe', 'inherit'],
  env: {
    ...process.env,
    NODE_ENV: 'production',
    HOST: host,
    PORT: port,
    AGUADA_DEMO: '1',
    ...(open && { AGUADA_OPEN: '1' }),
  },
});
server.stdout.on('data', async (chunk) => {
  if (!String(chunk).includes('Ready')) return;
  // The first page opens the data file: it is migrated and, when new, gets the sample.
  const ok = await fetch(`http://${host}:${port}/`).then(
    (response) => response.ok,
    () => false,
  );
  console.log(
    ok
      ? `\nAguada is at http://${host}:${port}/\nStop it with Ctrl C.`
      : `\nAguada started at http://${host}:${port}/ but did not answer; see above.`,
  );
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));

/** True when there is no build, or a source file is newer than it. */
function buildIsOld() {
  if (!existsSync('.next/BUILD_ID') || !existsSync('.next/compute.mjs') || !existsSync('.next/serve.mjs')) return true;
  const built = statSync('.next/BUILD_ID').mtimeMs;
  return ['src', 'package-lock.json', 'next.config.ts'].some((path) => newest(path) > built);
}

function newest(path) {
  if (!statSync(path).isDirectory()) return statSync(path).mtimeMs;
  return Math.max(...readdirSync(path).map((name) => newest(join(path, name))));
}
