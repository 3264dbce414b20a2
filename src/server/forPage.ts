import { DataFileError, type DataTrouble } from '@/db/dataFile';
import { setPageStatus } from './door/pageStatus';
import { refusalOf } from './respond';

/** What a page is made from, or the sentence that stands in its place. */
export type ForPage<T> = { ok: true; data: T } | { ok: false; message: string; trouble: DataTrouble | null };

/** Runs a page's reading of the data; trouble with the data file becomes a page that says what to do. */
export async function forPage<T>(read: () => T | Promise<T>): Promise<ForPage<T>> {
  try {
    return { ok: true, data: await read() };
  } catch (error) {
    const refusal = refusalOf(error);
    if (!refusal) throw error;
    setPageStatus(refusal.status);
    const trouble = error instanceof DataFileError ? error.trouble : null;
    return { ok: false, message: refusal.body.message, trouble };
  }
}
