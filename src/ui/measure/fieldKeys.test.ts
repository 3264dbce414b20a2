/** @jest-environment jsdom */
import { selectAll } from './fieldKeys';

const frame = (): Promise<void> => new Promise((resolve) => requestAnimationFrame(() => resolve()));
function field(value: string): HTMLInputElement {
  const made = document.createElement('input');
  made.value = value;
  document.body.append(made);
  made.focus();
  return made;
}
const chosen = ({ selectionStart, selectionEnd }: HTMLInputElement): number => selectionEnd! - selectionStart!;

test('what a field holds is selected on focus', async () => {
  const held = field('15');
  held.setSelectionRange(0, 0);
  selectAll(held);
  await frame();
  expect(chosen(held)).toBe(2);
});
test('a letter typed before that is not taken away by the next', async () => {
  const held = field('15');
  selectAll(held);
  held.value = '1';
  held.setSelectionRange(1, 1);
  await frame();
  expect(chosen(held)).toBe(0);
});
test('a field that has lost the focus is left alone', async () => {
  const held = field('15');
  held.setSelectionRange(0, 0);
  selectAll(held);
  held.blur();
  await frame();
  expect(chosen(held)).toBe(0);
});
