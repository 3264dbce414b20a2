/** @jest-environment node */
import { createServer, type Server } from 'node:http';
import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { asksForPage, KeptPages } from './keptPages';

/** A door that draws pages and keeps them, as the real one does. */
class Door {
  readonly kept = new KeptPages();
  state = 'one';
  drawn = 0;
  draw: (nonce: string) => { status?: number; type?: string; parts: (string | Buffer)[] } = (nonce) => ({
    parts: [`<script nonce="${nonce}">`, Buffer.from(`the ${++this.drawn}th · Größe</script>`)],
  });
  #nonce = 0;
  readonly server: Server = createServer((request, response) => {
    const nonce = `nonce-${++this.#nonce}-of-one-answer`;
    response.setHeader('content-security-policy', nonce);
    const page = this.kept.at(request.url!, this.state, nonce);
    if (page) {
      response.writeHead(200, page.headers);
      response.end(page.text);
      return;
    }
    this.kept.watch(response, request.url!, nonce, this.state, () => this.state);
    const { status = 200, type = 'text/html; charset=utf-8', parts } = this.draw(nonce);
    response.writeHead(status, { 'content-type': type, 'x-own': 'yes' });
    for (const part of parts.slice(0, -1)) response.write(part);
    response.end(parts.at(-1));
  });
  async get(path = '/sets/a/shape'): Promise<{ text: string; headers: Headers }> {
    if (!this.server.listening) {
      this.server.listen(0, '127.0.0.1');
      await once(this.server, 'listening');
    }
    const answer = await fetch(`http://127.0.0.1:${(this.server.address() as AddressInfo).port}${path}`);
    return { text: await answer.text(), headers: answer.headers };
  }
}

let door: Door;
beforeEach(() => void (door = new Door()));
afterEach(() => void door.server.close());

test('a page is given out again as it was drawn, with a nonce of this answer', async () => {
  const first = await door.get();
  const second = await door.get();
  expect(door.drawn).toBe(1);
  expect(first.text).toBe('<script nonce="nonce-1-of-one-answer">the 1th · Größe</script>');
  expect(second.text).toBe('<script nonce="nonce-2-of-one-answer">the 1th · Größe</script>');
  expect(second.headers.get('content-security-policy')).toBe('nonce-2-of-one-answer');
  expect(second.headers.get('x-own')).toBe('yes');
});

test('each address has a page of its own', async () => {
  await door.get('/sets/a/shape');
  expect((await door.get('/sets/b/shape')).text).toContain('the 2th');
});

test('after any change it is drawn anew, and an older state is not given out again', async () => {
  await door.get();
  door.state = 'two';
  expect((await door.get()).text).toContain('the 2th');
  door.state = 'one';
  expect((await door.get()).text).toContain('the 3th');
});

test.each([
  ['in trouble', { status: 503, parts: ['trouble'] }],
  ['that is no page', { type: 'application/json', parts: ['{}'] }],
  ['with holes for script to fill', { parts: ['<!--$?--><template>', '</template>'] }],
  ['with figures on their way', { parts: ['<div role="status" aria-busy="true">', '</div>'] }],
])('an answer %s is not kept', async (_what, answer) => {
  let times = 0;
  door.draw = () => (times++, answer);
  await door.get();
  await door.get();
  expect(times).toBe(2);
});

test('what was drawn while something changed is not kept', async () => {
  door.draw = () => {
    door.state = `changed ${++door.drawn}`;
    return { parts: ['half old, half new'] };
  };
  await door.get();
  await door.get();
  expect(door.drawn).toBe(2);
});

test('whole pages of sets are kept; parts of pages, files and the shelf with its folder of copies are not', () => {
  expect(asksForPage('GET', '/sets/heron-slack/pour?batch=b', {})).toBe(true);
  expect(asksForPage('GET', '/', {})).toBe(true);
  expect(asksForPage('GET', '/sets/heron-slack/pour', { rsc: '1' })).toBe(false);
  expect(asksForPage('GET', '/sets/heron-slack/pour', { 'next-router-prefetch': '1' })).toBe(false);
  expect(asksForPage('HEAD', '/sets/heron-slack/pour', {})).toBe(false);
  for (const path of ['/shelf', '/api/edits', '/sets/a', '/_next/static/a.js', '/export/a/b/plan.json'])
    expect(asksForPage('GET', path, {})).toBe(false);
});
