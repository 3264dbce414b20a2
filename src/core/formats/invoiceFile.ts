import { sharedMoney, type DeliveredDesign } from '../records/job';
import { writeCsv } from './csv';

/** What stands over the lines of an invoice. */
interface InvoiceHead {
  set: string;
  customer: string;
  /** For the whole, margin and all. */
  price: number;
  currency: string;
}

/**
 * The lines of an invoice as CSV, a line a design: copies, what one costs and what all of them do. The price is shared out half by pieces
 * and half by the water in them; the amounts add up to it to the cent.
 */
export function invoiceCsv(
  designs: readonly Pick<DeliveredDesign, 'tag' | 'name' | 'copies' | 'waterGrams'>[],
  { set, customer, price, currency }: InvoiceHead,
): string {
  const lines = designs.filter(({ copies }) => copies > 0);
  const pieces = lines.reduce((sum, { copies }) => sum + copies, 0);
  const water = lines.reduce((sum, { copies, waterGrams }) => sum + copies * waterGrams, 0);
  const amounts = sharedMoney(
    price,
    lines.map(({ copies, waterGrams }) => copies / pieces + (water > 0 ? (copies * waterGrams) / water : 0)),
  );
  return writeCsv(
    ['set', 'customer', 'line', 'copies', 'each', 'amount', 'currency'],
    lines.map(({ tag, name, copies }, i) => ({
      set,
      customer,
      line: `${tag} ${name}`,
      copies,
      each: (amounts[i]! / copies).toFixed(2),
      amount: amounts[i]!.toFixed(2),
      currency,
    })),
  );
}
