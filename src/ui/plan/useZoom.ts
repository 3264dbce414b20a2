'use client';

import { useCallback, useEffect, useMemo, useState, type RefObject } from 'react';

/** How the plan is enlarged: its scale, and the share of its own size by which it is moved. */
export interface Zoom {
  scale: number;
  x: number;
  y: number;
}

export const WHOLE: Zoom = { scale: 1, x: 0, y: 0 };
const MOST = 8;
const STEP = 1.5;

/** Keeps the enlarged plan over its sheet. */
function kept({ scale, x, y }: Zoom): Zoom {
  const size = Math.min(MOST, Math.max(1, scale));
  const least = 1 - size;
  return { scale: size, x: Math.min(0, Math.max(least, x)), y: Math.min(0, Math.max(least, y)) };
}

/** Enlarges about a place on the sheet, given as shares of it. */
export function zoomedAt(zoom: Zoom, factor: number, atX: number, atY: number): Zoom {
  const scale = Math.min(MOST, Math.max(1, zoom.scale * factor));
  const real = scale / zoom.scale;
  return kept({ scale, x: atX - (atX - zoom.x) * real, y: atY - (atY - zoom.y) * real });
}

/** Moves the enlarged plan by shares of its sheet. */
export const panned = (zoom: Zoom, dx: number, dy: number): Zoom => kept({ ...zoom, x: zoom.x + dx, y: zoom.y + dy });

/** The zoom of a plan, by buttons, by keys, and by the wheel with Ctrl (which is also the pinch of a touchpad). */
export function useZoom(sheet: RefObject<HTMLElement | null>): {
  zoom: Zoom;
  nearer: () => void;
  further: () => void;
  whole: () => void;
  pan: (dx: number, dy: number) => void;
} {
  const [zoom, setZoom] = useState(WHOLE);
  useEffect(() => {
    const element = sheet.current;
    if (!element) return;
    const onWheel = (event: WheelEvent): void => {
      if (!event.ctrlKey && !event.metaKey) return;
      // Else the browser enlarges the whole page; React cannot say so for the wheel.
      event.preventDefault();
      const box = element.getBoundingClientRect();
      setZoom((now) =>
        zoomedAt(
          now,
          Math.exp(-event.deltaY / 300),
          (event.clientX - box.left) / box.width,
          (event.clientY - box.top) / box.height,
        ),
      );
    };
    element.addEventListener('wheel', onWheel, { passive: false });
    return () => element.removeEventListener('wheel', onWheel);
  }, [sheet]);
  const nearer = useCallback(() => setZoom((now) => zoomedAt(now, STEP, 0.5, 0.5)), []);
  const further = useCallback(() => setZoom((now) => zoomedAt(now, 1 / STEP, 0.5, 0.5)), []);
  const whole = useCallback(() => setZoom(WHOLE), []);
  const pan = useCallback((dx: number, dy: number) => setZoom((now) => panned(now, dx, dy)), []);
  return useMemo(() => ({ zoom, nearer, further, whole, pan }), [zoom, nearer, further, whole, pan]);
}
