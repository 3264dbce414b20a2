import { fromBottle } from '@/core/pouring/portions';
import fc from 'fast-check';
import { testPiece } from '../bed/testShapes';
import { steadyRoom } from '../cure/conditions';
import { steadyMinutes } from '../time/clockChanges';
import { toWallTime, wallMinutes } from '../time/wallTime';
import { RATIO_GOOD, ratioByWeight } from '../mixing/ratio';
import { PRODUCT_KINDS } from '../mixing/productKinds';
import { surveyBed, withTimes, planAmounts, planTimes, type Plan, type PlanRequest } from '../plan';
import { layerMinutes } from '../plan/pourTimes';
import { testBench, testRequest } from '../plan/testRequest';
import { cupWork } from '../pouring/cupWork';
import { FIRST_PIECE_MINUTES } from '../pouring/handsOn';
import { colourPortionsOf, partGrams, portionWords, readerOf } from '../pouring/portionWords';
import { broughtGrams, colourIn, WAYS } from '../pouring/portions';
import { buildRun } from '../run/buildRun';
import { clocksOf } from '../run/clocks';
import { balanceOf, layerRecord } from '../run/record';
import { layerOf } from '../run/runState';
import { onScale, stepWords } from '../run/say';
import { TestBench } from '../run/testRuns';
import { batchFacts } from '../schedule/facts';
import { pourStep, usualRoute } from '../schedule/routes';
import { batchNeeds } from '../stock/needs';
import { cupTakes, tintTakes } from '../stock/pourMovements';
import { METRIC } from '../units/formatMeasure';
import { readCsv } from './csv';
import { pourCardCsv } from './pourCardCsv';
import { pourReport, pourRequestSchema } from './pourFile';
import { batchOnRoute } from '../schedule/onRoute';

/*
 * Random batches: every kind of product, every way of dosing, builds of two products, cups and scales of all sizes. Whoever tells of
 * a pour (plan, card, labels, CSV, calendar, bench, ledger, command) tells the same; and every gram is somewhere.
 */

const KINDS = PRODUCT_KINDS.filter(({ id }) => id !== 'gloss-medium');
/** Half as long as a tile: what is told of it is the same, and its bed is built in a quarter of the time. */
const SMALL = { kind: 'rectangle', widthMm: 70, lengthMm: 70 } as const;
const INK = { kind: 'ink' as const, absorption: { red: 1, green: 0.3, blue: 0.7 }, bottleGrams: 30, bottlePrice: 6 };
const batches = fc.record({
  product: fc.constantFrom(...KINDS),
  coat: fc.option(fc.constantFrom(...KINDS), { nil: null }),
  recipe: fc.array(
    fc.record({
      grams: fc.double({ min: 0.01, max: 2, noNaN: true }),
      drop: fc.double({ min: 0.02, max: 0.06, noNaN: true }),
    }),
    { maxLength: 3 },
  ),
  sizes: fc.array(fc.record({ rimMm: fc.integer({ min: 8, max: 22 }), depthMm: fc.integer({ min: 1, max: 4 }) }), {
    minLength: 1,
    maxLength: 2,
  }),
  copies: fc.integer({ min: 1, max: 8 }),
  cupGrams: fc.constantFrom(30, 60, 120, 400),
  scaleStepGrams: fc.constantFrom(0.01, 0.1, 0.5, 1),
  roomC: fc.constantFrom(15, 20, 23, 28),
  nightC: fc.constantFrom(12, 18, 20),
  pourAt: fc.integer({ min: 0, max: 10_000 }),
  /** What happens at the bench, step by step. */
  turns: fc.array(
    fc.record({
      what: fc.constantFrom('as asked', 'as asked', 'as asked', 'as asked', 'over', 'discard', 'leave'),
      by: fc.double({ min: 0.05, max: 0.3, noNaN: true }),
    }),
    { minLength: 4, maxLength: 24 },
  ),
});
type BatchOf = typeof batches extends fc.Arbitrary<infer T> ? T : never;

const beds = new Map<string, ReturnType<typeof surveyBed>>();
function requestOf(made: BatchOf): PlanRequest {
  const { product, coat, recipe, sizes, copies, cupGrams, scaleStepGrams, roomC, nightC, pourAt } = made;
  const room = { temperatureC: roomC, humidity: 0.5 };
  const conditions = steadyRoom(room);
  return testRequest({
    pieces: sizes.map(({ rimMm, depthMm }, i) =>
      testPiece([{ kind: 'basin', id: 'b', rimMm, depthMm }], {
        tag: `P-${i}`,
        designId: `p-${i}`,
        copies,
        outline: SMALL,
      }),
    ),
    product,
    ...(coat && { build: { coats: [{ product: coat, thicknessMm: 0.6, tint: 'recipe' as const }] } }),
    recipe: {
      id: 'r',
      name: 'Random',
      doses: recipe.map(({ grams, drop }, i) => ({
        colourant: { ...INK, id: `ink-${i}`, name: `Ink ${i}`, dropGrams: drop },
        gramsPer100: grams,
      })),
    },
    room,
    conditions: { ...conditions, usual: { ...conditions.usual, nightC: Math.min(nightC, roomC) } },
    bench: testBench({ cupGrams, scaleStepGrams }),
    pourAt: toWallTime(wallMinutes('2026-12-01T00:00') + pourAt),
  });
}
const amountsOf = (request: PlanRequest) =>
  planAmounts(request, (design, strays) => {
    const key = JSON.stringify([design.features, strays]);
    const known = beds.get(key) ?? surveyBed(design, undefined, strays);
    beds.set(key, known);
    return known;
  });
const unbroken = (text: string): string => text.replaceAll('\u00a0', ' ');

/** Card, labels, CSV and command read the portions of the plan; what the CSV says is checked against them to the last digit. */
function papersAgree(request: PlanRequest, plan: Plan): void {
  const { scaleStepGrams } = request.bench;
  const { rows } = readCsv(pourCardCsv(plan, request));
  const step = (text: string | undefined, grams: number): void =>
    expect(Math.abs(Number(text) - grams)).toBeLessThanOrEqual(scaleStepGrams / 2 + 1e-6);
  let at = 0;
  for (const layer of plan.layers) {
    const product = [request.product, ...(request.build?.coats ?? []).map((coat) => coat.product)].find(
      ({ id }) => id === (layer.productId ?? request.product.id),
    )!;
    for (const cup of layer.cups) {
      const { steps } = cupWork(cup, product, request.losses);
      for (const pour of steps) {
        const row = rows[at++]!;
        if (product.parts) {
          step(row['part_a_g'], partGrams(cup.portions, 'part A'));
          step(row['part_b_g'], partGrams(cup.portions, 'part B'));
        }
        step(row['pour_g'], pour.grams);
        step(row['cup_shows_g'], pour.cupShowsGrams);
        for (const portion of colourPortionsOf(cup.portions)) {
          const { act } = portionWords(portion, readerOf(product, { units: METRIC, scaleStepGrams, by: 'weight' }));
          expect(row['colourants']).toContain(unbroken(act));
        }
      }
    }
  }
  expect(at).toBe(rows.length);
}

/** The calendar begins and waits by the same windows as the plan. */
function calendarAgrees(request: PlanRequest, plan: Plan): void {
  const facts = batchFacts(request, plan);
  const { steps } = batchOnRoute({ id: 'b', name: 'B', set: 'S', due: null }, facts, usualRoute(facts), []);
  plan.layers.forEach((layer, i) => {
    const own = steps.find(({ id }) => id === pourStep(layer.number))!;
    expect(own.handsOnMinutes).toBe(layerMinutes(layer, request));
    const next = plan.layers[i + 1];
    const waits =
      next && steps.find(({ id }) => id === pourStep(next.number))!.after.find(({ step }) => step === own.id);
    if (!waits) return;
    const label = facts.layers[i]!.product;
    expect(waits.least).toMatchObject({ minutes: label.recoatOpensMinutes, curing: label.curing });
    if (label.recoatClosesMinutes === null) expect(waits.most).toBeUndefined();
    else
      expect(waits.most).toMatchObject({
        minutes: label.recoatClosesMinutes,
        curing: label.curing,
        afterStartMinutes: FIRST_PIECE_MINUTES,
        beforeEndMinutes: own.handsOnMinutes - FIRST_PIECE_MINUTES,
      });
  });
}

/** At the bench, as planned: the scale is told to show what the card says, and clocks ring when the card says. */
function benchAgrees(request: PlanRequest, plan: Plan): void {
  const run = buildRun({
    name: 'B',
    request,
    amounts: plan,
    by: 'weight',
    filler: null,
    now: request.pourAt,
    facts: batchFacts(request, plan),
  });
  const bench = new TestBench({ ...run, ready: [] });
  const [first] = plan.layers;
  for (const cup of first!.cups)
    for (const portion of cup.portions) {
      const { state } = bench;
      const layer = layerOf(state, 1);
      if (fromBottle(layer, layer.cups[0]!)) break;
      while (bench.state.current && !['weigh', 'dose'].includes(bench.state.current.kind)) bench.press();
      const { current } = bench.state;
      const shows = onScale(bench.state, current!);
      if (shows) expect(shows.stopGrams).toBeCloseTo(portion.showsGrams, 6);
      if (current?.kind === 'dose') {
        const reader = readerOf(layer.product, { ...run, units: METRIC });
        expect(stepWords(bench.state, current).under).toContain(portionWords(portion, reader).act);
      }
      bench.press();
      if (portion === cup.portions.at(-1)) {
        const steps = cupWork(cup, layer.product, request.losses).steps;
        for (const pour of steps) {
          while (bench.state.current && bench.state.current.kind !== 'pour') bench.press();
          expect(onScale(bench.state, bench.state.current!)!.stopGrams).toBeCloseTo(pour.cupShowsGrams, 6);
          bench.press();
        }
      }
    }
}

/** Poured at the very minutes of the plan, the clocks at the bench ring when the card says. */
function clocksAgree(request: PlanRequest, plan: Plan): void {
  const [first, second] = plan.layers;
  const run = buildRun({
    name: 'B',
    request,
    amounts: plan,
    by: 'weight',
    filler: null,
    now: request.pourAt,
    facts: batchFacts(request, plan),
  });
  const bench = new TestBench({ ...run, ready: [] });
  const begun = steadyMinutes(wallMinutes(request.pourAt), []);
  const [from, to] = [FIRST_PIECE_MINUTES, layerMinutes(first!, request)];
  const pours = first!.cups.flatMap((cup) => cup.pours).length;
  let poured = 0;
  for (let i = 0; i < 2000 && bench.state.current?.layer === 1 && bench.state.current.kind !== 'wait'; i++) {
    const { current } = bench.state;
    if (current!.kind === 'cover' || current!.kind === 'lamp') break;
    if (current!.kind === 'pour') {
      bench.now = (pours > 1 ? from + ((to - from) * poured) / (pours - 1) : to) * 60_000;
      poured++;
    }
    // The cup may have set by then: it is about the clocks.
    bench.press(current!.kind === 'pour' ? { anyway: 'test' } : {}, 0);
  }
  const due = (kind: string): number | undefined => {
    const clock = clocksOf(bench.state).find((one) => one.kind === kind);
    return clock && begun + clock.due / 60_000;
  };
  const near = (kind: string, wall: string | null, off = 0): void => {
    const at = due(kind);
    if (at !== undefined && wall !== null) expect(Math.abs(at + off - wallMinutes(wall))).toBeLessThan(1.01);
  };
  if (second && pours > 1) {
    near('recoat opens', first!.cure.recoatOpensAt);
    const closes = first!.cure.recoatClosesAt;
    // Said an hour before, where there is as much.
    if (closes && due('recoat closes')! > due('recoat opens')! + 1) near('recoat closes', closes, 60);
  } else if (!second) {
    near('firm', first!.cure.demouldAt);
    near('cured', first!.cure.fullCureAt);
  }
}

/** Whatever happens, each cup has its ratio, and bottle → stock → cup → piece → loss closes. */
function gramsClose(request: PlanRequest, plan: Plan, turns: BatchOf['turns']): void {
  const run = buildRun({
    name: 'B',
    request,
    amounts: plan,
    by: 'weight',
    filler: null,
    now: request.pourAt,
    facts: batchFacts(request, plan),
  });
  const bench = new TestBench({ ...run, ready: [] });
  for (let i = 0; i < 3000 && bench.state.current && bench.state.current.kind !== 'end'; i++) {
    const { state } = bench;
    const step = state.current!;
    const { what, by } = turns[i % turns.length]!;
    const cup = 'cup' in step ? state.cups.find(({ key }) => key === step.cup)! : null;
    const free = i < 150;
    if (state.pending)
      bench.send({
        type: 'decide',
        step: state.pending.step,
        choice: state.pending.verdict === 'over' ? 'mend' : 'more',
      });
    else if (free && what === 'discard' && cup && bench.send({ type: 'discard', cup: cup.key, why: 'test' }) === null)
      continue;
    else if (
      free &&
      what === 'leave' &&
      cup &&
      bench.send({
        type: 'leave',
        cup: cup.key,
        pieces: [`${cup.plan.pours.at(-1)!.copy}:${cup.plan.pours.at(-1)!.designId}`],
      }) === null
    )
      continue;
    else if (step.kind === 'weigh')
      bench.press({ grams: Math.max(0.001, step.targetGrams * (free && what === 'over' ? 1 + by : 1)) }, 1);
    else bench.press(step.kind === 'wait' || step.kind === 'pour' ? { anyway: 'test' } : {}, 1);
  }
  const { state } = bench;
  expect(state.current?.kind).toBe('end');
  const { mixedGrams, inPiecesGrams, inUseGrams, lostGrams, thrownAwayGrams, tintLeftGrams } = balanceOf(state);
  expect(mixedGrams - inPiecesGrams - inUseGrams - lostGrams - thrownAwayGrams - tintLeftGrams).toBeCloseTo(0, 6);
  // What the ledger takes out of the bottles is what was mixed.
  const booked = state.plan.layers.reduce((sum, { number, product }) => {
    const record = layerRecord(state, number);
    if (!record) return sum;
    const cups = record.cups.map((cup) => ({ ...cup, planned: { pouredGrams: 0, mixGrams: 0, doses: [] } }));
    return [...cupTakes(product.id, cups), ...tintTakes(product.id, record.tintLeft, product.parts !== null)].reduce(
      (all, { poured, lost }) => all + poured + lost,
      sum,
    );
  }, 0);
  expect(Math.abs(booked - mixedGrams)).toBeLessThan(0.1);
  for (const cup of [...state.cups]) {
    const { parts } = layerOf(state, cup.layer).product;
    if (!parts || cup.weighed.B === 0) continue;
    const error = (cup.weighed.A + broughtGrams(cup.putIn)) / cup.weighed.B / ratioByWeight(parts) - 1;
    const smaller = Math.min(cup.weighed.A + broughtGrams(cup.putIn), cup.weighed.B);
    expect(Math.abs(error)).toBeLessThanOrEqual(
      Math.max(RATIO_GOOD, (1.5 * request.bench.scaleStepGrams) / smaller) + 1e-6,
    );
  }
}

/** What is needed is what the cups take and what stays of their tint, part by part; the command says the same. */
function needsAgree(request: PlanRequest, plan: Plan): void {
  const needs = batchNeeds(request, plan);
  const need = (id: string, part: string): number =>
    needs.find(({ item, part: own }) => item.id === id && own === part)?.likely ?? 0;
  for (const id of new Set(plan.layers.map(({ productId = request.product.id }) => productId))) {
    const own = plan.layers.filter(({ productId = request.product.id }) => productId === id);
    const portions = own.flatMap(({ cups }) => cups.flatMap((cup) => cup.portions));
    const left = own.reduce((sum, { tintLeft }) => sum + tintLeft.resinGrams, 0);
    const resin = portions.reduce(
      (sum, { way, grams, resinGrams }) => sum + (way === 'part A' || way === 'product' ? grams : resinGrams),
      left,
    );
    const b = portions.reduce((sum, { way, grams }) => sum + (way === 'part B' ? grams : 0), 0);
    expect(need(id, 'A') + need(id, 'all')).toBeCloseTo(resin, 6);
    expect(need(id, 'B')).toBeCloseTo(b, 6);
  }
  for (const { colourant } of request.recipe.doses) {
    const measured = plan.layers.flatMap(({ cups, tintLeft }) => [tintLeft, ...cups.flatMap((cup) => cup.portions)]);
    expect(need(colourant.id, 'all')).toBeCloseTo(colourIn(measured, colourant.id), 9);
  }
  const report = pourReport(pourRequestSchema.parse({ ...pourFileOf(request) })) as {
    layers: { mixes: { portions: unknown }[]; stock: unknown; tintLeft: unknown }[];
  };
  report.layers.forEach((layer, i) => {
    expect(layer.mixes.map(({ portions }) => portions)).toEqual(plan.layers[i]!.cups.map(({ portions }) => portions));
    expect([layer.stock, layer.tintLeft]).toEqual([plan.layers[i]!.stock, plan.layers[i]!.tintLeft]);
  });
}
const pourFileOf = (request: PlanRequest): object => ({
  format: 'aguada.pour-request',
  version: 1,
  request,
  lots: [],
  consumables: [],
});

test('200 random batches are told alike by plan, papers, calendar, bench, clocks, ledger and command', () => {
  const ways = new Set<string>();
  fc.assert(
    fc.property(batches, (made) => {
      const request = requestOf(made);
      const amounts = amountsOf(request);
      if (amounts.problems.some(({ severity }) => severity === 'stop') || amounts.layers.length === 0) return;
      const plan = withTimes(amounts, planTimes(amounts, request));
      for (const { cups } of plan.layers)
        for (const { portions } of cups) for (const { way } of portions) ways.add(way);
      papersAgree(request, plan);
      calendarAgrees(request, plan);
      needsAgree(request, plan);
      benchAgrees(request, plan);
      clocksAgree(request, plan);
      gramsClose(request, plan, made.turns);
    }),
    { numRuns: 225 },
  );
  // Every way of dosing came up.
  expect([...ways].sort()).toEqual(Object.keys(WAYS).sort());
});
