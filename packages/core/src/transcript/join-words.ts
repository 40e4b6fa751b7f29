import { STOPWORDS } from '../text/lists/talk.js';
import type { RawCue, Repair } from './types.js';
import { COMPOUND_HEADS, COMPOUND_TAILS } from '../text/lists/compounds.js';

const WITHIN = /(\p{L}{2,})-[ \t]*\n[ \t]*(\p{Ll}+)/gu;
const AT_END = /(\p{L}{2,})-\s*$/u;
const AT_START = /^\s*(\p{Ll}+)([^\s\p{L}]*)/u;

/**
 * Puts together words that captions split at the end of a line or of a cue ("min-" / "utes"). A compound keeps its hyphen
 * ("well-" / "known"): one that begins or ends as compounds do, or whose second half is said by itself elsewhere.
 */
export function joinSplitWords(cues: readonly RawCue[], repairs: Repair[]): RawCue[] {
  if (!cues.some(({ text }) => AT_END.test(text) || /-[ \t]*\n/.test(text))) return [...cues];
  // What follows a hyphen at the end of a line may be half a word, and proves nothing.
  const text = cues.map((cue) => cue.text.toLowerCase()).join('\n');
  const said = new Set(text.match(/(?<!-\s*|[\p{L}-])\p{L}+(?![\p{L}-])/gu) ?? []);
  const join = (first: string, second: string, line: number): string => {
    const whole = `${first}${second}`;
    const likely = COMPOUND_HEADS.has(first.toLowerCase()) || COMPOUND_TAILS.has(second) || isWord(second, said);
    const compound = likely && !said.has(whole.toLowerCase());
    if (!compound) repairs.push({ line, code: 'split-word', detail: `“${first}-” and “${second}” put together as “${whole}”` });
    return compound ? `${first}-${second}` : whole;
  };
  const joined = cues.map((cue) => ({ ...cue, text: timed(cue) ? cue.text : cue.text.replace(WITHIN, (_, a: string, b: string) => join(a, b, cue.line)) }));
  for (let i = 0; i + 1 < joined.length; i += 1) {
    const [cue, next] = [joined[i]!, joined[i + 1]!];
    const head = AT_END.exec(cue.text);
    const tail = AT_START.exec(next.text);
    if (head === null || tail === null || timed(cue) || timed(next) || next.turn === true || next.speaker !== cue.speaker) continue;
    cue.text = cue.text.replace(AT_END, `${join(head[1]!, tail[1]!, next.line)}${tail[2]!}`);
    next.text = next.text.slice(tail[0].length);
  }
  return joined.filter(({ text }) => text.trim() !== '');
}

/** Where words have times of their own, nothing is moved: the times say what the pieces are. */
const timed = ({ stamps }: RawCue): boolean => stamps !== undefined && stamps.length > 0;

const isWord = (text: string, said: ReadonlySet<string>): boolean => STOPWORDS.has(text) || (text.length > 2 && said.has(text));
