import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { BackupError } from './backupError';

interface Named {
  name: string;
  sql: string;
}
/** An upgrader takes it away once its rows have been taken over. */
const TAKEN_AWAY = 'old_batches';
const NO_TABLE_OF_OURS = /^(sqlite_|__drizzle)/;

/**
 * Takes what a foreign file holds over into a fresh one of the same age: rows, of the tables and columns that Aguada itself had made by
 * then. Triggers, views, indexes and tables of others stay where they are. Throws a BackupError for a file that lacks something.
 */
export function takeRowsOver(from: string, to: string, migrations: string): void {
  for (const end of ['', '-wal', '-shm']) rmSync(`${to}${end}`, { force: true });
  const sqlite = new Sqlite(to);
  try {
    sqlite.pragma('trusted_schema = OFF');
    sqlite.prepare('attach ? as foreign_file').run(from);
    makeOfSameAge(sqlite, migrations);
    sqlite.pragma('foreign_keys = OFF');
    const triggers = objects(sqlite, 'main', 'trigger');
    for (const { name } of triggers) sqlite.exec(`drop trigger "${name}"`);
    sqlite.transaction(() => {
      for (const { name } of objects(sqlite, 'main', 'table'))
        if (!NO_TABLE_OF_OURS.test(name)) takeTable(sqlite, name);
      // Numbers that were given once are not given again.
      sqlite.exec(
        `update main.sqlite_sequence set seq = max(seq, coalesce((select max(cast(s.seq as integer)) from foreign_file.sqlite_sequence s
           where s.name = main.sqlite_sequence.name and typeof(s.seq) = 'integer'), 0))`,
      );
    })();
    for (const { sql } of triggers) sqlite.exec(sql);
    sqlite.exec('detach foreign_file');
  } catch (error) {
    if (error instanceof BackupError) throw error;
    throw new BackupError(
      `This file cannot be taken over (${error instanceof Error ? error.message : String(error)}).`,
    );
  } finally {
    sqlite.close();
  }
}

const objects = (sqlite: Sqlite.Database, schema: 'main' | 'foreign_file', type: 'table' | 'trigger'): Named[] =>
  sqlite.prepare(`select name, sql from ${schema}.sqlite_master where type = ?`).all(type) as Named[];

/** Makes the tables as they were when the foreign file was last carried forward. */
function makeOfSameAge(sqlite: Sqlite.Database, migrations: string): void {
  const { at } = sqlite.prepare('select max(created_at) as at from foreign_file.__drizzle_migrations').get() as {
    at: unknown;
  };
  const folder = mkdtempSync(join(tmpdir(), 'aguada-migrations-'));
  try {
    cpSync(migrations, folder, { recursive: true });
    const path = join(folder, 'meta', '_journal.json');
    const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: { when: number }[] };
    const entries = journal.entries.filter(({ when }) => when <= Number(at));
    if (entries.at(-1)?.when !== at) throw new BackupError('This file was not made by Aguada as it says.');
    writeFileSync(path, JSON.stringify({ ...journal, entries }));
    migrate(drizzle(sqlite), { migrationsFolder: folder });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function takeTable(sqlite: Sqlite.Database, table: string): void {
  const theirs = objects(sqlite, 'foreign_file', 'table').find(({ name }) => name === table);
  if (!theirs && table === TAKEN_AWAY) {
    sqlite.exec(`drop table main."${table}"`);
    return;
  }
  if (!theirs || !/^create table/i.test(theirs.sql))
    throw new BackupError(`This file is not whole: it has no ${table}.`);
  const columnsIn = (schema: string): string[] =>
    (sqlite.pragma(`${schema}.table_info("${table}")`) as { name: string }[]).map(({ name }) => name);
  const there = new Set(columnsIn('foreign_file'));
  const columns = columnsIn('main');
  const missing = columns.find((name) => !there.has(name));
  if (missing !== undefined) throw new BackupError(`This file is not whole: ${table} has no ${missing}.`);
  const list = columns.map((name) => `"${name}"`).join(', ');
  // What a table was filled with when it was made is in the file too.
  sqlite.exec(`delete from main."${table}"`);
  sqlite.exec(`insert into main."${table}" (${list}) select ${list} from foreign_file."${table}"`);
}
