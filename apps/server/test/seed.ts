import { randomUUID } from 'node:crypto';
import { type PackedTranscript, sift, unpackTranscript } from '@sift-reel/core';
import { BRIEF, filesForm, query, talk, type World } from './world.js';

export interface Seeded {
  readonly recordingId: string;
  readonly siftId: string;
  readonly candidates: readonly { readonly id: string; readonly firstWord: number; readonly endWord: number }[];
  text(firstWord: number, endWord: number): string;
}

/** A recording with a finished sift, computed by the core here and written as the worker would, so that no worker is needed. */
export async function seedRanking(world: World, clientId: string, minutes = 4): Promise<Seeded> {
  const { body } = await world.owner.post(
    `clients/${clientId}/recordings`,
    filesForm({ title: `Talk ${randomUUID().slice(0, 6)}`, transcript: ['talk.vtt', talk(minutes)] }),
  );
  const transcript = unpackTranscript((await world.owner.get(`recordings/${body.id}/transcript`)).body as PackedTranscript);
  const result = sift({ transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
  const [brief] = await query(
    `INSERT INTO briefs (recording_id, client_id, part_start_ms, min_ms, max_ms, rough_count, topics, kinds, avoid) VALUES ($1, $2, 0, 10000, 30000, 5, '{}', '{}', '{}') RETURNING id`,
    [body.id, clientId],
  );
  const [row] = await query(
    `INSERT INTO sifts (recording_id, client_id, brief_id, chapters, ridge, strong_count, limits) VALUES ($1, $2, $3, $4, $5, $6, $7) RETURNING id`,
    [body.id, clientId, brief!['id'], JSON.stringify(result.chapters), JSON.stringify(result.ridge), result.strongCount, result.limits],
  );
  await query(
    `INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, state, stage, fraction, finished_at) VALUES ('sift', $1::uuid, $2, $3, 'sift:' || $1::text, 'done', 'done', 1, now())`,
    [row!['id'], clientId, JSON.stringify({ recordingId: body.id })],
  );
  const candidates: { id: string; firstWord: number; endWord: number }[] = [];
  for (const one of result.candidates.slice(0, 8)) {
    const [made] = await query(
      `INSERT INTO candidates (sift_id, client_id, rank, score, start_ms, end_ms, first_word, end_word, found_first_word, found_end_word, kind, reason, first_line, last_line, title, hashtags) VALUES ($1,$2,$3,$4,$5,$6,$7,$8,$7,$8,$9,$10,$11,$12,$13,$14) RETURNING id`,
      [
        row!['id'],
        clientId,
        one.rank,
        one.score,
        one.startMs,
        one.endMs,
        one.firstWord,
        one.endWord,
        one.kind,
        one.reason,
        one.firstLine,
        one.lastLine,
        one.title,
        one.hashtags,
      ],
    );
    candidates.push({ id: String(made!['id']), firstWord: one.firstWord, endWord: one.endWord });
  }
  return {
    recordingId: body.id,
    siftId: String(row!['id']),
    candidates,
    text: (from, to) =>
      transcript.words
        .slice(from, to)
        .map((word) => word.text)
        .join(' '),
  };
}

/** Keeps and approves the first `n` candidates, with so many hashtags. @returns their shorts' ids, best first */
export async function approveShorts(world: World, seeded: Seeded, n: number, hashtags = 60): Promise<string[]> {
  const ids: string[] = [];
  for (const candidate of seeded.candidates.slice(0, n)) {
    await world.owner.put(`candidates/${candidate.id}/state`, { state: 'kept' });
    await query('UPDATE copies SET hashtags = hashtags[1:$2], title = left(title, 60) WHERE short_id = (SELECT id FROM shorts WHERE candidate_id = $1)', [
      candidate.id,
      hashtags,
    ]);
    const short = (await world.shorts(seeded.recordingId)).find((one: { candidateId: string }) => one.candidateId === candidate.id);
    await world.owner.put(`shorts/${short.id}/approval`, { approved: true, version: short.version });
    ids.push(short.id as string);
  }
  return ids;
}
