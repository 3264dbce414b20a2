import { decode, encode, hasPngSignature } from 'fast-png';
import { sampleStep, type HeightField } from './heightField';
import type { BedGrid } from '../bed/grid';
import { MOST_SCAN_SAMPLES } from '../model/designSchema';
import { ScanError } from './stl';

/** A grey picture as shares of white, row by row from its top left. */
export interface GreyPicture {
  columns: number;
  rows: number;
  shares: Float32Array;
  bits: number;
  /** What the picture says of itself when Aguada wrote it. */
  scale: HeightScale | null;
}

/** What a picture's size and shades stand for. */
export interface HeightScale {
  widthMm: number;
  blackMm: number;
  whiteMm: number;
}

const SCALE_KEYS = { widthMm: 'width-mm', blackMm: 'black-mm', whiteMm: 'white-mm' } as const;
/** The largest picture that is read. */
const MOST_PIXELS = 40_000_000;
/** Where a PNG says how large it is. */
const IHDR_AT = 16;
const GREY_TOLERANCE = 2 / 255;

/**
 * Reads a grey PNG of 8 or 16 bits a pixel; with alpha, or in colours that are all grey, it will do too.
 * Throws a `ScanError` for what is no PNG, is damaged, too large, or not grey.
 */
export function readHeightMap(bytes: Uint8Array): GreyPicture {
  if (!hasPngSignature(bytes)) throw new ScanError('This is not a PNG picture.');
  refuseIfLarge(bytes);
  let picture: ReturnType<typeof decode>;
  try {
    picture = decode(bytes);
  } catch (error) {
    throw new ScanError(`The picture is damaged: ${error instanceof Error ? error.message : String(error)}.`);
  }
  const { width: columns, height: rows, channels, data, text } = picture;
  if (columns < 2 || rows < 2) throw new ScanError('The picture needs at least two pixels each way.');
  if (picture.palette || picture.depth < 8)
    throw new ScanError('The picture uses a palette or fewer than 8 bits a pixel. Save it as 8 or 16 bit grey.');
  const most = 2 ** picture.depth - 1;
  const shares = new Float32Array(columns * rows);
  for (let i = 0; i < shares.length; i++) {
    const grey = data[i * channels]! / most;
    if (
      channels >= 3 &&
      (Math.abs(data[i * channels + 1]! / most - grey) > GREY_TOLERANCE ||
        Math.abs(data[i * channels + 2]! / most - grey) > GREY_TOLERANCE)
    ) {
      throw new ScanError(
        `The picture is in colour (pixel ${(i % columns) + 1}, ${Math.floor(i / columns) + 1}). Save it as 8 or 16 bit grey: black the lowest, white the highest.`,
      );
    }
    shares[i] = grey;
  }
  return { columns, rows, shares, bits: picture.depth, scale: scaleOf(text) };
}

/** By what the picture says of itself first thing, before room is made for it. */
function refuseIfLarge(bytes: Uint8Array): void {
  if (bytes.length < IHDR_AT + 8) throw new ScanError('The picture is damaged: it ends before its size is said.');
  const view = new DataView(bytes.buffer, bytes.byteOffset);
  const [columns, rows] = [view.getUint32(IHDR_AT), view.getUint32(IHDR_AT + 4)];
  if (columns * rows > MOST_PIXELS) throw new ScanError(`${columns} × ${rows} pixels are too many; make it smaller.`);
}

function scaleOf(text: Record<string, string>): HeightScale | null {
  const [widthMm, blackMm, whiteMm] = [
    Number(text[SCALE_KEYS.widthMm]),
    Number(text[SCALE_KEYS.blackMm]),
    Number(text[SCALE_KEYS.whiteMm]),
  ];
  return widthMm > 0 && whiteMm > blackMm ? { widthMm, blackMm, whiteMm } : null;
}

/** A grey picture as heights, averaged over its pixels where there are more of them than a design may keep. */
export function pictureField(picture: GreyPicture, { widthMm, blackMm, whiteMm }: HeightScale): HeightField {
  const pixelMm = widthMm / picture.columns;
  const lengthMm = pixelMm * picture.rows;
  const many = picture.columns * picture.rows > MOST_SCAN_SAMPLES;
  const stepMm = many ? sampleStep(widthMm, lengthMm) : pixelMm;
  const [columns, rows] = many
    ? [Math.ceil(widthMm / stepMm - 1e-6), Math.ceil(lengthMm / stepMm - 1e-6)]
    : [picture.columns, picture.rows];
  const heightMm = new Float32Array(columns * rows);
  let highestMm = 0;
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      // Row 0 lies at the south: the picture's last rows.
      const fromX = Math.min(picture.columns - 1, Math.floor((column * stepMm) / pixelMm + 1e-6));
      const toX = Math.min(picture.columns, Math.max(fromX + 1, Math.round(((column + 1) * stepMm) / pixelMm)));
      const toY = Math.max(1, picture.rows - Math.floor((row * stepMm) / pixelMm + 1e-6));
      const fromY = Math.min(toY - 1, Math.max(0, picture.rows - Math.round(((row + 1) * stepMm) / pixelMm)));
      let sum = 0;
      for (let y = fromY; y < toY; y++)
        for (let x = fromX; x < toX; x++) sum += picture.shares[y * picture.columns + x]!;
      const height = Math.max(0, blackMm + (whiteMm - blackMm) * (sum / ((toX - fromX) * (toY - fromY))));
      heightMm[row * columns + column] = height;
      highestMm = Math.max(highestMm, height);
    }
  }
  return { columns, rows, stepMm, widthMm, lengthMm, heightMm, highestMm, holes: 0 };
}

/** A bed as a 16-bit grey PNG, north at the top, black at its lowest and white at its highest; its scale is written into it. */
export function bedPng({ columns, rows, cellMm, heightMm, coverage }: BedGrid): Uint8Array {
  let [lowest, highest] = [Infinity, -Infinity];
  for (let i = 0; i < heightMm.length; i++) {
    if (!(coverage[i]! > 0)) continue;
    lowest = Math.min(lowest, heightMm[i]!);
    highest = Math.max(highest, heightMm[i]!);
  }
  const range = Math.max(0.01, highest - lowest);
  const data = new Uint16Array(columns * rows);
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      const share = (heightMm[row * columns + column]! - lowest) / range;
      data[(rows - 1 - row) * columns + column] = Math.round(Math.max(0, Math.min(1, share)) * 65_535);
    }
  }
  const text = {
    [SCALE_KEYS.widthMm]: String(columns * cellMm),
    [SCALE_KEYS.blackMm]: String(lowest),
    [SCALE_KEYS.whiteMm]: String(lowest + range),
  };
  return encode({ width: columns, height: rows, data, depth: 16, channels: 1, text });
}
