'use client';

import { useCallback, useState } from 'react';
import { useAwake } from './useAwake';

/** Widths as they were last measured, by what they are of. */
const lastWidths = new Map<string, number>();

/**
 * The width of an element in px, followed as it changes. Until it has been measured it is `initial`, or what `of` last measured in
 * this window: a picture that comes back is drawn once, not twice.
 */
export function useWidth(
  initial: number,
  of: string,
): readonly [(element: HTMLElement | null) => (() => void) | undefined, number] {
  const awake = useAwake();
  // The browser's first picture is the server's.
  const [width, setWidth] = useState(() => (awake && lastWidths.get(of)) || initial);
  const attach = useCallback(
    (element: HTMLElement | null) => {
      if (!element) return undefined;
      const observer = new ResizeObserver(([entry]) => {
        if (!entry) return;
        const measured = Math.floor(entry.contentRect.width);
        lastWidths.set(of, measured);
        setWidth(measured);
      });
      observer.observe(element);
      return () => observer.disconnect();
    },
    [of],
  );
  return [attach, width];
}
