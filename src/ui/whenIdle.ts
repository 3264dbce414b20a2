/** Nothing waits for longer than this, ms. */
const LONGEST_MS = 600;

/** Does something once the browser has nothing else to do; what it returns calls it off. */
export function whenIdle(job: () => void): () => void {
  if (!('requestIdleCallback' in window)) {
    const timer = setTimeout(job);
    return () => clearTimeout(timer);
  }
  const waiting = requestIdleCallback(job, { timeout: LONGEST_MS });
  return () => cancelIdleCallback(waiting);
}
