import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { sentenceTexts } from './sentence-texts.js';

describe('sentenceTexts', () => {
  it('gives each sentence as it is written', () => {
    expect(sentenceTexts(transcriptOf(toVtt([{ text: 'The roof of the NATO hall.' }, { text: 'It went.' }])))).toEqual([
      'The roof of the NATO hall.',
      'It went.',
    ]);
  });
  it('puts text that is all in capitals in small letters', () => {
    expect(sentenceTexts(transcriptOf(toVtt([{ text: '“SO WHAT HAPPENED?”' }, { text: 'THE LADDER WENT.' }])))).toEqual([
      '“So what happened?”',
      'The ladder went.',
    ]);
  });
  it('gives nothing for nothing', () => {
    expect(sentenceTexts({ words: [], sentences: [], speakers: [], durationMs: 0, wordTimes: 'given', sentenceEnds: 'written' })).toEqual([]);
  });
});
