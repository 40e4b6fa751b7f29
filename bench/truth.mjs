// How well it is told whether words say only what was said: the words that three editors wrote for 165 passages
// (bench/editors/words) against their own passage, where all should pass, against other passages, where none should, and with one
// figure changed or one name put in. Two thresholds of the check were set by
// looking at these very figures.
import { namesOf } from '@sift-reel/core';
import { checkFigures, checkTruth, saidPassage } from '@sift-reel/core/fitting';
import { mean } from '@sift-reel/fitting';
import { readFlatSet } from './lib/marked-set.mjs';
import { readWordsSet, wordsOf } from './lib/words-set.mjs';
import { row } from './measure.mjs';

const talks = new Map(readFlatSet().map((one) => [one.name, one]));
const passages = readWordsSet().map((passage) => {
  const { transcript, firstWord, endWord } = wordsOf(talks, passage);
  const words = transcript.words.slice(firstWord, endWord).map((word) => word.text);
  const said = saidPassage(words, [...namesOf(transcript.words, transcript.speakers)]);
  return { ...passage, said, texts: passage.written.flatMap((one) => [...one.titles, one.cover, one.text]) };
});
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
row('', 'texts', 'marked', 'figure', 'name', 'quotation', 'claim');
for (const kind of ['own passage', 'figure changed', 'name put in', 'same talk', 'stranger']) {
  const some = cases.filter((one) => one.kind === kind);
  const found = some.map(({ text, against }) => checkTruth(text, against.said));
  const share = (rule) => mean(found.map((list) => (list.some((one) => rule === null || one.rule === rule) ? 1 : 0))).toFixed(3);
  row(kind, some.length, ...[null, 'figure', 'name', 'quotation', 'claim'].map(share));
  if (process.argv.includes('--show') && kind === 'own passage')
    some.forEach(({ text }, i) => found[i].forEach((one) => process.stdout.write(`  ${one.rule}: “${one.text}” in “${text}”\n`)));
}
const inLists = passages.map(
  ({ written, said }) => written.flatMap(({ tags, keywords }) => [...tags, ...keywords]).filter((text) => checkFigures(text, said).length > 0).length,
);
row(
  'tags and keywords of their own passage with a figure that is marked',
  inLists.reduce((sum, n) => sum + n, 0),
);
