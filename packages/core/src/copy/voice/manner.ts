import { checkVoice, mended, type VoiceContext, type VoiceField } from './check-voice.js';
import type { Voice } from './types.js';

/** How what is proposed comes into a client's voice. */
export interface Manner {
  /** The text as the client would write it, as far as rules can tell. */
  write(field: VoiceField, text: string): string;
  /** What a title is worth beside others: below 0 where it says what the client never says, above where it is like the good ones. */
  worth(title: string): number;
  /** It says what the client never says. */
  avoids(title: string): boolean;
}

/** What a title loses that says what the client never says, and the most that likeness to good ones gives or takes. */
const [FORBIDDEN, LIKENESS] = [0.4, 0.12];

const MOST_TURNS = 3;

/** @param names of the recording, lower case */
export function mannerOf(voice: Voice, names: ReadonlySet<string>, english: boolean): Manner {
  const context: VoiceContext = { voice, names, english, speller: null, known: new Set() };
  const like = likenessTo(voice.examples);
  const write = (field: VoiceField, text: string): string => {
    let [before, now] = ['', text];
    // What comes in the place of a word may have to be written otherwise itself.
    for (let turn = 0; turn < MOST_TURNS && now !== before; turn += 1) [before, now] = [now, mended(now, checkVoice(field, now, context))];
    return now;
  };
  const avoids = (title: string): boolean => checkVoice('title', title, context).some(({ rule }) => rule === 'avoid');
  return { write, avoids, worth: (title) => LIKENESS * like(title) - (avoids(title) ? FORBIDDEN : 0) };
}

/** What tells titles apart at first sight. */
const TRAITS: readonly ((title: string) => boolean)[] = [
  (title) => title.includes('?'),
  (title) => /^(?:why|how|what|when|who|where)\b/i.test(title),
  (title) => /\d/.test(title),
  (title) => /\b(?:you|your|you're)\b/i.test(title),
  (title) => /\b(?:I|my|I'm|we|our)\b/i.test(title),
  (title) => /\b(?:not|never|no|don't|isn't)\b/i.test(title),
  (title) => title.length > 45,
  (title) => title.length < 28,
];

/** How like a title is to those, -1 to 1 by the traits that they share; 0 where there are none. */
export function likenessTo(examples: readonly string[]): (title: string) => number {
  if (examples.length === 0) return () => 0;
  const shares = TRAITS.map((has) => examples.filter(has).length / examples.length);
  return (title) => TRAITS.reduce((sum, has, k) => sum + (has(title) ? 2 * shares[k]! - 1 : 1 - 2 * shares[k]!), 0) / TRAITS.length;
}
