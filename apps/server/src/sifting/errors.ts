/** The producer asked for the sift to stop. */
export class SiftCancelledError extends Error {
  override readonly name = 'SiftCancelledError';
}
