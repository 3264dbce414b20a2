import { capillaryLengthMm, PINNED_DEGREES, puddleThicknessMm } from '../bed/meniscus';
import { outlineSize } from '../bed/outline';
import { CURE_MODELS } from '../cure/cureModels';
import { BODY_MATERIALS } from '../model/bodyMaterials';
import { BETWEEN_MM } from '../body/packing';
import { SAND_MINUTES_PER_100_MM } from '../body/twoStage';
import { DEBRIS_DENSITY } from '../body/weight';
import { formatMeasure, formatMinutes } from '../units/formatMeasure';
import type { Quantity } from '../units/quantities';
import { samePiece } from '../model/pieceRef';
import type { Explanation, PieceContext } from './explanation';
import type { PiecePlan } from './plan';
import { refOfPiece, type PlanPiece } from './request';

/** Figures of the body, its box and its mould, in the order in which they are shown. */
export const BODY_FIGURES = ['weight', 'height', 'bow', 'box', 'flat', 'rubber', 'cast', 'lift', 'twoStage'] as const;
export type BodyFigure = (typeof BODY_FIGURES)[number];

const teller =
  ({ prefs }: PieceContext) =>
  (label: string, value: number, quantity: Quantity, decimals?: number): { label: string; value: string } => ({
    label,
    value: formatMeasure(value, quantity, prefs, decimals),
  });
/** The piece as it stands in the request. */
const requested = (piece: PiecePlan, { request }: PieceContext): PlanPiece | undefined =>
  request.pieces.find((candidate) => samePiece(refOfPiece(candidate), piece));
const supposed = (piece: PiecePlan): string[] =>
  piece.body.stated
    ? []
    : [`The body is taken to be ${BODY_MATERIALS[piece.body.material].name.toLowerCase()} until you say.`];

export const BODY_EXPLAINERS: Record<BodyFigure, (piece: PiecePlan, context: PieceContext) => Explanation> = {
  weight: (piece, context) => {
    const tell = teller(context);
    const { body } = piece;
    return {
      title: 'Weight, finished',
      formula:
        'Body from its underside to its bed × density of the material, the cured water, loose debris, and extras.',
      inputs: [
        tell('Body', body.bodyMl, 'volume'),
        {
          label: BODY_MATERIALS[body.material].name,
          value: `${BODY_MATERIALS[body.material].densityGPerMl}\u00a0g/ml`,
        },
        tell('Body', body.bodyGrams, 'mass'),
        tell('Water, cured', body.waterGrams, 'mass'),
        tell(`Debris at ${DEBRIS_DENSITY}\u00a0g/ml`, body.debrisGrams, 'mass'),
        tell('Extras', body.extrasGrams, 'mass'),
      ],
      assumptions: [
        ...supposed(piece),
        'Rocks and other solids are of the body’s material.',
        'Densities are typical for the kind of material.',
      ],
      estimate: true,
    };
  },
  height: (piece, context) => ({
    title: 'Height',
    formula: 'The highest of the bed, its solids, and the level.',
    inputs: [teller(context)('Level', context.request.set.levelMm, 'length')],
    assumptions: ['Plants and buildings that are not drawn come on top.'],
    estimate: false,
  }),
  bow: (piece, context) => {
    const tell = teller(context);
    const { product } = context.request;
    return {
      title: 'May lift its ends by',
      formula:
        'Two bonded layers of which the upper shrinks (Timoshenko’s bimetal strip), over the length of a square as large as the water.',
      inputs: [
        tell('Water, mean depth', piece.water.meanDepthMm, 'length'),
        tell('Body beneath it', context.request.set.levelMm - piece.water.meanDepthMm, 'length'),
        tell('Over', piece.body.bowOverMm, 'length'),
        {
          label: 'Shrinkage that pulls',
          value: `${((product.shrinkage / 3) * CURE_MODELS[product.cureModel].stiffness.pulls * 100).toFixed(3)}\u00a0% in length`,
        },
        {
          label: 'Stiffness, water and body',
          value: `${CURE_MODELS[product.cureModel].stiffness.modulusGPa} and ${BODY_MATERIALS[piece.body.material].modulusGPa}\u00a0GPa`,
        },
      ],
      assumptions: [
        ...supposed(piece),
        'The piece lies free; a weight on it while it cures makes it less.',
        'A third of the shrinkage is taken in length, and only what comes after the water has gelled pulls. Good for comparing, not to a tenth.',
      ],
      estimate: true,
    };
  },
  box: (piece, context) => {
    const tell = teller(context);
    const box = context.request.bench.box;
    return {
      title: 'In a box',
      formula: `A block of pieces one way round beside a block the other way; layers lie flat with ${BETWEEN_MM}\u00a0mm between them.`,
      inputs: box
        ? [
            tell('Box, inside', box.widthMm, 'length', 0),
            tell('by', box.lengthMm, 'length', 0),
            tell('and high', box.heightMm, 'length', 0),
            tell('A piece is high', piece.body.heightMm, 'length'),
            { label: 'In a layer', value: String(piece.body.box?.perLayer ?? 0) },
            { label: 'Layers', value: String(piece.body.box?.layers ?? 0) },
          ]
        : [],
      assumptions: ['Round and many-sided pieces count as the rectangle round them.'],
      estimate: false,
    };
  },
  flat: (piece, context) => ({
    title: 'Flat, without a dam',
    formula: 'Area × the thickness of a puddle that a sharp edge holds, less a²·sin θ for each mm of its rim.',
    inputs: [
      teller(context)('Outline', piece.outlineCm2 * 100, 'area'),
      teller(context)('Thickest puddle', puddleThicknessMm(PINNED_DEGREES), 'length'),
      { label: 'Capillary length', value: `${capillaryLengthMm().toFixed(2)}\u00a0mm` },
      { label: 'Held at the edge up to', value: `${PINNED_DEGREES}°` },
    ],
    assumptions: [
      'A flat top of this outline, level, with a sharp, dry edge all round; a touch lets it go. Stay at two thirds of it.',
      'Liquid epoxy; thinner or soapy products hold less.',
    ],
    estimate: true,
  }),
  rubber: (piece, context) => {
    const tell = teller(context);
    const { mould } = piece;
    const design = requested(piece, context);
    return {
      title: 'Mould rubber',
      formula: 'The box inside, less the masters in it.',
      inputs:
        mould && design?.mould
          ? [
              tell('Box, inside', mould.boxWidthMm, 'length', 0),
              tell('by', mould.boxLengthMm, 'length', 0),
              tell('filled to', mould.boxHeightMm, 'length', 0),
              { label: 'Cavities', value: `${design.mould.cavities}, ${mould.columns} × ${mould.rows}` },
              tell('Each master takes up', mould.castMl, 'volume'),
              { label: 'Density', value: `${design.mould.rubberDensity}\u00a0g/ml` },
            ]
          : [],
      assumptions: [
        'The masters stand on the bottom of the box, their underside down; the rubber covers them by the floor.',
        'Nothing is lost in the cup; mix a twentieth more.',
      ],
      estimate: true,
    };
  },
  cast: (piece, context) => {
    const tell = teller(context);
    const size = outlineSize(requested(piece, context)?.outline ?? { kind: 'rectangle', widthMm: 1, lengthMm: 1 });
    return {
      title: 'To pour into a cavity',
      formula:
        'The master, and what the leaning sides add: perimeter × tan(draft) × height² ÷ 2 + π·tan² × height³ ÷ 3; ÷ (1 − shrinkage) × density.',
      inputs: piece.mould
        ? [
            tell('Across', size.widthMm, 'length'),
            tell('Draft adds', piece.mould.draftMl, 'volume'),
            tell('One cavity', piece.mould.castMl, 'volume'),
            { label: 'Density', value: `${context.plan.product.pouredDensity.toFixed(3)}\u00a0g/ml` },
          ]
        : [],
      assumptions: ['Exact for outlines without inward corners.'],
      estimate: true,
    };
  },
  lift: (piece, context) => ({
    title: 'Each master would float up by',
    formula: '(Density of the rubber − density of the master) × what it takes up.',
    inputs: piece.mould ? [teller(context)('A master takes up', piece.mould.castMl, 'volume')] : [],
    assumptions: ['Glue it to the bottom over its whole foot, or weight it: rubber that creeps under it lifts it.'],
    estimate: true,
  }),
  twoStage: (piece, context) => {
    const tell = teller(context);
    const two = piece.twoStage;
    return {
      title: 'Two fills inside the lip',
      formula:
        'The first fill stops a lip’s height below the level: it creeps up the wall to it. The second fills what is left inside the lip.',
      inputs: two
        ? [
            tell('Lip', two.lipMm, 'length', 2),
            tell('First fill', two.firstMl, 'volume'),
            tell('Second fill', two.secondMl, 'volume'),
            {
              label: 'Sanding after one fill, after two',
              value: `${formatMinutes(two.sandOnceMinutes)}, ${formatMinutes(two.sandTwiceMinutes)}`,
            },
            { label: 'A second mix', value: formatMinutes(two.secondFillMinutes) },
            { label: 'Waiting for the first', value: formatMinutes(two.waitMinutes) },
          ]
        : [],
      assumptions: [
        `Wet sanding takes ${SAND_MINUTES_PER_100_MM} minutes for each 100 mm of wall and 0.1 mm of lip: typical, until your log knows better.`,
        'Quicker counts your minutes at the bench, not the waiting.',
      ],
      estimate: true,
    };
  },
};
