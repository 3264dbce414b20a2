/** A JPEG file that cannot be taken; the message says why. */
export class JpegError extends Error {
  override name = 'JpegError';
}

/** A JPEG without what cameras write into it besides the picture. */
export interface CleanJpeg {
  bytes: Uint8Array<ArrayBuffer>;
  width: number;
  height: number;
}

const START = 0xd8;
const END = 0xd9;
const SCAN = 0xda;
/** The density of its pixels, and how its colours are turned: all that a picture needs of what stands beside it. */
const NEEDED = new Set([0xe0, 0xee]);
const isBeside = (marker: number): boolean => (marker >= 0xe0 && marker <= 0xef) || marker === 0xfe;
/** Frames that name the size; the tables for coding lie between them. */
const isFrame = (marker: number): boolean => marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker);

/**
 * Takes out of a JPEG everything that is not the picture: place, time and camera (EXIF, XMP), colour profiles, small pictures within,
 * comments, and whatever follows its end. The picture itself stays as it is, byte for byte. Throws a JpegError for what is no whole
 * JPEG. Markers after ITU-T T.81, annex B.
 */
export function cleanJpeg(file: Uint8Array): CleanJpeg {
  const byteAt = (at: number): number => {
    const byte = file[at];
    if (byte === undefined) throw new JpegError('This photo was cut short.');
    return byte;
  };
  if (file[0] !== 0xff || file[1] !== START) throw new JpegError('This is no photo.');
  const kept: Uint8Array[] = [file.subarray(0, 2)];
  let size: { width: number; height: number } | null = null;
  let at = 2;
  for (;;) {
    if (byteAt(at) !== 0xff) throw new JpegError('This photo is damaged.');
    const marker = byteAt(at + 1);
    // A marker may be filled up.
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === END) break;
    const length = byteAt(at + 2) * 256 + byteAt(at + 3);
    const end = marker === SCAN ? scanEnd(file, at + 2 + length) : at + 2 + length;
    if (length < 2 || end > file.length) throw new JpegError('This photo was cut short.');
    if (isFrame(marker))
      size = { height: byteAt(at + 5) * 256 + byteAt(at + 6), width: byteAt(at + 7) * 256 + byteAt(at + 8) };
    if (!isBeside(marker) || NEEDED.has(marker)) kept.push(file.subarray(at, end));
    at = end;
  }
  if (!size || size.width === 0 || size.height === 0) throw new JpegError('This photo is damaged.');
  kept.push(Uint8Array.of(0xff, END));
  const bytes = new Uint8Array(kept.reduce((sum, part) => sum + part.length, 0));
  let to = 0;
  for (const part of kept) {
    bytes.set(part, to);
    to += part.length;
  }
  return { bytes, ...size };
}

/** Where the coded picture ends: at the first marker that is neither a stuffed byte nor one to start afresh at. */
function scanEnd(file: Uint8Array, from: number): number {
  for (let at = from; at < file.length - 1; at++) {
    const marker = file[at + 1]!;
    if (file[at] === 0xff && marker !== 0 && marker !== 0xff && !(marker >= 0xd0 && marker <= 0xd7)) return at;
  }
  throw new JpegError('This photo was cut short.');
}
