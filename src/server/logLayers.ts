import { layerIsPoured, layerRecord, layersBegun, type LayerRecord } from '@/core/run/record';
import { layerOf, type RunState } from '@/core/run/runState';
import { realMoment, type RunRow } from '@/core/run/views';
import { setScope } from '@/core/records/command';
import { pourId, type PourRecord } from '@/core/records/schema';
import { cupTakes, lotMovements } from '@/core/stock/pourMovements';
import { currentPours, getBatch, keptPlan, setOfBatch } from '@/db/batches';
import type { Database } from '@/db/dataFile';
import type { Connection } from '@/db/images';
import { edit } from '@/db/journal';
import { lotsOf, move } from '@/db/stock';
import { onTheWall } from './clock';

/** The layers of a run that the log should know of: poured to the end, or as far as it went when it was given up. */
export const layersToLog = (state: RunState): LayerRecord[] =>
  layersBegun(state).flatMap((layer) => {
    const whole = layerIsPoured(state, layer) || state.over?.how === 'given up';
    const record = whole ? layerRecord(state, layer) : null;
    return record ? [record] : [];
  });

const grams = (value: number): number => Math.round(Math.min(10_000, Math.max(0, value)) * 1000) / 1000;

/** A layer as the log keeps it. */
function pourRecord(run: RunRow, record: LayerRecord): PourRecord {
  return {
    layer: record.layer,
    pouredAt: onTheWall(new Date(realMoment(run, record.at))),
    temperatureC: Math.min(50, Math.max(-20, record.temperatureC)),
    cups: record.cups.map((cup) => ({
      ...{ number: cup.number, partAGrams: grams(cup.partAGrams), note: cup.note, discarded: cup.discarded },
      partBGrams: cup.partBGrams === null ? null : grams(cup.partBGrams),
      pouredGrams: grams(cup.pouredGrams),
      doses: cup.doses.map((dose) => ({ id: dose.id.slice(0, 40), grams: grams(dose.grams) })),
      pieces: cup.pieces.map((piece) => ({ ...piece, tag: piece.tag.slice(0, 60), grams: grams(piece.grams) })),
    })),
    note: record.note,
  };
}

/**
 * Writes what has changed of a run's layers into the log, and with it what leaves the bottles: within the transaction in which its
 * events are taken. A layer of which nothing reached a piece is only thrown away. `before` is how the layers stood before the events.
 */
export function logLayers(
  db: Database,
  run: RunRow,
  state: RunState,
  before: readonly LayerRecord[],
  now: string,
): void {
  for (const record of layersToLog(state)) {
    const was = before.find(({ layer }) => layer === record.layer);
    if (was && JSON.stringify(was) === JSON.stringify(record)) continue;
    const setId = setOfBatch(db, run.batchId);
    const reached = record.cups.some(({ pouredGrams }) => pouredGrams > 0);
    if (!setId || !reached) {
      if (state.over && !was) takeFromLots(db, run, state, record, now);
      continue;
    }
    const pour = pourRecord(run, record);
    const known = currentPours(db, run.batchId);
    const label = `Pour layer ${record.layer} of ${getBatch(db, run.batchId)?.data.name ?? run.name}`;
    edit(db, setScope(setId), label, now, (writer) => {
      const id = pourId(run.batchId, record.layer);
      if (known.some(({ layer }) => layer === record.layer))
        writer.put('pour', id, { ...pour, batchId: run.batchId }, null);
      else if (keptPlan(db, run.batchId)) writer.add('pour', id, { ...pour, batchId: run.batchId }, setId);
    });
  }
}

/** What was mixed for nothing, or for a batch that is gone, still left the bottles. */
function takeFromLots(db: Connection, run: RunRow, state: RunState, record: LayerRecord, now: string): void {
  const { product } = layerOf(state, record.layer);
  const planned = { pouredGrams: 0, mixGrams: 0, doses: [] };
  const takes = cupTakes(
    product.id,
    record.cups.map((cup) => ({ ...cup, planned })),
  );
  const at = onTheWall(new Date(realMoment(run, record.at)));
  const there = getBatch(db, run.batchId) !== null;
  for (const { lotId, item, part, amount, kind } of lotMovements(takes, (item) => lotsOf(db, item)))
    move(
      db,
      {
        ...{ lotId, item, part, amount, at, layer: null, cup: null, batchId: there ? run.batchId : null },
        kind: kind === 'lost' ? 'thrown away' : kind,
        note: `${run.name}: ${state.over?.why ?? 'given up'}`.slice(0, 200),
      },
      now,
    );
}
