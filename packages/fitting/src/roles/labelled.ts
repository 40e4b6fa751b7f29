import { ROLES } from '@sift-reel/core';
import { readForRoles, type Role, type RoleInput } from '@sift-reel/core/fitting';
import { MarkedSetError } from '../editors/talk.js';

const CODES: Readonly<Record<string, Role>> = {
  cl: 'claim',
  ad: 'advice',
  st: 'story',
  fi: 'figure',
  ex: 'explanation',
  qu: 'question',
  an: 'answer',
  fe: 'feeling',
  jo: 'joke',
  co: 'contrast',
  pr: 'problem',
  pl: 'plain',
  gr: 'greeting',
  ho: 'housekeeping',
  sp: 'sponsor',
  su: 'subscribe',
  wa: 'walkThrough',
  wt: 'waiting',
  sm: 'smallTalk',
  in: 'incomplete',
};

export interface LabelledSentence {
  readonly text: string;
  /** Place in `ROLES`. */
  readonly role: number;
  readonly newVoice: boolean;
  /** True for the first of a stretch: what stands before it in the file was not said before it. */
  readonly opens: boolean;
}

/**
 * Reads one subject's labelled sentences: `code text` a line, `> ` before the code where another speaks, an empty line
 * between stretches.
 * @throws MarkedSetError with the line
 */
export function readLabelled(file: string, text: string): LabelledSentence[] {
  let opens = true;
  return text.split('\n').flatMap((line, i) => {
    if (line.trim() === '') {
      opens = true;
      return [];
    }
    const parts = /^(> )?([a-z]{2}) (.+)$/.exec(line);
    const role = CODES[parts?.[2] ?? ''];
    if (parts === null || role === undefined) throw new MarkedSetError(file, i + 1, `expected a code and a sentence, found “${line}”`);
    const sentence = { text: parts[3]!, role: ROLES.indexOf(role), newVoice: parts[1] !== undefined, opens };
    opens = false;
    return [sentence];
  });
}

/** The sentence as a recogniser without punctuation gives it. */
export const bareText = (text: string): string =>
  text
    .split(/\s+/)
    .map((word) => (word.startsWith('[') ? word : word.toLowerCase().replace(/[^\p{L}\p{N}'’-]/gu, '')))
    .filter((word) => word !== '')
    .join(' ');

/** One reading of a subject's sentences, with the texts written or bare. */
export function readingOf(sentences: readonly LabelledSentence[], texts: readonly string[]): RoleInput {
  let firstWord = 0;
  let speaker = 0;
  const words = texts.flatMap((text, s) => {
    if (sentences[s]!.newVoice) speaker = 1 - speaker;
    return text.split(/\s+/).map((word) => ({ text: word, kind: word.startsWith('[') ? ('mark' as const) : ('word' as const), speaker }));
  });
  const timed = words.map((word, i) => ({ ...word, startMs: i * 400, endMs: i * 400 + 350 }));
  return readForRoles(
    timed,
    texts.map((text) => {
      const from = firstWord;
      firstWord += text.split(/\s+/).length;
      return { firstWord: from, endWord: firstWord, startMs: from * 400, endMs: firstWord * 400, speaker: timed[from]!.speaker };
    }),
  );
}
