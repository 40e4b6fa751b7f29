import type { Migration } from '../migration.js';

const ENDS = ['first_word', 'end_word', 'start_ms', 'end_ms'];
/** What a change of these columns does to a short's version and approval. */
const contentOf = (columns: readonly string[]): string => `CREATE OR REPLACE FUNCTION short_content_changed() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF (${columns.map((one) => `NEW.${one}`).join(', ')}) IS DISTINCT FROM (${columns.map((one) => `OLD.${one}`).join(', ')})
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
END $$;`;

/**
 * What a producer makes of a short between its ends, and how long it plays. A change of it is a change of the short, as one of its
 * ends is. Whether a file is of what the short is now is told by comparing what both are made of, not by a number beside the file.
 */
const UP = `
ALTER TABLE shorts
  ADD COLUMN edit jsonb NOT NULL DEFAULT '{"removed":[],"pauses":[],"corrected":[],"before":[],"after":[]}',
  ADD COLUMN played_ms integer;
UPDATE shorts SET played_ms = end_ms - start_ms;
ALTER TABLE shorts ALTER COLUMN played_ms SET NOT NULL, ADD CHECK (played_ms > 0);
${contentOf([...ENDS, 'edit'])}
ALTER TABLE renders DROP COLUMN of_version`;

const DOWN = `
ALTER TABLE renders ADD COLUMN of_version integer NOT NULL DEFAULT 0;
ALTER TABLE renders ALTER COLUMN of_version DROP DEFAULT;
${contentOf(ENDS)}
ALTER TABLE shorts DROP COLUMN played_ms, DROP COLUMN edit`;

export const edits: Migration = { name: '0014-edits', up: (run) => run(UP), down: (run) => run(DOWN) };
