import fc from 'fast-check';
import { Feed as FeedWriter } from 'feed';
import { DateTime } from 'luxon';
import Parser from 'rss-parser';
import { describe, expect, it } from 'vitest';
import { readChapters } from './chapters.js';
import { feedLength, publishingDate } from './publishing-date.js';
import { readFeed } from './read-feed.js';
import { FeedRefusedError } from './types.js';

const AT = 'https://shows.example/low-tide/feed.xml';
const feedOf = (items: string, head = ''): string => `<?xml version="1.0" encoding="UTF-8"?>
<rss version="2.0" xmlns:podcast="https://podcastindex.org/namespace/1.0" xmlns:atom="http://www.w3.org/2005/Atom" xmlns:any="urn:any">
<channel><title>Low Tide</title><link>https://shows.example/</link>${head}
${items}
</channel></rss>`;
const item = (parts: string, enclosure = '<enclosure url="https://media.example/1.mp3" length="1000" type="audio/mpeg"/>'): string =>
  `<item><title>One</title><guid>g1</guid>${enclosure}${parts}</item>`;
const only = (parts: string, enclosure?: string) => readFeed(feedOf(item(parts, enclosure)), AT).episodes[0]!;

describe('readFeed', () => {
  it('reads an episode with all that the podcast namespace says of it', () => {
    const { episodes, ...head } = readFeed(
      feedOf(
        `<item><title><![CDATA[Salt & rope]]></title><guid isPermaLink="false">ep-3</guid><link>https://shows.example/3</link>
        <description>&lt;p&gt;Why rope &amp;amp; salt&lt;br/&gt;fight.&lt;/p&gt;</description><pubDate>Mon, 02 Mar 2026 06:30:00 +0100</pubDate>
        <enclosure url="https://media.example/3.mp3?x=1&amp;y=2" length="123456" type="audio/mpeg"/>
        <podcast:transcript url="3.txt" type="text/plain"/><podcast:transcript url="3.html" type="text/html"/><podcast:transcript url="3.pdf" type="application/pdf"/>
        <podcast:transcript url="https://media.example/3.vtt" type="text/vtt" language="en"/>
        <podcast:chapters url="3.json" type="application/json+chapters"/>
        <podcast:person role="Guest">Odile Farr</podcast:person><podcast:person>Pim</podcast:person>
        <podcast:season name="Winter">2</podcast:season><podcast:episode display="3a">3</podcast:episode><any:duration>1:02:03</any:duration></item>`,
        '<ttl>45</ttl><atom:link rel="self" href="x"/><atom:link rel="next" href="?page=2"/>',
      ),
      AT,
    );
    expect(head).toEqual({ title: 'Low Tide', link: 'https://shows.example/', persons: [], nextUrl: `${AT}?page=2`, ttlMinutes: 45, passedOver: 0 });
    expect(episodes).toEqual([
      {
        guid: 'ep-3',
        title: 'Salt & rope',
        summary: 'Why rope & salt fight.',
        link: 'https://shows.example/3',
        publishedMs: Date.UTC(2026, 2, 2, 5, 30),
        durationMs: 3_723_000,
        enclosure: { url: 'https://media.example/3.mp3?x=1&y=2', type: 'audio/mpeg', bytes: 123_456 },
        transcripts: [
          { url: 'https://media.example/3.vtt', type: 'text/vtt', language: 'en' },
          { url: 'https://shows.example/low-tide/3.txt', type: 'text/plain', language: '' },
          { url: 'https://shows.example/low-tide/3.html', type: 'text/html', language: '' },
        ],
        chapters: { url: 'https://shows.example/low-tide/3.json', type: 'application/json+chapters' },
        persons: [
          { name: 'Odile Farr', role: 'guest' },
          { name: 'Pim', role: 'host' },
        ],
        season: 2,
        seasonName: 'Winter',
        number: '3a',
      },
    ]);
  });

  it('takes the persons of the whole feed where an episode names none', () => {
    expect(readFeed(feedOf(item(''), '<podcast:person>Ada</podcast:person>'), AT).episodes[0]!.persons).toEqual([{ name: 'Ada', role: 'host' }]);
  });

  it('passes over what is no episode, and what stands there twice', () => {
    const pdf = item('', '<enclosure url="https://media.example/1.pdf" type="application/pdf"/>');
    const feed = readFeed(feedOf(item('') + item('') + pdf + item('', '')), AT);
    expect([feed.episodes.length, feed.passedOver]).toEqual([1, 3]);
  });

  it('knows a file by its ending where its kind is wrong or missing, and an episode by its file where it has no guid', () => {
    const feed = readFeed(feedOf('<item><enclosure url="https://media.example/a_talk-on.m4a?k=1" type="application/octet-stream"/></item>'), AT);
    expect(feed.episodes[0]).toMatchObject({ guid: 'https://media.example/a_talk-on.m4a?k=1', title: 'a talk on' });
  });

  it('takes no address but http and https', () => {
    for (const url of ['file:///etc/passwd', 'javascript:alert(1)', 'ftp://x.example/1.mp3', 'https://[', ''])
      expect(readFeed(feedOf(item('', `<enclosure url="${url}" type="audio/mpeg"/>`)), AT).episodes, url).toEqual([]);
    expect(only('<link>javascript:alert(1)</link>').link).toBeNull();
  });

  it('reads names of characters that are HTML’s, and shows no marks', () => {
    expect(only('<description>caf&eacute;&nbsp;&mdash; &lt;script&gt;alert(1)&lt;/script&gt;5 &amp;lt; 6</description>').summary).toBe('café — 5 < 6');
  });

  it.each([
    ['a web page', '<!DOCTYPE html><html><body>hello</body></html>', 'not-a-feed', /web page/],
    ['a web page as pages are written', '\n<!doctype html>\n<html lang=en><br>', 'not-a-feed', /web page/],
    ['a web page in XML', '<?xml version="1.0"?><html xmlns="http://www.w3.org/1999/xhtml"/>', 'not-a-feed', /web page/],
    ['another document', '<opml version="2.0"/>', 'not-a-feed', /<opml>/],
    ['an empty channel', '<rss version="2.0"><channel/></rss>', 'not-a-feed', /no channel/],
    ['broken marks', '<rss version="2.0">\n<channel>\n<item></channel></rss>', 'bad-xml', /./],
    ['an end before its time', '<rss version="2.0"><channel><title>x', 'bad-xml', /./],
    ['nothing', '', 'bad-xml', /./],
  ])('refuses %s', (_, text, code, detail) => {
    const refuse = (): unknown => readFeed(text, AT);
    expect(refuse).toThrow(FeedRefusedError);
    expect(refuse).toThrow(expect.objectContaining({ code, detail: expect.stringMatching(detail) as string }));
  });

  it('says the line where the marks are broken', () => {
    expect(() => readFeed('<rss version="2.0">\n<channel>\n<item>&undefined;</item></channel></rss>', AT)).toThrow(expect.objectContaining({ line: 3 }));
  });

  it('keeps nothing that cannot be kept as text', () => {
    const odd = '&#xD800;&#xDFFF;a&#x1F41F;';
    const text = feedOf(
      `<item><title>${odd}</title><guid>${odd}</guid><enclosure url="https://m.example/1.mp3" type="audio/mpeg${odd}"/>
      <podcast:transcript url="https://m.example/1.vtt" type="text/vtt" language="en${odd}"/><podcast:person role="${odd}">${odd}</podcast:person>
      <podcast:season name="${odd}">1</podcast:season><podcast:episode display="${odd}">1</podcast:episode></item>`,
    );
    let said = '';
    try {
      said = JSON.stringify(readFeed(text, AT));
    } catch (error) {
      expect(error).toBeInstanceOf(FeedRefusedError); // halves are no characters of XML (XML 1.0, section 2.2)
    }
    expect(said).not.toMatch(/\\u[dD][89a-fA-F]|\\u0000/);
  });

  it('offers transcripts in the language of the feed first, then by how well their times serve', () => {
    const files =
      '<podcast:transcript url="es.vtt" type="text/vtt" language="es"/><podcast:transcript url="en.srt" type="application/x-subrip" language="en-GB"/><podcast:transcript url="any.txt" type="text/plain"/>';
    const names = (head: string): string[] => readFeed(feedOf(item(files), head), AT).episodes[0]!.transcripts.map(({ url }) => url.split('/').at(-1)!);
    expect(names('<language>en-us</language>')).toEqual(['en.srt', 'any.txt', 'es.vtt']);
    expect(names('<language>es</language>')).toEqual(['es.vtt', 'any.txt', 'en.srt']);
    expect(names('')).toEqual(['es.vtt', 'en.srt', 'any.txt']);
  });

  it('reads the newest of a page that never ends, and no more people than there can be', () => {
    const items = Array.from({ length: 5_010 }, (_, i) => `<item><guid>${i}</guid><enclosure url="https://m.example/${i}.mp3" type="audio/mpeg"/></item>`);
    const { episodes } = readFeed(feedOf(items.join('')), AT);
    expect([episodes.length, episodes[0]!.guid, episodes.at(-1)!.guid]).toEqual([5_000, '0', '4999']);
    expect(only('<podcast:person>Ada</podcast:person>'.repeat(500)).persons).toHaveLength(40);
  });

  it.each(['a', '<', '<script', '<a', '&lt;script', ' ', '"', '&amp;', '0'])(
    'reads a megabyte of “%s” as if it were a title, a day, a length and a number',
    (letter) => {
      const much = letter.repeat(Math.ceil(1_000_000 / letter.length));
      const cdata = `<![CDATA[${much}]]>`;
      const parts = ['title', 'description', 'pubDate', 'any:duration', 'any:season', 'any:episode', 'link', 'podcast:person'].map(
        (name) => `<${name}>${cdata}</${name}>`,
      );
      const { title, summary, persons } = readFeed(
        feedOf(`<item><guid>g</guid><enclosure url="https://m.example/1.mp3" length="${'9'.repeat(1_000)}"/>${parts.join('')}</item>`),
        AT,
      ).episodes[0]!;
      expect([title.length <= 160, summary.length <= 600, persons.every(({ name }) => name.length <= 80)]).toEqual([true, true, true]);
    },
  );

  it('expands nothing: a bomb of entities is refused where it is used', () => {
    const bomb = `<!DOCTYPE rss [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>\n<rss version="2.0"><channel><title>&b;</title></channel></rss>`;
    expect(() => readFeed(bomb, AT)).toThrow(expect.objectContaining({ code: 'bad-xml', line: 2 }));
  });

  // Outside witness: feeds written by the package feed 6, read by rss-parser 3.13, too.
  it('reads what another hand wrote as another reader does', async () => {
    const text = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 40 }).filter((one) => !/[<>&\0\p{Cc}\p{Surrogate}]/u.test(one) && one.trim() !== '');
    const shown = (one: string): string => one.trim().replace(/\s+/g, ' ');
    await fc.assert(
      fc.asyncProperty(
        text,
        fc.array(fc.record({ title: text, day: fc.integer({ min: 0, max: 2_000_000_000 }), n: fc.integer({ min: 1, max: 999_999 }) }), {
          minLength: 1,
          maxLength: 6,
        }),
        async (title, items) => {
          const writer = new FeedWriter({ title, id: AT, link: AT, copyright: '' });
          for (const [i, one] of items.entries())
            writer.addItem({
              title: one.title,
              id: `g${i}`,
              link: `https://shows.example/${i}`,
              date: new Date(one.day * 1_000),
              enclosure: { url: `https://media.example/${one.n}-${i}.mp3`, length: one.n, type: 'audio/mpeg' },
            });
          const written = writer.rss2();
          const ours = readFeed(written, AT);
          const theirs = await new Parser().parseString(written);
          expect(ours.title).toBe(shown(theirs.title ?? ''));
          expect(ours.episodes.map((one) => [one.title, one.guid, one.enclosure.url, one.enclosure.bytes, one.publishedMs])).toEqual(
            theirs.items.map((one) => [shown(one.title ?? ''), one.guid, one.enclosure?.url, Number(one.enclosure?.length), Date.parse(one.isoDate ?? '')]),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('publishingDate', () => {
  it.each([
    // RFC 822, section 5.1, and RFC 2822, appendix A; 2003-11-21T09:55:06-06:00 from the latter's first message.
    ['Fri, 21 Nov 1997 09:55:06 -0600', '1997-11-21T15:55:06.000Z'],
    ['21 Nov 97 09:55:06 GMT', '1997-11-21T09:55:06.000Z'],
    // RSS 2.0, the example of pubDate.
    ['Sun, 19 May 2002 15:21:36 GMT', '2002-05-19T15:21:36.000Z'],
    ['Tue, 3 Jun 2003 09:39:21 EDT', '2003-06-03T13:39:21.000Z'],
    ['Mon, 02 Mar 2026 06:30 +01:00', '2026-03-02T05:30:00.000Z'],
    ['Monday, 02 March 2026 06:30:00', '2026-03-02T06:30:00.000Z'],
  ])('reads %s', (written, iso) => expect(new Date(publishingDate(written)!).toISOString()).toBe(iso));

  it.each(['', 'yesterday', '31 Feb 2026 10:00:00 GMT', '1 Mar 2026 24:00:00 GMT', '1 Mar 2026 10:60:00 GMT', '1 Mar 2026 10:00:00 +9900', '2026-03-02'])(
    'takes no day from “%s”',
    (written) => expect(publishingDate(written)).toBeNull(),
  );

  it('reads days as Luxon writes and reads them (RFC 2822)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 4_000_000_000 }), fc.constantFrom('UTC', 'America/St_Johns', 'Asia/Kathmandu', 'Australia/Adelaide'), (s, zone) => {
        const written = DateTime.fromSeconds(s, { zone }).toRFC2822()!;
        expect(publishingDate(written)).toBe(DateTime.fromRFC2822(written).toMillis());
      }),
    );
  });
});

describe('feedLength', () => {
  it.each([
    ['3723', 3_723_000],
    ['62:03', 3_723_000],
    ['1:02:03', 3_723_000],
    ['00:30.5', 30_500],
  ])('reads %s', (written, ms) => expect(feedLength(written)).toBe(ms));
  it.each(['', '0', 'an hour', '-5', '1:2:3:4', '9999999999', '501:00:00'])('takes no length from “%s”', (written) => expect(feedLength(written)).toBeNull());
});

describe('readChapters', () => {
  it('reads chapters by their start, without what stands in no table of contents', () => {
    // The shape of the podcast namespace's JSON chapters, version 1.2, from memory.
    const text = JSON.stringify({
      version: '1.2.0',
      chapters: [
        { startTime: 168.2, title: ' The  rope ', url: 'https://x.example' },
        { startTime: 0, title: 'Hello' },
        { startTime: 260, title: 'A picture', toc: false },
        { startTime: 168.2, title: 'Again' },
        { startTime: -3, title: 'Before' },
        { title: 'Nowhere' },
        { startTime: [], title: 'A list' },
        { startTime: true, title: 'Yes' },
        { startTime: '300', title: 'As text' },
        ['a list'],
        null,
      ],
    });
    expect(readChapters(text)).toEqual([
      { startMs: 0, title: 'Hello' },
      { startMs: 168_200, title: 'The rope' },
      { startMs: 300_000, title: 'As text' },
    ]);
  });
  it.each(['', '{', '[]', 'null', '{"chapters":3}'])('refuses “%s”', (text) => expect(() => readChapters(text)).toThrow(FeedRefusedError));
});
