'use client';

import { useCallback, useEffect, useState } from 'react';

/**
 * State that survives a closed tab: kept in this browser under `key` until `forget` is called.
 * What was kept is taken up after the page has woken; anything that no longer reads is dropped.
 */
export function useKeptDraft<T>(
  key: string,
  initial: T,
  accept: (value: unknown) => T | null,
): { draft: T; setDraft: (draft: T) => void; forget: () => void } {
  const [draft, set] = useState(initial);
  useEffect(() => {
    const kept = read(key);
    const accepted = kept === undefined ? null : accept(kept);
    // Reading the browser's store is what an effect is for; the first paint must match the server's.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (accepted !== null) set(accepted);
    // `accept` is a fresh function each time; only another key means another draft.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const setDraft = useCallback(
    (next: T) => {
      set(next);
      try {
        localStorage.setItem(key, JSON.stringify(next));
      } catch {
        // A full or forbidden store costs the draft its safety, not the maker the form.
      }
    },
    [key],
  );
  const forget = useCallback(() => localStorage.removeItem(key), [key]);
  return { draft, setDraft, forget };
}

function read(key: string): unknown {
  try {
    const text = localStorage.getItem(key);
    return text === null ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}
