/** A stretch of time, in steady minutes. */
export interface Span {
  from: number;
  to: number;
}

/** A step that may be paused is not begun for less than this. */
export const LEAST_PART_MINUTES = 15;

/** What two lists of spans have in common; both in order and without overlaps, as is what comes out. */
export function common(a: readonly Span[], b: readonly Span[]): Span[] {
  const shared: Span[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const from = Math.max(a[i]!.from, b[j]!.from);
    const to = Math.min(a[i]!.to, b[j]!.to);
    if (from < to) shared.push({ from, to });
    if (a[i]!.to < b[j]!.to) i++;
    else j++;
  }
  return shared;
}

/** Spans in order, those that touch or overlap joined. */
export function joined(spans: readonly Span[]): Span[] {
  const out: Span[] = [];
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const last = out.at(-1);
    if (last && span.from <= last.to) last.to = Math.max(last.to, span.to);
    else out.push({ ...span });
  }
  return out;
}

/** What is left of spans when others are taken out. */
export function without(spans: readonly Span[], taken: readonly Span[]): Span[] {
  const gone = joined(taken);
  return joined(spans).flatMap((span) => {
    const left: Span[] = [];
    let from = span.from;
    for (const hole of gone) {
      if (hole.to <= from || hole.from >= span.to) continue;
      if (hole.from > from) left.push({ from, to: hole.from });
      from = Math.max(from, hole.to);
    }
    if (from < span.to) left.push({ from, to: span.to });
    return left;
  });
}

/** When hands-on work may be done: spans in order. Nothing fits after the last of them. */
export class Calendar {
  private readonly from: Float64Array;
  private readonly to: Float64Array;

  constructor(readonly spans: readonly Span[]) {
    this.from = Float64Array.from(spans, (span) => span.from);
    this.to = Float64Array.from(spans, (span) => span.to);
  }

  /** The first span that ends after a time. */
  private indexAt(at: number): number {
    let low = 0;
    let high = this.to.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (this.to[middle]! > at) high = middle;
      else low = middle + 1;
    }
    return low;
  }

  /**
   * The first start at or after `at` from which work of `minutes` can be done: in one go, or begun if it may be paused.
   * Infinity where there is none.
   */
  fit(at: number, minutes: number, mayPause: boolean): number {
    const needed = mayPause ? Math.min(minutes, LEAST_PART_MINUTES) : minutes;
    for (let i = this.indexAt(at); i < this.to.length; i++) {
      const start = Math.max(at, this.from[i]!);
      if (start + needed > this.to[i]!) continue;
      return mayPause && this.endOf(start, minutes, true) === Infinity ? Infinity : start;
    }
    return Infinity;
  }

  /** When work that is begun at a start that fits is done. */
  endOf(start: number, minutes: number, mayPause: boolean): number {
    if (!mayPause) return start + minutes;
    return this.partsOf(start, minutes).at(-1)?.to ?? start;
  }

  /** The stretches in which paused work is done; ends at Infinity where the calendar ends before it. */
  partsOf(start: number, minutes: number): Span[] {
    const parts: Span[] = [];
    let left = minutes;
    for (let i = this.indexAt(start); left > 0; i++) {
      if (i >= this.to.length) return [...parts, { from: start, to: Infinity }];
      const from = Math.max(start, this.from[i]!);
      const to = Math.min(this.to[i]!, from + left);
      parts.push({ from, to });
      left -= to - from;
    }
    return parts;
  }

  /** The longest span. */
  longest(): number {
    return this.spans.reduce((most, { from, to }) => Math.max(most, to - from), 0);
  }

  /** Minutes of bench time between two times. */
  minutesBetween(from: number, to: number): number {
    let sum = 0;
    for (let i = this.indexAt(from); i < this.to.length && this.from[i]! < to; i++)
      sum += Math.min(to, this.to[i]!) - Math.max(from, this.from[i]!);
    return sum;
  }
}
