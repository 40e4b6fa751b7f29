import { CANDIDATE_KINDS, type CandidateKind, SIGNALS, type SiftLimit, type SignalName } from '@sift-reel/core';
import {
  BriefForm,
  CANDIDATE_STATES,
  type CandidateState,
  Decimal,
  DecimalList,
  Flag,
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
import { JOB_STATES, type JobState } from '../jobs/job-kind.js';

export class SiftView {
  @Id() id: string;
  @Id() recordingId: string;
  @Part(() => BriefForm) brief: BriefForm;
  @OneOf(JOB_STATES) state: JobState;
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
  @Flag({ description: 'False where it cannot be known in the language of the talk; it counts as ordinary then' }) known: boolean;
  @Whole({ max: 100 }) value: number;
  @Text() sentence: string;
  @WholeList({ description: 'Pairs of words: first inside, end not' }) evidence: number[];
}

export class KeyPhraseView {
  @Text() text: string;
  @Whole() count: number;
  @WholeList({ description: 'First words of the places where it is said' }) firstWords: number[];
  @Whole({ description: 'Number of its words' }) length: number;
  @Decimal({ nullable: true, description: 'Searches a month, where the interest list has the phrase' }) volume: number | null;
  @Decimal({ nullable: true, description: '0 to 1' }) competition: number | null;
  @Decimal({ nullable: true, description: 'Against the month before; 0.2 is a fifth more' }) change: number | null;
}

export class SearchHitView {
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Decimal({ description: '0 to 1 beside the best of its kind' }) score: number;
  @OneOf(['words', 'meaning']) by: 'words' | 'meaning';
  @Text() text: string;
}

export class SearchView {
  @Text() query: string;
  @Flag({ description: 'False until the recording has been sifted once: only then are its vectors there' }) byMeaning: boolean;
  @Parts(() => SearchHitView) hits: SearchHitView[];
}

export class AlternativeView {
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Decimal({ description: '0 to 100' }) score: number;
  @OneOf(['other-cut', 'said-again']) why: 'other-cut' | 'said-again';
  @Text() firstLine: string;
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
  @OneOf(CANDIDATE_KINDS) kind: CandidateKind;
  @Text() reason: string;
  @Text() firstLine: string;
  @Text() lastLine: string;
  @Text() title: string;
  @TextList() hashtags: string[];
  @Parts(() => AlternativeView, { description: 'Other cuts of it, and other places that say the same; at most three' }) alternatives: AlternativeView[];
  @OneOf(['sift', 'own'], { description: 'Found by the sift, or made by somebody' }) origin: 'sift' | 'own';
  @OneOf(CANDIDATE_STATES) state: CandidateState;
  @Parts(() => SignalView, { description: 'The six, in order' }) signals: SignalView[];
}

/** What a recording is made of. */
export class MakeUpView {
  @DecimalList({ description: 'Shares of the time of speech: explaining, verdicts, questions and answers, stories, procedure, chatter; they sum to 1' })
  shares: number[];
  @WholeList({ description: 'Which of the six is said, in as many steps as the ridge has; -1 where nothing is' }) steps: number[];
  @Text({ description: 'What kind of recording this is, in a sentence' }) sentence: string;
}

/** A sift with its whole ranking. */
export class RankingView {
  @Part(() => SiftView) sift: SiftView;
  @Parts(() => ChapterView) chapters: ChapterView[];
  @DecimalList({ description: 'Worth over the whole recording in equal steps, 0 to 100' }) ridge: number[];
  @Whole() strongCount: number;
  @TextList() limits: SiftLimit[];
  @Text({ nullable: true, description: 'What the talk is in, where that is not English' }) language: string | null;
  @Part(() => MakeUpView, { nullable: true, description: 'Null where it cannot be told' }) makeUp: MakeUpView | null;
  @Parts(() => KeyPhraseView) keyPhrases: KeyPhraseView[];
  @DecimalList({ description: 'How much each signal counted, in their order' }) weights: number[];
  @Parts(() => CandidateView) candidates: CandidateView[];
}
