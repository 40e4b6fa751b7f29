import { setImmediate as nextTurn } from 'node:timers/promises';
import { BriefRefusedError, sentenceTexts, type SiftResult, siftSteps, type Transcript, type Vectors } from '@sift-reel/core';
import type { Embedder } from '@sift-reel/embedder';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize-typescript';
import { unpackRow } from '../jobs/text-tasks.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import { toBriefForm } from './brief.js';
import { writeCandidates } from './candidate-rows.js';
import { SiftCancelledError } from './errors.js';
import { ProgressReporter } from './progress-reporter.js';
import { BriefRow, CandidateRow, Sift } from './sifting.models.js';
import { hearRecording } from './voice-tracks.js';
import { embedWanted, readWanted } from './wanted.js';

/** Where listening, where there is something to listen to, and the vectors end, as shares of the whole; measured on a first sift. */
const HEARD_AT = 0.35;
const VECTORS_AT = 0.85;

export interface SiftTools {
  readonly sequelize: Sequelize;
  readonly embedder: Embedder;
  readonly mediaDir: string;
}

/**
 * Runs one sift from its row to its ranking. It may be killed at any line and run again: vectors that are done are found
 * in the cache, and the ranking is written in one transaction, so there is never half of one. Same result every time.
 */
export async function runSift(siftId: string, deps: SiftTools, signal: AbortSignal): Promise<void> {
  const sift = await Sift.findOne({ where: { id: siftId }, include: [BriefRow] });
  if (sift === null || !['waiting', 'running'].includes(sift.state)) return; // done before, cancelled, or its recording is gone
  const reporter = new ProgressReporter(deps.sequelize, sift);
  try {
    await reporter.start();
    const transcript = await readTranscriptRow(sift.recordingId);
    const brief = toBriefForm(sift.brief);
    const wanted = await readWanted(sift.clientId);
    let heardAt = 0;
    const voice = await hearRecording(sift.recordingId, deps.mediaDir, signal, (fraction) => {
      heardAt = HEARD_AT;
      return reporter.report('listening', HEARD_AT * fraction);
    });
    const sentenceVectors = await embedSentences(
      transcript,
      deps.embedder,
      (done) => reporter.report('vectors', heardAt + (VECTORS_AT - heardAt) * done),
      signal,
    );
    const wantedVectors = await embedWanted(brief.topics, wanted, (texts) => deps.embedder.embed(texts, { signal }));
    const steps = siftSteps({ transcript, brief, ...wanted, sentenceVectors, ...wantedVectors, voice });
    for (;;) {
      const step = steps.next();
      if (step.done === true) {
        await writeRanking(deps.sequelize, sift, step.value);
        break;
      }
      await reporter.report(step.value.stage, VECTORS_AT + step.value.fraction * (1 - VECTORS_AT));
      await nextTurn();
      signal.throwIfAborted();
    }
    await reporter.done();
  } catch (error) {
    if (signal.aborted) throw error; // shutdown: the row stays `running`, and the next worker takes it up
    if (error instanceof SiftCancelledError) await reporter.cancelled();
    else if (error instanceof BriefRefusedError) await reporter.failed(`The brief cannot be used: ${error.message}`);
    else {
      await reporter.failed(`The sift stopped on a fault of the program: ${error instanceof Error ? error.message : String(error)}`);
      throw error;
    }
  }
}

async function readTranscriptRow(recordingId: string): Promise<Transcript> {
  const row = await TranscriptRow.findByPk(recordingId, { attributes: ['packed'] });
  if (row === null) throw new Error('the recording has no transcript');
  return unpackRow(row.packed);
}

async function embedSentences(transcript: Transcript, embedder: Embedder, report: (fraction: number) => Promise<void>, signal: AbortSignal): Promise<Vectors> {
  const texts = sentenceTexts(transcript);
  const stop = new AbortController();
  const both = AbortSignal.any([signal, stop.signal]);
  let reporting: Promise<void> = Promise.resolve();
  const vectors = embedder.embed(texts, {
    signal: both,
    onProgress: (done, total) => {
      reporting = reporting.then(() => report(done / Math.max(1, total))).catch((error: unknown) => stop.abort(error));
    },
  });
  const result = await vectors;
  await reporting;
  if (stop.signal.aborted) throw stop.signal.reason;
  return result;
}

async function writeRanking(sequelize: Sequelize, sift: Sift, result: SiftResult): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    // The guard makes a second run, or a late cancel, harmless: only a running sift takes a ranking.
    const [, changed] = await sequelize.query(
      `UPDATE sifts SET state = 'done', stage = 'done', fraction = 1, left_ms = 0, finished_at = now(), chapters = $2, ridge = $3, strong_count = $4, limits = $5, weights = $6, key_phrases = $7 WHERE id = $1 AND state = 'running' AND NOT cancel_asked`,
      {
        bind: [
          sift.id,
          JSON.stringify(result.chapters),
          JSON.stringify(result.ridge),
          result.strongCount,
          result.limits,
          result.weights,
          JSON.stringify(result.keyPhrases),
        ],
        transaction,
        type: QueryTypes.UPDATE,
      },
    );
    if (changed === 0) throw new SiftCancelledError('cancelled while it was being written');
    await CandidateRow.destroy({ where: { siftId: sift.id }, transaction });
    await writeCandidates(sift, result.candidates, 'sift', transaction);
  });
}
