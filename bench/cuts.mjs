// Where cuts fall: others' talks (../shared/editors), spoken by Debian's flite, which says when each of its sounds ends. A cut before or
// after each word, by the times alone and with what is heard: how many fall into a word (further than 20 ms from its ends, by flite's own
// times), how loud it is there, and how long the pauses are thought to be. The true times; times of a recogniser (80 ms off to either
// side); times that are spread over cues of eight words. Clean, and with noise ten decibels below the voice.
import { readTranscript, spanOfWords, VOICE_STEP_MS, VoiceAnalyser, withHeardEnds } from '@sift-reel/core';
import { noisy, spokenTalks } from './lib/spoken-talks.mjs';
import { row } from './measure.mjs';

const TALKS_TAKEN = 8;
const INTO_MS = 20;
const CUE_WORDS = 8;
const AIR_MS = 600;
/** From here a silence between words is a pause. */
const PAUSE_MS = 120;

/** Samples at 16 kHz to a track of levels; every two are one. */
function levelsOf(samples) {
  const half = Int16Array.from({ length: samples.length >> 1 }, (_, i) => (samples[2 * i] + samples[2 * i + 1]) / 2);
  const analyser = new VoiceAnalyser();
  analyser.push(half);
  return analyser.finish().levels;
}

const stamp = (ms) => new Date(Math.round(ms)).toISOString().slice(11, 23);

/** The talk as a transcript with cues of some words, a new one after each long pause. */
function spreadOver(words) {
  const cues = [];
  for (const word of words) {
    const cue = cues.at(-1);
    const near = cue !== undefined && word.startMs - cue.at(-1).endMs < AIR_MS;
    if (near && cue.length < CUE_WORDS) cue.push(word);
    else cues.push([word]);
  }
  const text = `WEBVTT\n\n${cues.map((cue) => `${stamp(cue[0].startMs)} --> ${stamp(cue.at(-1).endMs)}\n${cue.map((one) => one.text).join(' ')}`).join('\n\n')}\n`;
  return readTranscript(new TextEncoder().encode(text)).transcript;
}

let seed = 7;
const random = () => (seed = (seed * 1_103_515_245 + 12_345) & 0x7fffffff) / 0x7fffffff;

/** Times as a recogniser gives them: each border up to so much early or late, in order. */
function shaken(words, byMs) {
  const out = words.map((one) => ({ ...one }));
  for (let i = 1; i < out.length; i += 1) {
    const [before, after] = [out[i - 1], out[i]];
    const touch = after.startMs - before.endMs < 1;
    const [a, b] = [(2 * random() - 1) * byMs, (2 * random() - 1) * byMs];
    before.endMs = Math.max(before.startMs + 20, before.endMs + a);
    after.startMs = Math.min(after.endMs - 20, Math.max(before.endMs, touch ? before.endMs : after.startMs + b));
  }
  return out;
}

const asTranscript = (words, wordTimes) => ({
  words: words.map(({ text, startMs, endMs }) => ({ text, startMs: Math.round(startMs), endMs: Math.round(endMs), kind: 'word', speaker: -1 })),
  sentences: [],
  speakers: [],
  durationMs: Math.round(words.at(-1).endMs),
  wordTimes,
  sentenceEnds: 'written',
});

/** @param truth the words as they were said; the cuts where they pause, and the others */
function judge(transcript, truth, levels) {
  const { words } = transcript;
  const sums = { pause: { cuts: 0, into: 0, loud: 0 }, run: { cuts: 0, into: 0, loud: 0 } };
  const voice = [...levels].sort((a, b) => a - b)[Math.floor(levels.length * 0.9)];
  const look = (sum, ms, i) => {
    sum.cuts += 1;
    const near = truth.slice(Math.max(0, i - 8), i + 8);
    if (near.some(({ startMs, endMs }) => ms > startMs + INTO_MS && ms < endMs - INTO_MS)) sum.into += 1;
    sum.loud += levels[Math.min(levels.length - 1, Math.floor(ms / VOICE_STEP_MS))] - voice;
  };
  let off = 0;
  for (let i = 1; i < words.length; i += 1) {
    const pauseMs = Math.max(0, truth[i].startMs - truth[i - 1].endMs);
    const sum = pauseMs >= PAUSE_MS ? sums.pause : sums.run;
    look(sum, spanOfWords(words, i, i + 1).startMs, i);
    look(sum, spanOfWords(words, i - 1, i).endMs, i);
    off += Math.abs(words[i].startMs - words[i - 1].endMs - pauseMs);
  }
  const share = ({ cuts, into, loud }) => ({ into: into / cuts, loud: loud / cuts });
  return { pause: share(sums.pause), run: share(sums.run), off: off / (words.length - 1) };
}

// `node bench/cuts.mjs 2`: eight others, two further on, which nobody looked at while the thresholds were set.
const talks = await spokenTalks(TALKS_TAKEN, Number(process.argv[2] ?? 0));
row(
  'share of cuts that fall into a word',
  'at a pause',
  'heard',
  'worst talk',
  'elsewhere',
  'heard',
  'dB at pause',
  'heard',
  'elsewhere',
  'heard',
  'pause off, ms',
  'heard',
);
for (const [way, hear] of [
  ['clean', (samples) => samples],
  ['noise', (samples) => noisy(samples, 10)],
]) {
  const tracks = talks.map(({ samples }) => levelsOf(hear(samples)));
  for (const [times, transcriptOf] of [
    ['true times', (words) => asTranscript(words, 'given')],
    ['80 ms off', (words) => asTranscript(shaken(words, 80), 'given')],
    ['spread over cues', (words) => spreadOver(words)],
  ]) {
    const [plain, heard] = [[], []];
    for (const [i, { words }] of talks.entries()) {
      const transcript = transcriptOf(words);
      if (transcript.words.length !== words.length) throw new Error(`${transcript.words.length} of ${words.length} words were read`);
      plain.push(judge(transcript, words, tracks[i]));
      heard.push(judge(withHeardEnds(transcript, tracks[i]), words, tracks[i]));
    }
    const mean = (all, of) => all.reduce((sum, one) => sum + of(one), 0) / all.length;
    const both = (of, digits) => [mean(plain, of).toFixed(digits), mean(heard, of).toFixed(digits)];
    row(
      `${times}, ${way}`,
      ...both(({ pause }) => pause.into, 3),
      `${Math.max(...plain.map(({ pause }) => pause.into)).toFixed(3)} ${Math.max(...heard.map(({ pause }) => pause.into)).toFixed(3)}`,
      ...both(({ run }) => run.into, 3),
      ...both(({ pause }) => pause.loud, 1),
      ...both(({ run }) => run.loud, 1),
      ...both(({ off }) => off, 0),
    );
  }
}
