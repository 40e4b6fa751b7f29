import { describe, expect, it } from 'vitest';
import { demoTranscript } from '../../talk.fixture.js';
import { proposeCopy, proposeTitlesFor } from '../propose.js';
import { likenessTo, mannerOf } from './manner.js';
import { OPEN_VOICE, type Voice } from './types.js';

const manner = (voice: Partial<Voice>) => mannerOf({ ...OPEN_VOICE, ...voice }, new Set(['marit']), true);

describe('the manner of a client', () => {
  it('writes what rules can mend, and leaves the rest', () => {
    const { write } = manner({ use: [{ say: 'guests', not: 'customers' }], capitals: 'title', person: 'we' });
    expect(write('title', 'why I count customers')).toBe('Why We Count Guests');
    expect(write('description', 'why I count customers')).toBe('why we count guests');
  });
  it('thinks little of what is never said', () => {
    const { worth } = manner({ avoid: ['cheap'] });
    expect(worth('A cheap hive')).toBeLessThan(worth('A good hive') - 0.3);
  });
  it('likes what is like the good ones, by their traits', () => {
    const like = likenessTo(['Why do bees stay home?', 'How do you count mites?', 'What do queens eat in winter?']);
    expect(like('Why do wasps leave early?')).toBeGreaterThan(like('I never count them at 12'));
    for (const title of ['', '?', 'Why do bees stay home?']) expect(Math.abs(like(title))).toBeLessThanOrEqual(1);
    expect(likenessTo([])('anything')).toBe(0);
  });
});

describe('proposals in a voice', () => {
  const transcript = demoTranscript('up-the-flue-12');
  const request = { firstWord: 600, endWord: 760, clientTags: ['Wet Wood'], limits: { title: 60, description: 300, hashtags: 5 } };
  const plain = proposeCopy(transcript, request);
  const voice = (some: Partial<Voice>): Voice => ({ ...OPEN_VOICE, ...some });

  it('are the same where the voice is open', () => expect(proposeCopy(transcript, { ...request, voice: OPEN_VOICE })).toEqual(plain));
  it('avoid what the client never says, as long as anything else can be said', () => {
    const word = plain.title
      .split(' ')
      .sort((a, b) => b.length - a.length)[0]!
      .replace(/[^\p{L}]/gu, '');
    expect(proposeCopy(transcript, { ...request, voice: voice({ avoid: [word] }) }).title).not.toContain(word);
  });
  it('keep to the client’s lengths, its fixed parts counted in', () => {
    const copy = proposeCopy(transcript, { ...request, voice: voice({ longestTitle: 34, fixedParts: ['x'.repeat(240)] }) });
    expect(copy.title.length).toBeLessThanOrEqual(34);
    expect(copy.description.length).toBeLessThanOrEqual(300 - 242);
  });
  it('carry the tags that every short carries, as the client writes them, and none that it never uses', () => {
    const copy = proposeCopy(transcript, { ...request, voice: voice({ alwaysTags: ['UpTheFlue'], neverTags: plain.hashtags.slice(0, 2) }) });
    expect(copy.hashtags[0]).toBe('UpTheFlue');
    for (const tag of plain.hashtags.slice(0, 2)) expect(copy.hashtags).not.toContain(tag);
    expect(copy.hashtags.length).toBeLessThanOrEqual(5);
  });
  it('have the capitals of the client', () => {
    const asked = proposeTitlesFor(transcript, { ...request, voice: voice({ capitals: 'title' }) }, 5);
    expect(asked.length).toBeGreaterThan(2);
    for (const { text } of asked) for (const word of text.split(' ')) if (word.length > 4) expect(word).toMatch(/^[^\p{Ll}]/u);
  });
});
