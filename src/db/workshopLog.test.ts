import { sql } from 'drizzle-orm';
import { LOG_KINDS, logAskSchema, type LogAsk, type LogEntry } from '@/core/records/workshopLog';
import { lotUnitPrice } from '@/core/stock/lots';
import { HERON_SLACK_ID, loadHeronSlack } from './demo/heronSlack';
import { openDataFile } from './dataFile';
import { stockShelf } from './defaults';
import { listDocuments } from './documents';
import { edit } from './journal';
import { getBatch } from './batches';
import { currentPours, appendEntry } from './pours';
import { spentOnSet } from './spent';
import { listLots } from './stock';
import type { Database } from './storage';
import { allEntries, logPage, logWeeks } from './workshopLog';

const NOW = '2026-11-26T10:00';
function sample(): Database {
  const { db } = openDataFile(':memory:');
  stockShelf(db, NOW);
  loadHeronSlack(db, NOW);
  return db;
}
const db = sample();
const asked = (ask: Partial<LogAsk>, of: Database = db): LogEntry[] =>
  logPage(of, logAskSchema.parse(ask)).days.flatMap(({ entries }) => entries);
const titles = (ask: Partial<LogAsk>): string[] => asked(ask).map(({ title }) => title);

describe('the log of the workshop', () => {
  test('days come newest first, their entries in the order of the day', () => {
    const { days } = logPage(db, logAskSchema.parse({}));
    expect(days.map(({ day }) => day)).toEqual(
      days
        .map(({ day }) => day)
        .toSorted()
        .reverse(),
    );
    const creek = days.find(({ entries }) => entries.some(({ title }) => title.startsWith('Creek tiles')))!;
    expect(creek.entries.map(({ title }) => title)).toEqual(['Creek tiles, layer 1', 'Creek tiles, layer 2']);
    expect(creek.entries[0]!.said).toEqual(['Bench levelled with two card shims under the west side.']);
    expect(creek.entries[0]!.facts[0]).toMatch(/^\d+\.\d g of .*epoxy in \d cups?, at 19.5 °C: HS-1 × 4, HS-2 × 3$/i);
    expect(creek.entries[0]!.href).toBe(`/sets/${HERON_SLACK_ID}/log?batch=hs-batch-1`);
  });
  test('every entry is of one kind, and stands once; kind by kind they are all', () => {
    const all = [...allEntries(db, logAskSchema.parse({}))].map(({ key }) => key);
    expect(
      asked({})
        .map(({ key }) => key)
        .toSorted(),
    ).toEqual(all.toSorted());
    const byKind = LOG_KINDS.flatMap((kind) => asked({ kinds: [kind] }).map((one) => ({ ...one, asked: kind })));
    expect(byKind.every(({ kind, asked: wanted }) => kind === wanted)).toBe(true);
    expect(byKind.map(({ key }) => key).toSorted()).toEqual(all.toSorted());
    expect(new Set(all).size).toBe(all.length);
  });
  test.each([
    ['a note', 'warm AIR', ['Creek tiles, layer 2']],
    ['a piece', 'SH-A', ['SH-A #2, measured at its edges', 'Shore boards, layer 1']],
    ['all words, not any of them', 'air shims', []],
    ['a bottle that it came out of', 'kit epoxy shore', ['Shore boards, layer 1']],
    ['a customer', 'mudlarks layers', []],
  ])('it is found by %s', (_, words, found) => expect(titles({ words })).toEqual(found));
  test('a percent sign and a quote are letters like others', () => {
    expect(titles({ words: '%' })).toEqual([]);
    expect(titles({ words: 'air_' })).toEqual([]);
    expect(titles({ words: '!' })).toEqual([]);
    expect(titles({ words: "'" })).toEqual([]);
  });
  test('by set: what belongs to none is left out', () => {
    expect(titles({ setId: HERON_SLACK_ID, kinds: ['poured', 'note'] })).toEqual([
      'Shore boards, layer 1',
      'Creek tiles, layer 1',
      'Creek tiles, layer 2',
    ]);
    expect(titles({ setId: 'another' })).toEqual([]);
  });
  test.each([
    ['a product', { kind: 'product', of: 'coating-epoxy' }, /./],
    ['a job', { kind: 'job', of: 'The Mudlarks, a made-up club' }, /layer/],
    ['a piece', { kind: 'piece', of: 'sh-a' }, /^Shore boards/],
  ] as const)('about %s: only what it took part in', (_, about, title) => {
    const [all, found] = [titles({}), titles({ about, kinds: ['poured', 'bought'] })];
    expect(found.length).toBeGreaterThan(0);
    expect(found.length).toBeLessThan(all.length);
    expect(found.every((one) => title.test(one))).toBe(true);
    expect(titles({ about: { ...about, of: 'another' } })).toEqual([]);
  });
  test('about a bottle: that it was bought, what was taken out of it by hand, and batches that took of it', () => {
    const [lot] = listLots(db).filter(({ data: { of } }) => of.id === 'coating-epoxy');
    const found = asked({ about: { kind: 'lot', of: lot!.id } });
    expect(found.find(({ kind }) => kind === 'bought')).toMatchObject({ lotId: lot!.id });
    expect(new Set(found.flatMap(({ lotId }) => lotId ?? []))).toEqual(new Set([lot!.id]));
    expect(found.some(({ kind }) => kind === 'poured')).toBe(true);
    const another = asked({ about: { kind: 'lot', of: 'hs-none' } });
    expect(another).toEqual([]);
  });
  test('the pieces of a set come with its pages, none with those of the workshop', () => {
    expect(logPage(db, logAskSchema.parse({ setId: HERON_SLACK_ID })).pieces.map(({ name }) => name)).toContain(
      'HS-2 Creek bend',
    );
    expect(logPage(db, logAskSchema.parse({})).pieces).toEqual([]);
  });
  test('edges that were measured stand on the day on which they were, with what was read', () => {
    const [seam] = asked({ kinds: ['seam'] });
    expect(seam).toMatchObject({ at: NOW, setId: HERON_SLACK_ID, href: `/sets/${HERON_SLACK_ID}/match` });
    expect(seam!.title).toMatch(/^SH-[AB] #\d, measured at its edges$/);
    expect(seam!.facts.join()).toMatch(/(east|west|north|south): water at \d+\.\d, \d+\.\d, \d+\.\d mm/);
    expect(titles({ kinds: ['seam'], words: 'SH-A' })).toHaveLength(1);
    expect(titles({ kinds: ['seam'], about: { kind: 'piece', of: 'sh-a' } })).not.toEqual([]);
  });
  test('swatches stand on the day on which they were entered; those of before are in no log', () => {
    const own = sample();
    const [ink] = listDocuments(own, 'colourant').records;
    const swatch = { gramsPer100: 0.2, depthMm: 4, ground: '#ffffff', seen: '#88aa99' };
    const swatches = [
      swatch,
      { ...swatch, at: '2026-11-20T18:00' },
      { ...swatch, gramsPer100: 0.4, at: '2026-11-20T18:05' },
    ];
    edit(own, 'log', 'swatches', NOW, (writer) =>
      writer.put('colourant', ink!.id, { ...ink!.data, swatches }, ink!.version),
    );
    const [entry, ...others] = asked({ kinds: ['swatch'] }, own);
    expect(others).toEqual([]);
    expect(entry).toMatchObject({ at: '2026-11-20T18:00', title: `2 swatches of ${ink!.data.name}`, setId: null });
    expect(entry!.facts).toEqual([
      '0.2 g in 100 g, 4 mm over #ffffff: #88aa99',
      '0.4 g in 100 g, 4 mm over #ffffff: #88aa99',
    ]);
    expect(asked({ words: ink!.data.name, kinds: ['swatch'] }, own)).toHaveLength(1);
  });
  test('before a day: the days below it', () => {
    const [, second] = logPage(db, logAskSchema.parse({})).days;
    expect(logPage(db, logAskSchema.parse({ before: second!.day })).days.every(({ day }) => day < second!.day)).toBe(
      true,
    );
  });
  test('what is looked over, handed over and noted stands in it, with accents or without', () => {
    const own = sample();
    const { data } = getBatch(own, 'hs-batch-1')!;
    const copy = { designId: 'hs-1', copy: 1 };
    edit(own, 'log', 'Write', NOW, (writer) => {
      writer.add('note', 'n1', { at: '2026-11-20T21:10', text: 'Méchant: the lid stuck', setId: HERON_SLACK_ID });
      writer.put(
        'batch',
        'hs-batch-1',
        {
          ...data,
          inspections: [
            { ...copy, at: '2026-11-20T20:00', findings: [{ kind: 'tacky' }], outcome: 'mend', note: 'by the stones' },
            { ...copy, copy: 2, at: '2026-11-20T20:05', findings: [], outcome: 'pass', note: '' },
          ],
          fates: [{ ...copy, copy: 2, fate: 'delivered', at: '2026-11-20T21:00', why: '' }],
        },
        null,
      );
    });
    const entries = asked({ kinds: ['looked over', 'became', 'note'] }, own);
    expect(entries.map(({ title, at }) => [at.slice(11), title])).toEqual([
      ['20:00', 'Creek tiles: 2 pieces looked over'],
      ['21:00', 'Creek tiles: 1 piece handed over'],
      ['21:10', 'Note'],
    ]);
    expect(entries[0]!.facts).toEqual(['good as they are: HS-1 #2', 'to mend: HS-1 #1', 'HS-1 #1: tacky']);
    expect(entries[2]!.set).toBe('Heron Slack');
    for (const words of ['mechant', 'MÉCHANT', 'lid stuck'])
      expect([words, asked({ words }, own).length]).toEqual([words, 1]);
    expect(asked({ words: 'tacky stones' }, own)).toHaveLength(1);
  });
});

describe('its sums are the ledger’s', () => {
  const sum = (rule: string): number =>
    db.get<{ sum: number }>(sql.raw(`select coalesce(-sum(amount), 0) as sum from movements where ${rule}`)).sum;
  const weeks = logWeeks(db);
  const all = (of: (week: (typeof weeks)[number]) => number): number => weeks.reduce((total, w) => total + of(w), 0);

  test('grams to a tenth, mixed and lost', () => {
    expect(weeks.length).toBeGreaterThan(0);
    const product = "item_kind = 'product' and batch_id is not null and kind";
    expect(all(({ mixedGrams }) => mixedGrams)).toBeCloseTo(sum(`${product} in ('poured', 'lost', 'thrown away')`), 1);
    expect(all(({ lostGrams }) => lostGrams)).toBeCloseTo(sum(`${product} in ('lost', 'thrown away')`), 1);
    expect(all(({ lostGrams }) => lostGrams)).toBeGreaterThan(1);
  });
  test('money to the cent', () => {
    const price = new Map(listLots(db).map(({ id, data }) => [id, lotUnitPrice(data)]));
    const taken = db.all<{ lot: string; amount: number }>(
      sql`select lot_id as lot, amount from movements where batch_id is not null and lot_id is not null and kind <> 'found'`,
    );
    const money = taken.reduce((total, { lot, amount }) => total - amount * price.get(lot)!, 0);
    expect(all((week) => week.money)).toBeCloseTo(money, 2);
    expect(spentOnSet(db, HERON_SLACK_ID).reduce((total, one) => total + one.money, 0)).toBeCloseTo(money, 2);
  });
  test('a layer that is taken back is in no week', () => {
    const own = sample();
    const [pour] = currentPours(own, 'hs-batch-2');
    appendEntry(own, 'hs-batch-2', pour!, { struck: true, enteredAt: NOW });
    const left = logWeeks(own).reduce((total, { mixedGrams }) => total + mixedGrams, 0);
    const others = sum(
      "item_kind = 'product' and batch_id = 'hs-batch-1' and kind in ('poured', 'lost', 'thrown away')",
    );
    expect(left).toBeCloseTo(others, 1);
    expect(asked({ words: 'shore' }, own)).toEqual([]);
  });
});
