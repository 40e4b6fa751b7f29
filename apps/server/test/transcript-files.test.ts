import { Document, Packer, Paragraph, TextRun } from 'docx';
import { strToU8, zipSync } from 'fflate';
import { unpackTranscript } from '@sift-reel/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, BRIEF, filesForm, query, World } from './world.js';

let world: World;
let clientId: string;
beforeAll(async () => {
  world = await World.make();
  clientId = await world.client();
});
afterAll(() => world.close());

const LINES = ['The kettle hour', 'Ann Lee 00:00:03', 'Hello there, and welcome.', 'Bo 00:00:08', 'Hello. It works & it boils.'];

/** How they begin, as they are understood. */
const EXCERPT = [
  { startMs: 3_000, speaker: 'Ann Lee', text: 'Hello there, and welcome.' },
  expect.objectContaining({ startMs: 8_000, speaker: 'Bo', text: 'Hello.' }),
  expect.objectContaining({ speaker: 'Bo', text: 'It works & it boils.' }),
];

const word = async (lines: readonly string[]): Promise<Uint8Array> =>
  new Uint8Array(await Packer.toBuffer(new Document({ sections: [{ children: lines.map((line) => new Paragraph({ children: [new TextRun(line)] })) }] })));

const NAMESPACES = 'xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"';
const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
const openText = (inside: string): Uint8Array =>
  zipSync({
    mimetype: strToU8('application/vnd.oasis.opendocument.text'),
    'content.xml': strToU8(
      `<?xml version="1.0"?><office:document-content ${NAMESPACES}><office:body><office:text>${inside}</office:text></office:body></office:document-content>`,
    ),
  });
const paragraphs = (lines: readonly string[]): string => lines.map((line) => `<text:p>${escaped(line).replace(/ {2}/g, ' <text:s/>')}</text:p>`).join('\n');

const bring = (name: string, bytes: string | Uint8Array): Promise<Answer> =>
  world.owner.post(`clients/${clientId}/recordings`, filesForm({ transcript: [name, bytes] }));
const understand = (name: string, bytes: string | Uint8Array): Promise<Answer> =>
  world.owner.post('transcripts/reading', filesForm({ transcript: [name, bytes] }));
const recordings = async (): Promise<number> => Number((await query('SELECT count(*) AS n FROM recordings'))[0]!['n']);

describe('office documents', () => {
  it.each([
    ['docx', () => word(LINES)],
    ['odt', () => Promise.resolve(openText(`<text:h>${LINES[0]!}</text:h>${paragraphs(LINES.slice(1))}`))],
  ])('%s is understood, shown, and taken', async (format, make) => {
    const bytes = await make();
    const before = await recordings();
    const shown = await understand(`kettle.${format}`, bytes);
    expect([shown.status, shown.body]).toEqual([
      200,
      expect.objectContaining({
        format,
        sourceName: `kettle.${format}`,
        speakers: ['Ann Lee', 'Bo'],
        wordTimes: 'spread',
        excerpt: EXCERPT,
        repairs: [{ line: 1, code: 'unknown-block', detail: expect.stringContaining('The kettle hour') }],
      }),
    ]);
    expect(await recordings()).toBe(before);
    expect((await bring(`kettle.${format}`, bytes)).body.transcript).toMatchObject({ format, wordCount: shown.body.wordCount });
  });
  it('footnotes and what was struck out are not what was said', async () => {
    const note = '<text:note><text:note-body><text:p>No</text:p></text:note-body></text:note>';
    const gone = '<text:tracked-changes><text:p>Gone</text:p></text:tracked-changes>';
    const { body } = await understand('a.odt', openText(`${gone}<text:p>Ann 0:03</text:p><text:p>Hello${note} there.</text:p>`));
    expect(body.excerpt).toEqual([{ startMs: 3_000, speaker: 'Ann', text: 'Hello there.' }]);
  });
  it.each([
    ['an archive of something else', () => zipSync({ 'photo.txt': strToU8('x') }), 'neither a Word nor an OpenDocument text'],
    ['a broken archive', () => new Uint8Array([0x50, 0x4b, 3, 4, 9, 9, 9, 9, 9]), 'cannot be opened'],
    ['a broken body', () => zipSync({ 'content.xml': strToU8('<office:document-content') }), 'cannot be opened'],
    ['a document that grows', () => zipSync({ 'content.xml': new Uint8Array(70 * 1_024 * 1_024) }), 'far larger than any transcript'],
  ])('%s is refused, in words', async (_, make, words) => {
    const answer = await understand('a.odt', make());
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining(words)]);
  });
  it('a document without times is understood as such: they are heard in its sound', async () => {
    const { body } = await understand('a.odt', openText('<text:p>Ann: Hello.</text:p><text:p>Again.</text:p>'));
    expect(body).toMatchObject({ timed: false, format: 'odt', wordCount: 2, speakers: ['Ann'] });
    expect(body.excerpt).toEqual([
      { startMs: null, speaker: 'Ann', text: 'Hello.' },
      { startMs: null, speaker: 'Ann', text: 'Again.' },
    ]);
    const alone = await bring('a.odt', openText('<text:p>Ann: Hello.</text:p>'));
    expect([alone.status, alone.body.detail]).toEqual([422, expect.stringContaining('bring the sound in with it')]);
  });
  it('nothing but a transcript is read so', async () => {
    const alone = { status: 400, body: expect.objectContaining({ detail: 'Send one transcript, and nothing else.' }) };
    expect(await world.owner.post('transcripts/reading', filesForm({ title: 'x' }))).toMatchObject(alone);
    const sound = new Uint8Array(5_000_000);
    expect(await world.owner.post('transcripts/reading', filesForm({ sound: ['a.wav', sound] }))).toMatchObject(alone);
    const uploaded = new FormData();
    uploaded.set('uploaded', '00000000-0000-4000-8000-000000000000');
    expect(await world.owner.post('transcripts/reading', uploaded)).toMatchObject(alone);
  });
});

describe('other formats', () => {
  it('TTML and LRC are taken', async () => {
    const ttml = '<tt xmlns="http://www.w3.org/ns/ttml" xml:lang="en"><body><div><p begin="1s" end="3s">Hello there.</p></div></body></tt>';
    expect((await bring('a.ttml', ttml)).body.transcript).toMatchObject({ format: 'ttml', wordCount: 2 });
    expect((await bring('a.lrc', '[ti:Kettle]\n[00:01.00]Hello <00:01.50>there\n')).body.transcript).toMatchObject({ format: 'lrc', wordCount: 2 });
  });
  it('TTML that is wrong is refused with its line and field', async () => {
    const { status, body } = await bring('a.ttml', '<tt xmlns="http://www.w3.org/ns/ttml"><body>\n<p begin="soon">x</p></body></tt>');
    expect([status, body]).toEqual([422, expect.objectContaining({ file: 'a.ttml', line: 2, code: 'bad-time' })]);
  });
});

describe('voices', () => {
  const TALK = '[00:00] Ada: It works.\n[00:03] Bo: Does it?\n[00:05] Adah: It does.\n';
  const voices = async (recordingId: string): Promise<(string | undefined)[]> => {
    const { words, speakers } = unpackTranscript((await world.owner.get(`recordings/${recordingId}/transcript`)).body);
    return words.map(({ speaker }) => speakers[speaker]);
  };
  it('are named, corrected and joined at once; a stale name is refused, and so is too few', async () => {
    const { body } = await bring('a.txt', TALK);
    const path = `recordings/${body.id}/voices`;
    const few = await world.owner.put(path, { names: ['Ada'], unnamed: null, version: body.version });
    expect([few.status, few.body.errors]).toEqual([400, [{ field: 'names', detail: 'There are 3 voices; name each of them.' }]]);
    const empty = await world.owner.put(path, { names: ['Ada', ' ', 'Bo'], unnamed: null, version: body.version });
    expect([empty.status, empty.body.errors]).toEqual([400, [{ field: 'names', detail: expect.stringContaining('must not hold an empty one') }]]);
    const named = await world.owner.put(path, { names: ['Ada Oke', 'Bo', 'Ada  Oke'], unnamed: null, version: body.version });
    expect([named.status, named.body.transcript.speakers]).toEqual([200, ['Ada Oke', 'Bo']]);
    expect(await voices(body.id)).toEqual(['Ada Oke', 'Ada Oke', 'Bo', 'Bo', 'Ada Oke', 'Ada Oke']);
    const stale = await world.owner.put(path, { names: ['X', 'Y'], unnamed: null, version: body.version });
    expect([stale.status, await voices(body.id)]).toEqual([409, ['Ada Oke', 'Ada Oke', 'Bo', 'Bo', 'Ada Oke', 'Ada Oke']]);
    const [entry] = await query(`SELECT action FROM audit_entries WHERE subject_id = $1 ORDER BY at DESC LIMIT 1`, [body.id]);
    expect(entry).toEqual({ action: 'name-voices' });
  });
  it('of two who name at the same moment, one is told', async () => {
    const { body } = await bring('a.txt', TALK);
    const ask = (name: string): Promise<Answer> =>
      world.owner.put(`recordings/${body.id}/voices`, { names: [name, 'Bo', 'Cy'], unnamed: null, version: body.version });
    const answers = await Promise.all([ask('One'), ask('Two')]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect((await voices(body.id))[0]).toBe(answers[0]!.status === 200 ? 'One' : 'Two');
  });
  it('of a talk that names nobody can be given, and a sift that was made stays', async () => {
    const { body } = await bring(
      'a.txt',
      Array.from({ length: 30 }, (_, i) => `[00:${String(2 * i).padStart(2, '0')}] and so we put kettle number ${i} on the fire.`).join('\n'),
    );
    const { body: sift } = await world.owner.post(`recordings/${body.id}/sifts`, { ...BRIEF, minMs: 5_000 });
    expect(body.transcript.speakers).toEqual([]);
    const named = await world.owner.put(`recordings/${body.id}/voices`, { names: [], unnamed: 'Ann', version: body.version });
    expect([named.status, named.body.transcript.speakers, new Set(await voices(body.id))]).toEqual([200, ['Ann'], new Set(['Ann'])]);
    expect((await world.owner.get(`sifts/${sift.id}`)).status).toBe(200);
  });
});

describe('a web page', () => {
  const PAGE = `<!DOCTYPE html>
<html><head><title>Unsaid</title><style>p { color: red }</style><script>alert('unsaid')</script></head>
<body><nav>Unsaid</nav>
<cite>Ann Lee:</cite>
<time>0:03</time>
<p>Hello there,
  and welcome.</p>
<cite>Bo:</cite> <time>0:08</time> <p>Hello. It works &amp; it boils.</p>
</body></html>`;
  it('is read by who speaks and when, as feeds give it', async () => {
    const { status, body } = await understand('kettle.html', PAGE);
    expect([status, body]).toEqual([
      200,
      expect.objectContaining({
        format: 'html',
        speakers: ['Ann Lee', 'Bo'],
        wordTimes: 'spread',
        excerpt: EXCERPT,
        repairs: [],
      }),
    ]);
    const taken = await bring('kettle.html', PAGE);
    expect([taken.status, taken.body.transcript.format]).toEqual([201, 'html']);
  });
  it.each([
    ['a piece of one', '<p>Ann Lee 0:03</p><p>Hello there.</p><p>Bo 0:08</p><p>Hello.</p>', ['Ann Lee', 'Bo']],
    ['times in their own line', '<div><time>0:03</time></div><div>Hello there.</div><div><time>0:08</time></div><div>Hello.</div>', []],
    ['from one time to another', '<cite>Ann Lee</cite> <time>0:03</time> – <time>0:07</time> <p>Hello there.</p>', ['Ann Lee']],
    ['the day that it was written on', '<p><time>2 May</time></p><cite>Ann Lee</cite><time>0:03</time><p>Hello there.</p>', ['Ann Lee']],
  ])('is read where it is %s', async (_, page, speakers) => {
    const { status, body, text } = await understand('page.html', page);
    expect(status, text).toBe(200);
    expect([body.format, body.speakers, body.excerpt.at(-1).startMs > 0]).toEqual(['html', speakers, true]);
  });
  it('that only says who speaks has no times, and needs its sound', async () => {
    const { body } = await understand('page.html', '<cite>Ann Lee</cite><p>Hello there.</p><cite>Bo</cite><p>Hello.</p>');
    expect([body.timed, body.speakers]).toEqual([false, ['Ann Lee', 'Bo']]);
  });
  it('of a megabyte of white space, or of one letter, is read at once', async () => {
    for (const filler of [' '.repeat(1_000_000), 'a'.repeat(1_000_000)]) {
      const { status, body } = await understand('long.html', `<cite>Ann Lee</cite> <time>0:03</time>${filler}Hello there.<p>It works.</p>`);
      expect([status, body.speakers]).toEqual([200, ['Ann Lee']]);
    }
  });
  it('that nests without end is refused, and nothing is brought in', async () => {
    const before = await recordings();
    const { status, text } = await bring('deep.html', `<p>${'<div>'.repeat(100_000)}0:01 x`);
    expect([status, text.includes('nests deeper'), await recordings()]).toEqual([422, true, before]);
  });
});
