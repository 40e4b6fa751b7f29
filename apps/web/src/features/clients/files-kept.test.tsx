// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ClientView } from '../../app/api.js';
import { onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { undoLast } from '../../app/undo.js';
import { FilesKept } from './files-kept.js';

const client = (fields: Partial<ClientView> = {}): ClientView => ({ id: 'c1', name: 'Tern & Tide', filesKeptDays: null, version: 4, ...fields }) as ClientView;

describe('how long finished files are kept', () => {
  onScreens();
  it('is chosen, and taken back with what the choice made of the client', async () => {
    const { user, asked } = show(<FilesKept client={client()} />, { 'PUT api/clients/c1/files-kept': client({ filesKeptDays: 90, version: 5 }) });
    await pick(user, 'Are kept', 'for 90 days');
    await expect.poll(() => asked.map(({ body }) => body)).toEqual([{ days: 90, version: 4 }]);
    await undoLast();
    expect(asked.at(-1)!.body).toEqual({ days: null, version: 5 });
  });
  it('is shown when it is none of the usual spans', () => {
    show(<FilesKept client={client({ filesKeptDays: 45 })} />, {});
    expect(screen.getByText('for 45 days')).toBeInTheDocument();
  });
  it('says why when somebody else changed the client meanwhile', async () => {
    const { user } = show(<FilesKept client={client()} />, {
      'PUT api/clients/c1/files-kept': new Refusal(409, 'Somebody changed this client while you did.'),
    });
    await pick(user, 'Are kept', 'for 30 days');
    await expect.poll(() => store.getState().notices.at(-1)?.text).toBe('Somebody changed this client while you did.');
  });
});
