/** What is worked out ahead waits until the first page that is asked for has been drawn. */
const FIRST_PAGE_MS = 4000;

/** Called by Next once when the server starts. */
export async function register(): Promise<void> {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs' || process.env['NODE_ENV'] !== 'production') return;
  const { startWorkingAhead } = await import('./server/figuresAhead');
  // The first page comes first. A data file that cannot be used is told on it.
  setTimeout(() => void startWorkingAhead().catch(() => undefined), FIRST_PAGE_MS).unref();
}
