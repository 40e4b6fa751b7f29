/** Words by which titles are judged. Chosen by hand for this program unless a list says otherwise. */

/** At the start of a line these lean on what was said before. */
export const LEANING = new Set(
  "it it's its he he's he'd she she's she'd they they're they'd that that's this which and or because them there there's there've".split(' '),
);

export const VAGUE = new Set('something anything stuff thing things somehow maybe probably basically whatever okay ok'.split(' '));

/** "Do you", "can you", "shall we": asked of somebody in the room, not of whoever reads the title. */
export const ASKS_ROOM = new Set('do does did can could would will shall should are is have may'.split(' '));

/** What somebody did, without who: "took a bonus", as "is nine euro" is without what. Irregular ones; the others end in -ed. */
export const DID = new Set(
  (
    'took gave went had made got came saw knew found felt kept left lost sold bought told thought ran put sat stood held brought began fell drove wrote ' +
    'paid sent spent built met led lit won wore threw grew drew flew broke spoke stole chose froze rose rode woke swore tore shook ate drank sang swam ' +
    'hung dug stuck struck swung shot fought caught taught slept swept wept meant dealt learnt burnt said heard became forgot hid bit'
  ).split(' '),
);

/** They begin what waits for the other half: "if the promise is wrong". */
export const WAITING = new Set('if when unless although whenever while once'.split(' '));

/** Verbs that end in -ing by themselves: "they bring". */
export const ENDS_IN_ING = new Set('bring sing ring swing sting spring cling fling string'.split(' '));

/** Nobody goes on with a subject after these; after "because", "and" or "like" one does: "I left because I was tired". */
export const BREAKS_OFF = new Set('the a an of to my your our their his its is was are were be been would could should will can might must very'.split(' '));

/** What was, of whoever: `DID` and endings in -ed tell the rest. */
export const EARLIER_THAN_NOW = new Set('was were had did used wanted stopped rang'.split(' '));

/** Somebody's words or thoughts are told, not what they are about. */
export const REPORTS = new Set('said says say saying asked asks ask asking told tells tell thought think thinks reckon rang'.split(' '));

/** Something went wrong, or cost something that it need not have. */
export const MISTAKES = new Set(
  (
    'mistake mistakes wrong wrongly fault faults forgot forget forgotten lost lose loses losing wasted waste wasting ruined ruin ruins broke broken missed ' +
    'failed fail fails regret regretted blame blamed blaming fined stuck overpaid'
  ).split(' '),
);

/** Whoever says these means it: duties, comparisons, all or nothing. */
export const FIRM = new Set(
  (
    "must never always only need needs should don't can't cannot won't most more less than instead better best worst without nobody nothing everybody " +
    'everyone every no not rather enough too before until'
  ).split(' '),
);

/** They point at what only those in the room see. */
export const POINTS = new Set("here there this that these those that's there's here's one ones".split(' '));

/** A line that ends in one of these tells when or where, and what matters stands before. */
export const WHEN_AND_WHERE = new Set(
  (
    'here there now then anyway tonight today yesterday tomorrow year month week day morning afternoon evening night time again either well though already ' +
    'first monday tuesday wednesday thursday friday saturday sunday spring summer autumn winter'
  ).split(' '),
);
