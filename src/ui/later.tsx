'use client';

import { lazy, Suspense, useEffect, type ComponentType } from 'react';

/**
 * A dialog whose code comes after the page: fetched while the page rests, so that it is there before anyone opens it, and still
 * there when the server is not. `Fetch` is put where the page stands still; `Part` is the dialog.
 */
export function later<P extends object>(
  load: () => Promise<ComponentType<P>>,
): { Part: ComponentType<P>; Fetch: ComponentType } {
  let under: Promise<{ default: ComponentType<P> }> | null = null;
  const fetched = (): Promise<{ default: ComponentType<P> }> => (under ??= load().then((part) => ({ default: part })));
  const Lazy = lazy(fetched);
  return {
    Part: (props: P) => (
      <Suspense fallback={null}>
        <Lazy {...props} />
      </Suspense>
    ),
    Fetch: function Fetch() {
      useEffect(() => {
        const timer = setTimeout(() => void fetched().catch(() => (under = null)), REST_MS);
        return () => clearTimeout(timer);
      }, []);
      return null;
    },
  };
}

const REST_MS = 600;
