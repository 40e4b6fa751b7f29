import type { Migration } from '../migration.js';

/** Words that are listened for in a recording's sound: one at a time of each recording. */
export const alignments: Migration = {
  name: '0016-alignments',
  up: (run) =>
    run(`
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN ('webvtt', 'subrip', 'podcast-json', 'ttml', 'lrc', 'stamped-text', 'docx', 'odt', 'plain-text', 'draft')),
  DROP CONSTRAINT transcripts_word_times_check, ADD CONSTRAINT transcripts_word_times_check CHECK (word_times IN ('given', 'spread', 'heard'));
CREATE TABLE alignments (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL UNIQUE REFERENCES recordings ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  kind text NOT NULL CHECK (kind IN ('text', 'cues', 'draft')),
  sound_file text NOT NULL,
  sound_track integer NOT NULL,
  source_name text,
  format text,
  encoding text,
  said bytea,
  heard bytea,
  heard_ms integer NOT NULL DEFAULT 0,
  recogniser text,
  share real CHECK (share BETWEEN 0 AND 1),
  outcome text CHECK (outcome IN ('taken', 'shorts', 'unlike', 'language')),
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK (kind <> 'text' OR (source_name IS NOT NULL AND format IS NOT NULL AND encoding IS NOT NULL AND (said IS NOT NULL OR outcome IS NOT NULL)))
);
CREATE TRIGGER alignments_forget_jobs AFTER DELETE ON alignments FOR EACH ROW EXECUTE FUNCTION forget_jobs('align')`),
  down: (run) =>
    run(`
DROP TRIGGER alignments_forget_jobs ON alignments;
DELETE FROM jobs WHERE kind = 'align';
DROP TABLE alignments;
UPDATE transcripts SET format = 'stamped-text' WHERE format IN ('plain-text', 'draft');
UPDATE transcripts SET word_times = 'given' WHERE word_times = 'heard';
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN ('webvtt', 'subrip', 'podcast-json', 'ttml', 'lrc', 'stamped-text', 'docx', 'odt')),
  DROP CONSTRAINT transcripts_word_times_check, ADD CONSTRAINT transcripts_word_times_check CHECK (word_times IN ('given', 'spread'))`),
};
