import { invoiceCsv } from '@/core/formats/invoiceFile';
import { TYPICAL_WORK } from '@/core/money/quote';
import type { Amounts, PlanRequest } from '@/core/plan';
import { batchRequest, wholeSetRequest } from '@/core/records/buildRequest';
import { copiesOfDesigns, isFinished, openItems } from '@/core/records/copies';
import {
  hoursSpread,
  jobFigures,
  partsOfBatch,
  timedParts,
  type DeliveredDesign,
  type JobBatch,
  type JobView,
  type JobWorkedOut,
} from '@/core/records/job';
import { newestPhoto } from '@/core/records/photos';
import type { Batch, PourRecord } from '@/core/records/recordSchemas';
import type { DeskView } from '@/core/records/views';
import { batchFacts } from '@/core/schedule/facts';
import type { ScheduleStep } from '@/core/schedule/scheduleRequest';
import { batchOnRoute } from '@/core/schedule/onRoute';
import { routeOf } from '@/core/schedule/workplace';
import { quoteBatch } from '@/core/stock/quoteBatch';
import { listBatches } from '@/db/batches';
import { getDocument } from '@/db/documents';
import { batchDetail } from '@/db/pours';
import { recordedSteps } from '@/db/recordedWork';
import { spentOnSet } from '@/db/spent';
import { copiesNow } from './copies';
import { withData } from './data';
import { amountsOf } from './figures';
import { answer, RequestError } from './respond';
import { levelsFor } from './stock';
import { deskView, shelfAndState } from './views';

/** A job as its page begins; null when there is no such set. */
export const jobView = (setId: string): JobView | null =>
  withData((db) => {
    const set = getDocument(db, 'set', setId);
    return set && { ...shelfAndState(db, `set:${setId}`), set };
  });

/** Copies that no batch has taken are planned as a batch of their own. */
const IN_NO_BATCH = 'Copies in no batch yet';
/** More batches of one set are not summed up. */
const MOST_BATCHES = 500;

interface Opened {
  id: string | null;
  batch: Batch;
  request: PlanRequest;
  kept: Amounts | null;
  pours: readonly PourRecord[];
  taken: number | null;
}

/** The batches of a set with what is planned, kept and taken of each, and its open copies. */
const openedOf = (desk: DeskView): { opened: Opened[]; open: number } =>
  withData((db) => {
    const spent = new Map(spentOnSet(db, desk.set.id).map(({ batchId, money }) => [batchId, money]));
    const opened = listBatches(db, desk.set.id, MOST_BATCHES).flatMap(({ id, data }): Opened[] => {
      const detail = batchDetail(db, id);
      const request = batchRequest(desk, data, detail);
      const { kept, pours } = detail;
      return request
        ? [{ id, batch: data, request, kept: kept?.amounts ?? null, pours, taken: spent.get(id) ?? null }]
        : [];
    });
    const items = desk.set.data.putAway ? [] : openItems(desk.designs, copiesNow(db, desk.set.id));
    const batch: Batch = { name: IN_NO_BATCH, items, pourAt: desk.now, benchWindows: null };
    const request = items.length > 0 ? batchRequest(desk, batch, null) : null;
    return {
      open: items.reduce((sum, { copies }) => sum + copies, 0),
      opened: request ? [...opened, { id: null, batch, request, kept: null, pours: [], taken: null }] : opened,
    };
  });

async function jobBatch({ id, batch, request, kept, pours, taken }: Opened, desk: DeskView): Promise<JobBatch> {
  const amounts = kept ?? (await amountsOf(request));
  const facts = batchFacts(request, amounts);
  const { settings } = desk.shelf;
  const route = routeOf({ route: desk.set.data.route ?? null, facts }, settings.data.stepMinutes);
  const named = { id: id ?? IN_NO_BATCH, name: batch.name, set: desk.set.data.name, due: null };
  const levels = withData((db) => levelsFor(db, id ?? ''));
  const work = settings.data.work ?? TYPICAL_WORK;
  const { low, likely, high } = quoteBatch(request, amounts, { levels, shelf: desk.shelf, work });
  const poured = new Set(pours.map(({ layer }) => layer));
  return {
    id,
    name: batch.name,
    steps: allDone(batch, batchOnRoute(named, facts, route, batch.course?.marks ?? []).steps),
    mixGrams: amounts.layers.reduce((sum, { mixGrams }) => sum + mixGrams, 0),
    pouredGrams: amounts.layers.reduce((sum, { number, mixGrams }) => (poured.has(number) ? sum + mixGrams : sum), 0),
    material: { low, likely, high },
    taken,
  };
}

/** What was handed over, or did not come out, is done with. */
function allDone({ items, fates = [] }: Batch, steps: readonly ScheduleStep[]): readonly ScheduleStep[] {
  const last = fates.at(-1);
  if (!last || fates.length < items.reduce((sum, { copies }) => sum + copies, 0)) return steps;
  const done = { from: last.at, to: last.at };
  return steps.map((step) => ({ done, ...step }));
}

/** Its designs as they are delivered: how many are finished, what a piece weighs, how much water it took. */
async function designsOf(desk: DeskView): Promise<DeliveredDesign[]> {
  const request = wholeSetRequest(desk);
  if (!request) return [];
  const { pieces } = await amountsOf(request);
  const copies = copiesOfDesigns(
    desk.designs,
    withData((db) => copiesNow(db, desk.set.id)),
    desk.now,
  );
  const batches = withData((db) => listBatches(db, desk.set.id, MOST_BATCHES));
  return desk.designs.flatMap(({ id: designId, data: { tag, name } }) => {
    const own = copies.filter((copy) => copy.designId === designId && copy.state !== 'spoilt');
    const planned = pieces.find((piece) => piece.designId === designId);
    return planned
      ? [
          {
            designId,
            tag,
            name,
            copies: own.length,
            finished: own.filter(isFinished).length,
            delivered: own.filter(({ state }) => state === 'delivered').length,
            photo: newestPhoto(batches, own),
            weightGrams: planned.body.totalGrams,
            waterGrams: planned.body.waterGrams,
          },
        ]
      : [];
  });
}

/** A job in figures: all its batches, and the copies that are in none yet. */
export async function jobWorkedOut(setId: string): Promise<JobWorkedOut> {
  const desk = deskView(setId);
  if (!desk) throw new RequestError(404, 'This set is no longer there.');
  const { opened, open } = openedOf(desk);
  const { data: settings } = desk.shelf.settings;
  const { ratePerHour, margin } = settings.work ?? TYPICAL_WORK;
  const { job } = desk.set.data;
  const [batches, designs] = await Promise.all([
    Promise.all(opened.map((one) => jobBatch(one, desk))),
    designsOf(desk),
  ]);
  const parts = [...batches.flatMap(partsOfBatch), ...timedParts(job ?? {})];
  const spread = hoursSpread(withData(recordedSteps), settings.stepMinutes ?? {});
  const limits = { hours: job?.hours ?? null, money: job?.budget ?? null };
  return { figures: jobFigures(parts, { ratePerHour, margin, spread, limits }), designs, open };
}

export const jobAnswer = (setId: string): Promise<Response> => answer(() => jobWorkedOut(setId));

/** The lines of an invoice as a file. */
export const invoiceAnswer = (setId: string): Promise<Response> =>
  answer(async () => {
    const view = jobView(setId);
    if (!view) throw new RequestError(404, 'This set is no longer there.');
    const { figures, designs } = await jobWorkedOut(setId);
    const { job, name } = view.set.data;
    const price = job?.quoted?.price.likely ?? figures.price.likely;
    const csv = invoiceCsv(designs, {
      set: name,
      customer: job?.customer ?? '',
      price,
      currency: view.settings.data.units.currency,
    });
    return new Response(csv, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="invoice.csv"',
      },
    });
  });
