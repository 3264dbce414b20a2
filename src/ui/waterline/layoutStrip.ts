import type { StripPiece } from '@/core/picture/strip';

/** A piece's place on the strip, in pixels. */
export interface StripSlot {
  piece: StripPiece;
  /** From 1; with one of each shown, always 1. */
  copy: number;
  leftPx: number;
  widthPx: number;
}

export interface StripLayout {
  slots: StripSlot[];
  pxPerMm: number;
  widthPx: number;
}

const GAP_PX = 7;
/** A tag must fit under the smallest base. */
const LEAST_SLOT_PX = 42;
const LEAST_PX_PER_MM = 0.3;

/** Places the pieces side by side at one scale that fills `widthPx`; wider than that only when they would become too small to read. */
export function layoutStrip(pieces: readonly StripPiece[], widthPx: number, everyPiece: boolean): StripLayout {
  const shown = pieces.flatMap((piece) =>
    Array.from({ length: everyPiece ? piece.copies : 1 }, (_, i) => ({ piece, copy: i + 1 })),
  );
  const slotPx = (lengthMm: number, scale: number): number => Math.max(LEAST_SLOT_PX, lengthMm * scale) + GAP_PX;
  const total = (scale: number): number =>
    shown.reduce((sum, { piece }) => sum + slotPx(piece.profile.lengthMm, scale), -GAP_PX);
  let [low, high] = [LEAST_PX_PER_MM, 1.4];
  if (total(low) < widthPx) {
    for (let i = 0; i < 40; i++) {
      const middle = (low + high) / 2;
      if (total(middle) <= widthPx) low = middle;
      else high = middle;
    }
  }
  let left = 0;
  const slots = shown.map(({ piece, copy }) => {
    const slot = slotPx(piece.profile.lengthMm, low) - GAP_PX;
    const drawn = piece.profile.lengthMm * low;
    const placed = { piece, copy, leftPx: left + (slot - drawn) / 2, widthPx: drawn };
    left += slot + GAP_PX;
    return placed;
  });
  return { slots, pxPerMm: low, widthPx: Math.max(0, left - GAP_PX) };
}

/** The bed of a slot as an SVG path, closed along the table line at `tablePx`. */
export function bodyPath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const { heightMm } = piece.profile;
  const step = widthPx / (heightMm.length - 1);
  let path = `M${leftPx.toFixed(1)} ${tablePx}`;
  heightMm.forEach(
    (height, i) => (path += `L${(leftPx + i * step).toFixed(1)} ${(tablePx - height * pxPerMmUp).toFixed(1)}`),
  );
  return `${path}L${(leftPx + widthPx).toFixed(1)} ${tablePx}Z`;
}

/** The surface at a sample of the cut. */
const surfaceAt = ({ surface: { leftMm, rightMm }, profile, overMm }: StripPiece, i: number): number =>
  leftMm + ((rightMm - leftMm) * i) / (profile.heightMm.length - 1) + (overMm?.[i] ?? 0);

/** Runs of samples that lie under water. */
function wetRuns(piece: StripPiece): [number, number][] {
  const runs: [number, number][] = [];
  piece.profile.heightMm.forEach((height, i) => {
    if (height >= surfaceAt(piece, i)) return;
    const last = runs.at(-1);
    if (last && last[1] === i - 1) last[1] = i;
    else runs.push([i, i]);
  });
  return runs;
}

/** The water of a slot as SVG paths, from the bed up to its surface. */
export function waterPath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const { heightMm } = piece.profile;
  const step = widthPx / (heightMm.length - 1);
  const point = (i: number, mm: number): string =>
    `${(leftPx + i * step).toFixed(1)} ${(tablePx - mm * pxPerMmUp).toFixed(1)}`;
  return wetRuns(piece)
    .map(([from, to]) => {
      const bed = Array.from({ length: to - from + 1 }, (_, k) => `L${point(from + k, heightMm[from + k]!)}`).join('');
      const before = Math.max(0, from - 1);
      const after = Math.min(heightMm.length - 1, to + 1);
      return `M${point(before, surfaceAt(piece, from))}${bed}L${point(after, surfaceAt(piece, to))}Z`;
    })
    .join('');
}

/** The water's surface where it is open, as SVG lines. */
export function surfacePath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const step = widthPx / (piece.profile.heightMm.length - 1);
  return wetRuns(piece)
    .map(
      ([from, to]) =>
        `M${(leftPx + from * step).toFixed(1)} ${(tablePx - surfaceAt(piece, from) * pxPerMmUp).toFixed(1)}L${(leftPx + to * step).toFixed(1)} ${(tablePx - surfaceAt(piece, to) * pxPerMmUp).toFixed(1)}`,
    )
    .join('');
}
