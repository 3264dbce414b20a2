import type { Built } from './buildNetwork';
import type { State } from './network';

/**
 * No plan is ready before this. The greater of two: the earliest end of every batch if nothing stood in its way but its own waits and
 * the bench windows (`root`), and, for one maker, the best that could be done if bench work were cut into minutes: at each minute the
 * step that is possible and has the longest way still before it (preemptive, largest tail first, after Jackson). Places, work that
 * cannot be cut, outdoor and quiet hours are not counted in the second.
 */
export function earliestReady({ net, now, shortest, bench }: Built, root: State): number {
  const alone = Math.max(now, ...net.batches.map(({ ready }) => root.end[ready]!));
  if (net.makers !== 1) return alone;
  const tails = tailsOf(net, shortest);
  const open = net.tasks
    .map((task, i) => ({ left: task.minutes, head: root.start[i]!, tail: tails[i]!, task }))
    .filter(({ task, left }) => !task.fixed && task.hands > 0 && task.onlyIf === null && left > 0)
    .sort((a, b) => a.head - b.head);
  let bound = alone;
  let next = 0;
  const ready: typeof open = [];
  for (const span of bench[0]!.spans) {
    if (next >= open.length && ready.length === 0) break;
    let at = span.from;
    while (at < span.to) {
      while (next < open.length && open[next]!.head <= at) ready.push(open[next++]!);
      const until = Math.min(span.to, open[next]?.head ?? Infinity);
      if (ready.length === 0) {
        if (next >= open.length) break;
        at = Math.max(at, until);
        continue;
      }
      const most = ready.reduce((a, b) => (b.tail > a.tail ? b : a));
      const worked = Math.min(most.left, until - at);
      most.left -= worked;
      at += worked;
      if (most.left > 0) continue;
      ready.splice(ready.indexOf(most), 1);
      bound = Math.max(bound, at + most.tail);
    }
  }
  return bound;
}

/** The shortest way from the end of each task to the readiness of its batch. */
function tailsOf(net: Built['net'], shortest: readonly number[]): number[] {
  const tails = net.tasks.map(() => 0);
  const outs: { to: number; wait: number }[][] = net.tasks.map(() => []);
  net.links.forEach(({ from, to }, i) => outs[from]!.push({ to, wait: shortest[i]! }));
  const known = new Uint8Array(net.tasks.length);
  const tailOf = (i: number): number => {
    if (known[i]) return tails[i]!;
    known[i] = 1;
    for (const { to, wait } of outs[i]!) {
      const { minutes, onlyIf, fixed } = net.tasks[to]!;
      if (!fixed) tails[i] = Math.max(tails[i]!, wait + (onlyIf === null ? minutes : 0) + tailOf(to));
    }
    return tails[i]!;
  };
  return net.tasks.map((_, i) => tailOf(i));
}
