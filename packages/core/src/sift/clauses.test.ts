import { describe, expect, it } from 'vitest';
import { toVtt, transcriptOf } from '../talk.fixture.js';
import { buildContext } from './context.js';
import { canClose, canOpen } from './edges.js';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 5, topics: [], kinds: [], avoid: [] };

/** The second of two sentences, as a candidate of its own would say it; its ends. */
function cut(text: string): { said: string; opens: boolean; closes: boolean } {
  const transcript = transcriptOf(toVtt(['We were talking about the pump.', text].map((line) => ({ speaker: 'Ann', text: line }))));
  const context = buildContext({ transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
  expect(context.sentences).toHaveLength(2);
  const said = context.words.slice(context.openings[1]!.word, context.closings[1]);
  return { said: said.map((word) => word.text).join(' '), opens: canOpen(context, 1), closes: canClose(context, 1) };
}

describe('a cut begins where a clause can stand', () => {
  it.each([
    ['It depends on that, and the farmers around here lose a third of it every year.', 'the farmers around here lose a third of it every year.'],
    ['They give ten years on that, and you should never believe the first two years.', 'you should never believe the first two years.'],
    ['It goes like that so if you ring me at eleven I have my trousers on already.', 'if you ring me at eleven I have my trousers on already.'],
    ['Then we sold the whole farm in a day.', 'we sold the whole farm in a day.'],
    ['Or you keep the old pump for ten more years.', 'you keep the old pump for ten more years.'],
    ['Because we kept the old pump for years, everybody got their water late.', 'Because we kept the old pump for years, everybody got their water late.'],
    ['Because I kept the old pump for years.', 'I kept the old pump for years.'],
  ])('%s', (text, said) => expect(cut(text)).toMatchObject({ said, opens: true }));

  it.each([
    ['of what is itself told with a word that stands for something', 'It depends on that, and it should never be the first of them.'],
    ['behind a condition', 'If it is cold in there, farmers around here wait a week.'],
    ['with an afterthought', 'They give ten years on that, and we paid.'],
    ['with a list', 'It was in pots, a pan, a sieve and boxes of old tiles.'],
    ['with what somebody said', 'He came in at ten and said, farmers here lose a third of it.'],
  ])('not %s', (_, text) => expect(cut(text).said).toBe(text));

  it.each([['which came to nothing in the end.'], ['than anybody had thought of it.'], ['Whose idea that was nobody knows.']])('not with “%s”', (text) => {
    expect(cut(text).opens).toBe(false);
  });
});

describe('a cut ends before what trails behind its point', () => {
  it.each([
    ['They are twenty cents, so.', 'They are twenty cents,'],
    ['They are twenty cents, so, yeah.', 'They are twenty cents,'],
    ['You hit modify and then type no nuts or whatever.', 'You hit modify and then type no nuts'],
    ['We lost the whole roof, you know what I mean.', 'We lost the whole roof,'],
    ['We lost the whole roof, I suppose, um.', 'We lost the whole roof,'],
  ])('%s', (text, said) => expect(cut(text)).toMatchObject({ said, closes: true }));

  it.each([
    ['I really do think so.'],
    ['The old pump was all right.'],
    ['We asked him and he said yes.'],
    ['That is how you know.'],
    ['Everybody here was like, yeah.'],
  ])('not in “%s”', (text) => expect(cut(text)).toMatchObject({ said: text, closes: true }));

  it('never with a sentence that is nothing else', () => {
    expect(cut('So, yeah.').closes).toBe(false);
    expect(cut('Yeah, okay.').closes).toBe(false);
  });
});
