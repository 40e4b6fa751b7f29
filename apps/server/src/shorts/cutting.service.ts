import { Inject, Injectable } from '@nestjs/common';
import { type Edit, type Shape, type Span, type Tightening, type TightenOptions, tidyEdit, VOICE_STEP_MS, type VoiceTrack } from '@sift-reel/core';
import type { EditForm } from '@sift-reel/forms';
import { cardStyleOf, Client } from '../clients/clients.models.js';
import { type Actor, found } from '../identity/actor.js';
import { InvalidFormException } from '../problems/refusals.js';
import { RecordingsService } from '../recordings/recordings.service.js';
import { knownVoice } from '../preparing/voice-tracks.js';
import { TextPool } from '../text/text-pool.service.js';
import type { FramesView, TalkAroundView } from './cutting.views.js';
import { EditChecker } from './edit-checker.service.js';
import { groundOf } from './ground.js';
import { refuseLacking } from './lacking-letters.js';
import { baseCopy } from './short-views.js';
import { passageOf } from './shorts.models.js';
import { ShortsService } from './shorts.service.js';
import type { ShortView } from './shorts.views.js';

/** Words that are shown before and after a short, so that its ends can be moved outwards. */
const AROUND = 90;

/** What is cut out of shorts, and how that plays. */
@Injectable()
export class CuttingService {
  constructor(
    @Inject(ShortsService) private readonly shorts: ShortsService,
    @Inject(RecordingsService) private readonly recordings: RecordingsService,
    @Inject(EditChecker) private readonly edits: EditChecker,
    @Inject(TextPool) private readonly text: TextPool,
  ) {}

  /** @throws InvalidFormException naming the field that cannot be played */
  async save(actor: Actor, shortId: string, { edit: given, version }: EditForm): Promise<ShortView> {
    const seen = await this.shorts.find(actor, shortId);
    const edit = tidyEdit(plain(given));
    // Of the ends that were seen: the lock below finds the same version, or refuses.
    const { firstWord, endWord } = seen;
    const checked = await this.edits.check(seen.clientId, seen.recordingId, { firstWord, endWord, edit });
    if (checked.problem !== null) throw new InvalidFormException([{ field: `edit.${checked.problem.field}`, detail: checked.problem.detail }]);
    return this.shorts.change(actor, shortId, version, async (short) => {
      await short.update({ edit, playedMs: checked.playedMs });
      await this.shorts.record(actor, 'cut', short, baseCopy(short).title);
    });
  }

  /** What is said in a short and around it, word by word. */
  async talk(actor: Actor, shortId: string): Promise<TalkAroundView> {
    const short = await this.shorts.find(actor, shortId);
    const { talk } = await this.recordings.readTalk(actor, short.recordingId);
    const { talks, wordCount, wordTimes } = await this.text.talkAround(short.clientId, { talk, ...passageOf(short), around: AROUND });
    return {
      talks: talks.map(({ firstWord, words, turns }) => ({ firstWord, words: [...words], turns: [...turns] })),
      levels: levelsOf(await knownVoice(short.recording), talks[0]!.words),
      wordCount,
      spreadTimes: wordTimes === 'spread',
    };
  }

  async tightening(actor: Actor, shortId: string, options: TightenOptions): Promise<Tightening[]> {
    const short = await this.shorts.find(actor, shortId);
    const { talk } = await this.recordings.readTalk(actor, short.recordingId);
    return this.text.tightening(short.clientId, { talk, ...passageOf(short), options });
  }

  /** What a file of a shape shows beside the recording's own picture. */
  async frames(actor: Actor, shortId: string, shape: Shape): Promise<FramesView> {
    const short = await this.shorts.find(actor, shortId);
    const client = found(await Client.findByPk(short.clientId), 'client');
    const { talk } = await this.recordings.readTalk(actor, short.recordingId);
    const ground = groundOf(short, short.recording, client, short.recording.picture !== null);
    const {
      ground: svg,
      captions,
      lacking,
    } = await this.text.framesOfCut(short.clientId, { talk, ...passageOf(short), shape, style: cardStyleOf(client), ground });
    refuseLacking(lacking);
    return { ground: svg, captions: captions.map(({ startMs, endMs, text, svg: drawn }) => ({ startMs, endMs, text, svg: drawn })) };
  }
}

/** How loud it is while some words are said. */
function levelsOf(voice: VoiceTrack | null, words: readonly Span[]): TalkAroundView['levels'] {
  if (voice === null) return null;
  const first = Math.floor(words[0]!.startMs / VOICE_STEP_MS);
  const end = Math.ceil(words.at(-1)!.endMs / VOICE_STEP_MS);
  return { fromMs: first * VOICE_STEP_MS, stepMs: VOICE_STEP_MS, db: [...voice.levels.slice(first, end)] };
}

/** Without the classes of the form. */
const plain = ({ removed, pauses, corrected, before, after }: Edit): Edit => {
  const run = ({ firstWord, endWord }: Edit['removed'][number]) => ({ firstWord, endWord });
  return {
    removed: removed.map(run),
    pauses: pauses.map(({ afterWord, leftMs }) => ({ afterWord, leftMs })),
    corrected: corrected.map(({ word, text }) => ({ word, text })),
    before: before.map(run),
    after: after.map(run),
  };
};
