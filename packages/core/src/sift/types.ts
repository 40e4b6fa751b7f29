import type { RecordingPhrase } from '../copy/recording-phrases.js';
import type { RecordingSubject } from '../copy/recording-tags.js';
import type { InterestTerm } from '../exchange/interest-csv.js';
import type { VoiceTrack } from '../sound/voice-track.js';
import type { Language } from '../text/language-name.js';
import type { Span } from '../time/span.js';
import type { Transcript, WordRange } from '../transcript/types.js';

/** The six signals, always in this order. */
export const SIGNALS = ['opening', 'standsAlone', 'substance', 'charge', 'delivery', 'currency'] as const;
export type SignalName = (typeof SIGNALS)[number];

/** Signals that cannot be known of talk in other languages. */
export const NEED_ENGLISH: readonly SignalName[] = ['opening', 'charge'];

/** What sort of moment a candidate is. */
export const KINDS = ['answer', 'story', 'advice', 'opinion', 'figures', 'emotion', 'humour'] as const;
export type Kind = (typeof KINDS)[number];

/** What a candidate is: of a kind, or just a passage where kinds cannot be told. */
export const CANDIDATE_KINDS = [...KINDS, 'passage'] as const;
export type CandidateKind = (typeof CANDIDATE_KINDS)[number];

/** What to look for in a recording. */
export interface Brief {
  /** Part of the recording that counts; `partEndMs` null means to the end. */
  readonly partStartMs: number;
  readonly partEndMs: number | null;
  /** Length band of a candidate in ms, 3_000 <= minMs < maxMs <= 1_800_000. */
  readonly minMs: number;
  readonly maxMs: number;
  /** About how many candidates are wanted, 1 to 200. Marks a line in the ranking; the whole ranking is kept. */
  readonly roughCount: number;
  /** Topics in plain words, each a word or a short phrase. */
  readonly topics: readonly string[];
  /** Kinds of moment wanted; empty means any. */
  readonly kinds: readonly Kind[];
  /** A candidate never contains one of these. */
  readonly avoid: readonly string[];
}

/** A run of sentences of the part that counts: `first` inside, `end` not. */
export interface Run {
  readonly first: number;
  readonly end: number;
}

/** One signal of one candidate. */
export interface SignalReading {
  readonly signal: SignalName;
  /** 0 to 100; 50 is ordinary talk, 90 is rare. */
  readonly value: number;
  /** What a producer would say about it, as a plain sentence. */
  readonly sentence: string;
  /** The words that earned it, in order, not overlapping. */
  readonly evidence: readonly WordRange[];
}

/** A run of sentences on one topic; it starts exactly where its first sentence does. */
export interface Chapter extends Span {
  readonly firstWord: number;
  readonly endWord: number;
  /** At most six words, taken from what is said. */
  readonly title: string;
}

/** Another way to cut a candidate, or another place that says the same. */
export interface Alternative extends Span, WordRange {
  readonly score: number;
  /** `other-cut` shares words with the candidate; `said-again` says the same elsewhere. */
  readonly why: 'other-cut' | 'said-again';
  readonly firstLine: string;
}

export interface Candidate extends Span, WordRange {
  /** From 1; by falling score, earlier first where scores are equal. */
  readonly rank: number;
  /** 0 to 100, one decimal. */
  readonly score: number;
  readonly signals: Readonly<Record<SignalName, SignalReading>>;
  readonly kind: CandidateKind;
  readonly reason: string;
  readonly firstLine: string;
  readonly lastLine: string;
  readonly title: string;
  readonly hashtags: readonly string[];
  /** At most three, best first. */
  readonly alternatives: readonly Alternative[];
}

/** What could not be judged as well as it might, and why. */
export type SiftLimit = 'no-punctuation' | 'spread-times' | 'no-speakers' | 'no-vectors' | 'no-sound' | 'short-part' | 'other-language';

export interface SiftResult {
  readonly chapters: readonly Chapter[];
  /** The best set of candidates that do not overlap, all of it, by rank. */
  readonly candidates: readonly Candidate[];
  /** How many stand above the place where scores fall away; 0 when none is strong. */
  readonly strongCount: number;
  /** Worth over the whole recording, 0 to 100, `RIDGE_STEPS` values; 0 outside the part that counts. */
  readonly ridge: readonly number[];
  /** What the recording is made of; null where that cannot be told. */
  readonly makeUp: MakeUp | null;
  readonly limits: readonly SiftLimit[];
  /** The recording's key phrases, strongest first; at most 60. */
  readonly keyPhrases: readonly RecordingPhrase[];
  /** What the recording is about, by its words; null for talk that is not English. */
  readonly subject: RecordingSubject | null;
  /** How much each signal counted, in their order; they sum to 1. */
  readonly weights: readonly number[];
}

export const RIDGE_STEPS = 480;

/** What talk is made of. */
export const STUFFS = ['explaining', 'verdicts', 'questions', 'stories', 'procedure', 'chatter'] as const;
export type Stuff = (typeof STUFFS)[number];

/** What a recording is made of. */
export interface MakeUp {
  /** Of the time of speech in the part that counts, in the order of `STUFFS`; they sum to 1. */
  readonly shares: readonly number[];
  /** Place in `STUFFS` of what is said at each of `RIDGE_STEPS` steps of the recording; -1 where nothing is. */
  readonly steps: readonly number[];
}

/** One vector of unit length a sentence, row after row. The seam to the model: the core only compares. */
export interface Vectors {
  readonly dimensions: number;
  /** rows × dimensions */
  readonly data: Float32Array;
}

export interface SiftInput {
  readonly transcript: Transcript;
  /** What the talk is in, where that is not English: see `findLanguage`. Left out, it is English. */
  readonly language?: Language | null;
  readonly brief: Brief;
  /** The client's own tags, without `#`. */
  readonly clientTags: readonly string[];
  /** A row for each sentence of `transcript.sentences`, or null to judge by words alone. */
  readonly sentenceVectors: Vectors | null;
  /** A row for each of `brief.topics`, or null. */
  readonly topicVectors: Vectors | null;
  /** A row for each of `clientTags`; left out, tags are found by their words alone. */
  readonly tagVectors?: Vectors | null;
  /** Terms that people look for now; left out, none. */
  readonly interest?: readonly InterestTerm[];
  /** Rows for the first of `interest`, as many as there are; the others are found by their words alone. */
  readonly interestVectors?: Vectors | null;
  /** How much each signal counts, in their order; left out, the fitted weights. */
  readonly weights?: readonly number[] | null;
  /** What was heard of the recording; left out, Delivery judges by text and times. Its steps count from the recording's start. */
  readonly voice?: VoiceTrack | null;
}

export const SIFT_STAGES = ['reading', 'segments', 'scoring', 'choosing', 'explaining'] as const;
type SiftStage = (typeof SIFT_STAGES)[number];

/** Reported between steps, so that whoever runs a sift can show it, stop it, or let others work. */
export interface SiftProgress {
  readonly stage: SiftStage;
  /** 0 to 1 of the whole sift. */
  readonly fraction: number;
}

/** A brief that cannot be sifted by; `field` names what to change. */
export class BriefRefusedError extends Error {
  override readonly name = 'BriefRefusedError';
  constructor(
    readonly field: keyof Brief,
    readonly code: 'out-of-range' | 'empty-part',
    detail: string,
  ) {
    super(`${field}: ${detail} (${code})`);
  }
}
