/** Tasks that are waiting, the one with the earliest start first; each at most once. */
export class Earliest {
  private readonly heap: number[] = [];
  private readonly keys: number[] = [];
  private readonly inside: Uint8Array;

  constructor(private readonly start: Float64Array) {
    this.inside = new Uint8Array(start.length);
  }

  push(task: number): void {
    if (this.inside[task]) return;
    this.inside[task] = 1;
    const key = this.start[task]!;
    const { heap, keys } = this;
    let at = heap.length;
    heap.push(task);
    keys.push(key);
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (keys[parent]! <= key) break;
      heap[at] = heap[parent]!;
      keys[at] = keys[parent]!;
      at = parent;
    }
    heap[at] = task;
    keys[at] = key;
  }

  /** -1 when nothing waits. */
  pop(): number {
    const { heap, keys } = this;
    const first = heap[0];
    if (first === undefined) return -1;
    this.inside[first] = 0;
    const task = heap.pop()!;
    const key = keys.pop()!;
    const count = heap.length;
    if (count === 0) return first;
    let at = 0;
    for (;;) {
      let child = 2 * at + 1;
      if (child >= count) break;
      if (child + 1 < count && keys[child + 1]! < keys[child]!) child++;
      if (keys[child]! >= key) break;
      heap[at] = heap[child]!;
      keys[at] = keys[child]!;
      at = child;
    }
    heap[at] = task;
    keys[at] = key;
    return first;
  }
}
