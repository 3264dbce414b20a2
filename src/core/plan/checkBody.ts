import { CURE_MODELS } from '../cure/cureModels';
import { BODY_MATERIALS } from '../model/bodyMaterials';
import { aboutPiece, advise, type Problem } from '../model/problem';
import { formatMeasure } from '../units/formatMeasure';
import type { Amounts, PiecePlan } from './plan';
import type { AmountsRequest } from './request';

const mm = (value: number): string => formatMeasure(value, 'length');
/** A piece that lifts its ends by less lies flat enough on any table. */
const BOW_SHOWS_MM = 0.4;

/**
 * Whether the body of each piece bears its water: thin floors, cores that swell, bowing, masters that float. Only where
 * the maker has said what it is made of.
 */
export const checkBodies = (request: AmountsRequest, plan: Amounts): Problem[] =>
  plan.pieces.flatMap((piece, i) => {
    const { body } = request.pieces[i]!;
    return aboutPiece(piece, [
      ...(body ? [...checkFloor(piece), ...checkSwelling(piece, body.sealedBelow, request), ...checkBow(piece)] : []),
      ...checkLift(piece),
    ]);
  });

function checkFloor({ tag, body }: PiecePlan): Problem[] {
  const { name, thinFloorMm } = BODY_MATERIALS[body.material];
  if (!(body.floorMm > 0) || body.floorMm >= thinFloorMm) return [];
  return [
    {
      severity: 'warn',
      code: 'thin-floor-material',
      path: ['body', 'material'],
      message: `${mm(body.floorMm)} of ${name.toLowerCase()} under the water of ${tag} is thin: below ${mm(thinFloorMm)} it bends and leaks.`,
      mend: advise('Back it with stiff sheet, use a thicker core, or pour thinner layers.'),
    },
  ];
}

function checkSwelling({ tag, body }: PiecePlan, sealedBelow: boolean, { product }: AmountsRequest): Problem[] {
  const { name, absorbent } = BODY_MATERIALS[body.material];
  if (!absorbent || sealedBelow) return [];
  const { wet } = CURE_MODELS[product.cureModel];
  return [
    {
      severity: wet ? 'warn' : 'hint',
      code: 'swells',
      path: ['body', 'sealedBelow'],
      message: `${name} takes up water on one side${wet ? `, and ${product.name.toLowerCase()} is mostly water` : ' when it is painted and sealed'}: ${tag} may warp.`,
      mend: advise('Seal the underside like the top, and leave a weight on it while it dries.'),
    },
  ];
}

function checkBow({ tag, body }: PiecePlan): Problem[] {
  if (body.bowMm < BOW_SHOWS_MM) return [];
  return [
    {
      severity: 'hint',
      code: 'bows',
      path: ['body', 'material'],
      message: `As its water shrinks, ${tag} may lift its ends by about ${mm(body.bowMm)} over ${mm(body.bowOverMm)}.`,
      mend: advise('Pour it in thinner layers, and leave a weight on it until full cure.'),
    },
  ];
}

function checkLift({ tag, mould }: PiecePlan): Problem[] {
  if (!mould || mould.liftGrams < 0.5) return [];
  return [
    {
      severity: 'warn',
      code: 'master-floats',
      path: ['mould', 'masterMaterial'],
      message: `In liquid rubber the master of ${tag} floats up with ${formatMeasure(mould.liftGrams, 'mass')}.`,
      mend: advise('Glue its whole foot to the bottom of the box.'),
    },
  ];
}
