import { testPiece } from '../bed/testShapes';
import { planBatch } from '../plan';
import { testRequest } from '../plan/testRequest';
import { batchFacts } from '../schedule/facts';
import { buildRun } from './buildRun';
import { kind, TestBench } from './testRuns';

const request = testRequest({
  product: { ...kind('coating-epoxy'), stirMinutes: 4.5 },
  pieces: [testPiece([{ kind: 'basin', id: 'b', rimMm: 20, depthMm: 4 }])],
});
const amounts = planBatch(request);
const build = (reminders?: Parameters<typeof buildRun>[0]['reminders']) =>
  buildRun({
    name: 'R',
    request,
    amounts,
    facts: batchFacts(request, amounts),
    by: 'weight',
    filler: null,
    now: request.pourAt,
    ...(reminders && { reminders }),
  });

test('what the maker wants to be reminded of comes last of what has to be ready, and may be passed by', () => {
  const own = { id: 'next cold', text: 'Keep the room warm', why: 'tacky, HS-1 #1', must: false };
  expect(build([own]).ready).toEqual([...build().ready, own]);
});

test('a product that is known to take longer is stirred for longer', () => {
  const stirs = new TestBench(build()).state.steps.filter((step) => step.kind === 'stir');
  expect(stirs.map(({ minutes }) => minutes)).toEqual(amounts.layers[0]!.cups.map(() => 4.5));
});
