import { QUESTION_WORDS } from './talk.js';

const words = (list: string): ReadonlySet<string> => new Set(list.trim().split(/\s+/));

/** Things on a screen and what one does with them: many in a sentence make a walk-through. */
const SCREEN_WORDS = words(`
  click clicks clicking button buttons tab tabs menu dropdown drop-down icon icons toggle toggles slider sliders checkbox dashboard sidebar
  panel panels screen cursor scroll scrolling drag dragging paste copy settings setting upload export import download template templates
  folder file files app page website browser login log column cell corner box window link timeline layer layers slot slots pad mixer
  canvas editor preview save duplicate rename select selected pixel keyboard press hover
`);

/** Where something is, for people who can see it. */
const POINTING_WORDS = words(`here there this these those that one left right top bottom up down over below above next`);

/** Words of a show about itself. */
const CHANNEL_WORDS = words(`
  subscribe subscribing channel episode podcast video videos show description comments comment notes link links follow like bell review
  rating ratings stars newsletter listeners viewers chat stream webinar session slides slide recording recorded mute microphone mic agenda
  handout questions website members membership
`);

/** Words of an offer. */
const OFFER_WORDS = words(`
  sponsor sponsored sponsoring sponsors code discount checkout percent free trial offer deal coupon promo shipping refund bundle sign
  upgrade supported brought partner package half price months bonus
`);

const GREETING_WORDS = words(`hello hi hey welcome morning evening afternoon everybody everyone folks guys thanks thank joining glad goodbye bye cheers`);

const WAITING_WORDS = words(`second sec minute moment loading load wait waiting hang hold bear come still working refresh connecting rendering sorry`);

export const SAYING_WORDS = words(`said says say goes asked told replied whispered shouted thought`);

export const NEGATIONS = words(
  `not no never nobody nothing none neither nor without isn't aren't wasn't weren't don't doesn't didn't can't couldn't won't wouldn't shouldn't haven't hasn't hadn't`,
);

const MUST_WORDS = words(`should must need ought always never stop start make sure don't remember try avoid`);

const ALL_WORDS = words(`every everybody everyone all always never nobody nothing most only any anybody none everything whole entire`);

const FAMILY_WORDS = words(
  `mother father mum dad mom wife husband son daughter brother sister grandmother grandfather nan grandad kid kids child children baby uncle aunt friend`,
);

const PAST_WORDS = words(`
  was were had did went came got said told gave took found saw thought knew felt left made put ran sat stood heard began brought bought
  kept lost met paid rang sent sold spent woke wrote broke fell held walked looked asked opened turned called phoned showed
`);

export const COMPARING_WORDS = words(
  `better worse more less bigger smaller faster slower cheaper best worst most least than rather instead opposite difference same`,
);

/** What a sentence's words are counted in, by the name of the feature; the fitted roles know them in this order. */
export const ROLE_LISTS: readonly (readonly [string, ReadonlySet<string>])[] = [
  ['screen', SCREEN_WORDS],
  ['pointing', POINTING_WORDS],
  ['channel', CHANNEL_WORDS],
  ['offer', OFFER_WORDS],
  ['greets', GREETING_WORDS],
  ['waits', WAITING_WORDS],
  ['saying', SAYING_WORDS],
  ['negation', NEGATIONS],
  ['must', MUST_WORDS],
  ['all', ALL_WORDS],
  ['family', FAMILY_WORDS],
  ['past', PAST_WORDS],
  ['comparing', COMPARING_WORDS],
  ['i', new Set(['i', "i'm", "i've", "i'd", "i'll", 'me', 'my', 'myself'])],
  ['you', new Set(['you', 'your', "you're", "you've", "you'll", "you'd", 'yourself'])],
  ['we', new Set(['we', "we're", "we've", "we'll", 'our', 'us'])],
  ['they', new Set(['he', 'she', 'they', 'him', 'her', 'his', 'them', 'their', "he's", "she's", "they're", "they'd", "he'd", "she'd"])],
  ['going to', new Set(["i'll", "we'll", 'gonna', "let's", 'going', 'let'])],
];

/** What a sentence may start with, likewise. */
export const ROLE_STARTS: readonly (readonly [string, ReadonlySet<string>])[] = [
  ['starts so', new Set(['so', 'okay', 'ok', 'right', 'now', 'alright', 'anyway'])],
  ['starts and', new Set(['and', 'then', 'or'])],
  ['starts but', new Set(['but', 'yet', 'instead', 'however'])],
  ['starts if', new Set(['if', 'when', 'because', 'once'])],
  ['starts asking', QUESTION_WORDS],
  ['starts turning', new Set(['do', 'does', 'did', 'is', 'are', 'was', 'were', 'can', 'could', 'would', 'should', 'have', 'has', 'will'])],
  ['starts i', new Set(['i', "i'm", "i've", "i'd", "i'll"])],
  ['starts we', new Set(['we', "we're", "we've", "we'll", "let's"])],
  ['starts you', new Set(['you', "you're", "you've", "you'll"])],
  ['starts it', new Set(['it', "it's", 'that', "that's", 'this', 'these', 'there', "there's"])],
  ['starts they', new Set(['he', 'she', 'they', "he's", "she's", "they're"])],
  ['starts the', new Set(['the', 'a', 'an'])],
  ['starts yes', new Set(['yes', 'no', 'yeah', 'mm', 'oh', 'well', 'ah'])],
];
