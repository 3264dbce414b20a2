/** A copy cannot be put back, or an archive taken in; the message says why. */
export class BackupError extends Error {
  override name = 'BackupError';
}
