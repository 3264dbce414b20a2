import { renameSync } from 'node:fs';
import { join } from 'node:path';
import BetterSqlite3 from 'better-sqlite3';
import { commandSchema } from '@/core/records/command';
import { temporaryFolder } from '@/db/testDataFile';
import { closeData, dataFile, dataState } from './data';
import { runCommand } from './runCommand';
import { shelfView } from './views';

const path = join(temporaryFolder(), 'state.db');
process.env['AGUADA_DATA'] = path;
afterAll(closeData);

test('the state of the data changes with every write, this program’s own and another’s, and with nothing else', async () => {
  expect(dataState()).toBeNull();
  shelfView();
  const first = dataState();
  expect(first).not.toBeNull();
  shelfView();
  expect(dataState()).toBe(first);
  const { id, version, data } = shelfView().settings;
  await runCommand(
    commandSchema.parse({ do: 'put', kind: 'settings', id, version, data: { ...data, cupGrams: 210 } }),
    'shelf',
  );
  const second = dataState();
  expect(second).not.toBe(first);
  const other = new BetterSqlite3(path);
  other.prepare("update products set position = 5 where id = 'coating-epoxy'").run();
  other.close();
  expect(dataState()).not.toBe(second);
});
test('of a file that was taken away there is none, and it is not this look that says so', () => {
  renameSync(path, `${path}.away`);
  expect(dataState()).toBeNull();
  renameSync(`${path}.away`, path);
  expect(dataState()).not.toBeNull();
  expect(() => dataFile()).not.toThrow();
});
