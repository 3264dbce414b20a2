import { advise, type Mend, type Problem } from '../checks/problem';
import { formatMeasure } from '../units/formatMeasure';
import { edgeLengthMm, outlineEdges } from './outline';
import { EDGE_NAMES, FEATURE_NAMES, type Feature, type FeatureOf, type PieceDesign } from './schema';
import { floorHalfWidthMm } from './section';

const mm = (value: number): string => formatMeasure(value, 'length');
/** A floor thinner than this bends or lets the resin through in most bodies. */
export const THIN_FLOOR_MM = 2;

type FieldProblem = Omit<Problem, 'tag' | 'path'> & { field: string };

/**
 * What is wrong with a design before any water is poured: sizes that contradict each other, a bed through the
 * underside, a level over the land. Needs no grid. Every problem names its field and, where one follows, its mend.
 */
export function checkDesign(design: PieceDesign, levelMm: number): Problem[] {
  const problems: Problem[] = design.features.flatMap((feature, index) =>
    checkFeature(feature, index, design).map(({ field, ...problem }) => ({ ...problem, tag: design.tag, path: ['features', index, ...field.split('.')] })),
  );
  if (levelMm > design.landMm) {
    problems.push({
      severity: 'stop', code: 'level-over-land', tag: design.tag, path: ['landMm'],
      message: `The level ${mm(levelMm)} stands over the land of ${design.tag}, which is ${mm(design.landMm)} high: water would cover the whole piece.`,
      mend: { label: `Raise the land to ${mm(levelMm + 3)}`, target: 'design', path: ['landMm'], value: levelMm + 3 },
    });
  }
  if (design.features.every((feature) => feature.kind === 'rock')) {
    problems.push({ severity: 'warn', code: 'no-water', tag: design.tag, path: ['features'], message: `${design.tag} has no water yet. Add a channel, shore, pool, ring or basin.` });
  }
  return problems;
}

function checkFeature(feature: Feature, index: number, design: PieceDesign): FieldProblem[] {
  if (feature.kind === 'rock') return checkRock(feature, design);
  const floor = checkFloor(feature, index, design);
  if (feature.kind === 'channel') return [...floor, ...checkChannel(feature, index, design)];
  if (feature.kind === 'basin') return [...floor, ...checkBasin(feature, index, design)];
  if (feature.kind === 'shore') return [...floor, ...checkShore(feature, design)];
  const banks = feature.kind === 'ring' || feature.section === 'trapezoid' ? checkBanks(feature, feature.kind === 'ring' ? feature.ringMm : Math.min(feature.widthMm, feature.lengthMm), index) : [];
  const ringTooBroad = feature.kind === 'ring' && feature.ringMm * 2 >= Math.min(feature.widthMm, feature.lengthMm)
    ? [problem('ring-too-broad', 'ringMm', 'The ring is so broad that nothing is left in its middle.', advise('Make it narrower, or use a pool.'))] : [];
  return [...floor, ...banks, ...ringTooBroad, ...checkInside(feature, design)];
}

const problem = (code: string, field: string, message: string, mend?: Mend, severity: Problem['severity'] = 'stop'): FieldProblem => ({ severity, code, field, message, ...(mend && { mend }) });

const setField = (label: string, index: number, field: string, value: number): Mend => ({ label, target: 'design', path: ['features', index, ...field.split('.')], value });

function checkFloor(feature: Exclude<Feature, { kind: 'rock' }>, index: number, design: PieceDesign): FieldProblem[] {
  const floorMm = design.drawnLevelMm - feature.depthMm;
  const name = FEATURE_NAMES[feature.kind];
  if (floorMm <= 0) {
    const most = Math.max(0.5, design.drawnLevelMm - 3);
    return [problem('through-underside', 'depthMm', `${name} ${mm(feature.depthMm)} deep would come out through the underside: the level is only ${mm(design.drawnLevelMm)} above it.`, setField(`Make it ${mm(most)} deep`, index, 'depthMm', most))];
  }
  if (floorMm < THIN_FLOOR_MM) {
    return [problem('thin-floor', 'depthMm', `Only ${mm(floorMm)} of floor is left under the ${name.toLowerCase()}. Thin floors bend and leak.`, advise('Use a thicker body, or back it with stiff sheet.'), 'warn')];
  }
  return [];
}

function checkBanks(feature: { depthMm: number; bankSlope: number }, widthMm: number, index: number): FieldProblem[] {
  if (floorHalfWidthMm({ ...feature, widthMm }) >= 0) return [];
  const most = widthMm / 2 / feature.bankSlope;
  return [problem('banks-meet', 'depthMm', `With banks of 1 in ${feature.bankSlope} the two sides meet ${mm(most)} below the level, before the bed is reached.`, setField(`Make it ${mm(most)} deep`, index, 'depthMm', most))];
}

function checkChannel(channel: FeatureOf<'channel'>, index: number, design: PieceDesign): FieldProblem[] {
  if (!outlineEdges(design.outline).length) return [problem('no-edges', 'from.edge', 'An oval has no edges for a channel to run between.', advise('Use a pool or a ring of water.'))];
  const found = (['from', 'to'] as const).flatMap((end) => {
    const { edge, positionMm } = channel[end];
    const length = edgeLengthMm(design.outline, edge);
    if (channel.widthMm > length) return [problem('wider-than-edge', 'widthMm', `The channel is ${mm(channel.widthMm)} wide, the ${edge} edge only ${mm(length)}.`, setField(`Narrow it to ${mm(length - 10 > 0 ? length - 10 : length)}`, index, 'widthMm', length - 10 > 0 ? length - 10 : length))];
    const half = channel.widthMm / 2;
    if (positionMm - half < -1e-9 || positionMm + half > length + 1e-9) {
      const nearest = Math.min(length - half, Math.max(half, positionMm));
      return [problem('port-outside-edge', `${end}.positionMm`, `The port at ${mm(positionMm)} reaches past the end of the ${edge} edge (${mm(length)}).`, setField(`Move it to ${mm(nearest)}`, index, `${end}.positionMm`, nearest))];
    }
    return [];
  });
  if (channel.from.edge === channel.to.edge) found.push(problem('same-edge', 'to.edge', 'Both ends are on the same edge.', setOtherEdge(channel, index)));
  const banks = channel.section === 'trapezoid' ? checkBanks(channel, channel.widthMm, index) : [];
  return [...found, ...banks];
}

function setOtherEdge(channel: FeatureOf<'channel'>, index: number): Mend {
  const facing = EDGE_NAMES[(EDGE_NAMES.indexOf(channel.from.edge) + 2) % 4]!;
  return { label: `Let it run to the ${facing} edge`, target: 'design', path: ['features', index, 'to', 'edge'], value: facing };
}

function checkBasin(basin: FeatureOf<'basin'>, index: number, { outline }: PieceDesign): FieldProblem[] {
  const most = Math.min(outline.widthMm, outline.lengthMm) / 2;
  if (basin.rimMm < most) return [];
  return [problem('rim-too-wide', 'rimMm', `A rim of ${mm(basin.rimMm)} leaves no water: half the piece is ${mm(most)}.`, setField(`Make the rim ${mm(most / 5)}`, index, 'rimMm', most / 5))];
}

function checkShore(shore: FeatureOf<'shore'>, { outline }: PieceDesign): FieldProblem[] {
  const across = shore.landSide === 'north' || shore.landSide === 'south' ? outline.lengthMm : outline.widthMm;
  if (shore.waterlineMm < across) {
    const reach = across - shore.waterlineMm;
    const needed = shore.slope * shore.depthMm;
    if (needed <= reach) return [];
    return [problem('deepest-not-reached', 'depthMm', `At 1 in ${shore.slope} the bed is only ${mm(reach / shore.slope)} deep at the far edge, not ${mm(shore.depthMm)}.`, advise('Steepen the slope or move the waterline towards the land.'), 'hint')];
  }
  return [problem('waterline-outside', 'waterlineMm', `The waterline lies ${mm(shore.waterlineMm)} from the land side; the piece ends at ${mm(across)}.`, advise('Bring the waterline back onto the piece.'))];
}

function checkInside(feature: { xMm: number; yMm: number }, { outline }: PieceDesign): FieldProblem[] {
  const inside = outline.kind === 'rectangle'
    ? feature.xMm >= 0 && feature.xMm <= outline.widthMm && feature.yMm >= 0 && feature.yMm <= outline.lengthMm
    : Math.hypot((2 * feature.xMm) / outline.widthMm - 1, (2 * feature.yMm) / outline.lengthMm - 1) <= 1;
  return inside ? [] : [problem('outside-piece', 'xMm', 'Its centre lies outside the piece.', advise(`Keep it between 0 and ${mm(outline.widthMm)} across, 0 and ${mm(outline.lengthMm)} up.`))];
}

const checkRock = (rock: FeatureOf<'rock'>, design: PieceDesign): FieldProblem[] => checkInside(rock, design);
