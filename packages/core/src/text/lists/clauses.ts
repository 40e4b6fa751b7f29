/** Words by which clauses of spoken sentences are told apart. Chosen by hand for this program. */

const words = (list: string): ReadonlySet<string> => new Set(list.split(' '));
const phrases = (list: string): readonly (readonly string[])[] => list.split(', ').map((phrase) => phrase.split(' '));

/** Words that join a clause to one that could stand without it. */
export const CLAUSE_JOINERS = words('and but so');

/** Words that open a clause which needs the one behind its comma: "if it is cold, you wait". */
export const LEANS_ON_MAIN = words('if when because although though unless until while since once whenever wherever after before as');

/** Words that tie what they open to what was said before. */
export const RELATIVES = words('which who whom whose that than as or because though although until unless where and but so then');

/** Words that go before a subject and can go away there: what is left stands by itself. */
export const JOINS_BACK = words("then or because 'cause cause cos whereas");

/** Words with which no candidate begins: they lean on what was cut off. */
export const TIED = words("and but or nor so because 'cause cos whereas whose whom than");

/** Words that open a question or a condition, which stand without a subject before the verb. */
export const STANDING_STARTS = words("if when what why how what's how's there's here's");

/** What trails behind the point of a sentence, longest first. */
export const TAILS = phrases(
  'so there you go, so there we go, so there we are, so there you are, you know what i mean, if you know what i mean, if that makes sense, and all that kind of thing, and that kind of thing, and things like that, and stuff like that, and all that stuff, or something like that, and all of that, and all that, and so on, and so forth, or whatever, and whatnot, and stuff, but yeah, and yeah, so yeah, so yes, but anyway, so anyway, yeah, so, and, but, um, uh, er, erm',
);

/** What does so only behind a comma: "that is right" ends with its point. */
export const TAILS_AFTER_PAUSE = phrases(
  'you know, i guess, i suppose, i mean, i think, sort of thing, kind of thing, kind of, sort of, right, okay, ok, anyway, basically, like, really, well',
);

/** "I think so" ends with its point. */
export const TAKES_SO = words(
  'think hope suppose say says said saying guess believe do did does doing done even not or ever be been being is was imagine expect reckon seem seems why told',
);
