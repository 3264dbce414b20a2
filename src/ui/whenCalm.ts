import { useEffect, useState } from 'react';

/** Work that waits for a moment in which the page has nothing else to do, one piece after another. */
const waiting = new Set<() => void>();
let underWay = false;

/** Too short to be waited for. */
const CALM_MS = 30;
/** A page that is not looked at is not painted: its work is not left undone. */
const UNSEEN_MS = 600;

function next(): void {
  const [job] = waiting;
  if (!job) {
    underWay = false;
    return;
  }
  waiting.delete(job);
  setTimeout(next, 0);
  job();
}

/** Begins with the work a moment after the next frame: what is new on the page is painted by then, however long that took. */
function begin(): void {
  underWay = true;
  let begun = false;
  const once = (): void => {
    if (begun) return;
    begun = true;
    cancelAnimationFrame(frame);
    clearTimeout(unseen);
    next();
  };
  const frame = requestAnimationFrame(() => void setTimeout(once, CALM_MS));
  const unseen = setTimeout(once, UNSEEN_MS);
}

/** Does something after the page has been painted, in its turn and in a task of its own; what it returns calls it off. */
export function whenCalm(job: () => void): () => void {
  waiting.add(job);
  if (!underWay) begin();
  return () => void waiting.delete(job);
}

/** False while a part is new on the page, true once the page is calm: for what is heavy and not seen to be missing. */
export function useCalm(): boolean {
  const [calm, setCalm] = useState(false);
  useEffect(() => whenCalm(() => setCalm(true)), []);
  return calm;
}
