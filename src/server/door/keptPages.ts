import type { ServerResponse } from 'node:http';
import { LRUCache } from 'lru-cache';

/** A page as it was answered: its headers, and its text with the place of the nonce left open. */
export interface KeptPage {
  /** What the page was drawn from: it holds as long as this does. */
  state: string;
  headers: Record<string, string>;
  text: string;
}

/** About forty pages. */
const MOST_CHARACTERS = 12_000_000;
const OPEN_PLACE = '\u0000nonce\u0000';
/** What a page has in it while figures were still on their way: a hole that script fills further down, or a held shape. */
const UNFINISHED = ['<!--$?-->', 'aria-busy="true"'];
/** Set anew for each answer, or by the connection itself. */
const OF_ONE_ANSWER = new Set([
  'content-security-policy',
  'date',
  'connection',
  'keep-alive',
  'transfer-encoding',
  'content-length',
]);

/**
 * Pages as they were last drawn, for who asks for one again before anything in the workshop has changed: a reload, the way back, a
 * second window. `state` names all that a page can depend on; a page is never given out under another one than it was drawn in,
 * and every answer carries a nonce of its own.
 */
export class KeptPages {
  readonly #pages = new LRUCache<string, KeptPage>({
    maxSize: MOST_CHARACTERS,
    sizeCalculation: ({ text }, url) => text.length + url.length,
  });

  /** The page of this address with a new nonce put in; null when it has to be drawn. */
  at(url: string, state: string, nonce: string): { headers: Record<string, string>; text: string } | null {
    const page = this.#pages.get(url);
    if (!page || page.state !== state) return null;
    return { headers: page.headers, text: page.text.replaceAll(OPEN_PLACE, nonce) };
  }

  /**
   * Keeps what is written to this answer, once it is whole. Not kept: what is not a page in order, what was drawn while something
   * changed, and what was drawn before its figures were there.
   */
  watch(response: ServerResponse, url: string, nonce: string, state: string, stateNow: () => string | null): void {
    const parts: Buffer[] = [];
    const note = (chunk: unknown, encoding: unknown): void => {
      if (typeof chunk === 'string')
        parts.push(Buffer.from(chunk, typeof encoding === 'string' ? (encoding as BufferEncoding) : 'utf8'));
      else if (chunk instanceof Uint8Array) parts.push(Buffer.from(chunk));
    };
    const write = response.write.bind(response) as (...args: unknown[]) => boolean;
    const end = response.end.bind(response) as (...args: unknown[]) => ServerResponse;
    response.write = ((...args: unknown[]) => {
      note(args[0], args[1]);
      return write(...args);
    }) as ServerResponse['write'];
    response.end = ((...args: unknown[]) => {
      note(args[0], args[1]);
      return end(...args);
    }) as ServerResponse['end'];
    response.once('finish', () => {
      const headers = textHeaders(response);
      if (response.statusCode !== 200 || !headers['content-type']?.startsWith('text/html')) return;
      if (state !== stateNow()) return;
      const text = Buffer.concat(parts).toString('utf8');
      if (!UNFINISHED.some((mark) => text.includes(mark)))
        this.#pages.set(url, { state, headers, text: text.replaceAll(nonce, OPEN_PLACE) });
    });
  }
}

function textHeaders(response: ServerResponse): Record<string, string> {
  return Object.fromEntries(
    Object.entries(response.getHeaders()).flatMap(([name, value]) =>
      value === undefined || OF_ONE_ANSWER.has(name)
        ? []
        : [[name, Array.isArray(value) ? value.join(', ') : String(value)]],
    ),
  );
}

/** The list of sets and the stages: all they show stands in the data file. */
const KEPT = /^\/(sets\/[^/]+\/[a-z]+)?$/;

/** Whether a request asks for a whole page of a kind that is kept: no part of one, nothing else. */
export const asksForPage = (
  method: string | undefined,
  url: string,
  headers: Record<string, string | string[] | undefined>,
): boolean =>
  method === 'GET' && KEPT.test(url.split('?')[0]!) && !Object.keys(headers).some((name) => /^(rsc|next-)/.test(name));
