// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onScreens, show } from '../../app/screen.fixture.js';
import { undoLast } from '../../app/undo.js';
import { Evergreen } from './evergreen.js';
import { shortView } from './short.fixture.js';

describe('an evergreen short', () => {
  onScreens();
  const SHORT = shortView('s1', 'No rope at all');
  const client = (comeAgainDays: number | null) => [{ id: SHORT.clientId, name: 'Tern & Tide', comeAgainDays }];
  it('is told to be one, and taken back', async () => {
    const { user, asked } = show(<Evergreen short={SHORT} />, {
      'api/clients': client(90),
      [`PUT api/shorts/${SHORT.id}/evergreen`]: { ...SHORT, evergreen: true },
    });
    await user.click(await screen.findByLabelText('Evergreen: may come again after 90 days'));
    await undoLast();
    expect(asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([{ evergreen: true }, { evergreen: false }]);
  });
  it('is not asked about where nothing of the client comes again', async () => {
    const { asked } = show(<Evergreen short={SHORT} />, { 'api/clients': client(null) });
    await expect.poll(() => asked.length).toBe(1);
    expect(screen.queryByRole('checkbox')).toBeNull();
  });
});
