import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { batchNeeds } from '@/core/stock/needs';
import { type Command } from '@/core/records/command';
import { missingFor } from '@/db/dependents';
import { getDocument, listDocuments } from '@/db/documents';
import { release, reserve } from '@/db/stock';
import { type Database } from '@/db/storage';
import { edit, EditRefusedError } from '@/db/journal';
import { type Done, type Work } from '../changes';
import { withData } from '../data';
import { FieldProblem } from '../fieldProblem';
import { planToPour } from '../planToPour';

/** Lots out of a file; what was left in them by then is a movement. */
export function takeInLots(db: Database, lots: Extract<Command, { do: 'take in' }>['lots'], now: string): Done {
  lots.forEach(({ lot }, i) => {
    const [missing] = missingFor(db, 'lot', lot);
    if (missing) throw new FieldProblem(['lots', i, 'lot', ...missing.path], 'This is no longer on the shelf.');
  });
  const touched = edit(db, 'shelf', `Take in ${lots.length} lots`, now, (writer) => {
    for (const { lot, left } of lots) {
      const id = crypto.randomUUID();
      writer.add('lot', id, lot);
      for (const { part, amount } of left) {
        const held = lot.bought.find((one) => one.part === part)?.amount ?? 0;
        const data = {
          lotId: id,
          part,
          amount: amount - held,
          kind: 'corrected' as const,
          at: now,
          note: 'as taken in',
        };
        if (amount !== held) writer.add('movement', crypto.randomUUID(), data);
      }
    }
  });
  return { id: null, touched };
}

/** Reserves what a batch needs as it is planned now, or gives it back. */
export async function reserveForBatch(
  { batchId, wanted }: Extract<Command, { do: 'reserve' }>,
  now: string,
): Promise<Work> {
  const { setId, row, amounts } = await planToPour(batchId);
  const consumables = withData((db) => listDocuments(db, 'consumable').records);
  const needs = batchNeeds(amounts.request, amounts.amounts, consumables);
  return (db) => {
    const { name } = row.data;
    if (wanted)
      reserve(
        db,
        batchId,
        needs.map(({ item, part, likely }) => ({ item, part, amount: likely })),
        name,
        now,
      );
    else release(db, batchId, name, now);
    return { id: batchId, touched: [{ kind: 'batch', id: batchId, setId }] };
  };
}

/** Puts kinds that ship and are not there on the shelf, under their own ids. */
export function stockKinds(db: Database, ids: readonly string[], now: string): Done {
  const kinds = PRODUCT_KINDS.filter(({ id }) => ids.includes(id) && !getDocument(db, 'product', id));
  if (kinds.length === 0) throw new EditRefusedError('nothing', 'These are on the shelf already.');
  const touched = edit(
    db,
    'shelf',
    `Put ${kinds.map(({ name }) => name).join(', ')} on the shelf`.slice(0, 80),
    now,
    (writer) => {
      for (const { id, ...product } of kinds) writer.add('product', id, product);
    },
  );
  return { id: kinds[0]!.id, touched };
}
