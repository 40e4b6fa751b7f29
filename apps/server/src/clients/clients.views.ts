import { AUDIT_ACTIONS, AUDIT_SUBJECTS, type AuditAction, type AuditSubject } from '../audit/trail-words.js';
import { SHAPES, type Shape } from '@sift-reel/core';
import {
  BriefForm,
  CardStyleFields,
  Day,
  Decimal,
  DecimalList,
  Flag,
  Id,
  Instant,
  Part,
  Parts,
  Text,
  TextList,
  VoiceFields,
  Whole,
  WindowForm,
  OneOf,
} from '@sift-reel/forms';

export class ClientView {
  @Id() id: string;
  @Text() name: string;
  @Text() zone: string;
  @TextList() tags: string[];
  @Part(() => BriefForm) standingBrief: BriefForm;
  @DecimalList({ nullable: true, description: 'How much each signal counts, in their order; null for the fitted weights' }) signalWeights: number[] | null;
  @Part(() => VoiceFields) voice: VoiceFields;
  @Part(() => CardStyleFields) cardStyle: CardStyleFields;
  @Flag({ description: 'The writing service may be asked about its recordings' }) writingService: boolean;
  @Whole({ nullable: true, description: 'So many days a finished file is kept; null for good' }) filesKeptDays: number | null;
  @Whole({ nullable: true, description: 'After so many days an evergreen short may come again; null where none does' }) comeAgainDays: number | null;
  @Whole({ description: 'A post that is later than this goes out only on a person’s word' }) lateMinutes: number;
  @Whole() recordingCount: number;
  @Whole() channelCount: number;
  @Whole() version: number;
}

/** A client the agency does not work for any more. */
export class ArchivedClientView {
  @Id() id: string;
  @Text() name: string;
  @Instant() archivedAt: string;
}

export class InterestTermView {
  @Text() term: string;
  @Decimal({ description: 'Searches a month' }) volume: number;
  @Decimal({ description: '0 to 1' }) competition: number;
  @Decimal({ description: 'Against the month before; 0.2 is a fifth more' }) change: number;
}

export class PlatformProfileView {
  @Id() id: string;
  @Text() name: string;
  @Whole() minDurationMs: number;
  @Whole() maxDurationMs: number;
  @TextList({ values: SHAPES }) shapes: Shape[];
  @Whole() titleLimit: number;
  @Whole() descriptionLimit: number;
  @Whole() hashtagLimit: number;
  @Whole() postsPerDay: number;
  @Whole() minGapMinutes: number;
  @Decimal({ description: 'Integrated, LUFS: what its players even out to' }) loudness: number;
  @Decimal({ description: 'At most, dBTP' }) truePeak: number;
  @Text({ nullable: true, description: 'What its channels post through; null: they are posted by hand' }) service: string | null;
  @Whole() version: number;
}

export class ChannelView {
  @Id() id: string;
  @Id() clientId: string;
  @Text() name: string;
  @Text() zone: string;
  @Whole() order: number;
  @Whole() postsPerDay: number;
  @Whole() postsPerWeek: number;
  @Text({ nullable: true, description: 'What its posts are in; null for the language of the talk' }) language: string | null;
  @Part(() => PlatformProfileView) platform: PlatformProfileView;
  @Parts(() => WindowForm) windows: WindowForm[];
  @Whole() version: number;
}

export class BlackoutView {
  @Id() id: string;
  @Id() clientId: string;
  @Id({ nullable: true }) channelId: string | null;
  @Day() fromDate: string;
  @Day() toDate: string;
  @Text() reason: string;
}

export class AuditView {
  @Text() id: string;
  @Instant() at: string;
  @Text({ description: 'Who did it' }) who: string;
  @OneOf(AUDIT_ACTIONS) action: AuditAction;
  @OneOf(AUDIT_SUBJECTS) subject: AuditSubject;
  @Text() subjectId: string;
  @Text({ description: 'What it was about, in words' }) detail: string;
}
