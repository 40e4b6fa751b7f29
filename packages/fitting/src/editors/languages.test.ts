import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Brief, readTranscript, sift, type SiftResult, type Transcript, type Vectors } from '@sift-reel/core';
import { findLanguage } from '@sift-reel/core/language';
import { describe, expect, it } from 'vitest';
import { readTalk, toCaptions } from './talk.js';

const EDITORS = join(import.meta.dirname, '..', '..', '..', '..', 'bench', 'editors');
const HERE = join(EDITORS, 'languages');
const NAMES: Readonly<Record<string, string>> = { de: 'German', es: 'Spanish', ar: 'Arabic' };
const BRIEF: Brief = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 40_000, roughCount: 6, topics: [], kinds: [], avoid: [] };

function read(path: string, punctuation: 'written' | 'none' = 'written'): Transcript {
  const captions = toCaptions(readTalk(readFileSync(path, 'utf8'), 3), { punctuation, cues: 'lines', speakers: 'named' });
  return readTranscript(new TextEncoder().encode(captions)).transcript;
}

function siftOf(transcript: Transcript, brief: Partial<Brief> = {}): SiftResult {
  const language = findLanguage(transcript.words);
  return sift({ transcript, language, brief: { ...BRIEF, ...brief }, clientTags: [], sentenceVectors: null, topicVectors: null });
}

describe.each(readdirSync(HERE).filter((file) => file.endsWith('.txt')))('talk in another language: %s', (file) => {
  const name = NAMES[file.slice(0, 2)]!;
  const transcript = read(join(HERE, file));
  const result = siftOf(transcript);

  it('is known for what it is, with its punctuation and without', () => {
    expect(findLanguage(transcript.words)?.name).toBe(name);
    expect(findLanguage(read(join(HERE, file), 'none').words)?.name).toBe(name);
    expect(result.limits).toContain('other-language');
  });
  it('has a ranking whose scores tell its passages apart', () => {
    expect(result.candidates.length).toBeGreaterThanOrEqual(2);
    const spans = result.candidates.flatMap((one) => [one, ...one.alternatives]);
    const held = transcript.sentences.filter(({ firstWord, endWord }) => spans.some((span) => span.firstWord <= firstWord && endWord <= span.endWord));
    expect(held.length / transcript.sentences.length).toBeGreaterThanOrEqual(0.9);
    expect(result.candidates[0]!.score - result.candidates.at(-1)!.score).toBeGreaterThan(10);
  });
  it('says what cannot be known, and claims nothing of it', () => {
    for (const { signals, kind, title, firstLine } of result.candidates) {
      expect(signals.opening).toMatchObject({ value: 50, sentence: `Cannot be known: the talk is in ${name}`, evidence: [] });
      expect(signals.charge).toMatchObject({ value: 50, sentence: `Cannot be known: the talk is in ${name}`, evidence: [] });
      expect(signals.standsAlone.sentence).toMatch(new RegExp(`what it leans on cannot be known in ${name}$`));
      expect(signals.delivery.sentence).not.toMatch(/filler/);
      expect(['answer', 'figures', 'passage']).toContain(kind);
      expect(firstLine.startsWith(title.replace(/…$/, ''))).toBe(true);
    }
    expect(result.makeUp).toBeNull();
  });
  it('is cut at its sentences', () => {
    const ends = new Set(transcript.sentences.map(({ endWord }) => endWord));
    const starts = new Set(transcript.sentences.map(({ firstWord }) => firstWord));
    for (const { firstWord, endWord } of result.candidates) expect([starts.has(firstWord), ends.has(endWord)]).toEqual([true, true]);
  });
  it('is judged by nothing that a model of English says of it', () => {
    const { length } = transcript.sentences;
    const vectors = (rows: number): Vectors => ({ dimensions: 512, data: Float32Array.from({ length: rows * 512 }, (_, i) => Math.sin(i * i) / 16) });
    const input = {
      transcript,
      language: findLanguage(transcript.words),
      brief: { ...BRIEF, topics: ['Garten'] },
      clientTags: ['water', 'oven'],
      interest: [{ term: 'pump', volume: 900, competition: 0.2, change: 0 }],
    };
    const withoutAny = sift({ ...input, sentenceVectors: null, topicVectors: null });
    const withAll = sift({ ...input, sentenceVectors: vectors(length), topicVectors: vectors(1), tagVectors: vectors(2), interestVectors: vectors(1) });
    expect(withAll).toEqual(withoutAny);
  });
  it('leaves out what the brief avoids, and finds what it asks for', () => {
    const word = { de: 'Pumpe', es: 'horno', ar: 'القش' }[file.slice(0, 2)]!;
    const holds = (from: number, to: number): boolean => transcript.words.slice(from, to).some(({ text }) => text.includes(word));
    expect(result.candidates.some(({ firstWord, endWord }) => holds(firstWord, endWord))).toBe(true);
    expect(siftOf(transcript, { avoid: [word] }).candidates.some(({ firstWord, endWord }) => holds(firstWord, endWord))).toBe(false);
    const asked = siftOf(transcript, { topics: [word] });
    const touching = asked.candidates.filter(({ signals }) => signals.currency.evidence.length > 0);
    expect(touching.length).toBeGreaterThan(0);
    for (const { firstWord, endWord } of touching) expect(holds(firstWord, endWord)).toBe(true);
  });
});

describe('English talk', () => {
  it.each(
    ['talks', 'flat/talks'].flatMap((folder) =>
      readdirSync(join(EDITORS, folder))
        .sort()
        .map((talk): [string, string] => [talk, join(EDITORS, folder, talk)]),
    ),
  )('is taken for English: %s', (_, path) => expect(findLanguage(read(path, 'none').words)).toBeNull());
});
