import { cleanLine } from '../../copy/said-line.js';
import { shared } from '../../copy/written/content.js';
import { closed } from '../../copy/written/written-sentence.js';
import { paragraph, quote, text } from '../build.js';
import type { BlockQuote } from '../types.js';
import type { TalkMoment, WrittenSentence, WrittenTalk } from '../written-talk.js';

/** A quotation that is read at a glance. Common practice. */
const [SHORTEST, LONGEST] = [28, 190];
/** What says so much of another again is not quoted beside it. */
const SAME = 0.5;

/** A sentence as it was said, without sounds. */
export interface Quotation {
  readonly sentence: WrittenSentence;
  readonly text: string;
}

/** What of a sentence can be quoted: all of it, and as it was said. Null where it is too long, too short, or leans on what was said before. */
export function quotable(talk: WrittenTalk, sentence: WrittenSentence): Quotation | null {
  if (sentence.leans || sentence.asks) return null;
  const said = closed(cleanLine(talk.passage, sentence.said.firstWord, sentence.said.endWord));
  // Half of what somebody else said is no quotation of it.
  if ((said.match(/"/g)?.length ?? 0) % 2 === 1 || said.split('“').length !== said.split('”').length) return null;
  return said.length >= SHORTEST && said.length <= LONGEST ? { sentence, text: said } : null;
}

/** The best sentences to quote, in order of time: from the strongest passages, none that says what another says. */
export function bestQuotations(talk: WrittenTalk, most: number): Quotation[] {
  const chosen: Quotation[] = [];
  for (const sentence of [...talk.sentences].sort((a, b) => b.worth - a.worth || a.index - b.index)) {
    if (chosen.length === most) break;
    const one = quotable(talk, sentence);
    if (one !== null && chosen.every((other) => shared(other.sentence.words, sentence.words) < SAME)) chosen.push(one);
  }
  return chosen.sort((a, b) => a.sentence.index - b.sentence.index);
}

/** “As it was said.” — Who said it */
export function quotationBlock(talk: WrittenTalk, { sentence, text: said }: Quotation): BlockQuote {
  const name = talk.nameOf(sentence.speaker);
  return quote(paragraph(text(`“${said.replace(/[“”]/g, '"')}”`, sentence.said), ...(name === null ? [] : [text(` — ${name}`)])));
}

/** The strongest passages, kept ones first, none that overlaps another. */
export function bestMoments(talk: WrittenTalk, most: number): TalkMoment[] {
  const chosen: TalkMoment[] = [];
  for (const one of [...talk.moments].sort((a, b) => Number(b.kept) - Number(a.kept) || b.score - a.score || a.firstWord - b.firstWord)) {
    if (chosen.length === most) break;
    if (chosen.every((other) => other.endWord <= one.firstWord || one.endWord <= other.firstWord)) chosen.push(one);
  }
  return chosen;
}

export const sentencesIn = (talk: WrittenTalk, { firstWord, endWord }: { firstWord: number; endWord: number }): WrittenSentence[] =>
  talk.sentences.filter(({ said }) => said.firstWord >= firstWord && said.endWord <= endWord);
