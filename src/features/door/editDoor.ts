'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Command, Scope, ViewWanted } from '@/core/records/command';

/** What went wrong with an edit, as the maker reads it. */
export interface Trouble {
  kind: 'invalid' | 'stale' | 'refused' | 'missing' | 'data file' | 'request' | 'offline';
  message: string;
  fields: { field: string; message: string }[];
  /** The edit that was not written, to try again. */
  command: Command;
}

/** What an edit came to. */
export type Outcome = { ok: true; id: string | null } | { ok: false; trouble: Trouble };

/** An edit made for the newest view, so that its row version is the last one seen. */
export type MakeCommand<V> = (view: V) => Command | null;

export interface EditDoor<V> {
  view: V;
  busy: boolean;
  trouble: Trouble | null;
  /** The last thing done, in words, for the status line. */
  done: string | null;
  run: (make: MakeCommand<V>, done?: string) => Promise<Outcome>;
  undo: () => void;
  redo: () => void;
  /** Writes the refused edit over what another window wrote. */
  insist: () => void;
  dismiss: () => void;
}

interface Answer<V> {
  id: string | null;
  /** Null when what was on screen is gone. */
  view: V | null;
}

/**
 * The one door through which screens edit. Edits are sent one after another; the view that comes back replaces the
 * one on screen. A refused edit stays at hand as `trouble`, so that nothing typed is lost.
 */
export function useEditDoor<V extends { history: { undo: string | null; redo: string | null } }>(
  initial: V,
  wanted: ViewWanted,
  scope: Scope,
): EditDoor<V> {
  const [view, setView] = useState(initial);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [done, setDone] = useState<string | null>(null);
  const [pending, setPending] = useState(0);
  const newest = useRef(initial);
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  const show = useCallback((next: V) => {
    newest.current = next;
    setView(next);
  }, []);

  const run = useCallback(
    (make: MakeCommand<V>, doneText?: string): Promise<Outcome> => {
      setPending((count) => count + 1);
      const outcome = queue.current.then(async (): Promise<Outcome> => {
        const command = make(newest.current);
        if (!command) return { ok: true, id: null };
        const result = await send<V>(command, wanted);
        if (result.ok) {
          if (result.answer.view) show(result.answer.view);
          setTrouble(null);
          setDone(doneText ?? null);
          return { ok: true, id: result.answer.id };
        }
        if (result.view) show(result.view);
        setTrouble(result.trouble);
        return { ok: false, trouble: result.trouble };
      });
      queue.current = outcome.finally(() => setPending((count) => count - 1));
      return outcome;
      // `wanted` names the screen and does not change while it is open.
      // eslint-disable-next-line react-hooks/exhaustive-deps
    },
    [show],
  );

  const undo = useCallback(
    () =>
      void run(
        (now) => (now.history.undo ? { do: 'undo', scope } : null),
        newest.current.history.undo ? `Took back “${newest.current.history.undo}”` : undefined,
      ),
    [run, scope],
  );
  const redo = useCallback(
    () =>
      void run(
        (now) => (now.history.redo ? { do: 'redo', scope } : null),
        newest.current.history.redo ? `Made again “${newest.current.history.redo}”` : undefined,
      ),
    [run, scope],
  );
  const dismiss = useCallback(() => setTrouble(null), []);
  const insist = useCallback(() => {
    if (trouble) void run((now) => withNewestVersion(trouble.command, now));
  }, [run, trouble]);

  useEffect(() => {
    // A field that is being typed in commits when it loses the focus; leaving the page must count as that.
    const leave = (): void => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    };
    window.addEventListener('pagehide', leave);
    return () => window.removeEventListener('pagehide', leave);
  }, []);

  const busy = pending > 0;
  return useMemo(
    () => ({ view, busy, trouble, done, run, undo, redo, insist, dismiss }),
    [view, busy, trouble, done, run, undo, redo, insist, dismiss],
  );
}

type Sent<V> = { ok: true; answer: Answer<V> } | { ok: false; trouble: Trouble; view: V | null };

async function send<V>(command: Command, wanted: ViewWanted): Promise<Sent<V>> {
  let response: Response;
  let body: unknown;
  try {
    response = await fetch('/api/edits', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ command, wanted }),
      keepalive: true,
    });
    body = await response.json();
  } catch {
    return {
      ok: false,
      view: null,
      trouble: {
        kind: 'offline',
        message: 'Aguada does not answer. Is it still running? Your edit is kept here.',
        fields: [],
        command,
      },
    };
  }
  if (response.ok) return { ok: true, answer: body as Answer<V> };
  const { error, message, fields, view } = body as {
    error: Trouble['kind'];
    message: string;
    fields: Trouble['fields'];
    view?: V;
  };
  return { ok: false, view: view ?? null, trouble: { kind: error, message, fields, command } };
}

/** The same edit with the row version that the newest view knows. */
export function withNewestVersion(command: Command, view: unknown): Command {
  const id = 'id' in command ? command.id : 'batchId' in command ? command.batchId : null;
  const version = id === null ? null : findVersion(view, id);
  return version !== null && 'version' in command ? { ...command, version } : command;
}

function findVersion(value: unknown, id: string): number | null {
  if (typeof value !== 'object' || value === null) return null;
  if ('id' in value && value.id === id && 'version' in value && typeof value.version === 'number') return value.version;
  for (const part of Object.values(value)) {
    const found = findVersion(part, id);
    if (found !== null) return found;
  }
  return null;
}
