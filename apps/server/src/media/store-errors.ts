/** There is no such file where media live. */
export class MissingFileError extends Error {
  override readonly name = 'MissingFileError';
}

/** The place where media live cannot be reached just now, or has a fault of its own; through no fault of whoever asks. */
export class StoreAwayError extends Error {
  override readonly name = 'StoreAwayError';
}
