import type { Word, WordRange } from '../transcript/types.js';

/** An address that somebody says. */
export interface SaidLink extends WordRange {
  readonly text: string;
}

const ENDINGS = new Set(
  'com org net info edu gov app dev shop blog example test co uk ie eu de at ch fr es it nl be pl pt se no dk fi is us ca au nz in jp'.split(' '),
);
/** No address has a longer word. */
const LONGEST = 200;
const SIGNS: Readonly<Record<string, string>> = { slash: '/', dash: '-', hyphen: '-', underscore: '_' };
const WRITTEN = /^(?:https?:\/\/)?(?:[\p{L}\p{N}-]+\.)+(?:\p{L}{2,})(?:\/[^\s,;]*)?$/iu;

/**
 * Links that are said aloud: "quillmere dot example slash tiles" and what is written as one already, each where it is said first.
 * What stands before the first "dot" is one word, unless "dash" or "at" joins more.
 */
export function saidLinks(words: readonly Pick<Word, 'text' | 'kind'>[]): SaidLink[] {
  const texts = words.map(({ text, kind }) =>
    kind === 'word' && text.length <= LONGEST ? text.toLowerCase().replace(/^["'“‘(]+|[,;:!?"'”’)]+$|\.$/g, '') : '',
  );
  const found = new Map<string, SaidLink>();
  for (let i = 0; i < texts.length; i += 1) {
    const link = spokenAt(texts, i) ?? writtenAt(texts, i);
    if (link === null) continue;
    if (!found.has(link.text)) found.set(link.text, link);
    i = link.endWord - 1;
  }
  return [...found.values()];
}

function writtenAt(texts: readonly string[], i: number): SaidLink | null {
  const text = texts[i]!;
  const ending = /\.(\p{L}+)(?:\/|$)/u.exec(text.replace(/^https?:\/\//, '').replace(/^.*\.(?=\p{L}+(?:\/|$))/u, '.'))?.[1];
  return WRITTEN.test(text) && ending !== undefined && ENDINGS.has(ending) ? { text, firstWord: i, endWord: i + 1 } : null;
}

/** "name [dash name] (dot name)+ (slash name)*", or "somebody at name dot name". */
function spokenAt(texts: readonly string[], i: number): SaidLink | null {
  let text = '';
  let at = i;
  const name = (): boolean => {
    if (!isName(texts[at])) return false;
    text += texts[at]!;
    at += 1;
    while ((SIGNS[texts[at] ?? ''] ?? '/') !== '/' && isName(texts[at + 1])) {
      text += SIGNS[texts[at]!]! + texts[at + 1]!;
      at += 2;
    }
    return true;
  };
  if (!name()) return null;
  if (texts[at] === 'at' && isName(texts[at + 1]) && texts[at + 2] === 'dot') {
    text += '@';
    at += 1;
    name();
  }
  let dots = 0;
  while (texts[at] === 'dot' && isName(texts[at + 1])) {
    text += '.';
    at += 1;
    dots += 1;
    name();
  }
  if (dots === 0 || !ENDINGS.has(text.slice(text.lastIndexOf('.') + 1))) return null;
  while (texts[at] === 'slash' && isName(texts[at + 1])) {
    text += '/';
    at += 1;
    name();
  }
  return { text, firstWord: i, endWord: at };
}

const isName = (text: string | undefined): boolean =>
  text !== undefined && /^[\p{L}\p{N}]+$/u.test(text) && text !== 'dot' && text !== 'at' && SIGNS[text] === undefined;
