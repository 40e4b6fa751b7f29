import { Inject, Injectable } from '@nestjs/common';
import { belongs } from '@sift-reel/core';
import { Database } from '../database/database.service.js';
import type { JobRun } from '../jobs/job-run.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import { Recording, TranscriptRow } from '../recordings/recordings.models.js';
import { withLevels } from '../recordings/stored-talk.js';
import { Short } from '../shorts/shorts.models.js';
import { moveSifted } from '../sifting/move-sifted.js';
import type { PreparedTranscript } from '../text/prepare-task.js';
import { TextPool } from '../text/text-pool.service.js';
import type { Alignment } from './aligning.models.js';

/** $1 recording, $2 ms */
const AS_LONG_AS_IT_IS = `UPDATE recordings SET duration_ms = greatest(duration_ms, $2) WHERE id = $1`;

/** $1 recording */
const TRUE_TIMES = `UPDATE sifts SET limits = array_remove(limits, 'spread-times') WHERE recording_id = $1 AND 'spread-times' = ANY (limits)`;

/** Somebody changed the transcript while its words were placed: the next run, which need not listen again, places them anew. */
class ChangedMeanwhileError extends Error {
  override readonly name = 'ChangedMeanwhileError';
}

/**
 * Writes what was heard into the transcript, together with the end of the job. The recording first, then the job, then the transcript:
 * whoever removes a recording, and a sift that ends, hold them in this order.
 */
@Injectable()
export class TakeTimes {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(TextPool) private readonly text: TextPool,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
  ) {}

  /** A transcript where there was none. */
  async write(row: Alignment, run: JobRun, prepared: PreparedTranscript, share: number | null): Promise<void> {
    const { packed, excerpt: _, ...fields } = prepared;
    await this.holding(row, run, async () => {
      await TranscriptRow.destroy({ where: { recordingId: row.recordingId } });
      await TranscriptRow.create({
        ...fields,
        recordingId: row.recordingId,
        clientId: row.clientId,
        sourceName: row.sourceName ?? '',
        packed: Buffer.from(packed),
      });
      await this.database.run(AS_LONG_AS_IT_IS, [row.recordingId, prepared.durationMs]);
      await row.update({ share, outcome: 'taken', said: null, heard: null });
      // A rough draft is looked at by somebody first.
      if (row.kind === 'text') await this.facts.wordsHaveTimes(row.recordingId);
    });
  }

  /** True times for a transcript that has some spread over its cues; what was sifted by it moves along, unless shorts stand on it. */
  async retime(row: Alignment, run: JobRun): Promise<void> {
    const { recordingId, clientId, heardMs: lengthMs } = row;
    const before = await TranscriptRow.findByPk(recordingId, { attributes: ['packed', 'endsHeardIn'], rejectOnEmpty: true });
    const { packed, durationMs, share, used } = await this.text.retime(clientId, { packed: before.packed, heard: row.heard!, lengthMs });
    const edges = await this.text.edgesOfWords(clientId, {
      talk: await withLevels(recordingId, { packed: Buffer.from(packed), endsHeardIn: before.endsHeardIn }),
    });
    await this.holding(row, run, async () => {
      const transcript = await TranscriptRow.findByPk(recordingId, {
        attributes: ['recordingId', 'packed', 'wordTimes', 'endsHeardIn'],
        lock: true,
        rejectOnEmpty: true,
      });
      if (!transcript.packed.equals(before.packed) || transcript.endsHeardIn !== before.endsHeardIn)
        throw new ChangedMeanwhileError('the transcript was changed while its words were placed');
      const outcome = !belongs({ share, used }) ? 'unlike' : (await Short.count({ where: { recordingId } })) > 0 ? 'shorts' : 'taken';
      if (outcome === 'taken') {
        await transcript.update({ packed: Buffer.from(packed), wordTimes: 'heard', durationMs });
        await this.database.run(AS_LONG_AS_IT_IS, [recordingId, durationMs]);
        await moveSifted(this.database, recordingId, edges);
        await this.database.run(TRUE_TIMES, [recordingId]);
      }
      await row.update({ share, outcome, heard: null });
    });
  }

  private async holding(row: Alignment, run: JobRun, act: () => Promise<void>): Promise<void> {
    await this.database.transaction(async () => {
      await Recording.findByPk(row.recordingId, { attributes: ['id'], lock: true });
      await run.complete(act);
    });
  }
}
