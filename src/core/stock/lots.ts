import type { Lot, StockPart } from '../model/stockSchema';

/** A lot with what is left in it. */
export interface LotState {
  id: string;
  lot: Lot;
  left: { part: StockPart; amount: number }[];
}

export const leftOf = ({ left }: Pick<LotState, 'left'>, part: StockPart): number =>
  left.find((one) => one.part === part)?.amount ?? 0;

/** The day so many months after another; the last day of a month that is shorter. */
export function monthsAfter(day: string, months: number): string {
  const [year = 1970, month = 1, date = 1] = day.split('-').map(Number);
  const whole = Math.floor(months);
  const last = new Date(Date.UTC(year, month - 1 + whole + 1, 0)).getUTCDate();
  const at = new Date(Date.UTC(year, month - 1 + whole, Math.min(date, last)));
  // What is left of a month counts in days of an average one.
  at.setUTCDate(at.getUTCDate() + Math.round((months - whole) * 30.4));
  return at.toISOString().slice(0, 10);
}

/** Until when a lot is good: the label's date, and its shelf life from the day it was opened. Null where neither is known. */
export function goodUntil(
  { openedOn, bestBefore }: Pick<Lot, 'openedOn' | 'bestBefore'>,
  shelfLifeMonths: number | null,
): string | null {
  const opened = openedOn !== null && shelfLifeMonths !== null ? monthsAfter(openedOn, shelfLifeMonths) : null;
  if (opened === null || bestBefore === null) return opened ?? bestBefore;
  return opened < bestBefore ? opened : bestBefore;
}

/** Whether a lot is past its date on a day: it is counted no more, and taken only by who names it. */
export const isPast = (
  lot: Pick<Lot, 'openedOn' | 'bestBefore'>,
  shelfLifeMonths: number | null,
  day: string,
): boolean => (goodUntil(lot, shelfLifeMonths) ?? '9999') < day;

/** The order in which lots are used up: what is open first, the oldest first. */
export const inUseOrder = <T extends { id: string; lot: Pick<Lot, 'openedOn' | 'boughtOn'> }>(
  lots: readonly T[],
): T[] =>
  [...lots].sort((a, b) => {
    const [openA, openB] = [a.lot.openedOn ?? '9999', b.lot.openedOn ?? '9999'];
    return (
      (openA < openB ? -1 : openA > openB ? 1 : 0) ||
      (a.lot.boughtOn < b.lot.boughtOn ? -1 : a.lot.boughtOn > b.lot.boughtOn ? 1 : 0) ||
      (a.id < b.id ? -1 : 1)
    );
  });

/** So much out of one lot. */
export interface Taken {
  lotId: string;
  amount: number;
}

/** Less than this is nothing: it is below what any scale on a bench shows. */
export const NOTHING = 1e-6;

/**
 * So much of one part out of lots, those that were `named` first, each used up before the next in their order. `short` is what they do not hold. Assumes that
 * nobody pours from a later bottle while an earlier one still holds some.
 */
export function takeFrom(
  lots: readonly LotState[],
  part: StockPart,
  amount: number,
  named: readonly string[] = [],
): { taken: Taken[]; short: number } {
  const taken: Taken[] = [];
  let wanted = amount;
  const order = inUseOrder(lots);
  const isNamed = ({ id }: LotState): boolean => named.includes(id);
  for (const lot of [...order.filter(isNamed), ...order.filter((one) => !isNamed(one))]) {
    if (wanted <= NOTHING) break;
    const some = Math.min(wanted, leftOf(lot, part));
    if (some <= NOTHING) continue;
    taken.push({ lotId: lot.id, amount: some });
    wanted -= some;
  }
  return { taken, short: wanted > NOTHING ? wanted : 0 };
}

/** What one gram (or piece) of a lot cost; both parts of a kit alike. */
export const lotUnitPrice = ({ bought, price }: Pick<Lot, 'bought' | 'price'>): number =>
  price / bought.reduce((sum, { amount }) => sum + amount, 0);
