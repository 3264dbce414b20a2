import { DEVICE_ROLES, type DeviceRole } from '@/core/records/devices';
import { STAGES } from '@/core/model/stages';
import type { Verdict } from './gate';

/** Whoever may ask, each with all that those before it have: anybody, devices by their role, the desk itself. */
export const RANKS = ['anybody', ...DEVICE_ROLES.toReversed(), 'desk'] as const;
export type Rank = (typeof RANKS)[number];

type Method = 'GET' | 'POST';
type Rights = Partial<Record<Method, Rank>>;

/** The stages of a set. */
const STAGE_ROUTES = Object.fromEntries(
  STAGES.map(({ path }): [string, Rights] => [`/sets/[setId]/${path}`, { GET: 'everything' }]),
);

/**
 * Every address that another device may ask for, in the router's own spelling, and who may at least: what does not stand here is
 * not there for devices. A page is a route that is asked for with GET outside `/api`.
 */
export const ROUTES: Readonly<Record<string, Rights>> = {
  '/pair': { GET: 'anybody' },
  '/icon.svg': { GET: 'anybody' },
  '/_next/static/[...file]': { GET: 'anybody' },
  '/api/pair': { POST: 'anybody' },

  '/bench': { GET: 'bench' },
  '/run/[runId]': { GET: 'bench' },
  '/cards/[setId]/[batchId]': { GET: 'bench' },
  '/api/runs': { GET: 'bench', POST: 'bench' },
  '/api/runs/live': { GET: 'bench' },
  '/api/runs/[runId]': { GET: 'bench' },
  '/api/runs/[runId]/events': { POST: 'bench' },
  '/api/readings': { GET: 'bench', POST: 'bench' },

  '/': { GET: 'everything' },
  '/shelf': { GET: 'everything' },
  '/log': { GET: 'everything' },
  '/log/[file]': { GET: 'everything' },
  '/beside': { GET: 'everything' },
  '/figures': { GET: 'everything' },
  '/job/[setId]': { GET: 'everything' },
  '/job/[setId]/sheet': { GET: 'everything' },
  '/learnt': { GET: 'everything' },
  '/booklet': { GET: 'everything' },
  '/sets/[setId]': { GET: 'everything' },
  ...STAGE_ROUTES,
  '/week/[setId]': { GET: 'everything' },
  '/gauges/[setId]/[standardId]': { GET: 'everything' },
  '/layouts/[setId]/[tableId]': { GET: 'everything' },
  '/labels/[setId]/stock': { GET: 'everything' },
  '/labels/[setId]/cups/[batchId]': { GET: 'everything' },
  '/export/[setId]/[batchId]/[file]': { GET: 'everything' },
  '/api/edits': { POST: 'everything' },
  '/api/edits/large': { POST: 'everything' },
  '/api/batches/[batchId]': { GET: 'everything' },
  '/api/batches/[batchId]/stock': { GET: 'everything' },
  '/api/calendar': { GET: 'everything' },
  '/api/find': { GET: 'everything' },
  '/api/learnt': { GET: 'everything' },
  '/api/learnt/effect': { GET: 'everything' },
  '/api/learnt/record': { GET: 'everything' },
  '/api/log': { GET: 'everything' },
  '/api/lots': { GET: 'everything' },
  '/api/lots/[lotId]': { GET: 'everything' },
  '/api/photos': { POST: 'everything' },
  '/api/photos/[photoId]': { GET: 'everything' },
  '/api/recipes/[recipeId]': { GET: 'everything' },
  '/api/sets': { GET: 'everything' },
  '/api/sets/looks': { GET: 'everything' },
  '/api/sets/[setId]/archive': { GET: 'everything' },
  '/api/sets/[setId]/beside': { GET: 'everything' },
  '/api/sets/[setId]/batches': { GET: 'everything' },
  '/api/sets/[setId]/copies': { GET: 'everything' },
  '/api/sets/[setId]/guests': { GET: 'everything' },
  '/api/sets/[setId]/invoice': { GET: 'everything' },
  '/api/sets/[setId]/job': { GET: 'everything' },
  '/api/sets/[setId]/pour-times': { GET: 'everything' },
  '/api/sets/[setId]/spent': { GET: 'everything' },
  '/api/starts': { GET: 'everything' },
  '/api/why': { GET: 'everything' },
  '/api/backups': { GET: 'everything', POST: 'everything' },
  '/api/backups/archive': { GET: 'everything' },
  '/api/backups/file': { POST: 'everything' },

  '/api/devices': { GET: 'desk', POST: 'desk' },
};

/** A route of the table as a pattern for paths. */
const patternOf = (route: string): RegExp =>
  new RegExp(
    `^${route
      .replace(/[.]/g, '\\.')
      .replace(/\[\\.\\.\\.\w+\]/g, '.+')
      .replace(/\[\w+\]/g, '[^/]+')}$`,
  );
// Fixed names before open ones: `/api/runs/live` is no run.
const PATTERNS = Object.entries(ROUTES)
  .toSorted(([a], [b]) => a.split('[').length - b.split('[').length)
  .map(([route, rights]) => ({ pattern: patternOf(route), rights }));

/** Whether a request comes from this very machine. */
export const isThisMachine = (address: string | undefined): boolean =>
  address === '::1' || /^(::ffff:)?127\./.test(address ?? '');

/**
 * What becomes of a request of another device, by its role (null: not paired) and the path as the router reads it: null lets it
 * through, a path leads a page to where this device may be.
 */
export function verdictOnDevice(role: DeviceRole | null, method: string, path: string): Verdict | `/${string}` | null {
  const rights = PATTERNS.find(({ pattern }) => pattern.test(path))?.rights;
  if (!rights) return { status: 404, message: 'There is nothing here.' };
  const least = rights[method === 'HEAD' ? 'GET' : (method as Method)];
  if (!least) return { status: 405, message: 'This cannot be asked for in this way.' };
  if (RANKS.indexOf(role ?? 'anybody') >= RANKS.indexOf(least)) return null;
  const isPage = method === 'GET' && !path.startsWith('/api/');
  if (role === null) return isPage ? '/pair' : { status: 401, message: 'This device is not paired.' };
  if (least === 'desk') return { status: 403, message: 'Devices are looked after at the desk.' };
  return isPage ? '/bench' : { status: 403, message: 'This device may use the bench only.' };
}

/** What may be written of the table in a document: a row a route. */
export const rightsTable = (): string =>
  [
    `| route | ${RANKS.join(' | ')} |`,
    `| --- |${' --- |'.repeat(RANKS.length)}`,
    ...Object.entries(ROUTES).map(
      ([route, rights]) =>
        `| \`${route}\` | ${RANKS.map((rank, i) =>
          Object.entries(rights)
            .filter(([, least]) => RANKS.indexOf(least) <= i)
            .map(([method]) => (method === 'GET' ? 'reads' : 'writes'))
            .join(', '),
        ).join(' | ')} |`,
    ),
  ].join('\n');
