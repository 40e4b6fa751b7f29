/** Words by which speech is turned into writing. Chosen by hand for this program unless a list says otherwise. */

const phrases = (text: string): readonly (readonly string[])[] =>
  text
    .trim()
    .split(/\s*;\s*/)
    .map((phrase) => phrase.split(' '));

/** They only soften what is said; it stays the same without them, wherever they stand. Longer ones first. */
export const HEDGES = phrases(
  "and i think this is something that; i would say that; i have to say; i must say; i'll be honest with you; i'm honest with you; to be honest with you; to be perfectly honest; to be honest; to be fair; as far as i know; as i said; like i said; if you like; if you will; let us say; let's say; i would say; i'd say; i should say; i think that; i think; i mean; i guess; i suppose; i reckon; i believe; you know what i mean; if that makes sense; kind of; sort of; more or less; pretty much; in a way; as it were; so to speak; of course; at the end of the day; for what it is worth; in my opinion; for some reason; actually; basically; obviously; literally; honestly; frankly; essentially; simply; definitely; certainly; really; oh my goodness; my goodness; gosh; blimey; wow",
);

/** Only between commas, or at an end: elsewhere they are part of the sentence. */
export const ASIDES = phrases(
  "how do you call it; what do you call it; how do you say; how do i say; how do you say that; what is it called; what's it called; what's the word; what; let me get this right; thereabouts; or thereabouts; you know; i don't know; like; right; okay; yes; yeah; no; well; you see; you can see; can you see that; mind you; say; now; then; so; again; anyway; also; please; too; sorry; oh; or so; it must have been; i'd guess; there",
);

/** At the start of a sentence they join it to what was said before. */
export const OPENINGS = phrases(
  "what i should have said is; i should have said; in that case; what i do see is; now look at this; look at this; let me show you; let me say; last one; and this one's from me; this one's from me; and what i see quite often is that; what i see quite often is that; what i find is that; what i find is; what i would say is; the main thing is that; the main thing is; the problem is that; the problem is; the trouble is that; the trouble is; the fact is that; the fact is; the reality is that; the reality is; what happens is that; what happens is; what happened was; the thing is that; the thing is; the point is that; the point is; the truth is; the other thing is that; the other thing is; another thing is; first thing; first of all; and then; but then; so then; so yes; so yeah; and so; but so; i mean; you know; you see; look; listen; okay; ok; right; well; oh; now; so; and; but; or; then; also; because; yes; yeah; no; anyway; actually; basically; honestly; even so; after that; again; sure; exactly; all right; alright; of course; one thing; like; that said; in fact; as well; finally; second; third; first; secondly; thirdly; plus; which means; which is why; that means; it means; let me tell you; i tell you; i'll tell you; i'll be honest; i have to say; remember",
);

/** At the end of a sentence nothing is lost with them. */
export const TAILS = phrases(
  "or something like that; something like that; and things like that; and stuff like that; and all that; and so on; or something; or whatever; or anything; and stuff; and things; you know; i mean; i think; i guess; i suppose; in my opinion; if you like; as well; or so; anyway; though; basically; actually; really; honestly; obviously; of course; right; okay; ok; yeah; yes; no; then; so; too; is that right; don't worry; at the moment; for me; to be honest; to be fair; as i said; and; but; or; that's it; that's all; there; here; now; today",
);

/** Numbers by their words. */
export const UNITS = new Map(
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'
    .split(' ')
    .map((word, value) => [word, value] as const),
);
export const TENS = new Map('twenty thirty forty fifty sixty seventy eighty ninety'.split(' ').map((word, k) => [word, 10 * (k + 2)] as const));
export const SCALES = new Map([
  ['hundred', 100],
  ['thousand', 1_000],
  ['million', 1_000_000],
  ['billion', 1_000_000_000],
]);

export const MONEY = new Set('pound pounds quid euro euros dollar dollars bucks'.split(' '));
/** What is paid in hundreds by the one of it, and in units. Common practice; of an hour or a bag it may be either, a minute and a mile have other figures than prices. */
export const BY_THE_HUNDRED = new Set('tonne ton night day week fortnight month quarter term year acre hectare'.split(' '));
export const BY_THE_UNIT = new Set(
  'kilo kilogram gram litre liter pint gallon metre roll loaf slice bun egg dozen jar tin can cup bottle packet sheet piece'.split(' '),
);

/** What is counted with a figure even when it is small: "3 weeks". */
export const COUNTED = new Set(
  (
    'percent euro euros pence pound pounds dollar dollars cent cents kilo kilos kilometre kilometres mile miles metre metres centimetre ' +
    'centimetres millimetre millimetres mil foot feet inch inches second seconds minute minutes hour hours day days week weeks month months ' +
    'year years degree degrees gram grams litre litres'
  ).split(' '),
);

/** Verbs that tell how somebody is, not what to do: "you know" is no advice. */
export const STATES = new Set(
  'are is be was were have had has know think see get got want need find hear mean feel like love hate remember realise notice understand end look wonder say said lose might could can would will may expect come live earn'.split(
    ' ',
  ),
);

/** Who says one of these tells somebody what to do. */
export const ADVISES: ReadonlySet<string> = new Set('should must never always avoid make remember better try ought check'.split(' '));
