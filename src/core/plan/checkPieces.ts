import { DAM_MARGIN_MM, DAM_OVERLAP_MM, DEFAULT_DAM, type DamRun } from '../bed/dams';
import { debrisMl } from '../bed/features';
import { DAM_FACTS } from '../model/damMethods';
import { capillaryLengthMm, PINNED_DEGREES, puddleThicknessMm } from '../bed/meniscus';
import { aboutPiece, advise, type Problem } from '../model/problem';
import { formatMeasure } from '../units/formatMeasure';
import type { Amounts, PiecePlan, PoolPlan } from './plan';
import type { AmountsRequest } from './request';
import { setsInTheCup } from '../model/productSchema';

const mm = (value: number): string => formatMeasure(value, 'length');
const edgeWords = (edge: DamRun['edge']): string => (edge === 'rim' ? 'rim' : `${edge} edge`);
/** A pool that could rise no more than this before it runs over is too close to its brim for a shaky hand. */
const LEAST_BRIM_MM = 0.5;
/** Products poured faster than this are thin enough to find every gap. */
const THIN_GRAMS_PER_MINUTE = 55;

/** Whether the water of each piece stays where it is poured: open edges, low banks, dams that are not up to it, a tilted bench. */
export const checkPieces = (request: AmountsRequest, plan: Amounts): Problem[] =>
  plan.pieces.flatMap((piece, i) =>
    aboutPiece(piece, [
      ...piece.dams.flatMap((dam) =>
        dam.method === 'none' ? checkOpenEdge(piece, dam) : checkDam(piece, dam, request),
      ),
      ...piece.pools.flatMap((pool) => checkBrim(piece, pool)),
      ...checkTilt(piece),
      ...checkLevels(piece),
      ...checkDebris(piece, debrisMl(request.pieces[i]!)),
    ]),
  );

function checkOpenEdge({ tag }: PiecePlan, { edge, lengthMm, lowestBedMm, stripMm, topMm }: DamRun): Problem[] {
  const deep = topMm - DAM_MARGIN_MM - lowestBedMm;
  const most = puddleThicknessMm(PINNED_DEGREES);
  const mend = {
    label: `Dam the ${edgeWords(edge)}, ${Math.ceil(stripMm)} × ${Math.ceil(topMm)}\u00a0mm`,
    target: 'design' as const,
    path: ['dams', edge],
    value: DEFAULT_DAM,
  };
  if (deep > most) {
    return [
      {
        severity: 'stop',
        code: 'runs-out',
        path: ['dams', edge],
        message: `Water would run out at the ${edgeWords(edge)} of ${tag}: the bed lies ${mm(deep)} below the level there, over ${mm(lengthMm)}.`,
        mend,
      },
    ];
  }
  return [
    {
      severity: 'warn',
      code: 'surface-tension',
      path: ['dams', edge],
      message: `Only surface tension holds the water at the ${edgeWords(edge)} of ${tag}: ${mm(deep)} of at most ${mm(most)}, √2 of the ${mm(capillaryLengthMm())} that the surface tension of liquid epoxy carries (an estimate). A touch lets it go.`,
      mend,
    },
  ];
}

function checkDam({ tag }: PiecePlan, { edge, method, lengthMm }: DamRun, { product }: AmountsRequest): Problem[] {
  const facts = DAM_FACTS[method];
  const problems: Problem[] = [];
  if (lengthMm > facts.longestMm) {
    problems.push({
      severity: 'warn',
      code: 'dam-too-long',
      path: ['dams', edge],
      message: `${method[0]!.toUpperCase()}${method.slice(1)} bows over ${mm(lengthMm)} at the ${edgeWords(edge)} of ${tag}.`,
      mend: { label: 'Use a faced board there', target: 'design', path: ['dams', edge], value: 'faced board' },
    });
  }
  if (
    setsInTheCup(product.cureModel) &&
    product.pourGramsPerMinute >= THIN_GRAMS_PER_MINUTE &&
    (method === 'tape' || method === 'plastic strip')
  ) {
    problems.push({
      severity: 'hint',
      code: 'thin-product',
      path: ['dams', edge],
      message: `${product.name} is thin and stays liquid for hours: one barrier at the ${edgeWords(edge)} of ${tag} is not enough.`,
      mend: advise(
        'A second strip behind the first, sealed on its own, and a look every ten minutes in the first hour.',
      ),
    });
  }
  return problems;
}

function checkBrim({ tag, pools }: PiecePlan, pool: PoolPlan): Problem[] {
  const { spill, levelMm } = pool;
  if (!spill || spill.over === 'dam') return [];
  const brim = spill.levelMm - levelMm;
  const which = pools.length > 1 ? `${pool.name} of ${tag}` : `The water of ${tag}`;
  const where =
    spill.over === 'pool'
      ? `into ${spill.into ?? 'the next pool'}`
      : spill.edge
        ? `over the ${spill.edge === 'rim' ? 'rim' : `${spill.edge} edge`}`
        : 'over the land';
  // An open edge is told with its dam, water run together with its saddle.
  if (brim < 0) return [];
  if (brim >= LEAST_BRIM_MM) return [];
  const past =
    spill.edge && spill.over === 'edge' ? `over the bank at the ${edgeWords(spill.edge)}, past the dam’s end` : where;
  return [
    {
      severity: 'warn',
      code: 'near-brim',
      path: ['landMm'],
      message: `${which} stands ${mm(brim)} below running ${past}.`,
      mend: spill.edge
        ? advise(`Make the dam there longer than its ${DAM_OVERLAP_MM}\u00a0mm of overlap, or lower the level.`)
        : advise('Raise the land or lower the level.'),
    },
  ];
}

/** Marks that stand on dry land, hollows that hang together but were given two levels, and water that has run over a saddle. */
function checkLevels({ tag, ownLevels }: PiecePlan): Problem[] {
  return [
    ...ownLevels.mergers.map(({ mark, saddleMm, xMm, yMm }): Problem => {
      // Heights are kept in small steps: what is a hair under a tenth is that tenth.
      const safe = Math.floor((saddleMm - LEAST_BRIM_MM) * 10 + 0.05) / 10;
      return {
        severity: 'warn',
        code: 'overflows',
        path: ['poolLevels', mark, 'levelMm'],
        message: `At level mark ${mark + 1} of ${tag} water runs over the saddle ${mm(xMm)} across, ${mm(yMm)} up, which is ${mm(saddleMm)} high: two pools stand at one level.`,
        mend: {
          label: `Lower it to ${mm(safe)}`,
          target: 'design',
          path: ['poolLevels', mark, 'levelMm'],
          value: safe,
        },
      };
    }),
    ...ownLevels.dry.map((mark): Problem => ({
      severity: 'warn',
      code: 'level-on-land',
      path: ['poolLevels', mark, 'levelMm'],
      message: `Level mark ${mark + 1} of ${tag} stands on land: there is no pool below its level.`,
      mend: advise('Drag it into the pool, or raise its level.'),
    })),
    ...ownLevels.joined.map(([a, b]): Problem => ({
      severity: 'stop',
      code: 'levels-join',
      path: ['poolLevels', b, 'levelMm'],
      message: `Level marks ${a + 1} and ${b + 1} of ${tag} lie in one hollow: its water cannot stand at two levels.`,
      mend: advise('Raise the land between them, or take one mark out.'),
    })),
  ];
}

function checkTilt({ tag, tilt }: PiecePlan): Problem[] {
  const raise = tilt?.raise.filter(({ raiseMm }) => raiseMm > 0.05).sort((a, b) => b.raiseMm - a.raiseMm)[0];
  if (!tilt || !raise) return [];
  const spill = tilt.spills[0];
  const shim = `Raise the ${raise.corner} corner by ${mm(raise.raiseMm)}, or level the bench.`;
  if (spill)
    return [
      {
        severity: 'stop',
        code: 'tilt-spill',
        path: ['tilt'],
        message: `On this bench the water of ${tag} runs over its ${spill.edge} edge, ${mm(spill.atMm)} along it.`,
        mend: advise(shim),
      },
    ];
  const worst = Math.max(...tilt.edges.map(({ errorMm }) => Math.abs(errorMm)), 0);
  return worst < 0.2
    ? []
    : [
        {
          severity: 'warn',
          code: 'tilt',
          path: ['tilt'],
          message: `On this bench the water of ${tag} stands up to ${mm(worst)} off the level at its edges.`,
          mend: advise(shim),
        },
      ];
}

/** Debris that takes up all the room leaves nothing to pour. */
function checkDebris({ tag, water }: PiecePlan, loose: number): Problem[] {
  return loose > 0 && water.volumeMl === 0
    ? [
        {
          severity: 'stop',
          code: 'debris-over-water',
          path: ['features'],
          message: `The loose debris of ${tag} takes up ${formatMeasure(loose, 'volume')}: more room than its water has.`,
          mend: advise('Use less debris, or raise the level.'),
        },
      ]
    : [];
}
