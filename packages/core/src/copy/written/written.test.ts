import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEMO_TALKS, demoTranscript, transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { normaliseWords } from '../../text/tells/find-tells.js';
import { proposeCopy, proposeTitlesFor, titleContext } from '../propose.js';
import { gerund, recordingSubject } from '../recording-tags.js';
import { rarity } from '../../text/spoken-words.js';
import { asAdvice } from './advice.js';
import { compress } from './compress.js';
import { contentOf, shared } from './content.js';
import { describe as describePassage, type Said, strongestOf } from './description.js';
import { readNumber } from './figures.js';

import { resolved } from './stands-for.js';
import { clausesOf, type TitleDraft, titleDrafts } from './title-sorts.js';
import { bringsIn, isBroken, isClause, leans, saysTwice } from './wholeness.js';
import { type Line, lineText } from './written-word.js';

function lineOf(text: string): Line {
  const { words } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${text}\n`);
  const texts = normaliseWords(words);
  return compress({ words, texts, tags: winkTagger(texts) }, 0, words.length);
}
const written = (text: string): string => lineText(lineOf(text));

describe('spoken words as one would write them', () => {
  it.each([
    ['So, um, the valve was, uh, closed.', 'The valve was closed'],
    ['And then I mean the lid has to stay on, you know.', 'The lid has to stay on'],
    ['I think twelve is too short, for a flood certainly.', '12 is too short, for a flood'],
    ["It's the, it's the standard that comes out of the system.", "It's the standard that comes out of the system"],
    ["I've got a cup of, I've got my thermos here.", "I've got my thermos here"],
    ['We were we were at the gate by noon.', 'We were at the gate by noon'],
    ['A stove is not an open fire, an open fire throws away its heat.', 'A stove is not an open fire, an open fire throws away its heat'],
    ['The chimneys were, they were the old brick ones.', 'The chimneys were the old brick ones'],
    ['The brick gets to, um, it gets to two hundred degrees.', 'The brick gets to 200 degrees'],
    ['He had had enough of it.', 'He had had enough of it'],
    ["It's not right in the, how do you say, for the trade.", "It's not right for the trade"],
    ['We sat in the shade of the wall.', 'We sat in the shade of the wall'],
    ['Wait, because what happens is the pump has stopped.', 'Wait, because the pump has stopped'],
    ['I asked what happened is all.', 'I asked what happened is all'],
    ['No butter, no toothpaste, no egg white.', 'No butter, no toothpaste, no egg white'],
    ["The soil's wet in the mornings, isn't it?", "The soil's wet in the mornings"],
    ['What kind of glue do you use?', 'What kind of glue do you use?'],
    ["I don't really like the blue one.", "I don't really like the blue one"],
    ['It was probably the pump.', 'It was probably the pump'], // a guess stays a guess
    ['They were all gone by Friday and so on.', 'They were all gone by Friday'],
    ['Right hand on the wheel.', 'Right hand on the wheel'],
    ['He sent it up the chimney in nineteen fifty eight.', 'He sent it up the chimney in 1958'],
    ['We did it in twenty seventeen, twice.', 'We did it in 2017, twice'],
    [
      'We did four thousand one hundred and four thousand one hundred and sixty lines.',
      'We did four thousand one hundred and four thousand one hundred and sixty lines',
    ],
    ['Well, no, the ladder goes on the left.', 'The ladder goes on the left'],
    ['Leave it in the shade for, I left it half an hour.', 'I left it half an hour'],
    ['The niche is, everyone wants a niche.', 'Everyone wants a niche'],
    ['As it is, I would leave it.', 'As it is, I would leave it'], // waits for its other half
    ["Gosh, I thought the garden's very wet.", "I thought the garden's very wet"],
    ["And this one's from me, do you count the mites?", 'Do you count the mites?'],
    ['What I do is I have a small piece of paper.', 'I have a small piece of paper'],
    ['So what it does is the apple goes to sleep.', 'The apple goes to sleep'],
    ['And all it is you sit down with somebody.', 'You sit down with somebody'],
    ["It's just that the cost of the van comes off his profit.", 'The cost of the van comes off his profit'],
    ['What you usually do is drop the bottom paddles.', 'Drop the bottom paddles'],
    ["What I'd do then is have the same form for everybody.", "I'd have the same form for everybody"],
    // Nothing is announced, or what is announced is no sentence.
    ['What I do is pretty simple.', 'What I do is pretty simple'],
    ["It's that simple.", "It's that simple"],
    ['What you do is your own business.', 'What you do is your own business'],
    ["I'll be honest with you, I feel a bit sick.", 'I feel a bit sick'],
    ['The trouble is that nobody reads it.', 'Nobody reads it'],
  ])('%s', (spoken, expected) => expect(written(spoken)).toBe(expected));

  it.each([
    ['two hundred and fifty', 250],
    ['four hundred and twenty', 420],
    ['eight point six', 8.6],
    ['two and a half thousand', 2_500],
    ['eighteen hundred', 1_800],
    ['a hundred and ten', 110],
    ['twenty-four', 24],
    ['three million two hundred thousand', 3_200_000],
    ['fourteen and a half', 14.5],
    ['nineteen', 19],
    ['one point one million', 1_100_000],
  ])('%s is a number', (said, value) => expect(readNumber(lineWithout(said), 0)).toEqual({ value, length: said.split(' ').length }));

  it.each([
    ['It is sixty, seventy percent of the old turnover.', 'It is 60, 70% of the old turnover'],
    ['In twenty seventeen it froze fourteen nights.', 'In 2017 it froze 14 nights'],
    ['He was twenty six foot two.', 'He was 26 foot two'],
    ['It takes three weeks to dry.', 'It takes 3 weeks to dry'],
    ['One of the two doors was open.', 'One of the two doors was open'],
    ['We sold it at two thirty a tonne.', 'We sold it at 230 a tonne'],
    ["It's about two thirty a tonne, two forty, and at two thirty I go home.", "It's about 230 a tonne, 240, and at two thirty I go home"],
    ["It's four twenty a roll instead of five ten.", "It's 4.20 a roll instead of 5.10"],
    ['I pay one thirty-five for a kilo of wheat.', 'I pay 1.35 for a kilo of wheat'],
    ['The rent was two fifty pounds.', 'The rent was 250 pounds'],
    // Who said it knows what it is.
    ['The Sarn is now two fifty.', 'The Sarn is now two fifty'],
    ['It costs two fifty an hour.', 'It costs two fifty an hour'],
    ["It's two fifty a month or three ten a roll.", "It's two fifty a month or three ten a roll"],
    ['Pick them up nine thirty a day early.', 'Pick them up nine thirty a day early'],
    ['You press at one twenty a minute.', 'You press at one twenty a minute'],
    ['He ran seven thirty a mile.', 'He ran seven thirty a mile'],
    ['It was two fifty five a tonne.', 'It was two fifty five a tonne'],
    ['We planted one, fifty a month came up.', 'We planted one, 50 a month came up'],
    ['He paid two hundred, fifty came back.', 'He paid 200, 50 came back'],
  ])('%s', (spoken, expected) => expect(written(spoken)).toBe(expected));

  it('keep the map to what was said, in order, and add nothing', () => {
    const texts = fc.array(fc.constantFrom('so', 'um,', 'the', 'two', 'hundred', 'and', 'fifty', 'pumps,', 'I', 'think', 'were', 'closed.', "isn't", 'it?'), {
      minLength: 4,
      maxLength: 30,
    });
    fc.assert(
      fc.property(texts, (words) => {
        const line = lineOf(words.join(' '));
        line.forEach((word, i) => {
          expect(word.end).toBeGreaterThan(word.first);
          expect(word.first).toBeGreaterThanOrEqual(i === 0 ? 0 : line[i - 1]!.end);
          if (word.end === word.first + 1 && word.tag !== 'NUM') expect(word.text.replace(/\W+$/, '')).toBe(words[word.first]!.replace(/\W+$/, ''));
        });
      }),
    );
  });
});

/** Words with nothing done to them. */
function lineWithout(text: string): Line {
  const words = text.split(' ');
  const tags = winkTagger(words);
  return words.map((word, i) => ({ text: word, norm: word, tag: tags[i]!, first: i, end: i + 1 }));
}

describe('titles made of what was said', () => {
  const advice = (text: string): string | null => {
    const made = asAdvice(lineOf(text));
    return made === null ? null : lineText(made);
  };
  it.each([
    ['You have to put something under it.', 'Put something under it'],
    ["You don't give it a name.", "Don't give it a name"],
    ['You should never leave it on the spindle.', null],
    ['You never leave it on the spindle.', 'Never leave it on the spindle'],
    ["I'd freeze them the day you make them.", 'Freeze them the day you make them'],
    ['When you ring, you describe what you saw.', 'When you ring, describe what you saw'],
    ['You stop, and you wait for the bell.', 'Stop, and wait for the bell'],
    ['You know what it costs.', null],
    ['You feed them in the evening.', 'Feed them in the evening'],
    ['You need two buckets.', null],
    ['You painted the door twice.', null],
    ['You paid two hundred and forty euro for it.', null],
    ['You put a probe beside it.', 'Put a probe beside it'],
    ['You are the first to see it.', null],
    ['The valve stays open.', null],
  ])('advice: %s', (spoken, expected) => expect(advice(spoken)).toBe(expected));

  it('what "it" stands for is said where the sentence before is plainly about it', () => {
    const named = (before: string, text: string): string | null => {
      const line = resolved(lineOf(text), lineOf(before));
      return line === null ? null : lineText(line);
    };
    expect(named('The fee was five thousand.', "It's on the schedule.")).toBe('The fee is on the schedule');
    expect(named('The bees were gone.', 'They left in May.')).toBe('The bees left in May');
    expect(named('The bees were gone.', 'It rained in May.')).toBeNull(); // one is not many
    expect(named('Then you take the windlass off.', 'It spins the handle round.')).toBeNull(); // what it is about is not plain
  });
  it('are none of what is said in another language', () => {
    const { passage } = titleContext(transcriptOf('WEBVTT\n\n00:00.000 --> 00:10.000\nIsso é para cortar. The clay is too wet to cut.\n'), {
      firstWord: 0,
      endWord: 11,
    });
    expect(titleDrafts(passage, 60).map(({ text }) => text)).toEqual(['The clay is too wet to cut']);
  });
  it('a sentence is parted at its commas and where somebody new begins', () =>
    expect(clausesOf(lineOf('We closed the shop because the water came and nobody could park, so we lost a week.')).map(lineText)).toEqual([
      'We closed the shop',
      'Because the water came and nobody could park',
      'So we lost a week',
    ]));
  it('what is replaced is a draft, and so is a deed without its doer', () => {
    const talk = 'The woman rang us twice. She had a crack in the old flue. The crack was a hand wide, and it went sideways. Told it to me in the yard.';
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${talk}\n`);
    const request = { firstWord: 0, endWord: transcript.words.length, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
    for (const { text, draft } of proposeTitlesFor(transcript, request, 40)) if (/^(?:Told|The crack went|The woman had)/.test(text)) expect(draft).toBe(true);
    expect(proposeTitlesFor(transcript, request, 40).some(({ draft }) => draft)).toBe(true);
  });
  it('a title without a doer is never the first choice where another is whole', () => {
    const transcript = transcriptOf('WEBVTT\n\n00:00.000 --> 00:30.000\nTold it to me in the yard and I haven’t slept. The tin was behind the bricks.\n');
    const request = { firstWord: 0, endWord: transcript.words.length, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
    expect(proposeTitlesFor(transcript, request, 1)[0]).toMatchObject({ text: 'The tin was behind the bricks', draft: false });
  });
  it('what asks is a question, with its mark or without', () => {
    const transcript = transcriptOf('WEBVTT\n\n00:00.000 --> 00:30.000\nWhat if the passenger is not at the door.\n');
    const { passage } = titleContext(transcript, { firstWord: 0, endWord: transcript.words.length });
    expect(titleDrafts(passage, 60)[0]).toMatchObject({ text: 'What if the passenger is not at the door?', sort: 'question' });
    expect(titleDrafts(passage, 40).map(({ text }) => text)).not.toContain('What if the passenger is not at the door');
  });
  it('a line that breaks off is known for it', () => {
    const drafts = titleDrafts(
      titleContext(
        transcriptOf('WEBVTT\n\n00:00.000 --> 00:30.000\nIf the pump stops then it floods, and on the phone I can hear, when I call you, an unwilling yes.\n'),
        {
          firstWord: 0,
          endWord: 19,
        },
      ).passage,
      70,
    );
    const broken = new Map(drafts.map((draft) => [draft.text, isBroken(draft)]));
    expect(broken.get('On the phone I can hear')).toBe(true);
    expect(drafts.filter((draft) => leans(draft)).map(({ text }) => text[0])).not.toContain('O');
  });
  it.each([
    ['I had a client, a wool shop.', { brings: true, twice: false }],
    ['I had a client who bought a digger.', { brings: false, twice: false }],
    ['I wrote five frames and five frames.', { brings: false, twice: true }],
    ['The valve was closed all night.', { brings: false, twice: false }],
    ["I'm at the stop by the quarry.", { brings: true, twice: false }],
    ['Someone asks about the powder.', { brings: true, twice: false }],
    ["Someone's asking what if they have no mixer in the kitchen.", { brings: true, twice: false }],
    ["While we wait, someone's asking about the mixer.", { brings: true, twice: false }],
  ])('“%s” is known for what it does not say', (text, { brings, twice }) => {
    const draft: TitleDraft = { text, sort: 'said', line: lineOf(text), sentence: 0, whole: true, resolved: false, cut: false };
    expect([bringsIn(draft), saysTwice(draft)]).toEqual([brings, twice]);
  });
  it('what is asked and not to the end is broken, and leans on the room', () => {
    const draft = (text: string): TitleDraft => ({ text, sort: 'said', line: lineOf(text), sentence: 0, whole: true, resolved: false, cut: false });
    expect(isBroken(draft('Where we lose most of the jobs.'))).toBe(true);
    expect(isBroken(draft('Which port it took.'))).toBe(true);
    expect(isBroken(draft('What we lose is the jobs.'))).toBe(false);
    expect(leans(draft("There it's forty minutes different."))).toBe(true);
    expect(leans(draft('There is water under the door.'))).toBe(false);
    expect(leans(draft("Where's your nearest one?"))).toBe(true);
    expect(leans(draft('The chimney is the red one.'))).toBe(false);
    expect(leans(draft("In some it's the whole ground floor."))).toBe(true);
    expect(leans(draft('With it I got back before dark.'))).toBe(true);
    expect(leans(draft('In some shops it is the whole floor.'))).toBe(false);
    expect(leans(draft('With most of them it is the floor.'))).toBe(false);
    expect(leans(draft("One's an eight and one's a twelve."))).toBe(true);
    expect(leans(draft('The other one begins at nine.'))).toBe(true);
    expect(leans(draft('The others had twenty boxes.'))).toBe(true);
    expect(leans(draft('One of the pumps is new.'))).toBe(false);
    expect(leans(draft('What do you say?'))).toBe(true);
    expect(leans(draft('What do you say to a bank?'))).toBe(false);
  });
  it('what is told of somebody says nothing yet', () => {
    expect(isClause(lineOf('Those who eat it too late.'))).toBe(false);
    expect(isClause(lineOf('Everybody who was hurt lately.'))).toBe(false);
    expect(isClause(lineOf('Those who eat it lose the taste for it.'))).toBe(true);
  });
  it.each([
    ['Withdraws the report to the tax office.', true],
    ['The button withdraws the report.', false],
    ['Press the button twice.', false],
    ['Feed the bees in autumn.', false],
    ['Painted the door twice.', true],
    ['What did we downloaded it and the dot stays.', true],
    ['What did we pay for it?', false],
    ["Even if there's no tax in it.", true],
    ["Even if there's no tax, you pay the fine.", false],
    ['Before you let anyone sell you a bigger tank.', true],
    ['Before you buy the animals get yourself a pen.', false],
    ['Before you start, check the fuse board.', false],
    ['Since the quarry widened its entrance.', true],
    ['Since the quarry widened its entrance nobody walks there.', false],
    ["Even though it's just how it comes out of the box.", true],
    ["The thing I'd want to say about the breathing.", true],
    ["The thing I'd want to say is keep breathing.", false],
    ["Here's what I'd tell you.", true],
    ["Here's how a stove draws.", false],
    ['The one thing that broke was the pump.', false],
    ['The lower site and they both begin at nine.', true],
    ['The lower site is shut and they both begin at nine.', false],
    ['Take the honey off in April and I worked it out once.', true],
    ['Take the honey off in April and feed the bees.', false],
    ["Everyone who's been hurt in the time I've been there.", true],
    ['Everyone who was hurt last year was tired.', false],
    ['People who know it come on a Monday.', false],
    ['I would not really this week.', true],
    ['I would not do it this week.', false],
    ['You should water them this week.', false],
    ['The number of the contract and what is the problem.', true],
    ['We know the number and what is the problem.', false],
    ['Of the five that went I know four of them.', true],
    ["In spring you can't.", true],
    ["With fourteen people at a stile that's you can time it.", true],
    ["That's you on the left.", false],
    ['What I tell them is pretty simple.', true],
    ['What I was paying in sugar and diesel.', true],
    ['What they had was a letter.', false],
    ['What we pick in October we can open in May.', false],
    ['What I tell them is to wait.', false],
    ['Not just press no show.', true],
    ['Not one of the pumps was new.', false],
    ['Just press it.', true],
    ['Just.', true],
    ["Whereas if it's just that she's a bit off.", true],
    ['What are you dreading when did you last look?', true],
    ['What are you dreading when you look?', false],
    ['When we finished, and then we waited a month.', true],
    ["By an officer who's since left.", true],
  ])('“%s” is no whole line: %s', (text, broken) => {
    expect(isBroken({ text: text.replace(/\.$/, ''), sort: 'said', line: lineOf(text), sentence: 0, whole: true, resolved: false, cut: false })).toBe(broken);
  });
  it.each([
    ["The thing that I'd say is don't write a letter.", "The thing that I'd say is don't write a letter"],
    ["That's what I'd say, because they asked.", "That's what I'd say, because they asked"],
    ["No that's moved, it's on the side of the shop.", "That's moved, it's on the side of the shop"],
    ['No tank is that big.', 'No tank is that big'],
    ["Colm again, what if the passenger isn't there?", "What if the passenger isn't there?"],
    ['Desmond, should people do it this week?', 'Should people do it this week?'],
    ['Marlow, the town by the river, is shut.', 'Marlow, the town by the river, is shut'],
    ['Rain, what if it comes in?', 'Rain, what if it comes in?'],
    ['You go down in the, how do you call it, the low part.', 'You go down in the low part'],
    ['Dip the end in for, what, ten seconds.', 'Dip the end in for 10 seconds'],
    ["It's not right for, how do you say, the profession.", "It's not right for the profession"],
    ['What do you say?', 'What do you say?'],
    ["In that case you'd want two hives.", "You'd want two hives"],
  ])('“%s” is written “%s”', (said, written) => expect(lineText(lineOf(said))).toBe(written));
});

describe('the text that goes with a title', () => {
  const TALK =
    'Hello and welcome back to the channel. So, um, the drain under the bath froze in the third week of January. And I think we poured two hundred litres of hot water down it, basically. The pipe cracked from one end to the other. And that was, um, that was that.';
  const textFor = (talk: string, title: string, limit = 200): string => {
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:30.000\n${talk}\n`);
    return describePassage(titleContext(transcript, { firstWord: 0, endWord: transcript.words.length }), title, limit);
  };
  const textOf = (title: string, limit?: number): string => textFor(TALK, title, limit);
  it('adds to the title, in the order of the talk, and never greets', () => {
    const text = textOf('The pipe cracked from one end to the other');
    expect(text).toBe('The drain under the bath froze in the third week of January. We poured 200 litres of hot water down it.');
  });
  it('takes what leans on the sentence before only behind it', () => {
    const [pipe, vinegar, left] = ['The pipe was full of lime.', 'The plumber poured two bottles of vinegar down it.', 'They left it there until the evening.'];
    expect(textFor(`${left} ${vinegar} ${pipe}`, 'A title')).not.toContain('They left');
    expect(textFor(`${vinegar} ${left}`, 'A title')).toBe(`${vinegar.replace('two', '2')} ${left}`.replace('2 bottles', 'two bottles'));
    expect(textFor(left, 'A title')).toBe(left); // there is nothing else
  });
  it('is one sentence where two do not fit, and none where nothing fits', () => {
    expect(textOf('The pipe cracked from one end to the other', 70)).toMatch(/^[^.]{10,69}\.$/);
    expect(textOf('A title', 10)).toBe('');
  });
  it('takes what is short enough of a sentence that runs on, from where it may begin', () => {
    const said =
      'Well the thing about that whole week, and I said it to my sister, is, when the drain froze we poured two hundred litres of hot water down it, and the pipe cracked from one end to the other, and she laughed at me about it for the rest of the winter.';
    expect(textFor(said, 'The pipe cracked from one end to the other', 130)).not.toMatch(/\bis,|that whole week/);
  });
  it.each([
    'I was sent up to a I will not go into that tonight.',
    'Mostly for cellars and for the whole ground floor.',
    'Before we go to the travel and the weather on the hour.',
    "If it's been in your kitchen, even if it's a carrot peeling.",
    'What was it, eighteen letters on the whole line.',
    'Not just press the red button on the left.',
    'With the red light flashing on top of it, and so on.',
    'Dip the end of the pipe in for, what.',
    'Before we go to the travel, that people should be doing right now.',
    'Buy, if you can get one at all in the spring.',
  ])('is not made of what is no sentence that is read: “%s”', (said) => expect(textFor(said, 'A title')).toBe(''));
  it.each(['When the drain froze, we poured hot water down it.', 'In the third week of January, the drain under the bath froze.'])('is made of “%s”', (said) =>
    expect(textFor(said, 'A title')).toBe(said),
  );
});

describe('what a recording is about', () => {
  const subject = (text: string) => {
    const { words } = transcriptOf(`WEBVTT\n\n00:00.000 --> 00:50.000\n${text}\n`);
    const texts = normaliseWords(words);
    return recordingSubject(texts, winkTagger(texts), words);
  };
  it('is told by compounds and by words that are seldom said otherwise, not by names', () => {
    const { compounds, singles } = subject(
      'The flour mill is in the barn. Ask Merrow about the flour mill. The mill needs a new stone, and the stone for the mill is heavy. We met Merrow at the mill, and the day was long. The day after, Merrow was at the other mill. It was a day.',
    );
    expect(compounds.map(({ text, count }) => [text, count])).toEqual([['flour mill', 2]]);
    expect(singles.map(({ text }) => text)).toEqual(['mill']);
  });
  it.each([
    ['bake', 'baking'],
    ['bakes', 'baking'],
    ['plan', 'planning'],
    ['tile', 'tiling'],
    ['see', 'seeing'],
    ['carries', 'carrying'],
    ['sewing', 'sewing'],
  ])('what is done: %s, %s', (verb, doing) => expect(gerund(verb)).toBe(doing));
  it('rests on how often words are said, as the list tells it (Brysbaert & New 2009)', () => {
    expect(rarity('you')).toBe(0);
    expect(rarity('dog')).toBeLessThan(rarity('hive'));
    expect(rarity('windlass')).toBeGreaterThan(rarity('window') + 2);
  });
});

describe('talk that is made to be slow', () => {
  it.each(['I was, I was, ', 'the ', 'so, ', 'you know, ', 'two hundred ', "it's the, it's the, ", `a${','.repeat(3_000)}b `, `it was ${'a'.repeat(5_000)} `])(
    'is worded all the same: %.14s',
    (said) => {
      const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 59:00.000\n${said.repeat(Math.ceil(60_000 / said.length))}\n`);
      for (const language of [null, 'de']) {
        const copy = proposeCopy(transcript, {
          firstWord: 0,
          endWord: transcript.words.length,
          clientTags: [],
          limits: { title: 60, description: 200, hashtags: 5 },
          language,
        });
        expect(copy.title.length).toBeLessThanOrEqual(60);
        expect(copy.description.length).toBeLessThanOrEqual(200);
      }
    },
  );
});

describe('a passage of very many sentences', () => {
  it('and a word of a megabyte are tagged', () => expect(winkTagger(['the', 'a'.repeat(1_000_000), 'pump'])).toHaveLength(3));
  it('is not looked at pair by pair', () => {
    let looked = 0;
    class Counted extends Set<string> {
      override [Symbol.iterator](): SetIterator<string> {
        looked += 1;
        return super[Symbol.iterator]();
      }
    }
    const said = Array.from({ length: 1_000 }, (_, i): Said => ({
      text: `Pump ${i}.`,
      words: new Counted([`pump${i}`]),
      sentence: i,
      leans: false,
      worth: i % 97,
    }));
    const [first, second] = strongestOf(said, 200);
    expect([first!.worth, second!.worth]).toEqual([96, 96]);
    expect(first!.sentence).toBeLessThan(second!.sentence);
    expect(looked).toBeLessThan(10_000); // of a million pairs
  });
  it('is worded all the same', () => {
    const numbers = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
    const things = ['valve', 'pump', 'boiler', 'radiator', 'cistern', 'thermostat', 'gasket', 'stopcock'];
    const said = things.flatMap((a) => things.flatMap((b) => numbers.map((n) => `The ${a} broke the ${b} and ${n} plumbers mended the cellar.`)));
    const transcript = transcriptOf(`WEBVTT\n\n00:00.000 --> 59:00.000\n${said.join(' ')}\n`);
    const context = titleContext(transcript, { firstWord: 0, endWord: transcript.words.length });
    expect(describePassage(context, 'A title', 200).length).toBeGreaterThan(20);
  });
});

describe.each(DEMO_TALKS)('titles proposed for %s', (name) => {
  const transcript = demoTranscript(name);
  const passages = Array.from({ length: 12 }, (_, i) => {
    const first = Math.floor((transcript.sentences.length * (i + 1)) / 15);
    return { firstWord: transcript.sentences[first]!.firstWord, endWord: transcript.sentences[Math.min(first + 7, transcript.sentences.length - 1)]!.endWord };
  });
  it('are several, all different, inside the limit and inside the passage; the same again for the same', () => {
    for (const passage of passages) {
      const request = { ...passage, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
      const titles = proposeTitlesFor(transcript, request, 5);
      expect(titles.length).toBeGreaterThanOrEqual(2);
      expect(new Set(titles.map(({ text }) => text.toLowerCase())).size).toBe(titles.length);
      for (const { text, firstWord, endWord } of titles) {
        expect(text.length).toBeLessThanOrEqual(60);
        expect(firstWord).toBeGreaterThanOrEqual(passage.firstWord);
        expect(endWord).toBeLessThanOrEqual(passage.endWord);
        expect(text).toMatch(/^[\p{Lu}\p{N}]/u);
      }
      expect(proposeTitlesFor(transcript, request, 5)).toEqual(titles);
    }
  });
  it('have each a text that adds to it, the first the one that is proposed', () => {
    const said = (text: string): ReadonlySet<string> => contentOf(text.toLowerCase().match(/[\p{L}\p{N}']+/gu) ?? []);
    for (const passage of passages) {
      const request = { ...passage, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 } };
      const copy = proposeCopy(transcript, request);
      const titles = proposeTitlesFor(transcript, request, 5);
      const own = titles.find(({ text }) => text === copy.title);
      if (own !== undefined) expect(own.description).toBe(copy.description);
      for (const { line, description } of titles) {
        expect(description.length).toBeLessThanOrEqual(200);
        expect(description.split(/(?<=[.?!]) /)).not.toContain(`${line}.`);
        for (const sentence of description.split(/(?<=[.?!]) /)) expect(shared(said(sentence), said(line))).toBeLessThan(0.5);
      }
    }
  });
  it('are none for talk that is not English', () =>
    expect(proposeTitlesFor(transcript, { ...passages[0]!, clientTags: [], limits: { title: 60, description: 200, hashtags: 5 }, language: 'de' }, 5)).toEqual(
      [],
    ));
});
