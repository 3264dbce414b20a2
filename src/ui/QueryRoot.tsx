'use client';

import { QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';

/** What is read beside a page, once for all that show it. The server stands on this machine: it is asked without a network too. */
export function QueryRoot({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        queryCache: new QueryCache({ onError: (error) => reportError(error) }),
        defaultOptions: { queries: { retry: false, networkMode: 'always' } },
      }),
  );
  return <QueryClientProvider client={client}>{children}</QueryClientProvider>;
}
