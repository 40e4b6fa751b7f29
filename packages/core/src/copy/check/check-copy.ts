import type { Copy } from '../types.js';
import { toHashtag } from '../hashtags.js';
import { checkVoice, type VoiceContext, type VoiceField } from '../voice/check-voice.js';
import type { SaidPassage } from './said-passage.js';
import { checkFigures, checkTruth } from './truth.js';
import type { Finding } from './types.js';

export interface CheckContext extends VoiceContext {
  readonly said: SaidPassage;
}

const TEXTS: readonly VoiceField[] = ['title', 'description', 'coverLine'];

/** All that is wrong with the words of a short, field by field: what was not said, and what is not how the client writes. */
export function checkCopy(copy: Copy, context: CheckContext): Finding[] {
  const texts = TEXTS.flatMap((field) => {
    const text = copy[field];
    const truth = checkTruth(text, context.said, context.english);
    const voice = checkVoice(field, text, context).filter(
      (one) => one.rule === 'length' || !truth.some((other) => other.from < one.to && one.from < other.to && other.rule !== 'claim'),
    );
    return [...truth, ...voice].sort((a, b) => a.from - b.from || b.to - a.to).map((found) => ({ ...found, field, item: null }));
  });
  return [...texts, ...checkTags(copy, context), ...checkLists(copy, context)];
}

function checkTags({ hashtags }: Copy, { voice }: VoiceContext): Finding[] {
  const never = new Set(voice.neverTags.map(toHashtag));
  const there = new Set(hashtags.map(toHashtag));
  const forbidden = hashtags.flatMap((tag, item): Finding[] =>
    never.has(toHashtag(tag))
      ? [{ field: 'hashtags', item, from: 0, to: tag.length, rule: 'avoid', text: tag, detail: `The client never uses #${tag}.`, mend: '' }]
      : [],
  );
  const missing = voice.alwaysTags
    .filter((tag) => !there.has(toHashtag(tag)))
    .map((tag): Finding => ({
      field: 'hashtags',
      item: null,
      from: 0,
      to: 0,
      rule: 'use',
      text: '',
      detail: `Every short of this client carries #${tag}.`,
      mend: tag,
    }));
  return [...forbidden, ...missing];
}

/** What is looked for and not read says nothing; but a figure in it does. */
function checkLists(copy: Copy, { said }: CheckContext): Finding[] {
  return (['hashtags', 'keywords'] as const).flatMap((field) =>
    copy[field].flatMap((text, item) => checkFigures(text, said).map((found): Finding => ({ ...found, field, item }))),
  );
}

/** What is known around a passage: who speaks, and what the recording writes as a name; in lower case. */
export function namesOf(words: readonly { readonly text: string }[], speakers: readonly string[]): Set<string> {
  const names = new Set(speakers.flatMap((name) => name.toLowerCase().split(/\s+/)));
  words.forEach(({ text }, i) => {
    const opens = i === 0 || /^["“‘(]/.test(text) || /[.!?:]["'”’)]*$/.test(words[i - 1]!.text);
    if (!opens && /^["'“‘(]*\p{Lu}\p{L}/u.test(text))
      names.add(
        text
          .toLowerCase()
          .replace(/[’]/g, "'")
          .replace(/^[^\p{L}]+|(?:'s)?[^\p{L}]*$/gu, ''),
      );
  });
  names.delete('');
  return names;
}
