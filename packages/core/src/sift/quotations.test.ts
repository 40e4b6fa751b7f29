import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../talk.fixture.js';
import { quotationsOver } from './quotations.js';

const overOf = (text: string): number[] => {
  const { words, sentences } = transcriptOf(`WEBVTT\n\n00:00.000 --> 01:00.000\n${text}\n`);
  return [...quotationsOver(words, sentences)];
};

describe('quotationsOver', () => {
  it.each([
    ['She wrote to us. “We are not quitters.” That was all.', [0, 0, 0, 0]],
    ['She wrote, “We are poor. We are not quitters. Send the money.” That was all.', [0, 1, 1, 0, 0]],
    ['He said, "Come in. Shut the door." And he said, "Sit." So I sat.', [0, 1, 0, 0, 0]],
    ['It was “fine,” he said. “But the door was open. It was cold.” I left.', [0, 0, 1, 0, 0]],
    // The same, told over two paragraphs that each open again.
    ['"I came on Friday. I was late. "I was late on Saturday." He laughed.', [0, 1, 1, 0, 0]],
  ])('%s', (text, over) => expect(overOf(text)).toEqual(over));
  it('takes a mark that is never closed for something else', () => {
    expect(overOf('It was 5" wide. It was “new. It was red. He went home.')).toEqual([0, 0, 0, 0, 0]);
    expect(overOf(`He said, “yes. ${'It was cold. '.repeat(14)}And then he said it.”`).every((one) => one === 0)).toBe(true);
  });
  it('ends with the turn of a speaker', () => {
    const { words, sentences } = transcriptOf(
      'WEBVTT\n\n00:00.000 --> 00:04.000\n<v Ann>He said, “come in. It is cold.\n\n00:04.000 --> 00:08.000\n<v Bo>It was.” I know.\n',
    );
    expect([...quotationsOver(words, sentences)].every((one) => one === 0)).toBe(true);
  });
});
