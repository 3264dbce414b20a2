import fc from 'fast-check';
import {
  ABOUT,
  daysAfter,
  logAddress,
  logAskOf,
  logAskSchema,
  logEntry,
  LOG_KINDS,
  mondayOf,
  readableAsk,
  tideFigures,
  weeksInRow,
  type LogPlace,
} from './workshopLog';

const PLACE: LogPlace = {
  key: 'k',
  at: '2026-11-26T20:00',
  setId: 's',
  set: 'Set',
  batchId: 'b',
  name: 'Tiles',
  lotId: null,
  runId: null,
  note: null,
};

describe('weeks', () => {
  test.each([
    ['2026-11-23', '2026-11-23'],
    ['2026-11-29', '2026-11-23'],
    ['2026-11-30', '2026-11-30'],
    ['2027-01-01', '2026-12-28'],
  ])('the Monday of %s is %s', (day, monday) => expect(mondayOf(day)).toBe(monday));
  test('a row holds so many up to the last, known ones in their places', () => {
    const known = { monday: '2026-11-16', mixedGrams: 200, lostGrams: 20, money: 5 };
    const row = weeksInRow([known], '2026-11-26', 3);
    expect(row.map(({ monday, mixedGrams }) => [monday, mixedGrams])).toEqual([
      ['2026-11-09', 0],
      ['2026-11-16', 200],
      ['2026-11-23', 0],
    ]);
  });
  test('a row is a week apart throughout, also over a leap day', () => {
    const row = weeksInRow([], '2028-03-10', 60);
    row.slice(1).forEach(({ monday }, i) => expect(monday).toBe(daysAfter(row[i]!.monday, 7)));
  });
  test('its figures: sums and the fullest, none where nothing was poured', () => {
    const week = (monday: string, mixedGrams: number) => ({ monday, mixedGrams, lostGrams: mixedGrams / 10, money: 1 });
    const figures = tideFigures([week('2026-11-09', 100), week('2026-11-16', 300), week('2026-11-23', 300)]);
    expect(figures).toMatchObject({ mixedGrams: 700, lostGrams: 70, money: 3, fullest: { monday: '2026-11-16' } });
    expect(tideFigures([week('2026-11-09', 0)]).fullest).toBeNull();
  });
});

test('what is asked goes through its address and back', () => {
  fc.assert(
    fc.property(
      fc.record({
        words: fc.string({ maxLength: 80 }).map((text) => text.trim()),
        kinds: fc.subarray([...LOG_KINDS]),
        setId: fc.option(fc.uuid(), { nil: undefined }),
        about: fc.option(
          fc.record({ kind: fc.constantFrom(...ABOUT), of: fc.string({ minLength: 1, maxLength: 120 }) }),
          { nil: undefined },
        ),
        before: fc.constantFrom(undefined, '2026-11-26'),
      }),
      (ask) => {
        const whole = logAskSchema.parse(JSON.parse(JSON.stringify(ask)));
        expect(logAskOf(new URLSearchParams(logAddress(whole)))).toEqual(whole);
      },
    ),
  );
});

test('a page whose address cannot be read shows everything; one that can, what it says', () => {
  const everything = { words: '', kinds: [] };
  for (const address of ['before=yesterday', 'kinds=moon', 'about=moon:1', 'about=lot', `words=${'x'.repeat(81)}`])
    expect(readableAsk(new URLSearchParams(address))).toEqual(everything);
  expect(readableAsk(new URLSearchParams('kinds=run'))).toEqual({ words: '', kinds: ['run'] });
  expect(() => logAskOf(new URLSearchParams('before=yesterday'))).toThrow('A date such as');
});

describe('an entry', () => {
  test('of a pour names its pieces, what was lost and thrown away, and nothing that was not', () => {
    const record = {
      kind: 'poured',
      layer: 2,
      product: 'coating epoxy',
      cups: 2,
      discarded: 1,
      mixedGrams: 212.44,
      lostGrams: 9.8,
      money: 14.2,
      temperatureC: 19.5,
      pieces: [
        { tag: 'HS-1', copies: 4 },
        { tag: 'HS-2', copies: 1 },
      ],
      notes: ['', 'Dripped'],
    } as const;
    expect(logEntry(PLACE, record)).toMatchObject({
      title: 'Tiles, layer 2',
      facts: [
        '212.4 g of coating epoxy in 2 cups, at 19.5 °C: HS-1 × 4, HS-2',
        '9.8 g of it reached no piece',
        '1 cup thrown away',
      ],
      said: ['Dripped'],
      price: 14.2,
      href: '/sets/s/log?batch=b',
    });
    const plain = logEntry(PLACE, { ...record, cups: 1, discarded: 0, lostGrams: 0, pieces: [], notes: [] });
    expect(plain.facts).toEqual(['212.4 g of coating epoxy in 1 cup, at 19.5 °C']);
  });
  test('of a run says how long, that it was given up, or that it goes on', () => {
    const run = (minutes: number | null, givenUp: string | null) =>
      logEntry({ ...PLACE, runId: 'r' }, { kind: 'run', minutes, givenUp, notes: [] });
    expect(run(1, null)).toMatchObject({ facts: ['1 minute from first press to last'], href: '/run/r' });
    expect(run(42.4, 'no light').facts).toEqual(['42 minutes from first press to last', 'given up: no light']);
    expect(run(null, null).facts).toEqual(['It goes on.']);
    expect(run(3, '').facts[1]).toBe('given up');
  });
  test('of pieces gathers copies of one design, those in a row from the first to the last', () => {
    const became = (copies: { tag: string; copy: number }[]) =>
      logEntry(PLACE, { kind: 'became', fate: 'delivered', copies: copies.map((one) => ({ ...one, why: '' })) });
    const four = [3, 1, 2].map((copy) => ({ tag: 'HS-1', copy }));
    expect(became([...four, { tag: 'HS-2', copy: 7 }])).toMatchObject({
      title: 'Tiles: 4 pieces handed over',
      facts: ['HS-1 #1 to #3, HS-2 #7'],
    });
    expect(became([{ tag: 'HS-2', copy: 7 }]).title).toBe('Tiles: 1 piece handed over');
  });
  test('of the shelf says how much of what', () => {
    const lot = { ...PLACE, setId: null, batchId: null, name: 'Kit 1', lotId: 'l' };
    const bought = logEntry(lot, {
      kind: 'bought',
      item: 'Coating epoxy',
      of: 'product',
      amounts: [
        { part: 'A', amount: 532 },
        { part: 'B', amount: 468 },
      ],
      price: 26,
    });
    expect(bought).toMatchObject({
      title: 'Coating epoxy, Kit 1: bought',
      facts: ['532.0 g of part A, 468.0 g of part B'],
      price: 26,
      href: '/shelf?to=l',
    });
    const gone = { kind: 'shelf', did: 'thrown away', item: 'Gloves', of: 'consumable', note: 'torn' } as const;
    expect(logEntry(lot, { ...gone, amounts: [{ part: 'all', amount: -4 }] })).toMatchObject({
      title: 'Gloves, Kit 1: thrown away',
      facts: ['4 pieces'],
      said: ['torn'],
    });
  });
});
