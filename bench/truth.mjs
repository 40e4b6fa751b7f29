// How well it is told whether words say only what was said: the words that three editors wrote for 165 passages
// (bench/editors/words) against their own passage, where all should pass, against other passages, where none should, and with one
// figure changed or one name put in. Nothing is fitted on them but two thresholds, chosen on the first half of the talks.
import { checkTruth, saidPassage, sentencesOf } from '@sift-reel/core/fitting';
import { mean } from '@sift-reel/fitting';
import { embedAll, readFlatSet } from './lib/marked-set.mjs';
import { readWordsSet, wordsOf } from './lib/words-set.mjs';
import { row } from './measure.mjs';

const talks = new Map(readFlatSet().map((one) => [one.name, one]));
/** Who speaks, and what is written as a name is. */
const namesOf = ({ words, speakers }) => [
  ...speakers,
  ...words.filter(({ text }, i) => /^\p{Lu}/u.test(text) && i > 0 && !/[.!?]["”’]*$/.test(words[i - 1].text)).map(({ text }) => text),
];
const passages = readWordsSet().map((passage) => {
  const { transcript, firstWord, endWord } = wordsOf(talks, passage);
  const words = transcript.words.slice(firstWord, endWord).map((word) => word.text);
  const sentences = transcript.sentences
    .filter((one) => one.firstWord < endWord && firstWord < one.endWord)
    .map((one) =>
      transcript.words
        .slice(one.firstWord, one.endWord)
        .map((word) => word.text)
        .join(' '),
    );
  return {
    ...passage,
    sentences,
    said: saidPassage(words, namesOf(transcript)),
    texts: passage.written.flatMap((one) => [...one.titles, one.cover, one.text]),
  };
});
const lines = [...new Set(passages.flatMap(({ texts }) => texts.flatMap((text) => sentencesOf(text).map(([from, to]) => text.slice(from, to)))))];
const [said, written] = await embedAll([passages.flatMap(({ sentences }) => sentences), lines]);
const rowOf = new Map(lines.map((line, i) => [line, i]));
let at = 0;
for (const passage of passages) {
  passage.from = at;
  at += passage.sentences.length;
}
const dot = (i, k) => {
  let sum = 0;
  for (let d = 0; d < said.dimensions; d += 1) sum += written.data[i * said.dimensions + d] * said.data[k * said.dimensions + d];
  return sum;
};
const meaningIn = (passage) => (sentence) => {
  const i = rowOf.get(sentence);
  return i === undefined ? null : Math.max(...passage.sentences.map((_, k) => dot(i, passage.from + k)));
};

const cases = [];
passages.forEach((passage, n) => {
  const talkMates = passages.filter((one) => one.talk === passage.talk && one !== passage);
  const others = { stranger: passages[(n + 80) % passages.length], 'same talk': talkMates[n % talkMates.length] };
  for (const text of passage.texts) {
    cases.push({ kind: 'own passage', text, against: passage });
    for (const [kind, against] of Object.entries(others)) cases.push({ kind, text, against });
    const changed = text.replace(/\d+/, (digits) => String(Number(digits) + 7 + (n % 5)));
    if (changed !== text) cases.push({ kind: 'figure changed', text: changed, against: passage });
    const invented = text.replace(/ (the|a|my|your) /, ' $1 Kestrelwick ');
    if (invented !== text) cases.push({ kind: 'name put in', text: invented, against: passage });
  }
});
for (const withMeaning of [false, true]) {
  row(withMeaning ? 'with meaning' : 'by words alone', 'texts', 'marked', 'figure', 'name', 'quotation', 'claim');
  for (const kind of ['own passage', 'figure changed', 'name put in', 'same talk', 'stranger']) {
    const some = cases.filter((one) => one.kind === kind);
    const found = some.map(({ text, against }) => checkTruth(text, against.said, withMeaning ? meaningIn(against) : undefined));
    const share = (rule) => mean(found.map((list) => (list.some((one) => rule === null || one.rule === rule) ? 1 : 0))).toFixed(3);
    row(kind, some.length, ...[null, 'figure', 'name', 'quotation', 'claim'].map(share));
    if (process.argv.includes('--show') && kind === 'own passage')
      some.forEach(({ text }, i) => found[i].forEach((one) => process.stdout.write(`  ${one.rule}: “${one.text}” in “${text}”\n`)));
  }
}
