import { join } from 'node:path';
import fc from 'fast-check';
import type { PourRecord } from '@/core/records/recordSchemas';
import { pourId } from '@/core/records/recordSchemas';
import type { Lot, StockItem, StockPart } from '@/core/model/stockSchema';
import { planAmounts } from '@/core/plan';
import { batchRequest } from '@/core/records/buildRequest';
import type { SetDocuments } from '@/core/records/views';
import { getBatch } from './batches';
import { keepPlan, keptPlan } from './keptPlans';
import { batchDetail } from './pours';
import { openDataFile } from './dataFile';
import { HERON_SLACK_ID, loadHeronSlack } from './demo/heronSlack';
import { stockShelf } from './defaults';
import { getDocument, listDocuments } from './documents';
import { edit, EditRefusedError, redo, undo } from './journal';
import { getLot, isLessThanNothing, listLots, lotHistory, lotsInUse, reserve, stockLevels } from './stock';
import { spentOnSet } from './spent';
import { temporaryFolder } from './testDataFile';
import type { Database } from './storage';

const folder = temporaryFolder();
const NOW = '2026-11-24T20:00';
const EPOXY: StockItem = { kind: 'product', id: 'coating-epoxy' };
const BATCH = 'hs-batch-1';
let count = 0;
let db: Database;

beforeEach(() => {
  db = openDataFile(join(folder, `${count++}.db`)).db;
  stockShelf(db, NOW);
});

const lot = (change: Partial<Lot> = {}): Lot => ({
  of: EPOXY,
  name: 'Kit',
  bought: [
    { part: 'A', amount: 1000 },
    { part: 'B', amount: 900 },
  ],
  boughtOn: '2026-10-01',
  openedOn: null,
  bestBefore: null,
  price: 40,
  ...change,
});
const buy = (id: string, change: Partial<Lot> = {}): void =>
  void edit(db, 'shelf', 'Buy', NOW, (writer) => writer.add('lot', id, lot(change)));
const left = (id: string, part: StockPart): number | undefined =>
  getLot(db, id)?.left.find((one) => one.part === part)?.amount;
let key = 0;
const correct = (lotId: string, part: StockPart, amount: number): string => {
  const id = `movement-${key++}`;
  const data = { lotId, part, amount, kind: 'corrected' as const, at: NOW, note: '' };
  edit(db, 'shelf', 'Weigh', NOW, (writer) => writer.add('movement', id, data));
  return id;
};

describe('the ledger', () => {
  test('what is left is the sum of what moved', () => {
    buy('k');
    correct('k', 'A', -250.5);
    correct('k', 'A', 10);
    expect([left('k', 'A'), left('k', 'B')]).toEqual([759.5, 900]);
    expect(lotHistory(db, 'k').map(({ kind, part, amount, leftAfter }) => [kind, part, amount, leftAfter])).toEqual([
      ['corrected', 'A', 10, 759.5],
      ['corrected', 'A', -250.5, 749.5],
      ['bought', 'B', 900, 900],
      ['bought', 'A', 1000, 1000],
    ]);
  });
  test('the database itself refuses less than nothing, and to change or delete a movement or a lot', () => {
    buy('k');
    expect(() => correct('k', 'B', -900.5)).toThrow('a lot cannot hold less than nothing');
    expect(left('k', 'B')).toBe(900);
    for (const statement of [
      'update movements set amount = 5',
      'delete from movements',
      'delete from lots',
      "insert into movements (lot_id, item_kind, item_id, part, amount, kind, at, note, entered_at) values (null, 'product', 'x', 'A', 1, 'poured', '', '', '')",
      "insert into movements (lot_id, item_kind, item_id, part, amount, kind, at, note, entered_at) values ('no-such-lot', 'product', 'x', 'A', 1, 'poured', '', '', '')",
    ])
      expect(() => db.$client.prepare(statement).run()).toThrow(/never|CHECK|FOREIGN KEY/);
  });
  test('undo and redo are movements too', () => {
    buy('k');
    correct('k', 'A', -100);
    undo(db, 'shelf', NOW);
    expect(left('k', 'A')).toBe(1000);
    redo(db, 'shelf', NOW);
    expect(left('k', 'A')).toBe(900);
    undo(db, 'shelf', NOW);
    expect(left('k', 'A')).toBe(1000);
    expect(lotHistory(db, 'k').filter(({ part }) => part === 'A')).toHaveLength(5);
  });
  test('a lot entered by mistake leaves the books and comes back with what it held', () => {
    buy('k');
    correct('k', 'A', -100);
    edit(db, 'shelf', 'Mistake', NOW, (writer) => writer.remove('lot', 'k', null));
    expect(getLot(db, 'k')).toBeNull();
    expect(stockLevels(db, null, () => false)).toEqual([]);
    undo(db, 'shelf', NOW);
    expect([left('k', 'A'), left('k', 'B')]).toEqual([900, 900]);
    redo(db, 'shelf', NOW);
    undo(db, 'shelf', NOW);
    expect([left('k', 'A'), left('k', 'B')]).toEqual([900, 900]);
  });
  test('what it held when bought, put right, moves what is left by as much', () => {
    buy('k');
    correct('k', 'A', -100);
    edit(db, 'shelf', 'Put right', NOW, (writer) =>
      writer.put(
        'lot',
        'k',
        lot({
          bought: [
            { part: 'A', amount: 1200 },
            { part: 'B', amount: 900 },
          ],
        }),
        null,
      ),
    );
    expect(left('k', 'A')).toBe(1100);
    undo(db, 'shelf', NOW);
    expect(left('k', 'A')).toBe(900);
  });
});

test('of lots that are empty the shelf names the last two, and says how many more there are', () => {
  for (const id of ['a', 'b', 'c', 'd', 'e']) {
    buy(id);
    if (id === 'b') continue;
    correct(id, 'A', -1000);
    correct(id, 'B', -900);
  }
  const { lots, emptied } = lotsInUse(db);
  expect(lots.map(({ id }) => id)).toEqual(['b', 'd', 'e']);
  expect(emptied).toEqual({ 'product coating-epoxy': 2 });
  expect(listLots(db)).toHaveLength(5);
});

describe('levels', () => {
  test('good and expired apart, reservations of others and of its own apart', () => {
    buy('k');
    buy('old', { openedOn: '2026-10-02' });
    reserve(db, 'here', [{ item: EPOXY, part: 'A', amount: 120 }], '', NOW);
    reserve(db, 'there', [{ item: EPOXY, part: 'A', amount: 300 }], '', NOW);
    reserve(db, 'there', [{ item: EPOXY, part: 'A', amount: 200 }], '', NOW);
    const [a] = stockLevels(db, 'here', ({ id }) => id === 'old');
    expect(a).toEqual({
      item: EPOXY,
      part: 'A',
      good: 1000,
      expired: 1000,
      known: true,
      reservedHere: 120,
      reservedElsewhere: 200,
      pricePerUnit: 40 / 1900,
      lots: [expect.objectContaining({ left: 1000 })],
    });
  });
});

/** Undo and redo may have nothing to do, or would take out of a lot what it does not hold: then nothing happens. */
function orRefused(run: () => unknown): void {
  try {
    run();
  } catch (error) {
    if (!(error instanceof EditRefusedError) && !isLessThanNothing(error)) throw error;
  }
}

describe('a poured layer', () => {
  beforeEach(() => loadHeronSlack(db, NOW));
  /** Out of all lots of the epoxy, by where it went. */
  const went = (kinds: readonly string[]): number =>
    (
      db.$client
        .prepare(
          `select coalesce(sum(amount), 0) as sum from movements where item_kind = 'product' and item_id = ? and lot_id is not null and kind in (${kinds.map(() => '?').join()})`,
        )
        .get(EPOXY.id, ...kinds) as { sum: number }
    ).sum;
  const inBottles = (): number =>
    listLots(db)
      .filter(({ data }) => data.of.id === EPOXY.id)
      .reduce((sum, row) => sum + row.left.reduce((all, { amount }) => all + amount, 0), 0);
  /** Of the cups of a batch, and what of stock tints and premixes went into none: as planned, where nothing was read. */
  const weighed = (batch: string): number => {
    const { pours, kept } = batchDetail(db, batch);
    return pours.reduce(
      (all, { layer, cups, tintLeft = kept!.amounts.layers[layer - 1]!.tintLeft }) =>
        all + cups.reduce((sum, cup) => sum + cup.partAGrams + (cup.partBGrams ?? 0), tintLeft.resinGrams),
      0,
    );
  };
  const enter = (pour: PourRecord): void =>
    void edit(db, `set:${HERON_SLACK_ID}`, 'Pour', NOW, (writer) => {
      const data = { ...pour, batchId: BATCH };
      const id = pourId(BATCH, pour.layer);
      if (batchDetail(db, BATCH).pours.some(({ layer }) => layer === pour.layer)) writer.put('pour', id, data, null);
      else writer.add('pour', id, data, HERON_SLACK_ID);
    });

  test('of the sample went out of its kits, all of what was weighed', () => {
    const all = ['hs-batch-1', 'hs-batch-2'].reduce((sum, id) => sum + weighed(id), 0);
    expect(all).toBeGreaterThan(300);
    expect(3000 - inBottles()).toBeCloseTo(all, 6);
    expect(getLot(db, 'hs-kit-2')!.data.openedOn).toBeNull();
  });
  test('cost what its own bottles did: the sum over the batches is what is gone of the lots', () => {
    const spent = spentOnSet(db, HERON_SLACK_ID);
    expect(spent.map(({ batchId }) => batchId).sort()).toEqual(['hs-batch-1', 'hs-batch-2']);
    const gone = (): number =>
      listLots(db).reduce((sum, { data, left: rest }) => {
        const held = data.bought.reduce((all, { amount }) => all + amount, 0);
        const out = held - rest.reduce((all, { amount }) => all + amount, 0);
        return sum + (data.price / held) * out;
      }, 0);
    const money = (): number => spentOnSet(db, HERON_SLACK_ID).reduce((sum, one) => sum + one.money, 0);
    expect(money()).toBeGreaterThan(5);
    expect(money()).toBeCloseTo(gone(), 6);
    // Entered again with more than the lots held: what was found cost nothing twice, and put right again it is as before.
    const [pour] = batchDetail(db, BATCH).pours;
    const before = money();
    enter({ ...pour!, cups: pour!.cups.map((cup, i) => ({ ...cup, partBGrams: i === 0 ? 5000 : cup.partBGrams })) });
    expect(money()).toBeGreaterThan(before);
    enter(pour!);
    expect(money()).toBeCloseTo(before, 6);
  });
  test('takes from the open kit first, then opens the next; its cups and sticks go with it', () => {
    const [pour] = batchDetail(db, BATCH).pours;
    correct('hs-kit-1', 'A', -(left('hs-kit-1', 'A')! - 5));
    enter({ ...pour!, cups: pour!.cups.map((cup) => ({ ...cup, partAGrams: cup.partAGrams + 60 })) });
    // Poured before it was bought, by the books: it counts as opened on the day it was bought.
    expect(getLot(db, 'hs-kit-2')!.data.openedOn).toBe('2026-11-15');
    expect(lotHistory(db, 'hs-kit-2').map(({ kind }) => kind)).toContain('opened');
    const cups = batchDetail(db, 'hs-batch-1').pours.concat(batchDetail(db, 'hs-batch-2').pours);
    expect(left('hs-cups', 'all')).toBe(50 - cups.reduce((sum, one) => sum + one.cups.length, 0));
  });
  test('takes nothing from a kit past its date, unless that was named at the bench', () => {
    const [pour] = batchDetail(db, BATCH).pours;
    buy('old', { name: 'Old kit', openedOn: '2025-01-10', boughtOn: '2025-01-10' });
    enter({
      ...pour!,
      note: 'entered again',
      cups: pour!.cups.map((cup) => ({ ...cup, partAGrams: cup.partAGrams + 1 })),
    });
    expect(left('old', 'A')).toBe(1000);
    enter({ ...pour!, expiredLots: ['old'] });
    // It stands open the longest, so that it comes first.
    const { resinGrams } = batchDetail(db, BATCH).kept!.amounts.layers[0]!.tintLeft;
    const a = pour!.cups.reduce((sum, cup) => sum + cup.partAGrams, resinGrams);
    expect(left('old', 'A')).toBeCloseTo(1000 - a, 6);
    expect(batchDetail(db, BATCH).pours[0]!.expiredLots).toEqual(['old']);
    enter(pour!);
    expect(left('old', 'A')).toBeCloseTo(1000, 6);
  });
  test('takes each cup out of the lot that was named for it, and what that does not hold out of the others', () => {
    const [pour] = batchDetail(db, BATCH).pours;
    buy('mine', { name: 'Mine', openedOn: null, boughtOn: '2026-11-01' });
    const mine = left('mine', 'A')!;
    const ofFirst = left('hs-kit-1', 'A')!;
    const [one, ...others] = pour!.cups;
    enter({ ...pour!, cups: [{ ...one!, pouredGrams: 20, doses: [], pieces: [], lots: ['mine'] }, ...others] });
    expect(left('mine', 'A')).toBeCloseTo(mine - one!.partAGrams, 6);
    expect(left('hs-kit-1', 'A')).toBeCloseTo(ofFirst + one!.partAGrams, 6);
    expect(batchDetail(db, BATCH).pours[0]!.cups[0]!.lots).toEqual(['mine']);
    // It is open from then on.
    expect(getLot(db, 'mine')!.data.openedOn).toBe(pour!.pouredAt.slice(0, 10));
    correct('mine', 'A', -(left('mine', 'A')! - 2));
    enter({
      ...pour!,
      cups: [
        { ...one!, partAGrams: one!.partAGrams + 1, pouredGrams: 20, doses: [], pieces: [], lots: ['mine'] },
        ...others,
      ],
    });
    enter(pour!);
    expect(left('hs-kit-1', 'A')).toBeCloseTo(ofFirst, 6);
  });
  test('takes what is left of its stock tint too, as part A and colourant', () => {
    const [pour] = batchDetail(db, BATCH).pours;
    const before = inBottles();
    const planned = batchDetail(db, BATCH).kept!.amounts.layers[0]!.tintLeft.resinGrams;
    enter({ ...pour!, tintLeft: { resinGrams: 4.2, colours: [] } });
    expect(before - inBottles()).toBeCloseTo(4.2 - planned, 6);
    expect(batchDetail(db, BATCH).pours[0]!.tintLeft).toEqual({ resinGrams: 4.2, colours: [] });
  });
  test('of a coat of another product goes out of the bottles of that one', () => {
    buy('slow', { of: { kind: 'product', id: 'slow-casting-epoxy' } });
    const { id, data } = getDocument(db, 'set', HERON_SLACK_ID)!;
    const build = { coats: [{ productId: 'slow-casting-epoxy', thicknessMm: 2, tint: 'clear' as const }] };
    edit(db, `set:${id}`, 'Coat it', NOW, (writer) => writer.put('set', id, { ...data, build }, null));
    const all = <K extends Parameters<typeof listDocuments>[1]>(kind: K, of?: string) =>
      listDocuments<K>(db, kind, of).records;
    const documents: SetDocuments = {
      set: getDocument(db, 'set', id)!,
      designs: all('design', id),
      pieces: all('piece', id),
      shelf: {
        settings: all('settings')[0]!,
        products: all('product'),
        colourants: all('colourant'),
        recipes: all('recipe'),
        consumables: all('consumable'),
      },
    };
    const batch = getBatch(db, 'hs-batch-3')!;
    const request = batchRequest({ ...documents, clockChanges: [], measuredDays: [] }, batch.data, null)!;
    const amounts = planAmounts(request);
    const top = amounts.layers.at(-1)!;
    expect(top.productId).toBe('slow-casting-epoxy');
    edit(db, `set:${id}`, 'Pour', NOW, (writer) => {
      keepPlan(writer.db, 'hs-batch-3', { request, amounts }, NOW);
      for (const layer of amounts.layers)
        writer.add(
          'pour',
          pourId('hs-batch-3', layer.number),
          {
            batchId: 'hs-batch-3',
            layer: layer.number,
            pouredAt: NOW,
            temperatureC: 20,
            note: '',
            cups: layer.cups.map(({ number, parts }) => ({
              number,
              note: '',
              partAGrams: parts!.partAGrams,
              partBGrams: parts!.partBGrams,
            })),
          },
          id,
        );
    });
    expect(1000 - left('slow', 'A')!).toBeCloseTo(top.parts!.partAGrams, 6);
    expect(900 - left('slow', 'B')!).toBeCloseTo(top.parts!.partBGrams, 6);
    expect(keptPlan(db, 'hs-batch-3')!.amounts.layers.at(-1)!.productId).toBe('slow-casting-epoxy');
  });
  test('of which no lot held enough was found to have been there', () => {
    const [pour] = batchDetail(db, BATCH).pours;
    enter({ ...pour!, cups: pour!.cups.map((cup, i) => ({ ...cup, partBGrams: i === 0 ? 5000 : cup.partBGrams })) });
    expect(went(['found'])).toBeGreaterThan(1000);
    expect(left('hs-kit-1', 'B')! + left('hs-kit-2', 'B')!).toBeCloseTo(0, 6);
    // Put right again, nothing of it is left in the books.
    enter(pour!);
    expect(went(['found', 'poured', 'lost', 'corrected'])).toBeCloseTo(
      -weighed('hs-batch-1') - weighed('hs-batch-2'),
      6,
    );
  });
  test('bottles, pieces and losses balance to 0.1 g over any history of entries, corrections, strikes, undo and redo', () => {
    const pours = batchDetail(db, BATCH).pours;
    const scope = `set:${HERON_SLACK_ID}`;
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.record({
              do: fc.constant('enter' as const),
              layer: fc.integer({ min: 1, max: pours.length }),
              factor: fc.double({ min: 0.2, max: 3, noNaN: true }),
            }),
            fc.record({ do: fc.constantFrom('undo' as const, 'redo' as const, 'strike' as const) }),
            fc.record({ do: fc.constant('weigh' as const), share: fc.double({ min: 0, max: 1, noNaN: true }) }),
          ),
          { maxLength: 12 },
        ),
        (steps) => {
          for (const step of steps) {
            if (step.do === 'enter') {
              const { cups, ...pour } = pours[step.layer - 1]!;
              enter({
                ...pour,
                cups: cups.map((cup) => ({
                  ...cup,
                  partAGrams: cup.partAGrams * step.factor,
                  partBGrams: cup.partBGrams! * step.factor,
                })),
              });
            } else if (step.do === 'undo') orRefused(() => undo(db, scope, NOW));
            else if (step.do === 'redo') orRefused(() => redo(db, scope, NOW));
            else if (step.do === 'weigh') correct('hs-kit-1', 'A', -left('hs-kit-1', 'A')! * step.share);
            else {
              const last = batchDetail(db, BATCH).pours.at(-1);
              if (last)
                edit(db, scope, 'Strike', NOW, (writer) => writer.remove('pour', pourId(BATCH, last.layer), null));
            }
          }
          const all = weighed('hs-batch-1') + weighed('hs-batch-2');
          // Of what is poured now: what holds of it in the books, by where it went.
          const holding = db.$client
            .prepare(
              `select kind, sum(amount) as sum from movements m where item_id = ? and batch_id is not null and lot_id is not null and counters is null
               and not exists (select 1 from movements c where c.counters = m.id) and kind in ('poured', 'lost') group by kind`,
            )
            .all(EPOXY.id) as { kind: string; sum: number }[];
          const booked = -holding.reduce((sum, one) => sum + one.sum, 0);
          expect(Math.abs(booked - all)).toBeLessThan(0.1);
          const everything = (
            db.$client
              .prepare(
                `select sum(amount) as sum from movements where item_kind = 'product' and item_id = ? and lot_id is not null`,
              )
              .get(EPOXY.id) as { sum: number }
          ).sum;
          expect(Math.abs(everything - inBottles())).toBeLessThan(0.1);
          for (const row of listLots(db)) for (const { amount } of row.left) expect(amount).toBeGreaterThanOrEqual(0);
        },
      ),
      { numRuns: 25 },
    );
  });
  test('a batch that is removed gives back what was reserved for it; what was poured stays poured', () => {
    const before = inBottles();
    reserve(db, BATCH, [{ item: EPOXY, part: 'A', amount: 50 }], '', NOW);
    edit(db, `set:${HERON_SLACK_ID}`, 'Remove', NOW, (writer) =>
      writer.remove('batch', BATCH, getBatch(db, BATCH)!.version),
    );
    expect(stockLevels(db, null, () => false).every(({ reservedElsewhere }) => reservedElsewhere === 0)).toBe(true);
    expect(inBottles()).toBeCloseTo(before, 9);
  });
});
