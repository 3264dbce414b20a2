import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { networkInterfaces } from 'node:os';
import { closeData, dataState } from '../data';
import { roleOfDevice, setAddresses } from '../devices';
import { wallClockNow } from '../clock';
import { hostsOf, securityHeaders, verdictOn } from './gate';
import { asksForPage, KeptPages } from './keptPages';
import { withPageStatus } from './pageStatus';
import { isThisMachine, verdictOnDevice } from './who';

/** How long a client may take over its headers, and over the whole of its request: a slow one holds nothing up. */
const HEADERS_MS = 10_000;
const REQUEST_MS = 60_000;
/** A connection at rest stays open for longer than browsers wait between two presses: one that is shut meets the next request halfway. */
const KEEP_ALIVE_MS = 65_000;
const MOST_HEADER_BYTES = 16_384;
/** What is still read of a request that is refused, and for how long. */
const MOST_THROWN_AWAY = 20_000_000;
const LINGER_MS = 2000;
/** After this a stop no longer waits for requests that are under way. */
const STOP_MS = 3000;

const port = Number(process.env['PORT'] ?? 3000);
/** Open to other devices of the local network: each has to pair first. */
const open = process.env['AGUADA_OPEN'] === '1';
const host = open ? '0.0.0.0' : (process.env['HOST'] ?? '127.0.0.1');
const others = open ? networkAddresses() : [];
const hosts = hostsOf(host, port, others);
setAddresses(others.map((address) => `http://${address}:${port}`));

/** Addresses of this machine on its networks. */
function networkAddresses(): string[] {
  return Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).flatMap(({ family, internal, address }) => (family === 'IPv4' && !internal ? [address] : [])),
  );
}

// Next looks at this while it is loaded.
Object.assign(process.env, { NODE_ENV: 'production', NEXT_TELEMETRY_DISABLED: '1' });
const { default: next } = await import('next');
const app = next({ dev: false, dir: process.cwd(), hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

/**
 * Refuses a request. Its answer goes out at once, and what is still sent is thrown away for a while before the connection ends: one
 * that is cut in the middle of a body takes the answer with it.
 */
function refuse(request: IncomingMessage, response: ServerResponse, status: number, message: string): void {
  const { 'content-security-policy': _, ...headers } = securityHeaders('');
  const text = JSON.stringify({ error: 'request', message, fields: [] });
  response.writeHead(status, {
    ...headers,
    'content-type': 'application/json',
    'content-length': Buffer.byteLength(text),
    ...(status === 405 && { allow: 'GET, HEAD, POST' }),
    connection: 'close',
  });
  if (request.method !== 'HEAD') response.write(text);
  const end = (): void => void response.end();
  const linger = setTimeout(end, LINGER_MS);
  let thrownAway = 0;
  request.on('data', (chunk: Buffer) => {
    thrownAway += chunk.length;
    if (thrownAway > MOST_THROWN_AWAY) request.destroy();
  });
  request.once('end', end);
  response.once('close', () => clearTimeout(linger));
}

/** The role of a device; none while the data file cannot be read: then nobody from elsewhere comes in. */
function roleOrNone(cookies: string | undefined): ReturnType<typeof roleOfDevice> {
  try {
    return roleOfDevice(cookies);
  } catch {
    return null;
  }
}

const keptPages = new KeptPages();

/** All that a page can depend on: what the data file holds, and the minute. Null while the file cannot be read. */
function workshopState(): string | null {
  try {
    const state = dataState();
    return state === null ? null : `${state} ${wallClockNow()}`;
  } catch {
    return null;
  }
}

/** Gives the page out as it was last drawn, if nothing has changed since; else has it kept as it is drawn now. */
function giveKept(request: IncomingMessage, response: ServerResponse, nonce: string): boolean {
  const url = request.url ?? '';
  // Other devices see what their role allows; for them each page is drawn.
  if (request.headers['x-device-role'] || !asksForPage(request.method, url, request.headers)) return false;
  const state = workshopState();
  if (state === null) return false;
  const kept = keptPages.at(url, state, nonce);
  if (kept) {
    response.writeHead(200, { ...kept.headers, 'content-length': Buffer.byteLength(kept.text) });
    response.end(kept.text);
    return true;
  }
  keptPages.watch(response, url, nonce, state, workshopState);
  return false;
}

/** Lets a page in trouble be answered with the status of it. */
function withOwnStatus(response: ServerResponse, page: { status: number | null }): void {
  const writeHead = response.writeHead.bind(response) as (status: number, ...rest: unknown[]) => ServerResponse;
  response.writeHead = ((status: number, ...rest: unknown[]) =>
    writeHead(status === 200 && page.status !== null ? page.status : status, ...rest)) as ServerResponse['writeHead'];
}

const server = createServer(
  {
    maxHeaderSize: MOST_HEADER_BYTES,
    headersTimeout: HEADERS_MS,
    requestTimeout: REQUEST_MS,
    keepAliveTimeout: KEEP_ALIVE_MS,
  },
  (request, response) => {
    const verdict = verdictOn(
      { method: request.method ?? '', url: request.url ?? '', headers: request.headers },
      hosts,
    );
    if (verdict) {
      refuse(request, response, verdict.status, verdict.message);
      return;
    }
    // Whoever is not at this machine has to be paired; which role it has, the routes are told here and nowhere else.
    delete request.headers['x-device-role'];
    if (!isThisMachine(request.socket.remoteAddress)) {
      const [path = ''] = (request.url ?? '').split('?');
      const role = roleOrNone(request.headers.cookie);
      const device = verdictOnDevice(role, request.method ?? '', path);
      if (device === 'pair') {
        response.writeHead(303, { ...securityHeaders(''), location: '/pair' });
        response.end();
        return;
      }
      if (device) {
        refuse(request, response, device.status, device.message);
        return;
      }
      if (role) request.headers['x-device-role'] = role;
    }
    const nonce = randomBytes(16).toString('base64');
    const headers = securityHeaders(nonce);
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
    if (giveKept(request, response, nonce)) return;
    // From these Next and the layout take the nonce for the scripts that they write into the page.
    request.headers['content-security-policy'] = headers['content-security-policy'];
    request.headers['x-nonce'] = nonce;
    const page = { status: null as number | null };
    withOwnStatus(response, page);
    withPageStatus(page, () => {
      handle(request, response).catch((error: unknown) => {
        process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
        if (!response.headersSent) refuse(request, response, 500, 'Something went wrong in Aguada.');
        else response.end();
      });
    });
  },
);
server.on('clientError', (_error, socket) => {
  if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\n\r\n');
});
server.listen(port, host, () => {
  const places = open ? ['127.0.0.1', ...others] : [host];
  process.stdout.write(`Ready: Aguada is at ${places.map((place) => `http://${place}:${port}/`).join(' and ')}\n`);
});

let stopping = false;
function stop(): void {
  if (stopping) return;
  stopping = true;
  const end = (): void => {
    closeData();
    process.exit(0);
  };
  server.close(end);
  server.closeIdleConnections();
  setTimeout(end, STOP_MS).unref();
}
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
