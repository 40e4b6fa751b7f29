import { at, type Content, type Outcome, type PostingPlatform, textAt } from './platform.js';

/** So long after its minute it is asked whether it is on. */
const ASK_AFTER_MS = 20_000;

function outcomeOf(body: unknown): Outcome {
  const remoteId = textAt(body, 'programme');
  const state = textAt(body, 'state');
  if (state === 'on') return { state: 'posted', remoteId, address: textAt(body, 'href') };
  if (state === 'refused') return { state: 'refused', words: textAt(body, 'because') };
  return { state: 'processing', remoteId, askAfterMs: ASK_AFTER_MS };
}

/** There is no place for a mark but the text itself: it stands in its last line. */
const describe = ({ description, mark }: Pick<Content, 'description' | 'mark'>): string =>
  [description, `(${mark})`].filter((part) => part !== '').join('\n\n');

/** Publishes at a time given: it is handed over some minutes ahead. Neither key nor note; what was posted is found by its words. */
export const HEARTHSIDE: PostingPlatform = {
  name: 'hearthside',
  title: 'Hearthside',
  scopes: ['programmes.manage'],
  pace: { calls: 60, perMs: 60_000 },
  once: { by: 'mark', settleMs: 120_000 },
  aheadMs: 10 * 60_000,
  readError: (_, body) => {
    const code = textAt(body, 'type').replace('hearthside:', '');
    return { words: textAt(body, 'title'), kind: code === 'duplicate' ? 'duplicate' : code === 'day-full' ? 'later' : 'refused' };
  },
  who: async (line) => {
    const { body } = await line.ask({ method: 'GET', path: '/station' });
    return { remoteId: textAt(body, 'station'), name: textAt(body, 'label') };
  },
  prepare: async (content, kept, line) => {
    await line.ask({ method: 'GET', path: '/station' }); // its answer is dated by their clock, which the minute is told in
    if (kept['medium'] !== undefined) return;
    const { body } = await line.ask({ method: 'POST', path: '/media', body: await content.file(), headers: { 'content-type': 'video/mp4' } });
    await line.keep({ medium: textAt(body, 'medium') });
  },
  publish: async (content, kept, line) => {
    const { title, hashtags, coverLine, captions, atMs } = content;
    // By their clock: it may not be right, and the minute is ours.
    const publish_at = new Date(line.theirs(atMs)).toISOString();
    const json = { medium: kept['medium'], title, description: describe(content), tags: hashtags, cover: coverLine.slice(0, 60), captions, publish_at };
    return outcomeOf((await line.ask({ method: 'POST', path: '/programmes', json })).body);
  },
  look: async ({ mark }, _, line) => {
    const { body } = await line.ask({ method: 'GET', path: '/programmes' });
    const found = (at(body, 'programmes') as unknown[]).find((one) => textAt(one, 'description').includes(`(${mark})`));
    return found === undefined ? null : outcomeOf(found);
  },
  progress: async (remoteId, line) => outcomeOf((await line.ask({ method: 'GET', path: `/programmes/${remoteId}` })).body),
  correct: async (remoteId, { title, description }, line, { mark }) => {
    await line.ask({ method: 'PATCH', path: `/programmes/${remoteId}`, json: { title, description: describe({ description, mark }) } });
  },
  takeDown: async (remoteId, line) => {
    await line.ask({ method: 'DELETE', path: `/programmes/${remoteId}` });
  },
};
