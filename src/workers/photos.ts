import { wrap, type Remote } from 'comlink';
import { MOST_PHOTO_ACROSS } from '../core/records/photos';
import type { Photographer } from './photo.worker';

const MOST_MB = 60;

/** A photo that cannot be opened; the message says why. */
export class PhotoError extends Error {
  override name = 'PhotoError';
}

/** Works on a photo in a worker of its own, which ends with it. Throws a PhotoError. */
async function worked<T>(
  file: Blob & { name?: string },
  work: (remote: Remote<Photographer>) => Promise<T>,
): Promise<T> {
  const name = file.name ?? 'This photo';
  if (file.size > MOST_MB * 1e6) throw new PhotoError(`${name} is larger than ${MOST_MB} MB. Save it smaller first.`);
  const worker = new Worker(new URL('./photo.worker.ts', import.meta.url), { type: 'module' });
  try {
    return await work(wrap<Photographer>(worker));
  } catch {
    throw new PhotoError(
      `${name} is no picture that this browser can open. Most open JPEG, PNG and WebP: save it as one of these.`,
    );
  } finally {
    worker.terminate();
  }
}

/** A photo to look at, upright, no larger than so many pixels across. */
export const openPhoto = (file: Blob & { name?: string }, mostAcross: number): Promise<ImageBitmap> =>
  worked(file, (remote) => remote.upright(file, mostAcross));

/** A photo as it is kept: upright, small, and nothing in it but the picture. */
export const smallPhoto = (file: File): Promise<Blob> => worked(file, (remote) => remote.jpeg(file, MOST_PHOTO_ACROSS));
