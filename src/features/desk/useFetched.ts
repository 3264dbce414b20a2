'use client';

import { useCallback, useEffect, useState } from 'react';

/** What an address answers: still being read, read, or not to be had; and how it is asked for once more. */
export interface Fetched<T> {
  /** Null until it is read, and where it could not be. */
  data: T | null;
  failed: boolean;
  again: () => void;
}

/**
 * Reads an address, anew whenever `key` changes: something was poured, reserved, bought. Until then the last answer of the same address
 * stays. An answer that says no, or none, is a failure: nothing that was not read is shown as if there were none of it.
 */
export function useFetched<T>(address: string, key: string): Fetched<T> {
  const [read, setRead] = useState<{ of: string; data: T | null; failed: boolean } | null>(null);
  const [tries, setTries] = useState(0);
  useEffect(() => {
    let stale = false;
    const done = (data: T | null, failed: boolean): void =>
      void (
        !stale && setRead((last) => ({ of: address, data: data ?? (last?.of === address ? last.data : null), failed }))
      );
    fetch(address)
      .then(async (response) => {
        if (!response.ok) throw new Error(`${address} answered ${response.status}`);
        done((await response.json()) as T, false);
      })
      .catch((error: unknown) => {
        done(null, true);
        reportError(error);
      });
    return () => {
      stale = true;
    };
  }, [address, key, tries]);
  const again = useCallback(() => setTries((count) => count + 1), []);
  const own = read?.of === address ? read : null;
  return { data: own?.data ?? null, failed: own?.failed ?? false, again };
}
