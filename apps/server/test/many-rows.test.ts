import { randomUUID } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { User } from '../dist/identity/identity.models.js';
import { seedRanking } from './seed.js';
import { query, World } from './world.js';

let world: World;
const ids: Record<string, string> = {};
beforeAll(async () => {
  world = await World.make();
  const clientId = await world.client();
  const seeded = await seedRanking(world, clientId);
  const channelId = await world.channel(clientId);
  const [candidate] = seeded.candidates;
  await world.owner.put(`candidates/${candidate!.id}/state`, { state: 'kept' });
  const ofClient = `shorts?clientId=${clientId}`;
  const [short] = (await world.owner.get(ofClient)).body;
  await world.owner.put(`shorts/${short.id}/approval`, { approved: true, version: short.version });
  const batch = (await world.owner.post('batches', { name: 'all of it', shortIds: [short.id] })).body;
  const [post] = await query(
    `INSERT INTO posts (client_id, channel_id, short_id, batch_id, date, minute, at, why) VALUES ($1, $2, $3, $4, '2026-01-01', 600, '2026-01-01T10:00Z', '') RETURNING id`,
    [clientId, channelId, short.id, batch.id],
  );
  ids['postId'] = String(post!['id']);
  const feedId = randomUUID();
  await query(`INSERT INTO feeds (id, client_id, url, title, rule) VALUES ($1, $2, 'https://shows.example/feed.xml', 'Show', 'list')`, [feedId, clientId]);
  await query(
    `INSERT INTO episodes (client_id, feed_id, guid, title, summary, enclosure, transcripts, persons, season_name, number, is_new)
       VALUES ($1, $2, 'g', 'Night', '', '{"url":"https://media.example/a.mp3","type":"audio/mpeg","bytes":null}', '[]', '[]', '', '', true)`,
    [clientId, feedId],
  );
  const { address } = (await world.owner.post(`clients/${clientId}/calendars`, { name: 'Theirs' })).body as { address: string };
  ids['token'] = /([\w-]+)\.ics$/.exec(address)![1]!;
  const document = (await world.owner.post(`recordings/${seeded.recordingId}/documents`, { kind: 'quote-cards' })).body;
  const spanish = `shorts/${short.id}/translations/es`;
  const { units } = (await world.owner.get(spanish)).body as { units: { id: string; source: string }[] };
  await world.owner.put(spanish, { targets: units.map(({ id, source }) => ({ unit: id, text: source })), version: 0 });
  for (const folder of ['renders', 'prepared']) {
    const made = join(process.env['SIFT_REEL_MEDIA_DIR']!, folder);
    await mkdir(made, { recursive: true });
    await writeFile(join(made, 'made.mp4'), 'made');
  }
  await query(
    `UPDATE recordings SET sound_track = 0, sound_file = 'talk.mp3', sound_name = 'talk.mp3', sound_type = 'audio/mpeg', sound_bytes = 4 WHERE id = $1`,
    [seeded.recordingId],
  );
  await query(`INSERT INTO voice_tracks (recording_id, client_id, sound_file, levels, pitches) VALUES ($1, $2, 'talk.mp3', '\\x00', '\\x00')`, [
    seeded.recordingId,
    clientId,
  ]);
  const [preparation] = await query(
    `INSERT INTO preparations (recording_id, client_id, sound_file, sound_track, proxy_file, sprite_file, sprite)
       VALUES ($1, $2, 'talk.mp3', 0, 'made.mp4', 'made.mp4', '{}') RETURNING id`,
    [seeded.recordingId, clientId],
  );
  await query(
    `INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, state, stage, fraction, finished_at)
       VALUES ('prepare', $1, $2, '{}', 'prepare:one', 'done', 'done', 1, now())`,
    [preparation!['id'], clientId],
  );
  const { body: render } = await world.owner.post(`shorts/${short.id}/renders`, { shape: 'wide' });
  await query(`UPDATE renders SET file = 'made.mp4', bytes = 4, announced_at = now() WHERE id = $1`, [render.id]);
  await query('UPDATE clients SET files_kept_days = 30 WHERE id = $1', [clientId]);
  const { recordingId, siftId } = seeded;
  Object.assign(ids, { clientId, recordingId, siftId, otherId: siftId, shortId: short.id, batchId: batch.id });
  Object.assign(ids, { feedId, documentId: document.id, number: '1', language: 'es', renderId: render.id, preparationId: preparation!['id'] });
});
afterAll(async () => {
  // Whoever comes next on this database would read all of it with every schedule.
  await query('TRUNCATE clients CASCADE');
  await world.close();
});

/** The same thing over and over, with ids that follow from its number: 2,000 recordings, 60,000 candidates, 20,000 posts. */
async function multiply(): Promise<void> {
  const { recordingId, siftId, shortId, batchId } = ids;
  const copies = (table: string, where: string, key: string, n: number, fields: string): Promise<unknown> =>
    query(
      `INSERT INTO ${table} SELECT made.* FROM (SELECT t AS had FROM ${table} AS t WHERE ${where} LIMIT 1) AS one CROSS JOIN generate_series(1, ${n}) AS n
         CROSS JOIN LATERAL jsonb_populate_record(one.had, jsonb_build_object(${fields})) AS made`,
      [key],
    );
  await copies('recordings', 'id = $1', recordingId!, 2_000, `'id', md5('r' || n)::uuid, 'title', 'Talk ' || n`);
  await copies('preparations', 'recording_id = $1', recordingId!, 2_000, `'id', md5('q' || n)::uuid, 'recording_id', md5('r' || n)::uuid`);
  await query(
    `INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, state, stage, fraction, finished_at)
       SELECT 'prepare', md5('q' || n)::uuid, $1, '{}', 'prepare:' || n, 'done', 'done', 1, now() FROM generate_series(1, 2000) AS n`,
    [ids['clientId']],
  );
  await copies('transcripts', 'recording_id = $1', recordingId!, 2_000, `'recording_id', md5('r' || n)::uuid`);
  await copies('briefs', 'recording_id = $1', recordingId!, 2_000, `'id', md5('b' || n)::uuid, 'recording_id', md5('r' || n)::uuid`);
  await copies('sifts', 'id = $1', siftId!, 2_000, `'id', md5('s' || n)::uuid, 'recording_id', md5('r' || n)::uuid, 'brief_id', md5('b' || n)::uuid`);
  await query(
    `INSERT INTO jobs (kind, subject_id, client_id, about, lock_key, state, stage, fraction, finished_at)
       SELECT 'sift', md5('s' || n)::uuid, $1, jsonb_build_object('recordingId', md5('r' || n)::uuid), 'sift:' || n, 'done', 'done', 1, now() FROM generate_series(1, 2000) AS n`,
    [ids['clientId']],
  );
  await copies(
    'candidates',
    `sift_id = $1 AND state = 'kept'`,
    siftId!,
    60_000,
    `'id', md5('c' || n)::uuid, 'sift_id', md5('s' || (1 + (n - 1) / 30))::uuid, 'rank', 1 + (n - 1) % 30`,
  );
  await copies(
    'shorts',
    'id = $1',
    shortId!,
    20_000,
    `'id', md5('h' || n)::uuid, 'candidate_id', md5('c' || n)::uuid, 'recording_id', md5('r' || (1 + (n - 1) / 30))::uuid`,
  );
  await copies('copies', 'short_id = $1 AND channel_id IS NULL', shortId!, 20_000, `'id', md5('w' || n)::uuid, 'short_id', md5('h' || n)::uuid`);
  await copies('translations', 'short_id = $1', shortId!, 20_000, `'id', md5('t' || n)::uuid, 'short_id', md5('h' || n)::uuid`);
  await copies('renders', 'id = $1', ids['renderId']!, 2_000, `'id', md5('f' || n)::uuid, 'key', 'k' || n`);
  await copies('feeds', 'id = $1', ids['feedId']!, 500, `'id', md5('e' || n)::uuid, 'url', 'https://shows.example/' || n`);
  await copies('episodes', 'feed_id = $1', ids['feedId']!, 20_000, `'id', md5('i' || n)::uuid, 'guid', 'g' || n`);
  await query(
    `INSERT INTO fetches (client_id, recording_id, episode_id, url, transcripts, then_sift)
       SELECT $1, md5('r' || n)::uuid, md5('i' || n)::uuid, 'https://media.example/a.mp3', '[]', false FROM generate_series(1, 2000) AS n`,
    [ids['clientId']],
  );
  await copies('documents', 'id = $1', ids['documentId']!, 2_000, `'id', md5('d' || n)::uuid, 'recording_id', md5('r' || n)::uuid`);
  // New words take an approval away, here too.
  await query(`UPDATE shorts SET approved_by = (SELECT id FROM users LIMIT 1), approved_at = now(), approved_version = version`);
  await query(`INSERT INTO batch_shorts (batch_id, short_id, client_id) SELECT $1, md5('h' || n)::uuid, $2 FROM generate_series(1, 2000) AS n`, [
    batchId,
    ids['clientId'],
  ]);
  await copies(
    'posts',
    'short_id = $1',
    shortId!,
    20_000,
    `'id', md5('p' || n)::uuid, 'short_id', md5('h' || n)::uuid, 'date', date '2026-01-02' + n / 8, 'minute', 60 * (n % 8), 'at', timestamptz '2026-01-02' + make_interval(days => n / 8, hours => n % 8)`,
  );
  await query('ANALYZE');
}

/** What a route asks the database. */
async function asked(path: string): Promise<string[]> {
  const seen: string[] = [];
  const { options } = User.sequelize as unknown as { options: { logging: ((sql: string) => void) | false } };
  // What only opens and ends a snapshot reads no rows.
  options.logging = (sql) => void (/: (?:START TRANSACTION|SET TRANSACTION .*|COMMIT);/.test(sql) || seen.push(sql));
  try {
    const { status, text } = await world.owner.get(path);
    expect(status, `${path}: ${text.slice(0, 200)}`).toBe(200);
  } finally {
    options.logging = false;
  }
  return seen;
}

describe('a house full of rows', () => {
  it('asks for a list or a thing with a handful of queries, however many rows there are', async () => {
    const document = (await world.owner.get('docs.json')).body as { paths: Record<string, { get?: object }> };
    const routes = Object.entries(document.paths)
      .filter(([path, methods]) => methods.get !== undefined && !/progress|sound|health|invitations/.test(path))
      .map(([path]) => path.replace('/api/', '').replace(/\{(\w+)\}/g, (_, name: string) => ids[name] ?? `{${name}}`));
    const asks: readonly [RegExp, string][] = [
      [/\/search$/, '?q=kettle'],
      [/schedule\/plan/, '?from=2026-01-01&to=2026-01-28'],
      [/\/file$/, '?as=plain'],
      [/\/cards\//, '?as=svg&shape=square'],
      [/\/frames$/, '?shape=wide'],
      [/renders\/(?:ready|files\.zip)$/, `?shape=wide&shortIds=${ids['shortId']!}`],
    ];
    const withSearch = routes.map((path) => path + (asks.find(([route]) => route.test(path))?.[1] ?? ''));
    expect(withSearch.length).toBeGreaterThan(20);
    const few = new Map<string, number>();
    for (const path of withSearch) {
      await asked(path); // what is kept for the next time is kept now
      few.set(path, (await asked(path)).length);
    }
    await multiply();
    const rows = await query(
      `SELECT (SELECT count(*) FROM recordings)::int AS recordings, (SELECT count(*) FROM candidates)::int AS candidates, (SELECT count(*) FROM posts)::int AS posts`,
    );
    expect(rows[0]!['recordings']).toBeGreaterThan(2_000);
    expect(rows[0]!['candidates']).toBeGreaterThan(60_000);
    expect(rows[0]!['posts']).toBeGreaterThan(20_000);
    for (const path of withSearch) {
      const many = await asked(path);
      expect(many.length, `${path}\n${many.join('\n')}`).toBe(few.get(path));
      expect(many.length, `${path}\n${many.join('\n')}`).toBeLessThanOrEqual(10);
    }
  }, 300_000);
});
