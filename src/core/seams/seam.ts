import { differenceCiede2000 } from 'culori';
import { SAME_LENGTH_MM } from '../bed/joints';
import { GRADES, type Grade, type SeamLimits } from '../model/seamSchema';
import { SEAM_STEP_MM, type SeamEdge } from './seamEdge';

/** How two edges meet face to face. Lengths mm. */
export interface Seam {
  /** Largest difference of the levels, the first over the second, and where from the left end of the first; null when not both are wet. */
  stepMm: number | null;
  stepAtMm: number;
  /** Largest difference of the beds where either is under water, and its root mean square. */
  gapMm: number;
  gapAtMm: number;
  gapRmsMm: number;
  /** Of the length where either is wet, the share where both are. 1 for two dry edges. */
  wetOverlap: number;
  /** How far the waterlines lie apart, the worse of both banks. */
  bankOffsetMm: number;
  /** Colour difference of the deepest water on both sides, over what lies there. */
  deltaE: number;
  grades: { step: Grade; gap: Grade; colour: Grade };
  grade: Grade;
  /** What decides the grade, and in words. */
  why: 'closes' | 'step' | 'gap' | 'colour' | 'land' | 'unequal';
  reason: string;
}

const worse = (a: Grade, b: Grade): Grade => (GRADES.indexOf(a) >= GRADES.indexOf(b) ? a : b);
export const gradeOf = (value: number, [closes, passes]: readonly [number, number]): Grade =>
  value <= closes + 1e-9 ? 'closes' : value <= passes + 1e-9 ? 'passes' : 'shows';

/** Edges that can stand against each other: as long as each other. */
export const canMeet = (a: SeamEdge, b: SeamEdge): boolean => Math.abs(a.lengthMm - b.lengthMm) <= SAME_LENGTH_MM;

const colourGap = differenceCiede2000();
const colours = new Map<string, number>();

/** CIEDE2000 between two hex colours; the few colours of a set are remembered. */
function deltaE(a: string, b: string): number {
  if (a === b) return 0;
  const key = `${a}${b}`;
  const known = colours.get(key) ?? colourGap(a, b);
  if (colours.size > 4000) colours.clear();
  colours.set(key, known);
  return known;
}

/** Level at a share of an edge, straight between its ends and its middle. */
const levelAt = (left: number, middle: number, right: number, share: number): number =>
  share < 0.5 ? left + 2 * share * (middle - left) : middle + (2 * share - 1) * (right - middle);

/**
 * What a seam would look like: the first edge from left to right against the second from right to left, which is how two
 * pieces stand face to face, whichever of their edges meet and however they are turned. Heights are above each piece's own
 * underside: both stand on one table. Assumes equally long edges (`canMeet`).
 */
export function compareEdges(a: SeamEdge, b: SeamEdge, limits: SeamLimits): Seam {
  const count = Math.min(a.heightMm.length, b.heightMm.length);
  const [bedA, bedB] = [a.heightMm, b.heightMm];
  const last = bedB.length - 1;
  // Plain numbers only: this loop runs for every pair of edges of a set.
  const [leftLevelA, middleA, rightLevelA] = a.levelMm;
  const [leftLevelB, middleB, rightLevelB] = b.levelMm;
  let gap = 0,
    gapAt = 0,
    squares = 0,
    either = 0,
    both = 0,
    step = 0,
    stepAt = 0,
    deepA = 0,
    deepB = 0,
    deepestA = 0,
    deepestB = 0;
  let leftA = -1,
    leftB = -1,
    rightA = -1,
    rightB = -1;
  let stepSeen = false;
  for (let i = 0; i < count; i++) {
    const share = i / (count - 1);
    const za = bedA[i]!;
    const zb = bedB[last - i]!;
    const la = levelAt(leftLevelA, middleA, rightLevelA, share);
    const lb = levelAt(leftLevelB, middleB, rightLevelB, 1 - share);
    const wetA = za < la;
    const wetB = zb < lb;
    if (wetA) {
      if (leftA < 0) leftA = i;
      rightA = i;
      if (la - za > deepA) {
        deepA = la - za;
        deepestA = share;
      }
    }
    if (wetB) {
      if (leftB < 0) leftB = i;
      rightB = i;
      if (lb - zb > deepB) {
        deepB = lb - zb;
        deepestB = 1 - share;
      }
    }
    if (!wetA && !wetB) continue;
    either++;
    const off = za > zb ? za - zb : zb - za;
    squares += off * off;
    if (off > gap) {
      gap = off;
      gapAt = i;
    }
    if (!wetA || !wetB) continue;
    both++;
    if (stepSeen && Math.abs(la - lb) <= Math.abs(step)) continue;
    step = la - lb;
    stepAt = i;
    stepSeen = true;
  }
  const oneDry = leftA < 0 !== leftB < 0;
  const bankOffsetMm =
    leftA < 0 || leftB < 0 ? 0 : Math.max(Math.abs(leftA - leftB), Math.abs(rightA - rightB)) * SEAM_STEP_MM;
  const colour = both > 0 ? deltaE(colourOf(a, deepA, deepestA), colourOf(b, deepB, deepestB)) : 0;
  const grades = {
    step: stepSeen ? gradeOf(Math.abs(step), limits.stepMm) : 'closes',
    gap: oneDry ? 'shows' : gradeOf(gap, limits.gapMm),
    colour: gradeOf(colour, limits.deltaE),
  } as const;
  const seam = {
    stepMm: stepSeen ? step : null,
    stepAtMm: stepAt * SEAM_STEP_MM,
    gapMm: gap,
    gapAtMm: gapAt * SEAM_STEP_MM,
    gapRmsMm: either > 0 ? Math.sqrt(squares / either) : 0,
    wetOverlap: either > 0 ? both / either : 1,
    bankOffsetMm,
    deltaE: colour,
    grades,
    grade: worse(worse(grades.step, grades.gap), grades.colour),
  };
  const why = whyOf(seam, oneDry);
  return { ...seam, why, reason: seamReason({ ...seam, why }, inMm) };
}

/** The colour of the water at a depth and a share of an edge: over a rock where one stands there. */
function colourOf(
  { look: { colours, rock, stepMm }, rocks, lengthMm }: SeamEdge,
  depthMm: number,
  share: number,
): string {
  const at = share * lengthMm;
  const list = rock && rocks?.some(([from, to]) => at >= from && at <= to) ? rock : colours;
  return list[Math.min(list.length - 1, Math.round(depthMm / stepMm))] ?? '#000000';
}

function whyOf({ grades, grade }: Pick<Seam, 'grades' | 'grade'>, oneDry: boolean): Seam['why'] {
  if (oneDry) return 'land';
  if (grade === 'closes') return 'closes';
  return grades.step === grade ? 'step' : grades.gap === grade ? 'gap' : 'colour';
}

/** What decides the grade of a seam, in words, with lengths as `say` writes them. */
export function seamReason(
  { why, stepMm, gapMm, gapAtMm, deltaE: colour }: Pick<Seam, 'why' | 'stepMm' | 'gapMm' | 'gapAtMm' | 'deltaE'>,
  say: (mm: number, decimals: number) => string,
): string {
  switch (why) {
    case 'land':
      return 'water meets land';
    case 'unequal':
      return 'the edges are not equally long: only equal ones can meet';
    case 'closes':
      return 'closes';
    case 'step':
      return `the levels differ by ${say(Math.abs(stepMm ?? 0), 1)}`;
    case 'gap':
      return `the beds differ by ${say(gapMm, 1)}, ${say(gapAtMm, 0)} from the left`;
    case 'colour':
      return `the colours differ by ${colour.toFixed(1)}`;
  }
}

const inMm = (mm: number, decimals: number): string => `${mm.toFixed(decimals)} mm`;

/** One number to order seams by: 1 where it just closes, 2 where it just passes; the worst of step, gap and colour. */
export function seamScore(
  seam: Pick<Seam, 'stepMm' | 'gapMm' | 'deltaE' | 'grades' | 'wetOverlap'>,
  limits: SeamLimits,
): number {
  const part = (value: number, [closes, passes]: readonly [number, number]): number =>
    value <= closes
      ? value / (closes || 1)
      : value <= passes
        ? 1 + (value - closes) / (passes - closes || 1)
        : 1 + value / (passes || 1);
  const score = Math.max(
    part(Math.abs(seam.stepMm ?? 0), limits.stepMm),
    part(seam.gapMm, limits.gapMm),
    part(seam.deltaE, limits.deltaE),
  );
  return seam.wetOverlap === 0 ? Math.max(score, 100) : score;
}
