import { rmSync } from 'node:fs';
import { connect } from 'node:net';
import Sqlite from 'better-sqlite3';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { PRODUCT_KINDS } from '../src/core/mixing/productKinds';
import { EDIT_ROUTES } from '../src/core/records/editRoutes';
import { RECORD_SCHEMAS, type RecordKind } from '../src/core/records/recordSchemas';
import type { Dice } from './dice';
import { spellings } from '../src/server/door/spellings';
import { sendRaw, type Sent } from './raw';
import { end, memoryMb, pause, serve, type Served } from './server';
import { plainSet } from './set';

/** What the requests came to. */
export interface FuzzFigures {
  requests: number;
  byStatus: Record<string, number>;
  /** Answers of 500 and above, as they came about. */
  defects: string[];
  unanswered: number;
  unreadable: number;
  damaged: boolean;
  memoryMb: [before: number, after: number];
  slowestBesideSlowClientsMs: number;
}

const set = { ...plainSet, name: 'Fuzz' };
const { id: _, ...product } = PRODUCT_KINDS[1]!;

const LOT = {
  of: { kind: 'product', id: 'coating-epoxy' },
  name: 'Kit',
  bought: [
    { part: 'A', amount: 530 },
    { part: 'B', amount: 470 },
  ],
  boughtOn: '2026-10-01',
  openedOn: null,
  bestBefore: null,
  price: 26,
};

/** Valid commands, to be spoilt. */
const commands = (setId: string, designId: string): unknown[] => [
  { do: 'add', kind: 'set', data: set },
  { do: 'put', kind: 'set', id: setId, version: 1, data: set },
  { do: 'add', kind: 'design', setId, data: HERON_SLACK_DESIGNS[0]! },
  { do: 'add', kind: 'design', setId, data: HERON_SLACK_DESIGNS[8]! },
  { do: 'put', kind: 'design', id: designId, version: 1, data: HERON_SLACK_DESIGNS[3]! },
  { do: 'add', kind: 'product', data: product },
  { do: 'put', kind: 'product', id: 'coating-epoxy', version: 1, data: product },
  { do: 'add', kind: 'recipe', data: { name: 'R', doses: [{ colourantId: 'ink', gramsPer100: 0.1 }] } },
  {
    do: 'add',
    kind: 'batch',
    setId,
    data: { name: 'B', items: [{ designId, copies: 2 }], pourAt: '2026-11-28T10:00', benchWindows: null },
  },
  {
    do: 'add',
    kind: 'piece',
    setId,
    data: {
      designId,
      copy: 1,
      measured: { atLevelMm: 15, readings: [{ xMm: 70, yMm: 40, depthMm: 5 }], fillMl: null },
    },
  },
  {
    do: 'measure',
    setId,
    pieces: [
      {
        designId,
        copy: 1,
        version: null,
        edges: { south: { bed: [{ atMm: 10, heightMm: 9 }], levels: [15, 15, 15] } },
      },
    ],
  },
  { do: 'give', setId, edges: [{ designId, version: 1, edge: 'south', standardId: null }] },
  { do: 'remove', kind: 'design', id: designId, version: 1 },
  { do: 'add', kind: 'lot', data: LOT },
  { do: 'take in', lots: [{ lot: LOT, left: [{ part: 'A', amount: 20 }] }] },
  { do: 'put', kind: 'lot', id: 'hs-kit-1', version: 1, data: LOT },
  { do: 'remove', kind: 'lot', id: 'hs-kit-2', version: 1 },
  {
    do: 'add',
    kind: 'movement',
    data: { lotId: 'hs-kit-1', part: 'A', amount: -40, kind: 'corrected', at: '2026-11-28T10:00', note: '' },
  },
  { do: 'add', kind: 'consumable', data: { name: 'Cups', per: 'cup', amount: 1, packCount: 50, packPrice: 4 } },
  { do: 'reserve', batchId: 'hs-batch-3', wanted: true },
  { do: 'reserve', batchId: 'hs-batch-3', wanted: false },
  { do: 'plan', setId },
  { do: 'pour', batchId: 'none', version: 1, layer: 1, pour: null },
  { do: 'stock', productIds: ['five-minute-glue'] },
  { do: 'undo', scope: `set:${setId}` },
  { do: 'redo', scope: 'sets' },
  { do: 'undo', scope: 'shelf' },
  { do: 'sample' },
];

const ODD: unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  -0.000001,
  4.2,
  '',
  ' ',
  'x'.repeat(5000),
  '\u0000',
  '../../etc/passwd',
  "'; drop table sets; --",
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: { polluted: true } },
  ['a', 'b'],
  '2026-13-45T99:99',
  'NaN',
  '%00',
  '\ud800',
  9007199254740993,
];

/** A value with something in it spoilt: a field gone, swapped, doubled, or of another kind. */
function spoilt(value: unknown, dice: Dice): unknown {
  if (dice.whole(5) === 0) return dice.one(ODD);
  if (Array.isArray(value)) {
    if (value.length === 0 || dice.whole(4) === 0) return [...(value as unknown[]), dice.one(ODD)];
    const at = dice.whole(value.length);
    if (dice.whole(4) === 0) return [...value, value[at]] as unknown[];
    return value.map((part: unknown, i) => (i === at ? spoilt(part, dice) : part));
  }
  if (typeof value !== 'object' || value === null) return dice.one(ODD);
  const keys = Object.keys(value);
  if (keys.length === 0) return dice.one(ODD);
  const key = dice.one(keys);
  const { [key]: part, ...rest } = value as Record<string, unknown>;
  const way = dice.whole(6);
  if (way === 0) return rest;
  if (way === 1)
    return { ...rest, [key]: part, [dice.one(['constructor', '__proto__', 'extra', 'id'])]: dice.one(ODD) };
  return { ...rest, [key]: spoilt(part, dice) };
}

const PATHS = [
  '/',
  '/shelf',
  '/sets/SET/shape',
  '/sets/SET/match',
  '/sets/SET/tint',
  '/sets/SET/pour',
  '/sets/SET/cure',
  '/sets/SET/log',
  ...EDIT_ROUTES.map(({ path }) => path),
  '/api/backups',
  '/api/backups/file',
  '/api/sets/SET/batches',
  '/api/sets/SET/archive',
  '/api/batches/none',
  '/api/runs',
  '/api/runs/none',
  '/api/runs/none/events',
  '/api/readings',
  '/run/none',
  '/cards/SET/none',
  '/gauges/SET/none',
  '/layouts/SET/none',
  '/export/SET/none/plan.json',
  '/_next/static/x.js',
  '/icon.svg',
];
const TAILS = [
  '',
  '',
  '?batch=none',
  '?show=table',
  '/%E0%A4%A',
  '/..%2f..%2fetc%2fpasswd',
  '?_rsc=1',
  `?x=${'y'.repeat(3000)}`,
  '%00',
  '?batch=%00',
  '//',
  '/?from=%ff',
];
const METHODS = ['GET', 'GET', 'GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'OPTIONS', 'PATCH', 'TRACE', 'BREW'];
const HEADERS: Record<string, string>[] = [
  {},
  {},
  { 'content-type': 'application/json' },
  { 'content-type': 'application/jsonp' },
  { origin: 'http://evil.example' },
  { 'sec-fetch-site': 'cross-site' },
  { 'content-encoding': 'gzip' },
  { rsc: '1' },
  { 'next-action': 'abc' },
  { 'next-router-state-tree': '%5B' },
  { cookie: 'a=b; __proto__=1' },
  { range: 'bytes=9-1' },
  { 'content-type': 'multipart/form-data' },
];

function nextRequest(dice: Dice, setId: string, designId: string): Sent {
  if (dice.whole(3) > 0) {
    const command = dice.one(commands(setId, designId));
    const wanted = dice.one([
      { view: 'sets' },
      { view: 'shelf' },
      { view: 'desk', setId },
      { view: 'desk', setId: 'gone' },
    ]);
    const whole = { command: dice.whole(4) > 0 ? spoilt(command, dice) : command, wanted };
    const body = dice.whole(6) === 0 ? spoilt(whole, dice) : whole;
    let text = JSON.stringify(body) ?? '';
    if (dice.whole(25) === 0) text = text.slice(0, dice.whole(text.length + 1));
    if (dice.whole(40) === 0) text = `${'['.repeat(20_000)}${text}`;
    if (dice.whole(60) === 0) text = JSON.stringify({ junk: 'z'.repeat(2_500_000) });
    const { path } = dice.one([...EDIT_ROUTES]);
    return { method: 'POST', path, headers: { 'content-type': 'application/json' }, body: text };
  }
  const method = dice.one(METHODS);
  const path = dice.one(PATHS).replace('SET', dice.one([setId, 'gone', '%20', encodeURIComponent('ä/ö')]));
  return {
    method,
    path: dice.whole(3) === 0 ? dice.one(spellings(path)) : `${path}${dice.one(TAILS)}`,
    headers: dice.one(HEADERS),
    body: method === 'POST' || method === 'PUT' ? dice.one(['', '{}', 'PK\u0003\u0004', '\u0000', '[1,2']) : null,
  };
}

/** Spoilt requests of every kind, then slow clients; afterwards the file is looked through. */
export async function fuzz(data: string, requests: number, dice: Dice): Promise<FuzzFigures> {
  for (const ending of ['', '-wal', '-shm']) rmSync(`${data}${ending}`, { force: true });
  const served = await serve(data);
  const post = async (command: unknown, wanted: unknown): Promise<string> => {
    const response = await fetch(`${served.url}/api/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ command, wanted }),
    });
    return ((await response.json()) as { id: string }).id;
  };
  const figures: FuzzFigures = {
    requests: 0,
    byStatus: {},
    defects: [],
    unanswered: 0,
    unreadable: 0,
    damaged: false,
    memoryMb: [0, 0],
    slowestBesideSlowClientsMs: 0,
  };
  let setId = await post({ do: 'add', kind: 'set', data: set }, { view: 'sets' });
  let designId = await post(
    { do: 'add', kind: 'design', setId, data: HERON_SLACK_DESIGNS[0]! },
    { view: 'desk', setId },
  );
  const warm = Math.ceil(requests / 5);
  const one = async (): Promise<void> => {
    const sent = nextRequest(dice, setId, designId);
    const status = await sendRaw(served, sent).then((answer) => answer?.status ?? null);
    figures.requests++;
    if (status === null) {
      figures.unanswered++;
      figures.defects.push(
        `no answer: ${sent.method} ${sent.path.slice(0, 80)} ${JSON.stringify(sent.headers)} ${sent.body?.length ?? 0} bytes`,
      );
    } else figures.byStatus[status] = (figures.byStatus[status] ?? 0) + 1;
    // A full disk and a bad gateway are answers of others; all else from 500 on is a defect.
    if (status !== null && status >= 500)
      figures.defects.push(`${status} ${sent.method} ${sent.path.slice(0, 80)} ${String(sent.body).slice(0, 300)}`);
  };
  while (figures.requests < requests) {
    await Promise.all(Array.from({ length: 6 }, one));
    // What the spoilt requests were aimed at may be gone by now.
    if (figures.requests % 300 < 6) {
      setId = await post({ do: 'add', kind: 'set', data: set }, { view: 'sets' });
      designId = await post(
        { do: 'add', kind: 'design', setId, data: HERON_SLACK_DESIGNS[0]! },
        { view: 'desk', setId },
      );
    }
    if (figures.memoryMb[0] === 0 && figures.requests >= warm) figures.memoryMb[0] = memoryMb(served);
  }
  figures.memoryMb[1] = memoryMb(served);
  figures.slowestBesideSlowClientsMs = await besideSlowClients(served);
  await end(served);
  const file = new Sqlite(data, { readonly: true });
  figures.damaged =
    file.pragma('integrity_check', { simple: true }) !== 'ok' ||
    (file.pragma('foreign_key_check') as unknown[]).length > 0;
  const tables: [string, RecordKind][] = [
    ['sets', 'set'],
    ['designs', 'design'],
    ['pieces', 'piece'],
    ['products', 'product'],
    ['recipes', 'recipe'],
  ];
  for (const [table, kind] of tables)
    for (const { data: text } of file.prepare(`select data from ${table}`).all() as { data: string }[])
      if (!RECORD_SCHEMAS[kind].safeParse(JSON.parse(text)).success) figures.unreadable++;
  file.close();
  return figures;
}

/** How long others wait while forty clients send their requests a byte at a time. */
async function besideSlowClients(served: Served): Promise<number> {
  const sockets = Array.from({ length: 40 }, () => {
    const socket = connect(served.port, '127.0.0.1');
    socket.on('error', () => undefined);
    socket.write(
      `POST /api/edits HTTP/1.1\r\nhost: 127.0.0.1:${served.port}\r\ncontent-type: application/json\r\ncontent-length: 4000\r\n\r\n`,
    );
    return socket;
  });
  let slowest = 0;
  for (let i = 0; i < 20; i++) {
    for (const socket of sockets) socket.write(' ');
    const start = performance.now();
    await (await fetch(`${served.url}/api/backups`)).text();
    slowest = Math.max(slowest, performance.now() - start);
    await pause(50);
  }
  for (const socket of sockets) socket.destroy();
  return slowest;
}
