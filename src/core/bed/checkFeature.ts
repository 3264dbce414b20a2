import { advise, type Mend, type Problem } from '../model/problem';
import type { ProblemCode } from '../model/problemCodes';
import { formatMeasure } from '../units/formatMeasure';
import { channelCentreline } from './centreline';
import {
  edgeLengthMm,
  isInside,
  outlineEdges,
  outlinePolygon,
  outlineSides,
  outlineSize,
  selfCrossing,
} from './outline';
import { scanComplaint } from './scanHeights';
import {
  FEATURE_NAMES,
  type EdgeName,
  type Feature,
  type FeatureKind,
  type FeatureOf,
  type PieceDesign,
  type Port,
} from '../model/designSchema';
import { floorHalfWidthMm } from './section';
import { poolPolygon } from './shapers/waters';
import { landFrame } from './waterline';

const mm = (value: number): string => formatMeasure(value, 'length');
/** A floor thinner than this bends or lets the resin through in most bodies. */
const THIN_FLOOR_MM = 2;

/** A problem of one feature, at one of its fields. */
export type FieldProblem = Omit<Problem, 'piece' | 'path'> & { field: string };

type Check<K extends FeatureKind> = (feature: FeatureOf<K>, index: number, design: PieceDesign) => FieldProblem[];

const CHECKS: { [K in FeatureKind]: Check<K> } = {
  channel: (channel, index, design) => [...checkFloor(channel, index, design), ...checkChannel(channel, index, design)],
  fork: (fork, index, design) => [...checkFloor(fork, index, design), ...checkFork(fork, index, design)],
  shore: (shore, index, design) => [...checkFloor(shore, index, design), ...checkShore(shore, design)],
  pool: (pool, index, design) => [...checkFloor(pool, index, design), ...checkPool(pool, index, design)],
  ring: (ring, index, design) => [
    ...checkFloor(ring, index, design),
    ...checkBanks(ring, ring.ringMm, index),
    ...(ring.ringMm * 2 >= Math.min(ring.widthMm, ring.lengthMm)
      ? [
          problem(
            'ring-too-broad',
            'ringMm',
            'The ring is so broad that nothing is left in its middle.',
            advise('Make it narrower, or use a pool.'),
          ),
        ]
      : []),
    ...checkInside(ring, design),
  ],
  basin: (basin, index, design) => [...checkFloor(basin, index, design), ...checkBasin(basin, index, design)],
  terrace: (terrace, index, design) => [
    ...checkFloor(terrace, index, design),
    ...(terrace.toMm > terrace.fromMm
      ? []
      : [
          problem(
            'terrace-empty',
            'toMm',
            `The terrace ends at ${mm(terrace.toMm)}, before it begins at ${mm(terrace.fromMm)}.`,
            setField(`Let it end at ${mm(terrace.fromMm + 10)}`, index, 'toMm', terrace.fromMm + 10),
          ),
        ]),
  ],
  hill: (hill, _, design) => checkInside(hill, design),
  plateau: (plateau, _, design) => checkInside(plateau, design),
  rock: (rock, _, design) => checkInside(rock, design),
  post: (post, _, design) => checkInside(post, design),
  stone: (stone, _, design) => checkInside(stone, design),
  log: (log, _, design) => checkInside(log, design),
  wreck: (wreck, _, design) => checkInside(wreck, design),
  debris: () => [],
  scan: (scan) => checkScan(scan),
};

/** What is wrong with one feature of a design, by its kind. */
export const checkFeature = <K extends FeatureKind>(
  feature: Feature & { kind: K },
  index: number,
  design: PieceDesign,
): FieldProblem[] => (CHECKS[feature.kind] as Check<K>)(feature as FeatureOf<K>, index, design);

const problem = (
  code: ProblemCode,
  field: string,
  message: string,
  mend?: Mend,
  severity: Problem['severity'] = 'stop',
): FieldProblem => ({ severity, code, field, message, ...(mend && { mend }) });

const setField = (label: string, index: number, field: string, value: number | string): Mend => ({
  label,
  target: 'design',
  path: ['features', index, ...field.split('.')],
  value,
});

function checkFloor(
  feature: Extract<Feature, { depthMm: number }>,
  index: number,
  design: PieceDesign,
): FieldProblem[] {
  const levelMm = (feature.kind === 'pool' && feature.atLevelMm) || design.drawnLevelMm;
  const floorMm = levelMm - feature.depthMm;
  const name = FEATURE_NAMES[feature.kind];
  if (floorMm <= 0) {
    const most = Math.max(0.5, levelMm - 3);
    return [
      problem(
        'through-underside',
        'depthMm',
        `${name} ${mm(feature.depthMm)} deep would come out through the underside: the level is only ${mm(levelMm)} above it.`,
        setField(`Make it ${mm(most)} deep`, index, 'depthMm', most),
      ),
    ];
  }
  if (floorMm < THIN_FLOOR_MM) {
    return [
      problem(
        'thin-floor',
        'depthMm',
        `Only ${mm(floorMm)} of floor is left under the ${name.toLowerCase()}. Thin floors bend and leak.`,
        advise('Use a thicker body, or back it with stiff sheet.'),
        'warn',
      ),
    ];
  }
  return [];
}

function checkBanks(feature: { depthMm: number; bankSlope: number }, widthMm: number, index: number): FieldProblem[] {
  if (floorHalfWidthMm({ ...feature, widthMm }) >= 0) return [];
  const most = widthMm / 2 / feature.bankSlope;
  return [
    problem(
      'banks-meet',
      'depthMm',
      `With banks of 1 in ${feature.bankSlope} the two sides meet ${mm(most)} below the level, before the bed is reached.`,
      setField(`Make it ${mm(most)} deep`, index, 'depthMm', most),
    ),
  ];
}

/** What is wrong with where water meets an edge: no such edge, too wide for it, past its end. */
function checkPort(
  port: Port,
  field: string,
  widthMm: number,
  widthField: string,
  index: number,
  { outline }: PieceDesign,
): FieldProblem[] {
  const { edge, positionMm } = port;
  const length = edgeLengthMm(outline, edge);
  if (length === 0)
    return [
      problem(
        'no-such-edge',
        `${field}.edge`,
        `The outline has no ${edge} edge any more.`,
        setField(`Let it meet the ${outlineEdges(outline)[0]} edge`, index, `${field}.edge`, outlineEdges(outline)[0]!),
      ),
    ];
  if (widthMm > length) {
    const most = length - 10 > 0 ? length - 10 : length;
    return [
      problem(
        'wider-than-edge',
        widthField,
        `The channel is ${mm(widthMm)} wide, the ${edge} edge only ${mm(length)}.`,
        setField(`Narrow it to ${mm(most)}`, index, widthField, most),
      ),
    ];
  }
  const half = widthMm / 2;
  if (positionMm - half >= -1e-9 && positionMm + half <= length + 1e-9) return [];
  const nearest = Math.min(length - half, Math.max(half, positionMm));
  return [
    problem(
      'port-outside-edge',
      `${field}.positionMm`,
      `The port at ${mm(positionMm)} reaches past the end of the ${edge} edge (${mm(length)}).`,
      setField(`Move it to ${mm(nearest)}`, index, `${field}.positionMm`, nearest),
    ),
  ];
}

function checkChannel(channel: FeatureOf<'channel'>, index: number, design: PieceDesign): FieldProblem[] {
  const { outline } = design;
  if (outlineEdges(outline).length === 0)
    return [
      problem(
        'no-edges',
        'from.edge',
        'An outline without straight sides has none for a channel to run between.',
        advise('Use a pool or a ring of water.'),
      ),
    ];
  const { via = [], endsInside = false } = channel;
  const found = checkPort(channel.from, 'from', channel.widthMm, 'widthMm', index, design);
  if (!endsInside) {
    const far = channel.toWidthMm ?? channel.widthMm;
    found.push(...checkPort(channel.to, 'to', far, channel.toWidthMm == null ? 'widthMm' : 'toWidthMm', index, design));
    if (channel.from.edge === channel.to.edge && via.length === 0)
      found.push(
        problem(
          'same-edge',
          'to.edge',
          'Both ends are on the same edge.',
          setOtherEdge(channel.from.edge, index, design),
        ),
      );
  }
  const outside = via.findIndex((point) => !isInside(outlinePolygon(outline), point));
  if (outside >= 0)
    found.push(
      problem(
        'point-outside',
        `via.${outside}.xMm`,
        `Point ${outside + 1} of the channel lies outside the piece.`,
        advise('Drag it back onto the piece, or take it out.'),
      ),
    );
  const crossing = found.length === 0 ? selfCrossing(channelCentreline(outline, channel, 0).line, false) : null;
  if (crossing)
    found.push(
      problem(
        'channel-crosses',
        'via',
        `The channel crosses itself ${mm(crossing.xMm)} across, ${mm(crossing.yMm)} up: water would short-cut the loop.`,
        advise('Move or take out one of its points; for two arms use a fork.'),
      ),
    );
  const deepFields = [channel, ...via, { widthMm: channel.toWidthMm ?? null, depthMm: channel.toDepthMm ?? null }];
  const deepest = Math.max(...deepFields.map(({ depthMm }) => depthMm ?? 0));
  if (deepest > channel.depthMm && deepest >= design.drawnLevelMm)
    found.push(
      problem(
        'through-underside',
        via.some(({ depthMm }) => depthMm === deepest) ? 'via' : 'toDepthMm',
        `The channel gets ${mm(deepest)} deep and would come out through the underside: the level is only ${mm(design.drawnLevelMm)} above it.`,
        advise('Make it shallower there.'),
      ),
    );
  return [...found, ...(channel.section === 'trapezoid' ? checkBanks(channel, channel.widthMm, index) : [])];
}

/** The mend for two ends on one edge: the side that faces it. */
function setOtherEdge(edge: EdgeName, index: number, { outline }: PieceDesign): Mend {
  const sides = outlineSides(outline);
  const [x, y] = sides.find((side) => side.edge === edge)?.inward ?? [0, 1];
  const across = sides
    .filter((side) => side.edge !== edge)
    .reduce((a, b) => (b.inward[0] * x + b.inward[1] * y < a.inward[0] * x + a.inward[1] * y ? b : a));
  return {
    label: `Let it run to the ${across.edge} edge`,
    target: 'design',
    path: ['features', index, 'to', 'edge'],
    value: across.edge,
  };
}

function checkFork(fork: FeatureOf<'fork'>, index: number, design: PieceDesign): FieldProblem[] {
  if (outlineEdges(design.outline).length < 2)
    return [
      problem(
        'no-edges',
        'stem.edge',
        'A fork needs straight sides for its ports.',
        advise('Use a pool or a ring of water.'),
      ),
    ];
  const ports = ['stem', 'left', 'right'] as const;
  const found = ports.flatMap((port) =>
    checkPort(
      fork[port],
      port,
      port === 'stem' ? fork.widthMm : fork.armWidthMm,
      port === 'stem' ? 'widthMm' : 'armWidthMm',
      index,
      design,
    ),
  );
  const apart = Math.abs(fork.left.positionMm - fork.right.positionMm);
  if (fork.left.edge === fork.right.edge && apart < fork.armWidthMm)
    found.push(
      problem(
        'same-edge',
        'right.edge',
        'Both arms leave the piece at one place.',
        advise('Drag one of them to another edge, or further along.'),
      ),
    );
  for (const arm of ['left', 'right'] as const)
    if (fork[arm].edge === fork.stem.edge)
      found.push(
        problem(
          'same-edge',
          `${arm}.edge`,
          'The stem and this arm are on the same edge.',
          advise('Drag the arm’s port to another edge.'),
        ),
      );
  return [
    ...found,
    ...checkInside(fork, design),
    ...(fork.section === 'trapezoid' ? checkBanks(fork, Math.min(fork.widthMm, fork.armWidthMm), index) : []),
  ];
}

function checkPool(pool: FeatureOf<'pool'>, index: number, design: PieceDesign): FieldProblem[] {
  if (pool.form === 'polygon') {
    if ((pool.corners?.length ?? 0) < 3)
      return [
        problem(
          'pool-corners',
          'corners',
          'A polygon pool needs at least three corners.',
          advise('Add corners, or make it an ellipse.'),
        ),
      ];
    const crossing = selfCrossing(poolPolygon({ ...pool, cornerMm: 0 }), true);
    return crossing
      ? [
          problem(
            'pool-crosses',
            'corners',
            `The pool’s bank crosses itself ${mm(crossing.xMm)} across, ${mm(crossing.yMm)} up.`,
            advise('Move or take out one of its corners.'),
          ),
        ]
      : checkInside(pool, design);
  }
  return [
    ...(pool.section === 'trapezoid' ? checkBanks(pool, Math.min(pool.widthMm, pool.lengthMm), index) : []),
    ...checkInside(pool, design),
  ];
}

function checkBasin(basin: FeatureOf<'basin'>, index: number, { outline }: PieceDesign): FieldProblem[] {
  const { widthMm, lengthMm } = outlineSize(outline);
  const most = Math.min(widthMm, lengthMm) / 2;
  if (basin.rimMm < most) return [];
  return [
    problem(
      'rim-too-wide',
      'rimMm',
      `A rim of ${mm(basin.rimMm)} leaves no water: half the piece is ${mm(most)}.`,
      setField(`Make the rim ${mm(most / 5)}`, index, 'rimMm', most / 5),
    ),
  ];
}

function checkShore(shore: FeatureOf<'shore'>, { outline }: PieceDesign): FieldProblem[] {
  const across = landFrame(outline, shore.landSide).acrossMm;
  const outside = (shore.line ?? []).findIndex(({ offMm }) => offMm < 0 || offMm > across);
  if (outside >= 0)
    return [
      problem(
        'point-outside',
        `line.${outside}.offMm`,
        `Point ${outside + 1} of the waterline lies outside the piece.`,
        advise('Drag it back onto the piece, or take it out.'),
      ),
    ];
  if (shore.waterlineMm < across) {
    const reach = across - shore.waterlineMm;
    const needed = shore.slope * shore.depthMm;
    if (needed <= reach || (shore.dropOffMm ?? Infinity) < reach) return [];
    return [
      problem(
        'deepest-not-reached',
        'depthMm',
        `At 1 in ${shore.slope} the bed is only ${mm(reach / shore.slope)} deep at the far edge, not ${mm(shore.depthMm)}.`,
        advise('Steepen the slope or move the waterline towards the land.'),
        'hint',
      ),
    ];
  }
  return [
    problem(
      'waterline-outside',
      'waterlineMm',
      `The waterline lies ${mm(shore.waterlineMm)} from the land side; the piece ends at ${mm(across)}.`,
      advise('Bring the waterline back onto the piece.'),
    ),
  ];
}

function checkInside(feature: { xMm: number; yMm: number }, { outline }: PieceDesign): FieldProblem[] {
  const { widthMm, lengthMm } = outlineSize(outline);
  // A hair outside is a place on the outline that rounding has moved.
  const nudged = {
    xMm: Math.min(widthMm - 1e-6, Math.max(1e-6, feature.xMm)),
    yMm: Math.min(lengthMm - 1e-6, Math.max(1e-6, feature.yMm)),
  };
  const near = Math.hypot(nudged.xMm - feature.xMm, nudged.yMm - feature.yMm) < 1e-3;
  return near && isInside(outlinePolygon(outline), nudged)
    ? []
    : [
        problem(
          'outside-piece',
          'xMm',
          'Its centre lies outside the piece.',
          advise(`Keep it between 0 and ${mm(widthMm)} across, 0 and ${mm(lengthMm)} up.`),
        ),
      ];
}

function checkScan({ heights, columns, rows }: FeatureOf<'scan'>): FieldProblem[] {
  const complaint = scanComplaint(heights, columns * rows);
  return complaint ? [problem('scan-damaged', 'heights', `${complaint}.`)] : [];
}
