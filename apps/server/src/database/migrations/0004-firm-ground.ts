import type { Migration } from '../migration.js';

/**
 * Firm ground: one table of jobs; versions of what two people can edit; an approval that belongs to one version of a
 * short's content; posts that only approved shorts can have; indexes; sign-in counts, invitations and archived clients.
 * What two requests at once could break is held here, by the database, whichever path the program takes.
 *
 * Refusals raised here have codes of their own, which the server turns into 409 in words:
 * SR001 a post of a short that is not approved; SR002 an approval taken from a short that has posts.
 */
const JOBS = `
CREATE TABLE jobs (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  kind text NOT NULL CHECK (length(kind) BETWEEN 1 AND 40),
  subject_id uuid NOT NULL,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  about jsonb NOT NULL DEFAULT '{}',
  lock_key text NOT NULL,
  size text NOT NULL DEFAULT 'short' CHECK (size IN ('short', 'long')),
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  stage text NOT NULL DEFAULT 'waiting',
  fraction real NOT NULL DEFAULT 0 CHECK (fraction BETWEEN 0 AND 1),
  left_ms integer CHECK (left_ms >= 0),
  attempt integer NOT NULL DEFAULT 0,
  faults integer NOT NULL DEFAULT 0,
  crashes integer NOT NULL DEFAULT 0,
  failure text,
  due_at timestamptz NOT NULL DEFAULT now(),
  lost_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  started_at timestamptz,
  finished_at timestamptz,
  UNIQUE (kind, subject_id),
  CHECK ((state IN ('done', 'failed', 'cancelled')) = (finished_at IS NOT NULL)),
  CHECK (state <> 'failed' OR failure IS NOT NULL)
);
CREATE UNIQUE INDEX jobs_one_running ON jobs (lock_key) WHERE state = 'running';
CREATE INDEX jobs_waiting ON jobs (due_at) WHERE state = 'waiting';
CREATE INDEX jobs_client ON jobs (client_id, started_at DESC);
INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, state, stage, fraction, failure, created_at, finished_at)
  SELECT 'sift', id, client_id, jsonb_build_object('recordingId', recording_id), 'sift:' || id,
    CASE state WHEN 'running' THEN 'waiting' ELSE state END, CASE state WHEN 'running' THEN 'waiting' ELSE state END,
    CASE state WHEN 'done' THEN 1 ELSE 0 END, failure, created_at,
    CASE WHEN state IN ('done', 'failed', 'cancelled') THEN coalesce(finished_at, created_at) END
  FROM sifts;
ALTER TABLE sifts DROP COLUMN state, DROP COLUMN stage, DROP COLUMN fraction, DROP COLUMN left_ms, DROP COLUMN cancel_asked,
  DROP COLUMN failure, DROP COLUMN finished_at;
CREATE FUNCTION forget_jobs() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  DELETE FROM jobs WHERE kind = TG_ARGV[0] AND subject_id = OLD.id;
  RETURN NULL;
END $$;
CREATE TRIGGER sifts_forget_jobs AFTER DELETE ON sifts FOR EACH ROW EXECUTE FUNCTION forget_jobs('sift');
DROP SCHEMA IF EXISTS pgboss CASCADE;
CREATE FUNCTION tell_job_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('job_changed', json_build_object('kind', NEW.kind, 'subjectId', NEW.subject_id, 'clientId', NEW.client_id, 'about', NEW.about,
    'state', NEW.state, 'stage', NEW.stage, 'fraction', NEW.fraction, 'leftMs', NEW.left_ms, 'attempt', NEW.attempt, 'failure', left(NEW.failure, 1000))::text);
  IF NEW.state = 'waiting' THEN PERFORM pg_notify('job_waiting', NEW.kind); END IF;
  IF NEW.state = 'cancelled' THEN PERFORM pg_notify('job_cancelled', NEW.id::text); END IF;
  RETURN NULL;
END $$;
CREATE TRIGGER jobs_tell AFTER INSERT OR UPDATE OF state, stage, fraction, left_ms ON jobs FOR EACH ROW EXECUTE FUNCTION tell_job_changed();
`;

const VERSIONED = ['users', 'clients', 'platform_profiles', 'channels', 'recordings', 'batches', 'posts'];

const VERSIONS = `
${VERSIONED.map((table) => `ALTER TABLE ${table} ADD COLUMN version integer NOT NULL DEFAULT 1;`).join('\n')}
ALTER TABLE shorts ADD COLUMN version integer NOT NULL DEFAULT 1, ADD COLUMN approved_version integer;
UPDATE shorts SET approved_version = version WHERE approved_at IS NOT NULL;
ALTER TABLE shorts ADD CHECK (approved_version = version), ADD CHECK ((approved_version IS NULL) = (approved_at IS NULL));
CREATE FUNCTION short_content_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF (NEW.first_word, NEW.end_word, NEW.start_ms, NEW.end_ms) IS DISTINCT FROM (OLD.first_word, OLD.end_word, OLD.start_ms, OLD.end_ms)
    AND NEW.version = OLD.version THEN
    NEW.version := OLD.version + 1;
  END IF;
  IF NEW.version <> OLD.version THEN
    NEW.approved_version := NULL;
    NEW.approved_at := NULL;
    NEW.approved_by := NULL;
  END IF;
  IF OLD.approved_version IS NOT NULL AND NEW.approved_version IS NULL AND EXISTS (SELECT FROM posts WHERE short_id = NEW.id) THEN
    RAISE EXCEPTION 'the short stands on the schedule' USING ERRCODE = 'SR002';
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER shorts_content_changed BEFORE UPDATE ON shorts FOR EACH ROW EXECUTE FUNCTION short_content_changed();
CREATE FUNCTION short_words_changed() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  of_short uuid;
BEGIN
  IF TG_OP = 'DELETE' THEN
    of_short := OLD.short_id;
    -- A channel that goes takes its own words along; those of the other channels are as they were approved.
    IF OLD.channel_id IS NOT NULL AND NOT EXISTS (SELECT FROM channels WHERE id = OLD.channel_id) THEN RETURN NULL; END IF;
  ELSE
    of_short := NEW.short_id;
    IF TG_OP = 'UPDATE' AND (NEW.title, NEW.description, NEW.hashtags, NEW.keywords, NEW.cover_line)
      IS NOT DISTINCT FROM (OLD.title, OLD.description, OLD.hashtags, OLD.keywords, OLD.cover_line) THEN RETURN NULL; END IF;
  END IF;
  UPDATE shorts SET version = version + 1 WHERE id = of_short;
  RETURN NULL;
END $$;
CREATE TRIGGER copies_changed AFTER INSERT OR UPDATE OR DELETE ON copies FOR EACH ROW EXECUTE FUNCTION short_words_changed();
CREATE FUNCTION post_needs_approval() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM FROM shorts WHERE id = NEW.short_id AND approved_version = version FOR SHARE;
  IF NOT FOUND THEN RAISE EXCEPTION 'the short is not approved' USING ERRCODE = 'SR001'; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER posts_need_approval BEFORE INSERT OR UPDATE OF short_id ON posts FOR EACH ROW EXECUTE FUNCTION post_needs_approval();
`;

const REFERENCES = `
ALTER TABLE posts DROP CONSTRAINT posts_short_id_client_id_fkey,
  ADD CONSTRAINT posts_short_id_client_id_fkey FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE RESTRICT;
ALTER TABLE shorts DROP CONSTRAINT shorts_candidate_id_client_id_fkey, DROP CONSTRAINT shorts_recording_id_client_id_fkey,
  ADD CONSTRAINT shorts_candidate_id_client_id_fkey FOREIGN KEY (candidate_id, client_id) REFERENCES candidates (id, client_id) ON DELETE RESTRICT,
  ADD CONSTRAINT shorts_recording_id_client_id_fkey FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE RESTRICT;
CREATE INDEX posts_short ON posts (short_id);
CREATE INDEX posts_batch ON posts (batch_id);
CREATE INDEX sifts_brief ON sifts (brief_id);
CREATE INDEX copies_channel ON copies (channel_id);
CREATE INDEX channels_platform ON channels (platform_profile_id);
CREATE INDEX blackouts_channel ON blackouts (channel_id);
CREATE INDEX sessions_expiry ON sessions (expires_at);
CREATE INDEX candidates_kept ON candidates (sift_id) WHERE state = 'kept';
DROP INDEX audit_entries_client;
CREATE INDEX audit_entries_client ON audit_entries (client_id, id DESC);
`;

const PEOPLE = `
ALTER TABLE transcripts ADD COLUMN duration_ms integer CHECK (duration_ms > 0);
ALTER TABLE clients ADD COLUMN archived_at timestamptz;
UPDATE clients SET name = btrim(name) WHERE name <> btrim(name) AND btrim(name) <> '' AND NOT EXISTS (SELECT FROM clients other WHERE lower(btrim(other.name)) = lower(btrim(clients.name)) AND other.id <> clients.id);
UPDATE clients SET name = left(btrim(name), 70) || ' ' || left(id::text, 8) WHERE EXISTS (SELECT FROM clients other WHERE lower(btrim(other.name)) = lower(btrim(clients.name)) AND other.id < clients.id);
ALTER TABLE clients DROP CONSTRAINT clients_name_key;
CREATE UNIQUE INDEX clients_name_key ON clients (lower(btrim(name)));
ALTER TABLE users ALTER COLUMN password_hash DROP NOT NULL;
CREATE TABLE invitations (
  token_hash text PRIMARY KEY CHECK (length(token_hash) = 64),
  user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL,
  UNIQUE (user_id)
);
CREATE TABLE setup_marks (
  name text PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE sign_in_counts (
  key varchar(255) PRIMARY KEY,
  points integer NOT NULL DEFAULT 0,
  expire bigint
);
CREATE FUNCTION tell_access_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM pg_notify('access_changed', CASE WHEN TG_OP = 'DELETE' THEN to_jsonb(OLD) ->> TG_ARGV[0] ELSE to_jsonb(NEW) ->> TG_ARGV[0] END);
  RETURN NULL;
END $$;
CREATE TRIGGER sessions_access AFTER DELETE ON sessions FOR EACH ROW EXECUTE FUNCTION tell_access_changed('user_id');
CREATE TRIGGER assignments_access AFTER INSERT OR DELETE ON assignments FOR EACH ROW EXECUTE FUNCTION tell_access_changed('user_id');
CREATE TRIGGER users_access AFTER UPDATE OF role, active ON users FOR EACH ROW EXECUTE FUNCTION tell_access_changed('id');
`;

const DOWN = `
ALTER TABLE transcripts DROP COLUMN duration_ms;
DROP TRIGGER users_access ON users;
DROP TRIGGER assignments_access ON assignments;
DROP TRIGGER sessions_access ON sessions;
DROP FUNCTION tell_access_changed();
DROP TABLE sign_in_counts;
DROP TABLE setup_marks;
DROP TABLE invitations;
DELETE FROM users WHERE password_hash IS NULL;
ALTER TABLE users ALTER COLUMN password_hash SET NOT NULL;
DROP INDEX clients_name_key;
ALTER TABLE clients ADD CONSTRAINT clients_name_key UNIQUE (name);
ALTER TABLE clients DROP COLUMN archived_at;
DROP INDEX audit_entries_client;
CREATE INDEX audit_entries_client ON audit_entries (client_id, at DESC);
DROP INDEX candidates_kept, sessions_expiry, blackouts_channel, channels_platform, copies_channel, sifts_brief, posts_batch, posts_short;
ALTER TABLE shorts DROP CONSTRAINT shorts_candidate_id_client_id_fkey, DROP CONSTRAINT shorts_recording_id_client_id_fkey,
  ADD CONSTRAINT shorts_candidate_id_client_id_fkey FOREIGN KEY (candidate_id, client_id) REFERENCES candidates (id, client_id) ON DELETE CASCADE,
  ADD CONSTRAINT shorts_recording_id_client_id_fkey FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE;
ALTER TABLE posts DROP CONSTRAINT posts_short_id_client_id_fkey,
  ADD CONSTRAINT posts_short_id_client_id_fkey FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE;
DROP TRIGGER posts_need_approval ON posts;
DROP FUNCTION post_needs_approval();
DROP TRIGGER copies_changed ON copies;
DROP FUNCTION short_words_changed();
DROP TRIGGER shorts_content_changed ON shorts;
DROP FUNCTION short_content_changed();
ALTER TABLE shorts DROP COLUMN version, DROP COLUMN approved_version;
${VERSIONED.map((table) => `ALTER TABLE ${table} DROP COLUMN version;`).join('\n')}
DROP TRIGGER sifts_forget_jobs ON sifts;
DROP FUNCTION forget_jobs();
ALTER TABLE sifts
  ADD COLUMN state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  ADD COLUMN stage text NOT NULL DEFAULT 'waiting',
  ADD COLUMN fraction real NOT NULL DEFAULT 0 CHECK (fraction BETWEEN 0 AND 1),
  ADD COLUMN left_ms integer,
  ADD COLUMN cancel_asked boolean NOT NULL DEFAULT false,
  ADD COLUMN failure text,
  ADD COLUMN finished_at timestamptz;
UPDATE sifts SET state = jobs.state, stage = jobs.stage, fraction = jobs.fraction, failure = jobs.failure, finished_at = jobs.finished_at
  FROM jobs WHERE jobs.kind = 'sift' AND jobs.subject_id = sifts.id;
ALTER TABLE sifts
  ADD CHECK (state <> 'done' OR (chapters IS NOT NULL AND ridge IS NOT NULL AND strong_count IS NOT NULL)),
  ADD CHECK (state <> 'failed' OR failure IS NOT NULL);
CREATE INDEX sifts_unfinished ON sifts (state) WHERE state IN ('waiting', 'running');
DROP TABLE jobs;
DROP FUNCTION tell_job_changed();
`;

export const firmGround: Migration = {
  name: '0004-firm-ground',
  up: (run) => run(JOBS + VERSIONS + REFERENCES + PEOPLE),
  down: (run) => run(DOWN),
};
