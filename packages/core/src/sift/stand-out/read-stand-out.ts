import { unpackNumbers } from '../../text/pack-weights.js';
import { judgeStandOut, standOutFeatures, type StandOutInput, type StandOutModel } from './model.js';
import { STAND_OUT_WEIGHTS } from './weights.js';

/** What a model reads: vectors of the shipped embedder, words alone, or talk in a language it does not know. */
type Reads = 'vectors' | 'words' | 'foreign';
const models = new Map<Reads, StandOutModel>();

function trained(reads: Reads): StandOutModel {
  let model = models.get(reads);
  if (model === undefined) {
    const all = STAND_OUT_WEIGHTS;
    const [own, around] = {
      vectors: [all.withVectorsOwn, all.withVectorsAround],
      words: [all.wordsAloneOwn, all.wordsAloneAround],
      foreign: [all.foreignOwn, all.foreignAround],
    }[reads];
    models.set(reads, (model = { own: unpackNumbers(own!), around: unpackNumbers(around!) }));
  }
  return model;
}

/** Lets other models judge while `act` runs: so that a recording can be judged by weights that were not fitted on it. */
export function standOutBy<T>(model: StandOutModel, reads: Reads, act: () => T): T {
  const usual = trained(reads);
  models.set(reads, model);
  try {
    return act();
  } finally {
    models.set(reads, usual);
  }
}

/** How far each sentence stands out from the recording's own ordinary talk: see `judgeStandOut`. */
export function readStandOut(input: StandOutInput & { readonly english: boolean }): Float64Array {
  const times = input.sentences.map(({ startMs, endMs }) => endMs - startMs);
  return judgeStandOut(standOutFeatures(input), trained(!input.english ? 'foreign' : input.vectors === null ? 'words' : 'vectors'), times);
}
