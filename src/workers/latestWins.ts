/**
 * Runs one job at a time. Jobs of one lane overtake each other: of those that wait, only the newest is run, the others
 * resolve to null; the one that is running is told (`overtaken`) and may end early with null. Lanes never overtake each
 * other, so that nobody waits for an answer that will not come.
 */
export function latestWins<Job, Result>(
  run: (job: Job) => Promise<Result | null>,
  overtaken: () => void = () => undefined,
): (lane: symbol, job: Job) => Promise<Result | null> {
  const waiting = new Map<
    symbol,
    { job: Job; resolve: (result: Result | null) => void; reject: (error: unknown) => void }
  >();
  let running: symbol | null = null;
  const next = async (): Promise<void> => {
    const first = waiting.entries().next();
    if (running !== null || first.done) return;
    const [lane, { job, resolve, reject }] = first.value;
    waiting.delete(lane);
    running = lane;
    try {
      resolve(await run(job));
    } catch (error) {
      reject(error);
    } finally {
      running = null;
      void next();
    }
  };
  return (lane, job) =>
    new Promise((resolve, reject) => {
      waiting.get(lane)?.resolve(null);
      waiting.set(lane, { job, resolve, reject });
      if (running === lane) overtaken();
      void next();
    });
}
