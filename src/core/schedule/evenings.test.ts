import { eveningsOf } from './evenings';
import { formatMinutes } from '../units/formatMeasure';
import { explainBench, explainReady, explainStep, findStep } from './explain';
import { placeUse } from './placeUse';
import { schedule } from './solve';
import { sessionOf } from './session';
import { inTurn, requestOf } from './testSchedules';
import { testBatch, testFacts, testWorkshop } from './testWorkshop';
import { calendarRequest } from './workplace';

const request = calendarRequest([testBatch('a'), testBatch('b')], testWorkshop({ damKits: 12 }), 400)!;
const plan = schedule(request);
const view = eveningsOf(request, plan);

test('every minute at the bench stands in an evening, in order; what is worked is no longer than the window', () => {
  const blocks = view.evenings.flatMap((evening) => evening.blocks);
  expect(blocks.reduce((sum, { minutes }) => sum + minutes, 0)).toBe(plan.handsOnMinutes);
  for (const { from, to, blocks: own, workedMinutes, minutes } of view.evenings) {
    expect(workedMinutes).toBeLessThanOrEqual(minutes);
    own.forEach((block, i) => {
      expect(block.from >= from && block.to <= to).toBe(true);
      if (i > 0) expect(block.from >= own[i - 1]!.to).toBe(true);
    });
  }
  // Behind the last there are evenings to drag a step to.
  expect(view.evenings.slice(-3).every(({ blocks: own }) => own.length === 0)).toBe(true);
});

test('streams join what a batch does in one evening with what it does in its next', () => {
  for (const stream of view.streams) {
    const from = view.evenings[stream.fromEvening]!.blocks[stream.fromBlock]!;
    const to = view.evenings[stream.toEvening]!.blocks[stream.toBlock]!;
    expect([from.step.batchId, to.step.batchId]).toEqual([stream.batchId, stream.batchId]);
    expect([stream.leftAt, stream.backAt]).toEqual([from.to, to.from]);
    const between = view.evenings.slice(stream.fromEvening + 1, stream.toEvening).flatMap(({ blocks }) => blocks);
    expect(between.some(({ step }) => step.batchId === stream.batchId)).toBe(false);
    if (to.step.opensAt) expect(stream.opensAt).toBe(to.step.opensAt);
  }
  const used = view.evenings.filter(({ blocks }) => blocks.some(({ step }) => step.batchId === 'a')).length;
  expect(view.streams.filter(({ batchId }) => batchId === 'a')).toHaveLength(used - 1);
  expect(view.streams.some(({ wait }) => wait === 'firm' || wait === 'recoat')).toBe(true);
});

test('work outside the windows, held there or without any, stands in a column of its own', () => {
  const held = requestOf({
    batches: [
      {
        id: 'b',
        name: 'B',
        steps: inTurn(
          { id: 'one', handsOnMinutes: 30 },
          { id: 'two', handsOnMinutes: 30, after: [{ step: 'one', least: { minutes: 3000 } }] },
        ),
      },
    ],
  });
  const { evenings } = eveningsOf(held, schedule(held));
  expect(evenings.map(({ blocks }) => blocks.map(({ step }) => step.stepId))).toEqual([['one'], ['two']]);
});

test('the next time at the bench: what to get ready, the steps in order, cautions', () => {
  const session = sessionOf(request, plan, view)!;
  const first = view.evenings.find(({ blocks }) => blocks.length > 0)!;
  expect(session.from).toBe(first.from);
  expect(session.steps.map(({ at }) => at)).toEqual(first.blocks.map(({ from }) => from));
  expect(session.ready).toContain('blades and a straight edge');
  expect(session.cautions.at(-1)).toMatch(/^Labels, safety data sheets/);
  const poured = sessionOf(
    { ...request, now: plan.steps.find(({ stepId }) => stepId === 'pour 1')!.from },
    plan,
    view,
  )!;
  expect(poured.cautions.join()).toMatch(/Gloves/);
});

test('how full a place is: never over what there is, empty in the end', () => {
  const [kits] = placeUse(request, plan);
  expect(kits).toMatchObject({ name: 'dam kits', capacity: 12, most: 12 });
  expect(kits!.steps.at(-1)!.used).toBe(0);
});

test('why a step is when it is: what it waited for, by which label, and when that was over', () => {
  const pour = plan.steps.find(({ batchId, stepId }) => batchId === 'a' && stepId === 'pour 2')!;
  const { inputs, formula } = explainStep(request, plan, pour);
  expect(formula).toMatch(/first bench time that is long enough/);
  expect(inputs.find(({ label }) => label === 'Pour layer 1 is over')!.value).toMatch(
    /then at least 4\u00a0h at 23 °C by its label, at most 16\u00a0h at 23 °C by its label, from first piece to first piece/,
  );
  expect(inputs.map(({ label }) => label)).toEqual(
    expect.arrayContaining(['Waits are over', 'Too late after', 'Begins']),
  );
  expect(explainReady(request, plan).inputs.map(({ label }) => label)).toEqual(
    expect.arrayContaining(['Batch a', 'Batch b']),
  );
  // What is to be done at the bench, by batch, is all of it.
  const bench = explainBench(request, plan).inputs.map(({ value }) => value);
  expect(bench).toEqual(
    ['a', 'b'].map((id) =>
      formatMinutes(
        plan.steps.filter(({ batchId }) => batchId === id).reduce((sum, step) => sum + step.handsOnMinutes, 0),
      ),
    ),
  );
  expect(findStep(request, 'a', 'pour 2:abrade')!.step.kind).toBe('abrade');
  expect(findStep(request, 'a', 'nothing')).toBeNull();
});

test('facts that nothing was said of do not stand in an evening', () => {
  const facts = testFacts();
  const poured = {
    ...facts,
    layers: facts.layers.map((layer, i) => ({ ...layer, pouredAt: i === 0 ? '2026-11-21T10:00' : null })),
  };
  const started = calendarRequest([testBatch('a', { facts: poured })], testWorkshop(), 100)!;
  const done = eveningsOf(started, schedule(started)).evenings.flatMap(({ blocks }) =>
    blocks.filter(({ step }) => step.done),
  );
  expect(done.map(({ step }) => step.stepId)).toEqual(['pour 1']);
});
