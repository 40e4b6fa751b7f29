import { at, type Kept, LaterError, type Outcome, type PostingPlatform, RefusedError, textAt } from './platform.js';

const outcomeOf = (body: unknown): Outcome => ({ state: 'posted', remoteId: textAt(body, 'clip'), address: textAt(body, 'url') });
const uploadOf = (kept: Kept): string => String(kept['upload'] ?? '');

/** Upload in pieces, then publish. It honours no key; what was posted is found by its note. */
export const LOOPLINE: PostingPlatform = {
  name: 'loopline',
  title: 'Loopline',
  scopes: ['clips', 'clips.upload'],
  pace: { calls: 240, perMs: 60_000 },
  once: { by: 'mark', settleMs: 120_000 },
  aheadMs: 0,
  readError: (_, body) => {
    const code = textAt(body, 'fault');
    return { words: textAt(body, 'text'), kind: code === 'duplicate' ? 'duplicate' : code === 'day-full' ? 'later' : 'refused' };
  },
  who: async (line) => {
    const { body } = await line.ask({ method: 'GET', path: '/account' });
    return { remoteId: textAt(body, 'id'), name: textAt(body, 'handle') };
  },
  /** Goes on where the last piece ended, as they tell it. */
  prepare: async (content, kept, line) => {
    let upload = uploadOf(kept);
    let piece = Number(kept['piece'] ?? 0);
    if (upload === '') {
      const { body } = await line.ask({ method: 'POST', path: '/uploads', json: { size: content.bytes } });
      upload = textAt(body, 'upload');
      piece = Number(at(body, 'piece'));
      await line.keep({ upload, piece });
    }
    const told = await line.ask({ method: 'GET', path: `/uploads/${upload}` });
    for (let received = Number(at(told.body, 'received')); received < content.bytes;) {
      const body = await content.file(received, Math.min(content.bytes, received + piece));
      const reply = await line.ask({ method: 'PATCH', path: `/uploads/${upload}`, body, headers: { 'upload-from': String(received) } });
      const now = Number(at(reply.body, 'received'));
      if (!(now > received)) throw new LaterError('The upload does not go on.', null);
      received = now;
    }
  },
  publish: async (content, kept, line) => {
    const { title, description, hashtags, coverLine, captions, mark } = content;
    const json = { upload: uploadOf(kept), title, caption: description, tags: hashtags, coverText: coverLine.slice(0, 60), captions, note: mark };
    return outcomeOf((await line.ask({ method: 'POST', path: '/clips', json })).body);
  },
  look: async ({ mark }, _, line) => {
    const { body } = await line.ask({ method: 'GET', path: `/clips?note=${mark}` });
    const [first] = at(body, 'clips') as unknown[];
    return first === undefined ? null : outcomeOf(first);
  },
  progress: async (remoteId, line) => outcomeOf((await line.ask({ method: 'GET', path: `/clips/${remoteId}` })).body),
  /** Its title stays as it is. */
  correct: async (remoteId, { title, description }, line, content) => {
    if (title !== content.title) throw new RefusedError('Loopline changes no title once a clip is out; its text can be changed.');
    await line.ask({ method: 'PUT', path: `/clips/${remoteId}`, json: { caption: description } });
  },
  takeDown: async (remoteId, line) => {
    await line.ask({ method: 'DELETE', path: `/clips/${remoteId}` });
  },
};
