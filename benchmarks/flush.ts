import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDataFile } from '../src/db/dataFile';
import { stockShelf } from '../src/db/defaults';
import { getDocument } from '../src/db/documents';
import { edit } from '../src/db/journal';

const EDITS = 300;

/** What it costs that every acknowledged edit is on the disk: edits one by one, flushed and not. Told, not limited. */
export function flushBench(): void {
  const folder = mkdtempSync(join(tmpdir(), 'aguada-flush-'));
  try {
    const msEach = (synchronous: 'FULL' | 'NORMAL'): number => {
      const { db, close } = openDataFile(join(folder, `${synchronous}.db`));
      stockShelf(db, '2026-11-26T10:00');
      db.$client.pragma(`synchronous = ${synchronous}`);
      const recipe = getDocument(db, 'recipe', 'clear')!.data;
      const start = performance.now();
      for (let i = 0; i < EDITS; i++)
        edit(db, 'shelf', `Edit ${i}`, '2026-11-26T10:00', (writer) =>
          writer.put('recipe', 'clear', { ...recipe, name: `Clear ${i}` }, null),
        );
      const each = (performance.now() - start) / EDITS;
      close();
      return each;
    };
    const [normal, full] = [msEach('NORMAL'), msEach('FULL')];
    console.log(
      `an edit on the disk: ${full.toFixed(2)} ms flushed (as it is), ${normal.toFixed(2)} ms not: ${(full / normal).toFixed(1)} ×\n`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
