import { TYPICAL_LOSSES } from '../mixing/losses';
import { PER_PIECE_MINUTES, potLifeMinutes, stirMinutesOf } from '../mixing/potLife';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { factsOfStep } from '../schedule/stepKinds';
import { STRAYS } from '../bed/measured';
import { HARDENED } from '../cure/hardened';
import { learntFigures } from './figures';
import type { LearntFigure, Standing } from './learntFigure';
import { recordedWorkSchema, type RecordedCup, type RecordedWork } from './recordedWork';

const { id: EPOXY, ...epoxy } = PRODUCT_KINDS.find(({ id }) => id === 'slow-casting-epoxy')!;
const standing: Standing = {
  losses: TYPICAL_LOSSES,
  products: [{ id: EPOXY, version: 1, data: epoxy }],
  colourants: [],
  strays: STRAYS,
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
  stirMinutes: null,
  clearMinutes: null,
  drops: [],
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

describe('stirring', () => {
  const usual = stirMinutesOf(epoxy);
  const stirred = (stirMinutes: number | null, clearMinutes: number | null, i: number) =>
    cup(i, { stirMinutes, clearMinutes });

  test('is how long it took until the mix was clear, the prior counted as three cups', () => {
    const cups = [usual, usual + 1, usual + 2].map((minutes, i) => stirred(minutes, 2, i));
    const { now, fields } = figure({ cups }, `stirring ${EPOXY}`);
    expect(now.value).toBeCloseTo((3 * usual + 3 * (usual + 3)) / 6, 9);
    expect(fields[0]).toMatchObject({ was: usual, now: usual + 1.5 });
  });

  test('that was cut short says nothing, and never comes out below the usual', () => {
    const cups = [1, 2, 3, 4, 5, 6].map((i) => stirred(usual * (i < 3 ? 0.5 : 0.85), 0, i));
    const { dots, fields, standing: stands } = figure({ cups }, `stirring ${EPOXY}`);
    expect(dots).toHaveLength(4);
    expect(fields[0]!.now).toBe(usual);
    expect(stands).toBe('the same');
  });

  test('that nobody called clear says nothing', () =>
    expect(figure({ cups: [stirred(usual, null, 1), stirred(null, 1, 2)] }, `stirring ${EPOXY}`)).toBeUndefined());
});

describe('hardening', () => {
  const looks = (what: 'recoat' | 'firm' | 'cured', share: number, many = 6): RecordedWork['hardened'] =>
    Array.from({ length: many }, (_, i) => ({
      key: `layer ${i}`,
      at: at(i),
      batchId: `batch ${i}`,
      productId: EPOXY,
      what,
      labelMinutes: epoxy[HARDENED[what]],
      // A cold room: reckoned for longer than the label says.
      reckonedMinutes: 2 * epoxy[HARDENED[what]],
      softMinutes: null,
      firmMinutes: 2 * share * epoxy[HARDENED[what]],
    }));

  test.each(['firm', 'cured'] as const)(
    '%s: the label’s time by what was found, the prior counted as three',
    (what) => {
      const { now, was } = figure({ hardened: looks(what, 0.9) }, `${what} ${EPOXY}`);
      expect(was).toBe(epoxy[HARDENED[what]]);
      expect(now.value).toBeCloseTo((was * (3 + 6 * 0.9)) / 9, 6);
    },
  );

  test('looks of one kind say nothing of another', () =>
    expect(figure({ hardened: looks('firm', 0.8) }, `cured ${EPOXY}`)).toBeUndefined());

  test('firm never comes out after cured, nor cured before firm', () => {
    const soft = looks('firm', 1, 40).map((one) => ({
      ...one,
      firmMinutes: null,
      softMinutes: 9 * one.reckonedMinutes,
    }));
    expect(figure({ hardened: soft }, `firm ${EPOXY}`).fields[0]!.now).toBe(epoxy.fullCureMinutes);
    const early = looks('cured', 0.01, 400);
    expect(figure({ hardened: early }, `cured ${EPOXY}`).fields[0]!.now).toBe(epoxy.demouldMinutes);
  });
});

describe('a drop', () => {
  const ink = {
    name: 'Green ink',
    kind: 'ink' as const,
    absorption: { red: 1, green: 1, blue: 1 },
    dropGrams: 0.04,
    bottleGrams: 30,
    bottlePrice: 6,
  };
  const inks = { ...standing, colourants: [{ id: 'ink', version: 1, data: ink }] };
  const counted = (i: number, count: number, grams: number) => cup(i, { drops: [{ id: 'ink', count, grams }] });

  test('weighs what the scale rose by over its count; a long count says more', () => {
    const { now, unit, fields } = figure(
      { cups: [counted(1, 10, 0.5), counted(2, 30, 0.9), counted(3, 20, 0.7)] },
      'drop ink',
      inks,
    );
    // Weights 1/2, 3/2 and 1 of 50, 30 and 35 mg, against two of 40.
    expect(now.value).toBeCloseTo((2 * 0.04 + 0.5 * 0.05 + 1.5 * 0.03 + 0.035) / 5, 9);
    expect(unit).toBe('g/drop');
    expect(fields[0]!.now).toBe(0.037);
  });

  test('of another colourant says nothing of it', () => {
    const cups = [cup(1, { drops: [{ id: 'wash', count: 20, grams: 1 }] })];
    expect(figure({ cups }, 'drop ink', inks)).toBeUndefined();
  });
});

describe('how beds stray', () => {
  const bed = (i: number, offMm: number[], madeBy: 'by hand' | 'printed' = 'by hand') => ({
    key: `bed ${i}`,
    at: at(i),
    batchId: null,
    madeBy,
    offMm,
  });

  test('two beds, by hand: what readings share is offset, what they differ by is wander', () => {
    const beds = [bed(1, [1, 1.2, 0.8]), bed(2, [-0.7, -1.1, -0.9])];
    const { offsetMm, wanderMm } = STRAYS['by hand'];
    // Freedom 2 each, squares 0.08 each; the prior counts as four beds of two.
    const wander2 = (8 * wanderMm ** 2 + 0.16) / 12;
    const offset2 = (4 * offsetMm ** 2 + (1 - wander2 / 3) + (0.81 - wander2 / 3)) / 6;
    const { now, fields } = figure({ beds }, 'stray by hand');
    expect(now.value).toBeCloseTo(Math.hypot(Math.sqrt(offset2), Math.sqrt(wander2)), 12);
    const rounded = (mm: number) => Math.round(mm * 20) / 20;
    expect(fields.map((one) => one.now)).toEqual([rounded(Math.sqrt(offset2)), rounded(Math.sqrt(wander2))]);
  });

  test('many beds are found again', () => {
    const wave = [-1.5, 0.5, 1.5, -0.5];
    const beds = Array.from({ length: 2000 }, (_, i) =>
      bed(
        i,
        wave.map((off) => (i % 2 === 0 ? 0.9 : -0.9) + 0.2 * off),
      ),
    );
    const { fields } = figure({ beds }, 'stray by hand');
    // Squares 5·0.04 over three of freedom.
    expect(fields.map((one) => one.now)).toEqual([0.9, Math.round(Math.sqrt(0.2 / 3) * 20) / 20]);
  });

  test('of one way say nothing of another, nor do two readings', () => {
    expect(figure({ beds: [bed(1, [1, 1, 1], 'printed'), bed(2, [1, 2])] }, 'stray by hand')).toBeUndefined();
  });
});
