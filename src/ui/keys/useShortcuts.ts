'use client';

import { useHotkeys } from 'react-hotkeys-hook';

/** A key with what it does. `key` is the event's own; `mod` asks for Ctrl (or ⌘). */
export interface Shortcut {
  key: string;
  mod?: boolean;
  shift?: boolean;
  does: string;
  run: () => void;
}

const hits = ({ key, mod = false, shift }: Shortcut, event: KeyboardEvent): boolean =>
  key.toLowerCase() === event.key.toLowerCase() &&
  mod === (event.ctrlKey || event.metaKey) &&
  (shift === undefined || shift === event.shiftKey);

const TYPED_IN = ['INPUT', 'TEXTAREA', 'SELECT'];
const PRESSED = ['checkbox', 'radio', 'file'];
/** A field that takes letters for itself, undo included. */
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    (TYPED_IN.includes(target.tagName) && !PRESSED.includes(target.getAttribute('type') ?? '')));

/** A field in which nothing was typed since it was last kept has nothing of its own to undo. */
const untouched = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.dataset['untouched'] !== undefined;

/** A list with the focus takes letters and arrows for itself, but not Ctrl with a letter. */
const inList = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.closest('[role="listbox"],[role="menu"],[role="combobox"]') !== null;

/** Listens for shortcuts on the whole page. Plain keys do not fire while something is typed or a dialog is open. */
export function useShortcuts(shortcuts: readonly Shortcut[]): void {
  useHotkeys(
    '*',
    (event) => {
      const { altKey, defaultPrevented, target } = event;
      if (altKey || defaultPrevented || document.querySelector('[role="dialog"]')) return;
      const hit = shortcuts.find((shortcut) => hits(shortcut, event));
      if (!hit || (!hit.mod && inList(target))) return;
      if (typing(target) && !(hit.mod && untouched(target))) return;
      event.preventDefault();
      hit.run();
    },
    // The hook would keep still on sliders and radio buttons too; what is typed in is told apart here.
    { enableOnFormTags: true },
    [shortcuts],
  );
}
