/** A copy cannot be put back, or an archive taken in; the message says why. */
export class CopyError extends Error {
  override name = 'CopyError';
}
