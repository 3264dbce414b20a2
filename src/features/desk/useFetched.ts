'use client';

import { useEffect, useState } from 'react';

/**
 * What an address answers; null until it is read, and `none` (an empty list, where nothing is said) where the answer is
 * no. Read anew whenever `key` changes:
 * something was poured, reserved, bought. Until then the last answer of the same address stays.
 */
export function useFetched<T>(address: string, key: string, none: T | null = [] as T): T | null {
  const [read, setRead] = useState<{ of: string; answer: T | null } | null>(null);
  useEffect(() => {
    let stale = false;
    void fetch(address)
      .then(async (response) => (response.ok ? ((await response.json()) as T) : none))
      .then((answer) => !stale && setRead({ of: address, answer }), reportError);
    return () => {
      stale = true;
    };
    // What stands for no answer is said once.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [address, key]);
  return read?.of === address ? read.answer : null;
}
