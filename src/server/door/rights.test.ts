import { readdirSync, readFileSync } from 'node:fs';
import { join, sep } from 'node:path';
import fc from 'fast-check';
import type { DeviceRole } from '@/core/records/devices';
import { addressOf } from './address';
import { isThisMachine, RANKS, rightsTable, ROUTES, verdictOnDevice, type Rank } from './rights';
import { spellings } from './spellings';

const APP = join('src', 'app');
/** Every route of the app by its file, with the methods that it answers. */
const files = readdirSync(APP, { recursive: true, encoding: 'utf8' })
  .filter((file) => /(^|[/\\])(page\.tsx|route\.ts)$/.test(file))
  .map((file) => ({
    route: `/${file.split(sep).slice(0, -1).join('/')}`,
    methods: file.endsWith('page.tsx')
      ? ['GET']
      : [...readFileSync(join(APP, file), 'utf8').matchAll(/^export (?:const|(?:async )?function) ([A-Z]+)\b/gm)].map(
          ([, method]) => method!,
        ),
  }));
const ROLES: (DeviceRole | null)[] = [null, 'bench', 'everything'];
const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'DELETE', 'PATCH'];
const written = (route: string): string => route.replace(/\[\.\.\.\w+\]/g, 'chunks/a.js').replace(/\[\w+\]/g, 'some-1');

test('the table names every route file of the app with its methods, and nothing that is not there', () => {
  expect(files.length).toBeGreaterThan(35);
  const named = Object.entries(ROUTES)
    .filter(([route]) => !['/icon.svg', '/_next/static/[...file]'].includes(route))
    .map(([route, rights]) => `${route} ${Object.keys(rights).toSorted().join(' ')}`);
  expect(named.toSorted()).toEqual(
    files.map(({ route, methods }) => `${route} ${methods.toSorted().join(' ')}`).toSorted(),
  );
});

describe.each(files.map(({ route, methods }) => [route, methods] as const))('%s', (route, methods) => {
  test.each(ROLES)('to a device with the rights %s it is open as the table says, by no other method', (role) => {
    for (const method of METHODS) {
      const verdict = verdictOnDevice(role, method, written(route));
      const asked = method === 'HEAD' ? 'GET' : method;
      const least = (ROUTES[route] as Record<string, Rank | undefined>)[asked];
      const may = least !== undefined && RANKS.indexOf(role ?? 'anybody') >= RANKS.indexOf(least);
      if (may) expect(verdict).toBeNull();
      else if (typeof verdict === 'string')
        expect([method, verdict]).toEqual(['GET', role === null ? '/pair' : '/bench']);
      else expect(verdict?.status).toBe(!methods.includes(asked) ? 405 : role === null ? 401 : 403);
    }
  });
  test('has one spelling', () => {
    expect(addressOf(written(route))).toEqual({ path: written(route), search: '' });
    expect(addressOf(`${written(route)}?batch=a%20b`)).toEqual({ path: written(route), search: '?batch=a%20b' });
    for (const other of spellings(written(route)))
      if (other !== '//') expect([other, addressOf(other)]).toEqual([other, null]);
  });
});

test('a device at the bench reads runs, their plans and readings, and no archive, export, stock or calendar', () => {
  const reads = Object.keys(ROUTES).filter((route) => verdictOnDevice('bench', 'GET', written(route)) === null);
  expect(reads.toSorted()).toEqual(
    [
      '/pair',
      '/icon.svg',
      '/_next/static/[...file]',
      '/bench',
      '/run/[runId]',
      '/cards/[setId]/[batchId]',
      '/api/runs',
      '/api/runs/live',
      '/api/runs/[runId]',
      '/api/readings',
    ].toSorted(),
  );
  const writes = Object.keys(ROUTES).filter((route) => verdictOnDevice('bench', 'POST', written(route)) === null);
  expect(writes.toSorted()).toEqual(['/api/pair', '/api/readings', '/api/runs', '/api/runs/[runId]/events']);
});

test('what is not in the table is not there for devices, whatever they may', () => {
  for (const role of ROLES)
    for (const path of [
      '/_next/image',
      '/_next/data/x.json',
      '/api',
      '/api/runs/a/b',
      '/shelf/x',
      '/favicon.ico',
      '/pairs',
    ])
      expect(verdictOnDevice(role, 'GET', path)).toMatchObject({ status: 404 });
});

test('no address of chance has a dot segment, an empty one, or anything to decode', () => {
  const piece = fc.constantFrom(
    '.',
    '..',
    '%2e',
    '%2F',
    '\\',
    '/',
    'a',
    'api',
    'devices',
    '%00',
    ';',
    '%',
    ' ',
    '~',
    '-',
    'é',
  );
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 12 }), (pieces) => {
      const address = addressOf(`/${pieces.join('')}`);
      if (!address) return;
      expect(new URL(address.path, 'http://a').pathname).toBe(address.path);
      expect(decodeURIComponent(address.path)).toBe(address.path);
      expect(address.path).not.toMatch(/\/(\.*)(\/|$)./);
    }),
  );
});

test('the document on safety has the table that the door reads', () =>
  expect(readFileSync(join('docs', 'safety.md'), 'utf8')).toContain(rightsTable()));

test('this machine is this machine', () => {
  expect(['127.0.0.1', '127.9.9.9', '::1', '::ffff:127.0.0.1'].map(isThisMachine)).toEqual([true, true, true, true]);
  const others = ['192.168.1.7', '10.0.0.1', '::ffff:10.0.0.1', 'fe80::1', '', undefined, '1127.0.0.1'];
  expect(others.map(isThisMachine)).toEqual(Array(7).fill(false));
});
