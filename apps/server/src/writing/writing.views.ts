import { Flag, Id, Instant, OneOf, Parts, Text, TextList } from '@sift-reel/forms';
import { JOB_STATES, type JobState } from '../jobs/job-kind.js';
import { FindingView } from '../shorts/shorts.views.js';

export class WritingServiceView {
  @Flag({ description: 'An address of a writing service is configured' }) configured: boolean;
}

export class WrittenTitleView {
  @Text() text: string;
  @Parts(() => FindingView) findings: FindingView[];
}

/** A question to the writing service and what came of it. */
export class WritingView {
  @Id() id: string;
  @Id() shortId: string;
  @Text() askedBy: string;
  @Instant() askedAt: string;
  @OneOf(JOB_STATES) state: JobState;
  @Text({ nullable: true }) failure: string | null;
  @Parts(() => WrittenTitleView) titles: WrittenTitleView[];
  @Text() description: string;
  @TextList() hashtags: string[];
  @TextList() keywords: string[];
  @Text() coverLine: string;
  @Parts(() => FindingView, { description: 'Of all but the titles' }) findings: FindingView[];
  @Text({ nullable: true, description: 'The answer’s language where it is another than the talk’s' }) otherLanguage: string | null;
  @Flag({ description: 'The passage itself speaks to a program' }) speaksToProgram: boolean;
  @Text({ description: 'What was sent, as JSON' }) sent: string;
  @Text({ nullable: true, description: 'What came, as it came' }) came: string | null;
}
