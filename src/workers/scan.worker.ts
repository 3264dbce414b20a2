import { expose, transfer } from 'comlink';
import { buildBed } from '../core/bed/buildBed';
import { cellFor } from '../core/bed/grid';
import { outlineSize } from '../core/bed/outline';
import type { Outline, PieceDesign } from '../core/model/designSchema';
import type { HeightField, ScanView } from '../core/formats/heightField';
import { bedPng, type HeightScale } from '../core/formats/heightMap';
import { openScan, type OpenScan, type ScanSummary } from '../core/formats/scanFile';
import { bedStl } from '../core/formats/stl';

let open: OpenScan | null = null;

/** The bytes of a file as they come in. Safari's streams cannot be iterated, so they are read by hand. */
async function* chunksOf(file: Blob): AsyncGenerator<Uint8Array> {
  const reader = file.stream().getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    yield value;
  }
}

const opened = (): OpenScan => {
  if (!open) throw new Error('No file is open');
  return open;
};

/** Cells of an exported solid: fine enough that upright banks keep the water within 0.5 %. */
const EXPORT_CELLS = 250_000;

/** What the worker does for the page: files in and out. It is ended to stop it. */
export const scanner = {
  open: async (file: File, progress: (share: number) => void): Promise<ScanSummary> => {
    open = await openScan({ name: file.name, size: file.size, chunks: () => chunksOf(file) }, progress);
    return open.summary;
  },
  field: (how: ScanView | HeightScale): HeightField => {
    const field = opened().field(how);
    return transfer(field, [field.heightMm.buffer as ArrayBuffer]);
  },
  outline: (shape: number, mmPerUnit: number): Outline => opened().outline(shape, mmPerUnit),
  stl: (design: PieceDesign): Uint8Array<ArrayBuffer> => {
    const bytes = bedStl(
      buildBed(design, cellFor(design.outline, EXPORT_CELLS)),
      outlineSize(design.outline),
      `${design.tag} ${design.name}`,
    );
    return transfer(bytes, [bytes.buffer]);
  },
  png: (design: PieceDesign): Uint8Array => bedPng(buildBed(design, cellFor(design.outline, EXPORT_CELLS))),
};
export type Scanner = typeof scanner;

expose(scanner);
