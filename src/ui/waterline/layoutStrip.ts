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

/** How far off a point may lie from the line between its neighbours to be left out, px: less than a screen shows. */
const STRAIGHT_PX = 0.12;

/** The points of a run of equally spaced heights, without those that lie on the line between the last kept one and the next. */
function corners(from: number, to: number, x: (i: number) => number, y: (i: number) => number): string[] {
  const kept = [from];
  for (let i = from + 1; i < to; i++) {
    const last = kept.at(-1)!;
    const onLine = (k: number): boolean =>
      Math.abs(y(last) + ((y(i + 1) - y(last)) * (k - last)) / (i + 1 - last) - y(k)) <= STRAIGHT_PX;
    let straight = true;
    for (let k = last + 1; k <= i && straight; k++) straight = onLine(k);
    if (!straight) kept.push(i);
  }
  if (to > from) kept.push(to);
  return kept.map((i) => `${Number(x(i).toFixed(1))} ${Number(y(i).toFixed(1))}`);
}

/** The bed of a slot as an SVG path, closed along the table line at `tablePx`. */
export function bodyPath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const { heightMm } = piece.profile;
  const step = widthPx / (heightMm.length - 1);
  const top = corners(
    0,
    heightMm.length - 1,
    (i) => leftPx + i * step,
    (i) => tablePx - heightMm[i]! * pxPerMmUp,
  );
  return `M${leftPx.toFixed(1)} ${tablePx}L${top.join('L')}L${(leftPx + widthPx).toFixed(1)} ${tablePx}Z`;
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
      const bed = corners(
        from,
        to,
        (i) => leftPx + i * step,
        (i) => tablePx - heightMm[i]! * pxPerMmUp,
      );
      const before = Math.max(0, from - 1);
      const after = Math.min(heightMm.length - 1, to + 1);
      return `M${point(before, surfaceAt(piece, from))}L${bed.join('L')}L${point(after, surfaceAt(piece, to))}Z`;
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
