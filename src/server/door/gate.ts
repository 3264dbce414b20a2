import { EDIT_ROUTES } from '../../core/records/editRoutes';
import { MOST_PHOTO_BYTES } from '../../core/records/photos';
import { addressOf } from './address';

/** What is known of a request before any of it is read. */
export interface Asked {
  method: string;
  url: string;
  headers: Record<string, string | string[] | undefined>;
}

/** Why a request is not taken. */
export interface Verdict {
  status: number;
  message: string;
}

/** The largest file that is taken in, and where. */
export const MOST_FILE_BYTES = 500_000_000;
/** What is sent as the body of a request; JSON where nothing else is said. */
const BODIES: Readonly<Partial<Record<string, { wanted: RegExp; message: string; mostBytes: number }>>> = {
  '/api/backups/file': {
    wanted: /^application\/octet-stream\s*$/i,
    message: 'Send a file.',
    mostBytes: MOST_FILE_BYTES,
  },
  '/api/photos': { wanted: /^image\/jpeg\s*$/i, message: 'Send a JPEG.', mostBytes: MOST_PHOTO_BYTES },
};
const JSON_BODY = { wanted: /^application\/json\s*(;|$)/i, message: 'Send JSON.' };
const MOST_URL = 2000;

const first = (value: string | string[] | undefined): string | null =>
  value === undefined ? null : Array.isArray(value) ? (value[0] ?? null) : value;

/**
 * Whether a request is taken at all. Only requests to the names under which Aguada was asked to be there (a foreign name that leads
 * here is a page trying to read it), only the methods that it knows, and what writes only from its own pages: as JSON, from its own
 * origin, never from another site. Null when it is taken.
 */
export function verdictOn({ method, url, headers }: Asked, hosts: ReadonlySet<string>): Verdict | null {
  const host = first(headers['host'])?.toLowerCase() ?? '';
  if (!hosts.has(host))
    return { status: 421, message: `Aguada does not answer to this name. It is at ${[...hosts].join(' or ')}.` };
  if (!['GET', 'HEAD', 'POST'].includes(method)) return { status: 405, message: 'Aguada does not know this method.' };
  if (url.length > MOST_URL) return { status: 414, message: 'This address is too long.' };
  const address = addressOf(url);
  if (!address) return { status: 400, message: 'This address cannot be read.' };
  return method === 'POST' ? verdictOnWriting(address.path, host, headers) : verdictOnReading(headers);
}

/** Another site may lead to a page, and nothing else. */
function verdictOnReading(headers: Asked['headers']): Verdict | null {
  const site = first(headers['sec-fetch-site']);
  if (site === null || site === 'same-origin' || site === 'none') return null;
  const led = first(headers['sec-fetch-mode']) === 'navigate' && first(headers['sec-fetch-dest']) === 'document';
  return led ? null : { status: 403, message: 'Other sites are given nothing of it.' };
}

/** Whether something that writes is taken: as JSON, from Aguada's own pages, and not too long. Null when it is. */
export function verdictOnWriting(path: string, host: string, headers: Asked['headers']): Verdict | null {
  if (!path.startsWith('/api/')) return { status: 405, message: 'Nothing is written here.' };
  const site = first(headers['sec-fetch-site']);
  if (site !== null && site !== 'same-origin')
    return { status: 403, message: 'Requests from other sites are not taken.' };
  const origin = first(headers['origin']);
  if (origin !== null && origin.toLowerCase() !== `http://${host}`)
    return { status: 403, message: 'Requests from other sites are not taken.' };
  const { wanted, message } = BODIES[path] ?? JSON_BODY;
  if (!wanted.test(first(headers['content-type']) ?? '')) return { status: 415, message };
  const length = Number(first(headers['content-length']) ?? 0);
  return length > mostBytesAt(path) ? { status: 413, message: 'That is too large.' } : null;
}

/** How long the body of a request may be, by where it goes. */
export const mostBytesAt = (path: string): number => (BODIES[path] ?? bodyOfEdit(path)).mostBytes;
const bodyOfEdit = (path: string): (typeof EDIT_ROUTES)[number] =>
  EDIT_ROUTES.find((door) => door.path === path) ?? EDIT_ROUTES[0];

/** The names under which Aguada answers: those of this machine, and the one it was asked to listen on. */
export function hostsOf(listen: string, port: number, others: readonly string[] = []): Set<string> {
  const names = ['127.0.0.1', 'localhost', '[::1]', ...others];
  if (listen !== '0.0.0.0' && listen !== '::') names.push(listen.includes(':') ? `[${listen}]` : listen);
  return new Set(
    names
      .flatMap((name) => (port === 80 ? [name, `${name}:80`] : [`${name}:${port}`]))
      .map((name) => name.toLowerCase()),
  );
}

/** What a page may do, as its headers tell the browser. `nonce` is of this one answer. */
export const securityHeaders = (nonce: string): Record<string, string> => ({
  'content-security-policy': [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // The library's styles are made while a page is drawn; no script comes in that way.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "worker-src 'self' blob:",
    "connect-src 'self'",
    "font-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; '),
  'referrer-policy': 'no-referrer',
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
});
