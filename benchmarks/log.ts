import { logAskSchema, type LogAsk } from '../src/core/records/workshopLog';
import { toWallTime, wallMinutes } from '../src/core/time/wallTime';
import { openDataFile } from '../src/db/dataFile';
import { stockShelf } from '../src/db/defaults';
import { loadHeronSlack } from '../src/db/demo/heronSlack';
import { edit } from '../src/db/journal';
import { appendEntry, currentPours } from '../src/db/pours';
import { move } from '../src/db/stock';
import type { Database } from '../src/db/storage';
import { logPage, logWeeks } from '../src/db/workshopLog';
import { medianMs } from './measure';

const NOW = '2026-11-26T10:00';
const EACH = 6700;
/** 100 ms where a pass takes 1.5, as on a quiet desk. */
const MOST_PASSES = 67;
const DAY_MINUTES = 1440;

/** Twenty thousand entries over nine years: pours of two cups into seven pieces, notes, weighings at the shelf. */
export function yearsOfLog(): Database {
  const { db } = openDataFile(':memory:');
  stockShelf(db, NOW);
  loadHeronSlack(db, NOW);
  const [pour] = currentPours(db, 'hs-batch-1');
  const at = (i: number, minute: number): string =>
    toWallTime(wallMinutes(NOW) - Math.floor(i / 2) * DAY_MINUTES + minute);
  const two = [pour!.cups[0]!, { ...pour!.cups[0]!, number: 2, note: 'the second cup' }];
  for (let i = 0; i < EACH; i++) {
    const [id, note] = [`b${i}`, i % 500 === 0 ? 'the heron stood there' : 'as planned'];
    db.$client
      .prepare(
        'insert into batches (id, version, position, set_id, name, pour_at, updated_at) values (?, 1, ?, ?, ?, ?, ?)',
      )
      .run(id, i + 10, 'heron-slack', `Batch ${i}`, NOW, NOW);
    appendEntry(
      db,
      id,
      { ...pour!, layer: 1, pouredAt: at(i, 0), cups: two, note },
      { struck: false, enteredAt: at(i, 0) },
    );
    const item = { kind: 'product', id: 'coating-epoxy' } as const;
    const lotId = 'hs-kit-2';
    move(db, { lotId, item, part: 'A', amount: 0.01, kind: 'corrected', at: at(i, 60), note: 'weighed' }, NOW);
  }
  edit(db, 'log', 'Write', NOW, (writer) => {
    for (let i = 0; i < EACH; i++)
      writer.add('note', `n${i}`, { at: at(i, 120), text: `Looked at the reeds, ${i}`, setId: null });
  });
  return db;
}

/** How long the log of twenty thousand entries is looked for, against the yardstick of the run. Whether each is within its limit. */
export function logBench(passMs: number): boolean {
  const db = yearsOfLog();
  const page = (ask: Partial<LogAsk>) => medianMs(() => logPage(db, logAskSchema.parse(ask)), 7);
  const times: [string, number][] = [
    ['the newest days', page({})],
    ['a week of five years ago', page({ before: '2021-11-01' })],
    ['one kind', page({ kinds: ['note'] })],
    ['one set', page({ setId: 'heron-slack' })],
    ['one product', page({ about: { kind: 'product', of: 'coating-epoxy' } })],
    ['one bottle', page({ about: { kind: 'lot', of: 'hs-kit-2' } })],
    ['one piece', page({ about: { kind: 'piece', of: 'hs-1' } })],
    ['one job', page({ about: { kind: 'job', of: 'The Mudlarks, a made-up club' } })],
    ['a word that is often there', page({ words: 'reeds' })],
    ['a word that is seldom there', page({ words: 'heron stood' })],
    ['a word that is nowhere', page({ words: 'nightingale' })],
    ['the tide', medianMs(() => logWeeks(db), 5)],
  ];
  console.log(`\nthe log of ${3 * EACH} entries, at most ${MOST_PASSES} × the yardstick:`);
  for (const [what, ms] of times)
    console.log(
      `  ${what.padEnd(32)}${ms.toFixed(1).padStart(8)} ms${(ms / passMs).toFixed(0).padStart(6)} ×${ms > MOST_PASSES * passMs ? '  OVER' : ''}`,
    );
  return times.every(([, ms]) => ms <= MOST_PASSES * passMs);
}
