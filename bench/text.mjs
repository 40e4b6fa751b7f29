// Import and sift of 1, 3 and 10 hours: time as a ratio to one pass of wink-nlp, its whole pipeline, over the same text, memory a
// process of its own, and the growth from 1 to 10 hours.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { packTranscript, readTranscript, sift } from '@sift-reel/core';
import model from 'wink-eng-lite-web-model';
import winkNLP from 'wink-nlp';
import { best, ratio, row } from './measure.mjs';
import { talkOf } from './talk.mjs';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: ['wood'], kinds: [], avoid: [] };

if (process.argv[2] === 'child') {
  const hours = Number(process.argv[3]);
  const bytes = new TextEncoder().encode(talkOf(hours));
  const nlp = winkNLP(model);
  const warm = readTranscript(new TextEncoder().encode(talkOf(0.1))).transcript;
  sift({ transcript: warm, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
  const { transcript } = readTranscript(bytes);
  const text = transcript.words.map((word) => word.text).join(' ');
  const parts = text.match(/(?:\S+\s*){1,4000}/g);
  const winkMs = best(2, () => {
    for (const part of parts) nlp.readDoc(part);
  });
  const importMs = best(2, () => readTranscript(bytes));
  const before = process.memoryUsage.rss();
  const siftMs = best(2, () => sift({ transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null }));
  const packed = JSON.stringify(packTranscript(transcript)).length;
  process.stdout.write(
    JSON.stringify({
      hours,
      words: transcript.words.length,
      winkMs,
      importMs,
      siftMs,
      siftMb: (process.memoryUsage.rss() - before) / 1e6,
      peakMb: process.resourceUsage().maxRSS / 1e3,
      packedMb: packed / 1e6,
    }),
  );
} else {
  row('hours', 'words', 'import/wink', 'sift/wink', 'peak MB', 'packed MB');
  const results = [1, 3, 10].map((hours) => {
    const child = spawnSync(process.execPath, [fileURLToPath(import.meta.url), 'child', String(hours)], { encoding: 'utf8', maxBuffer: 1e9 });
    if (child.status !== 0) throw new Error(child.stderr);
    const one = JSON.parse(child.stdout);
    row(hours, one.words, ratio(one.importMs, one.winkMs), ratio(one.siftMs, one.winkMs), Math.round(one.peakMb), one.packedMb.toFixed(2));
    return one;
  });
  const [one, , ten] = results;
  row('growth of sift, 1 to 10 hours (10 is linear)', ratio(ten.siftMs, one.siftMs));
  row('growth of import, 1 to 10 hours', ratio(ten.importMs, one.importMs));
  row('growth of peak memory, 1 to 10 hours', ratio(ten.peakMb, one.peakMb));
}
