// Import and sift of 1, 3 and 10 hours: time as a ratio to one pass of wink-nlp, its whole pipeline, over the same text, memory a
// process of its own, and the growth from 1 to 10 hours.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { packTranscript, readTranscript, reweigh, sift, SIGNALS } from '@sift-reel/core';
import model from 'wink-eng-lite-web-model';
import winkNLP from 'wink-nlp';
import { best, ratio, row } from './measure.mjs';
import { talkOf } from './talk.mjs';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: ['wood'], kinds: [], avoid: [] };

/**
 * Rounds: in each, every piece of work is done once beside one pass of wink-nlp, and the middle of the ratios counts, since
 * the machine's speed changes from second to second. Rounds before are not counted: code that is not compiled yet.
 */
const ROUNDS = 9;
const UNCOUNTED_HOURS = 24;

const median = (values) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** The same captions as a recogniser without punctuation gives them. */
const withoutPunctuation = (vtt) =>
  vtt
    .split('\n')
    .map((line) => (line.includes('-->') || line === 'WEBVTT' ? line : line.replace(/[.,;:!?…"“”—–]/g, '').toLowerCase()))
    .join('\n');

if (process.argv[2] === 'child') {
  const hours = Number(process.argv[3]);
  const bytes = new TextEncoder().encode(talkOf(hours));
  const nlp = winkNLP(model);
  const bare = new TextEncoder().encode(withoutPunctuation(talkOf(hours)));
  const { transcript } = readTranscript(bytes);
  const text = transcript.words.map((word) => word.text).join(' ');
  const parts = text.match(/(?:\S+\s*){1,4000}/g);
  const input = { transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null };
  // What the bench's web worker does when a slider moves: weigh and rank every candidate again.
  const { candidates, weights } = sift(input);
  const weighable = candidates.map(({ score, signals }) => ({ score, values: SIGNALS.map((name) => signals[name].value) }));
  const before = process.memoryUsage.rss();
  const works = {
    wink: () => parts.forEach((part) => nlp.readDoc(part)),
    import: () => readTranscript(bytes),
    importBare: () => readTranscript(bare),
    sift: () => sift(input),
    rerank: () => reweigh(weighable, weights, [3, 1, 1, 1, 1, 1]),
  };
  const uncounted = Math.ceil(UNCOUNTED_HOURS / hours);
  const times = Object.fromEntries(Object.keys(works).map((name) => [name, []]));
  for (let round = 0; round < uncounted + ROUNDS; round += 1)
    for (const [name, work] of Object.entries(works)) {
      const ms = best(1, work);
      if (round >= uncounted) times[name].push(ms);
    }
  const toWink = (name) => median(times[name].map((ms, i) => ms / times.wink[i]));
  const packed = JSON.stringify(packTranscript(transcript)).length;
  process.stdout.write(
    JSON.stringify({
      hours,
      words: transcript.words.length,
      import: toWink('import'),
      importBare: toWink('importBare'),
      sift: toWink('sift'),
      rerankMs: Math.max(...times.rerank),
      candidates: candidates.length,
      siftMb: (process.memoryUsage.rss() - before) / 1e6,
      peakMb: process.resourceUsage().maxRSS / 1e3,
      packedMb: packed / 1e6,
    }),
  );
} else {
  row('hours', 'words', 'import/wink', 'unpunctuated', 'sift/wink', 're-rank, ms', 'peak MB', 'packed MB');
  const results = [1, 3, 10].map((hours) => {
    const child = spawnSync(process.execPath, [fileURLToPath(import.meta.url), 'child', String(hours)], { encoding: 'utf8', maxBuffer: 1e9 });
    if (child.status !== 0) throw new Error(child.stderr);
    const one = JSON.parse(child.stdout);
    const cells = [one.import, one.importBare, one.sift, one.rerankMs].map((value) => value.toFixed(2));
    row(hours, one.words, ...cells, Math.round(one.peakMb), one.packedMb.toFixed(2));
    return one;
  });
  const [one, , ten] = results;
  // wink-nlp's pass takes as long as its text is, so ratios to it times words compare two processes.
  row('growth of sift, 1 to 10 hours (10 is linear)', ratio(ten.sift * ten.words, one.sift * one.words));
  row('growth of import, 1 to 10 hours', ratio(ten.import * ten.words, one.import * one.words));
  row('growth of peak memory, 1 to 10 hours', ratio(ten.peakMb, one.peakMb));
}
