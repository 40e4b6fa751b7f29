import {
  ADDRESSES,
  CAPITALS,
  type CardStyle,
  DOCUMENT_KINDS,
  type DocumentKind,
  type Edit,
  EMOJI_USES,
  type Kind,
  KINDS,
  LONGEST_CANDIDATE_MS,
  PERSONS,
  SERIAL_COMMAS,
  type Shape,
  SHAPES,
  SHORTEST_CANDIDATE_MS,
  SPELLINGS,
  TRUTH_RULES,
  type TruthRule,
  TYPEFACES,
  type Voice,
} from '@sift-reel/core';
import { GreaterThan, IsZone, NotBefore, ReadableOn, RoomFor } from './checks.js';
import { Decimal, Day, DecimalList, Email, Flag, Id, OneOf, Part, Parts, Text, TextList, Tree, Whole } from './fields.js';

export const ROLES = ['owner', 'producer'] as const;
export type Role = (typeof ROLES)[number];
/** Why words are listened for: text has no times, its cues have none for each word, or there is no text. */
export const ALIGNMENT_KINDS = ['text', 'cues', 'draft'] as const;
export type AlignmentKind = (typeof ALIGNMENT_KINDS)[number];
/** Taken into the transcript, or why not: shorts stand on its times, too little of it was heard, or another language is spoken. */
export const ALIGNMENT_OUTCOMES = ['taken', 'shorts', 'unlike', 'language'] as const;
export type AlignmentOutcome = (typeof ALIGNMENT_OUTCOMES)[number];

export const CANDIDATE_STATES = ['open', 'kept', 'dropped'] as const;
export type CandidateState = (typeof CANDIDATE_STATES)[number];

const LAST_MS = 48 * 3_600_000;
const LAST_WORD = 2_000_000;
/** A language by ISO 639, with a region where it has one. */
export const LANGUAGE_CODE = /^[a-z]{2,3}(?:-[A-Z]{2})?$/;
const COLOUR = { pattern: /^#[\da-f]{6}$/i, says: 'must be a colour, #rrggbb' };

export class SignInForm {
  @Email() email: string;
  @Text({ min: 1, max: 200, trim: 'none' }) password: string;
}

export class NewUserForm {
  @Email() email: string;
  @Text({ min: 1, max: 80 }) name: string;
  @OneOf(ROLES) role: Role;
  @TextList({ format: 'uuid', maxItems: 500 }) clientIds: string[];
}

export class ChoosePasswordForm {
  @Text({ min: 12, max: 200, trim: 'none', description: 'At least 12 characters' }) password: string;
}

export class ChangePasswordForm {
  @Text({ min: 1, max: 200, trim: 'none' }) current: string;
  @Text({ min: 12, max: 200, trim: 'none', description: 'At least 12 characters' }) next: string;
}

/** Which version of a thing the writer saw: somebody who saw an older one is refused. */
export const SEEN = { min: 1, max: 2_000_000_000, description: 'The version that was seen; a write that saw an older one is refused (409)' } as const;

export class UserForm {
  @Text({ min: 1, max: 80 }) name: string;
  @OneOf(ROLES) role: Role;
  @TextList({ format: 'uuid', maxItems: 500 }) clientIds: string[];
  @Flag() active: boolean;
  @Whole(SEEN) version: number;
}

/** What to look for in a recording. Times in ms from its start. */
export class BriefForm {
  @Whole({ max: LAST_MS }) partStartMs: number;
  @GreaterThan('partStartMs', 'must be after the start of the part')
  @RoomFor('partStartMs', 'minMs', 'leaves less room than the shortest length')
  @Whole({ max: LAST_MS, nullable: true, description: 'null means to the end' })
  partEndMs: number | null;
  @Whole({ min: SHORTEST_CANDIDATE_MS, max: LONGEST_CANDIDATE_MS }) minMs: number;
  @GreaterThan('minMs', 'must be longer than the shortest') @Whole({ min: SHORTEST_CANDIDATE_MS, max: LONGEST_CANDIDATE_MS }) maxMs: number;
  @Whole({ min: 1, max: 200 }) roughCount: number;
  @TextList({ maxItems: 20, max: 80 }) topics: string[];
  @TextList({ maxItems: KINDS.length, values: KINDS }) kinds: Kind[];
  @TextList({ maxItems: 50, max: 80 }) avoid: string[];
}

export class ClientForm {
  @Text({ min: 1, max: 80 }) name: string;
  @IsZone() @Text({ min: 1, max: 60 }) zone: string;
  @TextList({ maxItems: 30, max: 40, description: 'Without #' }) tags: string[];
  @Part(() => BriefForm) standingBrief: BriefForm;
}

export class ClientChangeForm extends ClientForm {
  @Whole(SEEN) version: number;
}

export class PreferredWordForm {
  @Text({ min: 1, max: 60 }) say: string;
  @Text({ min: 1, max: 60 }) not: string;
}

/** Words in a row, by their index in the transcript: `firstWord` inside, `endWord` not. */
export class WordSpanForm {
  @Whole({ max: LAST_WORD }) firstWord: number;
  @GreaterThan('firstWord', 'must be after the first word') @Whole({ min: 1, max: LAST_WORD }) endWord: number;
}

/** A reel of five minutes has some ten. */
export const MOST_PARTS = 40;

/** Parts of a recording, in its order, that become one short. */
export class ReelForm {
  @Parts(() => WordSpanForm, { minItems: 1, maxItems: MOST_PARTS }) parts: WordSpanForm[];
}

/** A pause that is cut down. */
export class PauseCutForm {
  @Whole({ max: LAST_WORD }) afterWord: number;
  @Whole({ max: 60_000 }) leftMs: number;
}

/** How a word reads. */
export class CorrectedWordForm {
  @Whole({ max: LAST_WORD }) word: number;
  @Text({ max: 80, description: 'Empty where it is part of the word before' }) text: string;
}

/** What is made of a short between its ends. */
export class EditFields implements Edit {
  @Parts(() => WordSpanForm, { maxItems: 2_000, description: 'Words that are taken out' }) removed: readonly WordSpanForm[];
  @Parts(() => PauseCutForm, { maxItems: 2_000 }) pauses: readonly PauseCutForm[];
  @Parts(() => CorrectedWordForm, { maxItems: 2_000 }) corrected: readonly CorrectedWordForm[];
  @Parts(() => WordSpanForm, { maxItems: MOST_PARTS, description: 'Other parts of the recording that are played before it' }) before: readonly WordSpanForm[];
  @Parts(() => WordSpanForm, { maxItems: MOST_PARTS, description: 'And after it' }) after: readonly WordSpanForm[];
}

/** An edit list: text of a file, read and shown before anything is made of it. */
export class EditListForm {
  @Text({ min: 1, max: 255, description: 'Of the file' }) name: string;
  @Text({ min: 1, max: 900_000, description: 'CMX 3600, or OpenTimelineIO JSON' }) text: string;
  @Flag({ description: 'All that it plays is one short' }) asOne: boolean;
}

export class KeptPassageForm extends WordSpanForm {
  @Text({ max: 300, description: 'Empty where one is to be proposed' }) title: string;
  @Part(() => EditFields) edit: EditFields;
}

/** Passages of a recording that become shorts, each with its cut. */
export class KeepPassagesForm {
  @Parts(() => KeptPassageForm, { minItems: 1, maxItems: 60 }) passages: KeptPassageForm[];
}

export class EditForm {
  @Part(() => EditFields) edit: EditFields;
  @Whole(SEEN) version: number;
}

/** How a client's words sound. */
export class VoiceFields implements Voice {
  @Parts(() => PreferredWordForm, { maxItems: 100 }) use: PreferredWordForm[];
  @TextList({ maxItems: 100, max: 60, description: 'Words and phrases that are never used' }) avoid: string[];
  @OneOf(SPELLINGS) spelling: Voice['spelling'];
  @OneOf(CAPITALS, { description: 'In titles and cover lines' }) capitals: Voice['capitals'];
  @OneOf(SERIAL_COMMAS) serialComma: Voice['serialComma'];
  @OneOf(PERSONS) person: Voice['person'];
  @OneOf(ADDRESSES, { description: 'How German words speak to a viewer' }) address: Voice['address'];
  @OneOf(EMOJI_USES) emoji: Voice['emoji'];
  @Whole({ nullable: true, min: 10, max: 1_000, description: 'Characters; null where a platform’s limit is enough' }) longestTitle: number | null;
  @Whole({ nullable: true, min: 10, max: 20_000 }) longestText: number | null;
  @TextList({ maxItems: 5, max: 200, description: 'Lines under every text: link, call to action, credits' }) fixedParts: string[];
  @TextList({ maxItems: 20, max: 120, description: 'Titles that were good; proposals are to be like them' }) examples: string[];
  @TextList({ maxItems: 10, max: 40, description: 'Without #' }) alwaysTags: string[];
  @TextList({ maxItems: 100, max: 40, description: 'Without #' }) neverTags: string[];
}

export class VoiceForm {
  @Part(() => VoiceFields) voice: VoiceFields;
  @Whole(SEEN) version: number;
}

/** How a client's quote cards look. */
export class CardStyleFields implements CardStyle {
  @OneOf(TYPEFACES) typeface: CardStyle['typeface'];
  @Text({ min: 7, max: 7, ...COLOUR }) ground: string;
  @ReadableOn('ground') @Text({ min: 7, max: 7, ...COLOUR }) ink: string;
}

export class CardStyleForm {
  @Part(() => CardStyleFields) cardStyle: CardStyleFields;
  @Whole(SEEN) version: number;
}

/** Whether the writing service may be asked about a client's recordings. */
export class WritingAllowedForm {
  @Flag() allowed: boolean;
  @Whole(SEEN) version: number;
}

/** How long finished files are kept, in days. */
export class FilesKeptForm {
  @Whole({ min: 7, max: 3_650, nullable: true, description: 'null means for good' }) days: number | null;
  @Whole(SEEN) version: number;
}

/** After how many days an evergreen short may come again. */
export class ComeAgainForm {
  @Whole({ min: 14, max: 730, nullable: true, description: 'null means never' }) days: number | null;
  @Whole(SEEN) version: number;
}

export class WindowForm {
  @Whole({ min: 1, max: 7, description: 'ISO weekday: Monday 1 to Sunday 7' }) weekday: number;
  @Whole({ max: 1_439, description: 'Minutes after midnight on the wall of the channel’s zone' }) minute: number;
  @Whole({ min: 1, max: 100 }) weight: number;
}

export class ChannelForm {
  @Text({ min: 1, max: 60 }) name: string;
  @Id() platformProfileId: string;
  @IsZone() @Text({ min: 1, max: 60 }) zone: string;
  @Whole({ min: 1, max: 20, description: '1 is where a short goes first' }) order: number;
  @Whole({ min: 1, max: 24 }) postsPerDay: number;
  @Whole({ min: 1, max: 168 }) postsPerWeek: number;
  @Text({
    optional: true,
    nullable: true,
    min: 2,
    max: 20,
    pattern: LANGUAGE_CODE,
    says: 'must be a code such as es or pt-BR',
    description: 'What its posts are in; null for the language of the talk',
  })
  language?: string | null;
  @Parts(() => WindowForm, { maxItems: 168 }) windows: WindowForm[];
}

export class ChannelChangeForm extends ChannelForm {
  @Whole(SEEN) version: number;
}

export class BlackoutForm {
  @Id({ nullable: true, description: 'null means every channel of the client' }) channelId: string | null;
  @Day() fromDate: string;
  @NotBefore('fromDate', 'must not be before the first day') @Day() toDate: string;
  @Text({ min: 1, max: 80 }) reason: string;
}

/** LUFS, and dBTP: what the filter that sets them can. */
const LOUDNESS_RANGE = { min: -36, max: -8 } as const;
const TRUE_PEAK_RANGE = { min: -8, max: 0 } as const;

export class PlatformProfileForm {
  @Text({ min: 1, max: 40 }) name: string;
  @Whole({ max: LONGEST_CANDIDATE_MS }) minDurationMs: number;
  @GreaterThan('minDurationMs', 'must be longer than the shortest') @Whole({ min: 1_000, max: LAST_MS }) maxDurationMs: number;
  @TextList({ maxItems: SHAPES.length, values: SHAPES }) shapes: Shape[];
  @Whole({ min: 10, max: 1_000 }) titleLimit: number;
  @Whole({ max: 20_000 }) descriptionLimit: number;
  @Whole({ max: 60 }) hashtagLimit: number;
  @Whole({ min: 1, max: 100 }) postsPerDay: number;
  @Whole({ max: 1_440 }) minGapMinutes: number;
  @Decimal({ ...LOUDNESS_RANGE, description: 'Integrated, LUFS: what its players even out to' }) loudness: number;
  @Decimal({ ...TRUE_PEAK_RANGE, description: 'At most, dBTP' }) truePeak: number;
  @Text({
    optional: true,
    nullable: true,
    min: 1,
    max: 31,
    pattern: /^[a-z][a-z0-9-]*$/,
    says: 'must be the name of a platform that posts can go through',
    description: 'What its channels post through; null: they are posted by hand',
  })
  service?: string | null;
}

export class PlatformProfileChangeForm extends PlatformProfileForm {
  @Whole(SEEN) version: number;
}

export class RecordingForm {
  @Text({ min: 1, max: 160 }) title: string;
  @Whole(SEEN) version: number;
}

export class VoiceNamesForm {
  @TextList({ maxItems: 200, min: 1, max: 120 }) names: string[];
  /** For what nobody is named for; null or nothing leaves it so. */
  @Text({ max: 120, nullable: true }) unnamed: string | null;
  @Whole(SEEN) version: number;
}

/** What becomes of a feed's new episodes by themselves: they are listed, taken in, or taken in and sifted with the client's standing brief. */
export const FEED_RULES = ['list', 'take', 'sift'] as const;
export type FeedRule = (typeof FEED_RULES)[number];
const ADDRESS = { max: 2_000, pattern: /^https?:\/\/\S+$/i, says: 'must be an address that begins with http:// or https://' };

export class FeedForm {
  @Text({ ...ADDRESS, description: 'Of the RSS feed' }) url: string;
  @OneOf(FEED_RULES) rule: FeedRule;
}

export class FeedChangeForm {
  @OneOf(FEED_RULES) rule: FeedRule;
  @Whole(SEEN) version: number;
}

export class TakeInForm {
  @Flag({ description: 'Sift it with the standing brief as soon as its words are there' }) sift: boolean;
}

/** A plain link to a file of sound or video, and to its transcript where there is one. */
export class LinkForm {
  @Text(ADDRESS) url: string;
  @Text({ ...ADDRESS, nullable: true }) transcriptUrl: string | null;
  @Text({ min: 1, max: 160, nullable: true, description: 'null takes the name of the file' }) title: string | null;
  @Flag({ description: 'Sift it with the standing brief as soon as its words are there' }) sift: boolean;
}

export class AlignmentForm {
  @OneOf(ALIGNMENT_KINDS) kind: AlignmentKind;
}

export class SoundTrackForm {
  @Whole({ min: 0, max: 63 }) track: number;
  @Whole(SEEN) version: number;
}

export class CandidateStateForm {
  @OneOf(CANDIDATE_STATES) state: CandidateState;
}

/** Words to make a candidate of: exactly those, or the best passage in the brief's length band that holds them. */
export class OwnCandidateForm extends WordSpanForm {
  @Flag({ optional: true }) around?: boolean;
}

/** How much each signal counts for a client, in their order, or null for the fitted weights. Any six numbers that are not all 0; they are scaled to sum to one. */
export class SignalWeightsForm {
  @DecimalList({ nullable: true, length: 6, min: 0, max: 1_000 }) weights: number[] | null;
  @Whole(SEEN) version: number;
}

/** An interest list as CSV: term, volume, competition, change. It takes the place of the old one; an empty list has only its header. */
export class InterestForm {
  @Text({ min: 1, max: 400_000, trim: 'none' }) csv: string;
}

/** Words to be checked; nothing is saved. */
export class CheckForm {
  @Text({ max: 1_000 }) title: string;
  @Text({ max: 20_000 }) description: string;
  @TextList({ maxItems: 60, max: 60, description: 'Without #' }) hashtags: string[];
  @TextList({ maxItems: 30, max: 60 }) keywords: string[];
  @Text({ max: 80 }) coverLine: string;
}

export class CopyForm extends CheckForm {
  @Whole(SEEN) version: number;
}

/** A place that was not said in the passage, and that a person says is right. */
export class TickForm {
  @OneOf(TRUTH_RULES) rule: TruthRule;
  @Text({ min: 1, max: 400 }) text: string;
}

export class EvergreenForm {
  @Flag() evergreen: boolean;
}

/** A yes to exactly the version that was seen. */
export class ApprovalForm {
  @Flag() approved: boolean;
  @Parts(() => TickForm, { maxItems: 100, optional: true, description: 'What was not said and is right all the same' }) ticks?: TickForm[];
  @Whole(SEEN) version: number;
}

export class TargetForm {
  @Text({ min: 1, max: 40 }) unit: string;
  @Text({ max: 4_000 }) text: string;
}

/** Texts of a translation; `version` 0 where nobody has begun. */
export class TranslationForm {
  @Parts(() => TargetForm, { maxItems: 1_000 }) targets: TargetForm[];
  @Whole() version: number;
}

export class TranslationSeenForm {
  @Whole() version: number;
}

export class TranslationReadForm extends TranslationSeenForm {
  @Flag({ description: 'A person has read all of it' }) read: boolean;
}

export class XliffForm extends TranslationSeenForm {
  @Text({ min: 1, max: 900_000, trim: 'none' }) xliff: string;
}

/** What kind of document is to be made. */
export class NewDocumentForm {
  @OneOf(DOCUMENT_KINDS) kind: DocumentKind;
}

/** A document as somebody has written it; what its content may hold is checked where it is kept. */
export class DocumentForm {
  @Tree({ description: 'The text as a tree: doc, heading, paragraph, blockquote, bulletList, orderedList, listItem, text with bold, italic and moment' })
  content: object;
  @Whole(SEEN) version: number;
}

export class DocumentSeenForm {
  @Whole(SEEN) version: number;
}
