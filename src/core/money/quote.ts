import { z } from 'zod';

const number = z.number({ error: 'Type a number' });

/** How the maker counts work: by the hour, beyond mixing and pouring so many minutes a piece, and what is put on top. */
export const workSchema = z.object({
  ratePerHour: number.min(0, 'Cannot be negative').max(10_000, 'At most 10 000'),
  /** Bodies, paint, plants, finish: all that is done to one piece beside its pours. */
  minutesPerPiece: number.min(0, 'Cannot be negative').max(10_000, 'At most a week'),
  /** Share put on the cost: 0.2 asks a fifth more. */
  margin: number.min(0, 'Cannot be negative').max(10, 'At most ten times'),
});
export type Work = z.infer<typeof workSchema>;

/** What a new workshop starts with: shown as such, and the maker's own from the first change. */
export const TYPICAL_WORK: Work = { ratePerHour: 12, minutesPerPiece: 20, margin: 0.2 };

/** One way that it may come out. */
export interface QuoteCase {
  product: number;
  colourant: number;
  consumables: number;
  hours: number;
  work: number;
  cost: number;
  price: number;
  pricePerPiece: number;
}

export interface Quote {
  low: QuoteCase;
  likely: QuoteCase;
  high: QuoteCase;
}

export interface QuoteInput {
  pieces: number;
  /** Grams mixed and grams that reach the pieces. */
  mixGrams: number;
  pouredGrams: number;
  /** What the mix would be in the bad case. */
  highMixGrams: number;
  pricePerGram: number;
  colourantPrice: number;
  consumablesPrice: number;
  /** Hands-on minutes of mixing and pouring. */
  pourMinutes: number;
  work: Work;
}

/** How far hours go astray when nothing was timed yet: a fifth less, two fifths more. */
const LOW_HOURS = 0.8;
const HIGH_HOURS = 1.4;

/**
 * Cost and price of a batch, likely and from a good to a bad case. Good: half of what is lost otherwise, and a fifth fewer hours. Bad:
 * the bad case of the mix, and two fifths more hours. An estimate until runs were timed.
 */
export function quote(input: QuoteInput): Quote {
  const { pieces, mixGrams, pouredGrams, highMixGrams, pricePerGram, work } = input;
  const hours = (input.pourMinutes + pieces * work.minutesPerPiece) / 60;
  const caseOf = (grams: number, hoursOf: number): QuoteCase => {
    const scale = mixGrams > 0 ? grams / mixGrams : 1;
    const product = grams * pricePerGram;
    const colourant = input.colourantPrice * scale;
    const own = { product, colourant, consumables: input.consumablesPrice, hours: hoursOf };
    const cost = product + colourant + input.consumablesPrice + hoursOf * work.ratePerHour;
    const price = cost * (1 + work.margin);
    return { ...own, work: hoursOf * work.ratePerHour, cost, price, pricePerPiece: pieces > 0 ? price / pieces : 0 };
  };
  return {
    low: caseOf(pouredGrams + (mixGrams - pouredGrams) / 2, hours * LOW_HOURS),
    likely: caseOf(mixGrams, hours),
    high: caseOf(Math.max(highMixGrams, mixGrams), hours * HIGH_HOURS),
  };
}
