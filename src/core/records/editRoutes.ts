/** The routes for edits and how much each takes, in bytes of JSON. What is small comes in quickly; a scan comes by the wide one. */
export const EDIT_ROUTES = [
  { path: '/api/edits', mostBytes: 128_000 },
  /** A noisy scan of 160,000 samples takes about a thirtieth of it. */
  { path: '/api/edits/large', mostBytes: 8_000_000 },
] as const;

/** By which route an edit of so many bytes goes; null when it is too large for any. */
export const editRouteFor = (bytes: number): (typeof EDIT_ROUTES)[number] | null =>
  EDIT_ROUTES.find(({ mostBytes }) => bytes <= mostBytes) ?? null;
