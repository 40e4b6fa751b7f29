import { decodeHTML } from 'entities';
import { SaxesParser, type SaxesTagNS } from 'saxes';
import { feedLength, publishingDate } from './publishing-date.js';
import { type Feed, type FeedEpisode, type FeedFile, type FeedPerson, FeedRefusedError, type FeedTranscript } from './types.js';

/** Namespaces of the podcast tags: the one in force, and the one of its first years. */
const PODCAST = new Set(['https://podcastindex.org/namespace/1.0', 'https://github.com/Podcastindex-org/podcast-namespace/blob/main/docs/1.0.md']);
const ATOM = 'http://www.w3.org/2005/Atom';
/** More is no feed that somebody follows; longer texts and pages are cut. */
const [MOST_CHARACTERS, MOST_EPISODES] = [30_000_000, 5_000];
const [LONGEST_TITLE, LONGEST_SUMMARY, LONGEST_ADDRESS, LONGEST_NAME, MOST_FILES, MOST_PERSONS] = [160, 600, 2_000, 80, 12, 40];
/** Of what is said of something, so much is looked at: what is shown of it is far less. */
const MOST_LOOKED_AT = 20_000;
/** Names of characters that makers of feeds take from HTML, though XML has none of them. */
const HTML_NAMES =
  'nbsp copy reg trade ndash mdash hellip lsquo rsquo ldquo rdquo laquo raquo bull middot eacute egrave agrave aacute ouml uuml auml szlig ntilde'.split(' ');

/** How well a transcript's kind serves: its times by the word, by the cue, or none. What is not here is not taken. */
const TRANSCRIPT_KINDS: Readonly<Record<string, number>> = {
  'text/vtt': 0,
  'application/x-subrip': 1,
  'application/srt': 1,
  'text/srt': 1,
  'application/ttml+xml': 1,
  'application/json': 2,
  'text/html': 3,
  'text/plain': 3,
};
const WEB_PAGE = 'this is a web page; give the address of the feed itself';
const MEDIA_ENDING = /\.(?:mp3|m4a|m4b|mp4|m4v|mov|mkv|webm|ogg|oga|opus|wav|flac|aac)$/i;

interface OpenItem {
  readonly parts: Map<string, string>;
  readonly persons: FeedPerson[];
  readonly transcripts: FeedTranscript[];
  enclosure: FeedEpisode['enclosure'] | null;
  chapters: FeedFile | null;
  seasonName: string;
  numberShown: string;
}

/**
 * Reads RSS 2.0 (its specification of 2009) with the podcast namespace's `transcript`, `chapters`, `person`, `season` and `episode`.
 * What other namespaces call `duration`, `season` and `episode` counts where the podcast namespace says nothing. Items without a file
 * of sound or picture are passed over and counted. Addresses are taken as absolute http or https, or made so by the feed's own.
 * @param url where the feed was read
 * @throws FeedRefusedError with the line: `bad-xml`, `not-a-feed` or `too-long`
 */
export function readFeed(text: string, url: string): Feed {
  if (text.length > MOST_CHARACTERS) throw new FeedRefusedError(1, 'too-long', `more than ${MOST_CHARACTERS} characters`);
  // HTML is no XML: said before the parser stumbles over it.
  if (/^\ufeff?\s*(?:<!doctype html|<html[\s>])/i.test(text.slice(0, 500))) throw new FeedRefusedError(1, 'not-a-feed', WEB_PAGE);
  const parser = new SaxesParser({ xmlns: true, position: true });
  const reader = new Reader(url);
  const line = (): number => Math.max(1, parser.line);
  for (const name of HTML_NAMES) parser.ENTITIES[name] = decodeHTML(`&${name};`);
  parser.on('error', (error) => {
    throw error instanceof FeedRefusedError ? error : new FeedRefusedError(line(), 'bad-xml', error.message.replace(/^\d+:\d+: /, ''));
  });
  parser.on('opentag', (tag) => reader.open(tag, line()));
  parser.on('closetag', () => reader.close());
  parser.on('text', (piece) => reader.text(piece));
  parser.on('cdata', (piece) => reader.text(piece));
  parser.write(text.replace(/^\ufeff?\s*/, '')).close();
  return reader.feed();
}

class Reader {
  private readonly path: string[] = [];
  private readonly heads = new Map<string, string>();
  private readonly persons: FeedPerson[] = [];
  private readonly episodes: FeedEpisode[] = [];
  private readonly guids = new Set<string>();
  private passedOver = 0;
  private nextUrl: string | null = null;
  private item: OpenItem | null = null;
  private said = '';
  private attributes: Readonly<Record<string, string>> = {};

  constructor(private readonly url: string) {}

  open(tag: SaxesTagNS, line: number): void {
    if (this.path.length === 0 && (tag.local !== 'rss' || tag.uri !== '')) {
      const what = tag.local === 'html' ? WEB_PAGE : `<${tag.name.slice(0, 40)}> where <rss> was expected`;
      throw new FeedRefusedError(line, 'not-a-feed', what);
    }
    this.path.push(nameOf(tag));
    this.said = '';
    this.attributes = Object.fromEntries(Object.values(tag.attributes).map(({ local, value }) => [local, value]));
    const here = this.path.join('/');
    if (here === 'rss/channel/item') {
      if (this.episodes.length >= MOST_EPISODES) return; // older than anybody looks for
      this.item = { parts: new Map(), persons: [], transcripts: [], enclosure: null, chapters: null, seasonName: '', numberShown: '' };
    } else if (here === 'rss/channel/atom:link' && this.attributes['rel'] === 'next') this.nextUrl = this.address(this.attributes['href']);
    else if (this.item !== null && this.path.length === 4) this.openPart(this.path[3]!, this.item);
  }

  private openPart(part: string, item: OpenItem): void {
    const file = this.address(this.attributes['url']);
    const type = mediaType(this.attributes['type']);
    if (file === null) return;
    if (part === 'enclosure') {
      // RSS has one file to an item; where there are more, the first that can be heard or seen counts.
      if (item.enclosure === null && (/^(?:audio|video)\//.test(type) || MEDIA_ENDING.test(new URL(file).pathname)))
        item.enclosure = { url: file, type, bytes: positive(this.attributes['length']) };
    } else if (part === 'podcast:transcript' && type in TRANSCRIPT_KINDS && item.transcripts.length < MOST_FILES)
      item.transcripts.push({ url: file, type, language: keepable(this.attributes['language'] ?? '').slice(0, 20) });
    else if (part === 'podcast:chapters') item.chapters ??= { url: file, type };
  }

  text(piece: string): void {
    this.said += piece;
  }

  close(): void {
    const part = this.path.at(-1)!;
    const depth = this.path.length;
    const said = this.said.slice(0, MOST_LOOKED_AT).trim();
    if (this.item !== null && depth === 4) this.closePart(part, said, this.item);
    else if (this.item !== null && depth === 3) this.closeItem(this.item);
    else if (depth === 3 && this.path[1] === 'channel') {
      if (part === 'podcast:person') this.persons.push(...this.person(said));
      else if (!this.heads.has(part)) this.heads.set(part, said);
    }
    this.said = '';
    this.path.pop();
  }

  private closePart(part: string, said: string, item: OpenItem): void {
    if (part === 'podcast:person') item.persons.push(...this.person(said));
    else if (!item.parts.has(part)) item.parts.set(part, said);
    if (part === 'podcast:season') item.seasonName = oneLine(this.attributes['name'] ?? '', LONGEST_NAME);
    else if (part === 'podcast:episode') item.numberShown = oneLine(this.attributes['display'] ?? '', LONGEST_NAME);
  }

  private person(said: string): FeedPerson[] {
    const name = oneLine(said, LONGEST_NAME);
    return name === '' ? [] : [{ name, role: oneLine(this.attributes['role'] ?? '', LONGEST_NAME).toLowerCase() || 'host' }];
  }

  private closeItem(item: OpenItem): void {
    this.item = null;
    const { parts, enclosure } = item;
    const guid = keepable(parts.get('guid') ?? '').slice(0, LONGEST_ADDRESS) || (enclosure?.url ?? '');
    if (enclosure === null || this.guids.has(guid)) {
      this.passedOver += 1;
      return;
    }
    this.guids.add(guid);
    const part = (name: string): string => parts.get(`podcast:${name}`) ?? parts.get(`other:${name}`) ?? '';
    const season = /^\d{1,6}$/.exec(part('season'))?.[0];
    this.episodes.push({
      guid,
      title: plainText(parts.get('title') ?? '', LONGEST_TITLE) || nameOfFile(enclosure.url),
      summary: plainText(parts.get('description') ?? '', LONGEST_SUMMARY),
      link: this.address(parts.get('link')),
      publishedMs: publishingDate(parts.get('pubDate') ?? ''),
      durationMs: feedLength(part('duration')),
      enclosure,
      transcripts: item.transcripts,
      chapters: item.chapters,
      persons: item.persons.slice(0, MOST_PERSONS),
      season: season === undefined ? null : Number(season),
      seasonName: item.seasonName,
      number: item.numberShown || (/^\d{1,6}(?:\.\d{1,4})?$/.exec(part('episode'))?.[0] ?? ''),
    });
  }

  feed(): Feed {
    if (!this.heads.has('title') && this.episodes.length + this.passedOver === 0)
      throw new FeedRefusedError(1, 'not-a-feed', 'there is no channel with a title or an item');
    return {
      title: plainText(this.heads.get('title') ?? '', LONGEST_TITLE),
      link: this.address(this.heads.get('link')),
      persons: this.persons.slice(0, MOST_PERSONS),
      nextUrl: this.nextUrl,
      ttlMinutes: positive(this.heads.get('ttl')),
      episodes: this.episodes.map((one) => this.complete(one)),
      passedOver: this.passedOver,
    };
  }

  /** With what the feed says of all its episodes, wherever it says so. */
  private complete(one: FeedEpisode): FeedEpisode {
    const language = primaryTag(this.heads.get('language') ?? '');
    // The feed's own, nobody's, another: a translation is no transcript of what is heard.
    const strangeness = (tag: string): number => (tag === '' ? 1 : primaryTag(tag) === language ? 0 : 2);
    const rank = ({ language: tag, type }: FeedTranscript): number => (language === '' ? 0 : strangeness(tag) * 10) + TRANSCRIPT_KINDS[type]!;
    const transcripts = [...one.transcripts].sort((a, b) => rank(a) - rank(b));
    return { ...one, transcripts, persons: one.persons.length > 0 ? one.persons : this.persons.slice(0, MOST_PERSONS) };
  }

  private address(written: string | undefined): string | null {
    const text = (written ?? '').trim();
    if (text === '' || !URL.canParse(text, this.url)) return null;
    const { href, protocol } = new URL(text, this.url);
    return (protocol === 'http:' || protocol === 'https:') && href.length <= LONGEST_ADDRESS ? href : null;
  }
}

/** `guid`, `podcast:person`, `atom:link`; what other namespaces say is `other:` with its name. */
function nameOf({ uri, local }: SaxesTagNS): string {
  if (uri === '') return local;
  return `${PODCAST.has(uri) ? 'podcast' : uri === ATOM ? 'atom' : 'other'}:${local}`;
}

/** Without zero characters and halves of characters, which cannot be kept as text. */
const keepable = (text: string): string => text.replace(/\0|\p{Surrogate}/gu, '');

/** The language of a tag such as `en-GB` (BCP 47). */
const primaryTag = (tag: string): string => tag.split('-')[0]!.trim().toLowerCase();

const mediaType = (written = ''): string => keepable(written).split(';')[0]!.trim().toLowerCase().slice(0, 80);

function positive(written = ''): number | null {
  const value = /^\s*\d{1,15}\s*$/.test(written) ? Number(written) : 0;
  return value > 0 ? value : null;
}

const oneLine = (text: string, most: number): string =>
  Array.from(keepable(text.slice(0, MOST_LOOKED_AT)).replace(/\s+/g, ' ').trim())
    .slice(0, most)
    .join('')
    .trim();

/** What HTML says without its marks. It is shown as text and never as HTML, so that nothing rests on all marks being found. */
function plainText(html: string, most: number): string {
  const withoutMarks = html.replace(/<(script|style)\b[\s\S]*?<\/\1>/gi, ' ').replace(/<[a-z/!][^>]*>/gi, ' ');
  return oneLine(decodeHTML(withoutMarks), most);
}

function nameOfFile(url: string): string {
  const last = new URL(url).pathname.split('/').at(-1) ?? '';
  return oneLine(last.replace(/\.\w+$/, '').replace(/[_-]+/g, ' '), LONGEST_TITLE) || 'Untitled';
}
