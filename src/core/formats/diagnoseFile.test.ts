import { diagnoseCommand } from './diagnoseFile';

const ask = (more: object) =>
  diagnoseCommand(
    JSON.stringify({
      format: 'aguada.diagnose-request',
      version: 1,
      finding: 'tacky',
      cureModel: 'two-part',
      facts: {},
      ...more,
    }),
  );
const answered = (more: object) =>
  JSON.parse(ask(more).output) as { says: string; causes: { id: string; now: number }[]; mends: object[] };

test('a ratio that was far off is named first, with what may be done about it', () => {
  const { says, causes, mends } = answered({ facts: { ratioOff: 0.12, stirredShare: 1.1, pouredC: 21, coldestC: 19 } });
  expect(causes[0]!.id).toBe('ratio');
  expect(says).toMatch(/^Most likely: /);
  expect(causes.reduce((sum, { now }) => sum + now, 0)).toBeCloseTo(1, 2);
  expect(mends.length).toBeGreaterThan(0);
});
test('of a piece of which nothing is known it is said that nothing is', () =>
  expect(answered({}).says).toMatch(/^Not enough recorded/));
test('neighbours speak: where others of its cup are well it is less the cup’s ratio', () => {
  const share = (neighbours?: object): number =>
    answered({ facts: { ratioOff: 0.04 }, ...(neighbours && { neighbours }) }).causes.find(({ id }) => id === 'ratio')!
      .now;
  const well = { sameCup: { looked: 5, with: 0 }, otherCups: { looked: 0, with: 0 } };
  expect(share(well)).toBeLessThan(share());
});
test('weights of one’s own count', () => {
  const flat = { strongly: 1, speaks: 1, against: 1, neighboursFor: 1, neighboursAgainst: 1 };
  expect(answered({ facts: { ratioOff: 0.12 }, weights: flat }).says).toMatch(/^Not enough recorded/);
});
test.each([
  ['no JSON', () => diagnoseCommand('tacky'), /not JSON/],
  ['another format', () => ask({ format: 'aguada.plan' }), /^format: Must be/],
  ['an unknown finding', () => ask({ finding: 'haunted' }), /^finding: /],
  ['an unknown fact', () => ask({ facts: { moon: 1 } }), /^facts: .*moon/],
  ['a fact of the wrong kind', () => ask({ facts: { looked: 'yes' } }), /^facts\.looked: /],
  [
    'more with it than looked over',
    () => ask({ neighbours: { sameCup: { looked: 1, with: 2 }, otherCups: { looked: 0, with: 0 } } }),
    /^neighbours\.sameCup\.with: More have it/,
  ],
])('%s is refused at its field', (_, run, said) => {
  const { errors, exitCode, output } = run();
  expect([exitCode, output]).toEqual([2, '']);
  expect(errors).toMatch(said);
});
