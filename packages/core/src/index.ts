// Time
export { invariant, InvariantError, lastAtOrBefore, overlaps, spanMs } from './time/span.js';
export { formatLength, formatTimecode, parseClock } from './time/timecode.js';
export type { Span } from './time/span.js';
export type { TimecodeStyle } from './time/timecode.js';
// Transcript
export { decodeText } from './transcript/decode.js';
export { packTranscript, unpackTranscript } from './transcript/pack.js';
export { detectFormat, readTranscript } from './transcript/read-transcript.js';
export { sentenceTexts } from './transcript/sentence-texts.js';
export { TRANSCRIPT_FORMATS, TranscriptRefusedError } from './transcript/types.js';
export { captionCues, writeSubRip, writeWebVtt } from './transcript/write/captions.js';
export { writeTranscript } from './transcript/write/write-transcript.js';
export type { PackedTranscript } from './transcript/pack.js';
export type { ReadTranscript } from './transcript/read-transcript.js';
export type { Repair, Sentence, SentenceEnds, Transcript, TranscriptFormat, Word, WordTimes } from './transcript/types.js';
export type { CaptionCue, SpeakersInText } from './transcript/write/captions.js';
// Sound
export { pitchAt } from './sound/pitch.js';
export { VOICE_RATE, VoiceAnalyser } from './sound/voice-analyser.js';
export { semitonesOf, VOICE_STEP_MS } from './sound/voice-track.js';
export type { VoiceTrack } from './sound/voice-track.js';
// Text
export { normalise } from './text/lexicon.js';
export { splitSentences } from './text/sentences.js';
export { winkTagger } from './text/tagger.js';
export type { PartOfSpeech, PosTagger } from './text/tagger.js';
// Sift
export { checkBrief, LONGEST_CANDIDATE_MS, sift, siftSteps, SHORTEST_CANDIDATE_MS } from './sift/sift.js';
export { bestAround, PassageRefusedError, scorePassage } from './sift/passage.js';
export { bm25, searchTranscript } from './sift/search.js';
export { compareSifts } from './sift/compare.js';
export { buildReel, REEL_WITHIN_MS, ReelRefusedError } from './sift/reel.js';
export { BriefRefusedError, KINDS, RIDGE_STEPS, SIFT_STAGES, SIGNALS } from './sift/types.js';
export { ASKED_CURRENCY, baseWeights, FITTED_WEIGHTS, normaliseWeights, reweigh, weightsFor, WeightsRefusedError } from './sift/reweigh.js';
export { WEIGHTS } from './sift/score.js';
export { findSaid, SAID_KINDS } from './sift/said.js';
export type { Said, SaidKind } from './sift/said.js';
export { spokenTag } from './sift/signals/currency-matches.js';
export { DULL_ROLES, ROLES } from './sift/roles/roles.js';
export type { Reweighed, Weighable } from './sift/reweigh.js';
export type { Comparable, ComparedRow, SiftSide } from './sift/compare.js';
export type { SearchHit } from './sift/search.js';
export type { Reel, ReelPart, ReelSource } from './sift/reel.js';
export type {
  Alternative,
  Brief,
  Candidate,
  Chapter,
  Kind,
  SiftInput,
  SiftLimit,
  SiftProgress,
  SiftResult,
  SiftStage,
  SignalName,
  SignalReading,
  Vectors,
  WordRange,
} from './sift/types.js';
// Fitting: what the trainers of packages/fitting need of the insides
export { PART_WEIGHTS } from './sift/fitted.js';
export { measureRuns } from './sift/measure.js';
export { foldedSums } from './sift/prefix-sums.js';
export { segmentSentences } from './sift/segments.js';
export { GAP_FEATURES, GAP_PLACES, writeGapFeatures } from './text/ends/gap-features.js';
export { GAP_ODDS, oddsKey, OddsTable, packOdds, readWordOdds } from './text/ends/word-odds.js';
export { judgeRoles } from './sift/roles/model.js';
export { packNumbers, unpackNumbers } from './text/pack-weights.js';
export { readForRoles } from './sift/roles/reading.js';
export { smoothRoles } from './sift/roles/smooth.js';
export { SURFACE_FEATURES, writeSurface } from './sift/roles/surface.js';
export { HASHES, wordHashes } from './sift/roles/word-hashes.js';
export type { MeasuredPart, MeasuredRuns } from './sift/measure.js';
export type { RoleModel } from './sift/roles/model.js';
export type { Role } from './sift/roles/roles.js';
export type { RoleReading } from './sift/roles/surface.js';
// Cut
export { LEAD_IN_MS, LEAD_OUT_MS, spanOfWords } from './cut/word-span.js';
// Copy
export { toHashtag } from './copy/hashtags.js';
export { characters, copyProblems, proposeCopy } from './copy/propose.js';
export { COVER_LINE_LIMIT, KEYWORD_LIMIT } from './copy/types.js';
export type { Copy, CopyLimits, CopyProblem } from './copy/types.js';
// Plan
export { addDays, dayNumber, daysBetween, formatDay, formatMinute, mondayOf, weekdayName, weekdayOf } from './plan/calendar.js';
export { checkFit, checkHole, checkPlacement } from './plan/check-placement.js';
export { layOut } from './plan/lay-out.js';
export { openSlots, slotsByCadence } from './plan/slots.js';
export { SHAPES, STAGGER_MS } from './plan/types.js';
export { instantOf, isZone, wallTimeAt, zoneOffsetMs } from './plan/zone.js';
export type { CalendarDate, WallTime } from './plan/calendar.js';
export type { LayOutRequest, Placement, Proposal, Unplaced } from './plan/lay-out.js';
export type { Slot } from './plan/slots.js';
export type {
  Blackout,
  Plan,
  PlanChannel,
  PlannedPost,
  PlanShort,
  PlatformRules,
  PostingWindow,
  PostState,
  Refusal,
  RefusalCode,
  Shape,
} from './plan/types.js';
// Exchange
export { writeCsv } from './exchange/csv.js';
export { CUT_SHEET_HEADER, cutSheetCells, cutSheetCsv, edgeWords } from './exchange/cut-sheet.js';
export { fileName } from './exchange/file-name.js';
export { INTEREST_HEADER, InterestRefusedError, interestWeight, readInterestCsv } from './exchange/interest-csv.js';
export { planCalendar, planCsv } from './exchange/plan-files.js';
export type { InterestTerm } from './exchange/interest-csv.js';
export type { RecordingPhrase } from './copy/recording-phrases.js';
export type { CutSheetRow } from './exchange/cut-sheet.js';
export type { PlanRow } from './exchange/plan-files.js';
