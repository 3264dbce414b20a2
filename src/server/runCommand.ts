import { fingerprint } from '@/core/plan';
import { setOfScope, type Command, type Scope } from '@/core/records/command';
import type { EditAnswer } from '@/core/records/views';
import { getBatch } from '@/db/batches';
import { type Database } from '@/db/storage';
import { EditRefusedError, redo, undo } from '@/db/journal';
import { runOfBatch } from '@/db/runs';
import { answeredEdit, keepAnswered } from '@/db/answered';
import { editAnswer, type Done, type Work } from './changes';
import { wallClockNow } from './clock';
import { whenFree, withData } from './data';
import { logRunsOf } from './runs';
import { putRecord, mustBeThere, addRecord, removeRecord } from './commands/records';
import { writeCourses, writeFates, writeInspections, writePhoto, planBatch, recordPour } from './commands/batches';
import { takeInLots, reserveForBatch, stockKinds } from './commands/shelf';
import { answerLearnt } from './commands/learn';
import { takeInLog } from './commands/log';
import { loadSample, duplicateSet, measurePieces, giveStandards } from './commands/sets';

/**
 * Carries out one edit for a screen. All is checked before anything is written, and the edit and its answer are one transaction:
 * what is refused is not written. An edit whose key was seen before is not made again, its answer is given again. Throws what the
 * edit route answers to.
 */
export async function runCommand(command: Command, scope: Scope, key: string | null = null): Promise<EditAnswer> {
  const now = wallClockNow();
  const of = fingerprint(JSON.stringify(command));
  const again = key === null ? null : withData((db) => answeredEdit(db, key));
  // What has to be worked out is worked out first: writing is one short transaction.
  const work = again ? null : await prepared(command, scope, now);
  return whenFree((db) =>
    db.transaction(
      () => {
        checkWanted(db, scope, command);
        const known = key === null ? null : answeredEdit(db, key);
        if (known?.of !== undefined && known.of !== of)
          throw new EditRefusedError('in use', 'This key was used for another edit. Nothing was written.');
        const done = known ?? withRuns(db, command, work!(db), now);
        if (key !== null && !known)
          keepAnswered(db, key, { of, id: done.id, touched: done.touched, note: done.note ?? null });
        return editAnswer(db, scope, done);
      },
      { behavior: 'immediate' },
    ),
  );
}

/** A batch that comes back is told what was poured of it meanwhile; of one that goes it is said that a run is on. */
function withRuns(db: Database, command: Command, done: Done, now: string): Done {
  const batches = done.touched.filter(({ kind }) => kind === 'batch').map(({ id }) => id);
  const names = batches.flatMap((id) => (getBatch(db, id) ? [] : (runOfBatch(db, id)?.name ?? [])));
  if (command.do === 'undo' || command.do === 'redo')
    for (const id of batches) if (getBatch(db, id)) logRunsOf(db, id, now);
  if (names.length === 0) return done;
  const words = `A run of ${names.join(', ')} is on. It goes on, and what it takes still leaves the bottles.`;
  return { ...done, note: [done.note, words].filter(Boolean).join(' ') };
}

/** The screen that asks must be there, and for undo the set whose journal is meant. */
function checkWanted(db: Database, scope: Scope, command: Command): void {
  for (const one of command.do === 'undo' || command.do === 'redo' ? [scope, command.scope] : [scope]) {
    const setId = setOfScope(one);
    if (setId !== null) mustBeThere(db, setId);
  }
}

async function prepared(command: Command, scope: Scope, now: string): Promise<Work> {
  switch (command.do) {
    case 'undo':
    case 'redo':
      return (db) => ({ id: null, ...(command.do === 'undo' ? undo : redo)(db, command.scope, now, command.edit) });
    case 'sample':
      return loadSample(now);
    case 'put':
      return (db) => putRecord(db, command, now);
    case 'add':
      return (db) => addRecord(db, command, now);
    case 'take in':
      return (db) => takeInLots(db, command.lots, now);
    case 'take in log':
      return (db) => takeInLog(db, command, now);
    case 'reserve':
      return reserveForBatch(command, now);
    case 'plan':
      return (db) => planBatch(db, command, now);
    case 'course':
      return (db) => writeCourses(db, command, scope, now);
    case 'fate':
      return (db) => writeFates(db, command, now);
    case 'inspect':
      return (db) => writeInspections(db, command, now);
    case 'photo':
      return (db) => writePhoto(db, command, now);
    case 'learn':
      return (db) => answerLearnt(db, command, now);
    case 'duplicate':
      return (db) => duplicateSet(db, command, now);
    case 'stock':
      return (db) => stockKinds(db, command.productIds, now);
    case 'remove':
      return (db) => removeRecord(db, command.kind, command.id, command.version, now);
    case 'measure':
      return (db) => measurePieces(db, command, now);
    case 'give':
      return (db) => giveStandards(db, command, now);
    case 'pour':
      return recordPour(command, now);
  }
}
