import { testPiece } from '../bed/testShapes';
import { planBatch } from '../plan';
import { testBench, testRequest } from '../plan/testRequest';
import { buildRun } from '../run/buildRun';
import { TestBench } from '../run/testRuns';
import type { RunState } from '../run/runState';
import { copyFacts, cupsOfCopy, type BatchRecord } from './copyFacts';
import type { CopyInspection, PourRecord, WeighedCup } from './recordSchemas';
import { neighboursOf, whyOf } from './why';

/** Three tiles, two to a cup. */
const request = testRequest({
  pieces: [{ ...testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }]), copies: 3 }],
});
const all = planBatch(request);
const own = planBatch({ ...request, bench: testBench({ cupGrams: all.layers[0]!.mixGrams * 0.7 }) });
const [layer] = own.layers;
const designId = own.pieces[0]!.designId;
const piece = (copy: number) => ({ designId, copy });
/** A layer as the log has it: each planned cup as it was planned, unless told otherwise. */
const entry = (
  change: (cup: WeighedCup) => Partial<WeighedCup> = () => ({}),
  more: Partial<PourRecord> = {},
): PourRecord => ({
  layer: 1,
  pouredAt: '2026-11-28T10:00',
  temperatureC: 19,
  note: '',
  cups: layer!.cups.map(({ number, parts, pours }) => {
    const cup: WeighedCup = {
      number,
      partAGrams: parts!.partAGrams,
      partBGrams: parts!.partBGrams,
      note: '',
      pieces: pours.map(({ designId: id, copy, tag, grams }) => ({ designId: id, copy, tag, grams })),
    };
    return { ...cup, ...change(cup) };
  }),
  ...more,
});
const record = (change: Partial<BatchRecord> = {}): BatchRecord => ({
  request,
  amounts: own,
  pours: [entry()],
  runs: [],
  days: [],
  monthsPast: [],
  ...change,
});
const cupOf = (copy: number): number => layer!.cups.find(({ pours }) => pours.some((one) => one.copy === copy))!.number;

test('the plan has two cups, so that neighbours can be told apart', () => {
  expect(own.layers).toHaveLength(1);
  expect(layer!.cups.map(({ pours }) => pours.length)).toEqual([2, 1]);
});

test('what nobody recorded is not known', () => {
  const facts = copyFacts(record(), piece(1));
  for (const fact of [
    'stirredShare',
    'scraped',
    'coldestC',
    'humidity',
    'monthsPast',
    'looked',
    'sealed',
    'recoatLate',
  ] as const)
    expect([fact, facts[fact]]).toEqual([fact, null]);
  expect(facts).toMatchObject({ pouredC: 19, labelC: request.product.referenceC });
  expect(facts.ratioOff).toBeCloseTo(0, 9);
  expect(facts.gramsOff).toBeCloseTo(0, 9);
});

test('ratio and grams are those of its own cup and piece', () => {
  const wrong = record({
    pours: [
      entry(({ number, partBGrams, pieces }) =>
        number === cupOf(1)
          ? {
              partBGrams: partBGrams! * 0.9,
              pieces: pieces!.map((one) => (one.copy === 1 ? { ...one, grams: one.grams * 0.8 } : one)),
            }
          : {},
      ),
    ],
  });
  const other = layer!.cups[1]!.pours[0]!.copy;
  const mine = copyFacts(wrong, piece(1));
  expect(mine.ratioOff).toBeCloseTo(1 / 0.9 - 1, 9);
  expect(mine.gramsOff).toBeCloseTo(-0.2, 9);
  const theirs = copyFacts(wrong, piece(other));
  expect(theirs.ratioOff).toBeCloseTo(0, 9);
  expect(theirs.gramsOff).toBeCloseTo(0, 9);
});

test('where only weights were entered by hand, its cups are those of the plan, and nothing is known of its grams', () => {
  const byHand = entry((cup) => ({
    pieces: undefined,
    partBGrams: cup.number === cupOf(1) ? cup.partBGrams! * 2 : cup.partBGrams,
  }));
  for (const cup of byHand.cups) delete cup.pieces;
  expect(cupsOfCopy(layer!, byHand, piece(1)).map(({ number }) => number)).toEqual([cupOf(1)]);
  const facts = copyFacts(record({ pours: [byHand] }), piece(1));
  expect(facts.ratioOff).toBeCloseTo(-0.5, 9);
  expect(facts.gramsOff).toBeNull();
});

test('the room counts for three days from the pour, the coldest and the dampest of it', () => {
  const day = (date: string, nightC: number, humidity: number) => ({ date, dayC: 21, nightC, humidity });
  const days = [
    day('2026-11-27', 2, 0.9),
    day('2026-11-28', 15, 0.5),
    day('2026-11-30', 12.5, 0.7),
    day('2026-12-01', 3, 0.95),
  ];
  expect(copyFacts(record({ days }), piece(1))).toMatchObject({ coldestC: 12.5, humidity: 0.7 });
});

test('of its bottles the oldest counts', () => {
  expect(copyFacts(record({ monthsPast: [-3, 4, 1] }), piece(1)).monthsPast).toBe(4);
});

test('a layer that went on too late or too early is told by its window, however well the rest went', () => {
  const deep = testRequest({ pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 9 }])] });
  const amounts = planBatch(deep);
  expect(amounts.layers.length).toBeGreaterThan(1);
  const { recoatOpensMinutes, recoatClosesMinutes } = deep.product;
  const poured = (layerNumber: number, pouredAt: string): PourRecord => ({
    ...entry(),
    layer: layerNumber,
    pouredAt,
    pouredUntil: pouredAt,
    cups: amounts.layers[layerNumber - 1]!.cups.map(({ number, parts }) => ({
      number,
      partAGrams: parts!.partAGrams,
      partBGrams: parts!.partBGrams,
      note: '',
    })),
  });
  const after = (minutes: number): ReturnType<typeof copyFacts> => {
    const at = new Date(Date.parse('2026-11-28T10:00Z') + minutes * 60_000).toISOString().slice(0, 16);
    const pours = [poured(1, '2026-11-28T10:00'), poured(2, at)];
    return copyFacts(
      { ...record(), request: deep, amounts, pours },
      { designId: amounts.pieces[0]!.designId, copy: 1 },
    );
  };
  const within = after((recoatOpensMinutes + recoatClosesMinutes!) / 2);
  expect(within.recoatEarly).toBeLessThan(0);
  expect(within.recoatLate).toBeLessThan(0);
  expect(after(recoatOpensMinutes / 2).recoatEarly).toBeGreaterThan(0);
  const late = after(recoatClosesMinutes! * 1.5);
  expect(late.recoatLate).toBeGreaterThan(0.3 * recoatClosesMinutes!);
  expect(late.recoatLate).toBeLessThan(0.6 * recoatClosesMinutes!);
});

describe('of a run', () => {
  /** A run of the batch; `stirMinutes`: how long each cup was stirred. */
  function run(stirMinutes: number, skips: string[] = []): RunState {
    const bench = new TestBench(
      buildRun({
        name: 'B',
        request,
        amounts: own,
        facts: { dammed: 0, moulds: 0 },
        by: 'weight',
        now: '2026-11-28T10:00',
        filler: null,
      }),
    );
    for (let i = 0; i < 300 && bench.state.current && bench.state.current.kind !== 'cover'; i++) {
      const { current } = bench.state;
      const name = current.kind === 'ready' ? current.item.id : current.kind;
      if (skips.includes(name)) bench.send({ type: 'skip', step: current.id, why: 'no time' });
      else bench.press({}, current.kind === 'stir' ? stirMinutes * 60 : 10);
    }
    return bench.state;
  }
  const pours = (state: RunState): PourRecord[] => [
    entry(({ number }) => ({
      pieces: state.cups
        .filter((cup) => cup.number === number)
        .flatMap(({ poured }) =>
          poured.map(({ designId: id, copy, tag, grams }) => ({ designId: id, copy, tag, grams })),
        ),
    })),
  ];

  test('stirring, scraping, what was ready, the pot life', () => {
    const good = run(6);
    const facts = copyFacts(record({ runs: [good], pours: pours(good) }), piece(1));
    expect(facts.stirredShare).toBeGreaterThan(0.99);
    expect(facts).toMatchObject({
      scraped: true,
      sealed: true,
      levelled: true,
      leaked: null,
      leakTested: null,
      looked: false,
    });
    expect(facts.potLate).toBeLessThan(0);
    const hasty = run(0.5, ['scrape', 'bed', 'level']);
    const bad = copyFacts(record({ runs: [hasty], pours: pours(hasty) }), piece(1));
    expect(bad.stirredShare).toBeLessThan(0.5);
    expect(bad).toMatchObject({ scraped: false, sealed: false, levelled: false });
  });

  test('a leak is told of the cup that leaked, not of one whose number begins alike', () => {
    const state = run(6);
    const dammed = {
      ...own,
      pieces: own.pieces.map((one) => ({ ...one, dams: [{ lengthMm: 60 }] as unknown as typeof one.dams })),
    };
    const { key } = state.cups.find(({ poured }) => poured.some(({ copy }) => copy === 1))!;
    const leakOf = (cup: string): boolean | null => {
      const answers = new Map([[`${cup}.leak.0`, { did: 'leak closed', at: 0 }]]) as unknown as RunState['answers'];
      return copyFacts(record({ runs: [{ ...state, answers }], amounts: dammed, pours: pours(state) }), piece(1))
        .leaked;
    };
    expect(leakOf(key)).toBe(true);
    expect(leakOf(`${key}0`)).toBe(false);
  });

  test('a hasty stir is named before anything else where the cup is tacky', () => {
    const hasty = run(0.5);
    const why = whyOf(record({ runs: [hasty], pours: pours(hasty) }), {}, piece(1), 'tacky', {
      now: '2026-12-20T10:00',
      curedAt: null,
    });
    expect(why.causes[0]).toMatchObject({ id: 'stirring' });
    expect(why).toMatchObject({ enough: true, early: null });
    expect(
      whyOf(record(), {}, piece(1), 'tacky', { now: '2026-11-29T10:00', curedAt: '2026-12-03T10:00' }).early,
    ).toMatch('too early');
  });
});

test('neighbours are counted by cup, each by the last word on it', () => {
  const [mate] = layer!.cups[0]!.pours.filter(({ copy }) => copy !== layer!.cups[0]!.pours[0]!.copy);
  const me = layer!.cups[0]!.pours[0]!.copy;
  const other = layer!.cups[1]!.pours[0]!.copy;
  const said = (copy: number, at: string, tacky: boolean): CopyInspection => ({
    designId,
    copy,
    at,
    findings: tacky ? [{ kind: 'tacky' }] : [],
    outcome: tacky ? 'mend' : 'pass',
    note: '',
  });
  const inspections = [
    said(me, '2026-12-01T10:00', true),
    said(mate!.copy, '2026-12-01T10:00', true),
    said(other, '2026-12-01T10:00', true),
    said(other, '2026-12-02T10:00', false),
  ];
  expect(neighboursOf(record(), { inspections }, piece(me), 'tacky')).toEqual({
    sameCup: { looked: 1, with: 1 },
    otherCups: { looked: 1, with: 0 },
  });
  expect(neighboursOf(record(), { inspections }, piece(me), 'crack')).toEqual({
    sameCup: { looked: 1, with: 0 },
    otherCups: { looked: 1, with: 0 },
  });
});
