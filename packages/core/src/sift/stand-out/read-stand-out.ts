import { unpackNumbers } from '../../text/pack-weights.js';
import { judgeStandOut, standOutFeatures, type StandOutInput, type StandOutModel } from './model.js';
import { STAND_OUT_WEIGHTS } from './weights.js';

const models = new Map<boolean, StandOutModel>();

/** The trained model, for vectors of the shipped embedder or for words alone. */
function trained(readsVectors: boolean): StandOutModel {
  let model = models.get(readsVectors);
  if (model === undefined) {
    const { withVectorsOwn, withVectorsAround, wordsAloneOwn, wordsAloneAround } = STAND_OUT_WEIGHTS;
    const [own, around] = readsVectors ? [withVectorsOwn, withVectorsAround] : [wordsAloneOwn, wordsAloneAround];
    models.set(readsVectors, (model = { own: unpackNumbers(own), around: unpackNumbers(around) }));
  }
  return model;
}

/** Lets other models judge while `act` runs: so that a recording can be judged by weights that were not fitted on it. */
export function standOutBy<T>(model: StandOutModel, readsVectors: boolean, act: () => T): T {
  const usual = trained(readsVectors);
  models.set(readsVectors, model);
  try {
    return act();
  } finally {
    models.set(readsVectors, usual);
  }
}

/** How far each sentence stands out from the recording's own ordinary talk: see `judgeStandOut`. */
export function readStandOut(input: StandOutInput): Float64Array {
  const times = input.sentences.map(({ startMs, endMs }) => endMs - startMs);
  return judgeStandOut(standOutFeatures(input), trained(input.vectors !== null), times);
}
