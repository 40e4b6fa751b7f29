// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import type { ReactNode } from 'react';
import { describe, expect, it } from 'vitest';
import { api, type ClientView } from './api.js';
import { ownVersion } from './own-versions.js';
import { type Ask, onScreens, show } from './screen.fixture.js';
import { store } from './store.js';

const row = (id: string, version: number, name = `${id} at ${version}`): Partial<ClientView> => ({ id, name, version });
const rename = (version: number): Promise<ClientView> =>
  store.dispatch(api.endpoints.updateClient.initiate({ clientId: 'c1', clientChangeForm: { version } as never })).unwrap();
const listed = (): readonly ClientView[] => api.endpoints.listClients.select()(store.getState() as never).data ?? [];
const shownNow = (): string[] => listed().map(({ name }) => name);

function Names(): ReactNode {
  return <p>{(api.useListClientsQuery().data ?? []).map(({ name }) => name).join(', ')}</p>;
}

describe('what a change answers', () => {
  onScreens();

  it('is shown, and written from, before the list is read again', async () => {
    const answers: Record<string, unknown> = { 'api/clients': [row('c1', 1), row('c2', 1)], 'PUT api/clients/c1': row('c1', 2) };
    show(<Names />, answers);
    await screen.findByText('c1 at 1, c2 at 1');
    delete answers['api/clients']; // reading it again takes for ever
    await rename(1);
    expect(shownNow()).toEqual(['c1 at 2', 'c2 at 1']);
    expect(await screen.findByText('c1 at 2, c2 at 1')).toBeInTheDocument();
  });

  it('is not undone by an answer that was under way before', async () => {
    const answers: Record<string, unknown> = { 'api/clients': [row('c1', 1)], 'PUT api/clients/c1': row('c1', 2) };
    show(<Names />, answers);
    await screen.findByText('c1 at 1');
    await rename(1); // and the list is read again, from before the change
    await store.dispatch(api.endpoints.listClients.initiate(undefined, { forceRefetch: true }));
    expect(shownNow()).toEqual(['c1 at 2']);
    answers['api/clients'] = [row('c1', 3)]; // somebody else's change
    await store.dispatch(api.endpoints.listClients.initiate(undefined, { forceRefetch: true }));
    expect(shownNow()).toEqual(['c1 at 3']);
  });

  it('that is older than what is shown changes nothing, and no field is added that a list does not have', async () => {
    const answers: Record<string, unknown> = { 'api/clients': [row('c1', 5)], 'PUT api/clients/c1': { ...row('c1', 4), lateMinutes: 7 } };
    show(<Names />, answers);
    await screen.findByText('c1 at 5');
    delete answers['api/clients'];
    await rename(3);
    expect(shownNow()).toEqual(['c1 at 5']);
    answers['PUT api/clients/c1'] = { ...row('c1', 6), lateMinutes: 7 };
    await rename(5);
    expect(listed()).toEqual([row('c1', 6)]);
  });

  it('is shown in a list of what was asked for, too, as the posts of a schedule', async () => {
    const schedule = { channels: [], posts: [row('p1', 1), row('p2', 1)] };
    show(<Names />, { 'api/schedule': schedule, 'PUT api/posts/places': [row('p2', 2)] });
    await store.dispatch(api.endpoints.readSchedule.initiate());
    await store.dispatch(api.endpoints.movePosts.initiate({ moves: [] } as never));
    const read = api.endpoints.readSchedule.select()(store.getState() as never).data;
    expect(read?.posts.map(({ version }) => version)).toEqual([1, 2]);
  });

  it('is no one else’s change: an undo after a later deed of the same row is made of what that left', async () => {
    show(<Names />, {
      'api/clients': [row('c1', 1)],
      'PUT api/clients/c1': ({ body }: Ask) => row('c1', (body as { version: number }).version + 1),
    });
    await screen.findByText('c1 at 1');
    await rename(1);
    await rename(2);
    expect([ownVersion('c1', 1), ownVersion('c1', 2), ownVersion('c1', 3), ownVersion('c2', 1)]).toEqual([3, 3, 3, 1]);
  });

  it('is left alone where somebody else wrote between', async () => {
    show(<Names />, { 'api/clients': [row('c1', 1)], 'PUT api/clients/c1': row('c1', 3) });
    await screen.findByText('c1 at 1');
    await rename(1);
    expect(ownVersion('c1', 1)).toBe(1);
  });
});
