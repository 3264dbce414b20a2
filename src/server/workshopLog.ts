import { setImmediate as afterOthers } from 'node:timers/promises';
import { LOG_FILES, logFileParts } from '@/core/formats/logFile';
import { logAskOf, type LogAsk, type LogView } from '@/core/records/workshopLog';
import { listDocuments } from '@/db/documents';
import { allEntries, logPage, logThings, logWeeks } from '@/db/workshopLog';
import { withData } from './data';
import { answer, RequestError } from './respond';
import { shelfAndState } from './views';

/** The log of the workshop as its page begins with it: the year, and its newest days. */
export const logView = (ask: LogAsk): LogView =>
  withData((db) => ({
    ...shelfAndState(db, 'log'),
    weeks: logWeeks(db),
    ...logThings(db),
    sets: listDocuments(db, 'set').records.map(({ id, data: { name } }) => ({ id, name })),
    page: logPage(db, ask),
  }));

const askOf = (request: Request) => logAskOf(new URL(request.url).searchParams);

/** Days of the log as they are asked for. */
export const logAnswer = (request: Request): Promise<Response> =>
  answer(() => withData((db) => logPage(db, askOf(request))));

/** So many parts of a file are written before others get their turn. */
const AT_A_TIME = 50;

/** The log as a file, written while it is read: years of it hold nobody up. */
export const logFileAnswer = (request: Request, name: string): Promise<Response> =>
  answer(() => {
    const file = LOG_FILES.find((one) => name === `log.${one}`);
    if (!file) throw new RequestError(404, 'There is no such file.');
    const parts = withData((db) => logFileParts(allEntries(db, askOf(request)), file));
    const coder = new TextEncoder();
    const body = new ReadableStream<Uint8Array>({
      async pull(controller) {
        for (let i = 0; i < AT_A_TIME; i++) {
          const { done, value } = parts.next();
          if (done) return controller.close();
          controller.enqueue(coder.encode(value));
        }
        await afterOthers();
      },
    });
    return new Response(body, {
      headers: {
        'content-type': file === 'csv' ? 'text/csv; charset=utf-8' : 'application/json',
        'content-disposition': `attachment; filename="${name}"`,
      },
    });
  });
