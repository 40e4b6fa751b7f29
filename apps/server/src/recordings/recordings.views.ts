import { type SentenceEnds, WORD_TIMES, type WordTimes } from '@sift-reel/core';
import {
  ALIGNMENT_KINDS,
  ALIGNMENT_OUTCOMES,
  type AlignmentKind,
  type AlignmentOutcome,
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
  Decimal,
} from '@sift-reel/forms';
import { JOB_STATES, type JobState } from '../jobs/job-kind.js';

export class PictureView {
  @Whole() width: number;
  @Whole() height: number;
}

export class SoundTrackView {
  @Text() codec: string;
  @Whole() channels: number;
  @Text() language: string;
  @Text() title: string;
}

export class SoundView {
  @Text() name: string;
  @Text() type: string;
  @Whole() bytes: number;
  @Part(() => PictureView, { nullable: true, description: 'What is seen of it; null for sound alone' }) picture: PictureView | null;
  @Parts(() => SoundTrackView) tracks: SoundTrackView[];
  @Whole({ nullable: true, description: 'Which of its tracks is the recording’s; null for a picture without sound' }) track: number | null;
}

export class SpriteView {
  @Whole() columns: number;
  @Whole() count: number;
  @Whole({ description: 'Time from one small picture to the next, in ms' }) everyMs: number;
  @Whole({ description: 'Of one small picture, in px' }) width: number;
  @Whole() height: number;
}

export class HeardLoudnessView {
  @Decimal({ description: 'LUFS (EBU R 128)' }) integrated: number;
  @Decimal({ description: 'The loudest three seconds, LUFS' }) shortTerm: number;
  @Decimal({ description: 'LU' }) range: number;
  @Decimal({ description: 'dBTP' }) truePeak: number;
}

export class PreparationView {
  @Id() id: string;
  @OneOf(JOB_STATES) state: JobState;
  @Text() stage: string;
  @Decimal() fraction: number;
  @Whole({ nullable: true }) leftMs: number | null;
  @Text({ nullable: true }) failure: string | null;
  @Flag({ description: 'True when browsers are given another file than the original' }) proxied: boolean;
  @Part(() => SpriteView, { nullable: true }) sprite: SpriteView | null;
  @Part(() => HeardLoudnessView, { nullable: true, description: 'Null until it was heard, and for silence' }) loudness: HeardLoudnessView | null;
  @Flag({ description: 'True when its levels can be shown' }) heard: boolean;
}

export class SoundLevelsView {
  @Whole({ description: 'Time from one level to the next, in ms' }) stepMs: number;
  @WholeList({ description: 'Mean power within each step, in dB below full scale, -96 to 0' }) db: number[];
}

export class TranscriptSummaryView {
  @Text() sourceName: string;
  @Text() format: string;
  @Text() encoding: string;
  @Whole() wordCount: number;
  @Whole() sentenceCount: number;
  @TextList() speakers: string[];
  @OneOf(WORD_TIMES) wordTimes: WordTimes;
  @OneOf(['written', 'restored', 'mixed']) sentenceEnds: SentenceEnds;
  @Whole() repairCount: number;
}

/** Listening for the words of a recording. */
export class AlignmentView {
  @OneOf(ALIGNMENT_KINDS) kind: AlignmentKind;
  @OneOf(JOB_STATES) state: JobState;
  @Text() stage: string;
  @Decimal() fraction: number;
  @Whole({ nullable: true }) leftMs: number | null;
  @Text({ nullable: true }) failure: string | null;
  @Text({ nullable: true, description: 'File of a text that waits for its times' }) sourceName: string | null;
  @Decimal({ nullable: true, description: 'Of the words, the share that was heard' }) share: number | null;
  @OneOf(ALIGNMENT_OUTCOMES, { nullable: true, description: 'Taken, or why not; null until it is done' }) outcome: AlignmentOutcome | null;
}

/** Files that are brought in from an address. */
export class FetchView {
  @Id() id: string;
  @Text({ description: 'Host that it comes from' }) host: string;
  @OneOf(JOB_STATES) state: JobState;
  @Text() stage: string;
  @Decimal() fraction: number;
  @Whole({ nullable: true }) leftMs: number | null;
  @Text({ nullable: true }) failure: string | null;
  @TextList({ max: 1_000, description: 'What could not be had of it' }) notes: string[];
}

export class GivenChapterView {
  @Whole() startMs: number;
  @Text() title: string;
}

export class PersonView {
  @Text() name: string;
  @Text({ description: 'Such as host or guest' }) role: string;
}

/** What the feed said of a recording that was an episode. */
export class OriginView {
  @Text() feedTitle: string;
  @Instant({ nullable: true }) publishedAt: string | null;
  @Text({ nullable: true, max: 2_000 }) link: string | null;
  @Whole({ nullable: true }) season: number | null;
  @Text() seasonName: string;
  @Text() number: string;
  @Parts(() => PersonView) persons: PersonView[];
  @Parts(() => GivenChapterView) chapters: GivenChapterView[];
}

export class LatestSiftView {
  @Id() id: string;
  @OneOf(JOB_STATES) state: JobState;
  @Text() stage: string;
  @Decimal() fraction: number;
  @Whole({ nullable: true }) leftMs: number | null;
  @Whole() candidateCount: number;
  @Whole() keptCount: number;
  @Whole({ nullable: true }) strongCount: number | null;
}

export class RecordingView {
  @Id() id: string;
  @Id() clientId: string;
  @Text() title: string;
  @Whole({ nullable: true }) durationMs: number | null;
  @Part(() => SoundView, { nullable: true }) sound: SoundView | null;
  @Part(() => TranscriptSummaryView, { nullable: true }) transcript: TranscriptSummaryView | null;
  @Part(() => PreparationView, { nullable: true }) preparation: PreparationView | null;
  @Part(() => AlignmentView, { nullable: true }) alignment: AlignmentView | null;
  @Part(() => FetchView, { nullable: true, description: 'Null for what was brought in by hand' }) fetch: FetchView | null;
  @Part(() => OriginView, { nullable: true }) origin: OriginView | null;
  @Part(() => LatestSiftView, { nullable: true }) latestSift: LatestSiftView | null;
  @Instant() createdAt: string;
  @Whole() version: number;
}

export class RepairView {
  @Whole() line: number;
  @Text() code: string;
  @Text() detail: string;
}

export class RepairsView {
  @Text() sourceName: string;
  @Whole() count: number;
  @Parts(() => RepairView) repairs: RepairView[];
}

export class SaidFirstView {
  @Whole({ nullable: true }) startMs: number | null;
  @Text({ nullable: true }) speaker: string | null;
  @Text() text: string;
}

/** How a transcript file is understood, before it is taken. */
export class TranscriptReadingView extends TranscriptSummaryView {
  @Flag({ description: 'False for text without times, which are heard in the sound' }) timed: boolean;
  @Whole() durationMs: number;
  @Parts(() => SaidFirstView) excerpt: SaidFirstView[];
  @Parts(() => RepairView) repairs: RepairView[];
}

/** The core's PackedTranscript. */
export class PackedTranscriptView {
  @Text({ max: 100_000_000 }) text: string;
  @WholeList() starts: number[];
  @WholeList() lengths: number[];
  @WholeList() marks: number[];
  @WholeList() turns: number[];
  @WholeList() sentences: number[];
  @TextList() speakers: string[];
  @Whole() durationMs: number;
  @OneOf(WORD_TIMES) wordTimes: WordTimes;
  @OneOf(['written', 'restored', 'mixed']) sentenceEnds: SentenceEnds;
}
