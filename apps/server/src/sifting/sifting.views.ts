import { KINDS, type Kind, SIGNALS, type SiftLimit, type SignalName } from '@sift-reel/core';
import {
  BriefForm,
  CANDIDATE_STATES,
  type CandidateState,
  Decimal,
  DecimalList,
  Id,
  Instant,
  OneOf,
  Part,
  Parts,
  Text,
  TextList,
  Whole,
  WholeList,
} from '@sift-reel/forms';
import { SIFT_STATES, type SiftState } from './sifting.models.js';

export class SiftView {
  @Id() id: string;
  @Id() recordingId: string;
  @Part(() => BriefForm) brief: BriefForm;
  @OneOf(SIFT_STATES) state: SiftState;
  @Text() stage: string;
  @Decimal({ description: '0 to 1' }) fraction: number;
  @Whole({ nullable: true, description: 'Time left in ms, as far as it can be told' }) leftMs: number | null;
  @Text({ nullable: true, description: 'Why it failed' }) failure: string | null;
  @Whole() candidateCount: number;
  @Whole() keptCount: number;
  @Text({ description: 'Who asked for it' }) createdBy: string;
  @Instant() createdAt: string;
}

export class ChapterView {
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Text() title: string;
}

export class SignalView {
  @OneOf(SIGNALS) signal: SignalName;
  @Whole({ max: 100 }) value: number;
  @Text() sentence: string;
  @WholeList({ description: 'Pairs of words: first inside, end not' }) evidence: number[];
}

export class CandidateView {
  @Id() id: string;
  @Whole() rank: number;
  @Decimal({ description: '0 to 100' }) score: number;
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Whole({ description: 'Where the sift found it, before anybody moved its ends' }) foundFirstWord: number;
  @Whole() foundEndWord: number;
  @OneOf(KINDS) kind: Kind;
  @Text() reason: string;
  @Text() firstLine: string;
  @Text() lastLine: string;
  @Text() title: string;
  @TextList() hashtags: string[];
  @OneOf(CANDIDATE_STATES) state: CandidateState;
  @Parts(() => SignalView, { description: 'The six, in order' }) signals: SignalView[];
}

/** A sift with its whole ranking. */
export class RankingView {
  @Part(() => SiftView) sift: SiftView;
  @Parts(() => ChapterView) chapters: ChapterView[];
  @DecimalList({ description: 'Worth over the whole recording in equal steps, 0 to 100' }) ridge: number[];
  @Whole() strongCount: number;
  @TextList() limits: SiftLimit[];
  @Parts(() => CandidateView) candidates: CandidateView[];
}
