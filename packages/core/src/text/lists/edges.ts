/** Words by which starts and ends of passages are judged. Chosen by hand for this program unless a list says otherwise. */

/** "It is", "that is", "there is" and "this is" may open when what they stand for follows at once. */
export const PRESENTING = new Set(['the', 'a', 'an', 'one', 'my', 'your', 'our', 'not', 'like', 'called']);

/** "This is why" may open as well; "that's why" and "it's how" draw a conclusion from what was said. */
export const CONCLUDING = new Set(['what', 'why', 'how', 'where', 'when', 'who']);

/** "The second was": it counts on from what was said. */
export const COUNTED = new Set(['second', 'third', 'fourth', 'other', 'next', 'last', 'same']);

/** Words that stand for what was named before. */
export const STANDS_FOR = new Set(['it', "it's", 'that', "that's", 'them', 'him', 'her', 'those', 'this', 'these']);

/** Words that stand for somebody named before. */
export const PERSONS = new Set(['he', "he's", "he'd", "he'll", 'she', "she's", "she'd", "she'll", 'him', 'her', 'his', 'hers']);

/** Words that take up the thought before them. */
export const TAKES_UP = new Set(['because', 'which', 'or', 'and', 'but', 'so', 'except', 'until', 'then']);

/** Nouns that nothing said later stands for. */
export const TIMES = new Set(
  'time times second seconds minute minutes hour hours day days week weeks month months year years morning afternoon evening night spring summer autumn winter'.split(
    ' ',
  ),
);

/** Words of which such a sentence has one; most have none, and are not looked at further. */
export const SETS_UP_BY = new Set(
  "not isn't wasn't thing things rule rules reason reasons question questions what here's happens happened did problem trick secret answer truth".split(' '),
);

/** Of the words that promise, those that do it by leaving nobody out. */
export const SWEEPING = new Set(['never', 'nobody', 'everyone', 'everybody', 'the worst', 'the best', 'most people', 'stop', 'the only']);

/** Openers that as often go on with the sentence before. */
export const WEAK_OPENERS = new Set(['and', 'because', 'then', 'after', 'before', 'when', 'if', 'once', 'but']);
