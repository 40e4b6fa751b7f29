// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { Calendars } from './calendars.js';

const CALENDAR = { id: 'k1', clientId: 'c1', name: 'Their phone', readAt: null, createdAt: '2030-03-04T09:00:00.000Z' };
const ADDRESS = 'http://127.0.0.1:4310/api/calendar/secret.ics';

describe('calendar addresses', () => {
  onScreens();
  it('are made for somebody, and told once', async () => {
    const { user, asked } = show(<Calendars clientId="c1" />, {
      'api/clients/c1/calendars': [],
      'POST api/clients/c1/calendars': { ...CALENDAR, address: ADDRESS },
    });
    await user.click(await screen.findByRole('button', { name: 'New address' }));
    expect(screen.getByRole('button', { name: 'Make the address' })).toBeDisabled();
    await user.type(screen.getByLabelText('Whom it is for'), 'Their phone');
    await user.click(screen.getByRole('button', { name: 'Make the address' }));
    const told = await screen.findByRole('dialog', { name: 'The address for Their phone' });
    expect(within(told).getByLabelText('Address')).toHaveValue(ADDRESS);
    expect(asked.filter(({ method }) => method === 'POST').map(({ body }) => body)).toEqual([{ name: 'Their phone' }]);
    await user.click(within(told).getByRole('button', { name: 'Copy' }));
    expect(await within(told).findByRole('button', { name: 'Copied' })).toBeInTheDocument();
    await user.click(within(told).getByRole('button', { name: 'Close' }));
    await expect.poll(() => screen.queryByDisplayValue(ADDRESS)).toBeNull();
  });
  it('are withdrawn after a question', async () => {
    const { user, asked } = show(<Calendars clientId="c1" />, { 'api/clients/c1/calendars': [CALENDAR], 'DELETE api/calendars/k1': null });
    expect(await screen.findByText('not read yet')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Withdraw the address for Their phone' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Withdraw' }));
    await expect.poll(() => asked.some(({ method, path }) => method === 'DELETE' && path === 'api/calendars/k1')).toBe(true);
  });
  it('say why none is made', async () => {
    const { user } = show(<Calendars clientId="c1" />, {
      'api/clients/c1/calendars': [],
      'POST api/clients/c1/calendars': new Refusal(409, 'A client has at most 20 calendar addresses.'),
    });
    await user.click(await screen.findByRole('button', { name: 'New address' }));
    await user.type(screen.getByLabelText('Whom it is for'), 'x{Enter}');
    expect(await screen.findByText('A client has at most 20 calendar addresses.')).toBeInTheDocument();
  });
});
