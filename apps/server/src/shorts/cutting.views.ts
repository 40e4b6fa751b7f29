import { Type } from 'class-transformer';
import { SHAPES, type Shape, TIGHTENING_SORTS, type TighteningSort } from '@sift-reel/core';
import { EDIT_LIST_PROBLEMS, type EditListProblem } from '../text/edit-list-task.js';
import { DecimalList, EditFields, Flag, OneOf, Part, Parts, Text, Whole } from '@sift-reel/forms';

/** How close the silences of a short are to be cut. */
export class TighteningQuery {
  @Type(() => Number) @Whole({ min: 200, max: 10_000, optional: true, description: 'Longer silences are cut down, in ms' }) pauseMs?: number;
  @Type(() => Number) @Whole({ max: 2_000, optional: true, description: 'What stays of them on each side, in ms' }) paddingMs?: number;
}

export class FramesQuery {
  @OneOf(SHAPES) shape: Shape;
}

/** A word of a recording, in source time. */
export class SpokenWordView {
  @Text() text: string;
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Whole({ description: 'The same for all words of a sentence' }) sentence: number;
  @Flag({ description: 'Heard, and not said: [laughter]' }) mark: boolean;
}

/** From this word on somebody speaks. */
export class TurnView {
  @Whole() word: number;
  @Text() speaker: string;
}

export class TalkView {
  @Whole() firstWord: number;
  @Parts(() => SpokenWordView) words: SpokenWordView[];
  @Parts(() => TurnView) turns: TurnView[];
}

/** How loud it is, step by step. */
export class LevelsView {
  @Whole() fromMs: number;
  @Whole() stepMs: number;
  @DecimalList({ description: 'dB below full scale, -96 to 0' }) db: number[];
}

/** What is said in a short and around it. */
export class TalkAroundView {
  @Parts(() => TalkView, { description: 'The passage with what is said around it; then each other part of its edit' }) talks: TalkView[];
  @Part(() => LevelsView, { nullable: true, description: 'Of the first of the talks; null where nobody has listened yet' }) levels: LevelsView | null;
  @Whole({ description: 'Of the whole recording' }) wordCount: number;
  @Flag({ description: 'The times of words are spread over their captions, so a cut may fall beside a word' }) spreadTimes: boolean;
}

/** A cut that is proposed: of a pause the words on both sides of it, else the words that would go. */
export class TighteningView {
  @OneOf(TIGHTENING_SORTS) sort: TighteningSort;
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Whole({ nullable: true, description: 'What is left of the pause; null where words go' }) leftMs: number | null;
  @Whole({ description: 'By itself' }) savedMs: number;
}

/** A caption of a short, in played time, as it is drawn. */
export class DrawnCaptionView {
  @Whole() startMs: number;
  @Whole() endMs: number;
  @Text() text: string;
  @Text({ description: 'SVG' }) svg: string;
}

/** What is seen of a short beside the recording's own picture. */
export class FramesView {
  @Text({ description: 'SVG' }) ground: string;
  @Parts(() => DrawnCaptionView) captions: DrawnCaptionView[];
}

/** The words that a passage plays, with its cut. */
export class FoundPassageView {
  @Whole() firstWord: number;
  @Whole() endWord: number;
  @Part(() => EditFields) edit: EditFields;
  @Whole() playedMs: number;
  @Text({ description: 'How it begins' }) said: string;
}

/** A passage of an edit list. */
export class EditListPassageView {
  @Text() title: string;
  @Whole({ description: 'As it was cut, in ms of the recording' }) startMs: number;
  @Whole() endMs: number;
  @Whole({ description: 'Spans that it plays' }) spans: number;
  @Part(() => FoundPassageView, { nullable: true }) passage: FoundPassageView | null;
  @Flag({ description: 'A short that plays the same is kept already' }) kept: boolean;
  @Whole({ description: 'How far an end lies from where it was cut, at most, in ms; 0 where every frame is the same' }) offMs: number;
  @OneOf(EDIT_LIST_PROBLEMS, { nullable: true, description: 'Why it cannot become a short' }) problem: EditListProblem | null;
}

export class EditListView {
  @Parts(() => EditListPassageView) passages: EditListPassageView[];
}
