import pg from 'pg';
import { Sequelize } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { migrate, MIGRATIONS, migrator } from '../dist/database/migrate.js';
import { freshDatabase } from './database.js';

const OUR_TABLES = `SELECT table_name FROM information_schema.tables WHERE table_schema = 'public' AND table_name <> 'schema_steps' ORDER BY 1`;

async function withDatabase(name: string, act: (sequelize: Sequelize, client: pg.Client) => Promise<void>): Promise<void> {
  const url = await freshDatabase(process.env['SIFT_REEL_DATABASE_URL']!, name, 'bare');
  const sequelize = new Sequelize(url, { logging: false });
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await act(sequelize, client);
  } finally {
    await client.end();
    await sequelize.close();
  }
}

const FILL = `
  INSERT INTO users (email, name, role, password_hash) VALUES ('a@b.example', 'A', 'owner', '$argon2id$x');
  INSERT INTO clients (id, name, zone, standing_brief) VALUES ('00000000-0000-4000-8000-000000000001', 'One', 'Europe/Dublin', '{}'), ('00000000-0000-4000-8000-000000000002', 'Two', 'Europe/Dublin', '{}');
  INSERT INTO platform_profiles (id, name, min_duration_ms, max_duration_ms, shapes, title_limit, description_limit, hashtag_limit, posts_per_day, min_gap_minutes) VALUES ('00000000-0000-4000-8000-000000000003', 'P', 0, 1000, '{vertical}', 10, 10, 1, 1, 0);
  INSERT INTO channels (id, client_id, platform_profile_id, name, zone, "order", posts_per_day, posts_per_week) VALUES ('00000000-0000-4000-8000-000000000004', '00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000003', 'C', 'UTC', 1, 1, 1);
  INSERT INTO recordings (id, client_id, title, base_name) VALUES ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000001', 'R', 'r');
  INSERT INTO audit_entries (action, subject, subject_id) VALUES ('x', 'y', 'z');
`;

const OLD_ROWS = `
  INSERT INTO clients (id, name, zone, standing_brief) VALUES ('00000000-0000-4000-8000-000000000009', 'Three ', 'Europe/Dublin', '{}');
  WITH b AS (INSERT INTO briefs (recording_id, client_id, part_start_ms, min_ms, max_ms, rough_count, topics, kinds, avoid)
      VALUES ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000001', 0, 3000, 4000, 1, '{}', '{}', '{}') RETURNING id),
    s AS (INSERT INTO sifts (recording_id, client_id, brief_id, state, failure)
      SELECT '00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000001', b.id, one.state, one.failure
      FROM b, (VALUES ('running', NULL), ('failed', 'no words')) AS one (state, failure) RETURNING id, state),
    c AS (INSERT INTO candidates (sift_id, client_id, rank, score, start_ms, end_ms, first_word, end_word, found_first_word, found_end_word, kind, reason,
        first_line, last_line, title, hashtags)
      SELECT id, '00000000-0000-4000-8000-000000000001', 1, 50, 0, 9000, 0, 9, 0, 9, 'story', '', '', '', '', '{}' FROM s WHERE state = 'failed' RETURNING id)
  INSERT INTO shorts (client_id, recording_id, candidate_id, first_word, end_word, start_ms, end_ms, score, approved_at)
    SELECT '00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000005', id, 0, 9, 0, 9000, 50, now() FROM c;
`;

describe('migrations', () => {
  it('go up, down and up again on an empty database', () =>
    withDatabase('steps_empty', async (sequelize, client) => {
      const steps = migrator(sequelize);
      expect((await steps.up()).length).toBe(MIGRATIONS.length);
      const tables = (await client.query(OUR_TABLES)).rows;
      expect(tables.length).toBeGreaterThan(18);
      await steps.down({ to: 0 });
      expect((await client.query(OUR_TABLES)).rows).toEqual([]);
      await steps.up();
      expect((await client.query(OUR_TABLES)).rows).toEqual(tables);
      expect(await steps.up()).toEqual([]);
    }));
  it('go down and up on a filled database', () =>
    withDatabase('steps_filled', async (sequelize, client) => {
      const steps = migrator(sequelize);
      await steps.up();
      await client.query(FILL);
      await steps.down({ to: 0 });
      expect((await client.query(OUR_TABLES)).rows).toEqual([]);
      await steps.up();
      await client.query(FILL);
    }));
  it('leave neither a step nor its mark when they are killed between the two', () =>
    withDatabase('steps_killed', async (sequelize, client) => {
      // The mark itself fails, as late as anything can.
      await client.query('CREATE TABLE schema_steps (name text PRIMARY KEY CHECK (name <> $$0002-better-eye$$), taken_at timestamptz NOT NULL DEFAULT now())');
      await expect(migrator(sequelize).up()).rejects.toThrow();
      expect((await client.query('SELECT name FROM schema_steps')).rows).toEqual([{ name: '0001-first-light' }]);
      expect((await client.query(`SELECT 1 FROM information_schema.columns WHERE table_name = 'candidates' AND column_name = 'alternatives'`)).rows).toEqual(
        [],
      );
      await client.query('ALTER TABLE schema_steps DROP CONSTRAINT schema_steps_name_check');
      expect(await migrator(sequelize).up()).toHaveLength(MIGRATIONS.length - 1);
    }));
  it('exclude one another: two at once, and each step is taken once', async () => {
    const url = await freshDatabase(process.env['SIFT_REEL_DATABASE_URL']!, 'steps_twice', 'bare');
    const taken = await Promise.all([migrate(url), migrate(url), migrate(url)]);
    expect(taken.flat().sort()).toEqual(MIGRATIONS.map((step) => step.name));
  });
  it('carry what is there: a sift that was running waits again, an approval belongs to its version, names lose their spaces', () =>
    withDatabase('steps_carry', async (sequelize, client) => {
      const steps = migrator(sequelize);
      await steps.up({ to: '0003-heard-voices' });
      await client.query(FILL);
      await client.query(OLD_ROWS);
      await steps.up();
      expect((await client.query('SELECT kind, state, failure FROM jobs ORDER BY state')).rows).toEqual([
        { kind: 'sift', state: 'failed', failure: 'no words' },
        { kind: 'sift', state: 'waiting', failure: null },
      ]);
      expect((await client.query('SELECT version, approved_version FROM shorts')).rows).toEqual([{ version: 1, approved_version: 1 }]);
      expect((await client.query(`SELECT name FROM clients WHERE id = '00000000-0000-4000-8000-000000000009'`)).rows).toEqual([{ name: 'Three' }]);
      await steps.down({ to: '0004-firm-ground' });
      expect((await client.query('SELECT state, failure FROM sifts ORDER BY state')).rows).toEqual([
        { state: 'failed', failure: 'no words' },
        { state: 'waiting', failure: null },
      ]);
    }));
  it('leave nothing of a step that fails', () =>
    withDatabase('steps_broken', async (sequelize, client) => {
      await client.query('CREATE TABLE posts (id int)'); // stands in the way of the step
      await expect(migrator(sequelize).up()).rejects.toThrow();
      expect((await client.query(OUR_TABLES)).rows).toEqual([{ table_name: 'posts' }]);
    }));
});

describe('the database itself refuses', () => {
  it.each([
    [
      'a channel’s blackout for another client',
      `INSERT INTO blackouts (client_id, channel_id, from_date, to_date, reason) VALUES ('00000000-0000-4000-8000-000000000002', '00000000-0000-4000-8000-000000000004', '2026-01-01', '2026-01-02', 'x')`,
    ],
    [
      'a brief of another client’s recording',
      `INSERT INTO briefs (recording_id, client_id, part_start_ms, min_ms, max_ms, rough_count, topics, kinds, avoid) VALUES ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000002', 0, 3000, 4000, 1, '{}', '{}', '{}')`,
    ],
    [
      'a length band upside down',
      `INSERT INTO briefs (recording_id, client_id, part_start_ms, min_ms, max_ms, rough_count, topics, kinds, avoid) VALUES ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000001', 0, 5000, 4000, 1, '{}', '{}', '{}')`,
    ],
    [
      'an unknown kind',
      `INSERT INTO briefs (recording_id, client_id, part_start_ms, min_ms, max_ms, rough_count, topics, kinds, avoid) VALUES ('00000000-0000-4000-8000-000000000005', '00000000-0000-4000-8000-000000000001', 0, 3000, 4000, 1, '{}', '{gossip}', '{}')`,
    ],
    ['a window on the eighth weekday', `INSERT INTO posting_windows VALUES ('00000000-0000-4000-8000-000000000004', 8, 0, 50)`],
    ['a second user of one e-mail', `INSERT INTO users (email, name, role, password_hash) VALUES ('a@b.example', 'B', 'owner', '$argon2id$x')`],
    ['a password that is not hashed', `INSERT INTO users (email, name, role, password_hash) VALUES ('c@b.example', 'B', 'owner', 'secret')`],
    [
      'a blackout that ends before it starts',
      `INSERT INTO blackouts (client_id, from_date, to_date, reason) VALUES ('00000000-0000-4000-8000-000000000001', '2026-01-02', '2026-01-01', 'x')`,
    ],
    ['a client of the same name but for its case', `INSERT INTO clients (name, zone, standing_brief) VALUES ('ONE', 'UTC', '{}')`],
    [
      'a failed job without a reason',
      `INSERT INTO jobs (kind, subject_id, client_id, lock_key, state, finished_at) VALUES ('sift', gen_random_uuid(), '00000000-0000-4000-8000-000000000001', 'k', 'failed', now())`,
    ],
    [
      'two jobs at work on one thing',
      `INSERT INTO jobs (kind, subject_id, client_id, lock_key, state) SELECT 'sift', gen_random_uuid(), '00000000-0000-4000-8000-000000000001', 'k', 'running' FROM generate_series(1, 2)`,
    ],
  ])('%s', (_, sql) =>
    withDatabase('refusals', async (sequelize, client) => {
      await migrator(sequelize).up();
      await client.query(FILL);
      await expect(client.query(sql)).rejects.toThrow(/violates|check|duplicate/);
    }),
  );
});
