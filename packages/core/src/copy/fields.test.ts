import { describe, expect, it } from 'vitest';
import { readWordNet } from '../text/wordnet.fixture.js';
import { FIELDS, MEANS } from '../text/lists/fields.js';
import { depthOf, fieldsOf } from './fields.js';
import { toHashtag } from './hashtags.js';

const words = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}'-]+/gu) ?? [];
const tagsOf = (text: string, most = 4): string[] => fieldsOf(words(text), most).map(({ tag }) => tag);

const BEES =
  'so you lift the frame out of the hive and you look at the brood, and if there is honey in the top of the comb then the queen has been laying and the colony has stores. we count the mites every week. bees do not like rain. the swarm left in may and we got it into an empty hive by the evening';

describe('fields of what is said', () => {
  it('names the field by its words, the strongest first, and what it belongs to', () => {
    const [first, second] = fieldsOf(words(BEES), 4);
    expect(first).toMatchObject({ tag: 'beekeeping', wider: 'smallholding' });
    expect(first!.said).toEqual(expect.arrayContaining(['hive', 'brood']));
    expect(second?.tag).toBe('smallholding');
    expect(first!.weight).toBeGreaterThan(second!.weight);
  });

  it('finds whatever form a word has, and two words as one', () => {
    expect(tagsOf('we tiled the wall and the tiles need grouting, the tiler mixed adhesive with a trowel and the spacers went in between the tiles')[0]).toBe(
      'tiling',
    );
    expect(tagsOf('the heat pump runs at a low flow temperature with large radiators, and the installer sized it from the heat loss')).toContain('heatpumps');
  });

  it('keeps a bowler apart from a bowl', () => {
    expect(tagsOf('put the dough into the bowl, then another bowl over it, knead the dough and bake the loaf on a tray with flour')).not.toContain('cricket');
  });

  it('says nothing of talk that is of nothing, and of one word alone', () => {
    expect(tagsOf('')).toEqual([]);
    expect(tagsOf('yes well I mean it was fine and then we went there and it was all right in the end I think')).toEqual([]);
    expect(tagsOf('hive hive hive hive hive hive')).toEqual([]);
    expect(tagsOf('the flue and the chimney')).toEqual([]);
  });

  it('takes two words for enough where they are said over and over', () => {
    const said = 'the chimney is cold and then the flue will not draw. ';
    expect(tagsOf(said.repeat(12), 1)).toEqual(['chimneys']);
  });

  it('needs so much more of what all talk touches in passing', () => {
    expect(tagsOf(`${BEES} and the app on the phone has a button on the screen, I pay two pounds for the app`, 1)).toEqual(['beekeeping']);
  });
});

describe('the list of fields', () => {
  const lines = FIELDS.split('\n').filter((line) => line !== '' && !line.startsWith('#'));
  const tags = lines.map((line) => line.split(/ > |: /)[0]!);

  it('has each tag once, written as a hashtag is, with words enough to be found by', () => {
    expect(new Set(tags).size).toBe(tags.length);
    for (const line of lines) {
      expect(line).toMatch(/^[a-z0-9]+(?: > [a-z0-9]+)?: [a-z0-9+ -]+$/);
      const terms = line.split(': ')[1]!.split(' ');
      expect(new Set(terms).size, line).toBe(terms.length);
      expect(terms.length, line).toBeGreaterThanOrEqual(3);
    }
    for (const tag of [...tags, ...MEANS]) expect(toHashtag(tag)).toBe(tag);
    for (const tag of MEANS) expect(tags).toContain(tag);
  });

  it('leads from each field to a widest one', () => {
    const wider = new Map(lines.map((line) => [line.split(/ > |: /)[0]!, / > ([a-z0-9]+):/.exec(line)?.[1] ?? null] as const));
    for (const tag of tags) {
      const seen = new Set<string>();
      for (let at: string | null = tag; at !== null; at = wider.get(at)!) {
        expect(tags).toContain(at);
        expect(seen.has(at), tag).toBe(false);
        expect(depthOf(at)).toBe(depthOf(tag) - seen.size);
        seen.add(at);
      }
    }
  });

  // Princeton's WordNet 3.1 as an outside witness. Most of what people follow is no taxonomy (sailing, there, is no kind of boating), so
  // it confirms three in ten; it must contradict none.
  it('stands the right way up where WordNet knows both', () => {
    const wordNet = readWordNet();
    expect(wordNet.above(wordNet.senses('dog'))).toContain(wordNet.senses('animal')[0]);
    const stands = (tag: string, wider: string): boolean => {
      const above = wordNet.above(wordNet.senses(tag));
      return wordNet.senses(wider).some((synset) => above.has(synset));
    };
    const pairs = lines
      .flatMap((line) => [/^(\S+) > (\S+):/.exec(line)?.slice(1) ?? []])
      .filter((pair): pair is [string, string] => pair.length === 2 && pair.every((tag) => wordNet.senses(tag).length > 0));
    const upright = pairs.filter(([tag, wider]) => stands(tag, wider));
    expect(pairs.filter(([tag, wider]) => !stands(tag, wider) && stands(wider, tag))).toEqual([]);
    expect(pairs.length).toBeGreaterThan(150);
    expect(upright.length / pairs.length).toBeGreaterThan(0.25);
  });
});
