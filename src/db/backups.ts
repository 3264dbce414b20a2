import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { backupsFolder } from './backupsFolder';
import { BackupError } from './backupError';
import { MIGRATIONS, openDataFile, refuseIfNewer } from './dataFile';
import { DOCUMENT_KINDS, listDocuments } from './documents';
import * as schema from './schema';
import { takeRowsOver } from './takeOver';
import type { Database } from './storage';

/** Copies of the days of use that are kept. */
export const KEPT_DAYS = 14;

/** A copy of the data file beside it. */
export interface Backup {
  name: string;
  bytes: number;
  /** When it was made, ms. */
  madeAt: number;
}

const COPY_NAME = /^[a-z0-9-]{1,60}\.db$/;

/** The path of a copy by its name. Throws for a name that is none of a copy. */
export function copyPath(path: string, name: string): string {
  if (!COPY_NAME.test(name)) throw new BackupError('There is no copy of this name.');
  const at = join(backupsFolder(path), name);
  if (!existsSync(at)) throw new BackupError('There is no copy of this name.');
  return at;
}

/** The copies of a data file, newest first. */
export function listBackups(path: string): Backup[] {
  const folder = backupsFolder(path);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .filter((name) => COPY_NAME.test(name))
    .map((name) => {
      const { size, mtimeMs } = statSync(join(folder, name));
      return { name, bytes: size, madeAt: Math.round(mtimeMs) };
    })
    .sort((a, b) => b.madeAt - a.madeAt || b.name.localeCompare(a.name));
}

/**
 * Copies the data file, as it is at this moment and while it is in use, by the database's own backup. The copy is looked through
 * before it gets its name; what stood there before stays until then.
 */
export async function saveBackup(db: Database, to: string): Promise<void> {
  const growing = `${to}.part`;
  mkdirSync(dirname(to), { recursive: true });
  rmSync(growing, { force: true });
  try {
    await db.$client.backup(growing);
    lookThrough(growing);
    renameSync(growing, to);
  } finally {
    for (const end of ['', '-wal', '-shm']) rmSync(`${growing}${end}`, { force: true });
  }
}

/** Opens a copy to read from it. */
export function openBackup(path: string): { db: Database; close: () => void } {
  const sqlite = new Sqlite(path, { readonly: true });
  return { db: drizzle(sqlite, { schema }), close: () => void sqlite.close() };
}

/** Looks through a database file: whole, and every key leads somewhere. Throws a BackupError. */
function lookThrough(path: string): void {
  let sqlite: Sqlite.Database | null = null;
  try {
    sqlite = new Sqlite(path, { fileMustExist: true });
    sqlite.pragma('trusted_schema = OFF');
    const check = sqlite.pragma('integrity_check(1)', { simple: true });
    if (check !== 'ok') throw new BackupError(`This copy is damaged (${String(check)}).`);
    const [loose] = sqlite.pragma('foreign_key_check') as { table: string; parent: string }[];
    if (loose)
      throw new BackupError(
        `This copy is not whole: something in ${loose.table} belongs to nothing in ${loose.parent}.`,
      );
    // A copy is one file: nothing of it is to stand in a log beside it.
    sqlite.pragma('journal_mode = DELETE');
  } catch (error) {
    if (error instanceof BackupError) throw error;
    throw new BackupError(
      `This is no data file of Aguada, or a damaged one (${error instanceof Error ? error.message : String(error)}).`,
    );
  } finally {
    sqlite?.close();
  }
}

export type DeviceRow = typeof schema.devices.$inferSelect;

/**
 * Makes of a file one that may take the place of the data file: looked through, what Aguada knows of it taken over into a fresh file,
 * that carried forward to this program, and every document in it read. Which devices may come in is this workshop's own matter: those
 * given take the place of what the file says. Throws a BackupError or a DataFileError; nothing else is touched.
 */
export function readyBackup(from: string, to: string, ownDevices: readonly DeviceRow[], now: string): void {
  lookThrough(from);
  const sqlite = new Sqlite(from, { readonly: true });
  const known = sqlite
    .prepare("select count(*) n from sqlite_master where type = 'table' and name in ('sets', '__drizzle_migrations')")
    .get() as { n: number };
  try {
    if (known.n !== 2) throw new BackupError('This is a database, but none of Aguada.');
    refuseIfNewer(sqlite, from, MIGRATIONS);
  } finally {
    sqlite.close();
  }
  takeRowsOver(from, to, MIGRATIONS);
  const opened = openDataFile(to, { now, copyBefore: false });
  try {
    opened.db.delete(schema.devices).run();
    for (const device of ownDevices) opened.db.insert(schema.devices).values(device).run();
    for (const kind of DOCUMENT_KINDS) {
      const [unreadable] = listDocuments(opened.db, kind).unreadable;
      if (unreadable) throw new BackupError(`This copy cannot be put back: ${unreadable.message}`);
    }
  } finally {
    opened.close();
  }
  lookThrough(to);
}

/** Keeps a copy of each day on which Aguada is used, and lets go of the oldest of them. Does nothing on a day that has one. */
export async function keepDailyBackup(db: Database, path: string, day: string): Promise<boolean> {
  const to = join(backupsFolder(path), `day-${day}.db`);
  if (existsSync(to)) return false;
  await saveBackup(db, to);
  const days = listBackups(path)
    .map(({ name }) => name)
    .filter((name) => name.startsWith('day-'))
    .sort()
    .reverse();
  for (const name of days.slice(KEPT_DAYS)) rmSync(join(backupsFolder(path), name));
  return true;
}
