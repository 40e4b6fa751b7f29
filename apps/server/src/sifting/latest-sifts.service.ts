import { Inject, Injectable, type OnModuleInit } from '@nestjs/common';
import { Database } from '../database/database.service.js';
import { RecordingFacts } from '../recordings/recording-facts.js';
import type { LatestSiftView } from '../recordings/recordings.views.js';

const LATEST = `SELECT s.id, s.recording_id AS "recordingId", j.state, j.stage, j.fraction, j.left_ms AS "leftMs", s.strong_count AS "strongCount",
  (SELECT count(*)::int FROM candidates c WHERE c.sift_id = s.id) AS "candidateCount",
  (SELECT count(*)::int FROM candidates c WHERE c.sift_id = s.id AND c.state = 'kept') AS "keptCount"
FROM (SELECT DISTINCT ON (recording_id) id, recording_id, strong_count FROM sifts WHERE recording_id = ANY ($1) ORDER BY recording_id, created_at DESC) s
JOIN jobs j ON j.kind = 'sift' AND j.subject_id = s.id`;

/** Tells recordings of the newest sift of each. */
@Injectable()
export class LatestSifts implements OnModuleInit {
  constructor(
    @Inject(Database) private readonly database: Database,
    @Inject(RecordingFacts) private readonly facts: RecordingFacts,
  ) {}

  onModuleInit(): void {
    this.facts.provideLatestSifts(async (recordingIds) => {
      const rows = await this.database.rows<LatestSiftView & { recordingId: string }>(LATEST, [recordingIds]);
      return new Map(rows.map(({ recordingId, ...view }) => [recordingId, view]));
    });
  }
}
