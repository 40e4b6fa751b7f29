import { formatTimecode } from '../../time/timecode.js';
import { document, heading, list, paragraph, text } from '../build.js';
import { saidLinks } from '../links.js';
import type { Block, DocumentContent, Inline } from '../types.js';
import type { WrittenTalk } from '../written-talk.js';
import { chapterLines } from './chapters.js';
import { bestQuotations, quotationBlock } from './quotations.js';
import { pieces, SUMMARY_LENGTHS, summaryOf } from './summary.js';

const [MOST_FIGURES, MOST_QUOTATIONS, MOST_NAMES] = [8, 4, 12];
/** Who says less of a recording than this is not one of its people. */
const LEAST_SHARE = 0.02;

/** What a recording's page says of it: summary, chapters, people, figures, quotations and links that were said. */
export function makeShowNotes(talk: WrittenTalk): DocumentContent {
  return document(
    paragraph(...pieces(summaryOf(talk, SUMMARY_LENGTHS.medium))!),
    ...part('Chapters', chapterLines(talk)),
    ...part('Who speaks', listed(speakersOf(talk))),
    ...part('Names said', listed(namesSaid(talk))),
    ...part('Figures', listed(figuresSaid(talk))),
    ...part(
      'In their words',
      bestQuotations(talk, MOST_QUOTATIONS).map((one) => quotationBlock(talk, one)),
    ),
    ...part('Links', listed(saidLinks(talk.transcript.words).map((link) => [text(link.text, link)]))),
  );
}

const part = (title: string, blocks: readonly Block[]): Block[] => (blocks.length === 0 ? [] : [heading(2, text(title)), ...blocks]);
const listed = (items: readonly (readonly Inline[])[]): Block[] => (items.length === 0 ? [] : [list('bulletList', ...items)]);

/** Speakers with names, who says most first. */
function speakersOf({ transcript: { sentences, speakers } }: WrittenTalk): Inline[][] {
  const spoken = speakers.map((name, k) => {
    const own = sentences.filter(({ speaker }) => speaker === k);
    return { name, words: own.reduce((sum, one) => sum + one.endWord - one.firstWord, 0), first: own[0] };
  });
  const all = sentences.reduce((sum, one) => sum + one.endWord - one.firstWord, 0);
  return spoken
    .filter(({ words }) => words >= LEAST_SHARE * all && words > 0)
    .sort((a, b) => b.words - a.words)
    .map(({ name, first }) => [text(name, first)]);
}

/** Names of more than one word that are said and are nobody's who speaks, in the order in which they are said first. */
function namesSaid({ transcript: { words, speakers }, passage: { texts } }: WrittenTalk): Inline[][] {
  const known = new Set(speakers.flatMap((name) => name.toLowerCase().split(/\s+/)));
  const found = new Map<string, Inline[]>();
  for (let i = 1; i < words.length && found.size < MOST_NAMES; i += 1) {
    let end = i;
    while (end < words.length && isName(words, end)) {
      end += 1;
      if (/[,.;:!?]$/.test(words[end - 1]!.text)) break;
    }
    if (end - i < 2) continue;
    const name = words
      .slice(i, end)
      .map(({ text: word }) => word.replace(/^["'“‘(]+|[,.;:!?"'”’)]+$/g, '').replace(/['’]s$/, ''))
      .join(' ');
    if (!found.has(name.toLowerCase()) && !texts.slice(i, end).some((word) => known.has(word)))
      found.set(name.toLowerCase(), [text(name, { firstWord: i, endWord: end })]);
    i = end - 1;
  }
  return [...found.values()];
}
/** Written as a name inside a sentence. */
const isName = (words: WrittenTalk['transcript']['words'], i: number): boolean =>
  words[i]!.kind === 'word' &&
  /^["'“‘(]*\p{Lu}\p{Ll}+/u.test(words[i]!.text) &&
  !/^["'“‘(]*I['’]/.test(words[i]!.text) &&
  !/[.!?:]["'”’)]*$/.test(words[i - 1]!.text);

/** Sentences that say a figure, with their time: those that say most, in order. */
function figuresSaid({ sentences, transcript: { words } }: WrittenTalk): Inline[][] {
  return sentences
    .filter((one) => !one.leans && !one.asks && /\d/.test(one.text))
    .sort((a, b) => b.worth - a.worth)
    .slice(0, MOST_FIGURES)
    .sort((a, b) => a.index - b.index)
    .map((one) => [text(one.text, one.said), text(` (${formatTimecode(words[one.said.firstWord]!.startMs)})`)]);
}
