/** A key that no other thing has. Without `randomUUID`: a tablet on the local network has no secure context, and no such function. */
export const newKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(36).padStart(7, '0')).join('');
