import { useEffect, useState } from 'react';

/** Work that waits for a moment in which the page has nothing else to do, one piece after another. */
const waiting = new Set<() => void>();
let timer: ReturnType<typeof setTimeout> | null = null;

/** Long enough for a new page to be painted, too short to be waited for. */
const CALM_MS = 30;

function next(): void {
  const [job] = waiting;
  timer = null;
  if (!job) return;
  waiting.delete(job);
  job();
  if (waiting.size > 0) timer = setTimeout(next, 0);
}

/** Does something after the page has been painted, in its turn and in a task of its own; what it returns calls it off. */
export function whenCalm(job: () => void): () => void {
  waiting.add(job);
  timer ??= setTimeout(next, CALM_MS);
  return () => void waiting.delete(job);
}

/** False while a part is new on the page, true once the page is calm: for what is heavy and not seen to be missing. */
export function useCalm(): boolean {
  const [calm, setCalm] = useState(false);
  useEffect(() => whenCalm(() => setCalm(true)), []);
  return calm;
}
