/** What was asked for did not come. The message says why, for the producer; it never holds the whole address, which may be a secret. */
export class FetchError extends Error {
  override readonly name = 'FetchError';
  /**
   * @param again whether it may come another time
   * @param afterMs how long the other side asks to be left alone (Retry-After), or null
   */
  constructor(
    message: string,
    readonly again: boolean,
    readonly afterMs: number | null = null,
    /** The answer's status, where there was one. */
    readonly status: number | null = null,
  ) {
    super(message);
  }
}
