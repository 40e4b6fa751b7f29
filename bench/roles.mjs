// The role classifier: judged with whole subjects held out, then trained on all of them.
// node bench/roles.mjs            judges (macro F1, confusion, reliability)
// node bench/roles.mjs --write    trains on everything and writes packages/core/src/sift/roles/weights.ts
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROLES } from '@sift-reel/core';
import { judgeRoles, packNumbers, sentenceFeatures, smoothRoles } from '@sift-reel/core/fitting';
import {
  asHeard,
  bareText,
  calibrationError,
  classScores,
  confusion,
  countTransitions,
  examplesOf,
  fitRoles,
  macroF1,
  readingOf,
  readLabelled,
  reliability,
  roughened,
  seededChance,
} from '@sift-reel/fitting';
import { embedAll } from './lib/marked-set.mjs';
import { row } from './measure.mjs';

const FOLDS = 6;
const HERE = join(import.meta.dirname, 'roles', 'subjects');
/** How much a sentence counts in each form in which it is learned. */
const FORMS = { written: 0.6, bare: 0.6, rough: 0.4, heard: 0.4 };
const subjects = readdirSync(HERE)
  .sort()
  .map((file, i) => {
    const sentences = readLabelled(file, readFileSync(join(HERE, file), 'utf8'));
    const chance = seededChance(100 + i);
    const forms = {
      written: sentences,
      bare: sentences.map((one) => ({ ...one, text: bareText(one.text) })),
      rough: roughened(sentences, chance),
      heard: asHeard(sentences, chance),
    };
    return { file, sentences, forms: Object.entries(forms).map(([name, list]) => ({ name, sentences: list, texts: list.map(({ text }) => text) })) };
  });
const vectors = await embedAll(subjects.flatMap(({ forms }) => forms.map(({ texts }) => texts)));
subjects.forEach(({ forms }, i) => {
  forms.forEach((form, f) => Object.assign(form, { reading: readingOf(form.sentences, form.texts), vectors: vectors[i * forms.length + f] }));
});

const allExamples = (list, withVectors) =>
  list.flatMap(({ forms }) =>
    forms.flatMap(({ name, sentences, reading, vectors: own }) =>
      examplesOf(sentences, reading, withVectors ? own : null, (s) => FORMS[name] * (sentences[s].share ?? 1)),
    ),
  );
const transitionsOf = (list) => countTransitions(list.map(({ sentences }) => sentences));

function judgeFold(fold, withVectors, formName) {
  const held = subjects.filter((_, i) => i % FOLDS === fold);
  const rest = subjects.filter((_, i) => i % FOLDS !== fold);
  models[fold] ??= {};
  const model = (models[fold][withVectors] ??= { vectors: withVectors ? 512 : 0, weights: fitRoles(allExamples(rest, withVectors), withVectors ? 512 : 0) });
  const transitions = transitionsOf(rest);
  return held.flatMap(({ forms }) => {
    const form = forms.find(({ name }) => name === formName);
    const alone = judgeRoles(sentenceFeatures(form.reading), form.vectors, model);
    const smooth = smoothRoles(alone, transitions);
    return form.sentences.map(({ role }, s) => ({ role, alone: rowOf(alone, s), smooth: rowOf(smooth, s) }));
  });
}
const models = {};
const rowOf = (data, s) => [...data.subarray(s * ROLES.length, (s + 1) * ROLES.length)];
const bestOf = (p) => p.indexOf(Math.max(...p));

if (process.argv.includes('--write')) {
  const packed = {
    withVectors: packNumbers(fitRoles(allExamples(subjects, true), 512)),
    wordsAlone: packNumbers(fitRoles(allExamples(subjects, false), 0)),
    transitions: packNumbers(transitionsOf(subjects)),
  };
  const lines = Object.entries(packed).map(([name, { scales, bytes }]) => `  ${name}: {\n    scales:\n      '${scales}',\n    bytes:\n      '${bytes}',\n  },`);
  const sentences = subjects.reduce((sum, one) => sum + one.sentences.length, 0);
  writeFileSync(
    join(import.meta.dirname, '..', 'packages', 'core', 'src', 'sift', 'roles', 'weights.ts'),
    `// Written by \`npm run bench -- roles --write\` from ${sentences} labelled sentences of ${subjects.length} subjects in bench/roles. Do not edit.\nexport const ROLE_WEIGHTS = {\n  version: '1',\n${lines.join('\n')}\n} as const;\n`,
  );
} else {
  for (const withVectors of [true, false]) {
    for (const form of Object.keys(FORMS)) {
      const judged = Array.from({ length: FOLDS }, (_, fold) => judgeFold(fold, withVectors, form)).flat();
      const truth = judged.map(({ role }) => role);
      const f1 = (key) =>
        macroF1(
          confusion(
            truth,
            judged.map((one) => bestOf(one[key])),
            ROLES.length,
          ),
        );
      row(`macro F1, ${withVectors ? 'vectors' : 'words alone'}, ${form}`, `alone ${f1('alone').toFixed(3)}`, `smoothed ${f1('smooth').toFixed(3)}`);
      if (!withVectors || form !== 'written') continue;
      const found = judged.map((one) => bestOf(one.smooth));
      const table = confusion(truth, found, ROLES.length);
      const scores = classScores(table);
      row('true \\ found', ...ROLES.map((role) => role.slice(0, 5)));
      table.forEach((cells, r) =>
        process.stdout.write(
          `${ROLES[r].padEnd(14)}${cells.map((n) => String(n || '.').padStart(4)).join('')}   P ${scores[r].precision.toFixed(2)} R ${scores[r].recall.toFixed(2)} F1 ${scores[r].f1.toFixed(2)}\n`,
        ),
      );
      const bins = reliability(
        judged.map((one) => Math.max(...one.smooth)),
        judged.map((one, i) => found[i] === one.role),
      );
      for (const bin of bins) row(`said ${bin.from.toFixed(1)} to ${bin.to.toFixed(1)}`, bin.count, bin.said.toFixed(2), bin.right.toFixed(2));
      row('calibration error', calibrationError(bins).toFixed(3));
    }
  }
}
