import { advise, type Mend, type Problem } from '../checks/problem';
import type { ProblemCode } from '../checks/problemCodes';
import { formatMeasure } from '../units/formatMeasure';
import { channelCentreline } from './centreline';
import {
  cornerRadiusMm,
  edgeLengthMm,
  isInside,
  outlineEdges,
  outlinePolygon,
  outlineSides,
  outlineSize,
  selfCrossing,
} from './outline';
import {
  FEATURE_NAMES,
  WATER_KINDS,
  type EdgeName,
  type Feature,
  type FeatureKind,
  type FeatureOf,
  type PieceDesign,
  type Port,
} from './schema';
import { scanComplaint } from './scanHeights';
import { landOfScan } from './scanLand';
import { poolPolygon } from './shapers/waters';
import { landFrame } from './waterline';
import { floorHalfWidthMm } from './section';

const mm = (value: number): string => formatMeasure(value, 'length');
/** How far a mend brings the land over the level. */
export const LAND_OVER_LEVEL_MM = 3;
/** A floor thinner than this bends or lets the resin through in most bodies. */
export const THIN_FLOOR_MM = 2;

type FieldProblem = Omit<Problem, 'piece' | 'path'> & { field: string };

/**
 * What is wrong with a design before any water is poured: sizes that contradict each other, a bed through the
 * underside, a level over the land. Needs no grid. Every problem names its field and, where one follows, its mend.
 */
export function checkDesign(design: PieceDesign, levelMm: number): Problem[] {
  const problems: Problem[] = design.features.flatMap((feature, index) =>
    checkFeature(feature, index, design).map(({ field, ...problem }) => ({
      ...problem,
      path: ['features', index, ...field.split('.')],
    })),
  );
  if (levelMm > design.landMm) {
    problems.push({
      severity: 'stop',
      code: 'level-over-land',
      path: ['landMm'],
      message: `The level ${mm(levelMm)} stands over the land of ${design.tag}, which is ${mm(design.landMm)} high: water would cover the whole piece.`,
      mend: {
        label: `Raise the land to ${mm(levelMm + LAND_OVER_LEVEL_MM)}`,
        target: 'design',
        path: ['landMm'],
        value: levelMm + LAND_OVER_LEVEL_MM,
      },
    });
  }
  design.features.forEach((feature, index) => {
    const landMm = feature.kind === 'scan' ? landOfScan(feature) : null;
    if (landMm !== null && levelMm > landMm) problems.push(overScan(design, index, landMm, levelMm));
  });
  const top =
    design.landMm +
    design.features.reduce(
      (most, feature) =>
        feature.kind === 'plateau' || feature.kind === 'hill' ? Math.max(most, feature.heightMm) : most,
      0,
    );
  (design.poolLevels ?? []).forEach((mark, i) => {
    if (mark.levelMm > top)
      problems.push({
        severity: 'stop',
        code: 'level-over-land',
        path: ['poolLevels', i, 'levelMm'],
        message: `Level mark ${i + 1} of ${design.tag} stands at ${mm(mark.levelMm)}, over the highest land, ${mm(top)}.`,
        mend: {
          label: `Lower it to ${mm(top - 0.5)}`,
          target: 'design',
          path: ['poolLevels', i, 'levelMm'],
          value: top - 0.5,
        },
      });
  });
  problems.push(...checkOutline(design), ...checkGrain(design));
  if (!design.features.some(({ kind }) => WATER_KINDS.has(kind))) {
    problems.push({
      severity: 'warn',
      code: 'no-water',
      path: ['features'],
      message: `${design.tag} has no water yet. Add a channel, fork, shore, pool, ring or basin.`,
    });
  }
  return problems;
}

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

const checkFeature = <K extends FeatureKind>(
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

/** Above the land of a scan there is nothing that holds the water: a floor under it brings the land up. */
function overScan({ features, tag }: PieceDesign, index: number, landMm: number, levelMm: number): Problem {
  const { baseMm = 0 } = features[index] as FeatureOf<'scan'>;
  const floorMm = Math.round((baseMm + levelMm + LAND_OVER_LEVEL_MM - landMm) * 10) / 10;
  const path = ['features', index, 'baseMm'];
  return {
    severity: 'stop',
    code: 'level-over-land',
    path,
    message: `The level ${mm(levelMm)} stands ${mm(levelMm - landMm)} over the land of the scan of ${tag}, which lies at ${mm(landMm)}: water would stand on its banks.`,
    mend: { label: `Lay ${mm(floorMm)} of floor under the scan`, target: 'design', path, value: floorMm },
  };
}

function checkScan({ heights, columns, rows }: FeatureOf<'scan'>): FieldProblem[] {
  const complaint = scanComplaint(heights, columns * rows);
  return complaint ? [problem('scan-damaged', 'heights', `${complaint}.`)] : [];
}

function checkOutline({ outline, tag }: PieceDesign): Problem[] {
  if (outline.kind === 'rectangle' && (outline.cornerMm ?? 0) > cornerRadiusMm(outline)) {
    return [
      {
        severity: 'hint',
        code: 'corner-too-round',
        path: ['outline', 'cornerMm'],
        message: `Corners can be rounded to ${mm(cornerRadiusMm(outline))} at most, half the shorter side.`,
        mend: {
          label: `Round them to ${mm(cornerRadiusMm(outline))}`,
          target: 'design',
          path: ['outline', 'cornerMm'],
          value: cornerRadiusMm(outline),
        },
      },
    ];
  }
  const crossing = outline.kind === 'free' ? selfCrossing(outlinePolygon(outline), true) : null;
  return crossing
    ? [
        {
          severity: 'stop',
          code: 'outline-crosses',
          path: ['outline', 'points'],
          message: `The outline of ${tag} crosses itself ${mm(crossing.xMm)} across, ${mm(crossing.yMm)} up.`,
          mend: advise('Move or take out one of its corners.'),
        },
      ]
    : [];
}

/** Grains this coarse against the depth make the water’s volume a guess. */
function checkGrain({ grainMm = 0, features }: PieceDesign): Problem[] {
  const depths = features.flatMap((feature) =>
    WATER_KINDS.has(feature.kind) && 'depthMm' in feature ? [feature.depthMm] : [],
  );
  const deepest = Math.max(0, ...depths);
  return grainMm > 0 && deepest > 0 && grainMm > deepest / 2
    ? [
        {
          severity: 'warn',
          code: 'coarse-grain',
          path: ['grainMm'],
          message: `Grains of ${mm(grainMm)} fill much of water ${mm(deepest)} deep: the grams are a guess until a fill test.`,
          mend: advise('Measure a copy by a fill test, or use finer grit.'),
        },
      ]
    : [];
}
