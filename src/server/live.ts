import type { LiveMessage } from '@/core/run/views';

/** Windows that listen. Kept across hot reloads, and one for all routes. */
const hub = globalThis as { aguadaListeners?: Set<(text: string) => void> };
const listeners = (): Set<(text: string) => void> => (hub.aguadaListeners ??= new Set());

/** A word now and then, so that a connection that is dead is noticed. */
const HEARTBEAT_MS = 15_000;
/** A window that does not read is cut off before what waits for it grows: it comes back and asks anew. */
const MOST_WAITING = 400;

/** Tells every window that listens. */
export function tell(message: LiveMessage): void {
  if (listeners().size === 0) return;
  const text = `data: ${JSON.stringify(message)}\n\n`;
  for (const take of listeners()) take(text);
}

export const isHeard = (): boolean => listeners().size > 0;

/** A stream of what happens, for as long as the window listens. */
export function listenAnswer(request: Request, first: LiveMessage): Response {
  const encoder = new TextEncoder();
  let stop = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>(
    {
      start(controller) {
        const send = (text: string): void => {
          if ((controller.desiredSize ?? 0) < -MOST_WAITING) return stop();
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            stop();
          }
        };
        const beat = setInterval(() => send(': here\n\n'), HEARTBEAT_MS);
        beat.unref();
        stop = () => {
          clearInterval(beat);
          listeners().delete(send);
          stop = () => undefined;
          try {
            controller.close();
          } catch {
            // It is closed already.
          }
        };
        request.signal.addEventListener('abort', () => stop());
        listeners().add(send);
        send(`retry: 1000\ndata: ${JSON.stringify(first)}\n\n`);
      },
      cancel: () => stop(),
    },
    { highWaterMark: 1 },
  );
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
