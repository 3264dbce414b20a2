import { learntFigures } from '../src/core/learn/figures';
import { gramsByMonth, OVER_TIME, overTime } from '../src/core/records/overTime';
import { standingOf } from '../src/core/records/learnt';
import type { WeighedCup } from '../src/core/records/recordSchemas';
import { toWallTime, wallMinutes } from '../src/core/time/wallTime';
import { openDataFile } from '../src/db/dataFile';
import { DEFAULT_SETTINGS, stockShelf } from '../src/db/defaults';
import { loadHeronSlack } from '../src/db/demo/heronSlack';
import { listDocuments } from '../src/db/documents';
import { batchesOverTime } from '../src/db/batchesOverTime';
import { appendEntry, currentPours } from '../src/db/pours';
import { recordedWork } from '../src/db/recordedWork';
import type { Database } from '../src/db/storage';
import { medianMs } from './measure';

const NOW = '2026-11-26T10:00';
const RUNS = 2000;
/** 300 ms where a pass takes 1.5, as on a quiet desk. */
const MOST_PASSES = 200;
/** 200 ms there. */
const MOST_CHART_PASSES = 134;

/** Two thousand batches as a bench reads them: two cups into seven pieces each, looked over, a fifth of them with a low piece, two steps marked. */
function yearsOfRuns(): Database {
  const { db } = openDataFile(':memory:');
  stockShelf(db, NOW);
  loadHeronSlack(db, NOW);
  const [pour] = currentPours(db, 'hs-batch-1');
  const pieces = Array.from({ length: 7 }, (_, i) => ({ designId: 'hs-1', copy: i + 1, tag: 'HS-1', grams: 11 + i }));
  const inspections = (low: boolean) =>
    pieces.map(({ designId, copy }) => ({
      designId,
      copy,
      at: NOW,
      findings: low && copy === 1 ? [{ kind: 'low', mm: 0.3 }] : [],
      outcome: 'pass',
      note: '',
    }));
  const done = { from: '2026-11-20T18:00', to: '2026-11-20T18:52' };
  const course = { marks: ['dam', 'demould'].map((step) => ({ step, done })) };
  const add = db.$client.prepare(
    `insert into batches (id, version, position, set_id, name, pour_at, updated_at, inspections, course)
      values (?, 1, ?, 'heron-slack', ?, ?, ?, ?, ?)`,
  );
  const keep = db.$client.prepare(
    `insert into kept_plans (batch_id, request, amounts, kept_at)
      select ?, request, amounts, kept_at from kept_plans where batch_id = 'hs-batch-1'`,
  );
  const item = db.$client.prepare(
    `insert into batch_items (batch_id, design_id, position, copies, first) values (?, 'hs-1', 0, 7, 1)`,
  );
  for (let i = 0; i < RUNS; i++) {
    const id = `b${i}`;
    const at = toWallTime(wallMinutes(NOW) - i * 1440);
    add.run(id, i + 10, `Batch ${i}`, at, NOW, JSON.stringify(inspections(i % 5 === 0)), JSON.stringify(course));
    keep.run(id);
    item.run(id);
    const cups = [1, 2].map((number): WeighedCup => ({
      ...pour!.cups[0]!,
      number,
      pouredGrams: pieces.reduce((sum, { grams }) => sum + grams, 0),
      discarded: false,
      doses: [],
      pieces,
      bench: {
        read: true,
        stirMinutes: 3.5,
        clearMinutes: 1,
        drops: [{ id: 'deep-green-ink', count: 12, grams: 0.4 }],
        thickMinutes: 40 + (i % 9),
        pieceMinutes: pieces.map((_, k) => 0.7 + ((i + k) % 5) / 10),
      },
    }));
    const firm = {
      what: 'firm' as const,
      labelMinutes: 1440,
      reckonedMinutes: 1600,
      softMinutes: 1400,
      firmMinutes: 1500,
    };
    appendEntry(db, id, { ...pour!, pouredAt: at, cups, hardened: [firm] }, { struck: false, enteredAt: at });
  }
  return db;
}

/** How long figures are learnt from two thousand runs, reading them included, against the yardstick of the run. Whether within its limit. */
export function learnBench(passMs: number): boolean {
  const db = yearsOfRuns();
  const [settings = { id: 'settings', version: 1, data: DEFAULT_SETTINGS }] = listDocuments(db, 'settings').records;
  const standing = standingOf({
    settings,
    products: listDocuments(db, 'product').records,
    colourants: listDocuments(db, 'colourant').records,
  });
  const readMs = medianMs(() => recordedWork(db), 5);
  const ms = medianMs(() => learntFigures(recordedWork(db), standing), 5);
  const ok = ms <= MOST_PASSES * passMs;
  console.log(
    `\nfigures learnt from ${RUNS} runs: ${ms.toFixed(0)} ms (${readMs.toFixed(0)} of them read), ${(ms / passMs).toFixed(0)} × the yardstick, at most ${MOST_PASSES} ×${ok ? '' : '  OVER'}`,
  );
  const chartsMs = medianMs(() => {
    const batches = batchesOverTime(db, {});
    return [gramsByMonth(batches), ...OVER_TIME.map((kind) => overTime(kind, batches))];
  }, 5);
  const chartsOk = chartsMs <= MOST_CHART_PASSES * passMs;
  console.log(
    `all charts of ${RUNS} batches: ${chartsMs.toFixed(0)} ms, ${(chartsMs / passMs).toFixed(0)} × the yardstick, at most ${MOST_CHART_PASSES} ×${chartsOk ? '' : '  OVER'}`,
  );
  return ok && chartsOk;
}
