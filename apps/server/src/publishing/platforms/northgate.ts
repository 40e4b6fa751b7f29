import { at, LaterError, type Outcome, type PostingPlatform, RefusedError, textAt, withTags } from './platform.js';

const FETCHES_FOR_MS = 5_000;
const outcomeOf = (body: unknown): Outcome => ({ state: 'posted', remoteId: textAt(body, 'update'), address: textAt(body, 'address') });

/** It is handed an address, fetches the file in its own time, and publishes when told to. What was posted is found by its note. */
export const NORTHGATE: PostingPlatform = {
  name: 'northgate',
  title: 'Northgate',
  scopes: ['page:publish'],
  pace: { calls: 60, perMs: 60_000 },
  once: { by: 'mark', settleMs: 120_000 },
  aheadMs: 0,
  readError: (_, body) => {
    const [problem] = (at(body, 'problems') as unknown[] | undefined) ?? [];
    const code = textAt(problem, 'code');
    return { words: textAt(problem, 'words'), kind: code === 'duplicate' ? 'duplicate' : code === 'day-full' ? 'later' : 'refused' };
  },
  who: async (line) => {
    const { body } = await line.ask({ method: 'GET', path: '/page' });
    return { remoteId: textAt(body, 'page', 'id'), name: textAt(body, 'page', 'title') };
  },
  prepare: async (content, kept, line) => {
    let video = String(kept['video'] ?? '');
    if (video === '') {
      video = textAt((await line.ask({ method: 'POST', path: '/videos', json: { source: content.address() } })).body, 'video');
      await line.keep({ video });
    }
    const { body } = await line.ask({ method: 'GET', path: `/videos/${video}` });
    const state = textAt(body, 'state');
    if (state === 'ready') return;
    if (state === 'fetching') throw new LaterError('Northgate is still fetching the file.', FETCHES_FOR_MS);
    await line.keep({ video: '' }); // it is handed over anew
    throw new LaterError(`Northgate could not fetch the file: ${textAt(body, 'why')}`, null);
  },
  publish: async (content, kept, line) => {
    const { title, description, hashtags, coverLine, captions, mark } = content;
    if (kept['video'] === undefined || kept['video'] === '') throw new RefusedError('The file was not handed over.');
    const json = { video: kept['video'], title, text: description, topics: hashtags, cover: coverLine.slice(0, 60), captions, internal_note: mark };
    return outcomeOf((await line.ask({ method: 'POST', path: '/updates', json })).body);
  },
  look: async ({ mark }, _, line) => {
    const { body } = await line.ask({ method: 'GET', path: `/updates?internal_note=${mark}` });
    const [first] = at(body, 'updates') as unknown[];
    return first === undefined ? null : outcomeOf(first);
  },
  progress: async (remoteId, line) => outcomeOf((await line.ask({ method: 'GET', path: `/updates/${remoteId}` })).body),
  correct: async (remoteId, { title, description, hashtags }, line) => {
    await line.ask({ method: 'POST', path: `/updates/${remoteId}`, json: { title, text: withTags(description, hashtags) } });
  },
  takeDown: async (remoteId, line) => {
    await line.ask({ method: 'DELETE', path: `/updates/${remoteId}` });
  },
};
