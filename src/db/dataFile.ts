import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { backupsFolder } from './backupsFolder';
import { upgradeRecords } from './upgrade';
import * as schema from './schema';
import type { Database } from './storage';

export type DataTrouble = 'locked' | 'read-only' | 'damaged' | 'newer' | 'unreachable' | 'full' | 'empty' | 'swapped';

/** The data file cannot be used as it is; the message tells the maker what to do. */
export class DataFileError extends Error {
  constructor(
    readonly trouble: DataTrouble,
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
    this.name = 'DataFileError';
  }
}

export interface OpenedDataFile {
  db: Database;
  path: string;
  /** True when this call made the file. */
  isNew: boolean;
  close: () => void;
}

/** Where the data lives: `AGUADA_DATA`, or `data/aguada.db` beside the program (never inside the build). */
export const dataFilePath = (): string =>
  resolve(
    /* turbopackIgnore: true */ process.env['AGUADA_DATA'] ||
      join(/* turbopackIgnore: true */ process.cwd(), 'data', 'aguada.db'),
  );

export const MIGRATIONS = join(/* turbopackIgnore: true */ process.cwd(), 'src', 'db', 'migrations');

/**
 * Opens the data file, making it when there is none, and carries an older one forward (a copy of it is kept beside it).
 * Throws a DataFileError for a file that is locked, read-only, damaged, empty, out of reach, or newer than this program. A new
 * file appears only when it is whole.
 */
export function openDataFile(
  path: string,
  options: { migrations?: string; busyMs?: number; now?: string; copyBefore?: boolean } = {},
): OpenedDataFile {
  const migrations = options.migrations ?? MIGRATIONS;
  const now = options.now ?? new Date().toISOString().slice(0, 16);
  return explained(path, () => {
    const isNew = !existsSync(path);
    if (isNew) makeNewFile(path, migrations, now);
    else if (statSync(path).size === 0) throw emptyFile(path);
    const sqlite = new Sqlite(path, { timeout: options.busyMs ?? BUSY_MS });
    try {
      if (!isNew) refuseIfDamagedOrNewer(sqlite, path, migrations);
      sqlite.pragma('journal_mode = WAL');
      sqlite.pragma('foreign_keys = ON');
      // What was answered is on the disk, also when the power goes.
      sqlite.pragma('synchronous = FULL');
      sqlite.function('says', { deterministic: true }, says);
      if (!isNew && options.copyBefore !== false) keepCopyBeforeMigration(sqlite, path, migrations);
      const db = drizzle(sqlite, { schema });
      migrate(db, { migrationsFolder: migrations });
      upgradeRecords(db, now);
      return { db, path, isNew, close: () => closeInOrder(sqlite) };
    } catch (error) {
      sqlite.close();
      throw error;
    }
  });
}

/** A text as it is searched: in small letters, without accents. */
export const folded = (text: string): string =>
  /[\u0080-\uffff]/.test(text) ? text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase() : text.toLowerCase();

/** For the database: 1 where a text has a folded word. */
const says = (text: unknown, word: unknown): number => (folded(String(text)).includes(String(word)) ? 1 : 0);

/** How long the thread itself waits for another program; longer waiting is done without holding anything up. */
const BUSY_MS = 60;

/** Made under another name first: a start that is cut short leaves no half a file behind. */
function makeNewFile(path: string, migrations: string, now: string): void {
  mkdirSync(dirname(path), { recursive: true });
  const growing = `${path}.new-${process.pid}`;
  rmSync(growing, { force: true });
  const sqlite = new Sqlite(growing);
  try {
    const db = drizzle(sqlite, { schema });
    migrate(db, { migrationsFolder: migrations });
    upgradeRecords(db, now);
    sqlite.close();
    renameSync(growing, path);
  } catch (error) {
    sqlite.close();
    for (const end of ['', '-journal', '-wal', '-shm']) rmSync(`${growing}${end}`, { force: true });
    throw error;
  }
}

const emptyFile = (path: string): DataFileError =>
  new DataFileError(
    'empty',
    `The data file ${path} is there but empty; copying it may have failed. Put a copy back, or delete it to start afresh.`,
  );

/** All that stands in the log is brought into the file: closed in order, the file alone is the whole of it. */
function closeInOrder(sqlite: Sqlite.Database): void {
  if (!sqlite.open) return;
  try {
    sqlite.pragma('wal_checkpoint(TRUNCATE)');
  } catch {
    // The log stays beside the file; nothing is lost by that.
  }
  sqlite.close();
}

/** When each migration that this program knows was made, oldest first. */
function knownMigrations(folder: string): number[] {
  const journal = JSON.parse(readFileSync(join(folder, 'meta', '_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  return journal.entries.map(({ when }) => when);
}

function lastApplied(sqlite: Sqlite.Database): number | null {
  const table = sqlite.prepare("select 1 from sqlite_master where name = '__drizzle_migrations'").get();
  return table
    ? (sqlite.prepare('select max(created_at) as at from __drizzle_migrations').get() as { at: number | null }).at
    : null;
}

function refuseIfDamagedOrNewer(sqlite: Sqlite.Database, path: string, migrations: string): void {
  const check = sqlite.pragma('quick_check(1)', { simple: true });
  if (check !== 'ok')
    throw new DataFileError(
      'damaged',
      `The data file ${path} is damaged (${String(check)}). Put back a copy of it, or move it away to start afresh.`,
    );
  refuseIfNewer(sqlite, path, migrations);
}

/** Throws for a file that a later program has carried forward. */
export function refuseIfNewer(sqlite: Sqlite.Database, path: string, migrations: string): void {
  const last = lastApplied(sqlite);
  if (last !== null && last > (knownMigrations(migrations).at(-1) ?? 0)) {
    throw new DataFileError(
      'newer',
      `The data file ${path} was written by a newer Aguada. Use that one, or point AGUADA_DATA at another file. Nothing was changed.`,
    );
  }
}

function keepCopyBeforeMigration(sqlite: Sqlite.Database, path: string, migrations: string): void {
  const last = lastApplied(sqlite);
  if (last === null || !knownMigrations(migrations).some((when) => when > last)) return;
  const folder = backupsFolder(path);
  const copy = join(folder, `before-update-${knownMigrations(migrations).length}.db`);
  mkdirSync(folder, { recursive: true });
  if (!existsSync(copy)) sqlite.prepare('vacuum into ?').run(copy);
}

/** Runs something on the data file and turns the database's own errors into ones that a maker can act on. */
export function explained<T>(path: string, run: () => T): T {
  try {
    return run();
  } catch (error) {
    throw explain(path, error);
  }
}

function explain(path: string, error: unknown): unknown {
  const code = errorCode(error);
  const trouble = (kind: DataTrouble, message: string): DataFileError =>
    new DataFileError(kind, message, { cause: error });
  if (error instanceof DataFileError) return error;
  if (code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
    return trouble(
      'locked',
      `The data file ${path} is in use by another program. Close that one and try again. Nothing was saved.`,
    );
  if (code.startsWith('SQLITE_READONLY') || code === 'EACCES' || code === 'EROFS')
    return trouble(
      'read-only',
      `The data file ${path} cannot be written. Make it and its folder writable. Nothing was saved.`,
    );
  if (code === 'SQLITE_FULL' || code === 'ENOSPC' || isLostRollback(error))
    return trouble(
      'full',
      `The disk of the data file ${path} is full. Make room and try again. Nothing was saved, and nothing that was saved is lost.`,
    );
  if (code === 'SQLITE_NOTADB' || code.startsWith('SQLITE_CORRUPT') || code === 'SQLITE_IOERR_SHORT_READ')
    return trouble(
      'damaged',
      `The data file ${path} is damaged or is no Aguada file. Put back a copy of it, or move it away to start afresh.`,
    );
  if (code.startsWith('SQLITE_CANTOPEN') || code === 'ENOTDIR' || code === 'EEXIST' || code.startsWith('SQLITE_IOERR'))
    return trouble(
      'unreachable',
      `The data file ${path} cannot be read or opened. Check that its folder is there and can be used.`,
    );
  return error;
}

/** A full disk ends a transaction by itself; the rollback that follows finds none, and would hide why. */
const isLostRollback = (error: unknown): boolean =>
  error instanceof Error &&
  /cannot rollback - no transaction is active/.test(`${error.message} ${String(error.cause)}`);

/** The code of a database or file error, its own or its cause's. */
function errorCode(error: unknown): string {
  if (typeof error !== 'object' || error === null) return '';
  if ('code' in error && typeof error.code === 'string') return error.code;
  return 'cause' in error ? errorCode(error.cause) : '';
}
