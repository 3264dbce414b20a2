import type { EditAnswer } from '@/core/records/views';
import { setMatchRequest, wholeSetRequest } from '@/core/records/buildRequest';
import { listDocuments } from '@/db/documents';
import { calendarBatches } from './calendar';
import { withData } from './data';
import { amountsOf, matchOf, stripOf } from './figures';
import { warmPool } from './threads/pool';
import { deskView } from './views';

/** After the last edit of a set its figures are worked out ahead, so that the next page that is opened has them. */
const QUIET_MS = 1500;
const waiting = new Map<string, NodeJS.Timeout>();

/** Has the figures of a set worked out in a thread, for the caches. A set that cannot be planned is told on its own page. */
async function workOut(setId: string): Promise<void> {
  const desk = deskView(setId);
  const request = desk && wholeSetRequest(desk);
  if (!desk || !request) return;
  await Promise.allSettled([amountsOf(request), stripOf(desk, {}), matchOf(setMatchRequest(desk))]);
}

/** Tests and the development server answer one question at a time; `AGUADA_AHEAD=off` shows what a page takes by itself. */
const worksAhead = (): boolean => process.env['NODE_ENV'] === 'production' && process.env['AGUADA_AHEAD'] !== 'off';

/** Takes note of an edit: the sets that it changed are worked out once it is quiet. */
export function workOutAhead({ changes }: EditAnswer): void {
  if (!worksAhead()) return;
  for (const setId of new Set(changes.map((change) => (change.kind === 'set' ? change.id : change.setId)))) {
    if (!setId) continue;
    clearTimeout(waiting.get(setId));
    const timer = setTimeout(() => {
      waiting.delete(setId);
      void workOut(setId).catch(() => undefined);
    }, QUIET_MS);
    timer.unref();
    waiting.set(setId, timer);
  }
}

/** How many sets are worked out when the server starts. */
const FIRST_SETS = 2;

// Kept across the bundles of the pages.
const begun = globalThis as { aguadaWorksAhead?: boolean };

/**
 * Once the first page of a server has been drawn: the threads are warmed, and the first sets of the list are worked out one after
 * another. Later pages ask in vain. A data file that cannot be used is told on its page.
 */
export async function startWorkingAhead(): Promise<void> {
  if (begun.aguadaWorksAhead || !worksAhead()) return;
  begun.aguadaWorksAhead = true;
  await workOutFirst().catch(() => undefined);
}

async function workOutFirst(): Promise<void> {
  warmPool();
  const ids = withData((db) => listDocuments(db, 'set').records.map(({ id }) => id)).slice(0, FIRST_SETS);
  for (const id of ids) await workOut(id);
  // What the calendar stands on: the amounts of all that is being made.
  await calendarBatches();
}
