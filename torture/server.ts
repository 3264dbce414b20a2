import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { freePort } from '../scripts/freePort';

/** The built server, on a data file of its own. */
export interface Served {
  url: string;
  port: number;
  process: ChildProcess;
}

/** Starts the server and waits until it takes edits. */
export async function serve(data: string, env: Record<string, string> = {}): Promise<Served> {
  const port = await freePort();
  const child = spawn('node', ['.next/serve.mjs'], {
    env: { ...process.env, PORT: String(port), AGUADA_DATA: data, AGUADA_DEMO: '', AGUADA_AHEAD: 'off', ...env },
    stdio: ['ignore', 'ignore', 'pipe'],
  });
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => (said = (said + String(chunk)).slice(-4000)));
  const url = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 600; tries++) {
    if (child.exitCode !== null) throw new Error(`The server ended by itself: ${said}`);
    const up = await fetch(`${url}/api/backups`).then(
      () => true,
      () => false,
    );
    if (up) return { url, port, process: child };
    await pause(25);
  }
  throw new Error('The server did not start');
}

/** Ends the server at once, as when the plug is pulled from it. */
export async function kill({ process: child }: Served): Promise<void> {
  const gone = once(child, 'exit');
  child.kill('SIGKILL');
  await gone;
}

/** Ends the server in order. */
export async function end({ process: child }: Served): Promise<void> {
  if (child.exitCode !== null) return;
  const gone = once(child, 'exit');
  child.kill('SIGTERM');
  await gone;
}

export const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** Resident memory of the server, MB. */
export const memoryMb = ({ process: child }: Served): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1000;

export interface EditReply {
  status: number;
  body: { id?: string | null; message?: string; error?: string };
}

/** Sends an edit; null when no answer came. */
export async function sendEdit(
  url: string,
  command: unknown,
  wanted: unknown,
  key?: string,
): Promise<EditReply | null> {
  try {
    const response = await fetch(`${url}/api/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ command, wanted, ...(key && { key }) }),
    });
    return { status: response.status, body: (await response.json()) as EditReply['body'] };
  } catch {
    return null;
  }
}
