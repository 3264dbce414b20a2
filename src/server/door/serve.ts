import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, Server, type IncomingMessage, type ServerResponse } from 'node:http';
import type { Socket } from 'node:net';
import { networkInterfaces } from 'node:os';
import sirv from 'sirv';
import { closeData } from '../data';
import { onRightsChanged, roleOfDevice, setAddresses } from '../devices';
import { addressOf } from './address';
import { boundBody, boundConnections } from './connections';
import { hostsOf, mostBytesAt, securityHeaders, verdictOn } from './gate';
import { withPageStatus } from './pageStatus';
import { isThisMachine, verdictOnDevice } from './rights';

/** How long a client may take over its headers: a slow one holds nothing up. Bodies are bounded by their length. */
const HEADERS_MS = 5000;
const LOOK_AT_CONNECTIONS_MS = 1000;
/** Whether those of other devices that are still being answered may be is looked at anew so often, and after each change of rights. */
const REJUDGE_MS = 10_000;
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
/** An address of this machine at which everybody counts as another device: to try that out without one. */
const away = process.env['AGUADA_AWAY'] ?? null;
const others = open ? [...networkAddresses(), ...(away === null ? [] : [away])] : [];
const hosts = hostsOf(host, port, others);
setAddresses(others.map((address) => `http://${address}:${port}`));

/** Addresses of this machine on its networks. */
function networkAddresses(): string[] {
  return Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).flatMap(({ family, internal, address }) => (family === 'IPv4' && !internal ? [address] : [])),
  );
}

/** The settings as the build resolved them: to read `next.config.ts` again takes a compiler. */
const { config } = JSON.parse(readFileSync('.next/required-server-files.json', 'utf8')) as { config: object };
// Next looks at these while it is loaded.
Object.assign(process.env, {
  NODE_ENV: 'production',
  NEXT_TELEMETRY_DISABLED: '1',
  __NEXT_PRIVATE_STANDALONE_CONFIG: JSON.stringify(config),
});
const { default: next } = await import('next');
// Next takes upgrades of the server that it is given past the door; Aguada has none, so it is given one that never listens.
const app = next({ dev: false, dir: process.cwd(), hostname: host, port, httpServer: new Server() });
await app.prepare();
const handle = app.getRequestHandler();
/** Scripts and styles as they were packed at the build, for devices of the network. */
const STATIC = '/_next/static';
const packed = sirv('.next/static', { brotli: true, immutable: true, maxAge: 31_536_000 });

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

/** Lets a page in trouble be answered with the status of it. */
function withOwnStatus(response: ServerResponse, page: { status: number | null }): void {
  const writeHead = response.writeHead.bind(response) as (status: number, ...rest: unknown[]) => ServerResponse;
  response.writeHead = ((status: number, ...rest: unknown[]) =>
    writeHead(status === 200 && page.status !== null ? page.status : status, ...rest)) as ServerResponse['writeHead'];
}

/** Whether somebody sits at the desk itself. */
const isAtTheDesk = ({ remoteAddress, localAddress }: Socket): boolean =>
  isThisMachine(remoteAddress) && (away === null || localAddress?.replace('::ffff:', '') !== away);

/** What other devices are being answered, and as what they asked for it: a stream may outlive the right to it. */
const awayAnswers = new Set<{ request: IncomingMessage; path: string }>();

/** Lets a request of another device through, leads it elsewhere or refuses it. True when it was let through. */
function judgeDevice(request: IncomingMessage, response: ServerResponse, path: string): boolean {
  const role = roleOrNone(request.headers.cookie);
  const verdict = verdictOnDevice(role, request.method ?? '', path);
  if (verdict === null) {
    // Pages lead a device only to where it may be.
    if (role) request.headers['x-rank'] = role;
    const answer = { request, path };
    awayAnswers.add(answer);
    response.once('close', () => awayAnswers.delete(answer));
    return true;
  }
  if (typeof verdict === 'string') {
    response.writeHead(303, { ...securityHeaders(''), location: verdict });
    response.end();
  } else refuse(request, response, verdict.status, verdict.message);
  return false;
}

/** Ends what devices are being answered that may not be any more. */
function rejudge(): void {
  for (const { request, path } of awayAnswers)
    if (verdictOnDevice(roleOrNone(request.headers.cookie), request.method ?? '', path) !== null)
      request.socket.destroy();
}
onRightsChanged(rejudge);
setInterval(rejudge, REJUDGE_MS).unref();

const server = createServer(
  {
    maxHeaderSize: MOST_HEADER_BYTES,
    headersTimeout: HEADERS_MS,
    requestTimeout: 0,
    connectionsCheckingInterval: LOOK_AT_CONNECTIONS_MS,
    keepAliveTimeout: KEEP_ALIVE_MS,
  },
  (request, response) => {
    const verdict = verdictOn(
      { method: request.method ?? '', url: request.url ?? '', headers: request.headers },
      hosts,
    );
    const address = addressOf(request.url ?? '');
    if (verdict || !address) {
      refuse(request, response, verdict?.status ?? 400, verdict?.message ?? 'This address cannot be read.');
      return;
    }
    // What is judged is what is served.
    request.url = `${address.path}${address.search}`;
    delete request.headers['x-rank'];
    const fromAway = !isAtTheDesk(request.socket);
    if (fromAway && !judgeDevice(request, response, address.path)) return;
    boundBody(request, mostBytesAt(address.path));
    const nonce = randomBytes(16).toString('base64');
    const headers = securityHeaders(nonce);
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
    // From these Next and the layout take the nonce for the scripts that they write into the page.
    request.headers['content-security-policy'] = headers['content-security-policy'];
    request.headers['x-nonce'] = nonce;
    const page = { status: null as number | null };
    withOwnStatus(response, page);
    const answer = (): void =>
      withPageStatus(page, () => {
        handle(request, response).catch((error: unknown) => {
          process.stderr.write(`${error instanceof Error ? error.stack : String(error)}\n`);
          if (!response.headersSent) refuse(request, response, 500, 'Something went wrong in Aguada.');
          else response.end();
        });
      });
    if (!fromAway || !address.path.startsWith(`${STATIC}/`)) return answer();
    request.url = address.path.slice(STATIC.length);
    packed(request, response, () => {
      request.url = `${address.path}${address.search}`;
      answer();
    });
  },
);
boundConnections(server, isAtTheDesk);
server.on('clientError', (_error, socket) => {
  if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\n\r\n', () => socket.destroy());
  else socket.destroy();
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
