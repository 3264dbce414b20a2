import { advise, type Problem } from '../model/problem';
import { formatMeasure } from '../units/formatMeasure';
import { checkFeature } from './checkFeature';
import { cornerRadiusMm, outlinePolygon, selfCrossing } from './outline';
import { landOfScan } from './scanLand';
import { WATER_KINDS, type FeatureOf, type Outline, type PieceDesign } from '../model/designSchema';

const mm = (value: number): string => formatMeasure(value, 'length');
/** How far a mend brings the land over the level. */
export const LAND_OVER_LEVEL_MM = 3;

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

type Check<O> = (outline: O, tag: string) => Problem[];

/** What each kind of outline is checked for; one that is left out does not compile. */
const OUTLINE_CHECKS: { [K in Outline['kind']]: Check<Extract<Outline, { kind: K }>> } = {
  rectangle(outline) {
    const most = cornerRadiusMm(outline);
    if ((outline.cornerMm ?? 0) <= most) return [];
    return [
      {
        severity: 'hint',
        code: 'corner-too-round',
        path: ['outline', 'cornerMm'],
        message: `Corners can be rounded to ${mm(most)} at most, half the shorter side.`,
        mend: { label: `Round them to ${mm(most)}`, target: 'design', path: ['outline', 'cornerMm'], value: most },
      },
    ];
  },
  oval: () => [],
  regular: () => [],
  free(outline, tag) {
    const crossing = selfCrossing(outlinePolygon(outline), true);
    if (!crossing) return [];
    return [
      {
        severity: 'stop',
        code: 'outline-crosses',
        path: ['outline', 'points'],
        message: `The outline of ${tag} crosses itself ${mm(crossing.xMm)} across, ${mm(crossing.yMm)} up.`,
        mend: advise('Move or take out one of its corners.'),
      },
    ];
  },
};

const checkOutline = ({ outline, tag }: PieceDesign): Problem[] =>
  (OUTLINE_CHECKS[outline.kind] as Check<Outline>)(outline, tag);

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
