import type { TextRun, TextUnit } from '../../copy/translation/units.js';

/** The namespace of XLIFF 2.0 and 2.1, and those of the modules that are used. */
export const XLIFF = 'urn:oasis:names:tc:xliff:document:2.0';
export const SIZE_RESTRICTION = 'urn:oasis:names:tc:xliff:sizerestriction:2.0';

/** What goes out of a short to be translated. */
export interface XliffJob {
  /** The short. */
  readonly id: string;
  readonly title: string;
  readonly sourceLanguage: string;
  readonly targetLanguage: string;
  readonly units: readonly TextUnit[];
  /** Texts that are there already, and whether a person has read them. */
  readonly targets: Readonly<Record<string, string>>;
  readonly read: boolean;
}

/** What comes back. */
export interface XliffAnswer {
  readonly id: string;
  readonly sourceLanguage: string;
  readonly targetLanguage: string;
  readonly units: readonly XliffAnswerUnit[];
}
interface XliffAnswerUnit {
  readonly id: string;
  /** Line of the file, from 1. */
  readonly line: number;
  readonly source: readonly TextRun[];
  /** Null where none was written. */
  readonly target: readonly TextRun[] | null;
}

export type XliffRefusalCode = 'bad-xml' | 'not-xliff' | 'bad-version' | 'no-language' | 'no-file' | 'no-id' | 'twice' | 'too-long';

/** A file was refused; nothing of it is used. `line` counts from 1. */
export class XliffRefusedError extends Error {
  override readonly name = 'XliffRefusedError';
  constructor(
    readonly line: number,
    readonly code: XliffRefusalCode,
    readonly detail: string,
  ) {
    super(`line ${line}: ${detail} (${code})`);
  }
}
