import type { Migration } from '../migration.js';

/**
 * Posts that go out by themselves. An account is a right to post at a platform; its tokens are sealed. A sending is a post on its way: what
 * goes out, fixed, and how far it is. `doubt_since` stands while a call that publishes was begun and its end is not known.
 */
export const publishing: Migration = {
  name: '0025-publishing',
  up: (run) =>
    run(`
ALTER TABLE platform_profiles ADD COLUMN service text CHECK (service ~ '^[a-z][a-z0-9-]{0,30}$');
ALTER TABLE clients ADD COLUMN late_minutes integer NOT NULL DEFAULT 120 CHECK (late_minutes BETWEEN 5 AND 10080);

CREATE TABLE accounts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  service text NOT NULL,
  remote_id text NOT NULL,
  name text NOT NULL,
  scopes text[] NOT NULL,
  access_token bytea NOT NULL,
  refresh_token bytea,
  access_ends_at timestamptz NOT NULL,
  state text NOT NULL DEFAULT 'connected' CHECK (state IN ('connected', 'revoked', 'lacking')),
  trouble text,
  state_since timestamptz NOT NULL DEFAULT now(),
  -- Who renews the tokens just now: nobody else does until then.
  renewing_until timestamptz,
  version integer NOT NULL DEFAULT 1,
  connected_by uuid REFERENCES users ON DELETE SET NULL,
  connected_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (service, remote_id),
  UNIQUE (id, client_id),
  CHECK ((state = 'connected') = (trouble IS NULL))
);
CREATE INDEX accounts_of_client ON accounts (client_id);
ALTER TABLE channels ADD COLUMN account_id uuid,
  ADD CONSTRAINT channels_account_fkey FOREIGN KEY (account_id, client_id) REFERENCES accounts (id, client_id) ON DELETE SET NULL (account_id);
CREATE INDEX channels_of_account ON channels (account_id);

-- What an account may still ask for, over all workers. The moment by which all that was asked for would be due, were it asked for evenly.
CREATE TABLE account_paces (
  account_id uuid PRIMARY KEY REFERENCES accounts ON DELETE CASCADE,
  due_at timestamptz NOT NULL DEFAULT '-infinity',
  held_until timestamptz NOT NULL DEFAULT '-infinity',
  held_why text
);

CREATE TABLE connect_attempts (
  state_hash text PRIMARY KEY,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  channel_id uuid NOT NULL REFERENCES channels ON DELETE CASCADE,
  user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
  service text NOT NULL,
  verifier bytea NOT NULL,
  ends_at timestamptz NOT NULL
);

CREATE TABLE posting_stops (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid REFERENCES clients ON DELETE CASCADE,
  channel_id uuid REFERENCES channels ON DELETE CASCADE,
  stopped_by uuid REFERENCES users ON DELETE SET NULL,
  stopped_at timestamptz NOT NULL DEFAULT now(),
  CHECK (channel_id IS NULL OR client_id IS NOT NULL),
  UNIQUE NULLS NOT DISTINCT (client_id, channel_id)
);

ALTER TABLE posts DROP CONSTRAINT posts_state_check, DROP CONSTRAINT posts_check;
UPDATE posts SET state = 'refused' WHERE state = 'failed';
ALTER TABLE posts ADD CONSTRAINT posts_state_check CHECK (state IN ('planned', 'waiting', 'sending', 'processing', 'posted', 'refused', 'missed')),
  ADD CONSTRAINT posts_failure_check CHECK (state NOT IN ('refused', 'missed') OR failure IS NOT NULL),
  ADD COLUMN waits text CHECK (waits IN ('file', 'approval', 'words', 'right', 'account', 'stop', 'limit')),
  ADD CONSTRAINT posts_waiting_check CHECK ((state = 'waiting') = (waits IS NOT NULL)),
  -- Somebody said that it goes out though its time is over.
  ADD COLUMN late_ok boolean NOT NULL DEFAULT false,
  -- When it is looked at again; null: when its time comes.
  ADD COLUMN try_at timestamptz;
CREATE INDEX posts_on_their_way ON posts (coalesce(try_at, at)) WHERE state IN ('planned', 'waiting', 'sending', 'processing');
-- What moves, or is changed by hand, begins anew; what was fixed for its old place goes, unless it is there already or may be.
CREATE FUNCTION post_begins_anew() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF NEW.state <> 'waiting' THEN NEW.waits := NULL; END IF;
  IF (OLD.at, OLD.channel_id) IS DISTINCT FROM (NEW.at, NEW.channel_id) THEN
    NEW.try_at := NULL;
    NEW.late_ok := false;
    DELETE FROM sendings WHERE post_id = NEW.id AND remote_id IS NULL AND doubt_since IS NULL;
  END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER posts_begin_anew BEFORE UPDATE ON posts FOR EACH ROW EXECUTE FUNCTION post_begins_anew();
CREATE TRIGGER posts_forget_jobs AFTER DELETE ON posts FOR EACH ROW EXECUTE FUNCTION forget_jobs('post');

CREATE TABLE sendings (
  post_id uuid PRIMARY KEY REFERENCES posts ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  -- The account may go; where it was sent stays known.
  account_id uuid REFERENCES accounts ON DELETE SET NULL,
  service text NOT NULL,
  mark text NOT NULL UNIQUE,
  short_version integer NOT NULL,
  copy jsonb NOT NULL,
  captions text NOT NULL,
  render_id uuid REFERENCES renders ON DELETE SET NULL,
  file text NOT NULL,
  bytes bigint NOT NULL,
  length_ms integer NOT NULL,
  shape text NOT NULL,
  at timestamptz NOT NULL,
  fixed_at timestamptz NOT NULL,
  kept jsonb NOT NULL DEFAULT '{}',
  doubt_since timestamptz,
  tries integer NOT NULL DEFAULT 0,
  remote_id text,
  address text,
  posted_at timestamptz,
  taken_down_at timestamptz,
  UNIQUE (service, remote_id)
);
CREATE INDEX sendings_of_render ON sendings (render_id);
CREATE INDEX sendings_of_account ON sendings (account_id);

-- What happened to a post, in the order in which it did.
CREATE TABLE sending_events (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  post_id uuid NOT NULL REFERENCES posts ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  at timestamptz NOT NULL,
  event text NOT NULL,
  detail text NOT NULL DEFAULT '',
  user_id uuid REFERENCES users ON DELETE SET NULL
);
CREATE INDEX sending_events_of_post ON sending_events (post_id, id)`),
  down: (run) =>
    run(`
DROP TABLE sending_events, sendings, posting_stops, connect_attempts, account_paces;
DROP TRIGGER posts_forget_jobs ON posts;
DROP TRIGGER posts_begin_anew ON posts;
DROP FUNCTION post_begins_anew();
DELETE FROM jobs WHERE kind = 'post';
DROP INDEX posts_on_their_way;
ALTER TABLE posts DROP CONSTRAINT posts_waiting_check, DROP CONSTRAINT posts_failure_check, DROP CONSTRAINT posts_state_check, DROP COLUMN waits, DROP COLUMN late_ok, DROP COLUMN try_at;
UPDATE posts SET state = 'planned' WHERE state IN ('waiting', 'sending', 'processing');
UPDATE posts SET state = 'failed' WHERE state IN ('refused', 'missed');
ALTER TABLE posts ADD CONSTRAINT posts_state_check CHECK (state IN ('planned', 'posted', 'failed')), ADD CONSTRAINT posts_check CHECK (state <> 'failed' OR failure IS NOT NULL);
ALTER TABLE channels DROP COLUMN account_id;
DROP TABLE accounts;
ALTER TABLE clients DROP COLUMN late_minutes;
ALTER TABLE platform_profiles DROP COLUMN service`),
};
