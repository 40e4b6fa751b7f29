import { availableParallelism } from 'node:os';
import { Injectable, type OnModuleDestroy, ServiceUnavailableException } from '@nestjs/common';
import type { Candidate, CaptionStrip, Copy, Feed, GivenChapter, LayOutRequest, Likeness, Proposal, Span, TextUnit, Tightening } from '@sift-reel/core';
import pLimit, { type LimitFunction } from 'p-limit';
import { Piscina } from 'piscina';
import type { EdgesOfWords, RetimeTask, TalkTask, TimeTextTask } from './align-tasks.js';
import type { FeedOutcome } from './feed-task.js';
import type { CheckCopiesTask, CheckedCopies } from './check-task.js';
import type { CaptionStripTask, DrawCardTask, DrawFrameTask, MadeDocument, MakeDocumentTask, WriteDocumentTask } from './document-tasks.js';
import type { EditListOutcome, ReadEditListTask } from './edit-list-task.js';
import type { PreparedTranscript, PrepareOutcome } from './prepare-task.js';
import type {
  CaptionsTask,
  CheckedEdit,
  CheckEditTask,
  CutFrames,
  CutFramesTask,
  CutListsTask,
  CutOfWords,
  CutTask,
  TalkAround,
  TalkAroundTask,
  TighteningTask,
  TranslationUnitsTask,
} from './cut-tasks.js';
import type {
  FoundSentence,
  MovedEnds,
  MoveEndsTask,
  NameVoicesTask,
  OfferedTitle,
  OwnPassageTask,
  PassageTask,
  PassageText,
  ProposeCopyTask,
  SaidTask,
  SearchTask,
  SentenceTextsTask,
  TaskName,
} from './text-tasks.js';
import type { OnTranscript } from './unpack.js';

/** Longest time of one task, in ms: what takes longer is given up, and its thread with it. */
const LONGEST_MS: Readonly<Record<TaskName, number>> = {
  prepareTranscript: 120_000,
  nameVoices: 30_000,
  proposeCopyForShort: 20_000,
  offerTitles: 20_000,
  checkCopies: 20_000,
  makeDocument: 60_000,
  writeDocument: 20_000,
  drawCard: 20_000,
  drawFrame: 20_000,
  captionStripOf: 20_000,
  passageOf: 20_000,
  search: 20_000,
  scoreOwnPassage: 60_000,
  sentenceTextsOf: 30_000,
  movedEnds: 20_000,
  captionsOf: 20_000,
  cutOf: 20_000,
  checkEdit: 20_000,
  cutLists: 20_000,
  framesOfCut: 20_000,
  proposeTightening: 20_000,
  talkAround: 20_000,
  translationUnitsOf: 20_000,
  wordsOf: 20_000,
  timeSaid: 120_000,
  draftHeard: 120_000,
  retimeTranscript: 120_000,
  edgesOfWords: 30_000,
  talkToHear: 60_000,
  layOutShorts: 60_000,
  readEditList: 30_000,
  readFeedBytes: 30_000,
  readChapterBytes: 10_000,
};
/** A transcript that needs more is refused; so one upload cannot take the machine's memory. */
const THREAD_MB = 320;
/** A transcript of more bytes than this is a large one; an hour of talk is some 0.1 MB. */
const LARGE = 4_000_000;

/** Which threads do a task, and what moves into them. */
interface Way {
  readonly pool?: Piscina;
  readonly moved?: ArrayBuffer[];
}

function startThreads(tasks: './text-tasks.js' | './prepare-task.js', most: number, idleTimeout: number): Piscina {
  return new Piscina({
    filename: new URL(tasks, import.meta.url).href,
    minThreads: 0,
    maxThreads: most,
    idleTimeout,
    resourceLimits: { maxOldGenerationSizeMb: THREAD_MB },
  });
}

/** The work was given up: it took too long, or more memory than a task may have. */
export class TaskGivenUpError extends Error {
  override readonly name = 'TaskGivenUpError';
}

/**
 * Threads for work on text that would hold up the event loop. One client's tasks never take all of them, so somebody with
 * a recording of ten hours does not keep the others waiting.
 */
@Injectable()
export class TextPool implements OnModuleDestroy {
  private readonly threads = Math.max(2, availableParallelism());
  private readonly pool = startThreads('./text-tasks.js', this.threads, 30_000);
  /** Large transcripts are read one at a time, by a thread that ends with each, so that what it took is given back. */
  private readonly forLarge = startThreads('./prepare-task.js', 1, 0);
  private readonly turns = new Map<string, LimitFunction>();

  prepareTranscript(clientId: string, bytes: Uint8Array): Promise<PrepareOutcome> {
    const pool = bytes.length > LARGE ? this.forLarge : this.pool;
    return this.run(clientId, 'prepareTranscript', { bytes }, { pool, moved: [bytes.buffer as ArrayBuffer] });
  }
  nameVoices(clientId: string, task: NameVoicesTask): Promise<{ packed: Uint8Array; speakers: readonly string[] }> {
    return this.run(clientId, 'nameVoices', task);
  }
  proposeCopy(clientId: string, task: ProposeCopyTask): Promise<Copy> {
    return this.run(clientId, 'proposeCopyForShort', task);
  }
  offerTitles(clientId: string, task: ProposeCopyTask): Promise<OfferedTitle[]> {
    return this.run(clientId, 'offerTitles', task);
  }
  checkCopies(clientId: string, task: CheckCopiesTask): Promise<CheckedCopies> {
    return this.run(clientId, 'checkCopies', task);
  }
  makeDocument(clientId: string, task: MakeDocumentTask): Promise<MadeDocument> {
    return this.run(clientId, 'makeDocument', task);
  }
  writeDocument(clientId: string, task: WriteDocumentTask): Promise<Uint8Array> {
    return this.run(clientId, 'writeDocument', task);
  }
  drawCard(clientId: string, task: DrawCardTask): Promise<Uint8Array> {
    return this.run(clientId, 'drawCard', task);
  }
  /** A picture as PNG. */
  drawFrame(clientId: string, task: DrawFrameTask): Promise<Uint8Array> {
    return this.run(clientId, 'drawFrame', task);
  }
  captionStrip(clientId: string, task: CaptionStripTask): Promise<CaptionStrip> {
    return this.run(clientId, 'captionStripOf', task);
  }
  passage(clientId: string, task: PassageTask): Promise<PassageText> {
    return this.run(clientId, 'passageOf', task);
  }
  search(clientId: string, task: SearchTask): Promise<FoundSentence[]> {
    return this.run(clientId, 'search', task);
  }
  scorePassage(clientId: string, task: OwnPassageTask): Promise<Candidate | null> {
    return this.run(clientId, 'scoreOwnPassage', task);
  }
  sentenceTexts(clientId: string, task: SentenceTextsTask): Promise<string[]> {
    return this.run(clientId, 'sentenceTextsOf', task);
  }
  movedEnds(clientId: string, task: MoveEndsTask): Promise<MovedEnds | null> {
    return this.run(clientId, 'movedEnds', task);
  }
  captions(clientId: string, task: CaptionsTask): Promise<string> {
    return this.run(clientId, 'captionsOf', task);
  }
  cut(clientId: string, task: CutTask): Promise<CutOfWords> {
    return this.run(clientId, 'cutOf', task);
  }
  cutLists(clientId: string, task: CutListsTask): Promise<Span[][]> {
    return this.run(clientId, 'cutLists', task);
  }
  readEditList(clientId: string, task: ReadEditListTask): Promise<EditListOutcome> {
    return this.run(clientId, 'readEditList', task);
  }
  checkEdit(clientId: string, task: CheckEditTask): Promise<CheckedEdit> {
    return this.run(clientId, 'checkEdit', task);
  }
  tightening(clientId: string, task: TighteningTask): Promise<Tightening[]> {
    return this.run(clientId, 'proposeTightening', task);
  }
  talkAround(clientId: string, task: TalkAroundTask): Promise<TalkAround> {
    return this.run(clientId, 'talkAround', task);
  }
  framesOfCut(clientId: string, task: CutFramesTask): Promise<CutFrames> {
    return this.run(clientId, 'framesOfCut', task);
  }
  translationUnits(clientId: string, task: TranslationUnitsTask): Promise<TextUnit[]> {
    return this.run(clientId, 'translationUnitsOf', task);
  }
  words(clientId: string, task: SaidTask): Promise<string[][]> {
    return this.run(clientId, 'wordsOf', task);
  }

  timeSaid(clientId: string, task: TimeTextTask): Promise<PreparedTranscript & Likeness> {
    return this.run(clientId, 'timeSaid', task);
  }
  draftHeard(clientId: string, task: Pick<TimeTextTask, 'heard' | 'lengthMs'>): Promise<PreparedTranscript | null> {
    return this.run(clientId, 'draftHeard', task);
  }
  retime(clientId: string, task: RetimeTask): Promise<{ readonly packed: Uint8Array; readonly durationMs: number } & Likeness> {
    return this.run(clientId, 'retimeTranscript', task);
  }
  edgesOfWords(clientId: string, task: OnTranscript): Promise<EdgesOfWords> {
    return this.run(clientId, 'edgesOfWords', task);
  }
  /** The words to listen for, and the name of the language where it is not English. */
  talkToHear(clientId: string, task: TalkTask): Promise<{ readonly words: string[]; readonly language: string | null }> {
    return this.run(clientId, 'talkToHear', task);
  }

  layOut(clientId: string, request: LayOutRequest): Promise<Proposal> {
    return this.run(clientId, 'layOutShorts', request);
  }

  readFeed(clientId: string, task: { readonly bytes: Uint8Array; readonly url: string }): Promise<FeedOutcome<Feed>> {
    return this.run(clientId, 'readFeedBytes', task);
  }
  readChapters(clientId: string, bytes: Uint8Array): Promise<FeedOutcome<GivenChapter[]>> {
    return this.run(clientId, 'readChapterBytes', { bytes });
  }

  async onModuleDestroy(): Promise<void> {
    await this.pool.destroy();
    await this.forLarge.destroy();
  }

  private async run<T>(clientId: string, name: TaskName, task: object, { pool = this.pool, moved = [] }: Way = {}): Promise<T> {
    let turn = this.turns.get(clientId);
    if (turn === undefined) this.turns.set(clientId, (turn = pLimit(this.threads - 1)));
    try {
      return await turn(async () => {
        const late = AbortSignal.timeout(LONGEST_MS[name]);
        try {
          return (await pool.run(task, { name, signal: late, transferList: moved })) as T;
        } catch (error) {
          if (late.aborted) throw new TaskGivenUpError('it took too long');
          if ((error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY') throw new TaskGivenUpError('it needed too much memory');
          throw error;
        }
      });
    } catch (error) {
      if (error instanceof TaskGivenUpError && name !== 'prepareTranscript')
        throw new ServiceUnavailableException(`This was given up: ${error.message}. Nothing was changed; try again.`);
      throw error;
    } finally {
      if (turn.activeCount === 0 && turn.pendingCount === 0) this.turns.delete(clientId);
    }
  }
}
