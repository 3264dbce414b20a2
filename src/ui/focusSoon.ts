const PATIENCE_MS = 2000;

/**
 * Gives the focus to what `find` finds, as soon as it is on the screen; gives up after two seconds, or when the maker
 * has gone elsewhere.
 */
export function focusSoon(find: () => HTMLElement | null | undefined): void {
  const until = performance.now() + PATIENCE_MS;
  const before = document.activeElement;
  const look = (): void => {
    const moved = document.activeElement !== before && document.activeElement !== document.body;
    if (moved) return;
    const found = find();
    if (found) found.focus();
    else if (performance.now() < until) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}

/** The first control in an element that takes the focus, or its last. */
export function controlIn(box: ParentNode | null | undefined, which: 'first' | 'last' = 'first'): HTMLElement | null {
  const all = box?.querySelectorAll<HTMLElement>(
    'input:not([type=hidden],[tabindex="-1"]),button:not(:disabled),[role=combobox],textarea,a[href]',
  );
  return all ? (all[which === 'first' ? 0 : all.length - 1] ?? null) : null;
}
