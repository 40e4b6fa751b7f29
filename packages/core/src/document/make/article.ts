import { document, heading, paragraph, text } from '../build.js';
import { type Block, type DocumentContent, NothingToWriteError } from '../types.js';
import type { WrittenSentence, WrittenTalk } from '../written-talk.js';
import { chapterTitles } from './chapters.js';
import { quotable, quotationBlock } from './quotations.js';
import { pieces, SUMMARY_LENGTHS, summaryOf } from './summary.js';

/** How much of what a chapter says is written, and at most how many characters. Common practice. */
const [SHARE, MOST_CHARACTERS] = [0.45, 1_400];
const MOST_IN_PARAGRAPH = 5;
/** A sentence between two strong ones is worth more than one alone: text hangs together. */
const BY_NEIGHBOURS = 0.25;
/** Sentences further apart than this do not stand in one paragraph. */
const FAR = 3;

/** An article in sections that follow the chapters: what is said, written, with one quotation a section as it was said. */
export function makeArticle(talk: WrittenTalk): DocumentContent {
  const titles = chapterTitles(talk);
  const sections = talk.chapters.flatMap((_, k) => {
    const blocks = sectionOf(talk, k);
    return blocks.length === 0 ? [] : [heading(2, text(titles[k]!)), ...blocks];
  });
  if (sections.length === 0) throw new NothingToWriteError('No chapter of this recording has sentences that can be read by themselves.');
  return document(heading(1, text(talk.title)), paragraph(...pieces(summaryOf(talk, SUMMARY_LENGTHS.short))!), ...sections);
}

function sectionOf(talk: WrittenTalk, chapter: number): Block[] {
  const own = talk.sentences.filter((one) => one.chapter === chapter);
  const quotation = [...own].sort((a, b) => b.worth - a.worth).flatMap((one) => quotable(talk, one) ?? [])[0] ?? null;
  const chosen = choose(own).filter((one) => one !== quotation?.sentence);
  const named = talk.transcript.speakers.length > 1;
  const blocks: Block[] = [];
  let speaker = -1;
  for (const group of paragraphsOf(chosen, quotation?.sentence.index ?? -1)) {
    if (quotation !== null && !blocks.some(({ type }) => type === 'blockquote') && group[0]!.index > quotation.sentence.index)
      blocks.push(quotationBlock(talk, quotation));
    const name = named && group[0]!.speaker !== speaker ? talk.nameOf(group[0]!.speaker) : null;
    speaker = group[0]!.speaker;
    blocks.push(paragraph(...(name === null ? [] : [text(`${name}:`, undefined, 'bold'), text(' ')]), ...pieces(group)!));
  }
  if (quotation !== null && !blocks.some(({ type }) => type === 'blockquote')) blocks.push(quotationBlock(talk, quotation));
  return blocks;
}

/** The sentences worth most together with their neighbours; what leans on the one before comes only with it. */
function choose(own: readonly WrittenSentence[]): WrittenSentence[] {
  const worth = own.map((one, i) => one.worth + BY_NEIGHBOURS * ((own[i - 1]?.worth ?? 0) + (own[i + 1]?.worth ?? 0)));
  const room = Math.min(MOST_CHARACTERS, SHARE * own.reduce((sum, one) => sum + one.text.length, 0));
  const taken = new Set<number>();
  let used = 0;
  for (const i of own.map((_, k) => k).sort((a, b) => worth[b]! - worth[a]! || a - b)) {
    const needed = withWhatItLeansOn(own, i);
    if (needed === null) continue;
    const adds = needed.filter((k) => !taken.has(k));
    const length = adds.reduce((sum, k) => sum + own[k]!.text.length, 0);
    if (used + length > room && used > 0) continue;
    for (const k of adds) taken.add(k);
    used += length;
  }
  const chosen = own.filter((_, i) => taken.has(i));
  // A question without its answer asks the reader.
  return chosen.filter((one, k) => !one.asks || (chosen[k + 1] !== undefined && !chosen[k + 1]!.asks && chosen[k + 1]!.index - one.index <= FAR));
}

/** A sentence and those right before it that it cannot be read without; null where one of them is not there. */
function withWhatItLeansOn(own: readonly WrittenSentence[], i: number): number[] | null {
  const needed = [i];
  for (let k = i; own[k]!.leans || needed.length > MOST_LEANING; k -= 1) {
    const before = own[k - 1];
    if (before === undefined || needed.length > MOST_LEANING || before.index !== own[k]!.index - 1 || before.speaker !== own[k]!.speaker) return null;
    needed.push(k - 1);
  }
  return needed;
}
const MOST_LEANING = 2;

/** Paragraphs: one voice, sentences near one another, not too many, and none across the quotation. */
function paragraphsOf(chosen: readonly WrittenSentence[], quoted: number): WrittenSentence[][] {
  const groups: WrittenSentence[][] = [];
  for (const one of chosen) {
    const last = groups.at(-1);
    const before = last?.at(-1);
    const apart =
      last === undefined ||
      before === undefined ||
      before.speaker !== one.speaker ||
      (!one.leans && (last.length >= MOST_IN_PARAGRAPH || one.index - before.index > FAR || (before.index < quoted && quoted < one.index)));
    if (apart) groups.push([one]);
    else last.push(one);
  }
  return groups;
}
