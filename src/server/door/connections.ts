import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import type { Socket } from 'node:net';

/** How many connections one machine may hold: this one (several browsers, instruments), and another. */
export const MOST_CONNECTIONS = { own: 160, other: 40 };
/** A body comes in at least at this speed, after a start; a slower one is cut off. */
const LEAST_BYTES_A_MS = 40;
const BODY_START_MS = 5000;

/** How long the body of a request may take, by its length. */
export const bodyMs = (bytes: number): number => BODY_START_MS + bytes / LEAST_BYTES_A_MS;

/**
 * Bounds the connections of each machine. Beyond the bound the one that has waited longest without asking for anything gives way;
 * where every one is being answered, the new one does.
 */
export function boundConnections(server: Server, isOwn: (socket: Socket) => boolean, most = MOST_CONNECTIONS): void {
  /** Connections by machine, the oldest first, and how many requests of each are being answered. */
  const held = new Map<string, Map<Socket, number>>();
  server.on('connection', (socket: Socket) => {
    const machine = socket.remoteAddress ?? '';
    const sockets = held.get(machine) ?? new Map<Socket, number>();
    held.set(machine, sockets);
    if (sockets.size >= (isOwn(socket) ? most.own : most.other)) {
      const waiting = [...sockets].find(([, answering]) => answering === 0)?.[0];
      (waiting ?? socket).destroy();
      if (!waiting) return;
      sockets.delete(waiting);
    }
    sockets.set(socket, 0);
    socket.once('close', () => {
      sockets.delete(socket);
      if (sockets.size === 0 && held.get(machine) === sockets) held.delete(machine);
    });
  });
  const count = (socket: Socket, by: number): void => {
    const sockets = held.get(socket.remoteAddress ?? '');
    const known = sockets?.get(socket);
    if (sockets && known !== undefined) sockets.set(socket, known + by);
  };
  server.on('request', ({ socket }: IncomingMessage, response: ServerResponse) => {
    count(socket, 1);
    response.once('close', () => count(socket, -1));
  });
}

/** Ends a request whose body does not come in at a useful speed. How long its answer takes is another matter. */
export function boundBody(request: IncomingMessage, mostBytes: number): void {
  const said = Number(request.headers['content-length'] ?? (request.headers['transfer-encoding'] ? mostBytes : 0));
  if (said === 0) return;
  const late = (): void => void (request.complete || request.destroy());
  const timer = setTimeout(late, bodyMs(Number.isFinite(said) ? Math.min(said, mostBytes) : mostBytes));
  timer.unref();
  const done = (): void => clearTimeout(timer);
  request.once('end', done);
  request.once('close', done);
}
