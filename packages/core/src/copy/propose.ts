import { namesOf } from './check/check-copy.js';
import { asPosted } from './voice/fixed-parts.js';
import { mannerOf } from './voice/manner.js';
import { OPEN_VOICE, type Voice } from './voice/types.js';
import { findTells, normaliseWords } from '../text/tells/find-tells.js';
import { winkTagger, type PosTagger } from '../text/tagger.js';
import type { Transcript, WordRange } from '../transcript/types.js';
import { characters } from './characters.js';
import { proposeHashtags } from './hashtags.js';
import { proposeKeywords } from './keywords.js';
import { type Passage, type PhraseStatistics, phraseStatistics } from './phrases.js';
import { type RecordingSubject, recordingSubject } from './recording-tags.js';
import { cleanLine, shorten } from './said-line.js';
import type { SearchGround } from './search/search-drafts.js';
import { titleCompounds, titleWords } from './title-tags.js';
import { topicsOf } from './topics/topics.js';
import { readLine, saysAgain } from './written/content.js';
import type { TitleContext } from './written/title-features.js';
import { describer } from './written/description.js';
import { type ProposedTitle, proposeTitles, titleOf } from './written/titles.js';
import { type Copy, type CopyLimits, type CopyProblem, COVER_LINE_LIMIT } from './types.js';

const MOST_KEYWORDS = 8;

/** A passage that words are asked for: `firstWord` inside, `endWord` not. */
export interface CopyRequest {
  readonly firstWord: number;
  readonly endWord: number;
  readonly clientTags: readonly string[];
  readonly limits: CopyLimits;
  /** Code of the language of the talk where it is not English: titles are first lines then. */
  readonly language?: string | null;
  /** The client's voice; open where there is none. */
  readonly voice?: Voice;
  /** What the recording is called. */
  readonly title?: string;
  /** What the recording is about, where a sift has found it; else it is found here, which reads all of the transcript. */
  readonly subject?: RecordingSubject | null;
}

/** Longest title, whatever a platform would take: more is not read. Common practice. */
const LONGEST_TITLE = 70;

/**
 * Copy for a passage, made only of what is said in it and of the client's own tags, inside the limits. In its title spoken words
 * may be written otherwise (figures, "Don't" for "you don't"); nothing is added but the frame of a title ("Why").
 */
export function proposeCopy(transcript: Transcript, request: CopyRequest, tagger: PosTagger = winkTagger): Copy {
  const { clientTags, voice = OPEN_VOICE } = request;
  const limits = limitsIn(voice, request.limits);
  const english = isEnglish(request);
  const plain = titleContext(transcript, request, tagger);
  const { passage, statistics } = plain;
  const most = Math.min(LONGEST_TITLE, limits.title);
  const ground = english ? groundOf(transcript, request, statistics, tagger) : null;
  const context = ground === null ? plain : { ...plain, topics: topicsOf(passage, statistics, ground) };
  const said = shorten(cleanLine(passage, passage.firstWord, passage.endWord), most);
  const { text: title, line } = english ? titleOf(context, most) : { text: said, line: said };
  return {
    title,
    description: textsBeside(plain, limits.description, english)(line),
    hashtags: proposeHashtags(
      { passage, statistics, subject: ground?.subject ?? null, clientTags, voice, titled: ground?.titled ?? [] },
      Math.min(5, limits.hashtags),
    ),
    keywords: proposeKeywords(plain, ground, MOST_KEYWORDS),
    coverLine: coverLine(context, title),
  };
}

const isEnglish = ({ language }: CopyRequest): boolean => (language ?? null) === null;

/** The client may want less than a platform takes; its fixed parts stand in the text's place. */
function limitsIn({ longestTitle, longestText, fixedParts }: Voice, limits: CopyLimits): CopyLimits {
  const fixed = characters(asPosted({ ...NOTHING, description: 'x' }, { fixedParts }).description) - 1;
  return {
    ...limits,
    title: Math.min(limits.title, longestTitle ?? limits.title),
    description: Math.max(0, Math.min(limits.description - fixed, longestText ?? limits.description)),
  };
}
const NOTHING: Copy = { title: '', description: '', hashtags: [], keywords: [], coverLine: '' };

/** The text that goes with a line of the passage, as the client writes it. */
function textsBeside(context: TitleContext, limit: number, english: boolean): (line: string) => string {
  const { passage, manner } = context;
  const tell = english ? describer(context, limit) : () => '';
  return (line) => {
    const told = tell(line) || shortDescription(passage, line, limit);
    const written = manner?.write('description', told) ?? told;
    return characters(written) <= limit ? written : told;
  };
}

/** What names the recording of a passage. */
function groundOf(transcript: Transcript, { title = '', subject }: CopyRequest, { counts }: PhraseStatistics, tagger: PosTagger): SearchGround {
  return {
    subject: subject ?? subjectOf(transcript, tagger),
    titled: titleCompounds(title, counts, tagger),
    titleWords: titleWords(title, counts, tagger),
  };
}

function subjectOf({ words }: Transcript, tagger: PosTagger): RecordingSubject {
  const texts = normaliseWords(words);
  return recordingSubject(texts, tagger(texts), words);
}

/** A title that may be taken instead, and the text that goes with it: beside another, it would say the title again. */
export interface TitleWithText extends ProposedTitle {
  readonly description: string;
}

/**
 * Titles for a passage, the best first; none for talk that is not English. Places count from the start of the transcript.
 * @param most how many
 */
export function proposeTitlesFor(transcript: Transcript, request: CopyRequest, most: number, tagger: PosTagger = winkTagger): TitleWithText[] {
  if (!isEnglish(request)) return [];
  const limits = limitsIn(request.voice ?? OPEN_VOICE, request.limits);
  const context = titleContext(transcript, request, tagger);
  const topics = topicsOf(context.passage, context.statistics, groundOf(transcript, request, context.statistics, tagger));
  const titles = proposeTitles({ ...context, topics }, Math.min(LONGEST_TITLE, limits.title), most);
  const tell = textsBeside(context, limits.description, true);
  return titles.map((title) => ({
    ...title,
    firstWord: title.firstWord + request.firstWord,
    endWord: title.endWord + request.firstWord,
    description: tell(title.line),
  }));
}

/** What the titles of a passage are weighed against. */
export function titleContext(
  transcript: Transcript,
  request: WordRange & Pick<CopyRequest, 'voice' | 'language'>,
  tagger: PosTagger = winkTagger,
): TitleContext {
  const { words, speakers } = transcript;
  const passage = passageOf(transcript, request.firstWord, request.endWord, tagger);
  const texts = normaliseWords(words);
  const { voice, language = null } = request;
  const context = { passage, tells: findTells(passage.words, passage.texts, passage.tags), statistics: phraseStatistics(texts) };
  return voice === undefined ? context : { ...context, manner: mannerOf(voice, namesOf(words, speakers), language === null) };
}

/** The passage with its own sentences, cut to it; indices start at the passage. */
function passageOf(transcript: Transcript, firstWord: number, endWord: number, tagger: PosTagger): Passage {
  const words = transcript.words.slice(firstWord, endWord);
  const texts = normaliseWords(words);
  const sentences = transcript.sentences
    .filter((sentence) => sentence.firstWord < endWord && firstWord < sentence.endWord)
    .map((sentence) => ({
      ...sentence,
      firstWord: Math.max(0, sentence.firstWord - firstWord),
      endWord: Math.min(words.length, sentence.endWord - firstWord),
    }));
  return { words, texts, tags: tagger(texts), sentences, firstWord: 0, endWord: words.length, first: 0, end: sentences.length };
}

/** Opening and closing sentence of the passage, as said, but for the one that is its title; the opening alone where both do not fit. */
function shortDescription(passage: Passage, title: string, limit: number): string {
  const lines = passage.sentences.map((sentence) => cleanLine(passage, sentence.firstWord, sentence.endWord)).filter((line) => line.split(' ').length >= 3);
  const own = readLine(title);
  const others = lines.filter((line) => !saysAgain(readLine(line), own));
  const first = others[0] ?? '';
  const last = others.at(-1) ?? '';
  const sentence = (line: string): string => (/[.!?…]$/.test(line) ? line : `${line}.`);
  const both = last === first || last === '' ? sentence(first) : `${sentence(first)} ${sentence(last)}`;
  if (first === '' || limit <= 0) return '';
  return both.length <= Math.min(limit, 300) ? both : shorten(sentence(first), limit);
}

/** A few strong words for the picture: the title where it is short enough, else the best short one or its start. */
function coverLine(context: TitleContext, title: string): string {
  if (title.length <= COVER_LINE_LIMIT) return title.replace(/[.…]$/, '');
  const short = titleOf(context, COVER_LINE_LIMIT).text;
  return short.endsWith('…') ? shorten(title, COVER_LINE_LIMIT) : short;
}

/** What of the copy breaks the limits, field by field; empty when nothing does. */
export function copyProblems(copy: Copy, limits: CopyLimits): CopyProblem[] {
  const problems: CopyProblem[] = [];
  const check = (field: CopyProblem['field'], found: number, limit: number, unit: string): void => {
    if (found > limit) problems.push({ field, found, limit, detail: `${found} ${unit}, ${limit} allowed` });
  };
  if (copy.title.trim() === '') problems.push({ field: 'title', found: 0, limit: limits.title, detail: 'a title is missing' });
  check('title', characters(copy.title), limits.title, 'characters');
  check('description', characters(copy.description), limits.description, 'characters');
  check('hashtags', copy.hashtags.length, limits.hashtags, 'hashtags');
  check('coverLine', characters(copy.coverLine), COVER_LINE_LIMIT, 'characters');
  return problems;
}
