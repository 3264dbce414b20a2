import { pastLotsTaken } from '@/core/run/bottles';
import { layersToLog, type LayerRecord } from '@/core/run/record';
import { layerOf, type RunState } from '@/core/run/runState';
import { realMoment, type RunRow } from '@/core/run/views';
import { setScope } from '@/core/records/command';
import { pourId, type PourRecord } from '@/core/records/recordSchemas';
import { getBatch, setOfBatch } from '@/db/batches';
import { keptPlan } from '@/db/keptPlans';
import { currentPours, entryBelow, isEntered } from '@/db/pours';
import { bookPour, plannedLayer, type PlannedLayer } from '@/db/bookPour';
import type { Connection, Database } from '@/db/storage';
import { edit } from '@/db/journal';
import { onTheWall } from './clock';

const toMilligrams = (value: number): number => Math.round(value * 1000) / 1000;
const grams = (value: number): number => toMilligrams(Math.min(10_000, Math.max(0, value)));

const timed = (minutes: number | null): number | null =>
  minutes === null ? null : toMilligrams(Math.min(525_600, Math.max(0, minutes)));

/** A layer as the log keeps it. */
function pourRecord(run: RunRow, record: LayerRecord, expiredLots: string[]): PourRecord {
  return {
    layer: record.layer,
    pouredAt: onTheWall(new Date(realMoment(run, record.at))),
    pouredUntil: onTheWall(new Date(realMoment(run, record.until))),
    temperatureC: Math.min(50, Math.max(-20, record.temperatureC)),
    cups: record.cups.map((cup) => ({
      number: cup.number,
      partAGrams: grams(cup.partAGrams),
      note: cup.note,
      discarded: cup.discarded,
      partBGrams: cup.partBGrams === null ? null : grams(cup.partBGrams),
      pouredGrams: grams(cup.pouredGrams),
      ...(cup.lots.length > 0 && { lots: cup.lots }),
      doses: cup.doses.map((dose) => ({ id: dose.id.slice(0, 40), grams: grams(dose.grams) })),
      pieces: cup.pieces.map((piece) => ({ ...piece, tag: piece.tag.slice(0, 60), grams: grams(piece.grams) })),
      bench: {
        read: cup.bench.read,
        stirMinutes: timed(cup.bench.stirMinutes),
        clearMinutes: timed(cup.bench.clearMinutes),
        ...(cup.bench.drops.length > 0 && {
          drops: cup.bench.drops.map((one) => ({ ...one, id: one.id.slice(0, 40), grams: grams(one.grams) })),
        }),
        thickMinutes: timed(cup.bench.thickMinutes),
        pieceMinutes: cup.bench.pieceMinutes.map(timed),
      },
    })),
    tintLeft: {
      resinGrams: toMilligrams(record.tintLeft.resinGrams),
      colours: record.tintLeft.colours.map((one) => ({ id: one.id.slice(0, 40), grams: toMilligrams(one.grams) })),
    },
    ...(expiredLots.length > 0 && { expiredLots }),
    ...(record.hardened.length > 0 && {
      hardened: record.hardened.map((look) => ({
        ...look,
        reckonedMinutes: toMilligrams(look.reckonedMinutes),
        softMinutes: timed(look.softMinutes),
        firmMinutes: timed(look.firmMinutes),
      })),
    }),
    note: record.note,
  };
}

/**
 * Writes what has changed of a run's layers into the log, and with it what leaves the bottles: within the transaction in which its
 * events are taken. What reached no piece, and what is poured of a batch that nobody plans any more, has no entry, and leaves the
 * bottles all the same. `before` is how the layers stood before the events; what the log was never told of it is told in any case.
 * `earlier`: runs of the same batch before this one, the oldest first.
 */
export function logLayers(
  db: Database,
  run: RunRow,
  state: RunState,
  before: readonly LayerRecord[],
  now: string,
  earlier: () => { run: RunRow; state: RunState }[],
): void {
  const setId = setOfBatch(db, run.batchId);
  for (const record of layersToLog(state)) {
    const was = before.find(({ layer }) => layer === record.layer);
    const reached = record.cups.some(({ pouredGrams }) => pouredGrams > 0);
    const first = Math.min(...layerOf(state, record.layer).cups.map(({ number }) => number));
    const entered = setId !== null && isEntered(db, run.batchId, record.layer, first);
    const unknown = setId !== null && reached && !entered;
    if (was && JSON.stringify(was) === JSON.stringify(record) && !unknown) continue;
    const own = pourRecord(run, record, pastLotsTaken(state));
    // Cups of a run that goes on with a layer are numbered on from those that the layer has had.
    const goesOn = first > 1;
    const below =
      goesOn && setId !== null
        ? entryBelow(db, run.batchId, record.layer, first)
        : ofRuns(earlier(), record.layer, goesOn);
    const pour = inAll(goesOn ? onTopOf(below, own) : withWaste(own, below));
    if (setId === null || !(reached || entered)) {
      // A further word on it moves nothing on the shelf.
      if (was && JSON.stringify(was.cups) === JSON.stringify(record.cups)) continue;
      const { batchId, name: batchName } = run;
      bookPour(db, { batchId, batchName, layer: record.layer, planned: plannedFor(db, run, state, record), pour }, now);
      continue;
    }
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

/** What runs have taken for a layer, one on top of the other: those that reached pieces with it, or those whose mixes all went to waste. */
const ofRuns = (
  runs: readonly { run: RunRow; state: RunState }[],
  layer: number,
  reached: boolean,
): PourRecord | null =>
  runs.reduce<PourRecord | null>((below, { run, state }) => {
    const record = layersToLog(state).find((one) => one.layer === layer);
    if (!record || record.cups.some(({ pouredGrams }) => pouredGrams > 0) !== reached) return below;
    const pour = pourRecord(run, record, pastLotsTaken(state));
    return reached ? onTopOf(below, pour) : withWaste(pour, below);
  }, null);

/** A layer with the mixes that went to waste before it was begun anew: it took them too. They are numbered after its own. */
function withWaste(pour: PourRecord, wasted: PourRecord | null): PourRecord {
  if (wasted === null) return pour;
  const last = Math.max(...pour.cups.map(({ number }) => number));
  const cups = wasted.cups.map((cup, i) => ({ ...cup, number: last + 1 + i, discarded: true }));
  return { ...onTopOf({ ...wasted, cups: [] }, pour), pouredAt: pour.pouredAt, cups: [...pour.cups, ...cups] };
}

/** A layer that was poured in more than one run, as one. */
const onTopOf = (before: PourRecord | null, pour: PourRecord): PourRecord =>
  before === null
    ? pour
    : {
        ...pour,
        pouredAt: before.pouredAt,
        temperatureC: before.temperatureC,
        cups: [...before.cups, ...pour.cups],
        tintLeft: addedUp(before.tintLeft, pour.tintLeft),
        ...((before.expiredLots || pour.expiredLots) && {
          expiredLots: [...new Set([...(before.expiredLots ?? []), ...(pour.expiredLots ?? [])])],
        }),
        note: [before.note, pour.note].filter(Boolean).join(' · ').slice(0, LONGEST_NOTE),
      };

const LONGEST_NOTE = 2000;

function addedUp(a: PourRecord['tintLeft'], b: PourRecord['tintLeft']): NonNullable<PourRecord['tintLeft']> {
  const colours = new Map<string, number>();
  for (const { id, grams: own } of [...(a?.colours ?? []), ...(b?.colours ?? [])])
    colours.set(id, (colours.get(id) ?? 0) + own);
  return {
    resinGrams: (a?.resinGrams ?? 0) + (b?.resinGrams ?? 0),
    colours: [...colours].map(([id, own]) => ({ id, grams: own })),
  };
}

/** A layer of all its runs: what was kept of a stock in one and taken in a later one was not left over. */
const inAll = (pour: PourRecord): PourRecord => ({
  ...pour,
  ...(pour.tintLeft && {
    tintLeft: {
      resinGrams: grams(pour.tintLeft.resinGrams),
      colours: pour.tintLeft.colours.map((one) => ({ ...one, grams: grams(one.grams) })),
    },
  }),
});

/** A layer by the plan that is kept with its batch, or, when that is gone, by the run's own. */
function plannedFor(db: Connection, run: RunRow, state: RunState, record: LayerRecord): PlannedLayer {
  const kept = keptPlan(db, run.batchId);
  const number = record.layer;
  const layer = layerOf(state, number);
  return (
    (kept && plannedLayer(kept, number)) ?? {
      productId: layer.product.id,
      // What was read at the bench says all of a cup.
      cups: [],
      tintLeft: record.tintLeft,
      cupsBefore: 0,
      pieces: new Set(layer.cups.flatMap(({ pours }) => pours.map(({ designId, copy }) => `${copy}:${designId}`))).size,
      damMm: 0,
      isLast: number === state.plan.layers.at(-1)?.number,
    }
  );
}
