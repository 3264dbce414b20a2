/** The doors for edits and how much each takes, in bytes of JSON. What is small comes in quickly; a scan comes by the wide door. */
export const EDIT_DOORS = [
  { path: '/api/edits', mostBytes: 128_000 },
  /** A noisy scan of 160,000 samples takes about a thirtieth of it. */
  { path: '/api/edits/large', mostBytes: 8_000_000 },
] as const;

/** By which door an edit of so many bytes goes; null when it is too large for any. */
export const editDoorFor = (bytes: number): (typeof EDIT_DOORS)[number] | null =>
  EDIT_DOORS.find(({ mostBytes }) => bytes <= mostBytes) ?? null;
