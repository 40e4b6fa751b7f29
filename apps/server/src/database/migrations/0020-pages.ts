import type { Migration } from '../migration.js';

const FORMATS = `'webvtt', 'subrip', 'podcast-json', 'ttml', 'lrc', 'stamped-text', 'docx', 'odt', 'plain-text', 'draft'`;

/** Transcripts come as web pages, too. */
export const pages: Migration = {
  name: '0020-pages',
  up: (run) =>
    run(`
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN (${FORMATS}, 'html'))`),
  down: (run) =>
    run(`
UPDATE transcripts SET format = 'stamped-text' WHERE format = 'html';
ALTER TABLE transcripts DROP CONSTRAINT transcripts_format_check, ADD CONSTRAINT transcripts_format_check
  CHECK (format IN (${FORMATS}))`),
};
