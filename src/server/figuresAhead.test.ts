import { join } from 'node:path';
import { commandSchema } from '@/core/records/command';
import { testDesign } from '@/core/bed/testShapes';
import type { EditAnswer } from '@/core/records/views';
import { temporaryFolder } from '@/db/testDataFile';
import { startWorkingAhead, workOutAhead } from './figuresAhead';
import { runCommand } from './runCommand';
import { shelfView } from './views';

const asked: string[] = [];
jest.mock('./figures', () => ({
  amountsOf: ({ set }: { set: { name: string } }) => (asked.push(`amounts of ${set.name}`), Promise.resolve({})),
  stripOf: ({ set }: { set: { data: { name: string } } }) => (
    asked.push(`strip of ${set.data.name}`),
    Promise.resolve([])
  ),
  matchOf: () => (asked.push('match'), Promise.reject(new Error('It cannot be matched'))),
  inTime: jest.fn(),
}));
jest.mock('./threads/pool', () => ({ warmPool: () => asked.push('threads') }));

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'ahead.db');
const env = process.env as Record<string, string | undefined>;
/** What the figures of a set take: its amounts, its strip and its match, though the match fails. */
const SET = ['amounts of Otter Reach', 'strip of Otter Reach', 'match'];
let setId = '';
const changed = (id: string): EditAnswer =>
  ({ changes: [{ kind: 'set', id, setId: null, row: null }] }) as unknown as EditAnswer;

beforeAll(async () => {
  shelfView();
  const run = async (command: unknown): Promise<string> => (await runCommand(commandSchema.parse(command), 'sets')).id!;
  const data = { name: 'Otter Reach', figureScaleMm: 28, levelMm: 15, productId: 'coating-epoxy', recipeId: 'clear' };
  setId = await run({ do: 'add', kind: 'set', data: { ...data, benchWindows: null, job: null }, label: 'Add' });
  await run({ do: 'add', kind: 'design', setId, data: testDesign(), label: 'Add' });
});
beforeEach(() => {
  env['NODE_ENV'] = 'production';
  delete env['AGUADA_AHEAD'];
  delete (globalThis as { aguadaWorksAhead?: boolean }).aguadaWorksAhead;
  asked.length = 0;
  jest.useFakeTimers();
});
afterEach(() => {
  env['NODE_ENV'] = 'test';
  jest.useRealTimers();
});

describe('figures are worked out ahead', () => {
  test('once it is quiet, once however many edits there were', async () => {
    for (let i = 0; i < 5; i++) {
      workOutAhead(changed(setId));
      await jest.advanceTimersByTimeAsync(1000);
    }
    expect(asked).toEqual([]);
    await jest.advanceTimersByTimeAsync(600);
    expect(asked).toEqual(SET);
    await jest.advanceTimersByTimeAsync(60_000);
    expect(asked).toEqual(SET);
  });
  test('of a set that is gone nothing is asked', async () => {
    workOutAhead(changed('no-such-set'));
    await jest.advanceTimersByTimeAsync(5000);
    expect(asked).toEqual([]);
  });
  test('after the first page: threads are there and the first sets are worked out; a failing one stops nothing', async () => {
    await startWorkingAhead();
    expect(asked).toEqual(['threads', ...SET]);
  });
  test('the pages after the first ask in vain', async () => {
    await Promise.all([startWorkingAhead(), startWorkingAhead()]);
    await startWorkingAhead();
    expect(asked).toEqual(['threads', ...SET]);
  });
  test('not in development, nor where it is switched off', async () => {
    env['AGUADA_AHEAD'] = 'off';
    workOutAhead(changed(setId));
    await startWorkingAhead();
    env['NODE_ENV'] = 'development';
    delete env['AGUADA_AHEAD'];
    workOutAhead(changed(setId));
    await jest.advanceTimersByTimeAsync(5000);
    await startWorkingAhead();
    expect(asked).toEqual([]);
  });
});
