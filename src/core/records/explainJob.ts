import type { Explanation } from '../plan/explanation';
import type { JobFigures } from './job';

export const JAR_FIGURES = ['spent', 'likely', 'low', 'high'] as const;
export type JarFigure = (typeof JAR_FIGURES)[number];

const TITLES: Record<JarFigure, string> = {
  spent: 'spent so far',
  likely: 'in the end, likely',
  low: 'in the end, if all goes well',
  high: 'in the end, if it goes badly',
};
const ROUND_HOURS = 'Steps without a clock count the minutes that the calendar reckons with.';
const hoursWords = (hours: number): string => `${hours.toFixed(1)} h`;

/** How hours that are to come turn out, in words. */
function spreadWords({ spread }: JobFigures, which: JarFigure): string {
  const times = spread[which === 'spent' ? 'likely' : which];
  return `× ${times.toFixed(2)}, ${spread.batches > 0 ? `as ${spread.batches} batches turned out` : 'as is usual'}`;
}

/** How the hours of a job came about: spent, or in the end. */
export function explainHours(figures: JobFigures, which: JarFigure): Explanation {
  const { hours, spread, timedHours } = figures;
  const toCome = spread.likely > 0 ? (hours.likely - hours.spent) / spread.likely : 0;
  return {
    title: `Hours, ${TITLES[which]}`,
    formula:
      which === 'spent'
        ? 'Marked steps, pours and what the stop-watch timed.'
        : 'Hours spent + hours to come as the calendar reckons them × how hours turn out.',
    inputs: [
      { label: 'Hours spent', value: hoursWords(hours.spent) },
      { label: 'of them by the clock', value: hoursWords(timedHours) },
      ...(which === 'spent'
        ? []
        : [
            { label: 'Hours to come, as reckoned', value: hoursWords(toCome) },
            { label: 'How hours turn out', value: spreadWords(figures, which) },
          ]),
    ],
    assumptions: [ROUND_HOURS, ...(which === 'spent' ? [] : ['Copies that are in no batch yet are one batch more.'])],
    estimate: which !== 'spent' || timedHours < hours.spent,
  };
}

/** How the money of a job came about; `money` writes an amount in the workshop’s own currency. */
export function explainMoney(
  figures: JobFigures,
  which: JarFigure,
  ratePerHour: number,
  money: (amount: number) => string,
): Explanation {
  const { hours, material } = figures;
  const inEnd = which !== 'spent';
  const toCome = figures.money[which] - material.spent - hours[which] * ratePerHour;
  return {
    title: `Money, ${TITLES[which]}`,
    formula: `Material${inEnd ? ' spent + material to come' : ''} + hours × what an hour counts.`,
    inputs: [
      { label: inEnd ? 'Material spent' : 'Material', value: money(material.spent) },
      ...(inEnd ? [{ label: 'Material to come', value: money(toCome) }] : []),
      { label: 'Hours', value: hoursWords(hours[which]) },
      { label: 'An hour counts', value: money(ratePerHour) },
    ],
    assumptions: [
      'Material that was poured costs what left the bottles, at what was paid for them; where no bottle was entered, what was planned.',
      ...(inEnd ? ['Material to come is priced as the quote of each batch is.'] : []),
    ],
    estimate: inEnd,
  };
}
