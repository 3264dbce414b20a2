import type { BedGrid } from '../bed/grid';

/** Nine numbers a triangle: three corners, x, y, z each, in the file's own units. */
export type Triangles = Float32Array;

/** Why a file could not be read, in a maker's words. */
export class ScanError extends Error {}

/** Beyond this a scan is finer than any bed needs, and the page's memory would not hold. */
export const MOST_TRIANGLES = 4_000_000;
const HEADER_BYTES = 84;
const TRIANGLE_BYTES = 50;
/** Share of a file that is read between two words of progress. */
const PROGRESS_BYTES = 2_000_000;

/** Called with the share that is done; stops the reading by throwing. */
export type Progress = (share: number) => void;

/**
 * Reads an STL, binary or text, as it comes in, so that the file itself is never held whole. Throws a `ScanError` for
 * what is no STL, is cut short, holds corners that are no numbers, or is too large.
 */
export async function readStl(
  chunks: AsyncIterable<Uint8Array>,
  bytes: number,
  progress: Progress = () => undefined,
): Promise<Triangles> {
  const iterator = chunks[Symbol.asyncIterator]();
  let head = new Uint8Array(0);
  while (head.length < HEADER_BYTES) {
    const next = await iterator.next();
    if (next.done) break;
    head = joined(head, next.value);
  }
  if (head.length === 0) throw new ScanError('The file is empty.');
  const count = head.length >= HEADER_BYTES ? new DataView(head.buffer, head.byteOffset).getUint32(80, true) : -1;
  const isBinary = count >= 0 && bytes === HEADER_BYTES + count * TRIANGLE_BYTES;
  const rest = { [Symbol.asyncIterator]: () => iterator };
  const startsAsText = new TextDecoder().decode(head.subarray(0, 80)).trimStart().startsWith('solid');
  if (isBinary || !startsAsText) return readBinary(head, rest, bytes, count, progress);
  return readText(head, rest, bytes, progress);
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array<ArrayBuffer> {
  const both = new Uint8Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

async function readBinary(
  head: Uint8Array,
  rest: AsyncIterable<Uint8Array>,
  bytes: number,
  count: number,
  progress: Progress,
): Promise<Triangles> {
  if (count < 0) throw new ScanError('This is no STL: it is too short to hold one triangle.');
  if (bytes < HEADER_BYTES + count * TRIANGLE_BYTES)
    throw new ScanError(
      `The file says it holds ${count} triangles but ends after ${Math.max(0, Math.floor((bytes - HEADER_BYTES) / TRIANGLE_BYTES))}. It is no STL, or it was cut short.`,
    );
  if (count === 0) throw new ScanError('The file holds no triangles.');
  if (count > MOST_TRIANGLES)
    throw new ScanError(`${count} triangles are too many; thin the scan out to ${MOST_TRIANGLES} or fewer.`);
  const triangles = new Float32Array(count * 9);
  let [done, pending, seen, told] = [0, head.subarray(HEADER_BYTES), head.length, 0];
  const take = (): void => {
    const view = new DataView(pending.buffer, pending.byteOffset, pending.byteLength);
    let at = 0;
    for (; at + TRIANGLE_BYTES <= pending.length && done < count; at += TRIANGLE_BYTES, done++) {
      for (let k = 0; k < 9; k++) triangles[done * 9 + k] = view.getFloat32(at + 12 + 4 * k, true);
    }
    pending = pending.subarray(at);
  };
  take();
  for await (const chunk of rest) {
    pending = pending.length > 0 ? joined(pending, chunk) : chunk;
    seen += chunk.length;
    take();
    if (seen - told > PROGRESS_BYTES) progress((told = seen) / bytes);
  }
  return checked(triangles, done);
}

/** A corner takes a hundred; what goes on without an end of line is something else. */
const MOST_LINE_CHARACTERS = 100_000;
const VERTEX = /vertex\s+(\S+)\s+(\S+)\s+(\S+)/g;

async function readText(
  head: Uint8Array,
  rest: AsyncIterable<Uint8Array>,
  bytes: number,
  progress: Progress,
): Promise<Triangles> {
  const decoder = new TextDecoder();
  let numbers = new Float32Array(90_000);
  let [count, text, seen, told] = [0, '', 0, 0];
  let ended = false;
  const take = (chunk: Uint8Array, last: boolean): void => {
    text += decoder.decode(chunk, { stream: !last });
    // The last line may be cut in two by the end of the chunk.
    const end = last ? text.length : text.lastIndexOf('\n') + 1;
    for (const [, x, y, z] of text.slice(0, end).matchAll(VERTEX)) {
      if (count + 3 > numbers.length) {
        if (count >= MOST_TRIANGLES * 9)
          throw new ScanError(`More than ${MOST_TRIANGLES} triangles are too many; thin the scan out.`);
        const larger = new Float32Array(numbers.length * 2);
        larger.set(numbers);
        numbers = larger;
      }
      numbers[count++] = Number(x);
      numbers[count++] = Number(y);
      numbers[count++] = Number(z);
    }
    if (text.includes('endsolid')) ended = true;
    text = text.slice(end);
    if (text.length > MOST_LINE_CHARACTERS)
      throw new ScanError(`A line of this file is longer than ${MOST_LINE_CHARACTERS} characters: it is no text STL.`);
  };
  take(head, false);
  seen = head.length;
  for await (const chunk of rest) {
    take(chunk, false);
    seen += chunk.length;
    if (seen - told > PROGRESS_BYTES) progress((told = seen) / bytes);
  }
  take(new Uint8Array(0), true);
  if (count === 0) throw new ScanError('The file begins like a text STL but holds no triangles.');
  if (!ended) throw new ScanError('The text STL ends without “endsolid”: it was cut short.');
  if (count % 9 !== 0)
    throw new ScanError(`The last triangle has only ${(count % 9) / 3} corners: the file was cut short.`);
  return checked(numbers.subarray(0, count), count / 9);
}

function checked(triangles: Float32Array, count: number): Triangles {
  let wrong = 0;
  let first = -1;
  for (let i = 0; i < count; i++) {
    for (let k = 0; k < 9; k++) {
      if (Number.isFinite(triangles[i * 9 + k]!)) continue;
      wrong++;
      if (first < 0) first = i;
      break;
    }
  }
  if (wrong > 0)
    throw new ScanError(
      `${wrong === 1 ? 'One triangle has' : `${wrong} triangles have`} corners that are not numbers, the first is triangle ${first + 1}. Export the scan again.`,
    );
  return count * 9 === triangles.length ? triangles : triangles.subarray(0, count * 9);
}

/** A corner: x, y, z in mm. */
export type Corner = readonly [number, number, number];

/** An empty binary STL of so many triangles, and how to add one; the normal is left at 0: every reader works it out from the corners. */
function stlWriter(
  count: number,
  title: string,
): { bytes: Uint8Array<ArrayBuffer>; triangle: (...corners: Corner[]) => void } {
  const bytes = new Uint8Array(HEADER_BYTES + count * TRIANGLE_BYTES);
  bytes.set(new TextEncoder().encode(title.slice(0, 70)).subarray(0, 79));
  const view = new DataView(bytes.buffer);
  view.setUint32(80, count, true);
  let at = HEADER_BYTES;
  const triangle = (...corners: Corner[]): void => {
    corners.forEach((xyz, k) =>
      xyz.forEach((value, axis) => view.setFloat32(at + 12 + 12 * k + 4 * axis, value, true)),
    );
    at += TRIANGLE_BYTES;
  };
  return { bytes, triangle };
}

/** Triangles, their corners anticlockwise seen from outside, as a binary STL in mm. */
export function binaryStl(
  triangles: readonly (readonly [Corner, Corner, Corner])[],
  title: string,
): Uint8Array<ArrayBuffer> {
  const { bytes, triangle } = stlWriter(triangles.length, title);
  for (const corners of triangles) triangle(...corners);
  return bytes;
}

/**
 * A bed as a closed solid, binary STL in mm, z up from the underside at 0. Corners of the surface lie at the cells'
 * centres, so that slopes are exact and an upright wall leans over one cell. Cells less than half inside the outline are left out.
 */
export function bedStl(
  { columns, rows, cellMm, heightMm, coverage }: BedGrid,
  { widthMm, lengthMm }: { widthMm: number; lengthMm: number },
  title: string,
): Uint8Array<ArrayBuffer> {
  // One row and column of corners more than cells: the outermost lie on the outline's box.
  const [across, up] = [columns + 2, rows + 2];
  const clampTo = (i: number, most: number): number => Math.max(0, Math.min(most, i - 1));
  // The cells at the far edges may reach past the piece.
  const place = (i: number, count: number, size: number): number =>
    i === 0 ? 0 : i === count + 1 ? size : Math.min(size, (i - 0.5) * cellMm);
  const cell = (i: number, j: number): number => clampTo(j, rows - 1) * columns + clampTo(i, columns - 1);
  const solid = (i: number, j: number): boolean => coverage[cell(i, j)]! >= (i >= columns || j >= rows ? 0.01 : 0.5);
  const inside = (i: number, j: number): boolean =>
    i >= 0 &&
    j >= 0 &&
    i < across - 1 &&
    j < up - 1 &&
    solid(i, j) &&
    solid(i + 1, j) &&
    solid(i, j + 1) &&
    solid(i + 1, j + 1);
  let quads = 0;
  let walls = 0;
  for (let j = 0; j < up - 1; j++) {
    for (let i = 0; i < across - 1; i++) {
      if (!inside(i, j)) continue;
      quads++;
      walls +=
        Number(!inside(i - 1, j)) + Number(!inside(i + 1, j)) + Number(!inside(i, j - 1)) + Number(!inside(i, j + 1));
    }
  }
  const { bytes, triangle } = stlWriter(quads * 4 + walls * 2, title);
  const corner = (i: number, j: number, base: boolean): Corner => [
    place(i, columns, widthMm),
    place(j, rows, lengthMm),
    base ? 0 : heightMm[cell(i, j)]!,
  ];
  const wall = (i0: number, j0: number, i1: number, j1: number): void => {
    triangle(corner(i0, j0, true), corner(i1, j1, true), corner(i1, j1, false));
    triangle(corner(i0, j0, true), corner(i1, j1, false), corner(i0, j0, false));
  };
  for (let j = 0; j < up - 1; j++) {
    for (let i = 0; i < across - 1; i++) {
      if (!inside(i, j)) continue;
      triangle(corner(i, j, false), corner(i + 1, j, false), corner(i + 1, j + 1, false));
      triangle(corner(i, j, false), corner(i + 1, j + 1, false), corner(i, j + 1, false));
      triangle(corner(i, j, true), corner(i + 1, j + 1, true), corner(i + 1, j, true));
      triangle(corner(i, j, true), corner(i, j + 1, true), corner(i + 1, j + 1, true));
      if (!inside(i, j - 1)) wall(i, j, i + 1, j);
      if (!inside(i + 1, j)) wall(i + 1, j, i + 1, j + 1);
      if (!inside(i, j + 1)) wall(i + 1, j + 1, i, j + 1);
      if (!inside(i - 1, j)) wall(i, j + 1, i, j);
    }
  }
  return bytes;
}
