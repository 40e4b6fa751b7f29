// What makes a sentence stand out of its own recording, fitted on the marked talks: those for fitting and the flat ones.
// node bench/stand-out.mjs           judges by leaving one talk out, and one kind of talk, with the mean of the model alone
// node bench/stand-out.mjs --write   fits on all of them and writes packages/core/src/sift/stand-out/weights.ts, and the scales of the signals
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { judgeStandOut, measureRuns, packNumbers, SIGNAL_WEIGHTS, standOutBy, weightOf } from '@sift-reel/core/fitting';
import { bestPassages, judgeFirstPicks } from '@sift-reel/fitting';
import { BRIEF, embedAll, heardAs, KINDS, readFlatSet, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { fitOn, standOutExample } from './lib/stand-out-examples.mjs';
import { roughen } from './lib/roughen.mjs';
import { row } from './measure.mjs';

const FORMS = {
  written: (one) => one,
  rough: (one) => heardAs(one, { change: roughen, punctuation: 'written', speakers: 'named' }),
  bare: (one) => heardAs(one, { punctuation: 'none', speakers: 'nameless' }),
};
const flat = readFlatSet();
const talks = [...readMarkedSet(SPLIT.fit), ...flat];
const forms = process.argv.includes('--quick') ? ['written'] : Object.keys(FORMS);
const read = forms.flatMap((form) => talks.map((one) => ({ form, ...FORMS[form](one) })));
const vectors = await embedAll(read.map((one) => textsOf(one.transcript)));

/**
 * Raw measure of an ordinary passage (50) and of a rare one (90) for each signal and for the score: over all passages of the
 * talks as they are written, each judged by what was fitted on other kinds, so that they are as for a recording that is new.
 */
function scalesOf(examples) {
  const written = read.map((one, i) => ({ one, i })).filter(({ one }) => one.form === 'written');
  const measured = [...new Set(written.map(({ one }) => KINDS[one.name]))].flatMap((kind) => {
    const model = fitOn(
      written.filter(({ one }) => KINDS[one.name] !== kind).map(({ i }) => examples[i]),
      'vectors',
    );
    return standOutBy(model, 'vectors', () =>
      written
        .filter(({ one }) => KINDS[one.name] === kind)
        .map(({ one, i }) => measureRuns({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors: vectors[i], topicVectors: null })),
    );
  });
  const names = [...new Set(measured[0].parts.map(({ signal }) => signal))];
  const raws = names.map((name) =>
    measured.flatMap(({ parts, values, runs }) => {
      const own = parts.flatMap(({ signal, part }, p) => (signal === name && !part.endsWith('in doubt') ? [[p, weightOf(signal, part)]] : []));
      return runs.map((_, r) => own.reduce((sum, [p, weight]) => sum + weight * values[r * parts.length + p], 0));
    }),
  );
  const scales = Object.fromEntries(names.map((name, k) => [name, twoOf(raws[k])]));
  // Delivery and Currency stand at 50 here: the talks have no sound, and the brief asks for nothing.
  const rest = 50 * (SIGNAL_WEIGHTS.delivery + SIGNAL_WEIGHTS.currency);
  const means = raws[0].map((_, r) => names.reduce((sum, name, k) => sum + SIGNAL_WEIGHTS[name] * toScale(raws[k][r], scales[name]), rest));
  return { ...scales, score: twoOf(means) };
}
function twoOf(values) {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (share) => Number(sorted[Math.floor(share * (sorted.length - 1))].toPrecision(3));
  return { ordinary: at(0.5), rare: at(0.97) };
}
const toScale = (raw, { ordinary, rare }) => 100 / (1 + Math.exp((-Math.log(9) * (raw - ordinary)) / (rare - ordinary)));

function writeScales(scales) {
  const lines = Object.entries(scales).map(([name, { ordinary, rare }]) => `  ${name}: { ordinary: ${ordinary}, rare: ${rare} },`);
  writeFileSync(
    join(import.meta.dirname, '..', 'packages', 'core', 'src', 'sift', 'scales.ts'),
    `// Written by \`npm run bench -- stand-out --write\` from the marked talks in bench/editors that are for fitting. Do not edit.

/**
 * Raw measure of an ordinary passage (50) and of a rare one (90): the median and the 97th percentile of all runs of those
 * talks, each judged by what was fitted on other kinds; for the score, of the weighted mean of the signals.
 */
export const SCALES = {
${lines.join('\n')}
} as const;
`,
  );
}

/** How each model is called among the weights. */
const NAMES = { vectors: 'withVectors', words: 'wordsAlone', foreign: 'foreign' };
const READS = { vectors: 'vectors', words: 'words alone', foreign: 'words not known' };
const models = {};
for (const reads of ['vectors', 'words', 'foreign']) {
  const examples = read.map((one, i) =>
    standOutExample(one, reads === 'vectors' ? vectors[i] : null, { share: 1 / forms.length, foreign: reads === 'foreign' }),
  );
  const fit = (keep) =>
    fitOn(
      examples.filter((_, i) => keep(read[i])),
      reads,
    );
  if (process.argv.includes('--write')) {
    if (reads === 'vectors') writeScales(scalesOf(examples));
    models[NAMES[reads]] = fit(() => true);
    continue;
  }
  for (const [label, groupOf] of [
    ['one talk left out', (one) => one.name],
    ['one kind left out', (one) => KINDS[one.name]],
  ]) {
    const judged = new Map();
    for (const group of new Set(read.map(groupOf))) {
      const model = fit((one) => groupOf(one) !== group);
      read.forEach((one, i) => {
        if (groupOf(one) === group) judged.set(`${one.name} ${one.form}`, judgeStandOut(examples[i].features, model, examples[i].seconds));
      });
    }
    for (const form of forms) {
      const list = read.filter((one) => one.form === form && flat.some(({ name }) => name === one.name));
      const picks = list.map((one) => bestPassages(one.transcript.sentences, judged.get(`${one.name} ${form}`)));
      const all = judgeFirstPicks(list, picks);
      row(`${label}, ${READS[reads]}, ${form}`, `agreement ${all.agreement.toFixed(3)}`, `never ${all.never} of ${all.picks}`);
      if (label === 'one kind left out' && form === 'written')
        for (const kind of [...new Set(list.map((one) => KINDS[one.name]))].sort()) {
          const some = list.map((one, i) => ({ one, i })).filter(({ one }) => KINDS[one.name] === kind);
          row(
            `   ${kind}`,
            judgeFirstPicks(
              some.map(({ one }) => one),
              some.map(({ i }) => picks[i]),
            ).agreement.toFixed(2),
            `${some.length} talks`,
          );
        }
    }
  }
}

if (process.argv.includes('--write')) {
  const packed = Object.entries(models).flatMap(([name, model]) =>
    Object.entries(model).map(([part, weights]) => [`${name}${part === 'own' ? 'Own' : 'Around'}`, packNumbers(weights)]),
  );
  const lines = packed.map(([name, { scales, bytes }]) => `  ${name}: {\n    scales:\n      '${scales}',\n    bytes:\n      '${bytes}',\n  },`);
  writeFileSync(
    join(import.meta.dirname, '..', 'packages', 'core', 'src', 'sift', 'stand-out', 'weights.ts'),
    `// Written by \`npm run bench -- stand-out --write\` from the marked talks in bench/editors that are for fitting. Do not edit.\nexport const STAND_OUT_WEIGHTS = {\n  version: '1',\n${lines.join('\n')}\n} as const;\n`,
  );
  row(
    'numbers written',
    Object.values(models).reduce((sum, { own, around }) => sum + own.length + around.length, 0),
  );
}
