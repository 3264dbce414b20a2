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

/** A length for a picture: to a tenth of a pixel, as no screen shows more. */
export const px = (value: number, digits = 1): number => Number(value.toFixed(digits));

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
  return kept.map((i) => `${px(x(i))} ${px(y(i))}`);
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
  return `M${px(leftPx)} ${tablePx}L${top.join('L')}L${px(leftPx + widthPx)} ${tablePx}Z`;
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

/**
 * The water of a slot as SVG paths: from its surface straight down to its deepest place. The body is drawn over it, its
 * upper edge is the bed.
 */
export function waterPath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const { heightMm } = piece.profile;
  const step = widthPx / (heightMm.length - 1);
  const y = (mm: number): number => px(tablePx - mm * pxPerMmUp);
  return wetRuns(piece)
    .map(([from, to]) => {
      const lowest = y(heightMm.slice(from, to + 1).reduce((a, b) => Math.min(a, b)));
      const left = px(leftPx + Math.max(0, from - 1) * step);
      const right = px(leftPx + Math.min(heightMm.length - 1, to + 1) * step);
      return `M${left} ${lowest}V${y(surfaceAt(piece, from))}L${right} ${y(surfaceAt(piece, to))}V${lowest}Z`;
    })
    .join('');
}

/** The bed of a stretch of the cut, mm along it, as points from its left end to its right. */
function stretchOfBed(
  { leftPx, widthPx, piece: { profile } }: StripSlot,
  [fromMm, toMm]: readonly [number, number],
  tablePx: number,
  pxPerMmUp: number,
): string[] {
  const last = profile.heightMm.length - 1;
  const at = (mm: number): number => (mm / profile.lengthMm) * last;
  const inner = Array.from({ length: last + 1 }, (_, i) => i).filter((i) => i > at(fromMm) && i < at(toMm));
  return [at(fromMm), ...inner, at(toMm)].map((i) => {
    const before = Math.min(last, Math.floor(i));
    const [a, b] = [profile.heightMm[before]!, profile.heightMm[Math.min(last, before + 1)]!];
    return `${px(leftPx + (widthPx * i) / last)} ${px(tablePx - (a + (b - a) * (i - before)) * pxPerMmUp)}`;
  });
}

/** The faces of rocks along a slot's bed, as SVG lines: what a rock's own paint is seen on. */
export const rockPath = (slot: StripSlot, tablePx: number, pxPerMmUp: number): string =>
  slot.piece.rocks.map((stretch) => `M${stretchOfBed(slot, stretch, tablePx, pxPerMmUp).join('L')}`).join('');

/** The water over rocks, as SVG paths: from the surface down to the rock. */
export function rockWaterPath(slot: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const { leftPx, widthPx, piece } = slot;
  const { lengthMm, heightMm } = piece.profile;
  const last = heightMm.length - 1;
  return piece.rocks
    .flatMap(([from, to]) => {
      const middle = Math.round((((from + to) / 2) * last) / lengthMm);
      const surface = surfaceAt(piece, middle);
      const near = heightMm.slice(Math.floor((from / lengthMm) * last), Math.ceil((to / lengthMm) * last) + 1);
      const lowest = Math.min(...near);
      if (lowest >= surface) return [];
      const x = (mm: number): number => px(leftPx + (mm / lengthMm) * widthPx);
      const y = (mm: number): number => px(tablePx - mm * pxPerMmUp);
      return `M${x(from)} ${y(lowest)}V${y(surface)}H${x(to)}V${y(lowest)}Z`;
    })
    .join('');
}

/** The water's surface where it is open, as SVG lines. */
export function surfacePath({ leftPx, widthPx, piece }: StripSlot, tablePx: number, pxPerMmUp: number): string {
  const step = widthPx / (piece.profile.heightMm.length - 1);
  return wetRuns(piece)
    .map(
      ([from, to]) =>
        `M${px(leftPx + from * step)} ${px(tablePx - surfaceAt(piece, from) * pxPerMmUp)}L${px(leftPx + to * step)} ${px(tablePx - surfaceAt(piece, to) * pxPerMmUp)}`,
    )
    .join('');
}
