// What a recogniser should expect: the text that is being read to it. A trigram model of that text alone, with absolute discounting
// (Ney, Essen and Kneser 1994, "On structuring probabilistic dependences in stochastic language modelling"), written in the ARPA
// format that recognisers read. After Moreno, Joerg, Van Thong and Glickman 1998, "A recursive algorithm for the forced alignment of
// very long audio segments": a model biased to the text makes the rough words right nearly everywhere.

/** Taken from what was counted, for what was not. */
const DISCOUNT = 0.3;
const BEGIN = '<s>';
const END = '</s>';

interface Context {
  total: number;
  readonly next: Map<string, number>;
}

/**
 * An ARPA trigram model of words in the order they are said. The text is one run: a pause, which begins an utterance anew, may fall
 * anywhere, and the model backs off there.
 * @param words without white space; at least one
 * @throws RangeError when there is none
 */
export function biasedModel(words: readonly string[]): string {
  if (words.length === 0) throw new RangeError('no words to expect');
  const said = [BEGIN, ...words, END];
  const counts = new Map<string, number>();
  const pairs = new Map<string, Context>();
  const triples = new Map<string, Context>();
  for (const [i, word] of said.entries()) {
    if (word !== BEGIN) counts.set(word, (counts.get(word) ?? 0) + 1);
    if (i > 0) count(pairs, said[i - 1]!, word);
    if (i > 1) count(triples, `${said[i - 2]!} ${said[i - 1]!}`, word);
  }
  const total = said.length - 1;
  const ofOne = (word: string): number => (counts.get(word) ?? 0) / total;
  const ofTwo = (before: string, word: string): number => discounted(pairs.get(before)!, word, ofOne(word));
  const ones = [BEGIN, ...counts.keys()].map((word) => `${word === BEGIN ? '-99' : log10(ofOne(word))} ${word} ${backOff(pairs.get(word))}`);
  const twos = [...pairs].flatMap(([before, { next }]) =>
    [...next.keys()].map((word) => `${log10(ofTwo(before, word))} ${before} ${word} ${backOff(triples.get(`${before} ${word}`))}`),
  );
  const threes = [...triples].flatMap(([before, context]) =>
    [...context.next.keys()].map((word) => `${log10(discounted(context, word, ofTwo(before.slice(before.indexOf(' ') + 1), word)))} ${before} ${word}`),
  );
  return [
    ...['\\data\\', `ngram 1=${ones.length}`, `ngram 2=${twos.length}`, `ngram 3=${threes.length}`, ''],
    ...['\\1-grams:', ...ones, '', '\\2-grams:', ...twos, '', '\\3-grams:', ...threes, '', '\\end\\', ''],
  ].join('\n');
}

function count(contexts: Map<string, Context>, before: string, word: string): void {
  const context = contexts.get(before) ?? { total: 0, next: new Map<string, number>() };
  contexts.set(before, context);
  context.total += 1;
  context.next.set(word, (context.next.get(word) ?? 0) + 1);
}

/** Interpolated with the shorter context's probability. */
const discounted = ({ total, next }: Context, word: string, shorter: number): number =>
  (next.get(word)! - DISCOUNT) / total + ((DISCOUNT * next.size) / total) * shorter;

const backOff = (context: Context | undefined): string => log10(context === undefined ? 1 : (DISCOUNT * context.next.size) / context.total);
const log10 = (probability: number): string => Math.log10(Math.max(1e-9, probability)).toFixed(4);
