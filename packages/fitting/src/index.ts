export { seededChance, shuffled } from './math/chance.js';
export { MarkedSetError, readTalk, toCaptions } from './editors/talk.js';
export { gradesOf, meanOver, neverOf, readMarks } from './editors/marks.js';
export { overlap, worthOf } from './editors/worth.js';
export { discountedGain, judge, mean, ndcg, randomPassages, TOP } from './editors/agreement.js';

export type { Chance } from './math/chance.js';
export type { CaptionOptions, Talk, TalkSentence, TimedWord } from './editors/talk.js';
export type { Mark } from './editors/marks.js';
export type { Judgement, MarkedTalk, Passage } from './editors/agreement.js';
export { fitLogistic, predict } from './math/logistic.js';
export { calibrationError, classScores, confusion, macroF1, reliability } from './math/metrics.js';
export { countTransitions, examplesOf, fitRoles } from './roles/fit-roles.js';
export { bareText, readingOf, readLabelled } from './roles/labelled.js';
export type { Example, LogisticOptions } from './math/logistic.js';
export type { ClassScore, ReliabilityBin } from './math/metrics.js';
export type { LabelledSentence } from './roles/labelled.js';
export { fitPairwise } from './weights/pairwise.js';
export type { PairwiseOptions, RankedSet } from './weights/pairwise.js';
