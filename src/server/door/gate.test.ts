import { EDIT_ROUTES } from '../../core/records/editRoutes';
import fc from 'fast-check';
import { hostsOf, securityHeaders, verdictOn, type Asked } from './gate';

const HOSTS = hostsOf('127.0.0.1', 3000);
const asked = (change: Partial<Asked> & { headers?: Asked['headers'] } = {}): Asked => ({
  method: 'GET',
  url: '/sets/heron-slack/shape',
  ...change,
  headers: { host: '127.0.0.1:3000', ...change.headers },
});
const posted = (headers: Asked['headers'] = {}, url = '/api/edits'): Asked =>
  asked({ method: 'POST', url, headers: { 'content-type': 'application/json', ...headers } });
const statusOf = (request: Asked, hosts = HOSTS): number => verdictOn(request, hosts)?.status ?? 200;

describe('who is answered', () => {
  test.each(['127.0.0.1:3000', 'localhost:3000', '[::1]:3000', 'LOCALHOST:3000'])('%s is this machine', (host) =>
    expect(statusOf(asked({ headers: { host } }))).toBe(200),
  );
  test.each([
    'evil.example',
    'evil.example:3000',
    '127.0.0.1',
    '127.0.0.1:80',
    '127.0.0.1:3000.evil.example',
    '127.0.0.1:3000@evil.example',
    '0.0.0.0:3000',
    '',
    '192.168.1.5:3000',
  ])('the name %s is not: it may be a page of elsewhere that leads here', (host) => {
    expect(statusOf(asked({ headers: { host } }))).toBe(421);
    // With an origin to match it is still a stranger.
    expect(statusOf(posted({ host, origin: `http://${host}` }))).toBe(421);
  });
  test('no name of chance is, whatever it looks like', () => {
    fc.assert(
      fc.property(fc.string(), (host) => {
        fc.pre(!HOSTS.has(host.toLowerCase()));
        expect(statusOf(asked({ headers: { host } }))).toBe(421);
      }),
    );
  });
  test('an address that it listens on is, with its port', () => {
    const open = hostsOf('192.168.1.5', 3000);
    expect(statusOf(asked({ headers: { host: '192.168.1.5:3000' } }), open)).toBe(200);
    expect(statusOf(asked({ headers: { host: 'paper.local' } }), hostsOf('0.0.0.0', 80, ['paper.local']))).toBe(200);
    expect(hostsOf('0.0.0.0', 3000).has('0.0.0.0:3000')).toBe(false);
  });
});

describe('what is read', () => {
  test.each(['DELETE', 'PUT', 'PATCH', 'OPTIONS', 'TRACE', 'CONNECT', 'BREW', ''])(
    'the method %s is not known',
    (method) => expect(statusOf(asked({ method }))).toBe(405),
  );
  test.each(['/%E0%A4%A', '/sets/%zz', '/a%00b', 'http://127.0.0.1:3000/', '*'])(
    'the address %s cannot be read',
    (url) => expect(statusOf(asked({ url }))).toBe(400),
  );
  test('an address of any length is answered', () =>
    expect(statusOf(asked({ url: `/${'a'.repeat(5000)}` }))).toBe(414));
  test('another site may lead to a page, and is given nothing else', () => {
    const from = (site: string, mode: string, dest: string): number =>
      statusOf(asked({ headers: { 'sec-fetch-site': site, 'sec-fetch-mode': mode, 'sec-fetch-dest': dest } }));
    expect(from('cross-site', 'navigate', 'document')).toBe(200);
    expect(from('cross-site', 'navigate', 'iframe')).toBe(403);
    expect(from('cross-site', 'no-cors', 'image')).toBe(403);
    expect(from('same-site', 'cors', 'empty')).toBe(403);
    expect(from('same-origin', 'cors', 'empty')).toBe(200);
    expect(from('none', 'navigate', 'document')).toBe(200);
  });
});

describe('what writes', () => {
  test('is taken as JSON from the own pages, or from a command without a page', () => {
    expect(statusOf(posted({ origin: 'http://127.0.0.1:3000', 'sec-fetch-site': 'same-origin' }))).toBe(200);
    expect(statusOf(posted({ 'content-type': 'application/json; charset=utf-8' }))).toBe(200);
    expect(statusOf(posted())).toBe(200);
  });
  test.each([
    [{ origin: 'https://127.0.0.1:3000' }, 403],
    [{ origin: 'http://localhost:3000' }, 403],
    [{ origin: 'http://evil.example' }, 403],
    [{ origin: 'null' }, 403],
    [{ 'sec-fetch-site': 'cross-site' }, 403],
    [{ 'sec-fetch-site': 'same-site' }, 403],
    [{ 'sec-fetch-site': 'none' }, 403],
    [{ 'content-type': 'application/jsonp' }, 415],
    [{ 'content-type': 'application/json-seq' }, 415],
    [{ 'content-type': 'text/plain' }, 415],
    [{ 'content-type': undefined }, 415],
    [{ 'content-length': String(EDIT_ROUTES[0].mostBytes + 1) }, 413],
  ])('with %j is refused, %i', (headers, status) => expect(statusOf(posted(headers))).toBe(status));
  test('may be longer by the wide door, and not without end', () => {
    const { path, mostBytes } = EDIT_ROUTES[1];
    expect(statusOf(posted({ 'content-length': String(mostBytes) }, path))).toBe(200);
    expect(statusOf(posted({ 'content-length': String(mostBytes + 1) }, path))).toBe(413);
  });
  test('is nowhere but at the doors for it', () => {
    expect(statusOf(posted({}, '/sets/heron-slack/shape'))).toBe(405);
    expect(statusOf(posted({}, '/apiary'))).toBe(405);
  });
});

test('pages run no script but their own of this very answer, and stand in no frame', () => {
  const headers = securityHeaders('abc');
  const policy = headers['content-security-policy']!;
  expect(/script-src [^;]*/.exec(policy)![0]).toBe("script-src 'self' 'nonce-abc' 'strict-dynamic'");
  expect(policy).toContain("frame-ancestors 'none'");
  expect(policy).not.toMatch(/unsafe-eval|https?:|\*/);
  expect(headers).toMatchObject({ 'referrer-policy': 'no-referrer', 'x-frame-options': 'DENY' });
});
