import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { freePort } from '../scripts/freePort';

/** A server of its own on a data file of its own. */
export async function serve(
  data: string,
  demo: boolean,
  env: Record<string, string> = {},
  firstPage = '/shelf',
): Promise<{ url: string; server: ChildProcess }> {
  const port = await freePort();
  const server = spawn('node', ['.next/serve.mjs'], {
    env: {
      ...process.env,
      PORT: String(port),
      NODE_ENV: 'production',
      AGUADA_DATA: data,
      AGUADA_DEMO: demo ? '1' : '',
      ...env,
    },
    stdio: 'ignore',
  });
  const url = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 1000; tries++) {
    const up = await fetch(`${url}${firstPage}`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (up) return { url, server };
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Error('The server did not start');
}

/** Stops it and waits until it is gone. */
export async function ended(server: ChildProcess): Promise<void> {
  const gone = once(server, 'exit');
  server.kill();
  await gone;
}

/** Milliseconds and bytes of an answer, body and all; the median of several. */
