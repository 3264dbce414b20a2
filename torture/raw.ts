import { connect } from 'node:net';

export interface Sent {
  method: string;
  path: string;
  headers: Record<string, string>;
  body: string | Uint8Array | null;
}

/** What came back: the status, the headers and as much of the body as was waited for, as text. */
export interface Answered {
  status: number;
  head: string;
  body: string;
}

const MOST_KEPT = 2_000_000;

/**
 * One request over a socket of its own, as `fetch` sends neither every method nor every address. Null without an answer. `until` ends
 * the waiting early, for answers that do not end by themselves.
 */
export function sendRaw(
  { port, address = '127.0.0.1' }: { port: number; address?: string },
  { method, path, headers, body }: Sent,
  until: (answer: string) => boolean = () => false,
): Promise<Answered | null> {
  return new Promise((resolve) => {
    const socket = connect(port, address);
    const bytes = body === null ? null : Buffer.from(body);
    let answer = '';
    const done = (): void => {
      socket.destroy();
      const status = /^HTTP\/1\.1 (\d{3})/.exec(answer)?.[1];
      const [head = '', ...rest] = answer.split('\r\n\r\n');
      resolve(status ? { status: Number(status), head, body: rest.join('\r\n\r\n') } : null);
    };
    socket.setTimeout(30_000, done);
    socket.on('error', done);
    socket.on('close', done);
    socket.on('data', (chunk) => {
      if (answer.length < MOST_KEPT) answer += chunk.toString('latin1');
      if (until(answer)) done();
    });
    const head = Object.entries({
      host: `${address}:${port}`,
      connection: 'close',
      ...(bytes && { 'content-length': String(bytes.length) }),
      ...headers,
    })
      .map(([name, value]) => `${name}: ${value}\r\n`)
      .join('');
    socket.write(`${method} ${path} HTTP/1.1\r\n${head}\r\n`);
    if (bytes) socket.write(bytes);
  });
}
