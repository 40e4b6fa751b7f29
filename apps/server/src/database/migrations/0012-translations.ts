import type { Migration } from '../migration.js';

/**
 * Shorts in other languages. A translation is read by a person at one version of its short; a channel that has a language takes
 * only what is read of it.
 */
const UP = `
ALTER TABLE channels ADD COLUMN language text;
CREATE TABLE translations (
  id uuid PRIMARY KEY DEFAULT gen_random_uuid(),
  client_id uuid NOT NULL REFERENCES clients,
  short_id uuid NOT NULL,
  language text NOT NULL,
  targets jsonb NOT NULL DEFAULT '{}',
  -- What each text was translated from, so that what has changed since then can be told.
  sources jsonb NOT NULL DEFAULT '{}',
  drafted_by text,
  read_version integer,
  read_by uuid REFERENCES users ON DELETE SET NULL,
  read_at timestamptz,
  version integer NOT NULL DEFAULT 1,
  UNIQUE (short_id, language),
  FOREIGN KEY (short_id, client_id) REFERENCES shorts (id, client_id) ON DELETE CASCADE,
  CHECK ((read_version IS NULL) = (read_at IS NULL))
);
CREATE FUNCTION talk_language(recording uuid) RETURNS text LANGUAGE sql STABLE AS $$
  SELECT coalesce((SELECT coalesce(language, 'en') FROM sifts WHERE recording_id = recording AND ridge IS NOT NULL ORDER BY created_at DESC LIMIT 1), 'en')
$$;
CREATE FUNCTION translation_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'UPDATE' THEN
    IF NEW.targets IS NOT DISTINCT FROM OLD.targets AND NEW.read_version IS NOT DISTINCT FROM OLD.read_version THEN RETURN NEW; END IF;
    NEW.version := OLD.version + 1;
    IF NEW.targets IS DISTINCT FROM OLD.targets THEN
      NEW.read_version := NULL; NEW.read_by := NULL; NEW.read_at := NULL;
    END IF;
    IF NEW.read_version IS NOT NULL OR OLD.read_version IS NULL THEN RETURN NEW; END IF;
  END IF;
  PERFORM FROM shorts WHERE id = OLD.short_id FOR UPDATE;
  PERFORM FROM posts JOIN channels ON channels.id = posts.channel_id
    WHERE posts.short_id = OLD.short_id AND channels.language = OLD.language AND posts.state = 'planned'
      AND NOT EXISTS (SELECT FROM copies WHERE copies.short_id = OLD.short_id AND copies.channel_id = channels.id);
  IF FOUND THEN RAISE EXCEPTION 'the translation stands on the schedule' USING ERRCODE = 'SR004'; END IF;
  IF TG_OP = 'DELETE' THEN RETURN OLD; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER translations_changed BEFORE UPDATE OR DELETE ON translations FOR EACH ROW EXECUTE FUNCTION translation_changed();
CREATE OR REPLACE FUNCTION post_needs_approval() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
  wanted text;
BEGIN
  PERFORM FROM shorts WHERE id = NEW.short_id AND approved_version = version FOR SHARE;
  IF NOT FOUND THEN RAISE EXCEPTION 'the short is not approved' USING ERRCODE = 'SR001'; END IF;
  SELECT language INTO wanted FROM channels WHERE id = NEW.channel_id;
  IF wanted IS NOT NULL
    AND wanted <> (SELECT talk_language(recording_id) FROM shorts WHERE id = NEW.short_id)
    AND NOT EXISTS (SELECT FROM copies WHERE short_id = NEW.short_id AND channel_id = NEW.channel_id)
    AND NOT EXISTS (SELECT FROM translations t JOIN shorts s ON s.id = t.short_id
      WHERE t.short_id = NEW.short_id AND t.language = wanted AND t.read_version = s.version)
  THEN RAISE EXCEPTION 'nobody has read the translation' USING ERRCODE = 'SR003'; END IF;
  RETURN NEW;
END $$;
DROP TRIGGER posts_need_approval ON posts;
CREATE TRIGGER posts_need_approval BEFORE INSERT OR UPDATE OF short_id, channel_id ON posts FOR EACH ROW EXECUTE FUNCTION post_needs_approval();
CREATE FUNCTION channel_language_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM FROM posts WHERE channel_id = NEW.id AND state = 'planned';
  IF FOUND THEN RAISE EXCEPTION 'posts stand on the channel' USING ERRCODE = 'SR005'; END IF;
  RETURN NEW;
END $$;
CREATE TRIGGER channels_language BEFORE UPDATE ON channels FOR EACH ROW WHEN (NEW.language IS DISTINCT FROM OLD.language)
  EXECUTE FUNCTION channel_language_changed()`;

const DOWN = `
DROP TRIGGER channels_language ON channels;
DROP FUNCTION channel_language_changed();
CREATE OR REPLACE FUNCTION post_needs_approval() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  PERFORM FROM shorts WHERE id = NEW.short_id AND approved_version = version FOR SHARE;
  IF NOT FOUND THEN RAISE EXCEPTION 'the short is not approved' USING ERRCODE = 'SR001'; END IF;
  RETURN NEW;
END $$;
DROP TRIGGER posts_need_approval ON posts;
CREATE TRIGGER posts_need_approval BEFORE INSERT OR UPDATE OF short_id ON posts FOR EACH ROW EXECUTE FUNCTION post_needs_approval();
DROP TABLE translations;
DROP FUNCTION translation_changed();
DROP FUNCTION talk_language(uuid);
ALTER TABLE channels DROP COLUMN language`;

export const translations: Migration = { name: '0012-translations', up: (run) => run(UP), down: (run) => run(DOWN) };
