'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { scopeWanted, type ViewWanted } from '@/core/records/command';
import type { History } from '@/core/records/views';
import { createEditQueue, type Changed, type EditQueue, type QueueState } from './editQueue';
import { sendEdit } from './sendEdit';

export type { MakeCommand, Outcome, Trouble } from './editQueue';

/** How a screen edits: its view, and every way to change it. */
export interface Edits<V> extends QueueState<V>, Pick<EditQueue<V>, 'run' | 'insist' | 'dismiss' | 'show'> {
  undo: () => void;
  redo: () => void;
}

/** Views that a screen of this window has begun with. */
const shownBefore = new WeakSet<object>();

/** The edits of a screen. `wanted` and `apply` do not change while it is open. */
export function useEdits<V extends { history: History }>(
  initial: V,
  wanted: ViewWanted,
  apply: (view: V, changed: Changed) => V,
): Edits<V> {
  const [queue] = useState(() =>
    createEditQueue({ initial, send: (command, key, progress) => sendEdit(command, wanted, key, progress), apply }),
  );
  const [scope] = useState(() => scopeWanted(wanted));
  const state = useSyncExternalStore(queue.subscribe, queue.state, queue.state);
  const router = useRouter();
  const shown = useRef<V | null>(null);
  useEffect(() => {
    if (initial === shown.current) return;
    // What has been shown before comes out of the router’s memory, as on the way back: it is asked for anew.
    if (shownBefore.has(initial)) router.refresh();
    shownBefore.add(initial);
    if (shown.current !== null) queue.show(() => initial);
    shown.current = initial;
  }, [initial, queue, router]);
  useEffect(() => {
    // A field that is being typed in commits when it loses the focus; leaving the page must count as that.
    const leave = (): void => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    };
    // A browser that closes a tab waits longer for the first of these; some know the second only.
    const ways = ['beforeunload', 'pagehide'] as const;
    for (const way of ways) window.addEventListener(way, leave);
    return () => {
      for (const way of ways) window.removeEventListener(way, leave);
    };
  }, []);
  const travel = useMemo(() => {
    const go = (way: 'undo' | 'redo', words: string): void => {
      void queue.run(
        ({ history }) => history[way] && { do: way, scope, edit: history[way].edit },
        ({ history }) => history[way] && `${words} “${history[way].label}”`,
      );
    };
    return { undo: () => go('undo', 'Took back'), redo: () => go('redo', 'Made again') };
  }, [queue, scope]);
  return useMemo(
    () => ({ ...state, ...travel, run: queue.run, insist: queue.insist, dismiss: queue.dismiss, show: queue.show }),
    [state, travel, queue],
  );
}
