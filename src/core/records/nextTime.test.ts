import { readyReminders, reminded } from './nextTime';
import type { Settings } from './recordSchemas';
import { filledRecord } from './testRecords';

const { nextTime: _, ...settings } = filledRecord('settings');
const of = (cause: string, words = `mind ${cause}`) => ({ cause, words, why: 'tacky, HS-2 #1' });
const causes = ({ nextTime = [] }: Settings): string[] => nextTime.map(({ cause }) => cause);

test('a cause is reminded of once, in its newest words; taken off, nothing is left of it', () => {
  const one = reminded(reminded(settings, of('cold'), true), of('ratio'), true);
  const again = reminded(one, of('cold', 'warmer'), true);
  expect(again.nextTime).toEqual([of('ratio'), of('cold', 'warmer')]);
  expect(causes(reminded(again, of('cold'), false))).toEqual(['ratio']);
  expect(reminded(reminded(settings, of('cold'), true), of('cold'), false)).toEqual(settings);
});

test('of too many the oldest goes', () => {
  let now: Settings = settings;
  for (let i = 0; i < 14; i++) now = reminded(now, of(`c${i}`), true);
  expect(causes(now)).toEqual(Array.from({ length: 12 }, (_one, i) => `c${i + 2}`));
});

test('a run lays them out with what showed them, and does not insist', () =>
  expect(readyReminders(reminded(settings, of('cold'), true))).toEqual([
    { id: 'next cold', text: 'mind cold', why: 'tacky, HS-2 #1', must: false },
  ]));
