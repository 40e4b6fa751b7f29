/** The command was called wrongly; exit code 2. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

/** The file cannot be used; the message is `file:line: reason`; exit code 1. */
export class BadInputError extends Error {
  override readonly name = 'BadInputError';
  constructor(file: string, line: number, reason: string) {
    super(`${file}:${line}: ${reason}`);
  }
}
