import type { Command } from '@/core/records/command';
import { EDIT_ROUTES } from '@/core/records/editRoutes';
import { sendEdit } from './sendEdit';

const WANTED = { view: 'sets' } as const;
const named = (length: number): Command =>
  ({ do: 'put', kind: 'recipe', id: 'r', version: 1, data: { name: 'x'.repeat(length), doses: [] } }) as Command;

interface Posted {
  path: string;
  keepalive?: boolean;
}
let posted: Posted[];
const untouched = global.fetch;

/** As much of a browser's request as is used here. */
class FakeRequest {
  upload: { onprogress?: (event: { loaded: number; total: number }) => void } = {};
  status = 200;
  responseText = '{"id":"r"}';
  onload?: () => void;
  onerror?: () => void;
  private path = '';
  open(_method: string, path: string): void {
    this.path = path;
  }
  setRequestHeader(): void {}
  send(body: string): void {
    posted.push({ path: this.path });
    this.upload.onprogress?.({ loaded: body.length / 2, total: body.length });
    this.onload?.();
  }
}

beforeEach(() => {
  posted = [];
  global.fetch = ((path: string, { keepalive }: RequestInit) => {
    posted.push({ path, keepalive: keepalive! });
    return Promise.resolve(Response.json({ id: 'r' }));
  }) as typeof fetch;
  (global as { XMLHttpRequest?: unknown }).XMLHttpRequest = FakeRequest;
});
afterEach(() => {
  global.fetch = untouched;
  delete (global as { XMLHttpRequest?: unknown }).XMLHttpRequest;
});

test('a small edit survives its page, a middling one does not try to, a large one goes by the wide route and tells of it', async () => {
  const shares: number[] = [];
  const send = (length: number) => sendEdit(named(length), WANTED, 'k', (share) => shares.push(share));
  for (const length of [10, 100_000, EDIT_ROUTES[0].mostBytes]) expect((await send(length)).ok).toBe(true);
  expect(posted).toEqual([
    { path: EDIT_ROUTES[0].path, keepalive: true },
    { path: EDIT_ROUTES[0].path, keepalive: false },
    { path: EDIT_ROUTES[1].path },
  ]);
  expect(shares).toEqual([0.5]);
});

test('what no edits would take is not sent, is told with its size, and stays at hand', async () => {
  const sent = await sendEdit(named(EDIT_ROUTES[1].mostBytes), WANTED, 'k', () => undefined);
  expect(posted).toEqual([]);
  expect(sent).toMatchObject({ ok: false, trouble: { kind: 'refused', key: 'k', command: { id: 'r' } } });
  expect(sent.ok ? '' : sent.trouble.message).toMatch(/takes 8\.0 MB; an edit may take 8\.0 MB/);
});
