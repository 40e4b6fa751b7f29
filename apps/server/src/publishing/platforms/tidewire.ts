import { type Outcome, type PostingPlatform, RefusedError, textAt } from './platform.js';

/** It calls back when it has looked a take over; where that call is lost, it is asked so much later. */
const ASK_AFTER_MS = 60_000;

function outcomeOf(body: unknown): Outcome {
  const state = textAt(body, 'state');
  if (state === 'out') return { state: 'posted', remoteId: textAt(body, 'take'), address: textAt(body, 'page') };
  if (state === 'turned-down') return { state: 'refused', words: textAt(body, 'because') };
  return { state: 'processing', remoteId: textAt(body, 'take'), askAfterMs: ASK_AFTER_MS };
}

/** A take is put at an address of our choosing, so that putting it again is the same take; it is looked over for minutes. */
export const TIDEWIRE: PostingPlatform = {
  name: 'tidewire',
  title: 'Tidewire',
  scopes: ['takes'],
  pace: { calls: 90, perMs: 60_000 },
  once: { by: 'key', lifeMs: 30 * 86_400_000 },
  aheadMs: 0,
  readError: (_, body) => {
    const code = textAt(body, 'reason');
    return { words: textAt(body, 'message'), kind: code === 'duplicate' ? 'duplicate' : code === 'day-full' ? 'later' : 'refused' };
  },
  who: async (line) => {
    const { body } = await line.ask({ method: 'GET', path: '/whoami' });
    return { remoteId: textAt(body, 'who'), name: textAt(body, 'called') };
  },
  publish: async (content, _, line) => {
    const { title, description, hashtags, coverLine } = content;
    const words = JSON.stringify({ title, words: description, tags: hashtags, cover: coverLine.slice(0, 60) });
    const headers = { 'take-words': Buffer.from(words).toString('base64'), 'content-type': 'video/mp4' };
    return outcomeOf((await line.ask({ method: 'PUT', path: `/takes/${content.mark}`, body: await content.file(), headers })).body);
  },
  look: async ({ mark }, _, line) => {
    try {
      return outcomeOf((await line.ask({ method: 'GET', path: `/takes/${mark}` })).body);
    } catch (error) {
      if (error instanceof RefusedError && error.status === 404) return null;
      throw error;
    }
  },
  progress: async (remoteId, line) => outcomeOf((await line.ask({ method: 'GET', path: `/takes/${remoteId}` })).body),
  /** Its title stays as it is. */
  correct: async (remoteId, { title, description }, line, content) => {
    if (title !== content.title) throw new RefusedError('Tidewire changes no title once a take is out; its words can be changed.');
    await line.ask({ method: 'PATCH', path: `/takes/${remoteId}`, json: { words: description } });
  },
  takeDown: async (remoteId, line) => {
    await line.ask({ method: 'DELETE', path: `/takes/${remoteId}` });
  },
};
