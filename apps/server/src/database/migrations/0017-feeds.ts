import type { Migration } from '../migration.js';

/** Feeds that clients follow, their episodes, and files that are fetched for recordings. An episode is taken in once. */
export const feeds: Migration = {
  name: '0017-feeds',
  up: (run) =>
    run(`
ALTER TABLE recordings ADD COLUMN origin jsonb;
CREATE TABLE feeds (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  url text NOT NULL,
  title text NOT NULL,
  rule text NOT NULL CHECK (rule IN ('list', 'take', 'sift')),
  etag text,
  last_modified text,
  ttl_minutes integer,
  read_at timestamptz,
  next_read_at timestamptz,
  misses integer NOT NULL DEFAULT 0,
  trouble text,
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  version integer NOT NULL DEFAULT 1,
  UNIQUE (client_id, url),
  UNIQUE (id, client_id)
);
CREATE INDEX feeds_due ON feeds (next_read_at);
CREATE TRIGGER feeds_forget_jobs AFTER DELETE ON feeds FOR EACH ROW EXECUTE FUNCTION forget_jobs('feed');
CREATE TABLE episodes (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL,
  feed_id uuid NOT NULL,
  guid text NOT NULL,
  title text NOT NULL,
  summary text NOT NULL,
  link text,
  published_at timestamptz,
  duration_ms integer,
  enclosure jsonb NOT NULL,
  transcripts jsonb NOT NULL,
  chapters jsonb,
  persons jsonb NOT NULL,
  season integer,
  season_name text NOT NULL,
  number text NOT NULL,
  is_new boolean NOT NULL,
  found_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (feed_id, guid),
  UNIQUE (id, client_id),
  FOREIGN KEY (feed_id, client_id) REFERENCES feeds (id, client_id) ON DELETE CASCADE
);
CREATE INDEX episodes_new ON episodes (client_id, published_at DESC) WHERE is_new;
CREATE TABLE fetches (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL,
  recording_id uuid NOT NULL UNIQUE,
  episode_id uuid UNIQUE REFERENCES episodes ON DELETE SET NULL,
  url text NOT NULL,
  transcripts jsonb NOT NULL,
  chapters_url text,
  then_sift boolean NOT NULL,
  asked_by uuid REFERENCES users ON DELETE SET NULL,
  validator text,
  bytes bigint,
  notes jsonb NOT NULL DEFAULT '[]',
  taken_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE
);
CREATE TRIGGER fetches_forget_jobs AFTER DELETE ON fetches FOR EACH ROW EXECUTE FUNCTION forget_jobs('fetch')`),
  down: (run) =>
    run(`
DROP TRIGGER fetches_forget_jobs ON fetches;
DROP TRIGGER feeds_forget_jobs ON feeds;
DELETE FROM jobs WHERE kind IN ('feed', 'fetch');
DROP TABLE fetches;
DROP TABLE episodes;
DROP TABLE feeds;
ALTER TABLE recordings DROP COLUMN origin`),
};
