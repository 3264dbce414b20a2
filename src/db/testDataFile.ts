import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** A folder of its own for a test's data files, gone after the test file. */
export function temporaryFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'aguada-test-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  return folder;
}
