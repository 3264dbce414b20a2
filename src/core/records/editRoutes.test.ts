import { EDIT_ROUTES, editRouteFor } from './editRoutes';

test('an edit goes by the narrowest route that takes it, and by none when it is too large', () => {
  const [plain, wide] = EDIT_ROUTES;
  expect(editRouteFor(10)).toBe(plain);
  expect(editRouteFor(plain.mostBytes)).toBe(plain);
  expect(editRouteFor(plain.mostBytes + 1)).toBe(wide);
  expect(editRouteFor(wide.mostBytes)).toBe(wide);
  expect(editRouteFor(wide.mostBytes + 1)).toBeNull();
});
