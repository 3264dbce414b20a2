import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { splitIntoCups, type Pour } from '../src/core/mixing/cups';
import { cheapestCover } from '../src/core/stock/cover';
import { openDataFile } from '../src/db/dataFile';
import { stockShelf } from '../src/db/defaults';
import { listLots, lotHistory, stockLevels } from '../src/db/stock';
import { medianMs } from './measure';

type Against = (what: string, ms: number, limit: string, within: boolean) => void;

const LAYERS = 5;
/** Pieces as they come: no two alike, the same each run. */
const pieces = (count: number): Pour[] =>
  Array.from({ length: count }, (_, i) => ({
    designId: `d${i}`,
    copy: 1,
    tag: `D-${i}`,
    grams: 8 + ((i * 7919) % 523) / 12,
  }));

/** The split of a batch into mixes, and the shelf with years of movements. */
export function pourBench(against: Against): void {
  for (const [count, most] of [
    [20, 1000],
    [200, 2000],
  ] as const) {
    let cups = 0;
    let bound = 0;
    const ms = medianMs(() => {
      cups = bound = 0;
      for (let layer = 0; layer < LAYERS; layer++) {
        const split = splitIntoCups(pieces(count), 150 + layer * 9);
        cups += split.cups.length;
        bound += split.fewestPossible;
      }
    }, 5);
    against(
      `${count} pieces × ${LAYERS} layers into mixes: ${cups} cups, ${bound === cups ? 'proved the fewest' : `no fewer than ${bound}`}`,
      ms,
      `under ${most / 1000} s`,
      ms < most,
    );
  }
  const packs = [
    { amount: 250, price: 9 },
    { amount: 750, price: 21 },
    { amount: 1500, price: 38 },
    { amount: 4500, price: 99 },
  ];
  const coverMs = medianMs(() => cheapestCover(12_345, packs));
  against('the cheapest packs for 12 kg, exact', coverMs, 'under 100 ms', coverMs < 100);

  const folder = mkdtempSync(join(tmpdir(), 'aguada-bench-'));
  const { db, close } = openDataFile(join(folder, 'stock.db'));
  try {
    stockShelf(db, '2026-01-01T10:00');
    fillLedger(db.$client);
    const shelfMs = medianMs(() => [listLots(db), stockLevels(db, 'b7', () => false), lotHistory(db, 'lot-3')]);
    against('a shelf of 40 lots with 5,000 movements, read', shelfMs, 'under 200 ms', shelfMs < 200);
  } finally {
    close();
    rmSync(folder, { recursive: true, force: true });
  }
}

const LOTS = 40;
const MOVEMENTS = 5000;

function fillLedger(client: ReturnType<typeof openDataFile>['db']['$client']): void {
  const lot = client.prepare(
    `insert into lots (id, item_kind, item_id, name, bought, bought_on, price, updated_at) values (?, 'product', ?, ?, ?, '2025-01-01', 40, '')`,
  );
  const movement = client.prepare(
    `insert into movements (lot_id, item_kind, item_id, part, amount, kind, at, note, batch_id, layer, cup, entered_at) values (?, 'product', ?, ?, ?, ?, '2025-06-01T10:00', '', ?, 1, 1, '')`,
  );
  client.transaction(() => {
    const item = (i: number): string => `product-${i % 8}`;
    for (let i = 0; i < LOTS; i++) {
      lot.run(`lot-${i}`, item(i), `Kit ${i}`, '[{"part":"A","amount":5000},{"part":"B","amount":5000}]');
      for (const part of ['A', 'B']) movement.run(`lot-${i}`, item(i), part, 5000, 'bought', null);
    }
    for (let i = 0; i < MOVEMENTS; i++)
      movement.run(`lot-${i % LOTS}`, item(i % LOTS), i % 2 ? 'A' : 'B', -5, i % 7 ? 'poured' : 'lost', `b${i % 300}`);
  })();
}
