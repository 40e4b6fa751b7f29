// Sentence ends restored in text whose punctuation was taken away.
// node bench/ends.mjs            trains on one half and judges on the other
// node bench/ends.mjs --write    trains on all that is for training and writes packages/core/src/text/ends: gap-weights.ts and
//                                word-odds-table.ts
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { normalise, splitSentences, winkTagger } from '@sift-reel/core';
import { GAP_FEATURES, GAP_ODDS, GAP_PLACES, oddsKey, OddsTable, packNumbers, packOdds, readWordOdds, writeGapFeatures } from '@sift-reel/core/fitting';
import { fitSparseLogistic, readLabelled, readTalk, seededChance } from '@sift-reel/fitting';
import { addresses, chapters, letters } from './lib/corpora.mjs';
import { oddsOfEnds } from './lib/language-model.mjs';
import { SPLIT } from './lib/marked-set.mjs';
import { row } from './measure.mjs';

const HERE = import.meta.dirname;
/** How much is kept of the language model: the commonest words, and what tells most of the rest. */
const KEPT = { words: 12_000, entries: 160_000 };
/** Share of the ends that get no pause where pauses are rough, and of the other gaps that get one. */
const MISSING = 0.3;
const MISLEADING = 0.1;

/** Words with the ends of their sentences, from punctuated text that the core reads exactly. */
function endsOf(text) {
  const words = text
    .split(/\s+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word))
    .map((word, i) => ({ text: word, kind: 'word', speaker: 0, startMs: 400 * i, endMs: 400 * i + 380 }));
  const { sentences } = splitSentences(words, winkTagger);
  return { texts: words.map((word) => word.text), ends: new Set(sentences.map((s) => s.endWord)) };
}
const ofSentences = (sentences) => {
  const texts = [];
  const ends = new Set();
  for (const sentence of sentences) {
    texts.push(...sentence.split(/\s+/).filter((word) => /[\p{L}\p{N}]/u.test(word) && !word.startsWith('[')));
    ends.add(texts.length);
  }
  return { texts, ends };
};

const talks = readdirSync(join(HERE, 'editors', 'talks')).sort();
const talkOf = (name) =>
  readTalk(
    readFileSync(
      join(
        HERE,
        'editors',
        'talks',
        talks.find((file) => file.startsWith(name)),
      ),
      'utf8',
    ),
    Number(name),
  );
const demo = readdirSync(join(HERE, '..', 'demo', 'recordings')).map((file) =>
  endsOf(
    readFileSync(join(HERE, '..', 'demo', 'recordings', file), 'utf8')
      .split('\n')
      .map((line) => line.replace(/^[^:]{1,40}: /, ''))
      .join(' '),
  ),
);
const subjects = readdirSync(join(HERE, 'roles', 'subjects')).map((file) => {
  const sentences = readLabelled(file, readFileSync(join(HERE, 'roles', 'subjects', file), 'utf8')).map(({ text }) => text);
  return ofSentences(sentences.filter((text) => text.split(' ').length > 3));
});
/** A word that a comma or the like follows. */
const CLAUSE = /[,;:—–]["'”’)\]]*$/;
const firstWords = (text, n) => text.split(/\s+/).slice(0, n).join(' ');
const speeches = addresses(1945);
const novel = chapters();
const mail = letters().map((paragraphs) => paragraphs.join(' '));
const pick = (list, remainder, words) => list.filter((_, i) => i % 2 === remainder).map((text) => endsOf(firstWords(text, words)));

const train = [
  ...subjects,
  ...SPLIT.fit.map((name) => ofSentences(talkOf(name).sentences.map(({ text }) => text))),
  ...pick(speeches, 0, 2_500),
  ...pick(novel, 0, 800),
  ...mail.map(endsOf),
];
// Talk counts more than speeches and the novel: it is what the product reads.
const repeats = (i) => (i < subjects.length + SPLIT.fit.length ? 2 : 1);

function examplesOf(list, table) {
  const places = [];
  const values = [];
  const ofEnds = [];
  const ofClauses = [];
  const row = new Int32Array(GAP_FEATURES);
  const odds = new Float32Array(GAP_ODDS);
  list.forEach(({ texts, ends }, i) => {
    const words = texts.map(normalise);
    const tags = winkTagger(words);
    const writeOdds = readWordOdds(words, table);
    for (let k = 1; k < words.length; k += 1) {
      writeGapFeatures(words, tags, k, row);
      writeOdds(k, odds);
      for (let n = 0; n < repeats(i); n += 1) {
        places.push(...row);
        values.push(...odds);
        ofEnds.push(ends.has(k) ? 1 : 0);
        ofClauses.push(CLAUSE.test(texts[k - 1]) ? 1 : 0);
      }
    }
  });
  return {
    places: Int32Array.from(places),
    features: GAP_FEATURES,
    numbers: { values: Float32Array.from(values), columns: GAP_ODDS },
    labels: { ends: Uint8Array.from(ofEnds), clauses: Uint8Array.from(ofClauses) },
  };
}

/** Commas and the like are looked for where no sentence ends. */
function withoutEnds({ places, features, numbers: { values, columns }, labels }) {
  const rows = [...labels.ends.keys()].filter((r) => labels.ends[r] === 0);
  const of = (list, width) => rows.flatMap((r) => [...list.subarray(width * r, width * (r + 1))]);
  return [
    Uint8Array.from(rows, (r) => labels.clauses[r]),
    { places: Int32Array.from(of(places, features)), features, numbers: { values: Float32Array.from(of(values, columns)), columns } },
  ];
}

/** What is taken away where capitals stay. */
const MARKS = /[.,;:!?…"“”()[\]]|[—–]|^['‘]|['’]$/g;
const large = (word, first) => (first ? word.replace(/\p{L}/u, (letter) => letter.toUpperCase()) : word);
/** Lines of so many words each; none where it is 0. */
const lineStarts = (words, lines) => new Set(lines > 0 ? Array.from({ length: Math.ceil(words / lines) }, (_, k) => k * lines) : []);

/** Found and true ends, inside the text: the last one is given. */
function judge(list, timed, { turns = false, capitals = false, lines = 0 } = {}) {
  let hit = 0;
  let found = 0;
  let there = 0;
  for (const { texts, ends, words: given } of list) {
    const words = texts.map((text, i) => ({
      text: (capitals ? large(text.replace(MARKS, ''), lines > 0 && i % lines === 0) : normalise(text)) || text,
      kind: 'word',
      speaker: turns ? given[i].speaker : 0,
      startMs: timed ? given[i].startMs : 400 * i,
      endMs: timed ? given[i].endMs : 400 * i + 390,
    }));
    const restored = splitSentences(words, winkTagger, { wordTimes: timed ? 'given' : 'spread', lineStarts: lineStarts(words.length, lines) }).sentences.map(
      (s) => s.endWord,
    );
    for (const end of restored) {
      if (end === words.length) continue;
      found += 1;
      if (ends.has(end)) hit += 1;
    }
    there += [...ends].filter((end) => end < words.length).length;
  }
  const [precision, recall] = [hit / found, hit / there];
  return [`P ${precision.toFixed(3)}`, `R ${recall.toFixed(3)}`, `F1 ${((2 * precision * recall) / (precision + recall)).toFixed(3)}`];
}

if (process.argv.includes('--write')) {
  const odds = packOdds(new Map((await oddsOfEnds(KEPT)).reverse().map(({ kind, words, value }) => [oddsKey(kind, ...words), value])));
  const set = examplesOf(train, new OddsTable(odds));
  const fit = (labels, rows) =>
    packNumbers(fitSparseLogistic({ ...rows, labels }, { size: GAP_PLACES, epochs: 12, rate: 0.02, pull: 5e-5, chance: seededChance(4) }));
  const ends = fit(set.labels.ends, set);
  const clauses = fit(...withoutEnds(set));
  const file = (name, text) => writeFileSync(join(HERE, '..', 'packages', 'core', 'src', 'text', 'ends', name), text);
  const made = (from) => `// Written by \`npm run bench -- ends --write\` from ${from}. Do not edit.\n`;
  const block = (name, { scales, bytes }) => `export const ${name} = {\n  scales: '${scales}',\n  bytes: '${bytes}',\n} as const;\n`;
  file('gap-weights.ts', `${made(`${set.labels.ends.length} gaps between words`)}${block('END_WEIGHTS', ends)}\n${block('CLAUSE_WEIGHTS', clauses)}`);
  file(
    'word-odds-table.ts',
    `${made('the language model of Debian’s pocketsphinx-en-us (see docs/licences.md)')}export const WORD_ODDS = {\n  keys: '${odds.keys}',\n  values: '${odds.values}',\n} as const;\n`,
  );
} else {
  /** The same words with other pauses: `pauseOf` is given the pause before a word, whether a sentence ends there, and the word before. */
  const paused = (one, pauseOf) => {
    let shift = 0;
    const words = one.words.map((word, i) => {
      if (i > 0) {
        const pause = word.startMs - one.words[i - 1].endMs;
        shift += pauseOf(pause, one.ends.has(i), one.words[i - 1].text) - pause;
      }
      return { ...word, startMs: Math.round(word.startMs + shift), endMs: Math.round(word.endMs + shift) };
    });
    return { ...one, words };
  };
  /** Takes the pause from a share of the ends, and puts one before some other words. */
  const roughPauses = (one, seed) => {
    const chance = seededChance(seed);
    return paused(one, (pause, end) =>
      end ? (chance() < MISSING ? Math.min(pause, 20) : pause) : chance() < MISLEADING ? pause + 160 + 400 * chance() : pause,
    );
  };
  /** Pauses spread as in speech: lengths log-normal, one end in five and one comma in two without. Common practice, from memory. */
  const asPeoplePause = (share) => (one, seed) => {
    const chance = seededChance(seed);
    const bell = () => Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
    const about = (ms) => ms * Math.exp(0.65 * bell());
    const pauseOf = (end, clause) => {
      if (end) return chance() < 0.22 ? 15 : about(450);
      if (clause) return chance() < 0.5 ? 15 : about(230);
      return chance() < 0.04 ? about(280) : 15;
    };
    return paused(one, (_, end, before) => share * pauseOf(end, CLAUSE.test(before)));
  };
  /** Every comma heard as long as an end, and both short. */
  const allAlike = (one) => paused(one, (_, end, before) => (end || CLAUSE.test(before) ? 110 : 0));
  const withTimes = (talk) => {
    const voices = [...new Set(talk.sentences.map((s) => s.speaker))];
    const words = talk.sentences
      .flatMap((s) => s.words.map((word) => ({ ...word, speaker: voices.indexOf(s.speaker) })))
      .filter((word) => /[\p{L}\p{N}]/u.test(word.text) && !word.text.startsWith('['));
    return { ...ofSentences(talk.sentences.map(({ text }) => text)), words };
  };
  /** A text read aloud as the marked talks are: a sentence a line, with the same made pauses. */
  const readAloud = (text, seed) => {
    const { texts, ends } = endsOf(text);
    const lines = texts.map((word, i) => word + (ends.has(i + 1) ? '\n' : ' ')).join('');
    return withTimes(readTalk(lines.replace(/: /g, ', '), seed));
  };
  const held = SPLIT.heldOut.map((name) => withTimes(talkOf(name)));
  row('held-out talks, with pauses', ...judge(held, true));
  row('the same, and who speaks', ...judge(held, true, { turns: true }));
  row('held-out talks, with rough pauses', ...judge(held.map(roughPauses), true));
  row('held-out talks, as people pause', ...judge(held.map(asPeoplePause(1)), true));
  row('the same, and who speaks', ...judge(held.map(asPeoplePause(1)), true, { turns: true }));
  row('the same pauses, half as long', ...judge(held.map(asPeoplePause(0.5)), true));
  row('held-out talks, commas heard alike', ...judge(held.map(allAlike), true));
  const kept = { capitals: true };
  row('held-out talks, capitals kept', ...judge(held, false, kept));
  row('each line large as well', ...judge(held, false, { ...kept, lines: 7 }));
  row('held-out talks, words alone', ...judge(held, false));
  row('words and who speaks', ...judge(held, false, { turns: true }));
  row('the demo’s talk, words alone', ...judge(demo, false));
  row('speeches (odd ones), words alone', ...judge(pick(speeches, 1, 2_500), false));
  row('the same, capitals kept', ...judge(pick(speeches, 1, 2_500), false, kept));
  row('each line large as well', ...judge(pick(speeches, 1, 2_500), false, { ...kept, lines: 7 }));
  const aloud = speeches.filter((_, i) => i % 2 === 1).map((text, i) => readAloud(firstWords(text, 2_500), i));
  row('speeches (odd ones), read aloud', ...judge(aloud, true));
  row('speeches (odd ones), as people pause', ...judge(aloud.map(asPeoplePause(1)), true));
  row('a novel (odd chapters), words alone', ...judge(pick(novel, 1, 800), false));
  row('the same, capitals kept', ...judge(pick(novel, 1, 800), false, kept));
}
