'use client';

import { startTransition, useEffect, useState } from 'react';
import { useAwake } from './useAwake';

/**
 * False in the first picture of what uses it, true from the frame after: for what lies further down, so that after a step of
 * navigation the figures at the top do not wait for it. With `inHtml` it is there at once where the page came from the server whole.
 */
export function useFilled(inHtml = false): boolean {
  const awake = useAwake();
  const [filled, setFilled] = useState(inHtml && !awake);
  useEffect(() => {
    if (filled) return undefined;
    let timer: ReturnType<typeof setTimeout>;
    const frame = requestAnimationFrame(() => {
      timer = setTimeout(() => startTransition(() => setFilled(true)));
    });
    return () => {
      cancelAnimationFrame(frame);
      clearTimeout(timer);
    };
  }, [filled]);
  return filled;
}
