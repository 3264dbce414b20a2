'use client';

import { useState, type ClipboardEvent, type FocusEvent, type KeyboardEvent } from 'react';
import { edgeReadingsText, parseEdgeReadings } from '@/core/formats/readings';
import type { MeasuredEdge } from '@/core/model/seamSchema';
import { useUnits } from '@/ui/measure/UnitsContext';
import own from './MeasureView.module.css';

interface BedPairsProps {
  name: string;
  lengthMm: number;
  bed: MeasuredEdge['bed'];
  onBed: (bed: MeasuredEdge['bed']) => void;
  /** Goes on to the next field of the bench, or back. */
  next: (from: HTMLInputElement, back: boolean) => void;
}

type Pair = [along: string, height: string];
const isEmpty = ([along, height]: Pair): boolean => along.trim() === '' && height.trim() === '';

/** Readings of the bed along an edge as small pairs, one empty pair at the end. Two columns can be pasted. */
export function BedPairs({ name, lengthMm, bed, onBed, next }: BedPairsProps) {
  const units = useUnits();
  const stored = edgeReadingsText(bed, units)
    .split('\n')
    .filter(Boolean)
    .map((line) => line.split(/[\s,]+/) as Pair);
  const [typed, setTyped] = useState<Pair[] | null>(null);
  const [complaint, setComplaint] = useState<string | null>(null);
  const pairs = [...(typed ?? stored).filter((pair, i, all) => !isEmpty(pair) || i < all.length - 1), ['', ''] as Pair];
  /** Takes what was typed; says what does not read. */
  const commit = (all: readonly Pair[] | null = typed): boolean => {
    if (!all) return true;
    const whole = all.filter((pair) => !isEmpty(pair));
    const half = whole.findIndex((pair) => pair.some((text) => text.trim() === ''));
    const parsed = parseEdgeReadings(whole.map((pair) => pair.join(' ')).join('\n'), units, lengthMm);
    const wrong =
      half >= 0
        ? `Reading ${half + 1} has no ${whole[half]![0].trim() === '' ? 'place along the edge' : 'height'}`
        : (parsed.errors[0]?.message.replace(/^Line (\d+)/, 'Reading $1') ?? null);
    setComplaint(wrong);
    if (wrong !== null) return false;
    setTyped(null);
    if (JSON.stringify(parsed.readings) !== JSON.stringify(bed)) onBed(parsed.readings);
    return true;
  };
  const change = (i: number, k: 0 | 1, text: string): void =>
    setTyped(pairs.map((pair, j) => (j !== i ? pair : k === 0 ? [text, pair[1]] : [pair[0], text])));
  const onPaste = (i: number) => (event: ClipboardEvent) => {
    const lines = event.clipboardData
      .getData('text')
      .split(/\r?\n/)
      .map((line) => line.trim().split(/[\t;]\s*|\s+/))
      .filter((cells) => cells.length >= 2);
    if (lines.length === 0) return;
    event.preventDefault();
    const pasted = [...pairs.slice(0, i), ...lines.map(([a = '', b = '']): Pair => [a, b]), ...pairs.slice(i + 1)];
    setTyped(pasted);
    commit(pasted);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>, i: number, k: 0 | 1): void => {
    if (event.key === 'Escape' && typed) {
      event.stopPropagation();
      setTyped(null);
      setComplaint(null);
    }
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const field = event.currentTarget;
    // An empty place ends the readings of this edge: on to the next.
    if (k === 0 && !event.shiftKey && isEmpty(pairs[i]!)) {
      if (!commit()) return;
      next(field.parentElement!.querySelector<HTMLInputElement>('[data-height]')!, false);
      return;
    }
    next(field, event.shiftKey);
  };
  const onBlur = (event: FocusEvent<HTMLElement>): void => {
    if (!event.currentTarget.contains(event.relatedTarget)) commit();
  };
  return (
    <div className={own.pairs} onBlur={onBlur}>
      {pairs.map(([along, height], i) => (
        <span key={i} className={own.pair}>
          <input
            value={along}
            aria-label={`${name}, bed reading ${i + 1}, along`}
            placeholder="along"
            inputMode="decimal"
            autoComplete="off"
            aria-invalid={complaint !== null}
            onFocus={(event) => event.target.select()}
            onChange={(event) => change(i, 0, event.target.value)}
            onPaste={onPaste(i)}
            onKeyDown={(event) => onKeyDown(event, i, 0)}
          />
          <input
            value={height}
            aria-label={`${name}, bed reading ${i + 1}, height`}
            placeholder="height"
            data-height
            inputMode="decimal"
            autoComplete="off"
            aria-invalid={complaint !== null}
            onFocus={(event) => event.target.select()}
            onChange={(event) => change(i, 1, event.target.value)}
            onKeyDown={(event) => onKeyDown(event, i, 1)}
          />
        </span>
      ))}
      {complaint && (
        <small role="alert" className={own.wrong}>
          {complaint}
        </small>
      )}
    </div>
  );
}
