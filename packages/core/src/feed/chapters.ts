import { FeedRefusedError, type GivenChapter } from './types.js';

const [MOST_CHAPTERS, LONGEST_TITLE] = [500, 160];

/**
 * Reads chapters in the podcast namespace's JSON form (`application/json+chapters`, version 1.2): those that stand in the table of
 * contents and have a title, by their start.
 * @throws FeedRefusedError `bad-chapters`
 */
export function readChapters(text: string): GivenChapter[] {
  let read: unknown;
  try {
    read = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch {
    throw new FeedRefusedError(1, 'bad-chapters', 'the chapters are not JSON');
  }
  const listed = (read as { chapters?: unknown } | null)?.chapters;
  if (!Array.isArray(listed)) throw new FeedRefusedError(1, 'bad-chapters', 'there is no list of chapters');
  const found = new Map<number, GivenChapter>();
  for (const one of listed.slice(0, MOST_CHAPTERS) as ({ startTime?: unknown; title?: unknown; toc?: unknown } | null)[]) {
    const startTime = one?.startTime;
    const seconds = typeof startTime === 'number' || (typeof startTime === 'string' && startTime.trim() !== '') ? Number(startTime) : Number.NaN;
    const title =
      typeof one?.title === 'string'
        ? one.title
            .replace(/\0|\p{Surrogate}/gu, '')
            .replace(/\s+/g, ' ')
            .trim()
            .slice(0, LONGEST_TITLE)
        : '';
    if (!(seconds >= 0 && seconds < 1_000_000) || title === '' || one?.toc === false) continue;
    const startMs = Math.round(seconds * 1_000);
    if (!found.has(startMs)) found.set(startMs, { startMs, title });
  }
  return [...found.values()].sort((a, b) => a.startMs - b.startMs);
}
