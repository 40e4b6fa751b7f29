import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packTranscript, unpackTranscript } from './pack.js';
import { readTranscript } from './read-transcript.js';
import { renameSpeakers } from './speakers.js';

const TALK = '[00:00] Ada: It works.\n[00:03] Bo: Does it?\n[00:05] A. D.: It does. Look.\n[00:09] Bo: Oh.\n';
const packed = packTranscript(readTranscript(new TextEncoder().encode(TALK.replace('A. D.', 'Adah'))).transcript);
const said = (names: string[], unnamed: string | null = null): (string | undefined)[] => {
  const { words, speakers } = unpackTranscript(renameSpeakers(packed, { names, unnamed }));
  return words.map(({ speaker }) => speakers[speaker]);
};

describe('speakers', () => {
  it('are named anew', () => {
    expect(packed.speakers).toEqual(['Ada', 'Bo', 'Adah']);
    expect(said(['Ann', 'Bo', 'Cy'])).toEqual(['Ann', 'Ann', 'Bo', 'Bo', 'Cy', 'Cy', 'Cy', 'Bo']);
  });
  it('of one name become one', () => {
    expect(renameSpeakers(packed, { names: ['Ada', 'Bo', 'Ada'], unnamed: null }).speakers).toEqual(['Ada', 'Bo']);
    expect(said(['Ada', 'Ada', 'Ada'])).toEqual(Array(8).fill('Ada'));
    expect(renameSpeakers(packed, { names: ['Ada', 'Ada', 'Ada'], unnamed: null }).turns).toEqual([0, 0]);
  });
  it('are the same however their name is spaced', () => {
    expect(renameSpeakers(packed, { names: ['Ada Oke', 'Bo', ' Ada  Oke '], unnamed: null }).speakers).toEqual(['Ada Oke', 'Bo']);
  });
  it('are given where there were none', () => {
    const nobody = packTranscript(readTranscript(new TextEncoder().encode('[00:00] it works\n[00:03] it does\n')).transcript);
    expect([nobody.speakers, renameSpeakers(nobody, { names: [], unnamed: 'Ada' }).speakers]).toEqual([[], ['Ada']]);
    expect(renameSpeakers(nobody, { names: [], unnamed: null })).toEqual(nobody);
  });
  it('must each have a name', () => {
    expect(() => renameSpeakers(packed, { names: ['Ada'], unnamed: null })).toThrow('1 names for 3 speakers');
    for (const none of ['', ' \n']) expect(() => renameSpeakers(packed, { names: ['Ada', none, 'Bo'], unnamed: null })).toThrow('without a name');
  });
  it('change nothing but who speaks', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('Ann', 'Bo', 'Cy'), { minLength: 3, maxLength: 3 }), (names) => {
        const [before, after] = [unpackTranscript(packed), unpackTranscript(renameSpeakers(packed, { names, unnamed: 'Di' }))];
        const bare = ({ words, sentences }: typeof before): unknown => [
          words.map((word) => ({ ...word, speaker: 0 })),
          sentences.map((one) => ({ ...one, speaker: 0 })),
        ];
        expect(bare(after)).toEqual(bare(before));
        expect(after.words.map(({ speaker }) => after.speakers[speaker])).toEqual(before.words.map(({ speaker }) => names[speaker]));
      }),
    );
  });
});
