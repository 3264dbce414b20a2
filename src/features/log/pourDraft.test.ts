import { dryPours } from '@/core/records/rest';
import type { PourRecord } from '@/core/records/recordSchemas';
import { TEST_DEFAULTS, testPiece } from '@/core/bed/testShapes';
import { PRODUCT_KINDS } from '@/core/mixing/productKinds';
import { LEVEL_BENCH, planBatch, type PlanRequest } from '@/core/plan';
import { METRIC } from '@/core/units/formatMeasure';
import { firstDraft, pourDraftSchema, pourFromDraft, type PourDraft } from './pourDraft';

const request: PlanRequest = {
  format: 'aguada.plan-request',
  version: 1,
  set: { name: 'S', figureScaleMm: 28, levelMm: 15 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }], { copies: 3 })],
  product: PRODUCT_KINDS[1]!,
  recipe: { id: 'recipe', name: 'Clear', doses: [] },
  room: { temperatureC: 21.5, humidity: 0.5 },
  bench: { windows: [], exceptions: [], cupGrams: 90, scaleStepGrams: 0.1, pricePerCup: 0, tilt: LEVEL_BENCH },
  pourAt: '2026-11-28T10:00',
  poured: [],
  ...TEST_DEFAULTS,
};
const layer = planBatch(request).layers[0]!;
const read = (draft: PourDraft): ReturnType<ReturnType<typeof pourFromDraft>['safeParse']> =>
  pourFromDraft(layer, true, METRIC).safeParse(draft);
const filled = (change: Partial<PourDraft> = {}): PourDraft => ({
  ...firstDraft(layer, request, undefined, '2026-11-28T10:05', METRIC),
  cups: layer.cups.map(() => ({ a: '30', b: '1 oz', note: ' a little over ', pieces: [] })),
  ...change,
});
const complaints = (draft: PourDraft): Record<string, string> =>
  Object.fromEntries((read(draft).error?.issues ?? []).map(({ path, message }) => [path.join('.'), message]));

describe('what is typed after a pour', () => {
  test('starts with the room and the time of day, and nothing weighed', () => {
    const draft = firstDraft(layer, request, undefined, '2026-11-28T10:05', METRIC);
    expect(draft).toMatchObject({ pouredAt: '2026-11-28T10:05', temperature: '21.5', note: '' });
    expect(draft.cups).toEqual(layer.cups.map(() => ({ a: '', b: '', note: '', pieces: [] })));
  });
  test('is read in any unit, cup by cup', () => {
    const pour = read(filled()).data!;
    expect(pour).toMatchObject({ layer: 1, pouredAt: '2026-11-28T10:05', temperatureC: 21.5 });
    expect(pour.cups.map(({ number }) => number)).toEqual(layer.cups.map(({ number }) => number));
    expect(pour.cups[0]!.partBGrams).toBeCloseTo(28.3495, 3);
    expect(pour.cups[0]!.note).toBe('a little over');
  });
  test('what was entered before comes back to be corrected', () => {
    const pour = read(filled({ note: 'no leaks' })).data!;
    const again = firstDraft(layer, request, pour, 'later', METRIC);
    expect(again.pouredAt).toBe('2026-11-28T10:05');
    expect(read(again).data!.cups.map(({ partAGrams }) => partAGrams)).toEqual(pour.cups.map(() => 30));
  });
  test('a cup that is missing is told at its field, with what was planned', () => {
    const cups = filled().cups.map((cup, i) => (i === 0 ? { ...cup, a: '' } : cup));
    expect(complaints(filled({ cups }))).toEqual({
      'cups.0.a': expect.stringMatching(/^Type what the scale showed; planned was \d+\.\d\sg\.$/),
    });
  });
  test.each<[string, Partial<PourDraft>, string]>([
    ['words for a room', { temperature: 'warm' }, 'temperature'],
    ['a room of 200 degrees', { temperature: '200' }, 'temperature'],
    ['no time', { pouredAt: '' }, 'pouredAt'],
  ])('%s is told at its field', (_, change, field) => expect(Object.keys(complaints(filled(change)))).toEqual([field]));
  test('half-typed, it is kept as it is', () => {
    const half = filled({ temperature: '2', cups: [{ a: '12.', b: '', note: '', pieces: [] }] });
    expect(pourDraftSchema.parse(JSON.parse(JSON.stringify(half)))).toEqual(half);
  });
});

/** A layer as a run at the bench has logged it: cups of the plan, or those that are given. */
const fromBench = (cups: PourRecord['cups']): PourRecord => ({
  layer: 1,
  pouredAt: '2026-11-28T10:05',
  temperatureC: 20,
  note: '',
  cups,
});
const BENCH_CUP = {
  partAGrams: 30,
  partBGrams: 25,
  note: '',
  pouredGrams: 20,
  discarded: false,
  doses: [],
  pieces: [],
};

test('what each piece got can be corrected; one that got none is dry, and what was read finely stays so', () => {
  const [one, two] = layer.cups.flatMap(({ pours }) => pours);
  const piece = ({ designId, copy, tag }: typeof one & object, grams: number) => ({ designId, copy, tag, grams });
  const pieces = [piece(one!, 11.2345678), piece(two!, 8.5)];
  const before = fromBench([{ ...BENCH_CUP, number: 1, partAGrams: 30.123456, pieces, pouredGrams: 19.7345678 }]);
  const draft = firstDraft(layer, request, before, 'later', METRIC);
  expect(draft.cups[0]!.pieces).toEqual(['11.23', '8.5']);
  const corrected = (texts: string[], note = ''): ReturnType<typeof read> =>
    pourFromDraft(layer, true, METRIC, before).safeParse({
      ...draft,
      note,
      cups: [{ ...draft.cups[0]!, pieces: texts }],
    });
  expect(corrected(['11.23', '8.5'], 'a word').data).toEqual({ ...before, note: 'a word' });
  expect(corrected(['11.23', '9.5']).data!.cups[0]).toMatchObject({
    partAGrams: 30.123456,
    pouredGrams: expect.closeTo(20.7345678, 9),
    pieces: [pieces[0], { ...pieces[1], grams: 9.5 }],
  });
  const dry = corrected(['0', '8.5']).data!;
  expect(dry.cups[0]!.pieces).toEqual([pieces[1]]);
  expect(dryPours({ cups: [{ ...layer.cups[0]!, pours: [one!, two!] }] }, dry)).toEqual([one]);
  // 55 g were in the cup.
  expect(corrected(['50', '9.5']).error!.issues[0]).toMatchObject({
    path: ['cups', 0, 'pieces', 0],
    message: expect.stringContaining('more than was in the cup'),
  });
  expect(corrected(['', '8.5']).error!.issues[0]!.path).toEqual(['cups', 0, 'pieces', 0]);
});

test('a correction keeps what the bench knew: pieces, losses, and cups that were thrown away', () => {
  const first = layer.cups[0]!;
  const pieces = first.pours.map(({ designId, copy, tag, grams }) => ({ designId, copy, tag, grams }));
  const bench = { pouredGrams: 20, discarded: false, doses: [], pieces };
  const before = fromBench([
    ...layer.cups.map(({ number }) => ({ number, partAGrams: 30, partBGrams: 25, note: '', ...bench })),
    { number: 99, partAGrams: 12, partBGrams: 0, note: 'thrown away: over', ...bench, pouredGrams: 0, discarded: true },
  ]);
  const draft = { ...firstDraft(layer, request, before, '2026-11-28T10:05', METRIC), note: 'a word' };
  const pour = pourFromDraft(layer, true, METRIC, before).parse({
    ...draft,
    cups: draft.cups.map((cup, i) => (i === 0 ? { ...cup, a: '31' } : cup)),
  });
  expect(pour.note).toBe('a word');
  expect(pour.cups[0]).toEqual({ ...before.cups[0], partAGrams: 31 });
  expect(pour.cups.at(-1)).toEqual(before.cups.at(-1));
});

test('of a run that was given up only the mixes that there were are asked for, the added ones too', () => {
  expect(layer.cups.length).toBeGreaterThan(1);
  const before = fromBench([
    { ...BENCH_CUP, number: 1 },
    { ...BENCH_CUP, number: 7, partAGrams: 12 },
  ]);
  const draft = firstDraft(layer, request, before, 'later', METRIC);
  expect(draft.cups.map(({ a }) => a)).toEqual(['30', '12']);
  const [first, added] = draft.cups;
  const pour = pourFromDraft(layer, true, METRIC, before).parse({ ...draft, cups: [first, { ...added, b: '10' }] });
  expect(pour.cups).toEqual([before.cups[0], { ...before.cups[1], partBGrams: 10 }]);
});
