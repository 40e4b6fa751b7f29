import { DOCUMENT_KINDS } from '@sift-reel/core';
import mammoth from 'mammoth';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { approveShorts, type Seeded, seedRanking } from './seed.js';
import { type Answer, query, World } from './world.js';

let world: World;
let clientId: string;
let seeded: Seeded;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
  seeded = await seedRanking(world, clientId);
});
afterAll(() => world.close());

const ofRecording = () => `recordings/${seeded.recordingId}/documents`;
const make = (kind: string): Promise<Answer> => world.owner.post(ofRecording(), { kind });
/** The document of a kind, made where it is not there. */
async function have(kind: string): Promise<Answer['body']> {
  const { body } = await world.owner.get(ofRecording());
  const id = (body as { id: string; kind: string }[]).find((one) => one.kind === kind)?.id ?? ((await make(kind)).body.id as string);
  return (await world.owner.get(`documents/${id}`)).body;
}
const saying = (text: string) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] });
async function bytesOf(path: string): Promise<{ type: string | null; name: string; body: Buffer }> {
  const response = await fetch(`${world.base}/api/${path}`, { headers: { cookie: world.owner.cookie } });
  expect(response.status, path).toBe(200);
  const { headers } = response;
  return { type: headers.get('content-type'), name: headers.get('content-disposition') ?? '', body: Buffer.from(await response.arrayBuffer()) };
}

describe('documents of a recording', () => {
  it('are made, each once, of what is said, and tell that nobody has written them yet', async () => {
    expect((await world.owner.get(ofRecording())).body).toEqual([]);
    for (const kind of DOCUMENT_KINDS.filter((one) => one !== 'series')) {
      const { status, body } = await make(kind);
      expect([status, body.kind, body.version, body.writtenBy], kind).toEqual([201, kind, 1, null]);
    }
    expect((await make('summary')).body.detail).toBe('This document is there already.');
    expect((await world.owner.get(ofRecording())).body).toHaveLength(DOCUMENT_KINDS.length - 1);
    expect((await world.owner.get(`clients/${clientId}/audit`)).body[0]).toMatchObject({ action: 'make', subject: 'document' });
  });
  it('are not made twice by two at the same moment', async () => {
    const other = await seedRanking(world, clientId);
    const both = await Promise.all([1, 2].map(() => world.owner.post(`recordings/${other.recordingId}/documents`, { kind: 'summary' })));
    expect(both.map(({ status }) => status).sort()).toEqual([201, 409]);
    expect(
      await query(
        'SELECT count(*)::int AS n FROM document_versions WHERE client_id = $1 AND document_id IN (SELECT id FROM documents WHERE recording_id = $2)',
        [clientId, other.recordingId],
      ),
    ).toEqual([{ n: 1 }]);
  });
  it('wait for the first sift, and say what a recording does not carry', async () => {
    const bare = await seedRanking(world, clientId);
    await query('UPDATE sifts SET ridge = NULL WHERE recording_id = $1', [bare.recordingId]);
    const early = await world.owner.post(`recordings/${bare.recordingId}/documents`, { kind: 'summary' });
    expect([early.status, early.body.detail]).toEqual([409, expect.stringContaining('Sift the recording first')]);
    await query(`UPDATE sifts SET ridge = '[]', chapters = '[]' WHERE recording_id = $1`, [bare.recordingId]);
    const nothing = await world.owner.post(`recordings/${bare.recordingId}/documents`, { kind: 'chapters' });
    expect([nothing.status, nothing.body.detail]).toEqual([422, 'No chapters were found in this recording.']);
    expect((await make('poem')).body.errors).toEqual([{ field: 'kind', detail: expect.stringContaining('must be one of') }]);
  });
  it('are edited by version; a stale write gets both, and nothing of it is kept', async () => {
    const { id, version } = await have('newsletter');
    const saved = await world.owner.put(`documents/${id}`, { content: saying('Mine.'), version });
    expect([saved.status, saved.body.version, saved.body.writtenBy]).toEqual([200, version + 1, 'Owner']);
    const stale = await world.owner.put(`documents/${id}`, { content: saying('Too late.'), version });
    expect([stale.status, stale.body.code, stale.body.current.content]).toEqual([409, 'stale', saying('Mine.')]);
    const both = await Promise.all(['a', 'b'].map((text) => world.owner.put(`documents/${id}`, { content: saying(text), version: version + 1 })));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
  it('keep what they were: one sitting is one version, and what is made anew takes nothing away', async () => {
    const { id, version } = await have('summary');
    for (const [k, text] of ['One.', 'One, two.', 'One, two, three.'].entries())
      await world.owner.put(`documents/${id}`, { content: saying(text), version: version + k });
    await query(`UPDATE document_versions SET written_at = written_at - interval '1 hour' WHERE document_id = $1`, [id]);
    await world.owner.put(`documents/${id}`, { content: saying('After lunch.'), version: version + 3 });
    const again = await world.owner.put(`documents/${id}/proposal`, { version: version + 4 });
    expect([again.status, again.body.writtenBy]).toEqual([200, null]);
    const versions = (await world.owner.get(`documents/${id}/versions`)).body as { writtenBy: string | null; content: object }[];
    expect(versions.map(({ writtenBy }) => writtenBy)).toEqual([null, 'Owner', 'Owner', null]);
    expect(versions.slice(1, 3).map(({ content }) => content)).toEqual([saying('After lunch.'), saying('One, two, three.')]);
    expect(versions[0]!.content).toEqual(versions[3]!.content);
  });
  it('refuse what is no document, with the place, and take over nothing that is not known', async () => {
    const { id, version } = await have('article');
    const put = (content: unknown) => world.owner.put(`documents/${id}`, { content, version });
    const moment = (endWord: number) => ({
      type: 'doc',
      content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a', marks: [{ type: 'moment', attrs: { firstWord: 0, endWord } }] }] }],
    });
    for (const [content, field] of [
      ['text', 'content'],
      [{ type: 'page' }, 'content.type'],
      [{ type: 'doc', content: [{ type: 'image', attrs: { src: 'x' } }] }, 'content.content.0.type'],
      [moment(1_000_000), 'content.content.0.content.0.marks.0.attrs.endWord'],
    ] as const) {
      const answer = await put(content);
      expect([answer.status, answer.body.errors?.[0]?.field]).toEqual([400, field]);
    }
    expect((await have('article')).version).toBe(version);
    const saved = await put({ ...moment(1), script: 'alert(1)' });
    expect(saved.body.content).toEqual(moment(1));
  });
  it('take the approved words of what is kept first', async () => {
    const own = await seedRanking(world, clientId);
    const [shortId] = await approveShorts(world, own, 1);
    const { title } = (await world.read(`shorts/${shortId}`)).body.copy;
    const { body } = await world.owner.post(`recordings/${own.recordingId}/documents`, { kind: 'text-posts' });
    expect(JSON.stringify(body.content.content.slice(0, 4))).toContain(title);
  });
  it('go with their recording, and are removed one by one', async () => {
    const { id, version } = await have('show-notes');
    expect((await world.owner.delete(`documents/${id}?version=${version + 1}`)).status).toBe(409);
    expect((await world.owner.delete(`documents/${id}?version=${version}`)).status).toBe(204);
    expect((await world.owner.get(`documents/${id}`)).status).toBe(404);
    const other = await seedRanking(world, clientId);
    await world.owner.post(`recordings/${other.recordingId}/documents`, { kind: 'summary' });
    expect((await world.owner.delete(`recordings/${other.recordingId}`)).status).toBe(204);
    expect(await query('SELECT 1 FROM documents WHERE recording_id = $1', [other.recordingId])).toEqual([]);
  });
});

describe('a document as a file', () => {
  const RICH = {
    type: 'doc',
    content: [
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Wet & dry' }] },
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'Plain, ' },
          { type: 'text', text: 'bold <b>', marks: [{ type: 'bold' }] },
        ],
      },
      { type: 'orderedList', content: ['one', 'two'].map((text) => ({ type: 'listItem', content: saying(text).content })) },
      { type: 'blockquote', content: saying('“Łódź said.”').content },
    ],
  };
  it('is Markdown, HTML, plain text, and a docx that another reader reads', async () => {
    const { id, version } = await have('article');
    await world.owner.put(`documents/${id}`, { content: RICH, version });
    const markdown = await bytesOf(`documents/${id}/file?as=markdown`);
    expect(markdown.body.toString()).toBe('## Wet & dry\n\nPlain, **bold \\<b>**\n\n1. one\n2. two\n\n> “Łódź said.”\n');
    expect([markdown.type, markdown.name]).toEqual(['text/markdown; charset=utf-8', expect.stringMatching(/attachment; filename="Talk \w+ - article\.md"/)]);
    expect((await bytesOf(`documents/${id}/file?as=plain`)).body.toString()).toContain('1. one\n2. two');
    expect((await bytesOf(`documents/${id}/file?as=html`)).body.toString()).toContain('<strong>bold &#x3C;b></strong>');
    const { body } = await bytesOf(`documents/${id}/file?as=docx`);
    // Read by mammoth, which knows nothing of what wrote it.
    const { value } = await mammoth.convertToHtml({ buffer: body });
    expect(value).toBe('<h2>Wet &amp; dry</h2><p>Plain, <strong>bold &lt;b&gt;</strong></p><ol><li>one</li><li>two</li></ol><p>“Łódź said.”</p>');
  });
  it('has chapters with the times of their words', async () => {
    const { id } = await have('chapters');
    const { chapters } = JSON.parse((await bytesOf(`documents/${id}/file?as=chapters`)).body.toString()) as {
      chapters: { startTime: number; title: string }[];
    };
    const [sift] = (await query('SELECT chapters FROM sifts WHERE id = $1', [seeded.siftId])) as [{ chapters: { startMs: number }[] }];
    expect(chapters.map(({ startTime }) => startTime)).toHaveLength(sift.chapters.length);
    expect(chapters[0]!.title).not.toMatch(/^\d/);
  });
  it('that is of no known kind is refused', async () => {
    const { id } = await have('chapters');
    expect((await world.owner.get(`documents/${id}/file?as=pdf`)).status).toBe(400);
    expect((await world.owner.get(`documents/${id}/cards/1?as=gif&shape=square`)).status).toBe(400);
  });
});

describe('quote cards', () => {
  const SIZES = { square: [1080, 1080], upright: [1080, 1350], wide: [1920, 1080] } as const;
  it.each(['square', 'upright', 'wide'] as const)('are pictures of their shape (%s), in the client’s type', async (shape) => {
    const { id } = await have('quote-cards');
    const { body, type } = await bytesOf(`documents/${id}/cards/1?as=png&shape=${shape}`);
    expect([type, body.subarray(1, 4).toString()]).toEqual(['image/png', 'PNG']);
    expect([body.readUInt32BE(16), body.readUInt32BE(20)]).toEqual(SIZES[shape]);
  });
  it('follow the client’s style, which must be readable', async () => {
    const { id } = await have('quote-cards');
    const put = async (cardStyle: object) =>
      world.owner.put(`clients/${clientId}/card-style`, { cardStyle, version: await world.version('clients', clientId) });
    expect((await put({ typeface: 'serif', ground: '#ffffff', ink: '#dddddd' })).body.errors).toEqual([
      { field: 'cardStyle.ink', detail: expect.stringContaining('4.5') },
    ]);
    expect((await put({ typeface: 'comic', ground: 'white', ink: '#000000' })).body.errors.map(({ field }: { field: string }) => field)).toEqual(
      expect.arrayContaining(['cardStyle.typeface', 'cardStyle.ground']),
    );
    expect((await put({ typeface: 'mono', ground: '#1d3b2a', ink: '#f6f1df' })).body.cardStyle).toEqual({
      typeface: 'mono',
      ground: '#1d3b2a',
      ink: '#f6f1df',
    });
    const svg = (await bytesOf(`documents/${id}/cards/1?as=svg&shape=square`)).body.toString();
    expect(svg).toContain('fill="#1d3b2a"');
    expect(svg).toMatch(/<title>“[^<]+” — [^<]+<\/title>/);
  });
  it('are as many as there are quotations', async () => {
    const { id, content } = await have('quote-cards');
    expect((await world.owner.get(`documents/${id}/cards/${content.content.length}?as=svg&shape=square`)).status).toBe(200);
    for (const number of ['0', String(content.content.length + 1), '-1'])
      expect((await world.owner.get(`documents/${id}/cards/${number}?as=svg&shape=square`)).status).toBe(404);
  });
});
