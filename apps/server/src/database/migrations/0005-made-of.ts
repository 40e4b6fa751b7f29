import type { Migration } from '../migration.js';

/**
 * What a recording is made of, and what it is in: of a sift, since its brief names the part that counts. Where kinds cannot be
 * told, a candidate is a passage. Sifts from before have neither.
 */
const UP = `
ALTER TABLE sifts
  ADD COLUMN language text CHECK (language ~ '^[a-z]{2,3}$'),
  ADD COLUMN make_up jsonb;
ALTER TABLE candidates DROP CONSTRAINT candidates_kind_check;
ALTER TABLE candidates ADD CONSTRAINT candidates_kind_check
  CHECK (kind IN ('answer','story','advice','opinion','figures','emotion','humour','passage'));
`;

const DOWN = `
UPDATE candidates SET kind = 'figures' WHERE kind = 'passage';
ALTER TABLE candidates DROP CONSTRAINT candidates_kind_check;
ALTER TABLE candidates ADD CONSTRAINT candidates_kind_check CHECK (kind IN ('answer','story','advice','opinion','figures','emotion','humour'));
ALTER TABLE sifts DROP COLUMN language, DROP COLUMN make_up;
`;

export const madeOf: Migration = { name: '0005-made-of', up: (run) => run(UP), down: (run) => run(DOWN) };
