import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { expect } from './guarded';
import { freePort } from '../scripts/freePort';

/** A server of its own on a data file of its own. */
export async function serve(
  data: string,
  env: Record<string, string> = {},
): Promise<{ url: string; server: ChildProcess }> {
  const port = env['PORT'] ?? String(await freePort());
  const server = spawn('node', ['.next/serve.mjs'], {
    env: {
      ...process.env,
      PORT: port,
      AGUADA_DATA: data,
      AGUADA_DEMO: '',
      AGUADA_AHEAD: 'off',
      AGUADA_BUSY_MS: '200',
      ...env,
    },
    stdio: 'ignore',
  });
  const url = `http://127.0.0.1:${port}`;
  await expect(async () => expect((await fetch(url)).status).toBeLessThan(600)).toPass();
  return { url, server };
}

/** Stops a server and waits until it is gone. */
export async function ended(server: ChildProcess): Promise<void> {
  if (server.exitCode !== null) return;
  const gone = once(server, 'exit');
  server.kill();
  await gone;
}
