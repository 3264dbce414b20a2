'use client';

import { useQuery } from '@tanstack/react-query';

/** What an address answers: still being read, read, or not to be had; and how it is asked for once more. */
export interface Fetched<T> {
  /** Null until it is read, and where it could not be. */
  data: T | null;
  failed: boolean;
  /** When it was read, by the browser’s clock, ms; 0 while it was not. */
  readAt: number;
  again: () => void;
}

/**
 * Reads an address, anew whenever `key` changes: something was poured, reserved, bought. Until then the last answer of the same address
 * stays. An answer that says no, or none, is a failure: nothing that was not read is shown as if there were none of it. With `everyMs`
 * it is asked for again that often, whether anybody looks at the page or not.
 */
export function useFetched<T>(address: string, key = '', everyMs?: number): Fetched<T> {
  const { data, isError, dataUpdatedAt, refetch } = useQuery({
    queryKey: [address, key],
    queryFn: async ({ signal }) => {
      const response = await fetch(address, { signal });
      if (!response.ok) throw new Error(`${address} answered ${response.status}`);
      return (await response.json()) as T;
    },
    placeholderData: (last, query) => (query?.queryKey[0] === address ? last : undefined),
    ...(everyMs !== undefined && { refetchInterval: everyMs, refetchIntervalInBackground: true }),
  });
  return { data: data ?? null, failed: isError, readAt: dataUpdatedAt, again: () => void refetch() };
}
