'use client';

import { useCallback, useState } from 'react';

/** The width of an element in px, followed as it changes; `initial` until it has been measured. */
export function useWidth(
  initial: number,
): readonly [(element: HTMLElement | null) => (() => void) | undefined, number] {
  const [width, setWidth] = useState(initial);
  const attach = useCallback((element: HTMLElement | null) => {
    if (!element) return undefined;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(Math.floor(entry.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return [attach, width];
}
