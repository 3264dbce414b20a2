import { z } from 'zod';
import { buildRun } from '@/core/run/buildRun';
import { clocksOf, type RunClock } from '@/core/run/clocks';
import { keptStock, stockAtHand, type KeptStock } from '@/core/run/keptStock';
import { layersToLog } from '@/core/run/record';
import { RunBook } from '@/core/run/replay';
import type { RunState } from '@/core/run/runState';
import { stepWords } from '@/core/run/say';
import { runEventsSchema, type RunEvent, type RunPlan } from '@/core/run/runSchema';
import {
  realMoment,
  runMoment,
  type RunRow,
  type RunSummary,
  type RunView,
  type WorkshopBenchView,
} from '@/core/run/views';
import { batchFacts } from '@/core/schedule/facts';
import { goodUntil, inUseOrder, isPast, NOTHING } from '@/core/stock/lots';
import { batchRequest, pouredLayers } from '@/core/records/buildRequest';
import { readyReminders } from '@/core/records/nextTime';
import { stillToPour, wholePours } from '@/core/records/rest';
import { productsOf, type PlanRequest } from '@/core/plan';
import { shelfLifeOf } from '@/db/bookPour';
import { lotsOf } from '@/db/stock';
import { getBatch } from '@/db/batches';
import { keepPlan } from '@/db/keptPlans';
import type { Database } from '@/db/storage';
import { getDocument } from '@/db/documents';
import { DEFAULT_SETTINGS, SETTINGS_ID } from '@/db/defaults';
import { EditRefusedError } from '@/db/journal';
import { openBatches } from '@/db/openBatches';
import {
  addRun,
  appendEvents,
  endRun,
  eventsOf,
  getRun,
  lastRoomReading,
  openRuns,
  runOfBatch,
  runsInEarnest,
  runsOfSet,
  type StoredRun,
} from '@/db/runs';
import { onTheWall, wallClockNow } from './clock';
import { whenFree, withData } from './data';
import { amountsOf, stripOf } from './figures';
import { FieldProblem } from './fieldProblem';
import { logLayers } from './logLayers';
import { moments } from './moments';
import { listenAnswer, tell } from './live';
import { planToPour } from './planToPour';
import { answer, ownJson, RequestError } from './respond';
import { deskView } from './views';

const beginSchema = z.object({
  batchId: z.string().min(1).max(40),
  /** Practice, so many times faster than real; in earnest when it is not said. */
  practice: z
    .object({ speed: z.union([z.literal(1), z.literal(4), z.literal(10)]), seed: z.number().int() })
    .optional(),
});

/** Begins a run of a batch, or leads to the one that it is in. */
export const beginAnswer = (request: Request): Promise<Response> =>
  answer(async () => {
    const { batchId, practice } = beginSchema.parse(await ownJson(request));
    return { id: await beginRun(batchId, practice ?? null) };
  });

export async function beginRun(batchId: string, practice: { speed: number; seed: number } | null): Promise<string> {
  const known = withData((db) => runOfBatch(db, batchId));
  if (known && !practice) return known.id;
  const { setId, row, amounts: planned, poured, kept } = await planToPour(batchId);
  const stop = planned.amounts.problems.find(({ severity }) => severity === 'stop');
  if (stop && kept === null) throw new FieldProblem(['batchId'], stop.message);
  const whole = practice ? [] : wholePours(planned.amounts, poured);
  const request: PlanRequest = { ...planned.request, poured: pouredLayers(whole) };
  if (request.poured.length >= planned.amounts.layers.length)
    throw new FieldProblem(['batchId'], `All layers of ${row.data.name} are poured.`);
  const settings = withData((db) => getDocument(db, 'settings', SETTINGS_ID)?.data ?? DEFAULT_SETTINGS);
  const now = momentNow();
  const room = withData(lastRoomReading);
  const left = practice ? [] : withData((db) => runsBefore(db, { id: '', batchId, begunAt: now }));
  const plan = buildRun({
    name: row.data.name,
    request,
    amounts: practice ? planned.amounts : stillToPour(planned.amounts, request, poured),
    by: settings.measureBy,
    facts: batchFacts(request, planned.amounts),
    now: wallClockNow(),
    bottles: withData((db) => bottlesFor(db, request)),
    keptStocks: keptStocks(planned.amounts.layers, left),
    reminders: readyReminders(settings),
    filler: await fillerFor(setId, row.data.own?.fillerId ?? null),
    cuts: await cutsOf(setId),
  });
  const run: StoredRun = {
    id: crypto.randomUUID(),
    setId,
    batchId,
    name: row.data.name,
    begunAt: now,
    overAt: null,
    practiceSpeed: practice?.speed ?? null,
    seed: practice?.seed ?? 0,
    plan:
      room && now - room.at < ROOM_FRESH_MS
        ? { ...plan, roomC: room.temperatureC, climate: plan.climate && { ...plan.climate, read: true } }
        : plan,
  };
  return whenFree((db) =>
    db.transaction(
      () => {
        const other = practice ? null : runOfBatch(db, batchId);
        if (other) return other.id;
        // What is poured by is kept as it is now: the set may be changed while it runs.
        if (!practice && kept === null) keepPlan(db, batchId, planned, wallClockNow());
        addRun(db, run);
        return run.id;
      },
      { behavior: 'immediate' },
    ),
  );
}

/** What the last run that had a stock tint for a layer left of it. */
const keptStocks = (
  layers: readonly { number: number }[],
  before: readonly { run: RunRow; state: RunState }[],
): ReadonlyMap<number, KeptStock> =>
  new Map(
    layers.flatMap(({ number }) => {
      const last = before.findLast(({ state }) =>
        state.plan.layers.some((layer) => layer.number === number && stockAtHand(state, layer) > 0),
      );
      const kept =
        last &&
        keptStock(last.state, number, wallClockNow(), (moment) => onTheWall(new Date(realMoment(last.run, moment))));
      return kept ? [[number, kept] as const] : [];
    }),
  );

/** Lots that hold some of what a run takes, in the order in which they are used up. */
function bottlesFor(db: Database, request: PlanRequest): RunPlan['bottles'] {
  const today = wallClockNow().slice(0, 10);
  const things = [
    ...productsOf(request).map(({ id }) => ({ kind: 'product' as const, id })),
    ...request.recipe.doses.map(({ colourant: { id } }) => ({ kind: 'colourant' as const, id })),
  ];
  return things.flatMap((item) => {
    const months = shelfLifeOf(db, item);
    return inUseOrder(lotsOf(db, item))
      .filter(({ left }) => left.some(({ amount }) => amount > NOTHING))
      .map(({ id, lot, left }) => ({
        id,
        name: lot.name,
        kind: item.kind,
        of: item.id,
        goodUntil: goodUntil(lot, months),
        past: isPast(lot, months, today),
        left: left.map(({ part, amount }) => ({ part, grams: amount })),
      }));
  });
}

/** A reading of the room that is older says nothing of now. */
const ROOM_FRESH_MS = 30 * 60_000;

/** The pieces of a set cut open across their deepest place. */
async function cutsOf(setId: string): Promise<NonNullable<Parameters<typeof buildRun>[0]['cuts']>> {
  const desk = deskView(setId);
  const strip = desk ? await stripOf(desk, { cut: 'deepest', samples: 49 }) : [];
  return new Map(strip.map(({ id, profile }) => [id, { lengthMm: profile.lengthMm, heightMm: [...profile.heightMm] }]));
}

/** What the piece takes that leftovers are kept for. */
async function fillerFor(setId: string, designId: string | null): Promise<ReturnType<typeof buildRun>['filler']> {
  const desk = designId === null ? null : deskView(setId);
  const design = desk?.designs.find(({ id }) => id === designId)?.data;
  if (!desk || !design || designId === null) return null;
  const batch = { name: 'Filler', items: [{ designId, copies: 1 }], pourAt: desk.now, benchWindows: null };
  const request = batchRequest(desk, batch, { kept: null, pours: [] });
  if (!request) return null;
  const amounts = await amountsOf(request);
  return { designId, tag: design.tag, grams: amounts.pieces[0]?.pouredGrams ?? 0 };
}

/** Books of runs as far as they were read, so that a press does not read the whole run again. */
const books = new Map<string, Book>();
const MOST_BOOKS = 12;

/** A run as far as it was read. */
interface Book {
  book: RunBook;
  seq: number;
  /** When the last press of it was, on its own clock. */
  pressedAt: number;
}

/** The moment on the server's clock; what happened at the bench is never after it. */
const momentNow = (): number => moments().now();

/** What is beside the steps: none of these moves a run on. */
const BESIDE: ReadonlySet<RunEvent['type']> = new Set(['room', 'note', 'answer', 'snooze', 'timer', 'slip', 'bottle']);

/** A run's book up to its last event. */
function bookOf(db: Database, run: StoredRun): Book {
  const begun = { book: new RunBook(run.plan, runMoment(run, run.begunAt)), seq: 0, pressedAt: run.begunAt };
  const known = books.get(run.id) ?? begun;
  for (const { seq, event } of eventsOf(db, run.id, known.seq)) enter(known, seq, event);
  if (run.overAt === null) moments().notBefore(realMoment(run, known.pressedAt));
  books.delete(run.id);
  books.set(run.id, known);
  if (books.size > MOST_BOOKS) books.delete(books.keys().next().value!);
  return known;
}

function enter(known: Book, seq: number, event: RunEvent): void {
  known.book.apply(event);
  known.seq = seq;
  if (!BESIDE.has(event.type)) known.pressedAt = Math.max(known.pressedAt, event.at);
}

/** Presses with their moments: none after now, none before the last one, whatever the clock of a window or of this machine says. */
function placed(run: StoredRun, { pressedAt }: Book, events: readonly RunEvent[]): RunEvent[] {
  const latest = runMoment(run, momentNow()) + 2000;
  let last = pressedAt;
  return events.map((event) => {
    const at = Math.min(latest, Math.max(run.begunAt, event.at));
    // Readings of the room come when they come.
    if (event.type === 'room') return { ...event, at };
    if (!BESIDE.has(event.type)) last = Math.max(last, at);
    return { ...event, at: Math.max(last, at) };
  });
}

/** The first press after the machine's clock was set back is told of it, once. */
const clockNote = (run: StoredRun, events: readonly RunEvent[]): RunEvent[] => {
  const minutes = Math.round(moments().behindMs / 60_000);
  const at = events.find(({ type }) => !BESIDE.has(type))?.at;
  if (minutes === 0 || at === undefined) return [];
  return [{ id: `clock-${minutes}-${run.id.slice(0, 8)}`, at, by: 'clock', type: 'note', text: clockWords(minutes) }];
};

const clockWords = (minutes: number): string =>
  `The clock of this machine was set back ${minutes} min while the run was on. The run goes on by its own clock; times in it stand ${minutes} min ahead of the machine’s.`;

/** Takes presses of a window: each once, in order, with what they write into the log, all in one transaction. */
export async function takeEvents(
  runId: string,
  events: readonly RunEvent[],
): Promise<{ seq: number; event: RunEvent }[]> {
  const taken = await whenFree((db) => {
    try {
      return db.transaction(
        () => {
          const run = getRun(db, runId);
          if (!run) throw new EditRefusedError('missing', 'This run is no longer there.');
          const known = bookOf(db, run);
          const before = layersToLog(known.book.state());
          const added = appendEvents(db, runId, placed(run, known, [...clockNote(run, events), ...events]));
          for (const { seq, event } of added) enter(known, seq, event);
          const state = known.book.state();
          if (run.practiceSpeed === null && added.length > 0)
            logLayers(db, run, state, before, wallClockNow(), () => runsBefore(db, run));
          if (state.over && run.overAt === null) endRun(db, runId, momentNow());
          return added;
        },
        { behavior: 'immediate' },
      );
    } catch (error) {
      // What was rolled back must not stay in the book.
      books.delete(runId);
      throw error;
    }
  });
  if (taken.length > 0) {
    tell({ type: 'events', runId, events: taken, serverNow: momentNow() });
    tellRuns();
  }
  return taken;
}

export const eventsAnswer = (runId: string, request: Request): Promise<Response> =>
  answer(async () => {
    const events = runEventsSchema.parse(await ownJson(request));
    const taken = await takeEvents(runId, events);
    return { taken, serverNow: momentNow() };
  });

function summaryOf(db: Database, row: RunRow): RunSummary[] {
  const run = getRun(db, row.id);
  if (!run) return [];
  const state = bookOf(db, run).book.state();
  const heard = row.practiceSpeed === null ? clocksOf(state) : [];
  return [{ ...row, set: run.plan.setName, next: nextWords(state), clocks: heard.map(slimClock) }];
}

const slimClock = ({ id, name, words, due, snoozedTo, kind, answers }: RunClock): RunSummary['clocks'][number] => ({
  id,
  name,
  words,
  kind,
  answers,
  due,
  snoozedTo,
});

const nextWords = (state: RunState): string => {
  if (!state.current) return state.over?.how === 'given up' ? 'given up' : 'finished';
  const { where, title } = stepWords(state, state.current);
  return where ? `${title}, ${where}` : title;
};

/** The runs in earnest of a batch before one of them, the oldest first, as they stand. */
const runsBefore = (
  db: Database,
  { id: own, batchId, begunAt }: Pick<RunRow, 'id' | 'batchId' | 'begunAt'>,
): { run: RunRow; state: RunState }[] =>
  runsInEarnest(db, batchId).flatMap(({ id, begunAt: then }) => {
    const run = id !== own && then <= begunAt ? getRun(db, id) : null;
    return run ? [{ run, state: bookOf(db, run).book.state() }] : [];
  });

/** The runs in earnest of a batch as they stand, the oldest first. */
export const statesOfRuns = (db: Database, batchId: string): RunState[] =>
  runsBefore(db, { id: '', batchId, begunAt: Infinity }).map(({ state }) => state);

/** Tells the log of a batch that has come back what its runs poured while it was away. */
export function logRunsOf(db: Database, batchId: string, now: string): void {
  for (const { id } of runsInEarnest(db, batchId)) {
    const run = getRun(db, id);
    const state = run && bookOf(db, run).book.state();
    if (state) logLayers(db, run, state, layersToLog(state), now, () => runsBefore(db, run));
  }
}

/** Runs that are under way, with what is next in each. */
export const openSummaries = (): RunSummary[] => withData((db) => openRuns(db).flatMap((row) => summaryOf(db, row)));

function tellRuns(): void {
  tell({ type: 'runs', runs: openSummaries(), serverNow: momentNow() });
}

/** The runs of a set, for its page: those under way first. */
export const setRuns = (setId: string): RunSummary[] =>
  withData((db) => runsOfSet(db, setId).flatMap((row) => summaryOf(db, row)));

/** The same for the page of a stage, with the moment at which they stood so. */
export const benchRuns = (setId: string): { runs: RunSummary[]; serverNow: number } => ({
  runs: setRuns(setId),
  serverNow: momentNow(),
});

/** The bench of all sets: what is under way, and what has layers to pour and is in no run in earnest. */
export const workshopBench = (): WorkshopBenchView =>
  withData((db) => {
    const runs = openSummaries();
    const begun = new Set(runs.flatMap(({ batchId, practiceSpeed }) => (practiceSpeed === null ? [batchId] : [])));
    const batches = openBatches(db, wallClockNow()).flatMap(({ id, setId }) => {
      const row = begun.has(id) ? null : getBatch(db, id);
      if (!row || (row.poured && row.poured.layers >= row.poured.of)) return [];
      const set = getDocument(db, 'set', setId)?.data.name ?? '';
      const { layers: layersPoured = 0, dry = 0 } = row.poured ?? {};
      return [{ id, setId, set, name: row.data.name, pourAt: row.data.pourAt, layersPoured, dry }];
    });
    return { runs, batches: batches.toReversed(), serverNow: momentNow() };
  });

/** A run with everything that a window needs; null when there is none. */
export function runView(runId: string): RunView | null {
  return withData((db) => {
    const run = getRun(db, runId);
    if (!run) return null;
    const { plan, ...row } = run;
    const settings = getDocument(db, 'settings', SETTINGS_ID)?.data ?? DEFAULT_SETTINGS;
    return {
      run: row,
      plan,
      events: eventsOf(db, runId),
      serverNow: momentNow(),
      units: settings.units,
      measureBy: settings.measureBy,
      notice: noticeOf(db, run),
      others: openRuns(db)
        .filter(({ id }) => id !== runId)
        .flatMap((other) => summaryOf(db, other)),
    };
  });
}

/** What is to be said of a run beside its steps; null when there is nothing. */
function noticeOf(db: Database, run: RunRow): string | null {
  const minutes = run.overAt === null ? Math.round(moments().behindMs / 60_000) : 0;
  const said = [
    run.practiceSpeed === null && getBatch(db, run.batchId) === null
      ? 'The batch was removed meanwhile. The run goes on; what it takes still leaves the bottles, and stands in the log should the batch come back.'
      : null,
    minutes > 0 ? clockWords(minutes) : null,
  ].filter((words) => words !== null);
  return said.length > 0 ? said.join(' ') : null;
}

export const runAnswer = (runId: string): Promise<Response> =>
  answer(() => {
    const view = runView(runId);
    if (!view) throw new RequestError(404, 'This run is no longer there.');
    return view;
  });

export const runsAnswer = (): Promise<Response> => answer(() => ({ runs: openSummaries(), serverNow: momentNow() }));

export const liveAnswer = (request: Request): Promise<Response> =>
  answer(() => listenAnswer(request, { type: 'runs', runs: openSummaries(), serverNow: momentNow() }));
