import { learnCommand } from './learnFile';

const cup = (i: number, lost: number) => ({
  key: `cup ${i}`,
  at: '2026-11-07T10:00',
  batchId: `b${i}`,
  productId: 'slow',
  temperatureC: 20,
  mixGrams: 80,
  pouredGrams: 80 - lost,
  pieces: 3,
});
const ask = (more: object) => learnCommand(JSON.stringify({ format: 'aguada.learn-request', version: 1, ...more }));
interface Answer {
  figures: {
    id: string;
    standing: string;
    fields: { was: number; now: number }[];
    counted: number;
    leftOut: string[];
  }[];
}

test('the losses of the cups, as they stand and as they come out', () => {
  const { figures } = JSON.parse(ask({ cups: [1, 2, 3, 4].map((i) => cup(i, 1)) }).output) as Answer;
  expect(figures).toHaveLength(1);
  expect(figures[0]).toMatchObject({ id: 'losses', standing: 'offered', counted: 4, leftOut: [] });
  expect(figures[0]!.fields[0]).toMatchObject({ was: 1.5 });
  expect(figures[0]!.fields[0]!.now).toBeLessThan(1.5);
});
test('a spilt cup is named as left out', () => {
  const { figures } = JSON.parse(ask({ cups: [...[1, 2, 3, 4].map((i) => cup(i, 3.5)), cup(5, 60)] }).output) as Answer;
  expect(figures[0]!.leftOut).toEqual(['cup 5']);
});
test('nothing on record, no figures', () => expect(JSON.parse(ask({}).output)).toMatchObject({ figures: [] }));
test.each([
  ['no JSON', () => learnCommand('cups'), /not JSON/],
  ['another format', () => ask({ format: 'aguada.plan' }), /^format: Must be/],
  ['a cup without a piece', () => ask({ cups: [{ ...cup(1, 1), pieces: 0 }] }), /^cups\.0\.pieces: /],
])('%s is refused at its field', (_, command, message) =>
  expect(command()).toMatchObject({ exitCode: 2, errors: expect.stringMatching(message) }),
);
