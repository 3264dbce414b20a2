import type { Strays } from '../bed/measured';
import { TYPICAL_LOSSES, type Losses } from '../mixing/losses';
import { MADE_BY, type MadeBy } from '../model/madeBy';
import type { Colourant } from '../model/recipeSchema';
import type { Stored } from '../model/stored';
import { factsOfStep, type StepKind } from '../schedule/stepKinds';
import type { StepMinutes } from '../schedule/routes';
import { learnLinear, learnMean } from './estimate';
import { byMean, LEARNT_KIND_FACTS, priorOf, sum, to, type FigurePlan, type Standing } from './learntFigure';
import type { RecordedBed, RecordedCup, RecordedWork } from './recordedWork';

const asGrams = ({ perCupGrams, share, perPieceGrams }: Losses): number[] => [perCupGrams, share, perPieceGrams];

/** What stays in a cup. */
export function losses({ cups }: RecordedWork, { losses: stand }: Standing): FigurePlan[] {
  if (cups.length === 0) return [];
  const usual = [
    1,
    sum(cups.map(({ mixGrams }) => mixGrams)) / cups.length,
    sum(cups.map((cup) => cup.pieces)) / cups.length,
  ];
  const lineOf = (figures: readonly number[]): number => sum(figures.map((figure, k) => figure * usual[k]!));
  const ofCup = new Map(
    cups.map((cup) => [cup.key, { x: [1, cup.mixGrams, cup.pieces], y: cup.mixGrams - cup.pouredGrams }]),
  );
  const typical = asGrams(TYPICAL_LOSSES);
  // Brought to the usual cup by what a larger one loses more, as supposed for everybody: no dot moves by what is learnt.
  const brought = ({ x, y }: { x: number[]; y: number }): number =>
    y - sum(typical.map((figure, k) => figure * (x[k]! - usual[k]!)));
  return [
    {
      id: 'losses',
      kind: 'losses',
      of: null,
      name: 'What stays in a cup',
      unit: 'g',
      fields: [
        { name: 'a cup', unit: 'g', was: stand.perCupGrams },
        { name: 'of the mix', unit: '%', was: stand.share },
        { name: 'a piece', unit: 'g', was: stand.perPieceGrams },
      ],
      seen: cups.map(({ key, at, batchId }) => ({ key, at, batchId, value: brought(ofCup.get(key)!), weight: 1 })),
      lineOf,
      learn: (before, counted) => {
        const figures = learnLinear(
          before,
          LEARNT_KIND_FACTS.losses.n0,
          counted.map(({ key }) => ofCup.get(key)!),
        );
        const prior = lineOf(before);
        const { plusMinus } = learnMean(priorOf('losses', prior), counted);
        return { figures, line: { value: lineOf(figures), plusMinus } };
      },
      round: ([cup, share, piece]) => [to(cup!, 0.1), to(share!, 0.001), to(piece!, 0.05)],
    },
  ];
}

/** What a drop of each colourant weighs. */
export function drops(cups: readonly RecordedCup[], colourants: readonly Stored<Colourant>[]): FigurePlan[] {
  const counts = cups.flatMap(({ key, at, batchId, drops: own }) =>
    own.flatMap(({ id, count, grams }) => (grams > 0 ? [{ key: `${key} ${id}`, at, batchId, id, count, grams }] : [])),
  );
  const lineOf = ([grams]: readonly number[]): number => grams!;
  return colourants.flatMap(({ id, data }): FigurePlan[] => {
    const own = counts.filter((one) => one.id === id);
    const usual = sum(own.map(({ count }) => count)) / own.length;
    return own.length === 0
      ? []
      : [
          {
            id: `drop ${id}`,
            kind: 'drop',
            of: id,
            name: `A drop of ${data.name}`,
            unit: 'g/drop',
            fields: [{ name: 'a drop', unit: 'g/drop', was: data.dropGrams }],
            seen: own.map(({ key, at, batchId, count, grams }) => ({
              key,
              at,
              batchId,
              value: grams / count,
              weight: count / usual,
            })),
            lineOf,
            learn: byMean('drop', (_, line) => [line], lineOf),
            round: ([grams]) => [Math.min(1, Math.max(0.001, to(grams!, 0.001)))],
          },
        ];
  });
}

const meanOf = (values: readonly number[]): number => sum(values) / values.length;
/** Up to where an offset or a wander of a bed may come out. */
const MOST_STRAY_MM = 20;

/** How far beds stray from their drawings, by the way they are made. */
export function strays(beds: readonly RecordedBed[], stands: Strays): FigurePlan[] {
  return MADE_BY.flatMap((madeBy): FigurePlan[] => {
    const own = beds.filter((bed) => bed.madeBy === madeBy && bed.offMm.length >= LEAST_READINGS);
    return own.length === 0 ? [] : [strayOfBeds(madeBy, own, stands)];
  });
}

/** With fewer readings of a bed what they share is not told from what they differ by. */
const LEAST_READINGS = 3;

function strayOfBeds(madeBy: MadeBy, beds: readonly RecordedBed[], stands: Strays): FigurePlan {
  const ofBed = new Map(
    beds.map(({ key, offMm }) => {
      const mean = meanOf(offMm);
      return [key, { mean, freedom: offMm.length - 1, squares: sum(offMm.map((off) => (off - mean) ** 2)) }];
    }),
  );
  const lineOf = ([offset, wander]: readonly number[]): number => Math.hypot(offset!, wander!);
  const { n0 } = LEARNT_KIND_FACTS.stray;
  return {
    id: `stray ${madeBy}`,
    kind: 'stray',
    of: madeBy,
    name: `Beds ${madeBy === 'printed' || madeBy === 'scanned' ? madeBy : `made ${madeBy}`}, against their drawing`,
    unit: 'mm',
    fields: [
      { name: 'offset', unit: 'mm', was: stands[madeBy].offsetMm },
      { name: 'wander', unit: 'mm', was: stands[madeBy].wanderMm },
    ],
    seen: beds.map(({ key, at, offMm }) => ({
      key,
      at,
      batchId: null,
      value: Math.sqrt(meanOf(offMm.map((off) => off * off))),
      weight: 1,
    })),
    lineOf,
    learn: (before, counted) => {
      const seen = counted.map(({ key }) => ofBed.get(key)!);
      const freedom = sum(seen.map((bed) => bed.freedom));
      // The figures before count as so many beds with as many readings as these.
      const own = n0 * (seen.length > 0 ? freedom / seen.length : 1);
      const wander2 = (own * before[1]! ** 2 + sum(seen.map(({ squares }) => squares))) / (own + freedom);
      const shared = seen.map((bed) => Math.max(0, bed.mean ** 2 - wander2 / (bed.freedom + 1)));
      const offset2 = (n0 * before[0]! ** 2 + sum(shared)) / (n0 + seen.length);
      const figures = [Math.sqrt(offset2), Math.sqrt(wander2)];
      const { plusMinus } = learnMean(priorOf('stray', lineOf(before)), counted);
      return { figures, line: { value: lineOf(figures), plusMinus } };
    },
    round: (figures) => figures.map((mm) => Math.min(MOST_STRAY_MM, to(mm, 0.05))),
  };
}

/** Minutes of one kind of step, for a batch and for each piece. */
export function steps({ steps: done }: RecordedWork, kind: StepKind, own: StepMinutes): FigurePlan[] {
  const usual = factsOfStep(kind);
  const { perBatchMinutes, perPieceMinutes } = own[kind] ?? usual;
  // Against the usual minutes of its kind, so that no dot moves by what is learnt.
  const reckoned = (pieces: number): number => usual.perBatchMinutes + pieces * usual.perPieceMinutes;
  const whole = usual.perBatchMinutes + usual.perPieceMinutes;
  const lineOf = ([batch, piece]: readonly number[]): number => (whole > 0 ? (batch! + piece!) / whole : 1);
  return [
    {
      id: `step ${kind}`,
      kind: 'step',
      of: kind,
      name: `Minutes: ${usual.name.toLowerCase()}`,
      unit: '×',
      fields: [
        { name: 'a batch', unit: 'min', was: perBatchMinutes },
        { name: 'a piece', unit: 'min', was: perPieceMinutes },
      ],
      seen: done
        .filter((step) => step.kind === kind && reckoned(step.pieces) > 0)
        .map((step) => ({ ...step, value: step.minutes / reckoned(step.pieces), weight: 1 })),
      lineOf,
      learn: byMean('step', (before, line) => before.map((minutes) => (minutes * line) / lineOf(before)), lineOf),
      round: ([batch, piece]) => [to(batch!, 1), to(piece!, 0.1)],
    },
  ];
}
