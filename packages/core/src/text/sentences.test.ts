import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoLines, toVtt, transcriptOf } from '../talk.fixture.js';
import type { Transcript, Word } from '../transcript/types.js';
import { doubtfulStarts } from './ends/doubts.js';
import { endsSentence, splitSentences } from './sentences.js';
import { winkTagger } from './tagger.js';
import { normalise } from './normalise.js';

const split = (text: string): string[] => {
  const t = transcriptOf(`WEBVTT\n\n00:00.000 --> 01:00.000\n${text}\n`);
  return t.sentences.map((s) =>
    t.words
      .slice(s.firstWord, s.endWord)
      .map((word) => word.text)
      .join(' '),
  );
};

describe('endsSentence', () => {
  // Unicode UAX #29, section 5.1: rules SB6 to SB8a and the examples given with them, version 15 (from memory), as far as they
  // concern words parted by spaces; abbreviations are left to implementations there.
  it.each([
    ['end.', 'The', true],
    ['3.4', 'degrees', false],
    ['etc.)’', 'The', true],
    ['etc.', 'and', false],
    ['Really?”', 'he', false],
    ['Really?', 'He', true],
    ['stop!', 'go', true],
    ['Dr.', 'Osei', false],
    ['e.g.', 'Bread', false],
    ['J.', 'Okoro', false],
    ['p.m.', 'The', true],
    ['p.m.', 'and', false],
    ['wait…', 'no', false],
    ['wait...', 'No', true],
    ['word', 'The', false],
    ['it.', '', true],
    ['U.S.', 'roads', false],
    ['جيدا؟', 'حسنا', true],
    ['جميعا،', 'هل', false],
    ['いいですか。', 'はい', true],
  ])('%s | %s', (text, next, ends) => expect(endsSentence(text, next)).toBe(ends));
});

describe('splitSentences on written ends', () => {
  it('splits punctuated talk', () =>
    expect(split('Mr. Vale paid 3.50 for it. “Did he?” she asked. He did! At 5 p.m. sharp. See www.nowhere.example now.')).toEqual([
      'Mr. Vale paid 3.50 for it.',
      '“Did he?” she asked.',
      'He did!',
      'At 5 p.m. sharp.',
      'See www.nowhere.example now.',
    ]));
  it('takes “no.” for an abbreviation only before a number', () => {
    expect(split('I said no. Then he left.')).toEqual(['I said no.', 'Then he left.']);
    expect(split('Ask for no. 14 at the desk. No. Not that one.')).toEqual(['Ask for no. 14 at the desk.', 'No.', 'Not that one.']);
  });
  it('keeps the laugh with what it follows', () =>
    expect(split('I put it in backwards. [laughter] Twice.')).toEqual(['I put it in backwards. [laughter]', 'Twice.']));
  it('never joins two speakers', () => {
    const t = transcriptOf('WEBVTT\n\n00:00.000 --> 00:02.000\n<v Ann>so I went\n\n00:02.000 --> 00:04.000\n<v Bo>and then what\n');
    expect(t.sentences.map((sentence) => sentence.speaker)).toEqual([0, 1]);
  });
});

/** The talk with every full stop and capital gone, in captions of seven words, as automatic captions come. */
function stripped(name: (typeof DEMO_TALKS)[number], voices: boolean): { bare: Transcript; ends: Set<number> } {
  const lines = demoLines(name)
    .map(({ speaker, text }) => ({ ...(voices ? { speaker } : {}), text: text.replace(/\[[^\]]*\]/g, '').trim() }))
    .filter((line) => line.text !== '');
  const full = transcriptOf(toVtt(lines));
  const ends = new Set(full.sentences.map((sentence) => sentence.endWord));
  const bare = { ...full, words: full.words.map((word) => ({ ...word, text: word.text.toLowerCase().replace(/[.,!?…]+$/, '') })) };
  const { sentences } = splitSentences(bare.words, winkTagger);
  return { bare: { ...bare, sentences }, ends };
}

function f1(found: ReadonlySet<number>, true_: ReadonlySet<number>): number {
  let hits = 0;
  for (const end of found) if (true_.has(end)) hits += 1;
  return (2 * hits) / (found.size + true_.size);
}

describe('splitSentences without any punctuation', () => {
  it.each(DEMO_TALKS)('%s: finds the ends again, with and without voices', (name) => {
    for (const voices of [true, false]) {
      const { bare, ends } = stripped(name, voices);
      const found = new Set(bare.sentences.map((sentence) => sentence.endWord));
      // The demo's lines give pauses only between turns, as captions do. Measured 0.70 to 0.72 with voices, 0.64 to 0.67
      // without; these floors may only be raised.
      expect(f1(found, ends)).toBeGreaterThan(voices ? 0.69 : 0.62);
      const longest = Math.max(...bare.sentences.map((sentence) => sentence.endWord - sentence.firstWord));
      expect(longest).toBeLessThanOrEqual(60);
    }
  });
  describe('where words have their own times', () => {
    const { bare, ends } = stripped('what-goes-down-31', false);
    /** Words one after the other, with a gap before those that begin a sentence, but for every fourth, and before every fifteenth word. */
    const spoken = (gapMs: number): Word[] => {
      let nowMs = 0;
      return bare.words.map((word, i) => {
        nowMs += (ends.has(i) && i % 4 !== 0) || i % 15 === 0 ? gapMs : 0;
        const startMs = nowMs;
        nowMs += 60 * word.text.length + 40;
        return { ...word, startMs, endMs: nowMs };
      });
    };
    const endsOf = (words: readonly Word[], wordTimes: 'given' | 'spread'): Set<number> =>
      new Set(splitSentences(words, winkTagger, { wordTimes }).sentences.map(({ endWord }) => endWord));
    it('pauses help, though some are missing and some mislead; an end without one is doubted', () => {
      const heard = endsOf(spoken(400), 'given');
      expect(f1(heard, ends)).toBeGreaterThan(f1(endsOf(spoken(0), 'given'), ends) + 0.1);
      const right = (found: ReadonlySet<number>): number => [...found].filter((end) => ends.has(end)).length / found.size;
      expect(right(heard)).toBeGreaterThan(right(endsOf(spoken(400), 'spread')) + 0.02);
    });
    it('a tool that lets each word last until the next shows no pauses, and next to nothing is concluded from that', () => {
      expect(f1(endsOf(spoken(0), 'given'), endsOf(spoken(0), 'spread'))).toBeGreaterThan(0.97);
    });
    it('short pauses tell nearly as much as long ones: what a pause is worth is learned from the recording', () => {
      expect(f1(endsOf(spoken(90), 'given'), ends)).toBeGreaterThan(f1(endsOf(spoken(400), 'given'), ends) - 0.05);
    });
  });
  it('takes a stretch by what it has', () => {
    const bare =
      'so the first thing we did was dig it up and we found a pipe in there and it was cracked right along the top then my brother came over with the big torch and he said that is not our pipe at all i said who does it belong to and nobody knew';
    const { sentenceEnds } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:05.000\n<v Ann>This is written. So is this.\n\n00:05.000 --> 00:30.000\n<v Bo>${bare}\n`);
    expect(sentenceEnds).toBe('mixed');
  });
});

describe('doubtfulStarts', () => {
  const doubtsOf = ({ words, sentences }: Pick<Transcript, 'words' | 'sentences'>): Float64Array => {
    const texts = words.map((word) => normalise(word.text));
    return doubtfulStarts(words, texts, winkTagger(texts), sentences, 'spread');
  };
  it('doubts nothing that was written, nor a change of voices, nor the ends of the text', () => {
    const written = transcriptOf(toVtt(demoLines('what-goes-down-31')));
    expect(doubtsOf(written).every((doubt) => doubt === 0)).toBe(true);
    const { bare } = stripped('what-goes-down-31', true);
    const doubts = doubtsOf(bare);
    expect(doubts).toHaveLength(bare.sentences.length + 1);
    expect([doubts[0], doubts.at(-1)]).toEqual([0, 0]);
    bare.sentences.forEach(({ speaker }, s) => {
      if (s > 0 && speaker !== bare.sentences[s - 1]!.speaker) expect(doubts[s]).toBe(0);
      else if (s > 0) expect(doubts[s]).toBeGreaterThan(0);
    });
  });
  it.each(DEMO_TALKS)('%s: starts that it doubts are wrong more often', (name) => {
    const { bare, ends } = stripped(name, false);
    const doubts = doubtsOf(bare);
    const right = (test: (doubt: number) => boolean): number => {
      const chosen = bare.sentences.filter((_, s) => s > 0 && test(doubts[s]!));
      return chosen.filter(({ firstWord }) => ends.has(firstWord)).length / chosen.length;
    };
    expect(right((doubt) => doubt < 0.4)).toBeGreaterThan(right((doubt) => doubt >= 0.6) + 0.15);
  });
  it('is surer where a pause is heard', () => {
    const { bare } = stripped('what-goes-down-31', false);
    const doubts = doubtsOf(bare);
    const later = bare.words.map((word) => ({ ...word, startMs: word.startMs + 700, endMs: word.endMs + 700 }));
    const s = doubts.findIndex((doubt) => doubt > 0.4);
    const { firstWord } = bare.sentences[s]!;
    const words = [...bare.words.slice(0, firstWord), ...later.slice(firstWord)];
    expect(doubtsOf({ words, sentences: bare.sentences })[s]).toBeLessThan(0.1);
  });
});
