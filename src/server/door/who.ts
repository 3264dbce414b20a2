import { BENCH_COMMANDS, type DeviceRole } from '@/core/records/devices';
import type { Verdict } from './gate';

/** Whether a request comes from this very machine. */
export const isThisMachine = (address: string | undefined): boolean =>
  address === '::1' || /^(::ffff:)?127\./.test(address ?? '');

/** What a device sees that is not paired: the pairing page, and what that is drawn with. */
const OPEN_TO_ALL = [/^\/pair$/, /^\/api\/pair$/, /^\/_next\/static\//, /^\/icon\.svg$/];
/** What belongs to the desk alone, and what a device at the bench has no business with. */
const DESK_ONLY = /^\/api\/devices(\/|$)/;
const NOT_AT_THE_BENCH = /^\/api\/copies(\/|$)/;

/** What becomes of a request of another device: `pair` leads it to the pairing page; null lets it through. */
export function verdictOnDevice(role: DeviceRole | null, method: string, path: string): Verdict | 'pair' | null {
  if (OPEN_TO_ALL.some((open) => open.test(path))) return null;
  if (role === null)
    return method === 'GET' && !path.startsWith('/api/')
      ? 'pair'
      : { status: 401, message: 'This device is not paired.' };
  if (DESK_ONLY.test(path)) return { status: 403, message: 'Devices are looked after at the desk.' };
  if (role === 'bench' && NOT_AT_THE_BENCH.test(path))
    return { status: 403, message: 'This device may use the bench only.' };
  return null;
}

/** Whether a device of this role may make an edit. */
export const mayEdit = (role: DeviceRole | null, command: string): boolean =>
  role !== 'bench' || BENCH_COMMANDS.has(command);
