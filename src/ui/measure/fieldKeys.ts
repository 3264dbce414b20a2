/**
 * Selects what a field holds once the press that gave it the focus has placed its caret. What has been typed by then stays: a quick
 * hand, or a slow machine, must not lose its first letter.
 */
export const selectAll = (field: EventTarget & { value?: string; select?: () => void }): void => {
  const before = field.value;
  requestAnimationFrame(() => {
    if (document.activeElement === field && field.value === before) field.select?.();
  });
};

/** Sends the form round a field, if there is one. */
export function sendForm(field: EventTarget): void {
  if (field instanceof HTMLInputElement) field.form?.requestSubmit();
}
