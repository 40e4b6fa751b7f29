import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { transcriptOf } from '../../talk.fixture.js';
import { winkTagger } from '../../text/tagger.js';
import { normaliseWords } from '../../text/tells/find-tells.js';
import { proposeTitlesFor, titleContext } from '../propose.js';
import { asAdvice } from './advice.js';
import { compress } from './compress.js';
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
