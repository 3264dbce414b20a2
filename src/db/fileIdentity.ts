import { closeSync, copyFileSync, openSync, readSync, renameSync, statSync } from 'node:fs';

/** Which file it is that was opened, and that nobody has cut it since. */
export interface FileIdentity {
  device: number;
  inode: number;
  /** It only grows while it is open. */
  bytes: number;
  /** The write-ahead log beside it, once there is one. */
  logInode: number | null;
}

const inodeOf = (path: string): number | null => statSync(path, { throwIfNoEntry: false })?.ino ?? null;

/** The identity of the file at a path; null when there is none. */
export function identityOf(path: string): FileIdentity | null {
  const stats = statSync(path, { throwIfNoEntry: false });
  return stats ? { device: stats.dev, inode: stats.ino, bytes: stats.size, logInode: inodeOf(`${path}-wal`) } : null;
}

/** What has happened to a file since its identity was taken; null when it is still the same. */
export function whatHappened(path: string, known: FileIdentity): 'gone' | 'swapped' | 'cut' | 'overwritten' | null {
  const now = identityOf(path);
  if (!now) return 'gone';
  if (now.device !== known.device || now.inode !== known.inode) return 'swapped';
  if (now.bytes < known.bytes) return 'cut';
  return startsAsDatabase(path) ? null : 'overwritten';
}

/** Whether nobody has written to a file since a moment, and its log is the one that was known. */
export const isUntouched = (path: string, known: FileIdentity, since: number): boolean =>
  (statSync(path, { throwIfNoEntry: false })?.mtimeMs ?? Infinity) <= since &&
  (known.logInode === null || inodeOf(`${path}-wal`) === known.logInode);

/**
 * Puts a copy of the file that lies at a path in its place, if it is still the one that was known: SQLite knows files by their inode,
 * and would give a new connection the index of the old one's log.
 */
export function partFrom(path: string, known: FileIdentity): void {
  if (inodeOf(path) !== known.inode) return;
  copyFileSync(path, `${path}.part`);
  renameSync(`${path}.part`, path);
}

const MAGIC = 'SQLite format 3\u0000';

/** Whether a file begins as a database does. */
export function startsAsDatabase(path: string): boolean {
  const start = Buffer.alloc(MAGIC.length);
  const file = openSync(path, 'r');
  try {
    return readSync(file, start, 0, MAGIC.length, 0) === MAGIC.length && start.toString('latin1') === MAGIC;
  } finally {
    closeSync(file);
  }
}

/**
 * Moves the log of a file that is gone out of the way of the one that lies in its place now: read together they would make a
 * damaged file.
 */
export function setOldLogAside(path: string, known: FileIdentity, to: string): void {
  if (known.logInode === null || inodeOf(`${path}-wal`) !== known.logInode) return;
  for (const log of ['-wal', '-shm']) if (inodeOf(`${path}${log}`) !== null) renameSync(`${path}${log}`, `${to}${log}`);
}
