import { diffArrays } from 'diff';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packTranscript, unpackTranscript } from '../transcript/pack.js';
import { readPlainText } from '../transcript/read/plain-text.js';
import { readTalk, readTranscript } from '../transcript/read-transcript.js';
import { TranscriptRefusedError } from '../transcript/types.js';
import { alignWords, heardForm } from './align-words.js';
import { biasedModel } from './language-model.js';
import { matchWords } from './match-words.js';
import { draftTranscript, retime, timeText } from './timed-transcript.js';
import { belongs, type HeardWord } from './types.js';

/** Words said one after another, each as long as 60 ms a letter, a pause after each full stop. */
function spoken(text: string, fromMs = 0): HeardWord[] {
  let atMs = fromMs;
  return text.split(' ').map((word) => {
    const startMs = atMs;
    atMs += word.length * 60;
    const endMs = atMs;
    if (/[.?!]$/.test(word)) atMs += 500;
    return { text: heardForm(word), startMs, endMs };
  });
}
const TALK = 'So the kettle was cold. We put it on the fire, and nobody saw that the kettle had no water. It cracked!';
const words = TALK.split(' ');
const SAID = spoken(TALK, 2_000);
const bare = (spans: readonly HeardWord[]) => spans.map(({ startMs, endMs }) => ({ startMs, endMs }));

describe('matching', () => {
  const few = fc.array(fc.constantFrom('aa', 'bb', 'cc', 'dd', 'ee'), { maxLength: 40 });
  it('is as long as the longest common subsequence that the registry’s diff finds (Myers 1986)', () => {
    fc.assert(
      fc.property(few, few, (said, heard) => {
        const common = diffArrays(said, heard)
          .filter(({ added, removed }) => !added && !removed)
          .reduce((sum, { value }) => sum + value.length, 0);
        expect([...matchWords(said, heard)].filter((at) => at >= 0)).toHaveLength(common);
      }),
    );
  });
  it('keeps order and matches equal words alone, also where the texts are long', () => {
    const long = fc.array(fc.integer({ min: 0, max: 300 }).map(String), { minLength: 200, maxLength: 600 });
    fc.assert(
      fc.property(long, fc.infiniteStream(fc.integer({ min: 0, max: 9 })), (said, odds) => {
        const heard = said.flatMap((word) => [[word], [word], [word], [word], [word], [word], [], ['x'], ['x', word], [word]][odds.next().value as number]!);
        const matches = matchWords(said, heard);
        let last = -1;
        matches.forEach((at, i) => {
          if (at < 0) return;
          expect([heard[at], at > last]).toEqual([said[i], true]);
          last = at;
        });
        // Nine words of ten were heard; sure places may cost some of them.
        expect([...matches].filter((at) => at >= 0).length).toBeGreaterThan(0.7 * said.length);
      }),
      { numRuns: 30 },
    );
  });
  it('of nothing is nothing', () => {
    expect([...matchWords([], ['a']), ...matchWords(['a'], [])]).toEqual([-1]);
  });
});

describe('the model of what is expected', () => {
  /** What an ARPA model gives a word after others (Katz back-off, as the format defines it). */
  function read(arpa: string): (word: string, history: readonly string[]) => number {
    const table = new Map<string, readonly [number, number]>();
    let size = 0;
    for (const line of arpa.split('\n')) {
      size = Number(/^\\(\d)-grams:/.exec(line)?.[1] ?? size);
      const [probability = '', ...rest] = line.split(' ');
      if (size > 0 && rest.length >= size) table.set(rest.slice(0, size).join(' '), [Number(probability), Number(rest[size] ?? 0)]);
    }
    const log = (word: string, history: readonly string[]): number => {
      const found = table.get([...history, word].join(' '));
      if (found !== undefined) return found[0];
      if (history.length === 0) return -Infinity;
      return (table.get(history.join(' '))?.[1] ?? 0) + log(word, history.slice(1));
    };
    return (word, history) => 10 ** log(word, history);
  }
  it('gives each history probabilities that add up to one', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { minLength: 1, maxLength: 30 }), (said) => {
        const probability = read(biasedModel(said));
        const vocabulary: string[] = [...new Set(said), '</s>'];
        for (const history of [[], ['a'], ['a', 'b'], ['c', 'c'], ['<s>', said[0]!]] as string[][]) {
          if (!history.every((word) => word === '<s>' || vocabulary.includes(word))) continue;
          expect(vocabulary.reduce((sum, word) => sum + probability(word, history), 0)).toBeCloseTo(1, 2);
        }
      }),
    );
  });
  it('expects what follows in the text', () => {
    const probability = read(biasedModel('the fire was cold and the kettle was hot'.split(' ')));
    expect(probability('hot', ['kettle', 'was'])).toBeGreaterThan(0.6);
    expect(probability('cold', ['kettle', 'was'])).toBeLessThan(0.2);
  });
  it('of nothing is refused', () => expect(() => biasedModel([])).toThrow(RangeError));
});

describe('times of words', () => {
  it('are those at which they were heard', () => {
    expect(alignWords(words, SAID, 20_000)).toEqual({ spans: bare(SAID), share: 1, used: 1 });
  });
  it('of a misheard word lie where something was heard in its place, not in the pause', () => {
    const heard = SAID.map((word) => (word.text === 'cold' ? { ...word, text: 'coal' } : word));
    const { spans, share, used } = alignWords(words, heard, 20_000);
    expect([used, belongs({ share, used })]).toEqual([share, true]);
    expect(spans[4]).toEqual(bare(SAID)[4]);
    expect(share).toBeCloseTo((words.length - 1) / words.length);
  });
  it('of words that nobody heard lie between those beside them', () => {
    const heard = SAID.filter((_, i) => i < 6 || i > 8);
    const { spans } = alignWords(words, heard, 20_000);
    expect(spans.slice(5, 10).map(({ startMs }) => startMs)).toEqual([...spans.slice(5, 10).map(({ startMs }) => startMs)].sort((a, b) => a - b));
    expect(spans[6]!.startMs).toBeGreaterThanOrEqual(SAID[5]!.endMs);
    expect(spans[8]!.endMs).toBeLessThanOrEqual(SAID[9]!.startMs);
  });
  it('of a whole text that was not heard come in one walk, however long it is', () => {
    // Sixty thousand of each: all pairs would be billions, and no test would end.
    const heard = Array.from({ length: 60_000 }, (_, i) => ({ text: 'other', startMs: i * 300, endMs: i * 300 + 200 }));
    const { spans, share } = alignWords(Array<string>(60_000).fill('word'), heard, 18_000_000);
    expect(share).toBe(0);
    expect(spans).toEqual(bare(heard));
  });
  it('at both ends lie inside the recording', () => {
    const { spans } = alignWords(['well', 'well', ...words, 'good', 'night'], SAID, 14_000);
    expect([spans[0]!.startMs >= 0, spans[1]!.endMs <= 2_000, spans.at(-1)!.endMs <= 14_000]).toEqual([true, true, true]);
  });
  it('are not believed of a lone word for which there is no time', () => {
    // “kettle” is heard once, at the end; the twenty words after it cannot be said in what is left.
    const late = [{ text: 'kettle', startMs: 13_000, endMs: 13_300 }, ...spoken('cracked', 13_310)];
    expect(belongs(alignWords(words, late, 14_000))).toBe(false);
  });
  it('are in order, whole and not empty, whatever was heard', () => {
    const heardOf = fc.array(fc.record({ text: fc.constantFrom('a', 'b', 'c', 'kettle'), startMs: fc.nat(60_000), long: fc.integer({ min: 1, max: 900 }) }));
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'b', 'c', 'kettle', '[laughs]', '')), heardOf, (said, raw) => {
        const heard = raw.sort((a, b) => a.startMs - b.startMs).map(({ text, startMs, long }) => ({ text, startMs, endMs: startMs + long }));
        const { spans, share } = alignWords(said, heard, 61_000);
        expect(spans).toHaveLength(said.length);
        let last = 0;
        for (const { startMs, endMs } of spans) {
          expect([Number.isInteger(startMs), Number.isInteger(endMs), startMs >= last, endMs > startMs]).toEqual([true, true, true, true]);
          last = endMs;
        }
        expect(share >= 0 && share <= 1).toBe(true);
      }),
    );
  });
  it('are compared without marks and capitals', () => {
    expect(['“It’s', 'OK!”', '—', "'Tis", '£4.20', 'co-op'].map(heardForm)).toEqual(["it's", 'ok', '', 'tis', '420', 'coop']);
  });
});

describe('text without times', () => {
  it('is read by paragraph, with the names before a colon', () => {
    expect(readPlainText('Ada: It works.\n\nAnd it goes on.\nBo:\nDoes it? \n')).toEqual([
      { line: 1, speaker: 'Ada', text: 'It works.' },
      { line: 3, speaker: 'Ada', text: 'And it goes on.' },
      { line: 5, speaker: 'Bo', text: 'Does it?' },
    ]);
  });
  it.each([
    ['', 1, 'no-cues'],
    ['Hello\n\n-- \n<html>', 4, 'unknown-format'],
    ['00:01 --> 00:02\nx', 1, 'unknown-format'],
    ['* * *', 1, 'no-cues'],
  ])('%j is refused', (text, line, code) => {
    let refused: unknown;
    try {
      readPlainText(text);
    } catch (error) {
      refused = error;
    }
    expect(refused).toBeInstanceOf(TranscriptRefusedError);
    expect(refused).toMatchObject({ line, code });
  });
  it('is told from what has times, whichever comes', () => {
    const read = (text: string) => readTalk(new TextEncoder().encode(text));
    expect(read('[00:01] Hello there.')).toMatchObject({ kind: 'timed', format: 'stamped-text' });
    expect(read('Ada: Hello there.\r\n')).toMatchObject({ kind: 'untimed', encoding: 'utf-8', said: [{ line: 1, speaker: 'Ada', text: 'Hello there.' }] });
    expect(() => read('<html>Hello there.</html>')).toThrow(/no cue timing/);
    expect(() => read('\n\n')).toThrow(/the file is empty/);
  });
  it('is given the times it is said at, its speakers and its sentences', () => {
    const { transcript, share } = timeText(readPlainText(`Ada: ${TALK.replace(' We', '\nBo: We')}`), SAID, 20_000);
    expect([share, transcript.wordTimes, transcript.durationMs, transcript.speakers]).toEqual([1, 'heard', 20_000, ['Ada', 'Bo']]);
    expect(transcript.words.map(({ text, speaker, startMs }) => [text, speaker, startMs])).toEqual(
      words.map((text, i) => [text, i < 5 ? 0 : 1, SAID[i]!.startMs]),
    );
    expect(transcript.sentences.map(({ firstWord }) => firstWord)).toEqual([0, 5, 20]);
  });
});

describe('a transcript', () => {
  const cues = `WEBVTT\n\n00:00:01.000 --> 00:00:09.000\n${words.slice(0, 20).join(' ')} [laughter]\n\n00:00:09.000 --> 00:00:12.000\n${words.slice(20).join(' ')}\n`;
  const packed = packTranscript(readTranscript(new TextEncoder().encode(cues)).transcript);
  it('keeps its words and sentences when its times are heard', () => {
    const { packed: after, share } = retime(packed, SAID, 20_000);
    const [was, is] = [unpackTranscript(packed), unpackTranscript(after)];
    expect([share, is.wordTimes, is.durationMs]).toEqual([1, 'heard', 20_000]);
    expect(is.words.map(({ text, kind }) => [text, kind])).toEqual(was.words.map(({ text, kind }) => [text, kind]));
    expect(is.sentences.map(({ firstWord, endWord }) => [firstWord, endWord])).toEqual(was.sentences.map(({ firstWord, endWord }) => [firstWord, endWord]));
    expect(is.words.filter(({ kind }) => kind === 'word').map(({ startMs }) => startMs)).toEqual(SAID.map(({ startMs }) => startMs));
    expect(is.sentences.every(({ firstWord, startMs }) => startMs === is.words[firstWord]!.startMs)).toBe(true);
  });
  it('of which a stretch was not heard keeps its proportions there', () => {
    const { packed: after } = retime(packed, SAID.slice(0, 5), 20_000);
    const { words: timed } = unpackTranscript(after);
    const lengths = timed.slice(6, 12).map(({ startMs }, i) => timed[7 + i]!.startMs - startMs);
    expect(lengths.every((ms) => ms > 0)).toBe(true);
  });
  it('is drafted from what was heard alone', () => {
    const draft = draftTranscript(SAID, 20_000);
    expect(draft.words.map(({ text }) => text).join(' ')).toBe(words.map(heardForm).join(' '));
    expect([draft.sentenceEnds, draft.speakers]).toEqual(['restored', []]);
    expect(() => draftTranscript([], 1)).toThrow(RangeError);
  });
});
