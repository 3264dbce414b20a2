import { rmSync } from 'node:fs';
import { connect } from 'node:net';
import { RANKS, ROUTES, type Rank } from '../src/server/door/rights';
import { spellings } from '../src/server/door/spellings';
import type { Dice } from './dice';
import { sendRaw, type Answered, type Sent } from './raw';
import { end, pause, serve, type Served } from './server';

/** What other devices were let have that they may not, and what stood longer than it may. */
export interface OtherDeviceFigures {
  requests: number;
  /** Answered otherwise than the table of rights says. */
  wrong: string[];
  /** Of what a stranger may not read, found in an answer to one. */
  leaked: string[];
  /** Sockets of 300 upgrades, of 400 heads and 100 bodies that do not come, that stand after twenty seconds. */
  standing: number;
  /** The live stream of a device that was shut out: how long it still stood, ms. */
  streamEndsMs: number;
}

/** At this address of this machine everybody counts as another device. */
const AWAY = '127.0.0.2';
const SECRETS = /Heron Slack|"code":|PK\u0003\u0004|SQLite format/;

type Role = 'bench' | 'everything' | null;

/** Every route × method × role in its own spelling and in others, against the real server; then upgrades, slow heads, and a shut-out device. */
export async function otherDevices(data: string, requests: number, dice: Dice): Promise<OtherDeviceFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const served = await serve(data, { AGUADA_OPEN: '1', AGUADA_AWAY: AWAY, AGUADA_DEMO: '1' });
  const figures: OtherDeviceFigures = { requests: 0, wrong: [], leaked: [], standing: 0, streamEndsMs: 0 };
  try {
    const cookies = { bench: await pair(served, 'bench'), everything: await pair(served, 'everything') };
    // While a code is shown it could be read.
    await fromDesk(served, { do: 'code', role: 'everything' });
    await walk(served, cookies, requests, dice, figures);
    figures.standing = await standingSockets(served);
    figures.streamEndsMs = await shutOutStream(served, cookies.bench);
  } finally {
    await end(served);
  }
  return figures;
}

const fromDesk = async (
  { url }: Served,
  asked: unknown,
): Promise<{ pairing: { code: string }; devices: { id: string; name: string }[] }> =>
  (await (
    await fetch(`${url}/api/devices`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(asked),
    })
  ).json()) as { pairing: { code: string }; devices: { id: string; name: string }[] };

async function pair(served: Served, role: NonNullable<Role>): Promise<string> {
  const { code } = (await fromDesk(served, { do: 'code', role })).pairing;
  const answer = await ask(served, null, {
    method: 'POST',
    path: '/api/pair',
    body: JSON.stringify({ code, name: role }),
  });
  return /set-cookie: ([^;]+)/i.exec(answer?.head ?? '')![1]!;
}

const ask = (
  { port }: Served,
  cookie: string | null,
  { method = 'GET', path, body = null }: Partial<Sent>,
  until?: (answer: string) => boolean,
): Promise<Answered | null> =>
  sendRaw(
    { port, address: AWAY },
    {
      method,
      path: path!,
      body,
      headers: { ...(cookie && { cookie }), ...(method === 'POST' && { 'content-type': 'application/json' }) },
    },
    until,
  );

const FILLED: Record<string, string> = {
  '[setId]': 'heron-slack',
  '[batchId]': 'hs-batch-3',
  '[file]': 'plan.json',
  '[standardId]': 'none',
  '[tableId]': 'none',
  '[runId]': 'none',
  '[lotId]': 'hs-kit-1',
  '[recipeId]': 'none',
  '[...file]': 'chunks/none.js',
};
/** A route with something in each of its open places. */
export const filled = (route: string): string => route.replace(/\[[.\w]+\]/g, (name) => FILLED[name] ?? 'none');

async function walk(
  served: Served,
  cookies: Record<'bench' | 'everything', string>,
  requests: number,
  dice: Dice,
  figures: OtherDeviceFigures,
): Promise<void> {
  const routes = Object.entries(ROUTES);
  const roles: Role[] = [null, 'bench', 'everything'];
  const asked = routes.flatMap(([route, rights]) =>
    roles.flatMap((role) => ['GET', 'HEAD', 'POST', 'DELETE'].map((method) => ({ route, rights, role, method }))),
  );
  const one = async ({ route, rights, role, method }: (typeof asked)[number], path: string): Promise<void> => {
    // What writes is only asked for by who may not; a body that cannot be is enough for that.
    const body = method === 'POST' ? '{}' : null;
    const live = route === '/api/runs/live';
    const answer = await ask(
      served,
      role && cookies[role],
      { method, path, body },
      (text) => live && text.includes('data:'),
    );
    figures.requests++;
    const status = answer?.status ?? null;
    const own = path === filled(route);
    const least = rights[(method === 'HEAD' ? 'GET' : method) as 'GET' | 'POST'];
    const may = own && least !== undefined && atLeast(role, least);
    const led = status === 303;
    const taken = status !== null && status < 400 && !led;
    const known = may ? status !== null && status < 500 && ![401, 403, 405].includes(status) && !led : !taken;
    if (!known || status === null || status >= 500)
      figures.wrong.push(`${status} ${method} ${path} as ${role ?? 'a stranger'}`);
    if (role === null && least !== 'anybody' && SECRETS.test(answer?.body ?? ''))
      figures.leaked.push(`${method} ${path}`);
  };
  for (const entry of asked) await one(entry, filled(entry.route));
  while (figures.requests < requests)
    await Promise.all(
      Array.from({ length: 6 }, () => {
        const entry = dice.one(asked);
        return one(entry, dice.one(spellings(filled(entry.route)).filter((path) => path !== '//')));
      }),
    );
}

const atLeast = (role: Role, least: Rank): boolean => RANKS.indexOf(role ?? 'anybody') >= RANKS.indexOf(least);

/** A socket that asks for nothing useful is ended five seconds after the server has taken it, which a busy machine does late. */
const STAND_MS = 20_000;

async function standingSockets({ port }: Served): Promise<number> {
  const upgrade = (i: number): string =>
    `GET ${i % 2 ? '/_next/webpack-hmr' : '/pair'} HTTP/1.1\r\nhost: ${i % 3 ? `${AWAY}:${port}` : 'evil.example'}\r\nconnection: Upgrade\r\nupgrade: websocket\r\nsec-websocket-version: 13\r\nsec-websocket-key: dGhlIHNhbXBsZSBub25jZQ==\r\n\r\n`;
  const slowHead = (): string => `GET /pair HTTP/1.1\r\nhost: ${AWAY}:${port}\r\nx-slow: `;
  const slowBody = (): string =>
    `POST /api/pair HTTP/1.1\r\nhost: ${AWAY}:${port}\r\ncontent-type: application/json\r\ncontent-length: 4000\r\n\r\n{`;
  const kept = [...Array<number>(300).keys()]
    .map(upgrade)
    .concat(Array.from({ length: 400 }, slowHead))
    .concat(Array.from({ length: 100 }, slowBody));
  const closed = await Promise.all(
    kept.map(
      (text) =>
        new Promise<boolean>((resolve) => {
          const socket = connect(port, AWAY);
          // An answer is no upgrade; a socket at rest may stay as any other, unless it was taken over.
          let answer = '';
          const over = (closes: boolean): void => {
            socket.destroy();
            resolve(closes);
          };
          socket.on('data', (chunk) => {
            answer += chunk.toString('latin1');
            if (/^HTTP\/1\.1 (?!101)\d/.test(answer)) over(true);
          });
          socket.on('error', () => over(true));
          socket.on('close', () => over(true));
          setTimeout(() => over(false), STAND_MS);
          socket.write(text);
        }),
    ),
  );
  return closed.filter((one) => !one).length;
}

/** How long the live stream of a device still stands once it is shut out. */
async function shutOutStream(served: Served, cookie: string): Promise<number> {
  let began = (): void => undefined;
  const begun = new Promise<void>((resolve) => (began = resolve));
  const stream = ask(served, cookie, { path: '/api/runs/live' }, (text) => {
    if (text.includes('data:')) began();
    return false;
  });
  await begun;
  await pause(100);
  const { devices } = await fromDesk(served, { do: 'code', role: 'bench' });
  const start = performance.now();
  await fromDesk(served, { do: 'shut out', id: devices.find(({ name }) => name === 'bench')!.id });
  await stream;
  return performance.now() - start;
}
