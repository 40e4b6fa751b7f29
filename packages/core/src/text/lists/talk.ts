/** Small closed lists of English the core reads by. Longer, graded lists belong to the signal that uses them. */

/** Sounds that only hold the floor. Dropped at the start of a candidate, struck when a cut is tightened. */
export const FILLER_SOUNDS = new Set(`um uh er erm uhm umm uhh hmm hm mm mhm ah eh mmm uh-huh mm-hmm`.split(' '));

/** Words that carry nothing at the start of a passage; they are skipped there, but kept in the middle of one. */
export const LEADING_FILLERS = new Set([
  ...FILLER_SOUNDS,
  'yeah',
  'yep',
  'yes',
  'no',
  'nope',
  'okay',
  'ok',
  'right',
  'well',
  'oh',
  'so',
  'and',
  'but',
  'anyway',
  'like',
  'sure',
  'exactly',
  'absolutely',
  'now',
  'alright',
]);

/** Fillers of more than one word, as normalised words. */
export const LEADING_FILLER_PHRASES: readonly (readonly string[])[] = [
  ['you', 'know'],
  ['i', 'mean'],
  ['sort', 'of'],
  ['kind', 'of'],
  ['all', 'right'],
  ['of', 'course'],
  ['let', 'me', 'see'],
  ['you', 'see'],
];

/** Abbreviations after which a full stop ends no sentence, however the next word is written. */
export const TITLES = new Set(`dr mr mrs ms prof st sgt capt lt col gen rev hon sr mt fig vs vol pp dept univ approx e.g i.e cf al`.split(' '));

/** Abbreviations that may end a sentence; they do where the next word starts with a capital. */
export const ABBREVIATIONS = new Set(
  `etc inc ltd co corp jr a.m p.m u.s u.k u.n e.u ph.d b.c a.d jan feb mar apr aug sept oct nov dec ave blvd rd min max hrs in ft oz lb lbs`.split(' '),
);

/** Words that open a new thought in talk. */
export const OPENERS = new Set(
  `so and but well now okay ok right anyway actually honestly look listen yeah yes no because then also first second finally however meanwhile basically oh if when once after before`.split(
    ' ',
  ),
);

export const QUESTION_WORDS = new Set(`what why how who when where which whose what's how's who's where's why's`.split(' '));

export const SUBJECT_PRONOUNS = new Set(
  `i you we they he she it there this that these those i'm i've i'd i'll you're you've you'll you'd we're we've we'll we'd they're they've they'll he's she's it's that's there's it'll he'd she'd they'd who's`.split(
    ' ',
  ),
);

/** Words no thought can stop on: they promise another. */
export const CANNOT_END = new Set(
  `the a an of to and or but because if my your our their his its i we they he she i'm i've i'd i'll we're we've you're they're it's that's there's he's she's with from for at by than as into onto every some is was are were be been being am very really quite just which who whose where while until since unless although though whether would could should will can might must going gonna wasn't isn't didn't don't couldn't these those not such more most like`.split(
    ' ',
  ),
);

/** Function words: they carry no topic. Used for key phrases, hashtags and lexical vectors. */
export const STOPWORDS = new Set(
  `a about above across actually after again against all almost alone along already also although always am among an and another any anybody anyone anything anyway are around as ask at away back be became because become been before being below between both but by came can can't cannot come could couldn't course day did didn't do does doesn't doing don't done down during each either else end enough even ever every everybody everyone everything except far few find first for from further gave get gets getting give go goes going gone gonna good got great had hadn't half has hasn't have haven't having he he'd he'll he's hello her here hers herself hey hi him himself his how however i i'd i'll i'm i've if in into is isn't it it's its itself just keep kind knew know known last least less let let's like little long look lot lots made make makes many may maybe me mean means might mine more most much must my myself near need never next no nobody none nor not nothing now of off often oh ok okay on once one ones only onto or other others our ours out over own part people per perhaps place please point put quite rather really right said same saw say saying says see seem seemed seems seen several shall she she'd she's should shouldn't show since so some somebody someone something sometimes somewhere sort still stuff such sure take taken takes tell than thank thanks that that's the their theirs them themselves then there there's these they they'd they'll they're they've thing things think this those though thought through time times to today together told too took toward tried try turn two under until up upon us use used very want wanted wants was wasn't way ways we we'd we'll we're we've well went were weren't what what's whatever when where whether which while who who's whole whose why will with within without won't would wouldn't year years yeah yes yet you you'd you'll you're you've your yours yourself`.split(
    /\s+/,
  ),
);

/** Nouns so general, or so much a measure, that alone they name no topic. Together with another word they may. */
export const GENERIC_NOUNS = new Set(
  `name names number numbers god seconds second minute minutes hour hours day days week weeks weekend month months morning afternoon evening night tonight man men woman women guy fella bloke lady kid kids boy girl house home room door kind sort lot bit side end start part place time moment fact question questions answer problem reason story word words life world week job work money price euro euros dollar dollars pound pounds pence cent cents percent half quarter hundred thousand million person mate love bucks metre metres feet inch inches top bottom front inside outside rest matter idea point case stuff whole somebody nothing monday tuesday wednesday thursday friday saturday sunday january february march april june july august september october november december`.split(
    ' ',
  ),
);

/** What figures are counted in: never part of a topic, alone or with another word. */
export const MEASURES = new Set(
  'cent cents percent euro euros pence pound pounds dollar dollars metre metres feet inch inches second seconds minute minutes hundred thousand million kilo kilos kilogram kilograms gram grams tonne tonnes litre litres liter liters centimetre centimetres centimeter centimeters millimetre millimetres millimeter millimeters kilometre kilometres kilometer kilometers mile miles hectare hectares acre acres kilowatt kilowatts watt watts degree degrees yard yards gallon gallons ounce ounces quantity'.split(
    ' ',
  ),
);
