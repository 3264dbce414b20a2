'use client';

import { useEffect, useRef } from 'react';

/** A key with what it does. `key` is the event's own; `mod` asks for Ctrl (or ⌘). */
export interface Shortcut {
  key: string;
  mod?: boolean;
  shift?: boolean;
  does: string;
  run: () => void;
}

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName));

/** Listens for shortcuts on the whole page. Plain keys do not fire while something is typed or a dialog is open. */
export function useShortcuts(shortcuts: readonly Shortcut[]): void {
  const latest = useRef(shortcuts);
  useEffect(() => {
    latest.current = shortcuts;
  });
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent): void => {
      const mod = event.ctrlKey || event.metaKey;
      if (event.altKey || event.defaultPrevented || typing(event.target) || document.querySelector('[role="dialog"]'))
        return;
      const hit = latest.current.find(
        ({ key, mod: wantsMod = false, shift }) =>
          key.toLowerCase() === event.key.toLowerCase() &&
          wantsMod === mod &&
          (shift === undefined || shift === event.shiftKey),
      );
      if (!hit) return;
      event.preventDefault();
      hit.run();
    };
    window.addEventListener('keydown', onKeyDown);
    return () => window.removeEventListener('keydown', onKeyDown);
  }, []);
}
