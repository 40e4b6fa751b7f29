import { formatSmpte, NO_EDIT } from '@sift-reel/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { seedRanking } from './seed.js';
import { type Answer, query, World } from './world.js';

let world: World;
let clientId: string;
let siftId: string;
let recordingId: string;
let candidates: { id: string; firstWord: number; endWord: number; startMs: number; endMs: number }[];
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
});
beforeEach(async () => {
  const seeded = await seedRanking(world, clientId);
  ({ recordingId } = seeded);
  siftId = String((await query('SELECT sift_id FROM candidates WHERE id = $1', [seeded.candidates[0]!.id]))[0]!['sift_id']);
  ({ candidates } = (await world.read(`sifts/${siftId}/ranking`)).body);
});
afterAll(() => world.close());

const read = (text: string, asOne = false, name = 'cut.edl'): Promise<Answer> => world.owner.post(`sifts/${siftId}/edit-list`, { name, text, asOne });
const keep = (passages: unknown[]): Promise<Answer> => world.owner.post(`sifts/${siftId}/passages`, { passages });
const counts = async (): Promise<unknown> => query('SELECT (SELECT count(*) FROM candidates) AS candidates, (SELECT count(*) FROM shorts) AS shorts');
const RATE = { numerator: 25, denominator: 1 };
/** An event of a list that was made elsewhere: no comment names it. */
const event = (i: number, startMs: number, endMs: number): string => {
  const code = (ms: number): string => formatSmpte(Math.round(ms / 40), RATE, false);
  return `${String(i).padStart(3, '0')}  AX       AA    C        ${code(startMs)} ${code(endMs)} 01:00:00:00 01:00:10:0${i}`;
};

describe('an edit list of what was kept here', () => {
  it.each(['edl', 'otio'])('comes back as the same cuts, and becomes shorts of the same words (%s)', async (format) => {
    for (const { id } of candidates.slice(0, 2)) await world.owner.put(`candidates/${id}/state`, { state: 'kept' });
    const [one, two] = (await world.shorts(recordingId)).sort((a: Answer['body'], b: Answer['body']) => a.startMs - b.startMs);
    // A hook from what is said later, and words that are struck out.
    const hook = { firstWord: two.firstWord, endWord: two.firstWord + 5 };
    const cut = { ...NO_EDIT, removed: [{ firstWord: one.firstWord + 3, endWord: one.firstWord + 6 }], before: [hook] };
    const saved = await world.owner.put(`shorts/${one.id}/edit`, { edit: cut, version: one.version });
    expect(saved.status, saved.text).toBe(200);
    const kept = (await world.shorts(recordingId)).sort((a: Answer['body'], b: Answer['body']) => a.startMs - b.startMs);
    const { text } = await world.owner.get(`recordings/${recordingId}/kept.${format}`);

    const answer = await read(text, false, `kept.${format}`);
    expect(answer.status, answer.text).toBe(200);
    const { passages } = answer.body;
    const played = ({ firstWord, endWord, edit }: Answer['body']) => ({ firstWord, endWord, edit: { ...edit, corrected: [] } });
    expect(passages.map((each: Answer['body']) => [each.offMs, each.problem, each.kept])).toEqual([
      [0, null, true],
      [0, null, true],
    ]);
    expect(passages.map(({ passage }: Answer['body']) => played(passage))).toEqual(kept.map(played));
    expect(passages.map(({ passage }: Answer['body']) => passage.playedMs)).toEqual(kept.map(({ playedMs }: Answer['body']) => playedMs));

    const made = await keep(passages.map(({ title, passage }: Answer['body']) => ({ title: `${title} again`, ...played(passage) })));
    expect(made.status, made.text).toBe(201);
    expect(made.body.map(played)).toEqual(kept.map(played));
    expect(made.body.map(({ copy }: Answer['body']) => copy.title)).toEqual(passages.map(({ title }: Answer['body']) => `${title} again`));
    // Beside what is there, and kept.
    const own = (await world.read(`sifts/${siftId}/ranking`)).body.candidates.filter(({ origin }: Answer['body']) => origin === 'own');
    expect(own.map(({ state }: Answer['body']) => state)).toEqual(['kept', 'kept']);
  });
});

describe('an edit list of somebody else', () => {
  it('is read as passages, or as one; its ends are brought between words, and it says how far', async () => {
    const [first] = candidates;
    const [a, b] = [first!.startMs + 100, Math.round((first!.startMs + first!.endMs) / 2)];
    const text = ['TITLE: The best of it', event(1, a, b), event(2, b + 2_000, first!.endMs)].join('\n');
    const two = (await read(text)).body.passages;
    expect(two.map(({ title, spans }: Answer['body']) => [title, spans])).toEqual([
      ['', 1],
      ['', 1],
    ]);
    const [one, ...rest] = (await read(text, true)).body.passages;
    expect([one.title, one.spans, rest]).toEqual(['The best of it', 2, []]);
    expect(one.passage.edit.removed).toHaveLength(1);
    expect(one.kept).toBe(false);
    expect(one.offMs).toBeGreaterThan(0);
    expect(one.offMs).toBeLessThan(1_500);
    const made = await keep([{ title: '', firstWord: one.passage.firstWord, endWord: one.passage.endWord, edit: one.passage.edit }]);
    expect(made.body[0].copy.title).not.toBe(''); // proposed, since nobody gave it one
    expect(made.body[0].edit).toEqual(one.passage.edit);
  });
  it('that plays what is not there says so', async () => {
    const { passages } = (await read([event(1, 20 * 3_600_000, 20 * 3_600_000 + 5_000)].join('\n'))).body;
    expect(passages).toMatchObject([{ passage: null, problem: 'beyond-the-end' }]);
  });
  it.each([
    ['hello', 'cut.edl, line 1: is neither an event nor a comment.'],
    ['{"OTIO_SCHEMA":"Clip.1"}', 'cut.edl: it is no OpenTimelineIO timeline.'],
    ['[]', 'cut.edl, line 1: is neither an event nor a comment.'],
    ['x'.repeat(890_000), 'cut.edl, line 1: is neither an event nor a comment.'],
    [`001 ${' '.repeat(890_000)}x`, 'cut.edl, line 1: is no event: number, reel, channels, transition and four timecodes.'],
    [`{"OTIO_SCHEMA":"Timeline.1","tracks":${'['.repeat(400_000)}`, 'cut.edl: it is no JSON.'],
  ])('that is none is refused with its place (%#)', async (text, detail) => {
    const { status, body } = await read(text);
    expect([status, body.detail]).toEqual([422, detail]);
  });
});

describe('passages that become shorts', () => {
  it('are all made, or none', async () => {
    const before = await counts();
    const { firstWord, endWord } = candidates[0]!;
    const good = { title: 'Good', firstWord, endWord, edit: NO_EDIT };
    const bad = { ...good, edit: { ...NO_EDIT, removed: [{ firstWord, endWord }] } };
    const { status } = await keep([good, bad]);
    expect([status, await counts()]).toEqual([400, before]);
    expect((await keep([])).status).toBe(400);
  });
  it('are as many as may be at once, of two who keep them at the same moment, and others can work meanwhile', async () => {
    const { firstWord } = candidates[0]!;
    const many = Array.from({ length: 60 }, (_, i) => ({
      title: `No. ${i}`,
      firstWord: firstWord + (i % 20),
      endWord: firstWord + 40 + (i % 7),
      edit: NO_EDIT,
    }));
    const both = Promise.all([keep(many), keep(many.slice(0, 5))]);
    const decided = await world.owner.put(`candidates/${candidates[1]!.id}/state`, { state: 'kept' });
    expect(decided.status, decided.text).toBe(200);
    expect((await both).map(({ status, text }) => (status === 201 ? 201 : text))).toEqual([201, 201]);
    const { candidates: now } = (await world.read(`sifts/${siftId}/ranking`)).body;
    expect(now.map(({ rank }: { rank: number }) => rank)).toEqual(now.map((_: unknown, i: number) => i + 1));
    expect(now.filter(({ origin }: Answer['body']) => origin === 'own')).toHaveLength(65);
  });
});
