import { createHash } from 'node:crypto';
import { cleanJpeg, JpegError } from '@/core/formats/jpegFile';
import { MOST_PHOTO_ACROSS } from '@/core/records/photos';
import type { Photo } from '@/core/records/recordSchemas';
import { keepPhoto, photoBytes } from '@/db/photos';
import { wallClockNow } from './clock';
import { whenFree, withData } from './data';
import { ownBytes, RequestError } from './respond';

/** Keeps a photo that a page sends: a JPEG, cleaned of all but its picture. It belongs to nothing before an edit names it. */
export async function takePhoto(request: Request): Promise<Photo> {
  const sent = await ownBytes(request);
  const now = wallClockNow();
  const { bytes, width, height } = cleaned(sent);
  if (Math.max(width, height) > MOST_PHOTO_ACROSS) throw new RequestError(413, 'This photo was not made small.');
  const photo = createHash('sha256').update(bytes).digest('hex');
  await whenFree((db) => keepPhoto(db, photo, Buffer.from(bytes), now));
  return { photo, at: now, width, height };
}

function cleaned(sent: Uint8Array): ReturnType<typeof cleanJpeg> {
  try {
    return cleanJpeg(sent);
  } catch (error) {
    if (error instanceof JpegError) throw new RequestError(415, error.message);
    throw error;
  }
}

/** A photo as it was kept. Its name is the sum of its bytes: what was read once stays so. */
export function photoAnswer(id: string): Response {
  const bytes = withData((db) => photoBytes(db, id));
  if (!bytes) throw new RequestError(404, 'This photo is not in the data file.');
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' },
  });
}
