export { seededChance, shuffled } from './math/chance.js';
export { readTalk, toCaptions } from './editors/talk.js';
export { readMarks } from './editors/marks.js';
export { worthOf } from './editors/worth.js';
export { bestPassages, judgeFirstPicks } from './editors/first-picks.js';
export { judge, judgeByLater, mean, ndcg, overlap, randomPassages, TOP } from './editors/agreement.js';

export type { Talk } from './editors/talk.js';
export type { Mark } from './editors/marks.js';
export type { Passage } from './editors/agreement.js';
export { pk, windowDiff } from './math/segmentation-error.js';
export { fitSparseLogistic } from './math/sparse-logistic.js';
export { calibrationError, classScores, confusion, macroF1, reliability } from './math/metrics.js';
export { countTransitions, examplesOf, fitRoles } from './roles/fit-roles.js';
export { asHeard, roughened } from './roles/as-heard.js';
export { bareText, readingOf, readLabelled } from './roles/labelled.js';
export { fitPairwise } from './weights/pairwise.js';
export { fitStandOut } from './stand-out/fit-stand-out.js';
export { gradesOf, meanOver } from './editors/marks.js';
