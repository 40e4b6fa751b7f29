import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkCopy, namesOf } from '../check/check-copy.js';
import { saidPassage } from '../check/said-passage.js';
import { checkTruth } from '../check/truth.js';
import { asPosted } from './fixed-parts.js';
import { checkVoice, mended, type Speller, type VoiceContext, type VoiceField } from './check-voice.js';
import { OPEN_VOICE, type Voice } from './types.js';

const SPELLER: Speller = {
  correct: (word) => !['recieve', 'color', 'colors', 'organize', 'hiverin'].includes(word.toLowerCase()),
  suggest: (word) => ({ recieve: ['receive'], color: ['colour', 'colon'], colors: ['colours'], organize: ['organise'] })[word.toLowerCase()] ?? [],
};
const context = (voice: Partial<Voice>, more: Partial<VoiceContext> = {}): VoiceContext => ({
  voice: { ...OPEN_VOICE, ...voice },
  speller: null,
  known: new Set(),
  names: new Set(),
  english: true,
  ...more,
});
const check = (text: string, voice: Partial<Voice>, field: VoiceField = 'description', more: Partial<VoiceContext> = {}) =>
  checkVoice(field, text, context(voice, more));
const mend = (...args: Parameters<typeof check>): string => mended(args[0], check(...args));

describe('words to use and to avoid', () => {
  const use = [{ say: 'guest', not: 'customer' }];
  it('takes the word that the client says, as large and as many', () =>
    expect(mend('Customers come back. A customer’s habit, our customer.', { use })).toBe('Guests come back. A guest’s habit, our guest.'));
  it('finds whole words and phrases only', () => {
    expect(check('Costumes and cheapness', { use, avoid: ['cheap'] })).toEqual([]);
    expect(check('It is dirt  cheap!', { avoid: ['dirt cheap'] })).toMatchObject([
      { rule: 'avoid', text: 'dirt  cheap', mend: null, detail: 'The client never says “dirt cheap”.' },
    ]);
  });
  it('takes a word with signs as it stands', () => expect(check('(C++) is fine, C is not', { avoid: ['C++'] })).toMatchObject([{ text: 'C++' }]));
});

describe('capitals of a title', () => {
  it('only at the start and of names', () =>
    expect(mend('Why The Bees of Marit Stay Home on Monday', { capitals: 'sentence' }, 'title', { names: new Set(['marit']) })).toBe(
      'Why the bees of Marit stay home on Monday',
    ));
  it('leaves I, abbreviations and words nobody knows alone', () =>
    expect(check('What I saw at CPR and Kestrelwick', { capitals: 'sentence' }, 'title')).toEqual([]));
  it('leaves a name alone that was only said where any word has a capital', () =>
    expect(check('How Ysolde counts', { capitals: 'sentence' }, 'title', { known: new Set(['ysolde']) })).toEqual([]));
  it('of every word but the small ones', () => expect(mend('why the bees of marit stay', { capitals: 'title' }, 'title')).toBe('Why the Bees of Marit Stay'));
  it('not in texts', () => expect(check('The Bees Stay Home', { capitals: 'sentence' }, 'description')).toEqual([]));
});

describe('the serial comma', () => {
  it('comes and goes', () => {
    expect(mend('Bees, wasps and ants', { serialComma: 'always' })).toBe('Bees, wasps, and ants');
    expect(mend('Bees, wasps, and ants', { serialComma: 'never' })).toBe('Bees, wasps and ants');
  });
  it('is right as it is', () => {
    expect(check('Bees, wasps, and ants', { serialComma: 'always' })).toEqual([]);
    expect(check('However, he laughed and left', { serialComma: 'always' })).toEqual([]);
  });
});

describe('who speaks', () => {
  it('is we, outside of quotations', () =>
    expect(mend('I am sure. I’ve seen my bees: “I saw them”.', { person: 'we' })).toBe("We are sure. We've seen our bees: “I saw them”."));
  it('is I', () => expect(mend('We keep our bees for us.', { person: 'I' })).toBe('I keep my bees for me.'));
  it('is Sie or du, in German', () => {
    expect(check('Das hilft dir und deinen Bienen', { address: 'Sie' }, 'description', { english: false })).toMatchObject([
      { text: 'dir' },
      { text: 'deinen' },
    ]);
    expect(check('Das hilft Ihnen', { address: 'du' }, 'description', { english: false })).toMatchObject([{ text: 'Ihnen' }]);
    expect(check('Sie fliegen aus', { address: 'du' }, 'description', { english: false })).toEqual([]);
  });
});

describe('spelling', () => {
  const spelled = { speller: SPELLER, known: new Set(['hiverin', 'color']), names: new Set<string>() };
  it('offers the likeliest word', () => expect(mend('We recieve it', {}, 'description', spelled)).toBe('We receive it'));
  it('knows what was said in the recording, but not in another spelling', () =>
    expect(check('A hiverin of any color', {}, 'description', spelled)).toMatchObject([{ text: 'color', mend: 'colour' }]));
  it('leaves addresses, tags, figures and the client’s own words alone', () =>
    expect(check('See recieve.example or #recieve and 5recieve, organize', { use: [{ say: 'organize', not: 'arrange' }] }, 'description', spelled)).toEqual(
      [],
    ));
});

describe('emoji and length', () => {
  it('never in a title unless everywhere', () => {
    expect(mend('Bees 🐝 at home', {}, 'title')).toBe('Bees at home');
    expect(check('Bees 🐝', {}, 'description')).toEqual([]);
    expect(check('Bees 🐝', { emoji: 'everywhere' }, 'title')).toEqual([]);
    expect(mend('Family 👨‍👩‍👧 and 🇮🇪 flag', { emoji: 'none' })).toBe('Family and flag');
    expect(check('12 and © are no emoji, nor #', { emoji: 'none' }).filter(({ text }) => /\d|#/.test(text))).toEqual([]);
  });
  it('the client’s own lengths, in characters as people count them (UAX 29)', () => {
    expect(check('ééééé', { longestTitle: 5 }, 'title')).toEqual([]);
    expect(check('👩‍👩‍👧👩‍👩‍👧x', { longestTitle: 2, emoji: 'everywhere' }, 'title')).toMatchObject([
      { rule: 'length', text: 'x', detail: '3 characters; the client wants 2 at most.' },
    ]);
  });
});

describe('a copy as a whole', () => {
  const COPY = { title: 'Customers Pay 99 Euros', description: 'They leave a box.', hashtags: ['bees', 'Ads'], keywords: [], coverLine: '' };
  const said = saidPassage('customers leave a box and pay nine euros'.split(' '));
  it('says what was not said, then how the client writes, tags too', () => {
    const voice = {
      ...OPEN_VOICE,
      use: [{ say: 'guests', not: 'customers' }],
      capitals: 'sentence' as const,
      neverTags: ['#ads'],
      alwaysTags: ['HoneyHour', 'Bees'],
    };
    expect(checkCopy(COPY, { ...context({}), voice, said }).map(({ field, item, rule, text, mend: instead }) => [field, item, rule, text, instead])).toEqual([
      ['title', null, 'use', 'Customers', 'Guests'],
      ['title', null, 'capitals', 'Pay', 'pay'],
      ['title', null, 'figure', '99', null],
      ['hashtags', 1, 'avoid', 'Ads', ''],
      ['hashtags', null, 'use', '', 'HoneyHour'],
    ]);
  });
  it('has figures in hashtags and keywords that somebody said', () => {
    const words = { ...COPY, title: '', description: '', hashtags: ['9euros', '4711euros'], keywords: ['nine euros', '99 euros'] };
    expect(checkCopy(words, { ...context({}), said }).map(({ field, item, rule, text }) => [field, item, rule, text])).toEqual([
      ['hashtags', 1, 'figure', '4711euros'],
      ['keywords', 1, 'figure', '99'],
    ]);
  });
  it('is posted with the fixed parts under it', () => {
    expect(asPosted(COPY, { fixedParts: ['honeyhour.example', ' ', 'Sound by Ada'] }).description).toBe('They leave a box.\n\nhoneyhour.example\nSound by Ada');
    expect(asPosted({ ...COPY, description: '' }, { fixedParts: ['honeyhour.example'] }).description).toBe('honeyhour.example');
    expect(asPosted(COPY, { fixedParts: [] })).toBe(COPY);
  });
  it('knows the names of a recording', () => {
    const words = 'So Marit said, “Hello Derek.” Then we saw Marit’s bees'.split(' ').map((text) => ({ text }));
    expect([...namesOf(words, ['Ilka Brandt'])].sort()).toEqual(['brandt', 'derek', 'ilka', 'marit']);
  });
});

it('whatever is written, places hold what they say, never overlap but for lengths, and what is mended stays mended', () =>
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('Bees', 'customers', 'I', 'my', 'wasps,', 'ants', 'and', 'or', '🐝', 'recieve', '“we', 'us”', 'Home', 'colour.', 'A'), {
        maxLength: 24,
      }),
      (words) => {
        const text = words.join(' ');
        const voice: Partial<Voice> = { use: [{ say: 'guests', not: 'customers' }], capitals: 'sentence', serialComma: 'always', person: 'we', emoji: 'none' };
        const more = { speller: SPELLER };
        const found = check(text, voice, 'title', more);
        for (const one of found) expect(one.text).toBe(text.slice(one.from, one.to));
        for (let i = 1; i < found.length; i += 1) expect(found[i]!.from).toBeGreaterThanOrEqual(found[i - 1]!.to);
        let after = text;
        for (let turn = 0; turn < 4; turn += 1) after = mended(after, check(after, voice, 'title', more));
        expect(check(after, voice, 'title', more).filter((one) => one.mend !== null)).toEqual([]);
      },
    ),
  ));

it.each([
  ['one word without an end', 'a'.repeat(20_000)],
  ['signs behind a letter', `a${"'".repeat(20_000)}`],
  ['a list without an end', 'a, '.repeat(6_000)],
  ['quotations inside quotations', '“I '.repeat(6_000)],
  ['nothing but who speaks', 'I '.repeat(10_000)],
  ['nothing but emoji', '👨‍👩‍👧'.repeat(2_000)],
])('%s is checked all the same', (_, text) => {
  const voice: Partial<Voice> = {
    use: [{ say: 'guests', not: 'customers' }],
    avoid: ['cheap'],
    serialComma: 'always',
    person: 'we',
    emoji: 'none',
    longestText: 100,
  };
  for (const one of check(text, voice, 'description', { speller: SPELLER })) expect(one.text).toBe(text.slice(one.from, one.to));
  expect(checkTruth(text, saidPassage(['nothing', 'like', 'it'])).every(({ from, to }) => from < to)).toBe(true);
});
