/** There is no such file where media live. */
export class MissingFileError extends Error {
  override readonly name = 'MissingFileError';
}
