import type { Migration } from '../migration.js';

/**
 * What is made of a recording's file so that it can be looked at and listened to: a file that browsers play, small pictures, measures.
 * A row is of one file and one of its sound tracks; another file makes another row.
 */
export const preparations: Migration = {
  name: '0015-preparations',
  up: (run) =>
    run(`
ALTER TABLE recordings ADD COLUMN sound_tracks jsonb NOT NULL DEFAULT '[]', ADD COLUMN sound_track integer;
UPDATE recordings SET sound_track = 0, sound_tracks = '[{"codec":"","channels":0,"language":"","title":""}]' WHERE sound_file IS NOT NULL;
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN ('webvtt', 'subrip', 'podcast-json', 'ttml', 'lrc', 'stamped-text', 'docx', 'odt'));
CREATE TABLE preparations (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL UNIQUE REFERENCES recordings ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  sound_file text NOT NULL,
  sound_track integer,
  why_proxy text[],
  proxy_file text,
  sprite_file text,
  sprite jsonb,
  loudness jsonb,
  heard_ms integer,
  created_at timestamptz NOT NULL DEFAULT now(),
  CHECK ((sprite_file IS NULL) = (sprite IS NULL))
);
CREATE TRIGGER preparations_forget_jobs AFTER DELETE ON preparations FOR EACH ROW EXECUTE FUNCTION forget_jobs('prepare')`),
  down: (run) =>
    run(`
DROP TRIGGER preparations_forget_jobs ON preparations;
DELETE FROM jobs WHERE kind = 'prepare';
DROP TABLE preparations;
UPDATE transcripts SET format = 'stamped-text' WHERE format IN ('ttml', 'lrc', 'docx', 'odt');
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN ('webvtt', 'subrip', 'podcast-json', 'stamped-text'));
ALTER TABLE recordings DROP COLUMN sound_tracks, DROP COLUMN sound_track`),
};
