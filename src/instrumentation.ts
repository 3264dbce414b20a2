/** Called by Next once when the server starts. */
export async function register(): Promise<void> {
  if (process.env['NEXT_RUNTIME'] !== 'nodejs' || process.env['NODE_ENV'] !== 'production') return;
  const { startAhead } = await import('./server/ahead');
  // A data file that cannot be used is told on the page.
  void startAhead().catch(() => undefined);
}
