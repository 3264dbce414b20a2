import { parseCookie, stringifySetCookie } from 'cookie';
import { createHash, randomBytes, randomInt } from 'node:crypto';
import { z } from 'zod';
import type { DeviceRole, PairedDevice } from '@/core/records/devices';
import { addDevice, deviceOfHash, listDevices, seenDevice, shutOutDevice } from '@/db/devices';
import { wallClockNow } from './clock';
import { withData } from './data';
import { RequestError } from './respond';

/** How long a code lives, how many wrong ones it stands, and how much longer each wrong one is made to wait. */
export const CODE_MS = 5 * 60_000;
export const MOST_TRIES = 5;
const WAIT_MS = 700;

/** A code under which one device may pair. */
interface Pairing {
  code: string;
  role: DeviceRole;
  until: number;
  tries: number;
}

// One for the front door and for the routes, which are bundled apart.
const shared = globalThis as { aguadaPairing?: Pairing | null; aguadaAddresses?: string[]; aguadaRejudge?: () => void };

/** Has the front door look anew at what devices are being answered, whenever `rightsChanged` says so. */
export const onRightsChanged = (rejudge: () => void): void => void (shared.aguadaRejudge = rejudge);

/** Says that a device may have other rights than before. */
export const rightsChanged = (): void => shared.aguadaRejudge?.();

/** Addresses under which other devices reach this machine; none while it is not open to them. */
export const setAddresses = (addresses: string[]): void => void (shared.aguadaAddresses = addresses);

export const devicesRequestSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('code'), role: z.enum(['everything', 'bench']) }),
  z.object({ do: z.literal('shut out'), id: z.string().min(1).max(40) }),
]);

/** What the desk shows of other devices. */
export interface DevicesAnswer {
  /** Empty while Aguada is not open to others. */
  addresses: string[];
  devices: PairedDevice[];
  pairing: { code: string; role: DeviceRole; secondsLeft: number } | null;
}

export function devicesView(now = Date.now()): DevicesAnswer {
  const pairing = livePairing(now);
  return {
    addresses: shared.aguadaAddresses ?? [],
    devices: withData(listDevices),
    pairing: pairing && {
      code: pairing.code,
      role: pairing.role,
      secondsLeft: Math.max(0, Math.round((pairing.until - now) / 1000)),
    },
  };
}

function livePairing(now: number): Pairing | null {
  const pairing = shared.aguadaPairing ?? null;
  if (pairing && now < pairing.until && pairing.tries < MOST_TRIES) return pairing;
  shared.aguadaPairing = null;
  return null;
}

/** Makes a code, or shuts a device out. */
export function runDevices(asked: z.infer<typeof devicesRequestSchema>, now = Date.now()): DevicesAnswer {
  if (asked.do === 'code') {
    const code = String(randomInt(0, 1_000_000)).padStart(6, '0');
    shared.aguadaPairing = { code, role: asked.role, until: now + CODE_MS, tries: 0 };
  } else {
    withData((db) => shutOutDevice(db, asked.id));
    rightsChanged();
  }
  return devicesView(now);
}

export const pairRequestSchema = z.object({
  code: z.string().regex(/^\d{6}$/, 'The code has six digits'),
  name: z.string().trim().min(1, 'Give this device a name').max(60),
});

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/**
 * Pairs a device with the code that the desk shows: once. Wrong ones are answered more slowly each time, and after five the code is
 * void. Returns the secret that only the device keeps.
 */
export async function pairDevice(
  { code, name }: z.infer<typeof pairRequestSchema>,
  { now = Date.now(), wait = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms)) } = {},
): Promise<string> {
  const pairing = livePairing(now);
  if (!pairing) throw new RequestError(403, 'No device is awaited now. Ask for a new code at the desk.');
  if (pairing.code !== code) {
    pairing.tries++;
    await wait(WAIT_MS * pairing.tries);
    const left = MOST_TRIES - pairing.tries;
    throw new RequestError(
      403,
      left > 0
        ? `This is not the code; ${left} more ${left === 1 ? 'try' : 'tries'}.`
        : 'This code is void now. Ask for a new one at the desk.',
    );
  }
  shared.aguadaPairing = null;
  const token = randomBytes(32).toString('base64url');
  withData((db) => addDevice(db, { name, role: pairing.role, tokenHash: hashOf(token), at: wallClockNow() }));
  return token;
}

/** How a device that asks is known. */
export const DEVICE_COOKIE = 'aguada-device';
const YEAR_S = 365 * 24 * 3600;
export const deviceCookie = (token: string): string =>
  stringifySetCookie(DEVICE_COOKIE, token, { path: '/', maxAge: YEAR_S, httpOnly: true, sameSite: 'strict' });

/** What a device may do by its cookie; null for one that is not paired, or shut out. */
export function roleOfDevice(cookies: string | undefined): DeviceRole | null {
  const token = parseCookie(cookies ?? '')[DEVICE_COOKIE];
  if (!token) return null;
  return withData((db) => {
    const device = deviceOfHash(db, hashOf(token));
    if (!device || device.shutOut) return null;
    seenDevice(db, device.id, wallClockNow());
    return device.role;
  });
}
