import { buildBed } from '../src/core/bed/buildBed';
import { previewCellMm, MOST_CELLS, roundHeight } from '../src/core/bed/grid';
import type { BedGrid } from '../src/core/bed/grid';
import type { Outline, PieceDesign } from '../src/core/bed/schema';
import { stripCut } from '../src/core/bed/stripCut';
import { levelForMl, volumeCurve, volumeMl } from '../src/core/bed/volumeCurve';
import { middleProfile, outlineProfiles } from '../src/core/bed/profile';
import { findPools } from '../src/core/bed/pools';
import { tiltedSurface } from '../src/core/bed/tilt';
import { damRuns } from '../src/core/bed/dams';
import { surveyBed } from '../src/core/plan';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { depthContours } from '../src/ui/plan/contours';
import { medianMs, report, type Result } from './measure';

/** A bed of 1.5 million cells with hills and hollows everywhere: the worst that a piece may be. */
function largestBed(): BedGrid {
  const columns = 1500;
  const rows = MOST_CELLS / columns;
  const heightMm = new Float32Array(columns * rows);
  for (let i = 0; i < heightMm.length; i++) heightMm[i] = 12 + 8 * Math.sin((i % columns) / 90) * Math.cos(Math.floor(i / columns) / 70) + ((i * 7919) % 512) / 512;
  return { cellMm: 0.5, columns, rows, heightMm, coverage: new Float32Array(columns * rows).fill(1) };
}

const bed = largestBed();
const passMs = medianMs(() => {
  let sum = 0;
  for (let i = 0; i < bed.heightMm.length; i++) sum += bed.heightMm[i]!;
  return sum;
}, 25);
const results: Result[] = [];
const against = (what: string, ms: number, limit: string, within: boolean): void => void results.push({ what, ms, ratio: ms / passMs, limit, within });

const curveMs = medianMs(() => volumeCurve(bed), 15);
against('volume curve of 1.5 million cells', curveMs, 'at most 15 ×', curveMs <= 15 * passMs);

const curve = volumeCurve(bed);
const QUERIES = 100_000;
const perQuery = (query: (i: number) => number): number =>
  medianMs(() => {
    let sum = 0;
    for (let i = 0; i < QUERIES; i++) sum += query(i);
    return sum;
  }) / QUERIES;
const levelMs = perQuery((i) => volumeMl(curve, 4 + (i % 1000) / 60));
against('volume at a level', levelMs, 'under pass/1000 or 20 µs', levelMs < Math.max(passMs / 1000, 0.02));
const inverseMs = perQuery((i) => levelForMl(curve, i / 20));
against('level for a volume', inverseMs, 'under pass/1000 or 20 µs', inverseMs < Math.max(passMs / 1000, 0.02));

/** Hills and hollows with the roughness of sand: a bed as a scan would give it. */
const sandy: BedGrid = { ...bed, heightMm: bed.heightMm.map((_, i) => roundHeight(12 + 8 * Math.sin((i % bed.columns) / 90) * Math.cos(Math.floor(i / bed.columns) / 70) + (0.1 * ((i * 7919) % 512)) / 512)) };
const poolsMs = medianMs(() => findPools(sandy, 13, { outline: { kind: 'rectangle', widthMm: 750, lengthMm: 500 }, dammed: new Set(), damMarginMm: 3, damOverlapMm: 5 }), 5);
against('pools and spill levels of 1.5 million cells', poolsMs, 'at most 80 ×', poolsMs <= 80 * passMs);
const tiltMs = medianMs(() => tiltedSurface(sandy, { kind: 'rectangle', widthMm: 750, lengthMm: 500 }, 900, { east: 0.004, north: -0.002 }), 3);
against('tilted surface of 1.5 million cells', tiltMs, 'off the main thread', true);

// What one movement of a slider or handle costs on the preview grid: bed, cut, dams and contours of the piece that moves.
const FRAME_MS = 1000 / 60;
const redraw = (design: PieceDesign): number =>
  medianMs(() => {
    const grid = buildBed(design, previewCellMm(design.outline));
    const profiles = outlineProfiles(grid, design.outline);
    damRuns(profiles, 15);
    depthContours(grid, 15, 7, 3);
    return stripCut(profiles, middleProfile(grid, design.outline), 15);
  });
for (const tag of ['HS-3', 'SH-B', 'B-50']) {
  const design = HERON_SLACK_DESIGNS.find((candidate) => candidate.tag === tag)!;
  const ms = redraw(design);
  against(`preview of ${tag}, one movement`, ms, 'under one frame of 60', ms < FRAME_MS);
}

const big: Outline = { kind: 'rectangle', widthMm: 1220, lengthMm: 1220 };
const worst: PieceDesign = { ...HERON_SLACK_DESIGNS.find(({ tag }) => tag === 'SH-B')!, outline: big };
const fullMs = medianMs(() => surveyBed(worst), 5);
against('full survey of a 1220 mm board (in the worker)', fullMs, 'off the main thread', true);

if (!report(passMs, results)) process.exitCode = 1;
