import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { contentOf } from '../copy/written/content.js';
import { OPEN_VOICE } from '../copy/voice/types.js';
import { sift } from '../sift/sift.js';
import { DEMO_TALKS, demoTranscript, toVtt, transcriptOf } from '../talk.fixture.js';
import { normaliseWords } from '../text/tells/find-tells.js';
import { document, heading, list, paragraph, quote, text } from './build.js';
import { saidLinks } from './links.js';
import { makeDocument } from './make-document.js';
import { readDocument } from './read-document.js';
import { summarise } from './summarise.js';
import { type Block, DOCUMENT_KINDS, DocumentRefusedError, type DocumentContent, type DocumentKind, NothingToWriteError, type TextPiece } from './types.js';
import { chaptersJson, chaptersOf } from './write/chapters-json.js';
import { documentHtml, documentMarkdown } from './write/markup.js';
import { documentPlain } from './write/plain.js';
import { blockText, everyBlock } from './write/text-of.js';
import { type DocumentRequest, writtenTalk } from './written-talk.js';

const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 15_000, maxMs: 60_000, roughCount: 9, topics: [], kinds: [], avoid: [] };
function requestFor(transcript: DocumentRequest['transcript'], language: string | null = null): DocumentRequest {
  const { chapters, candidates } = sift({ transcript, brief: BRIEF, clientTags: [], sentenceVectors: null, topicVectors: null });
  const moments = candidates.slice(0, 20).map(({ firstWord, endWord, score }) => ({ firstWord, endWord, score, kept: false, title: null }));
  return { transcript, title: 'A recording', chapters, moments, language, voice: OPEN_VOICE };
}
const piecesOf = (content: DocumentContent): TextPiece[] =>
  [...everyBlock(content.content)]
    .flatMap((block) => (block.type === 'heading' || block.type === 'paragraph' ? (block.content ?? []) : []))
    .filter((piece) => piece.type === 'text');
const momentOf = (piece: TextPiece) => piece.marks?.find((mark) => mark.type === 'moment')?.attrs;
const quotesOf = (content: DocumentContent): Block[] => [...everyBlock(content.content)].filter(({ type }) => type === 'blockquote');

describe.each(DEMO_TALKS)('documents of %s', (name) => {
  const transcript = demoTranscript(name);
  let request: DocumentRequest;
  const made = new Map<DocumentKind, DocumentContent>();
  beforeAll(() => {
    request = requestFor(transcript);
    for (const kind of DOCUMENT_KINDS)
      try {
        made.set(kind, makeDocument(kind, request));
      } catch (error) {
        if (!(error instanceof NothingToWriteError)) throw error;
      }
  });

  it('can all be made, but for a series where little is advised', () =>
    expect(DOCUMENT_KINDS.filter((kind) => !made.has(kind) && kind !== 'series')).toEqual([]));
  it('are read back as they are', () => {
    for (const content of made.values()) expect(readDocument(JSON.parse(JSON.stringify(content)), transcript.words.length)).toEqual(content);
  });
  it('say nothing that was not said: each telling word of a piece stands in the words that it comes from', () => {
    const texts = normaliseWords(transcript.words);
    const names = contentOf(transcript.speakers.map((one) => one.toLowerCase()));
    for (const content of made.values())
      for (const piece of piecesOf(content)) {
        const moment = momentOf(piece);
        if (moment === undefined) continue;
        const said = contentOf(texts.slice(moment.firstWord, moment.endWord));
        // Figures have no letters; the frame of a title and the names of who speaks are nobody's words.
        const written = contentOf(
          piece.text
            .toLowerCase()
            .replace(/’/g, "'")
            .match(/\p{L}(?:[\p{L}'-]*\p{L})?/gu) ?? [],
        );
        const framed = (word: string): boolean => /^(?:why|what|happen|don't)$/.test(word) || names.has(word);
        expect(
          [...written].filter((word) => !said.has(word) && !framed(word)),
          piece.text,
        ).toEqual([]);
      }
  });
  it('quote word for word, and name who said it', () => {
    const texts = normaliseWords(transcript.words);
    const quotations = [...made.values()].flatMap(quotesOf);
    expect(quotations.length).toBeGreaterThan(5);
    for (const block of quotations) {
      const [, said = '', by = ''] = /^“(.*)”(?: — (.*))?$/s.exec(blockText(block)) ?? [];
      const { firstWord, endWord } = momentOf(piecesOf(document(block))[0]!)!;
      const spoken = texts.slice(firstWord, endWord);
      const quoted = normaliseWords(said.split(/\s+/).map((one) => ({ ...transcript.words[0]!, text: one })));
      expect(quoted.length, said).toBeGreaterThan(3);
      // In order, and nothing between them but sounds and what is said twice.
      let at = -1;
      for (const word of quoted) {
        const next = spoken.indexOf(word, at + 1);
        expect(next, `${said}: ${word}`).toBeGreaterThan(at);
        at = next;
      }
      expect(quoted.length, said).toBeGreaterThan(0.7 * spoken.length);
      expect(by, said).toBe(transcript.speakers[transcript.words[firstWord]!.speaker]);
    }
  });
  it('have a chapter for each of the sift, at its very time; and one from the start where the brief begins later', () => {
    const late = { ...request, chapters: request.chapters.slice(1) };
    expect(documentPlain(makeDocument('chapters', late))).toMatch(/^00:00 Start\n/);
    const chapters = chaptersOf(made.get('chapters')!, transcript.words);
    expect(chapters.map(({ startMs }) => startMs)).toEqual(request.chapters.map(({ firstWord }) => transcript.words[firstWord]!.startMs));
    expect(new Set(chapters.map(({ title }) => title)).size).toBe(chapters.length);
    const json = JSON.parse(chaptersJson(chapters, transcript.durationMs)) as { chapters: { startTime: number; endTime: number }[] };
    for (const [i, one] of json.chapters.entries()) expect(one.endTime).toBe(json.chapters[i + 1]?.startTime ?? transcript.durationMs / 1_000);
  });
  it('sum up within the length, from all over the recording, and a longer summary says more', () => {
    const talk = writtenTalk(request);
    const lengths = [200, 600, 1_500].map((most) => {
      const chosen = summarise(talk, most);
      expect(chosen.map(({ text: one }) => one).join(' ').length).toBeLessThanOrEqual(most);
      expect(chosen.map(({ index }) => index)).toEqual(chosen.map(({ index }) => index).sort((a, b) => a - b));
      return { count: chosen.length, chapters: new Set(chosen.map(({ chapter }) => chapter)).size };
    });
    expect(lengths[2]!.chapters).toBeGreaterThanOrEqual(Math.min(request.chapters.length, 4));
    expect(lengths.map(({ count }) => count)).toEqual(lengths.map(({ count }) => count).sort((a, b) => a - b));
  });
  it('put nothing in two posts', () => {
    const said = quotesOf(made.get('text-posts')!).map(blockText);
    expect(said.length).toBeGreaterThanOrEqual(3);
    expect(said.length).toBeLessThanOrEqual(7);
    expect(new Set(said).size).toBe(said.length);
  });
});

describe('a document', () => {
  it('is made of talk in another language as it was said, without what only English has', () => {
    const lines = Array.from({ length: 40 }, (_, i) => `Das Holz Nummer ${i} muss zwei Jahre trocken lagern, bevor man den Ofen damit heizen darf.`);
    const request = requestFor(transcriptOf(toVtt(lines.map((line) => ({ text: line })))), 'de');
    expect(documentPlain(makeDocument('summary', request))).toContain('trocken lagern');
    expect(() => makeDocument('series', request)).toThrow(NothingToWriteError);
  });
  it('is not made where there is nothing to make it of', () => {
    const request = requestFor(transcriptOf(toVtt(['Yes.', 'No.', 'Well.'].map((line) => ({ text: line })))));
    for (const kind of ['summary', 'text-posts', 'series', 'quote-cards'] as const)
      expect(() => makeDocument(kind, request), kind).toThrow(NothingToWriteError);
  });
  it('takes the kept passage with its own title first', () => {
    const request = requestFor(demoTranscript(DEMO_TALKS[0]));
    const last = request.moments.at(-1)!;
    const moments = [...request.moments.slice(0, -1), { ...last, kept: true, title: 'A title of my own' }];
    expect(documentPlain(makeDocument('text-posts', { ...request, moments }))).toMatch(/^Post 1\n\nA title of my own\n/);
  });
});

describe('readDocument', () => {
  const P = { type: 'paragraph', content: [{ type: 'text', text: 'a' }] };
  const M = (attrs: unknown) => ({ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a', marks: [{ type: 'moment', attrs }] }] }] });
  it.each<[unknown, string]>([
    [null, ''],
    [[], ''],
    [{ type: 'text' }, 'type'],
    [{ type: 'doc', content: {} }, 'content'],
    [{ type: 'doc', content: [{ type: 'image' }] }, 'content.0.type'],
    [{ type: 'doc', content: [{ type: 'constructor' }] }, 'content.0.type'],
    [{ type: 'doc', content: [P, { type: 'heading', attrs: { level: 4 } }] }, 'content.1.attrs.level'],
    [{ type: 'doc', content: [{ type: 'listItem', content: [P] }] }, 'content.0'],
    [{ type: 'doc', content: [{ type: 'bulletList', content: [P] }] }, 'content.0.content.0'],
    [{ type: 'doc', content: [{ type: 'blockquote', content: [] }] }, 'content.0.content'],
    [{ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: '' }] }] }, 'content.0.content.0.text'],
    [{ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a\u0000' }] }] }, 'content.0.content.0.text'],
    [{ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: '\ud800' }] }] }, 'content.0.content.0.text'],
    [{ type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'a', marks: [{ type: 'link' }] }] }] }, 'content.0.content.0.marks.0.type'],
    [M({ firstWord: -1, endWord: 2 }), 'content.0.content.0.marks.0.attrs'],
    [M({ firstWord: 2, endWord: 2 }), 'content.0.content.0.marks.0.attrs'],
    [M({ firstWord: 0, endWord: 11 }), 'content.0.content.0.marks.0.attrs.endWord'],
  ])('refuses %j with its place', (value, path) => {
    expect(() => readDocument(value, 10)).toThrow(DocumentRefusedError);
    try {
      readDocument(value, 10);
    } catch (error) {
      expect((error as DocumentRefusedError).path).toBe(path);
    }
  });
  it('refuses what stands too deep, and what is too much', () => {
    const deep = (n: number): object => (n === 0 ? P : { type: 'blockquote', content: [deep(n - 1)] });
    expect(() => readDocument({ type: 'doc', content: [deep(20)] }, 10)).toThrow('deeper');
    expect(() => readDocument({ type: 'doc', content: Array.from({ length: 30_000 }, () => P) }, 10)).toThrow('more than');
  });
  it('takes over nothing that it does not know', () =>
    expect(readDocument({ type: 'doc', more: 1, content: [{ ...P, attrs: { onclick: 'x' } }] }, 10)).toEqual({ type: 'doc', content: [P] }));
});

const words = (line: string) => line.split(' ').map((one) => ({ text: one, kind: 'word' as const }));

describe('links that are said', () => {
  it.each([
    ['go to quillmere dot example slash tiles and look', 'quillmere.example/tiles', 2, 7],
    ['it is ardcree dash chimneys dot co dot uk, thanks', 'ardcree-chimneys.co.uk', 2, 9],
    ['write to hello at pellworth dot example.', 'hello@pellworth.example', 2, 7],
    ['see www dot pellworth dot example', 'www.pellworth.example', 1, 6],
    ['it stands on pellworth.example/welts, all of it', 'pellworth.example/welts', 3, 4],
  ])('%s', (line, link, firstWord, endWord) => expect(saidLinks(words(line))).toEqual([{ text: link, firstWord, endWord }]));
  it.each(['a dot on the map', 'the polka dot dress', 'we met at noon', 'It ends here.Then it goes on', 'about 3.5 of them'])('none in: %s', (line) =>
    expect(saidLinks(words(line))).toEqual([]),
  );
  it('counts a link once', () => expect(saidLinks(words('a.example and a dot example'))).toHaveLength(1));
});

describe('a document that is written out', () => {
  const content = document(
    heading(2, text('Wet & dry')),
    paragraph(
      text('One.', { firstWord: 0, endWord: 2 }),
      text(' '),
      text('Two <b>.', { firstWord: 2, endWord: 4 }),
      text(' '),
      text('Three', undefined, 'bold', 'italic'),
    ),
    quote(paragraph(text('“Said.”'))),
    list('orderedList', [text('first')], [text('second')]),
    list('bulletList', [text('* star')]),
  );
  it('is CommonMark', () =>
    expect(documentMarkdown(content)).toBe('## Wet & dry\n\nOne. Two \\<b>. **_Three_**\n\n> “Said.”\n\n1. first\n2. second\n\n- \\* star\n'));
  it('is HTML in which nothing is markup that was text', () => {
    const html = documentHtml(content, 'A <title>', 'en-GB');
    expect(html).toContain('<html lang="en-GB">');
    expect(html).toContain('<title>A &#x3C;title></title>');
    expect(html).toContain('<p>One. Two &#x3C;b>. <strong><em>Three</em></strong></p>');
    expect(html).toContain('<h2>Wet &#x26; dry</h2>');
  });
  it('is plain text', () => expect(documentPlain(content)).toBe('Wet & dry\n\nOne. Two <b>. Three\n\n“Said.”\n\n1. first\n2. second\n\n- * star\n'));
  it('has the chapters as they are named now, whoever renamed them', () => {
    const chapters = document(
      paragraph(text('00:04 Se', { firstWord: 1, endWord: 3 }), text('cond', { firstWord: 1, endWord: 3 })),
      paragraph(text('00:00 – First', { firstWord: 0, endWord: 1 })),
      paragraph(text('A line between, 3:00 long', { firstWord: 0, endWord: 1 })),
      paragraph(text('00:09 of nowhere')),
    );
    expect(chaptersOf(chapters, [{ startMs: 120 }, { startMs: 4_000 }])).toEqual([
      { startMs: 120, title: 'First' },
      { startMs: 4_000, title: 'Second' },
    ]);
  });
  it('never loses a character of its text on the way to plain text', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.string({ minLength: 1 }).filter((one) => one.trim() === one && one !== ''),
          { minLength: 1, maxLength: 5 },
        ),
        (lines) => {
          expect(documentPlain(document(...lines.map((line) => paragraph(text(line)))))).toBe(`${lines.join('\n\n')}\n`);
        },
      ),
    ));
});
