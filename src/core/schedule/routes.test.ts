import { courseSchema, idleSteps, usualRoute, type StepMark } from './routes';
import { schedule } from './solve';
import { productFactsOf, testBatch, testFacts, testWorkshop } from './testWorkshop';
import { calendarRequest } from './workplace';
import { verifyPlan } from './verify';
import { batchOnRoute } from './onRoute';

const named = { id: 'b', name: 'Batch', set: 'Set', due: null };
const stepsOf = (facts = testFacts(), marks: StepMark[] = []): string[] =>
  batchOnRoute(named, facts, usualRoute(facts), marks).steps.map(({ id }) => id);

test('each school has the steps that its water needs', () => {
  expect(stepsOf()).toEqual([
    'cut',
    'seal',
    'paint',
    'dam',
    'leak test',
    'level',
    'pour 1',
    'bubbles 1',
    'leak look',
    'pour 2',
    'bubbles 2',
    'demould',
    'trim',
    'inspect',
    'cured',
  ]);
  // Five-minute glue leaves no time for bubbles; a flat tile has no dams.
  expect(stepsOf(testFacts({ dammed: 0 }, 'five-minute-glue', 1))).toEqual([
    'cut',
    'seal',
    'paint',
    'level',
    'pour 1',
    'inspect',
    'cured',
  ]);
  const cast = stepsOf(testFacts({ dammed: 0, moulds: 3 }, 'slow-casting-epoxy', 1));
  expect(cast.filter((id) => ['mould', 'demould', 'sand', 'gloss', 'dam'].includes(id))).toEqual([
    'mould',
    'demould',
    'sand',
    'gloss',
  ]);
  const glossed = testFacts({
    dammed: 0,
    finish: { product: productFactsOf('gloss-medium', 0.2), coats: 2, handsOnMinutes: 20 },
    plantsFirst: true,
    rocks: 2,
  });
  const steps = stepsOf(glossed);
  expect(steps).toEqual(expect.arrayContaining(['rocks', 'plants before', 'finish 1', 'finish 2']));
  expect(steps.indexOf('plants before')).toBeLessThan(steps.indexOf('pour 1'));
});

test('minutes count the pieces that a step is for; a mark says how long it really takes', () => {
  const facts = testFacts({ pieces: 20, dammed: 5 });
  const { steps } = batchOnRoute(named, facts, usualRoute(facts), [{ step: 'trim', minutes: 7 }]);
  const minutes = (id: string): number => steps.find((step) => step.id === id)!.handsOnMinutes;
  expect(minutes('dam')).toBe(5 + 4 * 5);
  expect(minutes('seal')).toBe(10 + 3 * 20);
  expect(minutes('trim')).toBe(7);
});

test('between layers stands the label’s recoat window, counted so that the first piece is still in it; glue waits until it is clear', () => {
  const epoxy = batchOnRoute(named, testFacts(), usualRoute(testFacts()), []).steps.find(({ id }) => id === 'pour 2')!;
  expect(epoxy.after[0]).toMatchObject({
    step: 'pour 1',
    least: { minutes: 240 },
    // From the first piece, 19 min after the layer was begun, to the first piece of the next.
    most: { minutes: 960, beforeEndMinutes: 45 - 19, afterStartMinutes: 19 },
    abradeMinutes: 5 + 3 * 12,
  });
  const glue = testFacts({}, 'clear-drying-glue', 3);
  const next = batchOnRoute(named, glue, usualRoute(glue), []).steps.find(({ id }) => id === 'pour 3')!;
  expect(next.after[0]!.most).toBeUndefined();
  expect(next.after[0]!.least!.curing!.cureModel).toBe('water-borne');
});

test('what comes before a step that is done is done too', () => {
  const facts = testFacts();
  const poured = {
    ...facts,
    layers: facts.layers.map((layer, i) => ({ ...layer, pouredAt: i === 0 ? '2026-11-21T10:00' : null })),
  };
  const { steps } = batchOnRoute(named, poured, usualRoute(poured), [
    { step: 'cut', done: { from: '2026-11-14T10:00', to: '2026-11-14T12:00' } },
  ]);
  const open = steps.filter(({ done }) => !done).map(({ id }) => id);
  expect(open).toEqual(['pour 2', 'bubbles 2', 'demould', 'trim', 'inspect', 'cured']);
  expect(steps.find(({ id }) => id === 'cut')!.done!.from).toBe('2026-11-14T10:00');
  expect(steps.find(({ id }) => id === 'dam')!.done).toEqual({ from: '2026-11-21T09:41', to: '2026-11-21T09:41' });
  // In the log stands the first piece, 19 min after the layer was begun; the last one as long after as was planned.
  expect(steps.find(({ id }) => id === 'pour 1')!.done).toEqual({ from: '2026-11-21T09:41', to: '2026-11-21T10:26' });
});

test('before a layer that some pieces have got all is done as well; the layer itself is still to be poured', () => {
  const facts = testFacts();
  const [first, ...others] = facts.layers;
  const begun = { ...facts, layers: [{ ...first!, begunAt: '2026-11-21T10:00' }, ...others] };
  const { steps } = batchOnRoute(named, begun, usualRoute(begun), []);
  const open = steps.filter(({ done }) => !done).map(({ id }) => id);
  expect(open).toEqual([
    'pour 1',
    'bubbles 1',
    'leak look',
    'pour 2',
    'bubbles 2',
    'demould',
    'trim',
    'inspect',
    'cured',
  ]);
  expect(steps.find(({ id }) => id === 'dam')!.done!.from).toBe('2026-11-21T10:00');
});

test('a layer that failed is abraded and topped up once it is hard; what follows waits for that', () => {
  const facts = testFacts();
  const poured = {
    ...facts,
    layers: facts.layers.map((layer, i) => ({ ...layer, pouredAt: i === 0 ? '2026-11-22T10:00' : null })),
  };
  const failed: StepMark[] = [{ step: 'pour 1', failed: { at: '2026-11-23T10:00', why: 'too low' } }];
  const { steps } = batchOnRoute(named, poured, usualRoute(poured), failed);
  const after = (id: string): string[] => steps.find((step) => step.id === id)!.after.map(({ step }) => step);
  expect(after('repair pour 1')).toEqual(['pour 1']);
  expect(after('top-up pour 1')).toEqual(['repair pour 1']);
  expect(after('pour 2')).toContain('top-up pour 1');
  expect(after('pour 2')).not.toContain('pour 1');
  expect(after('demould')).toEqual(expect.arrayContaining(['pour 1', 'top-up pour 1']));
  const request = calendarRequest([testBatch('b', { facts: poured, course: { marks: failed } })], testWorkshop())!;
  const plan = schedule(request);
  expect(verifyPlan(request, plan)).toEqual([]);
  const whole = schedule(calendarRequest([testBatch('b', { facts: poured })], testWorkshop())!);
  expect(plan.readyAt! > whole.readyAt!).toBe(true);
});

test('a course is checked: a time that is none is refused at its mark', () => {
  const wrong = courseSchema.safeParse({ marks: [{ step: 'dam', pinned: '2026-11-31T19:00' }] });
  expect(wrong.error!.issues[0]!.path).toEqual(['marks', 0, 'pinned']);
});

test('a step may be left out once it made no difference in two batches, and in most of those in which it was done', () => {
  const done = { from: '2026-11-20T18:00', to: '2026-11-20T18:30' };
  const course = (...steps: [step: string, idle: boolean][]) => ({
    marks: steps.map(([step, idle]): StepMark => ({ step, done, ...(idle && { madeNoDifference: true }) })),
  });
  const [one, two, three] = [
    course(['trim', true], ['paint', true], ['sand', false]),
    course(['trim', true], ['paint', false]),
    course(['trim', false], ['paint', true], ['paint 2', true]),
  ];
  expect(idleSteps([one])).toEqual([]);
  expect(idleSteps([one, two])).toEqual([{ step: 'trim', idle: 2, done: 2 }]);
  expect(idleSteps([one, two, three])).toEqual([
    { step: 'trim', idle: 2, done: 3 },
    { step: 'paint', idle: 2, done: 3 },
  ]);
  // Half of them is not most of them, and what was not done says nothing.
  expect(idleSteps([one, two, course(['paint', true]), course(['paint', false])])).toHaveLength(1);
  expect(idleSteps([one, { marks: [{ step: 'trim', madeNoDifference: true }] }])).toEqual([]);
});
