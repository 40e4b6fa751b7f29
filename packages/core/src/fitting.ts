// What the trainers and judges of packages/fitting and bench/ need of the core's insides; nothing else imports it.
export { PART_WEIGHTS } from './sift/fitted.js';
export { measureRuns } from './sift/measure.js';
export { foldedSums } from './sift/prefix-sums.js';
export { segmentSentences } from './sift/segments.js';
export { GAP_FEATURES, GAP_PLACES, writeGapFeatures } from './text/ends/gap-features.js';
export { GAP_ODDS, oddsKey, OddsTable, packOdds, readWordOdds } from './text/ends/word-odds.js';
export { judgeRoles } from './sift/roles/model.js';
export { packNumbers } from './text/pack-weights.js';
export { readForRoles } from './sift/roles/reading.js';
export { smoothRoles } from './sift/roles/smooth.js';
export { SURFACE_FEATURES, writeSurface } from './sift/roles/surface.js';
export { HASHES, wordHashes } from './sift/roles/word-hashes.js';
export type { Role } from './sift/roles/roles.js';
export type { RoleInput } from './sift/roles/surface.js';
