// What each part of a signal weighs, fitted on the marked talks that are for fitting.
// node bench/weights.mjs           judges by leaving one talk out
// node bench/weights.mjs --write   fits on all of them and writes packages/core/src/sift/fitted.ts
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { measureRuns } from '@sift-reel/core/fitting';
import { fitPairwise, judge, mean, worthOf } from '@sift-reel/fitting';
import { BRIEF, embedAll, heardAs, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { roughen } from './lib/roughen.mjs';
import { row } from './measure.mjs';

const HOLD = 0.1;
const LEAST = 0.5;
const PRIOR = JSON.parse(readFileSync(join(import.meta.dirname, 'weights', 'prior.json'), 'utf8'));
const set = readMarkedSet(SPLIT.fit);
/** Each talk is read as it is kept, roughly spoken, and without punctuation and names; so that one set of weights serves all. */
const FORMS = [
  (one) => one,
  (one) => heardAs(one, { change: roughen, punctuation: 'written', speakers: 'named' }),
  (one) => heardAs(one, { punctuation: 'none', speakers: 'nameless' }),
  (one) => heardAs(one, { change: roughen, punctuation: 'none', speakers: 'nameless' }),
];
const read = FORMS.flatMap((form) => set.map(form));
const vectors = await embedAll(read.map((one) => textsOf(one.transcript)));
/** What stands out is fitted elsewhere (bench/stand-out.mjs), and knows these talks. */
function withoutStandOut({ parts: all, values, ...rest }) {
  const kept = all.flatMap(({ part }, p) => (part === 'stands out' ? [] : [p]));
  const rows = values.length / all.length;
  const left = new Float32Array(rows * kept.length);
  for (let r = 0; r < rows; r += 1) kept.forEach((p, k) => (left[r * kept.length + k] = values[r * all.length + p]));
  return { parts: kept.map((p) => all[p]), values: left, ...rest };
}
// With vectors and by words alone.
const data = read.flatMap((one, i) =>
  [vectors[i], null].map((sentenceVectors) => {
    const measured = withoutStandOut(measureRuns({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors, topicVectors: null }));
    return { one, measured, values: measured.values, worth: worthOf(one, measured.spans) };
  }),
);
const parts = data[0].measured.parts;
const prior = parts.map(({ signal, part }) => PRIOR.parts[signal][part]);
const fitParts = (list) => fitPairwise(list, { prior, hold: HOLD, least: LEAST, apart: 0.5, pairs: 64_000, steps: 150, seed: 5 });

const signalNames = Object.keys(PRIOR.parts);
/** Raw measures of the signals of each run. */
function rawsOf(one, weights) {
  const raws = new Float32Array(one.worth.length * signalNames.length);
  one.worth.forEach((_, r) =>
    parts.forEach(({ signal }, p) => (raws[r * signalNames.length + signalNames.indexOf(signal)] += weights[p] * one.values[r * parts.length + p])),
  );
  return raws;
}
function scalesOf(list, weights) {
  const all = list.map((one) => rawsOf(one, weights));
  return signalNames.map((_, k) => {
    const values = all
      .flatMap((raws) => Array.from({ length: raws.length / signalNames.length }, (__, r) => raws[r * signalNames.length + k]))
      .sort((a, b) => a - b);
    const at = (share) => values[Math.floor(share * (values.length - 1))];
    return { ordinary: at(0.5), rare: at(0.97) };
  });
}
const toScale = (raw, { ordinary, rare }) => 100 / (1 + Math.exp((-Math.log(9) * (raw - ordinary)) / (rare - ordinary)));
function signalsOf(one, weights, scales) {
  return { worth: one.worth, values: rawsOf(one, weights).map((raw, i) => toScale(raw, scales[i % signalNames.length]) / 100) };
}
/** A scale is of talk whose sentences are certain: where ends are guesses, Stands alone is lower for it. */
const surely = (weights) => weights.map((weight, p) => (parts[p].part.endsWith('in doubt') ? 0 : weight));
const fitSignals = (list, weights, scales) =>
  fitPairwise(
    list.map((one) => signalsOf(one, weights, scales)),
    { prior: signalNames.map((name) => 12 * PRIOR.signals[name]), hold: HOLD, least: LEAST, apart: 0.5, pairs: 64_000, steps: 150, seed: 6 },
  );

function pick(one, scores) {
  const kept = [];
  for (const r of scores.map((_, i) => i).sort((a, b) => scores[b] - scores[a])) {
    const span = one.measured.spans[r];
    if (kept.length < 8 && kept.every((other) => other.endMs <= span.startMs || span.endMs <= other.startMs)) kept.push(span);
  }
  return kept;
}
const linear = (values, weights, n) =>
  Array.from({ length: values.length / n }, (_, r) => weights.reduce((sum, weight, p) => sum + weight * values[r * n + p], 0));
function report(label, judged) {
  row(label, ...['agreement', 'ndcg', 'never', 'edges'].map((key) => `${key} ${mean(judged.map((one) => one[key])).toFixed(3)}`));
}

if (process.argv.includes('--write')) {
  const weights = fitParts(data);
  const round = (value) => Number(value.toPrecision(3));
  const block = (entries) => entries.map(([name, value]) => `    ${/^\w+$/.test(name) ? name : `'${name}'`}: ${round(value)},`).join('\n');
  const text = `// Written by \`npm run bench -- weights --write\` from the talks for fitting in bench/editors. Do not edit.

/** What one unit of each part weighs in its signal's raw measure. */
export const PART_WEIGHTS = {
${signalNames.map((name) => `  ${name}: {\n${block(parts.flatMap(({ signal, part }, p) => (signal === name ? [[part, weights[p]]] : [])))}\n  },`).join('\n')}
} as const;
`;
  writeFileSync(join(import.meta.dirname, '..', 'packages', 'core', 'src', 'sift', 'fitted.ts'), text);
} else {
  report(
    'set by judgement',
    data.map((one) => judge(one.one, pick(one, linear(one.values, prior, parts.length)))),
  );
  const judged = { parts: [], signals: [] };
  for (const { name } of set) {
    const rest = data.filter(({ one }) => one.name !== name);
    const weights = fitParts(rest);
    const scales = scalesOf(rest, surely(weights));
    const signals = fitSignals(rest, weights, scales);
    for (const one of data.filter((each) => each.one.name === name)) {
      judged.parts.push(judge(one.one, pick(one, linear(one.values, weights, parts.length))));
      judged.signals.push(judge(one.one, pick(one, linear(signalsOf(one, weights, scales).values, signals, signalNames.length))));
    }
  }
  report('fitted parts, talk left out', judged.parts);
  report('fitted signals of them, talk left out', judged.signals);
}
