import { AsyncLocalStorage } from 'node:async_hooks';

/** The status that a page wants to be answered with; pages themselves cannot set one. */
interface PageStatus {
  status: number | null;
}

// One for the front door and for the pages, which are bundled apart.
const shared = globalThis as { aguadaPageStatus?: AsyncLocalStorage<PageStatus> };
const pages = (shared.aguadaPageStatus ??= new AsyncLocalStorage<PageStatus>());

/** Answers a request in such a way that its page can say with which status. */
export const withPageStatus = <T>(page: PageStatus, answer: () => T): T => pages.run(page, answer);

/** Has the page that is being made answered with a status of trouble. */
export function setPageStatus(status: number): void {
  const page = pages.getStore();
  if (page) page.status = status;
}
