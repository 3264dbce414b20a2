import { once } from 'node:events';
import { createServer, request, type Server } from 'node:http';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { bodyMs, boundBody, boundConnections } from './connections';

let server: Server;
const opened: Socket[] = [];
const portOf = (): number => (server.address() as AddressInfo).port;
const open = async (): Promise<{ socket: Socket; closed: () => boolean }> => {
  const socket = connect(portOf(), '127.0.0.1');
  opened.push(socket);
  let closed = false;
  socket.on('error', () => undefined);
  socket.on('close', () => (closed = true));
  await once(socket, 'connect');
  return { socket, closed: () => closed };
};
const soon = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 80));
const listen = async (): Promise<void> => {
  server.listen(0, '127.0.0.1');
  await once(server, 'listening');
};
afterEach(() => {
  for (const socket of opened.splice(0)) socket.destroy();
  server.closeAllConnections();
  server.close();
});

test('beyond the bound the one that has waited longest gives way; one that is being answered does not', async () => {
  server = createServer(() => undefined);
  boundConnections(server, () => false, { own: 9, other: 3 });
  await listen();
  const asking = await open();
  asking.socket.write('GET / HTTP/1.1\r\nhost: a\r\n\r\n');
  await soon();
  const [first, second] = [await open(), await open()];
  const third = await open();
  await soon();
  expect([asking, first, second, third].map(({ closed }) => closed())).toEqual([false, true, false, false]);
});
test('where every one is being answered, the new one gives way', async () => {
  server = createServer(() => undefined);
  boundConnections(server, () => false, { own: 9, other: 2 });
  await listen();
  const asking = [await open(), await open()];
  for (const { socket } of asking) socket.write('GET / HTTP/1.1\r\nhost: a\r\n\r\n');
  await soon();
  const late = await open();
  await soon();
  expect([...asking, late].map(({ closed }) => closed())).toEqual([false, false, true]);
});
test('this machine may hold more', async () => {
  server = createServer(() => undefined);
  boundConnections(server, () => true, { own: 4, other: 1 });
  await listen();
  const all = [await open(), await open(), await open(), await open()];
  await soon();
  expect(all.map(({ closed }) => closed())).toEqual([false, false, false, false]);
});
test('a request without a body may be answered for as long as it takes', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
  try {
    server = createServer((asked) => boundBody(asked, 100));
    await listen();
    const stream = await open();
    stream.socket.write('GET / HTTP/1.1\r\nhost: a\r\n\r\n');
    for (let i = 0; i < 20; i++) await new Promise((resolve) => setImmediate(resolve));
    await jest.advanceTimersByTimeAsync(10 * bodyMs(100));
    jest.useRealTimers();
    await soon();
    expect(stream.closed()).toBe(false);
  } finally {
    jest.useRealTimers();
  }
});
test('a body that does not come is cut off; one that has come is left alone', async () => {
  jest.useFakeTimers({ doNotFake: ['setImmediate', 'nextTick', 'queueMicrotask'] });
  try {
    server = createServer((asked, response) => {
      boundBody(asked, 100);
      asked.on('data', () => undefined);
      asked.once('end', () => setTimeout(() => response.end('whole'), bodyMs(100) + 1000));
    });
    await listen();
    const slow = await open();
    slow.socket.write('POST / HTTP/1.1\r\nhost: a\r\ncontent-length: 100\r\n\r\nx');
    const whole = request({ port: portOf(), host: '127.0.0.1', method: 'POST', headers: { 'content-length': 1 } });
    whole.end('x');
    const answered = once(whole, 'response');
    for (let i = 0; i < 20; i++) await new Promise((resolve) => setImmediate(resolve));
    await jest.advanceTimersByTimeAsync(bodyMs(100) + 2000);
    const [response] = (await answered) as [{ statusCode: number; resume: () => void }];
    response.resume();
    expect(response.statusCode).toBe(200);
    jest.useRealTimers();
    await soon();
    expect(slow.closed()).toBe(true);
  } finally {
    jest.useRealTimers();
  }
});
