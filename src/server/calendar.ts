import { narrowedWindows } from '@/core/time/benchWindows';
import type { WallTime } from '@/core/time/wallTime';
import { batchRequest } from '@/core/records/buildRequest';
import type { Amounts, PlanRequest } from '@/core/plan';
import type { BatchRow, CalendarView, ClockAndRoom, DeskView, SetDocuments, WeekSheetView } from '@/core/records/views';
import { batchFacts } from '@/core/schedule/facts';
import { calendarRequest, FIRST_WORKPLACE, FULL_EFFORT, type CalendarBatch } from '@/core/schedule/workplace';
import { keptRequest } from '@/core/schedule/kept';
import { pourStep } from '@/core/schedule/routes';
import { withMeasured } from '@/core/schedule/roomDays';
import type { ScheduleRequest } from '@/core/schedule/scheduleRequest';
import { getBatch } from '@/db/batches';
import { batchDetail } from '@/db/pours';
import { openBatches } from '@/db/openBatches';
import { wallClockNow } from './clock';
import { withData } from './data';
import { amountsOf, firstScheduleOf, inTime, scheduleOf } from './figures';
import { measuredDays } from './measuredRoom';
import { answer, RequestError } from './respond';
import { deskView, setsToPlan } from './views';

/** Every batch that is being made, of all sets, as the calendar takes it. Those whose figures cannot be had are left out. */
export async function calendarBatches(): Promise<CalendarBatch[]> {
  const open = withData((db) => openBatches(db, wallClockNow()));
  const sets = [...new Set(open.map(({ setId }) => setId))];
  const made = await Promise.all([...setsToPlan(sets)].map(([setId, set]) => batchesOf(setId, set, open)));
  const byId = new Map(made.flat().map((batch) => [batch.id, batch]));
  return open.flatMap(({ id }) => byId.get(id) ?? []);
}

type ToPlan = SetDocuments & ClockAndRoom;

/** Those of one set. */
async function batchesOf(
  setId: string,
  desk: ToPlan,
  open: readonly { id: string; setId: string }[],
): Promise<CalendarBatch[]> {
  const opened = open.flatMap((batch) => (batch.setId === setId ? (openedBatch(desk, batch.id) ?? []) : []));
  const amounts = await Promise.all(opened.map(({ kept, request }) => kept ?? amountsOf(request)));
  return opened.map(({ row, request }, i) => {
    const { name, job, route, benchWindows } = desk.set.data;
    // A set may narrow the workshop's windows, a batch its set's.
    const ofSet = benchWindows ?? row.data.benchWindows;
    const windows =
      benchWindows && row.data.benchWindows ? narrowedWindows(benchWindows, row.data.benchWindows) : ofSet;
    return {
      id: row.id,
      version: row.version,
      setId,
      set: name,
      name: row.data.name,
      due: job?.due ?? null,
      route: route ?? null,
      windows,
      facts: batchFacts(request, amounts[i]!),
      course: row.data.course ?? { marks: [] },
    };
  });
}

/** A batch, what is worked out for it, and what was kept of that when it was first poured. */
function openedBatch(desk: ToPlan, id: string): { row: BatchRow; request: PlanRequest; kept: Amounts | null } | null {
  return withData((db) => {
    const row = getBatch(db, id);
    if (!row) return null;
    const detail = batchDetail(db, id);
    const request = batchRequest(desk, row.data, detail);
    return request && { row, request, kept: detail.kept?.amounts ?? null };
  });
}

/** Looks for the plan that a page is drawn with: some tenths of a second. The browser looks further. */
const FIRST_EFFORT = 400;

/** The request of a calendar as it stands: the plan that is kept, where there is one. */
function asked(
  view: Pick<CalendarView, 'batches' | 'measured'>,
  desk: DeskView,
  effort = FIRST_EFFORT,
): ScheduleRequest | null {
  const { workplace: usual = FIRST_WORKPLACE, ...settings } = desk.shelf.settings.data;
  const workplace = { ...usual, days: withMeasured(usual.days, view.measured) };
  const workshop = { ...settings, workplace, now: desk.now, clockChanges: desk.clockChanges };
  const request = calendarRequest(view.batches, workshop, effort);
  return request && (keptRequest(request, view.batches) ?? request);
}

/**
 * The calendar of a set's page: all that is being made, and a first plan of it, there in time or still to come. Null
 * when there is no such set.
 */
export async function stageCalendar(setId: string): Promise<CalendarView | { later: Promise<CalendarView> } | null> {
  const desk = deskView(setId);
  return desk && inTime(calendarOf(desk));
}

/** What a page of Cure is drawn with. */
async function calendarOf(desk: DeskView): Promise<CalendarView> {
  // A page with more of them in it would be slower to come than what it is to show at first: the browser asks for them.
  if (withData((db) => openBatches(db, desk.now)).length > MOST_IN_A_PAGE) return NOTHING_YET;
  const [batches, measured] = [await calendarBatches(), measuredDays(desk.now)];
  const request = asked({ batches, measured }, desk);
  return { batches, measured, plan: request && (await firstScheduleOf(request)) };
}

const MOST_IN_A_PAGE = 10;
const NOTHING_YET: CalendarView = { batches: [], measured: [], plan: null };

/** The week to print: the plan that is kept, or a first one, and what to look for a better one by. Null when there is no such set or nothing to plan. */
export async function weekSheet(setId: string): Promise<WeekSheetView | null> {
  const desk = deskView(setId);
  if (!desk) return null;
  const batches = await calendarBatches();
  const request = asked({ batches, measured: measuredDays(desk.now) }, desk, FULL_EFFORT);
  if (!request) return null;
  const many = batches.length > MOST_IN_A_PAGE;
  const kept = request.batches.some(({ steps }) => steps.some(({ pinned }) => pinned !== undefined));
  return {
    setId,
    request,
    plan: kept ? await scheduleOf(request) : many ? null : await firstScheduleOf({ ...request, effort: FIRST_EFFORT }),
    kept,
  };
}

/** When the calendar as it stands pours each batch that is being made, by batch. Empty where there are more than a page shows. */
async function pourTimes(desk: DeskView): Promise<Record<string, WallTime>> {
  const { plan } = await calendarOf(desk);
  const first = (plan?.steps ?? []).filter(({ stepId, done }) => stepId === pourStep(1) && !done);
  return Object.fromEntries(first.map(({ batchId, from }) => [batchId, from]));
}

export const pourTimesAnswer = (setId: string): Promise<Response> =>
  answer(async () => {
    const desk = deskView(setId);
    if (!desk) throw new RequestError(404, 'This set is no longer there.');
    return pourTimes(desk);
  });

export const calendarAnswer = (): Promise<Response> =>
  answer(async () => ({ batches: await calendarBatches(), measured: measuredDays(wallClockNow()) }));
