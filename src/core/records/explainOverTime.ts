import type { Explanation } from '../plan/explanation';
import { LATELY, type MonthOfGrams, type OverTime, type OverTimeKind } from './overTime';
import { tideFigures, type LogWeek } from './workshopLog';

const FORMULAS: Record<OverTimeKind, { formula: string; assumptions: string[] }> = {
  waste: {
    formula: 'Grams that reached no piece / grams mixed, all layers of a batch together.',
    assumptions: ['Where the bench did not read what reached the pieces, it is the share that was planned.'],
  },
  cost: {
    formula: 'What left the bottles for a batch, at what was paid for them / its pieces.',
    assumptions: ['Batches of which no bottle was entered are left out.'],
  },
  hours: {
    formula: 'Minutes of the steps that were marked / minutes that are reckoned for them, both summed up over a batch.',
    assumptions: ['Reckoned in the minutes that the workshop has now. A batch counts once, however large.'],
  },
  passed: {
    formula: 'Pieces that passed when they were first looked over / pieces that were looked over.',
    assumptions: ['What was mended and passed later does not count as passed.'],
  },
  level: {
    formula: 'How far pieces were found low or high, up or down alike, on the average of a batch.',
    assumptions: ['A piece of which no level was noted was level. Cracked, warped and floated ones are left out.'],
  },
  step: {
    formula:
      'The water’s level at edges that were measured after the pour: how far those of any two pieces of a batch lie apart, on the average over all such pairs.',
    assumptions: ['Of each edge the mean of its three places. Shims and the table are not in it.'],
  },
  cured: {
    formula:
      'When layers were found firm by touch / when that was reckoned for the room as it was read, on the average of a batch.',
    assumptions: ['Only layers that were touched while they hardened; between two looks it is their geometric mean.'],
  },
  colour: {
    formula: 'How far the water in photos was from its recipe, ΔE, on the average of a batch.',
    assumptions: ['Only pieces whose colour was held against the recipe. A photo tells colours to about ΔE 3.'],
  },
};

/** How the last mean of a chart came about; `words` writes one of its values. */
export function explainOverTime(
  { kind, points, before, latelyOf }: OverTime,
  title: string,
  words: (value: number) => string,
): Explanation {
  const { formula, assumptions } = FORMULAS[kind];
  return {
    title,
    formula: `${formula} Lately is the mean of the last ${LATELY} batches, by how much each says of it.`,
    inputs: [
      ...points.slice(-latelyOf).map(({ batch, value }) => ({ label: batch.name, value: words(value) })),
      ...(before === null ? [] : [{ label: `Mean of the ${points.length - latelyOf} before`, value: words(before) }]),
    ],
    assumptions,
    estimate: kind === 'colour',
  };
}

/** How the months of a chart came about. */
export function explainMonths(months: readonly MonthOfGrams[], grams: (value: number) => string): Explanation {
  return {
    title: 'Mixed and lost, month by month',
    formula:
      'All layers of the batches whose first pour was in a month: what was weighed into cups, less what reached pieces.',
    inputs: months
      .toReversed()
      .map(({ month, inPieces, lost }) => ({
        label: month,
        value: `${grams(inPieces + lost)}, ${grams(lost)} of it lost`,
      })),
    assumptions: [
      'A batch stands whole in the month of its first pour.',
      'Where the bench did not read what reached the pieces, it is the share that was planned.',
    ],
    estimate: false,
  };
}

/** How the sums of a year of weeks came about. */
export function explainTide(
  weeks: readonly LogWeek[],
  grams: (value: number) => string,
  money: (value: number) => string,
): Explanation {
  const sums = tideFigures(weeks);
  return {
    title: 'The year in grams and money',
    formula:
      'All layers that stand in the log, week by week from Monday: what was weighed into cups, less what reached pieces.',
    inputs: [
      {
        label: 'Weeks with a pour',
        value: `${weeks.filter(({ mixedGrams }) => mixedGrams > 0).length} of ${weeks.length}`,
      },
      { label: 'Mixed', value: grams(sums.mixedGrams) },
      { label: 'Reached no piece', value: grams(sums.lostGrams) },
      { label: 'Out of the bottles', value: money(sums.money) },
    ],
    assumptions: [
      'Product in stock tints and premixes that went into no cup is lost too.',
      'Where the bench did not read what reached the pieces, it is the share that was planned.',
      'Money is what was paid for what left the bottles; what was poured of bottles that were never entered is not in it.',
    ],
    estimate: false,
  };
}
