'use client';

import { useEffect, useState } from 'react';

/**
 * What an address answers, as a list; null until it is read, and empty where the answer is no. Read anew whenever `key` changes:
 * something was poured, reserved, bought. Until then the last answer of the same address stays.
 */
export function useFetched<T extends unknown[]>(address: string, key: string): T | null {
  const [read, setRead] = useState<{ of: string; answer: T } | null>(null);
  useEffect(() => {
    let stale = false;
    void fetch(address)
      .then(async (response) => (response.ok ? await response.json() : []) as T)
      .then((answer) => !stale && setRead({ of: address, answer }), reportError);
    return () => {
      stale = true;
    };
  }, [address, key]);
  return read?.of === address ? read.answer : null;
}
