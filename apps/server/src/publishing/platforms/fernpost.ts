import { at, type Content, type Outcome, type PostingPlatform, textAt } from './platform.js';

const outcomeOf = (body: unknown): Outcome => ({ state: 'posted', remoteId: textAt(body, 'id'), address: textAt(body, 'link') });

function formOf(content: Content, file: Blob): FormData {
  const form = new FormData();
  form.set('ref', content.mark);
  form.set('headline', content.title);
  form.set('caption', content.description);
  form.set('tags', content.hashtags.join(','));
  form.set('cover', content.coverLine.slice(0, 60));
  form.set('subtitles', content.captions);
  form.set('video', file, `${content.mark}.mp4`);
  return form;
}

/** Everything in one request; it honours an idempotency key for a day. */
export const FERNPOST: PostingPlatform = {
  name: 'fernpost',
  title: 'Fernpost',
  scopes: ['notes.write', 'notes.read'],
  pace: { calls: 60, perMs: 60_000 },
  once: { by: 'key', lifeMs: 23 * 3_600_000 },
  aheadMs: 0,
  readError: (_, body) => {
    const code = textAt(body, 'error', 'code');
    return { words: textAt(body, 'error', 'message'), kind: code === 'duplicate' ? 'duplicate' : code === 'day-full' ? 'later' : 'refused' };
  },
  who: async (line) => {
    const { body } = await line.ask({ method: 'GET', path: '/me' });
    return { remoteId: textAt(body, 'id'), name: textAt(body, 'name') };
  },
  publish: async (content, _, line) => {
    const body = formOf(content, await content.file());
    return outcomeOf((await line.ask({ method: 'POST', path: '/notes', body, headers: { 'idempotency-key': content.mark } })).body);
  },
  look: async (content, _, line) => {
    const { body } = await line.ask({ method: 'GET', path: `/notes?ref=${content.mark}` });
    const [first] = at(body, 'notes') as unknown[];
    return first === undefined ? null : outcomeOf(first);
  },
  progress: async (remoteId, line) => outcomeOf((await line.ask({ method: 'GET', path: `/notes/${remoteId}` })).body),
  correct: async (remoteId, { title, description }, line) => {
    await line.ask({ method: 'PATCH', path: `/notes/${remoteId}`, json: { headline: title, caption: description } });
  },
  takeDown: async (remoteId, line) => {
    await line.ask({ method: 'DELETE', path: `/notes/${remoteId}` });
  },
};
