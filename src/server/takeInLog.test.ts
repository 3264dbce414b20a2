import { join } from 'node:path';
import { readLogFile, logFileParts } from '@/core/formats/logFile';
import { commandSchema } from '@/core/records/command';
import { logAskSchema } from '@/core/records/workshopLog';
import { getBatch } from '@/db/batches';
import { listDocuments } from '@/db/documents';
import { temporaryFolder } from '@/db/testDataFile';
import { allEntries } from '@/db/workshopLog';
import { closeData, withData } from './data';
import { runCommand } from './runCommand';
import { closePool } from './threads/pool';
import { shelfView } from './views';

process.env['AGUADA_DATA'] = join(temporaryFolder(), 'log.db');
const BATCH = 'hs-batch-1';
const run = (command: unknown) => runCommand(commandSchema.parse(command), 'log');
const take = (table: string) => run({ do: 'take in log', lines: readLogFile(table, 'day first').lines });
const looked = () => withData((db) => getBatch(db, BATCH)!.data.inspections ?? []);
const notes = () => withData((db) => listDocuments(db, 'note').records.map(({ data }) => data.text));
const HEADS = 'when,set,batch,piece,found,outcome,said\n';

beforeAll(async () => {
  shelfView();
  await runCommand(commandSchema.parse({ do: 'sample' }), 'sets');
}, 60_000);
afterAll(async () => {
  closeData();
  await closePool();
});

test('notes and pieces come in by one edit, are not put there twice, and go by one undo', async () => {
  const before = notes().length;
  const table = `${HEADS}2026-11-27 09:00,Heron Slack,Creek tiles,HS-1 #2,low 0.4,,by the wall
2026-11-27 09:05,Heron Slack,Creek tiles,HS-2 #1,,,
2026-11-28,,,,,,Geese on the slack`;
  const { note } = await take(table);
  expect(note).toBe('Took in 1 note and 2 pieces looked over.');
  expect(looked()).toMatchObject([
    { copy: 2, at: '2026-11-27T09:00', findings: [{ kind: 'low', mm: 0.4 }], outcome: 'mend', note: 'by the wall' },
    { copy: 1, outcome: 'pass' },
  ]);
  expect(notes()).toContain('Geese on the slack');
  const again = await take(table);
  expect(again.note).toBe('Took in 0 notes and 0 pieces looked over. 3 lines were in the log already.');
  expect(looked()).toHaveLength(2);
  await run({ do: 'undo', scope: 'log' });
  expect(looked()).toEqual([]);
  expect(notes()).toHaveLength(before);
});

test.each([
  [
    'a set that is not there',
    'Otter Hole,Creek tiles,HS-1 #2',
    'Line 3: there is no set Otter Hole. Nothing was taken in.',
  ],
  ['a batch that is not there', 'Heron Slack,Tiles,HS-1 #2', 'Line 3: there is no batch Tiles in Heron Slack.'],
  ['a piece that is not there', 'Heron Slack,Creek tiles,HS-99', 'Line 3: there is no piece HS-99 in Heron Slack.'],
  [
    'a copy that is not named',
    'Heron Slack,Creek tiles,HS-1',
    'Line 3: say which copy of HS-1 it is, for example HS-1 #2.',
  ],
  ['a copy that it does not hold', 'Heron Slack,Creek tiles,HS-1 #40', 'Line 3: Creek tiles does not hold HS-1 #40.'],
  ['a batch that is not poured', 'Heron Slack,Bases and the last tiles,HS-3', 'is not poured yet'],
])('%s is told with its line, and nothing is written', async (_, place, words) => {
  const table = `${HEADS}2026-11-27,,,,,,A note before it\n2026-11-27,${place},low,,`;
  await expect(take(table)).rejects.toThrow(words);
  expect(notes()).not.toContain('A note before it');
});

test('what the log hands out comes in again as it was', async () => {
  await take(
    `${HEADS}2026-11-27 09:00,Heron Slack,Creek tiles,HS-1 #2,low 0.4; crack,pass,fine\n2026-11-28,Heron Slack,,,,,Reeds cut`,
  );
  const before = looked();
  const handed = (file: 'csv' | 'json') =>
    withData((db) => [...logFileParts(allEntries(db, logAskSchema.parse({})), file)].join(''));
  const files = (['csv', 'json'] as const).map(handed);
  await run({ do: 'undo', scope: 'log' });
  for (const file of files) {
    expect(looked()).toEqual([]);
    await take(file);
    expect(looked()).toEqual(before);
    expect(notes()).toContain('Reeds cut');
    await run({ do: 'undo', scope: 'log' });
  }
});
