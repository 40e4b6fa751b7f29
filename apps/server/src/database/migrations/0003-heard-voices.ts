import type { Migration } from '../migration.js';

/**
 * What was heard of a recording's sound: level and pitch, a byte each for every step of 40 ms. A new sound file is heard
 * anew. Sifts from before did not listen, and say so now.
 */
export const heardVoices: Migration = {
  name: '0003-heard-voices',
  up: (run) =>
    run(`
CREATE TABLE voice_tracks (
  recording_id uuid PRIMARY KEY REFERENCES recordings ON DELETE CASCADE,
  client_id uuid NOT NULL REFERENCES clients ON DELETE CASCADE,
  sound_file text NOT NULL,
  levels bytea NOT NULL,
  pitches bytea NOT NULL,
  CHECK (octet_length(levels) = octet_length(pitches))
);
UPDATE sifts SET limits = array_append(limits, 'no-sound') WHERE limits IS NOT NULL;
`),
  down: (run) =>
    run(`
UPDATE sifts SET limits = array_remove(limits, 'no-sound') WHERE limits IS NOT NULL;
DROP TABLE voice_tracks;
`),
};
