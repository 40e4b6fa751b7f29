import { CANDIDATE_KINDS, type CandidateKind, TITLE_SORTS, type TitleSort } from '@sift-reel/core';
import { Decimal, Flag, Id, OneOf, Part, Parts, Text, TextList, Whole } from '@sift-reel/forms';

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
  @OneOf(TITLE_SORTS) sort: TitleSort;
  @Text({ description: 'The words of the passage that it was made of' }) said: string;
  @Flag({ description: 'It may not be whole: look at it before it goes out' }) draft: boolean;
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
  @Decimal() score: number;
  @OneOf(CANDIDATE_KINDS) kind: CandidateKind;
  @Text() firstLine: string;
  @Text() reason: string;
  @Part(() => CopyView) copy: CopyView;
  @Parts(() => ShortChannelView) channels: ShortChannelView[];
  @Flag() approved: boolean;
  @Text({ nullable: true }) approvedBy: string | null;
  @Whole() postCount: number;
  @Whole({ description: 'Counts every change of span and words' }) version: number;
}
