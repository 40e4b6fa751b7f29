import { type Feed, FeedRefusedError, type GivenChapter, readChapters, readFeed } from '@sift-reel/core/feeds';

/** What was read, or why it cannot be. */
export type FeedOutcome<T> = { readonly kind: 'read'; readonly what: T } | { readonly kind: 'refused'; readonly line: number; readonly detail: string };

/** Bytes to text: a mark decides, then what the XML says of itself (XML 1.0, section 4.3.3), then UTF-8. */
function textOf(bytes: Uint8Array): string {
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const marked = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  const said = /^(?:\xef\xbb\xbf)?\s*<\?xml[^>]*\sencoding=["']([\w.-]{2,40})["']/.exec(head)?.[1];
  try {
    return new TextDecoder(marked ?? (head.startsWith('\xef\xbb\xbf') ? 'utf-8' : (said ?? 'utf-8'))).decode(bytes);
  } catch {
    throw new FeedRefusedError(1, 'bad-xml', `it is written in “${said ?? ''}”, which is not known here`);
  }
}

function outcome<T>(act: () => T): FeedOutcome<T> {
  try {
    return { kind: 'read', what: act() };
  } catch (error) {
    if (error instanceof FeedRefusedError) return { kind: 'refused', line: error.line, detail: error.detail };
    throw error;
  }
}

/** @param url where the feed was read */
export const readFeedBytes = ({ bytes, url }: { readonly bytes: Uint8Array; readonly url: string }): FeedOutcome<Feed> =>
  outcome(() => readFeed(textOf(bytes), url));

export const readChapterBytes = ({ bytes }: { readonly bytes: Uint8Array }): FeedOutcome<GivenChapter[]> => outcome(() => readChapters(textOf(bytes)));
