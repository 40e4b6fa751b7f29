import { describe, expect, it } from 'vitest';
import { normaliseWords } from '../text/tells/find-tells.js';
import { DEMO_TALKS, demoTranscript, transcriptOf } from '../talk.fixture.js';
import { winkTagger } from '../text/tagger.js';
import { otherNames, saidTags } from './field-tags.js';
import { base, fieldsOf } from './fields.js';
import { toHashtag } from './hashtags.js';
import { pairsIn } from './recording-tags.js';
import { keyPhrases, phraseStatistics } from './phrases.js';
import { namesOf } from './check/check-copy.js';
import { saidPassage } from './check/said-passage.js';
import { checkTruth } from './check/truth.js';
import { characters, placeOfCharacter } from './characters.js';
import { copyProblems, proposeCopy } from './propose.js';
import { shorten } from './said-line.js';
import { titleCompounds } from './title-tags.js';
import { COVER_LINE_LIMIT } from './types.js';
import { normalise } from '../text/normalise.js';
import { stem } from '../text/stem.js';

/** What a title may put around what was said. */
const FRAME = ['why', 'what', 'happens', "don't"];
const LIMITS = { title: 60, description: 300, hashtags: 4 };

describe('keywords', () => {
  const transcript = demoTranscript('up-the-flue-12');
  const said = new Set(transcript.words.map((word) => normalise(word.text)));
  const keywordsAt = (first: number): readonly string[] =>
    proposeCopy(transcript, {
      firstWord: transcript.sentences[first]!.firstWord,
      endWord: transcript.sentences[first + 8]!.endWord,
      clientTags: [],
      limits: LIMITS,
    }).keywords;
  it('are words of the recording, put together as one looks for them, each once', () => {
    for (const first of [80, 160, 240, 320]) {
      const keywords = keywordsAt(first);
      expect(new Set(keywords).size).toBe(keywords.length);
      expect(keywords.length).toBeLessThanOrEqual(8);
      for (const keyword of keywords) {
        expect(keyword.length).toBeLessThanOrEqual(40);
        const words = keyword.split(/[\s,]+/).filter((word) => !FRAME.includes(word));
        expect(
          words.filter((word) => !said.has(word) && !said.has(word.replace(/ing$/, '')) && !/^\d/.test(word)),
          keyword,
        ).toEqual([]);
      }
    }
  });
});

describe('compounds that a passage says once', () => {
  const pairsOf = (text: string): string[] => {
    const { words } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${text}\n`);
    const texts = normaliseWords(words);
    return pairsIn({ texts, words, tags: winkTagger(texts), firstWord: 0, endWord: words.length }).map((one) => one.text);
  };
  it.each([
    ['You keep the bank details, and the leaver form goes to the ward.', ['leaver form', 'bank details']],
    ['It sits there until the nest dries out and the boiler breaks in January.', []],
    ['He had the bank, details came later.', []],
  ])('“%s”', (said, wanted) => expect(pairsOf(said).sort()).toEqual([...wanted].sort()));
});

describe('compounds of a recording’s title', () => {
  const counts = new Map(
    ['flood', 'claim', 'allergen', 'train', 'till', 'cold', 'air', 'chimney', 'smoke', 'guide', 'dog', 'accountant', 'phone'].map((one) => [stem(one), 4]),
  );
  const of = (title: string): string[] => titleCompounds(title, counts, winkTagger);
  it.each([
    ['Flood claims: a webinar', ['flood claims']],
    ['21_flood-claims_final-mix', ['flood claims']],
    ['Till allergen training', ['allergen training']],
    ['Guide dogs — cold air', ['guide dogs', 'cold air']],
    ['Flood insurance claims', []], // insurance is not said
    ['accountant-phone-in', []],
    ['Episode 12 with Ann', []],
    ['Webinar', []],
    ['', []],
  ])('%s', (title, wanted) => expect(of(title)).toEqual(wanted));
  it('stand among the tags of each of its passages', () => {
    const transcript = demoTranscript(DEMO_TALKS[0]!);
    const request = { firstWord: transcript.sentences[80]!.firstWord, endWord: transcript.sentences[88]!.endWord, clientTags: [], limits: LIMITS };
    expect(proposeCopy(transcript, request).hashtags).not.toContain('wetwood');
    expect(proposeCopy(transcript, { ...request, title: 'Wet wood, no. 12' }).hashtags).toContain('wetwood');
  });
});

describe.each(DEMO_TALKS)('proposeCopy on %s', (name) => {
  const transcript = demoTranscript(name);
  // Tags may be of the whole recording: one to four words that follow one another; or a field that the recording's words tell of,
  // which need not be said itself, its other names, tips of what is done there, and its tags for words that are said.
  const all = transcript.words.map((word) => normalise(word.text));
  const texts = normaliseWords(transcript.words);
  const fields = fieldsOf(texts, 6).map(({ tag }) => tag);
  const bases = new Map(texts.map((text) => [base(text), 1]));
  const runs = new Set([
    'wetwood',
    'client',
    ...fields.flatMap((tag) => [tag, `${tag}tips`, ...otherNames(tag), ...saidTags(tag, bases, () => 1)]),
    ...all.flatMap((_, i) => [1, 2, 3, 4].map((n) => toHashtag(all.slice(i, i + n).join(' ')))),
  ]);
  const stems = new Set(['', ...transcript.words.map((word) => stem(normalise(word.text)))]);
  const passages = Array.from({ length: 12 }, (_, i) => {
    const first = Math.floor((transcript.sentences.length * (i + 1)) / 15);
    return { firstWord: transcript.sentences[first]!.firstWord, endWord: transcript.sentences[Math.min(first + 7, transcript.sentences.length - 1)]!.endWord };
  });
  it('is inside the limits, and made only of what is said', () => {
    for (const { firstWord, endWord } of passages) {
      const copy = proposeCopy(transcript, { firstWord, endWord, clientTags: ['Client', 'neverSaidAnywhere', 'wet wood'], limits: LIMITS });
      expect(copyProblems(copy, LIMITS)).toEqual([]);
      const said = transcript.words.slice(firstWord, endWord).map((word) => normalise(word.text));
      // Words whole, and hashtags of words that follow one another: a part of a word is not a word.
      const lines = [copy.title, copy.coverLine].map((line) => line.split(': ').at(-1)!);
      const words = [...lines, copy.description]
        .join(' ')
        .split(/[\s…]+/)
        .map(normalise);
      expect(words.length).toBeGreaterThan(8);
      for (const word of words) if (word !== '' && !/\d/.test(word)) expect([...said, ...FRAME]).toContain(word); // figures: see written.test
      // A topic is said somewhere in the recording, be it of more or of fewer.
      for (const line of [copy.title, copy.coverLine])
        for (const word of line.split(': ').slice(0, -1).join(' ').split(' ')) expect(stems, line).toContain(stem(word.toLowerCase()));
      for (const tag of copy.hashtags) expect(runs, tag).toContain(toHashtag(tag));
      expect(copy.hashtags.map(toHashtag)).not.toContain('neversaidanywhere');
      expect(characters(copy.coverLine)).toBeLessThanOrEqual(COVER_LINE_LIMIT);
    }
  });
});

describe.each(DEMO_TALKS)('what is proposed on %s', (name) => {
  it('passes the check of what was said, passage by passage', () => {
    const transcript = demoTranscript(name);
    const { words, sentences, speakers } = transcript;
    const names = namesOf(words, speakers);
    const subject = { compounds: [], singles: [], fields: [] };
    for (let s = 0; s + 6 < sentences.length; s += 5) {
      const [firstWord, endWord] = [sentences[s]!.firstWord, sentences[s + 6]!.endWord];
      const said = saidPassage(
        words.slice(firstWord, endWord).flatMap(({ kind, text }) => (kind === 'mark' ? [] : [text])),
        [...names],
      );
      const copy = proposeCopy(transcript, { firstWord, endWord, clientTags: [], limits: LIMITS, subject });
      for (const text of [copy.title, copy.description, copy.coverLine]) expect(checkTruth(text, said), text).toEqual([]);
    }
  });
});

describe('a platform that takes no description', () => {
  it('is offered none', () => {
    const transcript = demoTranscript('up-the-flue-12');
    const copy = proposeCopy(transcript, { firstWord: 200, endWord: 320, clientTags: [], limits: { ...LIMITS, description: 0 } });
    expect(copy.description).toBe('');
    expect(copy.title).not.toBe('');
    expect(copyProblems(copy, { ...LIMITS, description: 0 })).toEqual([]);
  });
});

describe('keyPhrases', () => {
  const phrases = (text: string, most = 5): string[] => {
    const words = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${text}\n`).words;
    const texts = normaliseWords(words);
    const tags = winkTagger(texts);
    return keyPhrases({ words, texts, tags, firstWord: 0, endWord: words.length }, phraseStatistics(texts, tags), most).map((phrase) => phrase.text);
  };
  it('are adjectives and nouns as they were said, never across a comma', () =>
    expect(phrases('We burned the wet oak, and the wet oak blocked the chimney, brother.')).toEqual(expect.arrayContaining(['wet oak'])));
  it('of the abstract that Rose et al. (2010) work through: its two strongest are theirs, and most of what people chose is there', () => {
    // The abstract, the values (8.7 and 8.5 for the first two) and the keywords that people assigned to it, from memory.
    const abstract =
      'Compatibility of systems of linear constraints over the set of natural numbers. Criteria of compatibility of a system of linear Diophantine equations, strict inequations, and nonstrict inequations are considered. Upper bounds for components of a minimal set of solutions and algorithms of construction of minimal generating sets of solutions for all types of systems are given. These criteria and the corresponding algorithms for constructing a minimal supporting set of solutions can be used in solving all the considered types of systems and systems of mixed types.';
    const found = phrases(abstract, 12);
    expect(found.slice(0, 2)).toEqual(['minimal generating sets', 'linear diophantine equations']);
    const assigned = [
      'linear constraints',
      'natural numbers',
      'linear diophantine equations',
      'strict inequations',
      'nonstrict inequations',
      'upper bounds',
      'minimal generating sets',
    ];
    expect(assigned.filter((phrase) => found.includes(phrase)).length).toBeGreaterThanOrEqual(5);
  });
  it('are no measures, weekdays or nouns that name nothing', () => {
    for (const phrase of phrases('It was forty per cent water on Tuesday, a good thing, and a number of people came in the morning with a jackdaw.'))
      expect(phrase).not.toMatch(/cent|tuesday|^number$|^people$|^morning$/);
  });
  it('share no word with one another', () => {
    const stems = phrases('The stove pipe, the stove door, the old stove and the clay pipe.').flatMap((phrase) => phrase.split(' '));
    expect(new Set(stems).size).toBe(stems.length);
  });
});

describe('the title of a passage', () => {
  const titleOf = (text: string): string => {
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${text}\n`);
    return proposeCopy(transcript, { firstWord: 0, endWord: transcript.words.length, clientTags: [], limits: LIMITS }).title;
  };
  it.each([
    [
      'a whole clause before a piece of one',
      'A real firm that had been around for eleven years. My uncle bought that firm for thirty grand.',
      /^My uncle bought/,
    ],
    [
      'what was found before a question to somebody in the room',
      'Do you want to stop for a minute? I cut up a hundred books with a bread knife.',
      /^I cut up 100 books/,
    ],
    ['a question that holds something before an empty one', 'When did you know? Who robs a boat with no engine?', /^Who robs a boat/],
    ['a question that anybody may be asked', 'Do you know what a pipe costs? It was a cold day and she went home.', /^Do you know what/],
    [
      'a line with its subject before one without',
      'And the wait at the gate out there in the cold, like the one that we had had before, is two and a half hours. The driver sat in a yard.',
      /^The driver/,
    ],
    ['talk before housekeeping', 'Put your questions in the chat. The lamp had gone out twice.', /^The lamp/],
    ['a verb that happens to end in -ing is one', 'Burning the wet wood in the old stove. My uncles bring wet wood to the old stove.', /^My uncles bring/],
    ['a line that ends before one that breaks off', 'We had a very old stove and the. The stove ate nine bags a week.', /^The stove ate/],
  ])('%s', (_, text, title) => expect(titleOf(text)).toMatch(title));
  it('does not stop where a comma leaves the other half outside', () => {
    expect(titleOf('If everybody in this old grey city wiped every pan with one sheet of paper, half of the plumbers would be out of a job.')).toBe(
      'Half of the plumbers would be out of a job',
    );
    expect(titleOf('If you burn wet wood, the stove will smoke.')).toBe('If you burn wet wood, the stove will smoke');
  });
  it.each([
    ['Because a fire breathes more air than you do.', 'A fire breathes more air than you do'],
    ["That's the, that's why the stove smokes.", "That's why the stove smokes"],
    ["i didn't i never put that on the website", 'I never put that on the website'],
    ['I know I can light a wet log.', 'I know I can light a wet log'],
    ['I left because I was tired of the cold.', 'I left because I was tired of the cold'],
    ['We tried and we failed twice.', 'We tried and we failed twice'],
    ["It's like it's made of glass.", "It's like it's made of glass"],
  ])('of “%s” leaves out what only leads in', (text, title) => expect(titleOf(text)).toBe(title));
  it('writes I large where a transcript does not', () => expect(titleOf("i never once said what i'd lost")).toBe("I never once said what I'd lost"));
});

describe('parts of it', () => {
  it.each([
    ['Wet Wood!', 'wetwood'],
    ['o’clock', 'oclock'],
    ['Straße 7', 'straße7'],
  ])('toHashtag(%s)', (phrase, tag) => expect(toHashtag(phrase)).toBe(tag));
  it.each([
    ['short', 10, 'short'],
    ['a longer line of words', 12, 'a longer…'],
    ['unbreakablelongword', 8, 'unbreak…'],
  ])('shorten(%s, %d)', (line, limit, cut) => {
    expect(shorten(line, limit)).toBe(cut);
    expect(shorten(line, limit).length).toBeLessThanOrEqual(limit);
  });
  // Unicode UAX #29, extended grapheme clusters: a family and a letter with its accent are one each.
  it.each([
    ['👩‍👩‍👧', 1],
    ['e\u0301', 1],
    ['🇮🇪', 1],
    ['abc', 3],
  ])('characters(%s)', (text, n) => expect(characters(text)).toBe(n));
  it('says what breaks a limit', () => {
    const copy = { title: '', description: 'x'.repeat(301), hashtags: ['a', 'b', 'c', 'd', 'e'], keywords: [], coverLine: 'x'.repeat(40) };
    expect(copyProblems(copy, LIMITS).map((problem) => problem.field)).toEqual(['title', 'description', 'hashtags', 'coverLine']);
  });
});

describe('characters', () => {
  it('are found one by one where they begin (UAX 29)', () => {
    const text = 'é👩‍👩‍👧x';
    expect([0, 1, 2, 3, 9].map((n) => placeOfCharacter(text, n))).toEqual([0, 'é'.length, text.length - 1, text.length, text.length]);
    expect(placeOfCharacter('plain', 2)).toBe(2);
    expect([characters('a\r\nb'), characters('a\nb')]).toEqual([3, 3]);
  });
});
