import { bedsBuiltOnce, planAmounts, type Amounts, type PlanRequest } from '../src/core/plan';
import { TYPICAL_LOSSES } from '../src/core/mixing/losses';
import type { PieceDesign } from '../src/core/model/designSchema';
import { batchRequest } from '../src/core/records/buildRequest';
import { pourId, type WaterSet } from '../src/core/records/recordSchemas';
import { keepPlan } from '../src/db/keptPlans';
import { openDataFile } from '../src/db/dataFile';
import { DEFAULT_SETTINGS, SETTINGS_ID, stockShelf } from '../src/db/defaults';
import { HERON_SLACK_DESIGNS } from '../src/db/demo/heronSlackDesigns';
import { getDocument, listDocuments } from '../src/db/documents';
import { edit } from '../src/db/journal';
import { move } from '../src/db/stock';
import type { Database } from '../src/db/storage';

export const BIG_SET = 'big';
const DESIGNS = 60;
const BATCHES = 300;
const CUPS = 6;
/** Batches in the other sets that are still to be poured, and old ones that were planned and never poured. */
const OPEN = 24;
const FORGOTTEN = 146;
const MOVEMENTS_A_LOT = 125;
const NOW = '2026-11-24T20:00';

/**
 * A workshop of years: a set of 60 designs with 300 finished batches of 6 cups, and other sets beside it with 170 batches. With 500 sets
 * and 400 lots that are 50,000 movements of stock, and a minute to write. Returns how many rows it has.
 */
export function writeBigFile(path: string, { sets = 60, lots = 0, batches = BATCHES, designs = DESIGNS } = {}): number {
  const { db, close } = openDataFile(path);
  db.$client.pragma('synchronous = OFF');
  stockShelf(db, NOW);
  const design = (i: number): PieceDesign => {
    const like = HERON_SLACK_DESIGNS[i % HERON_SLACK_DESIGNS.length]!;
    const { edgeStandards: _, ...plain } = like;
    return { ...plain, tag: `D-${i + 1}`, name: `${like.name} ${i + 1}`, copies: 6 };
  };
  const set = (name: string): WaterSet => ({
    name,
    figureScaleMm: 28,
    levelMm: 15,
    productId: 'coating-epoxy',
    recipeId: 'clear',
    benchWindows: null,
    job: null,
  });
  edit(db, 'sets', 'Make the big set', NOW, (writer) => {
    writer.add('set', BIG_SET, set('Years of work'));
    for (let i = 0; i < designs; i++) writer.add('design', `d${i}`, design(i), BIG_SET);
  });
  for (let s = 1; s < sets; s++)
    edit(db, 'sets', 'Make a set', NOW, (writer) => {
      writer.add('set', `set-${s}`, set(`Set ${s}`));
      for (let i = 0; i < 12; i++) writer.add('design', `s${s}d${i}`, design(s + i), `set-${s}`);
    });
  for (let b = 0; b < OPEN + FORGOTTEN; b++) {
    const setId = `set-${1 + ((b * 3) % (sets - 1))}`;
    const item = (i: number): { designId: string; copies: number } => ({
      designId: `s${setId.slice(4)}d${i}`,
      copies: 2,
    });
    const pourAt = b < OPEN ? `2026-12-${String(1 + b).padStart(2, '0')}T19:00` : '2024-06-01T10:00';
    edit(db, `set:${setId}`, 'Plan a batch', NOW, (writer) =>
      writer.add(
        'batch',
        `planned-${b}`,
        { name: `Planned ${b}`, items: [item(0), item(1), item(2)], pourAt, benchWindows: null },
        setId,
      ),
    );
  }
  writeStock(db, lots);
  const items = Array.from({ length: 10 }, (_, i) => ({ designId: `d${i}`, copies: 4 }));
  const { request, amounts } = sixCups(db, items);
  for (let b = 0; b < batches; b++) {
    const id = `batch-${b}`;
    edit(db, `set:${BIG_SET}`, 'A batch', NOW, (writer) => {
      writer.add(
        'batch',
        id,
        { name: `Batch ${b + 1}`, items, pourAt: '2025-03-01T10:00', benchWindows: null },
        BIG_SET,
      );
      keepPlan(writer.db, id, { request, amounts }, NOW);
      for (const layer of amounts.layers)
        writer.add(
          'pour',
          pourId(id, layer.number),
          {
            batchId: id,
            layer: layer.number,
            pouredAt: '2025-03-01T10:20',
            temperatureC: 20,
            note: '',
            cups: layer.cups.map(({ number, parts, mixGrams }) => ({
              number,
              partAGrams: parts?.partAGrams ?? mixGrams,
              partBGrams: parts?.partBGrams ?? null,
              note: '',
            })),
          },
          BIG_SET,
        );
    });
  }
  const tables = [
    'lots',
    'movements',
    'batches',
    'batch_items',
    'kept_plans',
    'layers',
    'cups',
    'cup_pours',
    'pours',
    'weighings',
    'designs',
    'sets',
  ];
  const rows = tables.reduce(
    (sum, table) => sum + (db.$client.prepare(`select count(*) from ${table}`).pluck().get() as number),
    0,
  );
  db.$client.pragma('synchronous = FULL');
  close();
  return rows;
}

/** Bottles of years, each emptied in many small movements. */
function writeStock(db: Database, lots: number): void {
  for (let lot = 0; lot < lots; lot++)
    edit(db, 'shelf', 'Buy a kit', NOW, (writer) => {
      const id = `lot-${lot}`;
      const of = { kind: 'product' as const, id: 'coating-epoxy' };
      const bought = [
        { part: 'A' as const, amount: 530 },
        { part: 'B' as const, amount: 470 },
      ];
      writer.add('lot', id, {
        of,
        name: `Kit ${lot}`,
        bought,
        boughtOn: '2024-01-05',
        openedOn: '2024-02-01',
        bestBefore: null,
        price: 26,
      });
      for (let i = 0; i < MOVEMENTS_A_LOT; i++)
        move(
          writer.db,
          {
            lotId: id,
            item: of,
            part: i % 2 ? ('B' as const) : ('A' as const),
            amount: -4,
            kind: 'poured' as const,
            at: '2024-03-01T10:00',
            note: '',
            batchId: `batch-${lot % BATCHES}`,
            layer: 1,
            cup: 1,
          },
          NOW,
        );
    });
}

/** A plan of some pieces in which the layers take six cups together: the size of a cup decides. */
function sixCups(
  db: Database,
  items: { designId: string; copies: number }[],
): { request: PlanRequest; amounts: Amounts } {
  const shelf = {
    settings: getDocument(db, 'settings', SETTINGS_ID) ?? { id: SETTINGS_ID, version: 1, data: DEFAULT_SETTINGS },
    products: listDocuments(db, 'product').records,
    colourants: listDocuments(db, 'colourant').records,
    recipes: listDocuments(db, 'recipe').records,
  };
  const view = {
    set: getDocument(db, 'set', BIG_SET)!,
    designs: listDocuments(db, 'design', BIG_SET).records,
    pieces: [],
    shelf,
    clockChanges: [],
    measuredDays: [],
  };
  const batch = { name: 'B', items, pourAt: '2025-03-01T10:00', benchWindows: null };
  const request = batchRequest(view as never, batch, { kept: null, pours: [] })!;
  const bedOf = bedsBuiltOnce();
  let best: { request: PlanRequest; amounts: Amounts } | null = null;
  for (let cupGrams = 2000; cupGrams > 150; cupGrams *= 0.9) {
    const tried = { ...request, losses: TYPICAL_LOSSES, bench: { ...request.bench, cupGrams } };
    const amounts = planAmounts(tried, bedOf);
    best = { request: tried, amounts };
    if (amounts.totals.cups >= CUPS) break;
  }
  return best!;
}
