import { TYPICAL_LOSSES } from '../mixing/losses';
import { PER_PIECE_MINUTES, potLifeMinutes } from '../mixing/potLife';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { factsOfStep } from '../schedule/stepKinds';
import { learntFigures, type LearntFigure, type Standing } from './figures';
import { recordedWorkSchema, type RecordedCup, type RecordedWork } from './recordedWork';

const { id: EPOXY, ...epoxy } = PRODUCT_KINDS.find(({ id }) => id === 'slow-casting-epoxy')!;
const standing: Standing = {
  losses: TYPICAL_LOSSES,
  products: [{ id: EPOXY, version: 1, data: epoxy }],
  stepMinutes: {},
};
const nothing = recordedWorkSchema.parse({});
const figure = (work: Partial<RecordedWork>, id: string, at: Standing = standing): LearntFigure =>
  learntFigures({ ...nothing, ...work }, at).find((one) => one.id === id)!;
const at = (i: number): string => `2026-0${1 + (i % 9)}-11T10:00`;
const cup = (i: number, more: Partial<RecordedCup> = {}): RecordedCup => ({
  key: `cup ${i}`,
  at: at(i),
  batchId: `batch ${i >> 1}`,
  productId: EPOXY,
  temperatureC: 20,
  mixGrams: 100,
  pouredGrams: 97,
  pieces: 4,
  thickMinutes: null,
  pours: [],
  ...more,
});
/** Cups of many sizes of which exactly so much stays behind. */
const losing = (a: number, b: number, c: number, many: number): RecordedCup[] =>
  Array.from({ length: many }, (_, i) => {
    const [mixGrams, pieces] = [40 + ((i * 53) % 160), 1 + (i % 6)];
    return cup(i, { mixGrams, pieces, pouredGrams: mixGrams - (a + b * mixGrams + c * pieces) });
  });

describe('losses', () => {
  test('of many cups come out at what was lost, rounded to what is known of them', () => {
    const found = figure({ cups: losing(0.8, 0.012, 0.15, 600) }, 'losses');
    expect(found.fields.map(({ now }) => now)).toEqual([0.8, 0.012, 0.15]);
    expect(found).toMatchObject({ standing: 'offered', counted: 600, batches: 300 });
  });

  test('of few cups lie between what was supposed and what was lost', () => {
    const { now, was } = figure({ cups: losing(0.5, 0.01, 0.1, 4) }, 'losses');
    const seen = figure({ cups: losing(0.5, 0.01, 0.1, 600) }, 'losses').now.value;
    expect(now.value).toBeLessThan(was);
    expect(now.value).toBeGreaterThan(seen * 1.1);
  });

  test('as they are planned offer nothing', () => {
    const { perCupGrams, share, perPieceGrams } = TYPICAL_LOSSES;
    expect(figure({ cups: losing(perCupGrams, share, perPieceGrams, 9) }, 'losses').standing).toBe('the same');
  });

  test('a cup that was spilt is shown and not counted, unless the maker says so', () => {
    const cups = [...losing(0.8, 0.012, 0.15, 12), cup(99, { pouredGrams: 20 })];
    const found = figure({ cups }, 'losses');
    expect(found.dots.at(-1)).toMatchObject({ key: 'cup 99', far: true, counted: false });
    expect(found.counted).toBe(12);
    const learning = { answers: {}, turned: ['losses cup 99'] };
    const turned = figure({ cups }, 'losses', { ...standing, learning });
    expect(turned.counted).toBe(13);
    expect(turned.now.value).toBeGreaterThan(found.now.value);
  });

  test('taken over start from the same prior: nothing is counted twice', () => {
    const cups = losing(0.8, 0.012, 0.15, 12);
    const first = figure({ cups }, 'losses');
    const [perCupGrams, share, perPieceGrams] = first.fields.map(({ now }) => now) as [number, number, number];
    const learning = {
      answers: { losses: { before: first.before, after: [perCupGrams, share, perPieceGrams], seen: 12 } },
      turned: [],
    };
    const again = figure({ cups }, 'losses', { ...standing, losses: { perCupGrams, share, perPieceGrams }, learning });
    expect(again.standing).toBe('taken');
    expect(again.before).toEqual(first.before);
    expect(again.now).toEqual(first.now);
  });

  test('that the maker has typed since are the prior from then on', () => {
    const learning = {
      answers: { losses: { before: [1.5, 0.02, 0.3], after: [0.9, 0.01, 0.2], seen: 12 } },
      turned: [],
    };
    const typed = { perCupGrams: 3, share: 0.02, perPieceGrams: 0.3 };
    expect(figure({ cups: [cup(1)] }, 'losses', { ...standing, losses: typed, learning }).before).toEqual([
      3, 0.02, 0.3,
    ]);
  });

  test('refused are offered again with half as many more', () => {
    const learning = { answers: { losses: { before: [1.5, 0.02, 0.3], after: null, seen: 8 } }, turned: [] };
    const of = (many: number) =>
      figure({ cups: losing(0.5, 0, 0, many) }, 'losses', { ...standing, learning }).standing;
    expect([of(8), of(11), of(12)]).toEqual(['refused', 'refused', 'offered']);
  });
});

test('fewer than three observations offer nothing', () => {
  expect(figure({ cups: losing(0.1, 0, 0, 2) }, 'losses').standing).toBe('too few');
  expect(figure({ cups: losing(0.1, 0, 0, 3) }, 'losses').standing).toBe('offered');
});

test('a figure of which nothing is on record is not there', () => {
  expect(learntFigures(nothing, standing)).toEqual([]);
});

describe('pouring pace', () => {
  const poured = (many: number, grams: number, gramsPerMinute: number): RecordedCup[] => [
    cup(1, { pours: Array(many).fill({ grams, minutes: PER_PIECE_MINUTES + grams / gramsPerMinute }) }),
  ];

  test('of pieces of one size: the minutes a gram, the prior counted as three of them', () => {
    const { now, counted } = figure({ cups: poured(9, 20, 30) }, `pace ${EPOXY}`);
    expect(counted).toBe(9);
    expect(now.value).toBeCloseTo(12 / (3 / epoxy.pourGramsPerMinute + 9 / 30), 9);
  });

  test('an hour for one piece is a clock that was wrong', () => {
    const cups = poured(9, 20, 30);
    cups[0]!.pours.push({ grams: 20, minutes: 61 });
    const { dots, counted } = figure({ cups }, `pace ${EPOXY}`);
    expect(counted).toBe(9);
    expect(dots.at(-1)).toMatchObject({ counted: false });
  });

  test('a slow pace is told to half a gram, a quick one to a gram', () => {
    const told = (gramsPerMinute: number): number =>
      figure({ cups: poured(2000, 20, gramsPerMinute) }, `pace ${EPOXY}`).fields[0]!.now;
    expect([told(12.4), told(19.6), told(20.4), told(41.7)]).toEqual([12.5, 19.5, 20, 42]);
  });

  test('pieces of another product say nothing', () => {
    expect(
      figure({ cups: poured(9, 20, 30).map((one) => ({ ...one, productId: 'gel' })) }, `pace ${EPOXY}`),
    ).toBeUndefined();
  });
});

test('a pot life is brought to the label: as the law has it in a warm room and a large cup, nothing changes', () => {
  const cups = [20, 23, 26, 18].map((temperatureC, i) =>
    cup(i, { temperatureC, mixGrams: 80 + 40 * i, thickMinutes: potLifeMinutes(epoxy, temperatureC, 80 + 40 * i) }),
  );
  const same = figure({ cups }, `pot life ${EPOXY}`);
  expect(same.now.value).toBeCloseTo(epoxy.potLifeMinutes, 9);
  expect(same.standing).toBe('the same');
  const shorter = figure(
    { cups: cups.map((one) => ({ ...one, thickMinutes: one.thickMinutes! * 0.8 })) },
    `pot life ${EPOXY}`,
  );
  // Two of the prior at the label, four at four fifths of it.
  expect(shorter.now.value).toBeCloseTo((epoxy.potLifeMinutes * (2 + 4 * 0.8)) / 6, 9);
});

test('of a pot life only cups that drew threads speak, and only where a product sets in the cup', () => {
  const thick = Array.from({ length: 4 }, (_, i) => cup(i, { thickMinutes: 30 }));
  const found = figure({ cups: [...thick, cup(8), cup(9, { thickMinutes: 0 })] }, `pot life ${EPOXY}`);
  expect(found.dots.map(({ key }) => key)).toEqual(['cup 0', 'cup 1', 'cup 2', 'cup 3']);
  expect(figure({ cups: [cup(1)] }, `pot life ${EPOXY}`)).toBeUndefined();
  const dries = {
    ...standing,
    products: [{ id: EPOXY, version: 1, data: { ...epoxy, cureModel: 'water-borne' as const } }],
  };
  expect(figure({ cups: thick }, `pot life ${EPOXY}`, dries)).toBeUndefined();
});

test('shrinkage: what a level lies low by, over its depth, went with the volume; a batch counts once', () => {
  const level = (i: number, lowMm: number, of: number) => ({
    key: `piece ${i}`,
    at: at(i),
    batchId: `batch ${Math.floor(i / of)}`,
    productId: EPOXY,
    lowMm,
    depthMm: 10,
    shrinkage: 0.01,
    of,
  });
  const levels = Array.from({ length: 12 }, (_, i) => level(i, 0.2, 2));
  const found = figure({ levels }, `shrinkage ${EPOXY}`);
  // 1 − 0.99·0.98, in six batches against a prior of three.
  expect(found.now.value).toBeCloseTo((3 * epoxy.shrinkage + 6 * (1 - 0.99 * 0.98)) / 9, 9);
  expect(found.batches).toBe(6);
  expect(figure({ levels: levels.map((one) => ({ ...one, lowMm: 0 })) }, `shrinkage ${EPOXY}`).standing).toBe(
    'the same',
  );
});

test('the price of a pack: brought to its size, half a year old counts half', () => {
  const pack = (day: string, grams: number, price: number) => ({
    key: `lot ${day}`,
    at: `${day}T12:00`,
    batchId: null,
    productId: EPOXY,
    grams,
    price,
  });
  const { packGrams: size, packPrice: typical } = epoxy;
  const { now, dots } = figure(
    { packs: [pack('2026-01-01', size, 40), pack('2026-07-02', size * 2, 120)] },
    `price ${EPOXY}`,
  );
  expect(dots.map(({ value }) => value)).toEqual([40, 60]);
  expect(now.value).toBeCloseTo((typical + 0.5 * 40 + 60) / 2.5, 6);
});

test('minutes of a step: a batch and a piece alike, against the usual ones', () => {
  const usual = factsOfStep('dam');
  const steps = [3, 6, 9, 12].map((pieces, i) => ({
    key: `step ${i}`,
    at: at(i),
    batchId: `batch ${i}`,
    kind: 'dam' as const,
    minutes: 1.6 * (usual.perBatchMinutes + pieces * usual.perPieceMinutes),
    pieces,
  }));
  const { now, fields } = figure({ steps }, 'step dam');
  // Two of the prior at 1, four at 1.6.
  expect(now.value).toBeCloseTo(1.4, 9);
  expect(fields.map((one) => one.now)).toEqual([usual.perBatchMinutes * 1.4, to(usual.perPieceMinutes * 1.4)]);
});
test('minutes of a step that is the workshop’s own already: the prior is that, and other steps say nothing of it', () => {
  const usual = factsOfStep('dam');
  const twice = { perBatchMinutes: 2 * usual.perBatchMinutes, perPieceMinutes: 2 * usual.perPieceMinutes };
  const step = (i: number, kind: 'dam' | 'paint', minutes: number) => ({
    key: `${kind} ${i}`,
    at: at(i),
    batchId: `batch ${i}`,
    kind,
    minutes,
    pieces: 4,
  });
  const reckoned = usual.perBatchMinutes + 4 * usual.perPieceMinutes;
  const steps = [1, 2, 3, 4].flatMap((i) => [step(i, 'dam', 2.6 * reckoned), step(i, 'paint', 1)]);
  const found = figure({ steps }, 'step dam', { ...standing, stepMinutes: { dam: twice } });
  expect(found.was).toBeCloseTo(2, 9);
  expect(found.dots.map(({ key }) => key)).toEqual(['dam 1', 'dam 2', 'dam 3', 'dam 4']);
  // Two of the prior at twice the usual, four at 2.6 times.
  expect(found.now.value).toBeCloseTo(2.4, 9);
  expect(found.fields[0]!.now).toBe(Math.round(2.4 * usual.perBatchMinutes));
});
const to = (value: number): number => Math.round(value * 10) / 10;
