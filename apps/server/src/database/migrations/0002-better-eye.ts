import type { Migration } from '../migration.js';

/**
 * Other cuts of a candidate and candidates of one's own; weights and key phrases of a sift; a client's own weights and
 * interest list. Sifts from before have no weights on record.
 */
export const betterEye: Migration = {
  name: '0002-better-eye',
  up: (run) =>
    run(`
ALTER TABLE candidates ADD COLUMN alternatives jsonb NOT NULL DEFAULT '[]';
ALTER TABLE candidates ADD COLUMN origin text NOT NULL DEFAULT 'sift' CHECK (origin IN ('sift', 'own'));
ALTER TABLE sifts ADD COLUMN key_phrases jsonb NOT NULL DEFAULT '[]';
ALTER TABLE sifts ADD COLUMN weights double precision[] CHECK (weights IS NULL OR cardinality(weights) = 6);
ALTER TABLE clients ADD COLUMN signal_weights double precision[] CHECK (signal_weights IS NULL OR cardinality(signal_weights) = 6);
CREATE TABLE interest_terms (
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  term text NOT NULL CHECK (length(term) BETWEEN 1 AND 80),
  volume double precision NOT NULL CHECK (volume >= 0),
  competition double precision NOT NULL CHECK (competition BETWEEN 0 AND 1),
  change double precision NOT NULL CHECK (change >= -1),
  PRIMARY KEY (client_id, term)
);
`),
  down: (run) =>
    run(`
DROP TABLE interest_terms;
ALTER TABLE sifts DROP COLUMN key_phrases;
ALTER TABLE candidates DROP COLUMN origin;
ALTER TABLE clients DROP COLUMN signal_weights;
ALTER TABLE sifts DROP COLUMN weights;
ALTER TABLE candidates DROP COLUMN alternatives;
`),
};
