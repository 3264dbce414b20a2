/** Selects what a field holds once the press that gave it the focus has placed its caret. */
export const selectAll = (field: EventTarget & { select?: () => void }): void =>
  void requestAnimationFrame(() => {
    if (document.activeElement === field) field.select?.();
  });

/** Sends the form round a field, if there is one. */
export function sendForm(field: EventTarget): void {
  if (field instanceof HTMLInputElement) field.form?.requestSubmit();
}
