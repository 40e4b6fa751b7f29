import type { Migration } from '../migration.js';

/**
 * The first schema. Everything a client owns carries `client_id`, and refers to its parent by id and client together, so
 * that the database itself refuses a row that would join two clients. Times of a recording are integer ms.
 */
const UP = `
CREATE TABLE users (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  email text NOT NULL CHECK (email = lower(email) AND length(email) <= 254),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  role text NOT NULL CHECK (role IN ('owner', 'producer')),
  password_hash text NOT NULL CHECK (password_hash LIKE '$argon2id$%'),
  active boolean NOT NULL DEFAULT true,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (email)
);
CREATE TABLE sessions (
  token_hash text PRIMARY KEY CHECK (length(token_hash) = 64),
  user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
  csrf_token text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  expires_at timestamptz NOT NULL,
  CHECK (expires_at > created_at)
);
CREATE INDEX sessions_user ON sessions (user_id);
CREATE TABLE clients (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  zone text NOT NULL,
  tags text[] NOT NULL DEFAULT '{}',
  standing_brief jsonb NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (name)
);
CREATE TABLE assignments (
  user_id uuid NOT NULL REFERENCES users ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  PRIMARY KEY (user_id, client_id)
);
CREATE INDEX assignments_client ON assignments (client_id);
CREATE TABLE platform_profiles (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL UNIQUE CHECK (length(name) BETWEEN 1 AND 40),
  min_duration_ms integer NOT NULL CHECK (min_duration_ms >= 0),
  max_duration_ms integer NOT NULL,
  shapes text[] NOT NULL CHECK (shapes <@ ARRAY['vertical','square','portrait','wide']),
  title_limit integer NOT NULL CHECK (title_limit > 0),
  description_limit integer NOT NULL CHECK (description_limit >= 0),
  hashtag_limit integer NOT NULL CHECK (hashtag_limit >= 0),
  posts_per_day integer NOT NULL CHECK (posts_per_day > 0),
  min_gap_minutes integer NOT NULL CHECK (min_gap_minutes BETWEEN 0 AND 1440),
  CHECK (max_duration_ms > min_duration_ms)
);
CREATE TABLE channels (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  platform_profile_id uuid NOT NULL REFERENCES platform_profiles ON DELETE RESTRICT,
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 60),
  zone text NOT NULL,
  "order" integer NOT NULL CHECK ("order" BETWEEN 1 AND 20),
  posts_per_day integer NOT NULL CHECK (posts_per_day BETWEEN 1 AND 24),
  posts_per_week integer NOT NULL CHECK (posts_per_week BETWEEN 1 AND 168),
  UNIQUE (id, client_id),
  UNIQUE (client_id, name)
);
CREATE TABLE posting_windows (
  channel_id uuid NOT NULL REFERENCES channels ON DELETE CASCADE,
  weekday smallint NOT NULL CHECK (weekday BETWEEN 1 AND 7),
  minute smallint NOT NULL CHECK (minute BETWEEN 0 AND 1439),
  weight smallint NOT NULL CHECK (weight BETWEEN 1 AND 100),
  PRIMARY KEY (channel_id, weekday, minute)
);
CREATE TABLE blackouts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  channel_id uuid,
  from_date date NOT NULL,
  to_date date NOT NULL CHECK (to_date >= from_date),
  reason text NOT NULL CHECK (length(reason) BETWEEN 1 AND 80),
  FOREIGN KEY (channel_id, client_id) REFERENCES channels (id, client_id) ON DELETE CASCADE
);
CREATE INDEX blackouts_client ON blackouts (client_id);
CREATE TABLE recordings (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  title text NOT NULL CHECK (length(title) BETWEEN 1 AND 160),
  base_name text NOT NULL,
  duration_ms integer CHECK (duration_ms > 0),
  sound_file text,
  sound_name text,
  sound_bytes bigint CHECK (sound_bytes > 0),
  sound_type text,
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, client_id),
  CHECK ((sound_file IS NULL) = (sound_bytes IS NULL))
);
CREATE INDEX recordings_client ON recordings (client_id, created_at DESC);
CREATE TABLE transcripts (
  recording_id uuid PRIMARY KEY,
  client_id uuid NOT NULL,
  source_name text NOT NULL,
  format text NOT NULL CHECK (format IN ('webvtt', 'subrip', 'podcast-json', 'stamped-text')),
  encoding text NOT NULL,
  word_count integer NOT NULL CHECK (word_count > 0),
  sentence_count integer NOT NULL CHECK (sentence_count > 0),
  speakers text[] NOT NULL,
  word_times text NOT NULL CHECK (word_times IN ('given', 'spread')),
  sentence_ends text NOT NULL CHECK (sentence_ends IN ('written', 'restored', 'mixed')),
  packed bytea NOT NULL,
  repair_count integer NOT NULL DEFAULT 0,
  repairs jsonb NOT NULL DEFAULT '[]',
  created_at timestamptz NOT NULL DEFAULT now(),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE
);
CREATE TABLE sentence_vectors (
  key text PRIMARY KEY CHECK (length(key) = 64),
  vector bytea NOT NULL
);
CREATE TABLE briefs (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL,
  client_id uuid NOT NULL,
  part_start_ms integer NOT NULL CHECK (part_start_ms >= 0),
  part_end_ms integer,
  min_ms integer NOT NULL CHECK (min_ms >= 3000),
  max_ms integer NOT NULL CHECK (max_ms <= 1800000),
  rough_count integer NOT NULL CHECK (rough_count BETWEEN 1 AND 200),
  topics text[] NOT NULL,
  kinds text[] NOT NULL CHECK (kinds <@ ARRAY['answer','story','advice','opinion','figures','emotion','humour']),
  avoid text[] NOT NULL,
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, client_id),
  CHECK (min_ms < max_ms),
  CHECK (part_end_ms IS NULL OR part_end_ms > part_start_ms),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE
);
CREATE INDEX briefs_recording ON briefs (recording_id);
CREATE TABLE sifts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  recording_id uuid NOT NULL,
  client_id uuid NOT NULL,
  brief_id uuid NOT NULL,
  state text NOT NULL DEFAULT 'waiting' CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  stage text NOT NULL DEFAULT 'waiting',
  fraction real NOT NULL DEFAULT 0 CHECK (fraction BETWEEN 0 AND 1),
  left_ms integer,
  cancel_asked boolean NOT NULL DEFAULT false,
  failure text,
  chapters jsonb,
  ridge jsonb,
  strong_count integer,
  limits text[],
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  finished_at timestamptz,
  UNIQUE (id, client_id),
  CHECK (state <> 'done' OR (chapters IS NOT NULL AND ridge IS NOT NULL AND strong_count IS NOT NULL)),
  CHECK (state <> 'failed' OR failure IS NOT NULL),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE,
  FOREIGN KEY (brief_id, client_id) REFERENCES briefs (id, client_id) ON DELETE CASCADE
);
CREATE INDEX sifts_recording ON sifts (recording_id, created_at DESC);
CREATE INDEX sifts_unfinished ON sifts (state) WHERE state IN ('waiting', 'running');
CREATE TABLE candidates (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  sift_id uuid NOT NULL,
  client_id uuid NOT NULL,
  rank integer NOT NULL CHECK (rank > 0),
  score real NOT NULL CHECK (score BETWEEN 0 AND 100),
  start_ms integer NOT NULL CHECK (start_ms >= 0),
  end_ms integer NOT NULL,
  first_word integer NOT NULL CHECK (first_word >= 0),
  end_word integer NOT NULL,
  found_first_word integer NOT NULL,
  found_end_word integer NOT NULL,
  kind text NOT NULL CHECK (kind IN ('answer','story','advice','opinion','figures','emotion','humour')),
  reason text NOT NULL,
  first_line text NOT NULL,
  last_line text NOT NULL,
  title text NOT NULL,
  hashtags text[] NOT NULL,
  state text NOT NULL DEFAULT 'open' CHECK (state IN ('open', 'kept', 'dropped')),
  UNIQUE (sift_id, rank),
  UNIQUE (id, client_id),
  CHECK (end_ms > start_ms),
  CHECK (end_word > first_word),
  FOREIGN KEY (sift_id, client_id) REFERENCES sifts (id, client_id) ON DELETE CASCADE
);
CREATE TABLE candidate_signals (
  candidate_id uuid NOT NULL REFERENCES candidates ON DELETE CASCADE,
  signal text NOT NULL CHECK (signal IN ('opening','standsAlone','substance','charge','delivery','currency')),
  value smallint NOT NULL CHECK (value BETWEEN 0 AND 100),
  sentence text NOT NULL,
  PRIMARY KEY (candidate_id, signal)
);
CREATE TABLE evidence (
  candidate_id uuid NOT NULL,
  signal text NOT NULL,
  first_word integer NOT NULL CHECK (first_word >= 0),
  end_word integer NOT NULL,
  PRIMARY KEY (candidate_id, signal, first_word),
  CHECK (end_word > first_word),
  FOREIGN KEY (candidate_id, signal) REFERENCES candidate_signals ON DELETE CASCADE
);
CREATE TABLE shorts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL,
  recording_id uuid NOT NULL,
  candidate_id uuid NOT NULL UNIQUE,
  first_word integer NOT NULL CHECK (first_word >= 0),
  end_word integer NOT NULL,
  start_ms integer NOT NULL CHECK (start_ms >= 0),
  end_ms integer NOT NULL,
  score real NOT NULL CHECK (score BETWEEN 0 AND 100),
  approved_by uuid REFERENCES users ON DELETE SET NULL,
  approved_at timestamptz,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (id, client_id),
  CHECK (end_ms > start_ms),
  CHECK (end_word > first_word),
  FOREIGN KEY (recording_id, client_id) REFERENCES recordings (id, client_id) ON DELETE CASCADE,
  FOREIGN KEY (candidate_id, client_id) REFERENCES candidates (id, client_id) ON DELETE CASCADE
);
CREATE INDEX shorts_client ON shorts (client_id);
CREATE INDEX shorts_recording ON shorts (recording_id);
CREATE TABLE copies (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  short_id uuid NOT NULL,
  client_id uuid NOT NULL,
  channel_id uuid,
  title text NOT NULL,
  description text NOT NULL,
  hashtags text[] NOT NULL,
  keywords text[] NOT NULL,
  cover_line text NOT NULL,
  updated_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE NULLS NOT DISTINCT (short_id, channel_id),
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE,
  FOREIGN KEY (channel_id, client_id) REFERENCES channels (id, client_id) ON DELETE CASCADE
);
CREATE TABLE batches (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  name text NOT NULL CHECK (length(name) BETWEEN 1 AND 80),
  created_by uuid REFERENCES users ON DELETE SET NULL,
  created_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE batch_shorts (
  batch_id uuid NOT NULL REFERENCES batches ON DELETE CASCADE,
  short_id uuid NOT NULL,
  client_id uuid NOT NULL,
  PRIMARY KEY (batch_id, short_id),
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE
);
CREATE INDEX batch_shorts_short ON batch_shorts (short_id);
CREATE TABLE posts (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL,
  channel_id uuid NOT NULL,
  short_id uuid NOT NULL,
  batch_id uuid REFERENCES batches ON DELETE SET NULL,
  date date NOT NULL,
  minute smallint NOT NULL CHECK (minute BETWEEN 0 AND 1439),
  at timestamptz NOT NULL,
  state text NOT NULL DEFAULT 'planned' CHECK (state IN ('planned', 'posted', 'failed')),
  failure text,
  why text NOT NULL,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (channel_id, short_id) DEFERRABLE,
  UNIQUE (channel_id, at) DEFERRABLE,
  CHECK (state <> 'failed' OR failure IS NOT NULL),
  FOREIGN KEY (channel_id, client_id) REFERENCES channels (id, client_id) ON DELETE RESTRICT,
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE
);
CREATE INDEX posts_client_at ON posts (client_id, at);
CREATE TABLE audit_entries (
  id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  at timestamptz NOT NULL DEFAULT now(),
  user_id uuid REFERENCES users ON DELETE SET NULL,
  client_id uuid REFERENCES clients ON DELETE SET NULL,
  action text NOT NULL,
  subject text NOT NULL,
  subject_id text NOT NULL,
  detail jsonb NOT NULL DEFAULT '{}'
);
CREATE INDEX audit_entries_client ON audit_entries (client_id, at DESC);
`;

const TABLES = [
  'audit_entries',
  'posts',
  'batch_shorts',
  'batches',
  'copies',
  'shorts',
  'evidence',
  'candidate_signals',
  'candidates',
  'sifts',
  'briefs',
  'sentence_vectors',
  'transcripts',
  'recordings',
  'blackouts',
  'posting_windows',
  'channels',
  'platform_profiles',
  'assignments',
  'clients',
  'sessions',
  'users',
];

export const firstLight: Migration = {
  name: '0001-first-light',
  up: (run) => run(UP),
  down: (run) => run(TABLES.map((table) => `DROP TABLE ${table};`).join('\n')),
};
