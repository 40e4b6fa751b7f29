import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { HASHES, judgeRoles, ROLES, smoothRoles, SURFACE_FEATURES } from '@sift-reel/core';
import { bareText, calibrationError, confusion, countTransitions, examplesOf, fitLogistic, macroF1, readingOf, readLabelled, reliability, seededChance } from '@sift-reel/fitting';
import { embedAll } from './lib/marked-set.mjs';
const HERE = join(import.meta.dirname, 'roles', 'subjects');
const subjects = readdirSync(HERE).sort().map((file) => {
  const sentences = readLabelled(file, readFileSync(join(HERE, file), 'utf8'));
  return { file, sentences, forms: [sentences.map(({ text }) => text), sentences.map(({ text }) => bareText(text))] };
});
const vectors = await embedAll(subjects.flatMap(({ forms }) => forms));
subjects.forEach((s, i) => { s.read = s.forms.map((texts, f) => ({ reading: readingOf(s.sentences, texts), vectors: vectors[2 * i + f] })); });
const D = 512 + SURFACE_FEATURES.length;
for (const [head, tail, sparse, epochs, rate] of JSON.parse(process.argv[2])) {
  const judged = [];
  for (let fold = 0; fold < 4; fold++) {
    const held = subjects.filter((_, i) => i % 4 === fold), rest = subjects.filter((_, i) => i % 4 !== fold);
    const ex = rest.flatMap(({ sentences, read }) => read.flatMap((o) => examplesOf(sentences, o.reading, o.vectors)));
    const seen = new Array(ROLES.length).fill(0); ex.forEach((e) => seen[e.label]++);
    const w = fitLogistic(ex.map((e) => ({ ...e, counts: Math.sqrt(ex.length / ROLES.length / seen[e.label]) })), { classes: ROLES.length, dense: D, sparse: HASHES, epochs, pull: { head, tail, sparse, split: 512 }, rate, chance: seededChance(1) });
    const tr = countTransitions(rest.map((r) => r.sentences));
    for (const { sentences, read } of held) { const sm = smoothRoles(judgeRoles(read[0].reading, read[0].vectors, { vectors: 512, weights: w }), tr); sentences.forEach((s, i) => judged.push({ role: s.role, p: [...sm.subarray(i * ROLES.length, (i + 1) * ROLES.length)] })); }
  }
  const found = judged.map((j) => j.p.indexOf(Math.max(...j.p)));
  console.log(head, tail, sparse, epochs, rate, 'F1', macroF1(confusion(judged.map((j) => j.role), found, ROLES.length)).toFixed(3), 'logloss', (-judged.reduce((s, j) => s + Math.log(Math.max(1e-6, j.p[j.role])), 0) / judged.length).toFixed(3), 'ece', calibrationError(reliability(judged.map((j) => Math.max(...j.p)), judged.map((j, i) => found[i] === j.role))).toFixed(3));
}
