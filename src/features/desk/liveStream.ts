'use client';

import type { LiveMessage } from '@/core/run/views';

/*
 * One stream for all windows of a browser: it holds only a few connections to a server, and each stream takes one for good. The
 * window that has the lock listens and passes on what it hears; when it goes, the next one takes its place.
 */
const CHANNEL = 'aguada.live';
const LOCK = 'aguada.live';
const AGAIN_MS = 3000;

interface Listening {
  message: (message: LiveMessage) => void;
  /** The stream is there (again): what came meanwhile has to be read. */
  opened: () => void;
  lost: () => void;
}

/** Listens to what the server tells, until the function that is given back is called. */
export function listenLive({ message, opened, lost }: Listening): () => void {
  let source: EventSource | null = null;
  let release: (() => void) | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  const gone = new AbortController();
  const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);
  const open = (): void => {
    source = new EventSource('/api/runs/live');
    source.onopen = () => {
      opened();
      channel?.postMessage({ word: 'opened' });
    };
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const read = JSON.parse(data) as LiveMessage;
      message(read);
      channel?.postMessage({ read });
    };
    source.onerror = () => {
      lost();
      channel?.postMessage({ word: 'lost' });
      // An answer that is no stream (the data file is away) ends it for good: it is asked for again.
      if (source?.readyState === EventSource.CLOSED) again = setTimeout(open, AGAIN_MS);
    };
  };
  if (channel)
    channel.onmessage = ({ data }: MessageEvent<{ word?: 'opened' | 'lost'; read?: LiveMessage }>) => {
      if (data.read) message(data.read);
      else if (data.word === 'opened') opened();
      else lost();
    };
  if (channel && 'locks' in navigator)
    void navigator.locks
      .request(LOCK, { signal: gone.signal }, () => {
        open();
        return new Promise<void>((resolve) => (release = resolve));
      })
      .catch(() => undefined);
  else open();
  return () => {
    gone.abort();
    clearTimeout(again);
    release?.();
    source?.close();
    channel?.close();
  };
}
