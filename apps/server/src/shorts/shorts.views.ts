import { CANDIDATE_KINDS, type CandidateKind, type CheckRule, type Copy, PROPOSED_SORTS, type ProposedSort, TRUTH_RULES, VOICE_RULES } from '@sift-reel/core';
import { Decimal, EditFields, Flag, Id, Instant, OneOf, Part, Parts, Text, TextList, Whole } from '@sift-reel/forms';

export class CopyView {
  @Text() title: string;
  @Text() description: string;
  @TextList() hashtags: string[];
  @TextList() keywords: string[];
  @Text() coverLine: string;
}

/** A title that is offered. */
export class TitleView {
  @Text() text: string;
  @OneOf(PROPOSED_SORTS) sort: ProposedSort;
  @Text({ description: 'The words of the passage that it was made of' }) said: string;
  @Flag({ description: 'It may not be whole: look at it before it goes out' }) draft: boolean;
  @Text({ description: 'The text that goes with it' }) description: string;
}

const COPY_FIELDS: readonly (keyof Copy)[] = ['title', 'description', 'hashtags', 'keywords', 'coverLine'];

/** What the words were once. */
export class CopyVersionView {
  @Id() id: string;
  @Instant() writtenAt: string;
  @Text({ nullable: true, description: 'null where the program proposed it' }) writtenBy: string | null;
  @Id({ nullable: true, description: 'null for the words of all channels' }) channelId: string | null;
  @Text({ nullable: true }) channel: string | null;
  @Part(() => CopyView) copy: CopyView;
}

/** A sentence of a short, in played time. */
export class PassageSentenceView {
  @Text({ nullable: true }) speaker: string | null;
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Text() text: string;
}

/** A span of a recording. */
export class SpanView {
  @Whole() startMs: number;
  @Whole() endMs: number;
}

/** What is said in a short. */
export class PassageView {
  @Parts(() => SpanView, { description: 'What of the recording is played, in this order' }) cuts: SpanView[];
  @Parts(() => PassageSentenceView) sentences: PassageSentenceView[];
}

/** A place in the words that breaks a rule. */
export class FindingView {
  @OneOf(COPY_FIELDS) field: keyof Copy;
  @Whole({ nullable: true, description: 'Which tag or keyword; null in a field that is one text' }) item: number | null;
  @Whole({ description: 'First character, in UTF-16 units' }) from: number;
  @Whole() to: number;
  @OneOf([...TRUTH_RULES, ...VOICE_RULES]) rule: CheckRule;
  @Text() text: string;
  @Text({ description: 'What is wrong, in a sentence' }) detail: string;
  @Text({ nullable: true, description: 'What would take its place; null where only a person can tell' }) mend: string | null;
  @Flag({ description: 'A person has said that it is right all the same' }) ticked: boolean;
}

export class CheckView {
  @Parts(() => FindingView) findings: FindingView[];
  @Flag({ description: 'The passage itself speaks to a program that may read it: look twice at what such a program proposes' }) speaksToProgram: boolean;
}

export class CopyProblemView {
  @Text() field: string;
  @Text() detail: string;
}

/** How a short stands with one channel of its client. */
export class ShortChannelView {
  @Id() channelId: string;
  @Text() name: string;
  @Text() platform: string;
  @Whole() titleLimit: number;
  @Whole() descriptionLimit: number;
  @Whole() hashtagLimit: number;
  @Part(() => CopyView, { nullable: true, description: 'The channel’s own words; null where it takes those for all' }) variant: CopyView | null;
  @Text({ nullable: true, description: 'Code of the channel’s language where it is not the talk’s' }) language: string | null;
  @Part(() => CopyView, { nullable: true, description: 'The words in the channel’s language, where there are any and the channel has none of its own' })
  translated: CopyView | null;
  @Parts(() => CopyProblemView) problems: CopyProblemView[];
  @Text({ nullable: true, description: 'Why the channel cannot take it, whatever the words' }) unfit: string | null;
}

export class ShortView {
  @Id() id: string;
  @Id() clientId: string;
  @Id() recordingId: string;
  @Text() recordingTitle: string;
  @Id() siftId: string;
  @Id() candidateId: string;
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Whole({ description: 'How long it plays: less than from start to end where something is cut out' }) playedMs: number;
  @Part(() => EditFields) edit: EditFields;
  @Decimal() score: number;
  @OneOf(CANDIDATE_KINDS) kind: CandidateKind;
  @Text() firstLine: string;
  @Text() reason: string;
  @Part(() => CopyView) copy: CopyView;
  @Parts(() => ShortChannelView) channels: ShortChannelView[];
  @TextList({ description: 'Lines of the client under every text' }) fixedParts: string[];
  @Flag({ description: 'It may come again where its client wants that' }) evergreen: boolean;
  @Whole({ nullable: true, description: 'After so many days it may stand on a channel again; null where it goes to each once' }) comesAgainDays: number | null;
  @Flag() approved: boolean;
  @Text({ nullable: true }) approvedBy: string | null;
  @Whole() postCount: number;
  @Whole({ description: 'Counts every change of span and words' }) version: number;
}
