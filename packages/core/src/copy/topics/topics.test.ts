import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript, transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { normaliseWords } from '../../text/tells/find-tells.js';
import { stem } from '../../text/stem.js';
import { namesOf } from '../check/check-copy.js';
import { saidPassage } from '../check/said-passage.js';
import { checkTruth } from '../check/truth.js';
import { proposeCopy, proposeTitlesFor, titleContext } from '../propose.js';
import { recordingSubject } from '../recording-tags.js';
import type { SearchGround } from '../search/search-drafts.js';
import { OPEN_VOICE } from '../voice/types.js';
import type { Transcript, WordRange } from '../../transcript/types.js';
import { topicDrafts } from './topic-drafts.js';
import { TOPIC_FEATURES, topicFeatures } from './topic-features.js';
import { TOPIC_WEIGHTS } from './topic-weights.js';
import { type Topic, topicLacking, topicsOf } from './topics.js';

const talk = (text: string): Transcript => transcriptOf(`WEBVTT\n\n00:00.000 --> 01:00.000\n${text}\n`);
const all = ({ words }: Transcript): WordRange => ({ firstWord: 0, endWord: words.length });

function groundOf({ words }: Transcript, titled: readonly string[] = []): SearchGround {
  const texts = normaliseWords(words);
  return { subject: recordingSubject(texts, winkTagger(texts), words), titled, titleWords: titled.flatMap((one) => one.split(' ')) };
}
function topicsIn(transcript: Transcript, range: WordRange, titled: readonly string[] = []): Topic[] {
  const { passage, statistics } = titleContext(transcript, range);
  return topicsOf(passage, statistics, groundOf(transcript, titled));
}

const WREATHS = talk(
  'The wreath wants a proper frame. Ask Marlow for the wreath frame, the wreath frame is bent. Nobody can call it a wreath when it falls in the rain. You call, and I call, and Marlow takes nine of them home.',
);

describe('what a passage is about', () => {
  const texts = topicsIn(WREATHS, all(WREATHS)).map(({ text }) => text);
  it('is what it says again and again, before what it says once', () => {
    expect(texts[0]).toMatch(/^wreath/);
    expect(texts.indexOf('wreath')).toBeLessThan(texts.indexOf('rain'));
  });
  it('is no name, no number, and nothing that is done there', () => {
    for (const word of ['marlow', 'nine', 'call', 'falls']) expect(texts).not.toContain(word);
  });
  it('is said of more than one where that is said', () =>
    expect(topicsIn(talk('A hurdle leans on the hurdles.'), { firstWord: 0, endWord: 6 }).map(({ text }) => text)).toContain('hurdles'));
  it("is no deed that the tagger takes for a thing, and nobody's", () => {
    const phrase = talk('She says, bear with me. I bear it. Bear with me, she says, and looks.');
    expect(topicsIn(phrase, all(phrase)).map(({ text }) => text)).not.toContain('bear');
    const said = topicsIn(talk("It stops when the wall's wet. When it stops, they stop, and the wall's cold."), { firstWord: 0, endWord: 15 }).map(
      ({ text }) => text,
    );
    for (const word of ['stops', 'stop', "wall's"]) expect(said).not.toContain(word);
  });
  it('may be what the recording is called', () => expect(topicsIn(WREATHS, all(WREATHS), ['door wreath']).map(({ text }) => text)).toContain('door wreath'));
  it('is one of forty at most, however long the passage is', () => {
    const parts = ['valve', 'pump', 'boiler', 'radiator', 'cistern', 'thermostat', 'gasket', 'stopcock', 'flange', 'nozzle'];
    const long = talk(parts.flatMap((a) => parts.map((b) => `The ${a} broke the ${b} ${a} key.`)).join(' '));
    expect(topicsIn(long, all(long))).toHaveLength(40);
  });
  it('is nothing where nothing is named', () => expect(topicsIn(talk('So that is how it was, you know.'), { firstWord: 0, endWord: 8 })).toEqual([]));
  it('leads where it is said over and over, there or in the recording, or in two words', () => {
    const found = new Map(topicsIn(WREATHS, all(WREATHS)).map((topic) => [topic.text, topic]));
    expect([found.get('wreath')!.leads, found.get('rain')!.leads, found.get('wreath frame')!.leads]).toEqual([true, false, true]);
    expect([found.get('wreath')!.ofRecording, found.get('rain')!.ofRecording]).toEqual([true, false]);
  });
  it('has a weight for each feature, and each feature a number', () => {
    expect(TOPIC_WEIGHTS).toHaveLength(TOPIC_FEATURES.length);
    const { passage, statistics } = titleContext(WREATHS, all(WREATHS));
    const drafts = topicDrafts(passage, statistics, groundOf(WREATHS));
    const rows = topicFeatures(drafts, passage, statistics, groundOf(WREATHS));
    const [wreath, rain] = ['wreath', 'rain'].map((text) => rows[drafts.findIndex((draft) => draft.text === text)]!);
    const feature = (row: Float64Array, name: (typeof TOPIC_FEATURES)[number]): number => row[TOPIC_FEATURES.indexOf(name)]!;
    expect(feature(wreath!, 'sentences')).toBe(3 / 4);
    expect(feature(rain!, 'sentences')).toBe(1 / 4);
    expect([feature(wreath!, 'in the first sentence'), feature(rain!, 'in the first sentence')]).toEqual([1, 0]);
    expect([feature(wreath!, 'more than once'), feature(rain!, 'more than once')]).toEqual([1, 0]);
    for (const row of rows) for (const value of row) expect(Number.isFinite(value)).toBe(true);
  });
});

describe('the topic that a line lacks', () => {
  const topic = (text: string, worth: number, more: Partial<Topic> = {}): Topic => ({
    text,
    worth,
    stems: text.split(' ').map(stem),
    ofRecording: false,
    leads: true,
    ...more,
  });
  const lacking = (line: string, ...topics: Topic[]): string | null => topicLacking(line.split(' '), topics)?.text ?? null;
  it.each([
    ['is the first, where it names none', 'too big is no good', [topic('quotes', 3)], 'quotes'],
    ['is none, where it names what tells most', 'three quotes for one house', [topic('quotes', 3), topic('heating', 2.9)], null],
    ['is what tells more than what it names', 'the letter came late', [topic('tax', 4), topic('letters', 2)], 'tax'],
    ['is none, where it names something and nothing tells more', 'the letter came late', [topic('letters', 2), topic('tax', 1.9)], null],
    ['is none, where it names something of two words', 'the tide tables are wrong', [topic('boats', 6), topic('tide tables', 1)], null],
    ['is two words rather than one of them', 'nobody stops at one year', [topic('seed', 4), topic('seed potatoes', 2)], 'seed potatoes'],
    ['is one word, where the two are worth much less', 'nobody stops at one year', [topic('seed', 6), topic('seed potatoes', 2)], 'seed'],
    ['is none, where what there is tells little', 'nobody stops at one year', [topic('box', 1)], null],
    ['is none that does not lead', 'nobody stops at one year', [topic('socks', 4, { leads: false }), topic('seed', 3)], 'seed'],
    ['is none, where it names what the recording goes on about', 'a stove is no fire', [topic('chimney', 4), topic('stove', 3.5, { ofRecording: true })], null],
    ['is what clearly tells more than that', 'a stove is no fire', [topic('chimney', 4), topic('stove', 2, { ofRecording: true })], 'chimney'],
    ['is none, where there is none', 'nobody stops at one year', [], null],
  ])('%s', (_, line, topics, wanted) => expect(lacking(line, ...topics)).toBe(wanted));
  it('is never named in the line', () => {
    const word = fc.constantFrom('seed', 'potato', 'frame', 'wreath', 'tide', 'tables', 'boat');
    const topics = fc.array(fc.tuple(fc.array(word, { minLength: 1, maxLength: 2 }), fc.double({ min: -2, max: 8, noNaN: true })), { maxLength: 6 });
    fc.assert(
      fc.property(fc.array(word, { maxLength: 5 }), topics, (line, list) => {
        const sorted = list.map(([words, worth]) => topic(words.join(' '), worth)).sort((a, b) => b.worth - a.worth);
        const found = topicLacking(line, sorted);
        expect(found === null || found.stems.every((one) => !line.map(stem).includes(one))).toBe(true);
      }),
    );
  });
});

describe.each(DEMO_TALKS)('titles with their topic, of %s', (name) => {
  const transcript = demoTranscript(name);
  const limits = { title: 60, description: 200, hashtags: 5 };
  const requests = Array.from({ length: 12 }, (_, i) => {
    const first = Math.floor((transcript.sentences.length * (i + 1)) / 15);
    const last = Math.min(first + 7, transcript.sentences.length - 1);
    return { firstWord: transcript.sentences[first]!.firstWord, endWord: transcript.sentences[last]!.endWord, clientTags: [], limits };
  });
  const texts = normaliseWords(transcript.words);
  it('say the topic once in five, and nothing that was not said', () => {
    let seen = 0;
    for (const request of requests) {
      const titles = proposeTitlesFor(transcript, { ...request, title: name }, 5).filter(({ sort }) => sort === 'topic');
      const topics = titles.map(({ text }) => text.split(': ')[0]);
      expect(new Set(topics).size).toBe(topics.length);
      const said = saidPassage(texts.slice(request.firstWord, request.endWord), [...namesOf(transcript.words, transcript.speakers), name]);
      for (const { text } of titles) {
        expect(text.length).toBeLessThanOrEqual(limits.title);
        expect(text).toMatch(/^\p{Lu}[\p{L} ]+: [\p{Lu}\p{N}]/u);
        expect(checkTruth(text, said), text).toEqual([]);
      }
      seen += titles.length;
    }
    expect(seen).toBeGreaterThan(3);
  });
  it('stand in no search phrase', () => {
    for (const request of requests) for (const phrase of proposeCopy(transcript, request).keywords) expect(phrase).not.toContain(':');
  });
  it('are written as the client writes titles', () => {
    const voice = { ...OPEN_VOICE, capitals: 'title' as const };
    const found = requests.flatMap((request) => proposeTitlesFor(transcript, { ...request, voice }, 5)).filter(({ sort }) => sort === 'topic');
    for (const { text } of found) expect(text.split(': ')[1]).toMatch(/^[\p{Lu}\p{N}]/u);
    expect(found.some(({ text }) => / \p{Lu}\p{Ll}+/u.test(text.split(': ')[1]!))).toBe(true);
  });
});
