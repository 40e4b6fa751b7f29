/** A language by its ISO 639-1 code and its English name. */
export interface Language {
  readonly code: string;
  readonly name: string;
}

const names = new Intl.DisplayNames('en', { type: 'language' });

/** @param code of ISO 639-1 */
export const languageOf = (code: string): Language => ({ code, name: names.of(code) ?? code });
