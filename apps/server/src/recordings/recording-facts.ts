import { Injectable } from '@nestjs/common';
import type { Recording } from './recordings.models.js';
import type { UntimedTranscript } from '../text/prepare-task.js';
import type { AlignmentView, FetchView, LatestSiftView, PreparationView } from './recordings.views.js';

type PreparationsOf = (recordingIds: readonly string[]) => Promise<Map<string, PreparationView>>;
type AlignmentsOf = (recordingIds: readonly string[]) => Promise<Map<string, AlignmentView>>;
type FetchesOf = (recordingIds: readonly string[]) => Promise<Map<string, FetchView>>;
/** Text without times, with the name of its file. */
export type NamedText = UntimedTranscript & { readonly name: string };
type LatestSiftsOf = (recordingIds: readonly string[]) => Promise<Map<string, LatestSiftView>>;
/** Why what a recording rests on must stay as it is, in words; null when nothing speaks against a change. Asked inside the transaction. */
type Objection = (recordingId: string) => Promise<string | null>;
type Deed = 'replace-sound' | 'remove';

/** What features built on recordings tell of them; recordings themselves know none of those features. */
@Injectable()
export class RecordingFacts {
  private latest: LatestSiftsOf = () => Promise.resolve(new Map());
  private readonly objections: { readonly deed: Deed; readonly ask: Objection }[] = [];
  private preparations: PreparationsOf = () => Promise.resolve(new Map());
  private readonly onFile: ((recording: Recording) => Promise<void>)[] = [];
  private readonly onTranscript: ((recording: Recording) => Promise<void>)[] = [];
  private readonly onUntimed: ((recording: Recording, text: NamedText) => Promise<void>)[] = [];
  private alignments: AlignmentsOf = () => Promise.resolve(new Map());
  private fetches: FetchesOf = () => Promise.resolve(new Map());
  private readonly onTimed: ((recordingId: string) => Promise<void>)[] = [];
  private readonly onRemove: ((recordingId: string) => Promise<void>)[] = [];

  provideLatestSifts(latest: LatestSiftsOf): void {
    this.latest = latest;
  }
  providePreparations(preparations: PreparationsOf): void {
    this.preparations = preparations;
  }
  /** What begins when a recording has a new file, or another of its sound tracks; inside the transaction. */
  beginWith(act: (recording: Recording) => Promise<void>): void {
    this.onFile.push(act);
  }
  /** What begins when a recording has a new transcript; inside the transaction. */
  readWith(act: (recording: Recording) => Promise<void>): void {
    this.onTranscript.push(act);
  }
  /** What becomes of text without times; inside the transaction. */
  timeWith(act: (recording: Recording, text: NamedText) => Promise<void>): void {
    this.onUntimed.push(act);
  }
  provideAlignments(alignments: AlignmentsOf): void {
    this.alignments = alignments;
  }
  provideFetches(fetches: FetchesOf): void {
    this.fetches = fetches;
  }
  /** What begins when the words of a recording have times for the first time, however they came; inside the transaction. */
  whenTimed(act: (recordingId: string) => Promise<void>): void {
    this.onTimed.push(act);
  }
  object(deed: Deed, ask: Objection): void {
    this.objections.push({ deed, ask });
  }
  /** What goes with a recording, before its row goes. */
  removeWith(act: (recordingId: string) => Promise<void>): void {
    this.onRemove.push(act);
  }

  latestSifts(recordingIds: readonly string[]): Promise<Map<string, LatestSiftView>> {
    return recordingIds.length === 0 ? Promise.resolve(new Map()) : this.latest(recordingIds);
  }
  preparationsOf(recordingIds: readonly string[]): Promise<Map<string, PreparationView>> {
    return recordingIds.length === 0 ? Promise.resolve(new Map()) : this.preparations(recordingIds);
  }
  alignmentsOf(recordingIds: readonly string[]): Promise<Map<string, AlignmentView>> {
    return recordingIds.length === 0 ? Promise.resolve(new Map()) : this.alignments(recordingIds);
  }
  fetchesOf(recordingIds: readonly string[]): Promise<Map<string, FetchView>> {
    return recordingIds.length === 0 ? Promise.resolve(new Map()) : this.fetches(recordingIds);
  }
  async wordsHaveTimes(recordingId: string): Promise<void> {
    for (const act of this.onTimed) await act(recordingId);
  }
  async transcriptCameIn(recording: Recording): Promise<void> {
    for (const act of this.onTranscript) await act(recording);
  }
  async untimedCameIn(recording: Recording, text: NamedText): Promise<void> {
    for (const act of this.onUntimed) await act(recording, text);
  }
  async fileCameIn(recording: Recording): Promise<void> {
    for (const act of this.onFile) await act(recording);
  }
  async objectionTo(deed: Deed, recordingId: string): Promise<string | null> {
    for (const { deed: to, ask } of this.objections) {
      const why = to === deed ? await ask(recordingId) : null;
      if (why !== null) return why;
    }
    return null;
  }
  async takeAlong(recordingId: string): Promise<void> {
    for (const act of this.onRemove) await act(recordingId);
  }
}
