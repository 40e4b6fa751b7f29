const phrases = (list: string): readonly string[] => list.split('|').map((phrase) => phrase.trim().replace(/\s+/g, ' '));

/**
 * Words and phrases that tell what a passage does. Each is a plain turn of speech; how much one counts is the business
 * of the signal that uses it. Lower case, straight apostrophes, one space between words.
 */
export const TELL_PHRASES = {
  advice: phrases(`
    you should | you need to | you have to | you've got to | you want to | make sure | the trick is | my advice | the first thing
    | what you do is | start with | start by | the rule is | rule of thumb | if you only | the best way | the easiest way | all you need
    | here is how | here's how | never | always | don't ever | instead of | before you | stop doing | try this | remember to | ask yourself
    | the thing to do | it pays to | look for | check the | do not | leave it | the secret is | the answer is | step one | step two
  `),
  cause: phrases(`
    because | which means | that's why | that is why | the reason | so that | which is why | as a result | it means | in other words | leads to
    | that way | that's how | therefore | what happens is | the difference between | the difference is | it turns into | due to
  `),
  example: phrases(`
    for example | for instance | imagine | say you | picture this | let's say | think of | such as | in my case | like when
  `),
  opinion: phrases(`
    i think | i believe | i reckon | honestly | the truth is | to be honest | the problem with | the problem is | is wrong | are wrong | a myth
    | myth | nonsense | rubbish | overrated | underrated | ridiculous | i hate | i love | can't stand | i don't care | the worst | the best
    | waste of | i don't believe | i disagree | i refuse | i would never | i'd never | nobody tells | no one tells | everyone thinks
    | everybody thinks | people think | stop pretending | scandal | disgrace | criminal | madness | stupid | a lie | lies | point blank | hill i
    | unpopular | should be ashamed | makes me angry | drives me | i regret | completely wrong | absolutely not | no excuse
  `),
  contrast: phrases(`
    but | instead | rather than | the opposite | on the other hand | whereas | even though | despite | not because | it's not | it isn't
    | wasn't | and yet | yet | except | until | no longer | used to | turns out | turned out | it turns out | actually | far from | more than
    | less than
  `),
  surprise: phrases(`
    couldn't believe | can't believe | could not believe | shock | shocked | shocking | suddenly | out of nowhere | nobody expected
    | didn't expect | turned out | turns out | secret | strange | weird | bizarre | the funny thing | the strange thing | for the first time
    | the only | what nobody | you will not believe | you won't believe | believe it or not | surprise | surprised | surprising | guess what
    | no idea | by accident | unbelievable | incredible | i had never | i'd never seen | mystery | it dawned on | to my horror
  `),
  promise: phrases(`
    here's the thing | here is the thing | here's what | here is what | here's why | here is why | the one thing | the biggest mistake
    | the mistake | biggest | three things | two things | the thing nobody | what nobody | what most people | most people | the trick | the secret
    | let me tell you | i'll tell you | i will tell you | the real reason | what if | if i told you | have you ever | did you know | do you know
    | imagine | the truth | the problem with | stop | never | nobody | everyone | everybody | the worst | the best | the first time | the day
    | the moment
  `),
  story: phrases(`
    i remember | one day | one time | years ago | months ago | weeks ago | when i was | there was this | there was a | i went | i said | he said
    | she said | they said | he goes | she goes | and then | last year | last week | last summer | last winter | that morning | that night
    | the next day | the next morning | i walked | i got | i opened | i looked | i phoned | i rang | he rang | she rang | came in | came up
    | turned up | my father | my mother | my dad | my mum | my grandmother | my grandfather | my first | back in | at the time | i was standing
    | i was sitting | we were
  `),
  laugh: phrases(`
    [laughter] | [laughs] | [laughing] | (laughter) | (laughs) | (laughing) | *laughs* | [chuckles] | (chuckles) | ha ha | haha
  `),
  greeting: phrases(`
    welcome back | welcome to | hello everyone | hello and welcome | good morning everyone | good evening everyone | hi everyone
    | thanks for joining | thank you for joining | thanks for having | thank you for having | great to be here | lovely to be here
    | nice to be here | how are you | i'm your host | my name is | good to see you | today we are joined | today's guest | on the show
    | this week on | how was your week | how's your week | ladies and gentlemen | distinguished guests | honoured guests | honored guests
    | mr speaker | madam speaker | mr chairman | madam chair | fellow citizens | members of the board | members of congress | your excellencies
  `),
  housekeeping: phrases(`
    before we start | before we begin | before we get | can you hear me | can everyone hear | is this on | is my mic | microphone
    | a few notices | housekeeping | in the show notes | show notes | in the description | the link | links are | next slide | share my screen
    | see my screen | the chat | in the chat | after the break | short break | quick break | we'll be right back | technical | the recording
    | questions at the end | coming up | later in the show | we're out of time | running out of time | moving on | next question | click on
    | click here | as you can see | scroll down | drop down
  `),
  sponsor: phrases(`
    brought to you by | sponsored by | our sponsor | today's sponsor | this episode is | promo code | use the code | use code | discount code
    | per cent off | percent off | free shipping | free delivery | free trial | support for this | word from | our friends at | thanks to our
    | visit their website | at checkout | dot com | money back
  `),
  signoff: phrases(`
    see you next | until next time | that's all for | that's it for | thanks for listening | thank you for listening | thanks for watching
    | subscribe | leave a review | leave us a review | leave us a | five stars | hit the bell | like and | follow us | tell a friend | sign up
    | newsletter | bye bye | goodbye | bye everyone | take care everyone | see you soon | join us next | next week we | where can people find
  `),
  backward: phrases(`
    as i said | like i said | as i mentioned | as you said | like you said | as we said | as mentioned | going back to | coming back to
    | to come back | what you said | your point | that point | the other one | the second one | the first one | the third one | the latter
    | the former | the same thing | that one | those ones | you were saying | like before | we talked about | earlier on | as before
  `),
} satisfies Record<string, readonly string[]>;

export type Tell = keyof typeof TELL_PHRASES | 'figure' | 'feeling' | 'question' | 'superlative' | 'name' | 'address' | 'filler' | 'repeat';

/** Tells of talk that nobody should post. */
export const DULL_TELLS = ['greeting', 'housekeeping', 'sponsor', 'signoff'] as const satisfies readonly Tell[];

export const NUMBER_WORDS = new Set(
  'two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty thirty forty fifty sixty seventy eighty ninety hundred hundreds thousand thousands million millions billion billions dozen dozens half third quarter double triple twice'.split(
    ' ',
  ),
);

/** What figures are counted in; "one" is a figure only before one of these. */
export const UNITS = new Set(
  'second seconds minute minutes hour hours day days week weeks month months year years pence penny pennies pound pounds dollar dollars euro euros cent cents percent per % degrees degree metre metres meter meters centimetre centimetres millimetre millimetres inch inches foot feet mile miles kilometre kilometres gram grams kilo kilos kilogram kilograms ton tons tonne tonnes litre litres liter liters gallon gallons pint pints times people percentage quid grand acres hectares stitches layers steps cups spoons hives tiles nails coats'.split(
    ' ',
  ),
);

/** Words that stand for something said before; at the very start they leave a stranger lost. */
export const ANAPHORA = new Set(
  `it he she they them him his her their its those these it's he's she's they're they'd he'd she'd they've it'll that that's this such same another either neither both which also too because then therefore otherwise whereas or nor than`.split(
    ' ',
  ),
);

/** Words that VADER grades as felt but that talk uses as filler. */
export const NOT_FELT = new Set([
  'like',
  'yes',
  'no',
  'well',
  'thanks',
  'thank',
  'please',
  'good',
  'great',
  'nice',
  'fine',
  'okay',
  'sure',
  'cool',
  'interesting',
  'lol',
  'hope',
  'care',
  'best',
  'better',
  'worst',
  'love',
  'want',
  'help',
  'certain',
  'fair',
  'kind',
  'pretty',
  'share',
  'true',
  'clear',
  'clean',
  'easy',
  'super',
  'fun',
  'funny',
  'important',
  'free',
  'safe',
  'strong',
  'special',
  'value',
  'stuck',
  'stop',
  'demand',
  'low',
  'cut',
  'hard',
]);
