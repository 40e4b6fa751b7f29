// Time
export { lastAtOrBefore, spanMs } from './time/span.js';
export { formatLength, formatTimecode, parseClock } from './time/timecode.js';
export type { Span } from './time/span.js';
// Transcript
export { packTranscript, unpackTranscript } from './transcript/pack.js';
export type { SaidLine } from './transcript/read/plain-text.js';
export { renameSpeakers, type SpeakerNames } from './transcript/speakers.js';
export { readTranscript } from './transcript/read-transcript.js';
export { sentenceTexts } from './transcript/sentence-texts.js';
export { wordsText } from './transcript/words-text.js';
export { TranscriptRefusedError, WORD_TIMES } from './transcript/types.js';
export { captionCues, writeSubRip, writeWebVtt } from './transcript/write/captions.js';
export { writeTranscript } from './transcript/write/write-transcript.js';
export type { PackedTranscript } from './transcript/pack.js';
export type { ReadTranscript } from './transcript/read-transcript.js';
export type { Repair, Sentence, SentenceEnds, Transcript, TranscriptFormat, Word, WordRange, WordTimes, WrittenFormat } from './transcript/types.js';
// Feeds
export { FeedRefusedError } from './feed/types.js';
export type { Feed, FeedEpisode, FeedFile, FeedPerson, FeedTranscript, GivenChapter } from './feed/types.js';
// Sound
export { withHeardEnds } from './sound/heard-ends.js';
export { VOICE_RATE, VoiceAnalyser } from './sound/voice-analyser.js';
export { VOICE_STEP_MS } from './sound/voice-track.js';
export type { VoiceTrack } from './sound/voice-track.js';
// Text
export { normalise } from './text/normalise.js';
export { splitSentences } from './text/sentences.js';
export { winkTagger } from './text/tagger.js';
export { languageOf } from './text/language-name.js';
export type { Language } from './text/language-name.js';
// Sift
export { checkBrief, LONGEST_CANDIDATE_MS, sift, siftSteps, SHORTEST_CANDIDATE_MS } from './sift/sift.js';
export { bestAround, scorePassage } from './sift/passage.js';
export { searchTranscript } from './sift/search.js';
export { describeMakeUp } from './sift/make-up.js';
export { compareSifts } from './sift/compare.js';
export { buildReel, ReelRefusedError } from './sift/reel.js';
export { BriefRefusedError, CANDIDATE_KINDS, KINDS, NEED_ENGLISH, SIFT_STAGES, SIGNALS, STUFFS } from './sift/types.js';
export { ASKED_CURRENCY, baseWeights, FITTED_WEIGHTS, normaliseWeights, reweigh, weightsFor, WeightsRefusedError } from './sift/reweigh.js';
export { spokenTag } from './sift/signals/currency-matches.js';
export { ROLES } from './sift/roles/roles.js';
export type { Reweighed, Weighable } from './sift/reweigh.js';
export type { ComparedRow, SiftSide } from './sift/compare.js';
export type { SearchHit } from './sift/search.js';
export type { Reel } from './sift/reel.js';
export type {
  Alternative,
  Brief,
  Candidate,
  CandidateKind,
  Chapter,
  Kind,
  MakeUp,
  SiftInput,
  SiftLimit,
  SiftProgress,
  SiftResult,
  SignalName,
  Stuff,
  Vectors,
} from './sift/types.js';
// Cut
export { spanOfWords } from './cut/word-span.js';
// Copy
export { characters, placeOfCharacter } from './copy/characters.js';
export { copyProblems, type CopyRequest, proposeCopy, proposeTitlesFor, type TitleWithText } from './copy/propose.js';
export { NO_VECTORS } from './sift/context.js';
export type { RecordingSubject } from './copy/recording-tags.js';
export { PROPOSED_SORTS, type ProposedSort } from './copy/written/titles.js';
export type { ProposedTitle } from './copy/written/titles.js';
export { checkCopy, namesOf } from './copy/check/check-copy.js';
export { saidPassage } from './copy/check/said-passage.js';
export { speaksToProgram } from './copy/check/truth.js';
export { type CheckRule, type Finding, isTruth, TRUTH_RULES, type TruthRule, VOICE_RULES } from './copy/check/types.js';
export { mended, type Speller } from './copy/voice/check-voice.js';
export { asPosted } from './copy/voice/fixed-parts.js';
export { ADDRESSES, CAPITALS, EMOJI_USES, OPEN_VOICE, PERSONS, SERIAL_COMMAS, SPELLINGS, type Voice } from './copy/voice/types.js';
export { COVER_LINE_LIMIT } from './copy/types.js';
export type { Copy, CopyLimits } from './copy/types.js';
// Plan
export { addDays, dayNumber, daysBetween, formatDay, formatMinute, mondayOf, weekdayName, weekdayOf } from './plan/calendar.js';
export { checkFit, checkPlacement } from './plan/check-placement.js';
export { layOut } from './plan/lay-out.js';
export { checkMoves, checkTakeOff, movesByDays, movesThatFit, planMoved } from './plan/move-posts.js';
export type { PostMove, RefusedMove } from './plan/move-posts.js';
export { PlanIndex, planAround } from './plan/plan-index.js';
export { fitTogether, type WishedPost } from './plan/place-posts.js';
export { openSlots } from './plan/slots.js';
export { isUnderway, POST_STATES, POST_WAITS, SHAPES } from './plan/types.js';
export { instantOf, isZone, wallTimeAt } from './plan/zone.js';
export { MOVE_PRICE, type Proposal, type ProposedMove, type Unplaced } from './plan/lay-out.js';
export type { LayOutRequest } from './plan/lay-out-problem.js';
export type { Blackout, Plan, PlanChannel, PlannedPost, PlanShort, PostingWindow, PostState, PostWaits, Refusal, RefusalCode, Shape } from './plan/types.js';
// Exchange
export { writeCsv } from './exchange/csv.js';
export { CUT_SHEET_HEADER, cutSheetCells, cutSheetCsv, edgeWords } from './exchange/cut-sheet.js';
export { fileName } from './exchange/file-name.js';
export { INTEREST_HEADER, InterestRefusedError, interestWeight, readInterestCsv } from './exchange/interest-csv.js';
export { planCalendar, planCsv } from './exchange/plan-files.js';
export { PlanFileRefusedError, type PlanLine, readPlanCsv, type RefusedLine } from './exchange/read-plan-csv.js';
export type { InterestTerm } from './exchange/interest-csv.js';
export type { RecordingPhrase } from './copy/recording-phrases.js';
export type { CutSheetRow } from './exchange/cut-sheet.js';
export type { PlanRow } from './exchange/plan-files.js';
// Document
export { makeDocument } from './document/make-document.js';
export { CARD_SHAPES, CARD_SIZES, contrast, drawCard, LEAST_CONTRAST, PLAIN_CARD, TYPEFACES } from './document/card.js';
export { cardsOf } from './document/cards-of.js';
export { readDocument } from './document/read-document.js';
export { blockText, everyBlock } from './document/write/text-of.js';
export { chaptersJson, chaptersOf } from './document/write/chapters-json.js';
export { documentHtml, documentMarkdown } from './document/write/markup.js';
export { documentPlain } from './document/write/plain.js';
export { DOCUMENT_KINDS, DocumentRefusedError, NothingToWriteError } from './document/types.js';
export type { Card, CardShape, CardStyle } from './document/card.js';
export type { Typeface } from './document/set-text.js';
export type { Block, BlockQuote, DocumentContent, DocumentKind, Inline, TextMark } from './document/types.js';
export type { DocumentRequest, TalkMoment } from './document/written-talk.js';
// Translation
export { checkTranslation, TRANSLATION_RULES } from './copy/translation/check-translation.js';
export { translatedCopy, unitsOf } from './copy/translation/units.js';
export { readXliff, textOfRuns } from './exchange/xliff/read-xliff.js';
export { XliffRefusedError } from './exchange/xliff/types.js';
export { writeXliff } from './exchange/xliff/write-xliff.js';
export type { TranslationFinding, TranslationRule } from './copy/translation/check-translation.js';
export type { Targets, TextUnit } from './copy/translation/units.js';
export { cutListOf, keptRuns, playedAt, playedMs, sourceAt } from './cut/cut-list.js';
export type { CutList, PlayedRun } from './cut/cut-list.js';
export { editProblem, joinedRuns, NO_EDIT, pauseAfter, playedRuns, runsWithout, tidyEdit } from './cut/edit.js';
export type { CorrectedWord, Edit, EditedPassage, EditProblem, PauseCut } from './cut/edit.js';
export { playedTalk } from './cut/played-talk.js';
export { proposeTightening, tightened, TIGHTENING_SORTS } from './cut/tighten.js';
export type { Tightening, TighteningSort, TightenOptions } from './cut/tighten.js';
export { cutFrames, frameAt, framesOf, frameStartMs } from './cut/frames.js';
export type { FrameRate, FrameSpan } from './cut/frames.js';
export { captionsOfCut, SHORT_LINE } from './caption/captions-of-cut.js';
export type { CutCaption } from './caption/captions-of-cut.js';
export { type CaptionStrip, captionStrip, drawCaption, drawCaptionStrip, drawGround, FRAME_SIZES } from './caption/draw.js';
export type { GroundTexts } from './caption/draw.js';
export { editOfFrames } from './cut/edit-of-frames.js';
export type { FoundEdit } from './cut/edit-of-frames.js';
export { loudnessLevels, type LoudPlatform, takesShape } from './plan/loudness-levels.js';
export { readEdl, writeEdl } from './exchange/edit-lists/edl.js';
export { readOtio, writeOtio } from './exchange/edit-lists/otio.js';
export { EditListRefusedError } from './exchange/edit-lists/types.js';
export type { EditList, EditPassage } from './exchange/edit-lists/types.js';
export { canDrop, formatSmpte, parseSmpte } from './cut/smpte.js';
// Align
export { alignWords, heardForm } from './align/align-words.js';
export { draftTranscript, retime, timeText, type TimedTranscript } from './align/timed-transcript.js';
export { biasedModel } from './align/language-model.js';
export { belongs } from './align/types.js';
export type { Aligned, HeardWord, Likeness } from './align/types.js';
