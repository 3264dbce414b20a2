import { buildBed } from '../src/core/bed/buildBed';
import { previewCellMm, MOST_CELLS, roundHeight } from '../src/core/bed/grid';
import type { BedGrid } from '../src/core/bed/grid';
import type { Outline, PieceDesign } from '../src/core/model/designSchema';
import { stripCut } from '../src/core/bed/stripCut';
import { levelForMl, volumeCurve, volumeMl } from '../src/core/bed/volumeCurve';
import { middleProfile, outlineProfiles } from '../src/core/bed/profile';
import { findPools } from '../src/core/bed/pools';
import { tiltedSurface } from '../src/core/bed/tilt';
import { damRuns } from '../src/core/bed/dams';
import { outlineSize } from '../src/core/bed/outline';
import { heightField } from '../src/core/formats/heightField';
import { bedStl, readStl } from '../src/core/formats/stl';
import { planBatch, surveyBed, type SurveyedBed } from '../src/core/plan';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { depthContours } from '../src/ui/plan/contours';
import { cureBench } from './cure';
import { flushBench } from './flush';
import { learnBench } from './learn';
import { logBench } from './log';
import { matchBench } from './match';
import { pourBench } from './pour';
import { medianMs, report, type Result } from './measure';
import { runBench } from './run';
import { sampleRequest } from './sample';
import { tintBench } from './tint';
import { webBench } from './web';

/** A bed of 1.5 million cells with hills and hollows everywhere: the worst that a piece may be. */
function largestBed(): BedGrid {
  const columns = 1500;
  const rows = MOST_CELLS / columns;
  const heightMm = new Float32Array(columns * rows);
  for (let i = 0; i < heightMm.length; i++)
    heightMm[i] =
      12 + 8 * Math.sin((i % columns) / 90) * Math.cos(Math.floor(i / columns) / 70) + ((i * 7919) % 512) / 512;
  return { cellMm: 0.5, columns, rows, heightMm, coverage: new Float32Array(columns * rows).fill(1) };
}

const bed = largestBed();
const pass = (): number =>
  medianMs(() => {
    let sum = 0;
    for (let i = 0; i < bed.heightMm.length; i++) sum += bed.heightMm[i]!;
    return sum;
  }, 25);
let passMs = pass();
const results: Result[] = [];
const against = (what: string, ms: number, limit: string, within: boolean): void =>
  void results.push({ what, ms, ratio: ms / passMs, limit, within });

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
const sandy: BedGrid = {
  ...bed,
  heightMm: bed.heightMm.map((_, i) =>
    roundHeight(
      12 +
        8 * Math.sin((i % bed.columns) / 90) * Math.cos(Math.floor(i / bed.columns) / 70) +
        (0.1 * ((i * 7919) % 512)) / 512,
    ),
  ),
};
// The machine's mood changes within a run: the yardstick is taken anew beside what is held to it.
passMs = pass();
const poolsMs = medianMs(
  () =>
    findPools(sandy, 13, {
      outline: { kind: 'rectangle', widthMm: 750, lengthMm: 500 },
      dammed: new Set(),
      damMarginMm: 3,
      damOverlapMm: 5,
    }),
  5,
);
against('pools and spill levels of 1.5 million cells', poolsMs, 'at most 80 ×', poolsMs <= 80 * passMs);
const tiltMs = medianMs(
  () => tiltedSurface(sandy, { kind: 'rectangle', widthMm: 750, lengthMm: 500 }, 900, { east: 0.004, north: -0.002 }),
  3,
);
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
for (const tag of ['HS-3', 'HS-5', 'SH-B', 'B-50']) {
  const design = HERON_SLACK_DESIGNS.find((candidate) => candidate.tag === tag)!;
  const ms = redraw(design);
  against(`preview of ${tag}, one movement`, ms, 'under one frame of 60', ms < FRAME_MS);
}

const big: Outline = { kind: 'rectangle', widthMm: 1220, lengthMm: 1220 };
const worst: PieceDesign = { ...HERON_SLACK_DESIGNS.find(({ tag }) => tag === 'SH-B')!, outline: big };
const fullMs = medianMs(() => surveyBed(worst), 5);
against('full survey of a 1220 mm board (in the worker)', fullMs, 'off the main thread', true);

// The whole answer after a feature of a board was let go: its bed built anew on the full grid, the other beds known.
const { pieces, ...rest } = sampleRequest();
const known = new Map<PieceDesign, SurveyedBed>(pieces.map((design) => [design, surveyBed(design)]));
const board = pieces.find(({ tag }) => tag === 'SH-B')!;
const ANSWER_MS = 400;
const answerMs = medianMs(() => {
  const moved = { ...board, features: [...board.features] };
  const moving = pieces.map((design) => (design === board ? moved : design));
  return planBatch({ ...rest, pieces: moving }, (design) => (design === moved ? surveyBed(moved) : known.get(design)!));
}, 5);
against(
  'the sample’s whole plan after a change to a 450 × 300 board',
  answerMs,
  'under 400 ms, or 100 ×',
  answerMs < Math.max(ANSWER_MS, 100 * passMs),
);

matchBench(against);
tintBench(against);
pourBench(against);

// A scan of a million triangles, read as it comes in; in both forms.
const scanned = HERON_SLACK_DESIGNS.find(({ tag }) => tag === 'HS-4')!;
const stl = bedStl(buildBed(scanned, 0.28), outlineSize(scanned.outline), 'bench');
const triangles = (stl.length - 84) / 50;
async function* inChunks(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  for (let i = 0; i < bytes.length; i += 65_536) yield bytes.subarray(i, i + 65_536);
}
const timed = async <T>(run: () => Promise<T>): Promise<{ ms: number; result: T }> => {
  const start = performance.now();
  const result = await run();
  return { ms: performance.now() - start, result };
};
const MOST_BYTES = 1e9;
const before = process.memoryUsage().rss;
let peak = before;
const watch = (): void => void (peak = Math.max(peak, process.memoryUsage().rss));
const binary = await timed(() => readStl(inChunks(stl), stl.length, watch));
watch();
against(
  `STL of ${triangles.toLocaleString('en')} triangles, ${Math.round(stl.length / 1e6)} MB binary`,
  binary.ms,
  'under 2000 ×',
  binary.ms < 2000 * passMs,
);
const fieldMs = medianMs(() => heightField(binary.result, { unitMm: 1, up: 'z', quarterTurns: 0 }), 3);
watch();
against('its height field', fieldMs, 'under 2000 ×', fieldMs < 2000 * passMs);
const encoder = new TextEncoder();
/** The same triangles as text, made while they are read: the file is never whole. */
async function* asText(): AsyncGenerator<Uint8Array> {
  yield encoder.encode('solid bench\n'.padEnd(100, ' ') + '\n');
  for (let i = 0; i < triangles; i += 500) {
    let text = '';
    for (let k = i; k < Math.min(triangles, i + 500); k++) {
      text += 'facet normal 0 0 0\nouter loop\n';
      for (let c = 0; c < 3; c++)
        text += `vertex ${binary.result[k * 9 + c * 3]!.toExponential(6)} ${binary.result[k * 9 + c * 3 + 1]!.toExponential(6)} ${binary.result[k * 9 + c * 3 + 2]!.toExponential(6)}\n`;
      text += 'endloop\nendfacet\n';
    }
    yield encoder.encode(text);
  }
  yield encoder.encode('endsolid bench\n');
}
const textBytes = triangles * 190;
const asWords = await timed(() => readStl(asText(), textBytes, watch));
watch();
if (asWords.result.length !== binary.result.length) throw new Error('The text STL lost triangles');
against(
  `the same as text, ${Math.round(textBytes / 1e6)} MB (writing it included)`,
  asWords.ms,
  'under 6000 ×',
  asWords.ms < 6000 * passMs,
);
const grown = (peak - before) / 1e6;
console.log(
  `memory while importing: ${Math.round(grown)} MB over ${Math.round(before / 1e6)} MB before, at most 1000 MB: ${peak < MOST_BYTES ? 'within' : 'OVER'}\n`,
);

const cure = cureBench();
console.log('the calendar');
for (const { what, measured, limit, within: ok } of cure)
  console.log(`  ${what}: ${measured}, at most ${limit}: ${ok ? 'within' : 'OVER'}`);
const within = report(passMs, results) && cure.every(({ within: ok }) => ok);
console.log('');
flushBench();
const log = logBench(passMs);
const learn = learnBench(passMs);
const bench = await runBench();
if (!(await webBench()) || !bench || !log || !learn || !within || peak >= MOST_BYTES) process.exitCode = 1;
