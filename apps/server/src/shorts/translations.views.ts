import { TRANSLATION_RULES, type TranslationRule } from '@sift-reel/core';
import { Flag, Instant, OneOf, Part, Parts, Text, Whole } from '@sift-reel/forms';

export class TranslationFindingView {
  @OneOf(TRANSLATION_RULES) rule: TranslationRule;
  @Text() detail: string;
}

export class CaptionTimeView {
  @Whole() startMs: number;
  @Whole() endMs: number;
}

/** A field or a caption, in both languages. */
export class TranslationUnitView {
  @Text() id: string;
  @Text() name: string;
  @Text() source: string;
  @Text() target: string;
  @Whole({ nullable: true, description: 'Characters that it may have' }) limit: number | null;
  @Part(() => CaptionTimeView, { nullable: true }) time: CaptionTimeView | null;
  @Flag({ description: 'The source is not what it was when this was translated' }) changed: boolean;
  @Parts(() => TranslationFindingView) findings: TranslationFindingView[];
}

export class TranslationView {
  @Text({ description: 'Code of ISO 639-1, with a region where it has one' }) language: string;
  @Text() name: string;
  @Text({ nullable: true, description: 'Who has read all of it, as it is now; null for a draft' }) readBy: string | null;
  @Instant({ nullable: true }) readAt: string | null;
  @Flag({ description: 'It was read, but the short’s own words have changed since then' }) outdated: boolean;
  @Text({ nullable: true, description: 'The program that drafted it' }) draftedBy: string | null;
  @Flag({ description: 'A draft can be asked for' }) draftable: boolean;
  @Parts(() => TranslationUnitView) units: TranslationUnitView[];
  @Whole({ description: '0 where nothing is translated yet' }) version: number;
}
