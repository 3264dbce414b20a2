import { loadHeronSlack } from '@/db/demo/heronSlack';
import { dataFilePath, explained, openDataFile, type OpenedDataFile } from '@/db/dataFile';
import { stockShelf } from '@/db/defaults';
import { wallClockNow } from './clock';

// Kept across hot reloads of the development server.
const kept = globalThis as { aguadaDataFile?: OpenedDataFile };

/**
 * The open data file. Opened at the first call; a file that failed to open is tried again at the next.
 * A new file gets the shelf of typical products, and the sample set when `AGUADA_DEMO` is set.
 */
export function dataFile(): OpenedDataFile {
  const path = dataFilePath();
  if (kept.aguadaDataFile?.path === path) return kept.aguadaDataFile;
  const opened = openDataFile(path, {
    ...(process.env['AGUADA_BUSY_MS'] && { busyMs: Number(process.env['AGUADA_BUSY_MS']) }),
  });
  return explained(path, () => {
    const isNew = stockShelf(opened.db, wallClockNow());
    if (isNew && process.env['AGUADA_DEMO']) loadHeronSlack(opened.db, wallClockNow());
    return (kept.aguadaDataFile = opened);
  });
}

/** Runs something on the database, its errors turned into ones that a maker can act on. */
export function withData<T>(run: (db: OpenedDataFile['db']) => T): T {
  const { db, path } = dataFile();
  return explained(path, () => run(db));
}
