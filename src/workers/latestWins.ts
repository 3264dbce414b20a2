/**
 * Runs one job at a time. Jobs of one lane overtake each other: of those that wait, only the newest is run, the others
 * resolve to null. Lanes never overtake each other, so that nobody waits for an answer that will not come.
 */
export function latestWins<Job, Result>(run: (job: Job) => Promise<Result>): (lane: symbol, job: Job) => Promise<Result | null> {
  const waiting = new Map<symbol, { job: Job; resolve: (result: Result | null) => void; reject: (error: unknown) => void }>();
  let busy = false;
  const next = async (): Promise<void> => {
    const first = waiting.entries().next();
    if (busy || first.done) return;
    const [lane, { job, resolve, reject }] = first.value;
    waiting.delete(lane);
    busy = true;
    try {
      resolve(await run(job));
    } catch (error) {
      reject(error);
    } finally {
      busy = false;
      void next();
    }
  };
  return (lane, job) =>
    new Promise((resolve, reject) => {
      waiting.get(lane)?.resolve(null);
      waiting.set(lane, { job, resolve, reject });
      void next();
    });
}
