// How well the ranking agrees with the readers of the flat talks, when nothing of their kind was fitted on: for each kind of
// talk what stands out is fitted on all others. Then by the weights as they are shipped, which have seen the talks.
import { sift } from '@sift-reel/core';
import { standOutBy } from '@sift-reel/core/fitting';
import { judgeFirstPicks } from '@sift-reel/fitting';
import { embedAll, heardAs, KINDS, readFlatSet, readMarkedSet, SPLIT, textsOf } from './lib/marked-set.mjs';
import { fitOn, standOutExample } from './lib/stand-out-examples.mjs';
import { row } from './measure.mjs';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 75_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
const FORMS = {
  written: (one) => one,
  bare: (one) => heardAs(one, { punctuation: 'none', speakers: 'named' }),
  'bare, nameless': (one) => heardAs(one, { punctuation: 'none', speakers: 'nameless' }),
  'rolling, named': (one) => heardAs(one, { punctuation: 'none', cues: 'rolling', speakers: 'named' }),
  rolling: (one) => heardAs(one, { punctuation: 'none', cues: 'rolling', speakers: 'nameless' }),
};
const flat = readFlatSet();
const fitting = [...readMarkedSet(SPLIT.fit), ...flat];
const forms = process.argv.includes('--quick') ? ['written'] : Object.keys(FORMS);
const fittingVectors = await embedAll(fitting.map((one) => textsOf(one.transcript)));
const examples = fitting.map((one, i) => standOutExample(one, fittingVectors[i]));
const kinds = [...new Set(flat.map((one) => KINDS[one.name]))].sort();
const models = new Map(
  kinds.map((kind) => [
    kind,
    fitOn(
      examples.filter((_, i) => KINDS[fitting[i].name] !== kind),
      'vectors',
    ),
  ]),
);
const cell = ({ agreement, kept, never, picks, wanted }) => [agreement.toFixed(2), kept.toFixed(2), `${never} of ${picks}`, wanted - picks];
row('', 'agreement', 'kept', 'never', 'missing');
for (const form of forms) {
  const set = flat.map(FORMS[form]);
  const vectors = await embedAll(set.map((one) => textsOf(one.transcript)));
  const rank = (one, i) => sift({ transcript: one.transcript, brief: BRIEF, clientTags: [], sentenceVectors: vectors[i], topicVectors: null }).candidates;
  const unseen = set.map((one, i) => standOutBy(models.get(KINDS[one.name]), 'vectors', () => rank(one, i)));
  row(`kind left out, ${form}`, ...cell(judgeFirstPicks(set, unseen)));
  if (form === 'written') {
    for (const kind of kinds) {
      const some = set.map((_, i) => i).filter((i) => KINDS[set[i].name] === kind);
      row(
        `   ${kind} (${some.length})`,
        ...cell(
          judgeFirstPicks(
            some.map((i) => set[i]),
            some.map((i) => unseen[i]),
          ),
        ),
      );
    }
    for (const r of set[0].marks.keys()) {
      const lone = set.map((one) => ({ ...one, marks: [one.marks[r], one.marks[r]] }));
      row(`   reader ${'fgh'[r]} alone`, ...cell(judgeFirstPicks(lone, unseen)));
    }
    if (!process.argv.includes('--quick')) row('shipped weights, which have seen them', ...cell(judgeFirstPicks(set, set.map(rank))));
  }
}
