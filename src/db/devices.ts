import { and, desc, eq, ne } from 'drizzle-orm';
import type { DeviceRole, PairedDevice } from '@/core/records/devices';
import type { Database } from './storage';
import { devices } from './schema';

const columns = {
  id: devices.id,
  name: devices.name,
  role: devices.role,
  pairedAt: devices.pairedAt,
  seenAt: devices.seenAt,
  shutOut: devices.shutOut,
};

/** Devices that were paired, the newest first; those that were shut out too. */
export const listDevices = (db: Database): PairedDevice[] =>
  db.select(columns).from(devices).orderBy(desc(devices.pairedAt), desc(devices.id)).all();

/** The device whose secret has this hash; null when there is none. */
export const deviceOfHash = (db: Database, tokenHash: string): PairedDevice | null =>
  db.select(columns).from(devices).where(eq(devices.tokenHash, tokenHash)).get() ?? null;

/** Notes a device. Only the hash of its secret is kept. */
export const addDevice = (
  db: Database,
  { name, role, tokenHash, at }: { name: string; role: DeviceRole; tokenHash: string; at: string },
): void =>
  void db.insert(devices).values({ id: crypto.randomUUID(), name, role, tokenHash, pairedAt: at, seenAt: at }).run();

/** Notes that a device was there; once a minute at most. */
export const seenDevice = (db: Database, id: string, at: string): void =>
  void db
    .update(devices)
    .set({ seenAt: at })
    .where(and(eq(devices.id, id), ne(devices.seenAt, at)))
    .run();

/** Shuts a device out, for good: it has to be paired anew. */
export const shutOutDevice = (db: Database, id: string): void =>
  void db.update(devices).set({ shutOut: true }).where(eq(devices.id, id)).run();
