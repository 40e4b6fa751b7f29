import { describe } from '../../copy/written/description.js';
import { closed } from '../../copy/written/written-sentence.js';
import { contentOf, shared } from '../../copy/written/content.js';
import { isBroken } from '../../copy/written/wholeness.js';
import { type TitleDraft, titleDrafts } from '../../copy/written/title-sorts.js';
import { proposeTitles } from '../../copy/written/titles.js';
import { DID } from '../../text/lists/titles.js';
import { document, heading, paragraph, text } from '../build.js';
import { type Block, type DocumentContent, NothingToWriteError } from '../types.js';
import type { TalkMoment, WrittenSentence, WrittenTalk } from '../written-talk.js';
import { bestMoments, quotable, quotationBlock, type Quotation, sentencesIn } from './quotations.js';

const [FEWEST_POSTS, MOST_POSTS] = [3, 7];
/** A text post that is read without opening it, and its first line. Common practice. */
const [LONGEST_BODY, LONGEST_HOOK] = [280, 70];
const SAME = 0.5;

/** Three to seven posts of one thought each: a line that stands first, what else is said of it, and how it was said. */
export function makeTextPosts(talk: WrittenTalk): DocumentContent {
  const posts: Block[][] = [];
  const taken: ReadonlySet<string>[] = [];
  for (const moment of bestMoments(talk, 3 * MOST_POSTS)) {
    if (posts.length === MOST_POSTS) break;
    const post = postOf(talk, moment);
    if (post === null || taken.some((other) => shared(other, post.words) >= SAME)) continue;
    taken.push(post.words);
    posts.push(post.blocks);
  }
  if (posts.length < FEWEST_POSTS)
    throw new NothingToWriteError(`Only ${posts.length} passages of this recording carry a post of their own; at least ${FEWEST_POSTS} are needed.`);
  return document(...posts.flatMap((blocks, i) => [heading(2, text(`Post ${i + 1}`)), ...blocks]));
}

function postOf(talk: WrittenTalk, moment: TalkMoment): { words: ReadonlySet<string>; blocks: Block[] } | null {
  const quotation = quotationOf(talk, moment);
  if (quotation === null) return null;
  const hook = hookOf(talk, moment);
  const context = talk.contextOf(moment);
  const said = talk.language === null ? describe(context, hook?.text ?? quotation.text, LONGEST_BODY) : '';
  const inHook = wordsOf(hook?.text ?? '');
  // The quotation is not said twice: what stands above it, and says the same, goes.
  const body = said !== '' && shared(wordsOf(said), quotation.sentence.words) < SAME ? talk.write(said) : '';
  const range = { firstWord: moment.firstWord, endWord: moment.endWord };
  const blocks: Block[] = [];
  if (hook !== null && shared(inHook, quotation.sentence.words) < SAME) blocks.push(paragraph(text(hook.text, hook.said, 'bold')));
  if (body !== '') blocks.push(paragraph(text(body, range)));
  return { words: quotation.sentence.words, blocks: [...blocks, quotationBlock(talk, quotation)] };
}
const wordsOf = (line: string): ReadonlySet<string> => contentOf(line.toLowerCase().split(/[^\p{L}\p{N}']+/u));

/** The title that somebody gave the passage, or one that is whole. */
function hookOf(talk: WrittenTalk, { title, ...moment }: TalkMoment): { text: string; said: { firstWord: number; endWord: number } } | null {
  const range = { firstWord: moment.firstWord, endWord: moment.endWord };
  if (title !== null) return { text: title, said: range };
  if (talk.language !== null) return null;
  const found = proposeTitles(talk.contextOf(range), LONGEST_HOOK, 5).find(({ draft }) => !draft);
  return found === undefined ? null : { text: talk.write(found.text), said: found };
}

function quotationOf(talk: WrittenTalk, moment: TalkMoment): Quotation | null {
  const able = sentencesIn(talk, moment).flatMap((one) => quotable(talk, one) ?? []);
  return able.sort((a, b) => b.sentence.worth - a.sentence.worth)[0] ?? null;
}

const [FEWEST_PARTS, MOST_PARTS] = [3, 10];

/** A numbered series of what the recording advises, in its order, each with the reason that follows it. */
export function makeSeries(talk: WrittenTalk): DocumentContent {
  const parts = advicesOf(talk);
  if (parts.length < FEWEST_PARTS)
    throw new NothingToWriteError(`Only ${parts.length} sentences of this recording advise something; a series needs at least ${FEWEST_PARTS}.`);
  return document(
    ...parts.flatMap(({ advice, sentence, reason }, i) => [
      heading(2, text(`${i + 1} of ${parts.length}`)),
      paragraph(text(advice, sentence.said, 'bold'), ...(reason === null ? [] : [text(' '), text(reason.text, reason.said)])),
    ]),
  );
}

interface Advice {
  readonly advice: string;
  readonly sentence: WrittenSentence;
  readonly reason: WrittenSentence | null;
}

function advicesOf(talk: WrittenTalk): Advice[] {
  const written = new Map(talk.sentences.map((one) => [one.index, one]));
  const found = talk.chapters.flatMap((chapter): Advice[] => {
    const { passage } = talk.contextOf(chapter);
    return titleDrafts(passage, LONGEST_ADVICE).flatMap((draft) => {
      const sentence = written.get(passage.first + draft.sentence);
      if (sentence === undefined || isBroken(draft) || draft.line.length < LEAST_WORDS || !advises(talk, draft, sentence)) return [];
      return [{ advice: talk.write(closed(draft.text)), sentence, reason: reasonOf(written, sentence) }];
    });
  });
  const chosen: Advice[] = [];
  // The longest of a sentence says most of it; the sentences that say most come first.
  for (const one of found.sort((a, b) => b.sentence.worth - a.sentence.worth || b.advice.length - a.advice.length)) {
    if (chosen.length === MOST_PARTS) break;
    if (chosen.every((other) => other.sentence !== one.sentence && shared(wordsOf(other.advice), wordsOf(one.advice)) < SAME)) chosen.push(one);
  }
  return chosen.sort((a, b) => a.sentence.index - b.sentence.index);
}
const [LONGEST_ADVICE, LEAST_WORDS] = [110, 4];

/**
 * Said as advice: "you should", "don't", "I'd", or an order. "You put tiles onto that, and in two years…" only tells what
 * happens, so what would be an order without its "you" must look like advice all over.
 */
function advises({ passage }: WrittenTalk, { sort, line }: TitleDraft, sentence: WrittenSentence): boolean {
  const first = line[0]!;
  if (TO_WHO_SPEAKS.has(first.norm)) return false;
  if (sort === 'advice') return passage.texts[first.first - 1] !== 'you' || /^(?:don't|never)$/.test(first.norm) || sentence.advises >= SURELY;
  const order =
    first.tag === 'VERB' && !DID.has(first.norm) && !/(?:ed|ing|s)$/.test(first.norm) && (first.first === 0 || passage.texts[first.first - 1] !== 'you');
  return sort === 'said' && (order || first.norm === "don't" || first.norm === 'never') && sentence.advises >= LIKELY;
}
const [SURELY, LIKELY] = [0.5, 0.2];
/** "Say that again": asked of somebody in the room. */
const TO_WHO_SPEAKS = new Set('say tell ask hear listen look see wait come hang sorry thank thanks imagine picture'.split(' '));

/** What is said right behind it, by the same voice. */
function reasonOf(written: ReadonlyMap<number, WrittenSentence>, sentence: WrittenSentence): WrittenSentence | null {
  const next = written.get(sentence.index + 1);
  if (next === undefined || next.speaker !== sentence.speaker || next.asks || next.text.length > LONGEST_BODY / 2) return null;
  return shared(next.words, sentence.words) < SAME ? next : null;
}
