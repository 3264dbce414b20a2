import { useCallback, useEffect, useRef, useState } from 'react';
import type { SetLook } from '@/core/records/views';

/** Strips that come in sight within this are asked for together. */
const TOGETHER_MS = 60;

/** Looks of sets, read when they are asked for: by id; null: on its way, or not there. `want` is called as a row comes in sight. */
export function useLooks(): { looks: ReadonlyMap<string, SetLook | null>; want: (id: string) => void } {
  const [looks, setLooks] = useState<ReadonlyMap<string, SetLook | null>>(new Map());
  const asked = useRef(new Set<string>());
  const waiting = useRef<string[]>([]);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => () => clearTimeout(timer.current), []);
  const want = useCallback((id: string): void => {
    if (asked.current.has(id)) return;
    asked.current.add(id);
    waiting.current.push(id);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => {
      const ids = waiting.current.splice(0);
      void fetch(`/api/sets/looks?ids=${ids.map(encodeURIComponent).join(',')}`)
        .then(async (response) => {
          if (!response.ok) throw new Error('no looks');
          const { looks: read } = (await response.json()) as { looks: Record<string, SetLook | null> };
          setLooks((known) => new Map([...known, ...Object.entries(read)]));
        })
        // Asked for again when the row comes in sight again.
        .catch(() => ids.forEach((one) => asked.current.delete(one)));
    }, TOGETHER_MS);
  }, []);
  return { looks, want };
}
