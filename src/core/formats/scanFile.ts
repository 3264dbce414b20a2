import { heightField, scanSize, type HeightField, type ScanView } from './heightField';
import { pictureField, readHeightMap, type GreyPicture, type HeightScale } from './heightMap';
import { readStl, ScanError, type Progress, type Triangles } from './stl';
import { readSvg, svgOutline, type SvgDrawing } from './svgOutline';
import type { Outline } from '../model/designSchema';

/** What an opened file is, before the maker has said how to take it. */
export type ScanSummary =
  | { kind: 'stl'; triangles: number; size: readonly [number, number, number] }
  | { kind: 'png'; columns: number; rows: number; bits: number; scale: HeightScale | null }
  | { kind: 'svg'; shapes: { name: string; widthUnits: number; lengthUnits: number }[]; mmPerUnit: number | null };

/** An opened file, ready to become a bed or an outline. */
export interface OpenScan {
  summary: ScanSummary;
  /** The heights of a scan or picture. Throws a `ScanError` when it is of another kind or does not fit. */
  field: (how: ScanView | HeightScale, progress?: Progress) => HeightField;
  outline: (shape: number, mmPerUnit: number) => Outline;
}

/** A file as the browser (or a test) hands it over. */
export interface ScanSource {
  name: string;
  size: number;
  chunks: () => AsyncIterable<Uint8Array>;
}

/** Pictures and drawings are read whole; a scan never is. */
const MOST_WHOLE_BYTES = 120_000_000;
const PNG_SIGNATURE = 0x89;

/**
 * Opens an STL scan, a grey PNG height map or an SVG drawing; which it is, its first bytes tell. Throws a `ScanError`
 * with what is wrong.
 */
export async function openScan(source: ScanSource, progress: Progress = () => undefined): Promise<OpenScan> {
  const start = await firstBytes(source);
  if (start[0] === PNG_SIGNATURE) return openPicture(await whole(source));
  const words = new TextDecoder().decode(start).trimStart();
  if (words.startsWith('<')) return openDrawing(new TextDecoder().decode(await whole(source)));
  return openStl(await readStl(source.chunks(), source.size, progress));
}

async function firstBytes({ chunks }: ScanSource): Promise<Uint8Array> {
  for await (const chunk of chunks()) return chunk.subarray(0, 200);
  throw new ScanError('The file is empty.');
}

async function whole({ chunks, size }: ScanSource): Promise<Uint8Array> {
  if (size > MOST_WHOLE_BYTES) throw new ScanError('This file is larger than 120 MB; make it smaller.');
  const bytes = new Uint8Array(size);
  let at = 0;
  for await (const chunk of chunks()) {
    bytes.set(chunk, at);
    at += chunk.length;
  }
  return bytes;
}

const noOutline = (): never => {
  throw new ScanError('This file holds heights, not an outline.');
};
const noField = (): never => {
  throw new ScanError('This file holds an outline, not heights.');
};

function openStl(triangles: Triangles): OpenScan {
  const field: OpenScan['field'] = (how, progress) => ('up' in how ? heightField(triangles, how, progress) : noField());
  return {
    summary: { kind: 'stl', triangles: triangles.length / 9, size: scanSize(triangles) },
    field,
    outline: noOutline,
  };
}

function openPicture(bytes: Uint8Array): OpenScan {
  const picture: GreyPicture = readHeightMap(bytes);
  const { columns, rows, bits, scale } = picture;
  return {
    summary: { kind: 'png', columns, rows, bits, scale },
    field: (how) => ('up' in how ? noField() : pictureField(picture, how)),
    outline: noOutline,
  };
}

function openDrawing(text: string): OpenScan {
  const drawing: SvgDrawing = readSvg(text);
  const shapes = drawing.shapes.map(({ name, widthUnits, lengthUnits }) => ({ name, widthUnits, lengthUnits }));
  const outline = (shape: number, mmPerUnit: number): Outline => {
    const found = drawing.shapes[shape];
    if (!found) throw new ScanError('The drawing has no such shape.');
    return svgOutline(found, mmPerUnit);
  };
  return { summary: { kind: 'svg', shapes, mmPerUnit: drawing.mmPerUnit }, field: noField, outline };
}
