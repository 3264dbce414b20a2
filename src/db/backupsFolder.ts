import { basename, dirname, join } from 'node:path';

/** Where the copies of a data file lie: beside it. */
export const backupsFolder = (path: string): string => join(dirname(path), `${basename(path)}.copies`);
