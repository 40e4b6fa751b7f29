import { escape } from './mail-page.js';

/** A made-up show, as its folder describes it in `show.json`. */
export interface Show {
  readonly title: string;
  readonly about: string;
  readonly hosts: readonly string[];
  /** How long the feed says that it stays as it is. */
  readonly ttlMinutes: number;
  readonly pageSize: number;
  /** Newest first. */
  readonly episodes: readonly ShowEpisode[];
}

export interface ShowEpisode {
  readonly guid: string;
  readonly number: string;
  readonly season: number;
  readonly title: string;
  readonly summary: string;
  /** ISO 8601. */
  readonly publishedAt: string;
  readonly seconds: number;
  /** Names of files in the folder. */
  readonly sound: { readonly file: string; readonly type: string; readonly bytes: number };
  readonly transcript: { readonly file: string; readonly type: string } | null;
  readonly chapters: readonly { readonly startTime: number; readonly title: string }[];
  readonly guests: readonly string[];
  /** Comes out only when somebody has it published. */
  readonly held: boolean;
}

const clock = (seconds: number): string =>
  [seconds / 3_600, (seconds / 60) % 60, seconds % 60].map((part) => String(Math.floor(part)).padStart(2, '0')).join(':');

/**
 * A page of a show's feed: RSS 2.0, with tags of the podcast namespace, and the address of the next page (RFC 5005).
 * @param base where the show lives, without a slash at its end
 * @param page from 1
 */
export function feedPage(show: Show, episodes: readonly ShowEpisode[], base: string, page: number): string {
  const from = (page - 1) * show.pageSize;
  const shown = episodes.slice(from, from + show.pageSize);
  const next = from + show.pageSize < episodes.length ? `<atom:link rel="next" href="${escape(`${base}/feed.xml?page=${page + 1}`)}"/>` : '';
  const person = (role: string) => (name: string) => `<podcast:person role="${role}">${escape(name)}</podcast:person>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<rss version="2.0" xmlns:atom="http://www.w3.org/2005/Atom" xmlns:podcast="https://podcastindex.org/namespace/1.0" xmlns:show="urn:sift-reel:stand-in">
<channel>
<title>${escape(show.title)}</title>
<link>${escape(base)}</link>
<description>${escape(show.about)}</description>
<ttl>${show.ttlMinutes}</ttl>
<atom:link rel="self" href="${escape(`${base}/feed.xml`)}"/>
${next}
${show.hosts.map(person('host')).join('\n')}
${shown
  .map(
    (one) => `<item>
<guid isPermaLink="false">${escape(one.guid)}</guid>
<title>${escape(one.title)}</title>
<description>${escape(`<p>${escape(one.summary)}</p>`)}</description>
<pubDate>${new Date(one.publishedAt).toUTCString()}</pubDate>
<enclosure url="${escape(`${base}/files/${encodeURIComponent(one.sound.file)}`)}" type="${escape(one.sound.type)}" length="${one.sound.bytes}"/>
<show:duration>${clock(one.seconds)}</show:duration>
<podcast:season>${one.season}</podcast:season>
<podcast:episode>${escape(one.number)}</podcast:episode>
${one.transcript === null ? '' : `<podcast:transcript url="${escape(`${base}/files/${encodeURIComponent(one.transcript.file)}`)}" type="${escape(one.transcript.type)}"/>`}
${one.chapters.length === 0 ? '' : `<podcast:chapters url="${escape(`${base}/chapters/${encodeURIComponent(one.guid)}.json`)}" type="application/json+chapters"/>`}
${[...show.hosts.map(person('host')), ...one.guests.map(person('guest'))].join('')}
</item>`,
  )
  .join('\n')}
</channel>
</rss>
`;
}

/** The show as whoever listens would see it. */
export function showPage(show: Show, episodes: readonly ShowEpisode[]): string {
  const items = episodes
    .map(
      (one) =>
        `<article><h2>${escape(one.number)}. ${escape(one.title)}</h2><p class="soft">${escape(one.publishedAt.slice(0, 10))} · ${clock(one.seconds)}</p><p>${escape(one.summary)}</p></article>`,
    )
    .join('\n');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escape(show.title)} (stand-in)</title>
<style>
body { font: 15px/1.5 system-ui, sans-serif; background: #f3efe6; color: #23201b; max-width: 720px; margin: 32px auto; padding: 0 16px }
article { background: #fffdf8; border: 1px solid #ddd4c3; padding: 14px 18px; margin: 0 0 14px }
h1 { font-size: 20px } h2 { font-size: 16px; margin: 0 } .soft { color: #665f52; margin: 2px 0 6px; font-size: 13px } p { margin: 0 }
</style>
<h1>${escape(show.title)}</h1><p class="soft">A made-up podcast host on this machine. Its feed is feed.xml beside this page.</p>
${items}</html>`;
}
