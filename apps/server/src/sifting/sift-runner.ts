import { setImmediate as nextTurn } from 'node:timers/promises';
import { BriefRefusedError, type Candidate, sentenceTexts, SIGNALS, type SiftResult, siftSteps, type Transcript, type Vectors } from '@sift-reel/core';
import type { Embedder } from '@sift-reel/embedder';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize-typescript';
import { Client, InterestRow } from '../clients/clients.models.js';
import { unpackRow } from '../jobs/text-tasks.js';
import { TranscriptRow } from '../recordings/recordings.models.js';
import { toBriefForm } from './brief.js';
import { SiftCancelledError } from './errors.js';
import { ProgressReporter } from './progress-reporter.js';
import { BriefRow, CandidateRow, CandidateSignal, EvidenceRow, Sift } from './sifting.models.js';

/** Share of the whole that the vectors take; measured: they are by far the longest stage on a first sift. */
const VECTORS_SHARE = 0.8;
const ROWS_AT_ONCE = 1_000;

/**
 * Runs one sift from its row to its ranking. It may be killed at any line and run again: vectors that are done are found
 * in the cache, and the ranking is written in one transaction, so there is never half of one. Same result every time.
 */
export async function runSift(siftId: string, deps: { sequelize: Sequelize; embedder: Embedder }, signal: AbortSignal): Promise<void> {
  const sift = await Sift.findOne({ where: { id: siftId }, include: [BriefRow] });
  if (sift === null || !['waiting', 'running'].includes(sift.state)) return; // done before, cancelled, or its recording is gone
  const reporter = new ProgressReporter(deps.sequelize, sift);
  try {
    await reporter.start();
    const transcript = await readTranscriptRow(sift.recordingId);
    const brief = toBriefForm(sift.brief);
    const client = await Client.findByPk(sift.clientId);
    const interest = (await InterestRow.findAll({ where: { clientId: sift.clientId }, order: ['term'] })).map(({ term, volume, competition, change }) => ({
      term,
      volume,
      competition,
      change,
    }));
    const sentenceVectors = await embedSentences(transcript, deps.embedder, reporter, signal);
    const topicVectors = brief.topics.length === 0 ? null : await deps.embedder.embed(brief.topics, { signal });
    const steps = siftSteps({
      transcript,
      brief,
      clientTags: client?.tags ?? [],
      sentenceVectors,
      topicVectors,
      interest,
      weights: client?.signalWeights ?? null,
    });
    for (;;) {
      const step = steps.next();
      if (step.done === true) {
        await writeRanking(deps.sequelize, sift, step.value);
        break;
      }
      await reporter.report(step.value.stage, VECTORS_SHARE + step.value.fraction * (1 - VECTORS_SHARE));
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

async function embedSentences(transcript: Transcript, embedder: Embedder, reporter: ProgressReporter, signal: AbortSignal): Promise<Vectors> {
  const texts = sentenceTexts(transcript);
  const stop = new AbortController();
  const both = AbortSignal.any([signal, stop.signal]);
  let reporting: Promise<void> = Promise.resolve();
  const vectors = embedder.embed(texts, {
    signal: both,
    onProgress: (done, total) => {
      reporting = reporting.then(() => reporter.report('vectors', VECTORS_SHARE * (done / Math.max(1, total)))).catch((error: unknown) => stop.abort(error));
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
    const rows = await CandidateRow.bulkCreate(
      result.candidates.map((candidate) => candidateFields(sift, candidate)),
      { transaction, returning: ['id', 'rank'] },
    );
    const idOf = new Map(rows.map((row) => [row.rank, row.id]));
    const readings = result.candidates.flatMap((candidate) =>
      SIGNALS.map((name) => ({ candidateId: idOf.get(candidate.rank)!, reading: candidate.signals[name] })),
    );
    for (let from = 0; from < readings.length; from += ROWS_AT_ONCE) {
      await CandidateSignal.bulkCreate(
        readings.slice(from, from + ROWS_AT_ONCE).map(({ candidateId, reading: { signal, value, sentence } }) => ({ candidateId, signal, value, sentence })),
        { transaction, returning: false },
      );
    }
    const evidence = readings.flatMap(({ candidateId, reading }) => reading.evidence.map((range) => ({ candidateId, signal: reading.signal, ...range })));
    for (let from = 0; from < evidence.length; from += ROWS_AT_ONCE)
      await EvidenceRow.bulkCreate(evidence.slice(from, from + ROWS_AT_ONCE), { transaction, returning: false });
  });
}

function candidateFields(sift: Sift, candidate: Candidate): Record<string, unknown> {
  const { signals: _, ...fields } = candidate;
  return { ...fields, siftId: sift.id, clientId: sift.clientId, foundFirstWord: candidate.firstWord, foundEndWord: candidate.endWord, state: 'open' };
}
