// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ClientView, UserView } from '../../app/api.js';
import { onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { SignIn } from './sign-in.js';
import { UsersPage } from './users-page.js';

describe('signing in', () => {
  onScreens();
  it('asks for both before it asks the server', async () => {
    const { user, asked } = show(<SignIn />);
    await user.click(screen.getByRole('button', { name: 'Sign in' }));
    await waitFor(() => expect(screen.getByLabelText('E-mail')).toHaveAttribute('aria-invalid', 'true'));
    expect(asked).toEqual([]);
  });
  it('sends what was typed, with Enter', async () => {
    const { user, asked } = show(<SignIn />, { 'POST api/session': { userId: 'u', csrfToken: 't' } });
    await user.type(screen.getByLabelText('E-mail'), 'ada@example.test');
    await user.type(screen.getByLabelText('Password'), 'seven grey geese{Enter}');
    await expect
      .poll(() => asked.map(({ method, path, body }) => [method, path, body]))
      .toEqual([['POST', 'api/session', { email: 'ada@example.test', password: 'seven grey geese' }]]);
  });
  it('says what the server says, and keeps the address', async () => {
    const { user } = show(<SignIn />, { 'POST api/session': new Refusal(401, 'E-mail or password is wrong.') });
    await user.type(screen.getByLabelText('E-mail'), 'ada@example.test');
    await user.type(screen.getByLabelText('Password'), 'seven grey ducks{Enter}');
    expect(await screen.findByText('E-mail or password is wrong.')).toBeInTheDocument();
    expect(screen.getByLabelText('E-mail')).toHaveValue('ada@example.test');
  });
});

const [C1, C2] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222'];
const CLIENTS = [
  { id: C1, name: 'Tern & Tide' },
  { id: C2, name: 'Harbour Bread' },
] as ClientView[];
const person = (fields: Partial<UserView>): UserView => ({
  id: 'u2',
  name: 'Bo',
  email: 'bo@example.test',
  role: 'producer',
  active: true,
  invited: false,
  version: 3,
  clientIds: [C1],
  ...fields,
});
const USERS = [
  person({ id: 'u1', name: 'Ada', email: 'ada@example.test', role: 'owner', clientIds: [] }),
  person({}),
  person({ id: 'u3', name: 'Cy', email: 'cy@example.test', active: false, clientIds: [] }),
];

describe('users', () => {
  onScreens();
  it('are listed with what they see', async () => {
    show(<UsersPage />, { 'api/users': USERS, 'api/clients': CLIENTS });
    const row = async (name: string): Promise<HTMLElement> => (await screen.findByText(name)).closest('tr')!;
    expect(await row('Ada')).toHaveTextContent('all clients');
    expect(await row('Bo')).toHaveTextContent('Tern & Tide');
    expect(await row('Cy')).toHaveTextContent(/switched off.*no client yet/);
  });
  it('that may not be seen say why', async () => {
    show(<UsersPage />, { 'api/users': new Refusal(403, 'Only an owner sees the users.'), 'api/clients': CLIENTS });
    expect(await screen.findByText('Only an owner sees the users.')).toBeInTheDocument();
  });
  it('a new one is invited by a link, with the clients that were ticked', async () => {
    const answer = { user: person({ id: 'u4', name: 'Dee', email: 'dee@example.test', invited: true }), mailed: true, link: null };
    const { user, asked } = show(<UsersPage />, { 'api/users': USERS, 'api/clients': CLIENTS, 'POST api/users': answer });
    await user.click(await screen.findByRole('button', { name: 'Invite a user' }));
    const dialog = within(await screen.findByRole('dialog'));
    expect(dialog.queryByLabelText(/password/i)).toBeNull(); // the owner knows nobody's password
    await user.type(dialog.getByLabelText('Name'), 'Dee');
    await user.type(dialog.getByLabelText('E-mail'), 'dee@example.test');
    await user.click(dialog.getByLabelText('Harbour Bread'));
    await user.click(dialog.getByRole('button', { name: 'Invite the user' }));
    expect(await screen.findByText(/A link to choose a password is on its way to dee@example.test/)).toBeInTheDocument();
    expect(asked.find(({ method }) => method === 'POST')!.body).toEqual({ name: 'Dee', email: 'dee@example.test', role: 'producer', clientIds: [C2] });
  });
  it('where no mail can be sent, the link is there to be handed over', async () => {
    const link = 'http://sift-reel.test/welcome/abc';
    const answer = { user: person({}), mailed: false, link };
    const { user } = show(<UsersPage />, { 'api/users': USERS, 'api/clients': CLIENTS, 'POST api/users/u2/invitation': answer });
    await screen.findByText('Bo');
    await user.click(screen.getAllByRole('button', { name: 'Change' })[1]!);
    await user.click(await screen.findByRole('button', { name: 'Send a new link' }));
    expect(await screen.findByLabelText('Link')).toHaveValue(link);
  });
  it('one is changed: a client more, and no longer let in', async () => {
    const { user, asked } = show(<UsersPage />, { 'api/users': USERS, 'api/clients': CLIENTS, 'PUT api/users/u2': person({ active: false }) });
    await screen.findByText('Bo');
    await user.click(screen.getAllByRole('button', { name: 'Change' })[1]!);
    const dialog = within(await screen.findByRole('dialog', { name: 'bo@example.test' }));
    await user.click(dialog.getByLabelText('Harbour Bread'));
    await user.click(dialog.getByLabelText('may sign in'));
    await user.click(dialog.getByRole('button', { name: 'Save the user' }));
    await expect
      .poll(() => asked.find(({ method }) => method === 'PUT')?.body)
      .toEqual({ name: 'Bo', role: 'producer', clientIds: [C1, C2], active: false, version: 3 });
  });
});
