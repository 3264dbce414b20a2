import { join } from 'node:path';
import { temporaryFolder } from '@/db/testDataFile';
import { closeData, withData } from './data';
import {
  CODE_MS,
  deviceCookie,
  devicesView,
  MOST_TRIES,
  onRightsChanged,
  pairDevice,
  roleOfDevice,
  runDevices,
} from './devices';

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
    let rejudged = 0;
    onRightsChanged(() => void rejudged++);
    const shut = devicesView().devices.filter(({ role }) => role === 'bench');
    for (const device of shut) runDevices({ do: 'shut out', id: device.id });
    expect(rejudged).toBe(shut.length);
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
