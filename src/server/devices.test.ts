import { join } from 'node:path';
import { temporaryFolder } from '@/db/testDataFile';
import { closeData, withData } from './data';
import { CODE_MS, deviceCookie, devicesView, MOST_TRIES, pairDevice, roleOfDevice, runDevices } from './devices';
import { isThisMachine, mayEdit, verdictOnDevice } from './door/who';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'devices.db');
const waited: number[] = [];
const wait = (ms: number): Promise<void> => (waited.push(ms), Promise.resolve());
const pair = (code: string, now?: number): Promise<string> =>
  pairDevice({ code, name: 'Tablet' }, { wait, ...(now !== undefined && { now }) });
const newCode = (role: 'bench' | 'everything' = 'bench'): string => runDevices({ do: 'code', role }).pairing!.code;
const another = (code: string): string => String((Number(code) + 1) % 1_000_000).padStart(6, '0');
/** As the browser of the device sends it back. */
const cookieOf = (token: string): string => `theme=dark; ${deviceCookie(token).split(';')[0]}; x=1`;

afterAll(closeData);
beforeEach(() => (waited.length = 0));

describe('pairing', () => {
  test('with the code of the desk, once; the device is known by its secret, and only the hash of that is kept', async () => {
    const code = newCode();
    expect(code).toMatch(/^\d{6}$/);
    const token = await pair(code);
    expect(roleOfDevice(cookieOf(token))).toBe('bench');
    expect(devicesView().devices).toMatchObject([{ name: 'Tablet', role: 'bench', shutOut: false }]);
    await expect(pair(code)).rejects.toThrow('No device is awaited');
    const file = JSON.stringify(withData((db) => db.$client.prepare('select * from devices').all()));
    expect(file).not.toContain(token);
  });
  test('a wrong code is answered more slowly each time, and after five the code is void', async () => {
    const code = newCode();
    for (let i = 1; i <= MOST_TRIES; i++)
      await expect(pair(another(code))).rejects.toThrow(i < MOST_TRIES ? 'not the code' : 'void');
    expect(waited).toEqual([700, 1400, 2100, 2800, 3500]);
    await expect(pair(code)).rejects.toThrow('No device is awaited');
  });
  test('a code lives for five minutes, and a new one ends the one before', async () => {
    const first = newCode();
    await expect(pair(first, Date.now() + CODE_MS)).rejects.toThrow('No device is awaited');
    const second = newCode();
    const third = newCode('everything');
    if (second !== third) await expect(pair(second)).rejects.toThrow('not the code');
    expect(roleOfDevice(cookieOf(await pair(third)))).toBe('everything');
  });
  test('a device that is shut out is a stranger again; others stay', async () => {
    const [mine, other] = [await pair(newCode()), await pair(newCode('everything'))];
    const shut = devicesView().devices.filter(({ role }) => role === 'bench');
    for (const device of shut) runDevices({ do: 'shut out', id: device.id });
    expect(roleOfDevice(cookieOf(mine))).toBeNull();
    expect(roleOfDevice(cookieOf(other))).toBe('everything');
    expect(shut.length).toBeGreaterThan(0);
    expect(devicesView().devices.filter(({ shutOut }) => shutOut)).toHaveLength(shut.length);
  });
  test.each([
    undefined,
    '',
    'aguada-device=',
    'aguada-device=abc',
    `aguada-device=${'x'.repeat(43)}`,
    `other=${'y'.repeat(43)}`,
  ])('the cookies %s are of no device', (cookies) => expect(roleOfDevice(cookies)).toBeNull());
  test('the secret is for the server only, and for this site only', () =>
    expect(deviceCookie('t')).toMatch(/HttpOnly; SameSite=Strict$/));
});

describe('what another device gets', () => {
  test('this machine is this machine', () => {
    expect(['127.0.0.1', '127.9.9.9', '::1', '::ffff:127.0.0.1'].map(isThisMachine)).toEqual([true, true, true, true]);
    expect(
      ['192.168.1.7', '10.0.0.1', '::ffff:10.0.0.1', 'fe80::1', '', undefined, '1127.0.0.1'].map(isThisMachine),
    ).toEqual(Array(7).fill(false));
  });
  test('not paired: the pairing page and nothing else', () => {
    const seen = (path: string, method = 'GET'): unknown => {
      const verdict = verdictOnDevice(null, method, path);
      return typeof verdict === 'object' ? (verdict?.status ?? 200) : verdict;
    };
    expect(['/pair', '/_next/static/chunks/a.js', '/icon.svg'].map((path) => seen(path))).toEqual([200, 200, 200]);
    expect(
      ['/', '/shelf', '/sets/s/shape', '/cards/s/b', '/pair/../shelf', '/pairs'].map((path) => seen(path)),
    ).toEqual(Array(6).fill('pair'));
    expect(['/api/edits', '/api/copies/archive', '/api/devices', '/api/batches/b'].map((path) => seen(path))).toEqual(
      Array(4).fill(401),
    );
    expect([seen('/api/pair', 'POST'), seen('/api/edits', 'POST'), seen('/', 'POST')]).toEqual([200, 401, 401]);
  });
  test('paired: everything but the devices; at the bench no copies and no changes of designs', () => {
    expect(verdictOnDevice('everything', 'POST', '/api/edits')).toBeNull();
    expect(verdictOnDevice('everything', 'GET', '/api/copies')).toBeNull();
    expect(verdictOnDevice('everything', 'POST', '/api/devices')).toMatchObject({ status: 403 });
    expect(verdictOnDevice('bench', 'GET', '/sets/s/log')).toBeNull();
    expect(verdictOnDevice('bench', 'GET', '/api/copies/archive')).toMatchObject({ status: 403 });
    expect([
      mayEdit('bench', 'pour'),
      mayEdit('bench', 'put'),
      mayEdit('bench', 'undo'),
      mayEdit('bench', 'remove'),
    ]).toEqual([...[true, false, false, false]]);
    expect(mayEdit(null, 'remove')).toBe(true);
  });
});
