import { EDIT_DOORS, editDoorFor } from './edits';

test('an edit goes by the narrowest door that takes it, and by none when it is too large', () => {
  const [plain, wide] = EDIT_DOORS;
  expect(editDoorFor(10)).toBe(plain);
  expect(editDoorFor(plain.mostBytes)).toBe(plain);
  expect(editDoorFor(plain.mostBytes + 1)).toBe(wide);
  expect(editDoorFor(wide.mostBytes)).toBe(wide);
  expect(editDoorFor(wide.mostBytes + 1)).toBeNull();
});
