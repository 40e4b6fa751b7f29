// Feeds by themselves: what reads them need not hold what reads talk.
export { readChapters } from './feed/chapters.js';
export { readFeed } from './feed/read-feed.js';
export { FeedRefusedError } from './feed/types.js';
export type { Feed, FeedEpisode, FeedPerson, FeedTranscript, GivenChapter } from './feed/types.js';
