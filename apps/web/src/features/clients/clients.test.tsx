// @vitest-environment jsdom
import { OPEN_VOICE, PLAIN_CARD } from '@sift-reel/core';
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { ClientView, InterestTermView, VoiceFields, VoiceForm } from '../../app/api.js';
import { type Ask, onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { undoLast } from '../../app/undo.js';
import { ClientsPage } from './clients-page.js';
import { Interest } from './interest.js';
import { VoiceSummary } from './voice-summary.js';

const client = (fields: Partial<ClientView> = {}): ClientView => ({
  id: 'c1',
  name: 'Tern & Tide',
  zone: 'Europe/Dublin',
  tags: ['boats', 'weather'],
  standingBrief: { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] },
  signalWeights: null,
  voice: OPEN_VOICE as VoiceFields,
  cardStyle: PLAIN_CARD,
  writingService: false,
  filesKeptDays: null,
  comeAgainDays: null,
  lateMinutes: 120,
  recordingCount: 3,
  channelCount: 2,
  version: 1,
  ...fields,
});
const OWNER = { userId: 'u1', name: 'Ada', email: 'ada@example.test', role: 'owner', csrfToken: 't' };

describe('the clients', () => {
  onScreens();
  it('are said to be on their way, then listed with what belongs to them', async () => {
    show(<ClientsPage />, { 'api/clients': [client()], 'api/session': OWNER });
    expect(screen.getByRole('status')).toHaveAccessibleName(/clients/);
    const row = await screen.findByRole('link', { name: /Tern & Tide/ });
    expect(row).toHaveTextContent('Europe/Dublin');
    expect(row).toHaveTextContent('#boats #weather');
    expect(row).toHaveTextContent('2 channels · 3 recordings');
    expect(row).toHaveAttribute('href', '/clients/c1');
  });
  it('of nobody: an owner may add the first, a producer is told to wait for the owner', async () => {
    show(<ClientsPage />, { 'api/clients': [], 'api/session': OWNER });
    expect(await screen.findByText(/A client has a time zone/)).toBeInTheDocument();
    expect(await screen.findAllByRole('button', { name: 'Add a client' })).toHaveLength(2);
  });
  it('of a producer cannot be added to', async () => {
    show(<ClientsPage />, { 'api/clients': [], 'api/session': { ...OWNER, role: 'producer' } });
    expect(await screen.findByText(/has not assigned a client to you yet/)).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Add a client' })).toBeNull();
  });
  it('that cannot be read say why, and are asked for again', async () => {
    const answers: Record<string, unknown> = { 'api/clients': new Refusal(503, 'The database is being looked after.'), 'api/session': OWNER };
    const { user } = show(<ClientsPage />, answers);
    expect(await screen.findByText('The database is being looked after.')).toBeInTheDocument();
    answers['api/clients'] = [client()];
    await user.click(screen.getByRole('button', { name: /again/i }));
    expect(await screen.findByText('Tern & Tide')).toBeInTheDocument();
  });
  it('take a new one: what is missing is said beside its field, what is right is sent, and the new client is shown', async () => {
    const { user, asked, place } = show(
      <ClientsPage />,
      { 'api/clients': [client()], 'api/session': OWNER, 'POST api/clients': () => client({ id: 'c9', name: 'Harbour Bread' }) },
      { at: '/clients', route: '/clients' },
    );
    await user.click(await screen.findByRole('button', { name: 'Add a client' }));
    const dialog = await screen.findByRole('dialog', { name: 'Add a client' });
    await user.click(within(dialog).getByRole('button', { name: 'Add the client' }));
    expect(await within(dialog).findByText('Must not be empty')).toBeInTheDocument();
    expect(within(dialog).getByLabelText('Name')).toHaveAttribute('aria-invalid', 'true');
    expect(asked.filter(({ method }) => method === 'POST')).toEqual([]);
    await user.type(within(dialog).getByLabelText('Name'), 'Harbour Bread');
    await user.type(within(dialog).getByLabelText('Tags'), 'bread, mornings');
    await user.click(within(dialog).getByRole('button', { name: 'Add the client' }));
    expect(await screen.findByText('elsewhere')).toBeInTheDocument();
    expect(place()).toBe('/clients/c9');
    const sent = asked.find(({ method }) => method === 'POST')!;
    expect(sent.body).toMatchObject({ name: 'Harbour Bread', zone: 'Europe/Dublin', tags: ['bread', 'mornings'] });
  });
  it('say what the server says of a new one, and keep what was typed', async () => {
    const { user } = show(<ClientsPage />, {
      'api/clients': [client()],
      'api/session': OWNER,
      'POST api/clients': new Refusal(409, 'There is a client of this name already.'),
    });
    await user.click(await screen.findByRole('button', { name: 'Add a client' }));
    await user.type(await screen.findByLabelText('Name'), 'Tern & Tide');
    await user.click(screen.getByRole('button', { name: 'Add the client' }));
    expect(await screen.findByText('There is a client of this name already.')).toBeInTheDocument();
    expect(screen.getByLabelText('Name')).toHaveValue('Tern & Tide');
  });
});

describe('an interest list', () => {
  onScreens();
  const term = (i: number): InterestTermView => ({ term: `term ${i}`, volume: 1_200 * i, competition: 0.25, change: -0.05 });
  it('shows the first terms, and all when asked', async () => {
    const { user } = show(<Interest clientId="c1" />, { 'api/clients/c1/interest': Array.from({ length: 11 }, (_, i) => term(i + 1)) });
    expect(await screen.findByText('term 8')).toBeInTheDocument();
    expect(screen.queryByText('term 9')).toBeNull();
    expect(screen.getByText('9,600')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Show all 11' }));
    expect(screen.getByText('term 11')).toBeInTheDocument();
  });
  it('is taken from a file, and the one before comes back with undo', async () => {
    const { user, asked } = show(<Interest clientId="c1" />, { 'api/clients/c1/interest': [term(1)], 'PUT api/clients/c1/interest': [term(2)] });
    await screen.findByText('term 1');
    const csv = 'term,volume,competition,change\nterm 2,2400,0.25,-0.05\n';
    await user.upload(screen.getByLabelText('Interest list as CSV'), new File([csv], 'march.csv', { type: 'text/csv' }));
    await expect.poll(() => asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([{ csv }]);
    await undoLast();
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)!.body).toEqual({ csv: expect.stringContaining('term 1,1200,0.25,-0.05') as string });
  });
  it('that is refused says the line, and the old one stays', async () => {
    const { user } = show(<Interest clientId="c1" />, {
      'api/clients/c1/interest': [term(1)],
      'PUT api/clients/c1/interest': new Refusal(400, 'march.csv, line 3: volume must be a whole number.'),
    });
    await screen.findByText('term 1');
    await user.upload(screen.getByLabelText('Interest list as CSV'), new File(['x'], 'march.csv', { type: 'text/csv' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('line 3');
    expect(screen.getByText('term 1')).toBeInTheDocument();
  });
  it('without terms says how a file looks', async () => {
    show(<Interest clientId="c1" />, { 'api/clients/c1/interest': [] });
    expect(await screen.findByText('term,volume,competition,change')).toBeInTheDocument();
    expect(screen.queryByRole('button', { name: 'Empty it' })).toBeNull();
  });
});

describe('the voice of a client', () => {
  onScreens();
  const voiced = (voice: Partial<VoiceFields>, version = 1): ClientView => client({ voice: { ...client().voice, ...voice }, version });
  it('is told in a few lines, with what it is for where nothing is set', async () => {
    show(<VoiceSummary client={client()} />);
    expect(screen.getByText(/Words to use and to avoid/)).toBeInTheDocument();
    show(<VoiceSummary client={voiced({ use: [{ say: 'guests', not: 'customers' }], spelling: 'british', alwaysTags: ['Tern'] })} />);
    expect(await screen.findByText('guests, not customers')).toBeInTheDocument();
    expect(screen.getByText('British')).toBeInTheDocument();
    expect(screen.getByText('#Tern')).toBeInTheDocument();
  });
  it('is set whole, and goes back with undo', async () => {
    const { user, asked } = show(<VoiceSummary client={client()} />, { 'PUT api/clients/c1/voice': ({ body }: Ask) => voiced((body as VoiceForm).voice, 2) });
    await user.click(screen.getByRole('button', { name: 'Change the voice' }));
    await user.type(await screen.findByLabelText('Say this, not that'), 'guests, not customers{Enter}crew, not staff');
    await user.type(screen.getByLabelText('Never say'), 'cheap, dirt poor');
    await pick(user, 'Capitals in titles', 'Every main word');
    await user.type(screen.getByLabelText('Longest title'), '48');
    await user.type(screen.getByLabelText('Under every text'), 'tern.example{Enter}Sound by Ada');
    await user.click(screen.getByRole('button', { name: 'Save the voice' }));
    await expect
      .poll(() => asked.find(({ method }) => method === 'PUT')?.body)
      .toEqual({
        version: 1,
        voice: {
          ...OPEN_VOICE,
          use: [
            { say: 'guests', not: 'customers' },
            { say: 'crew', not: 'staff' },
          ],
          avoid: ['cheap', 'dirt poor'],
          capitals: 'title',
          longestTitle: 48,
          fixedParts: ['tern.example', 'Sound by Ada'],
        },
      });
    await undoLast();
    expect(asked.filter(({ method }) => method === 'PUT').at(-1)!.body).toEqual({ version: 2, voice: OPEN_VOICE });
  });
  it('says what a field lacks, and sends nothing', async () => {
    const { user, asked } = show(<VoiceSummary client={client()} />);
    await user.click(screen.getByRole('button', { name: 'Change the voice' }));
    await user.type(await screen.findByLabelText('Say this, not that'), 'guests');
    await user.type(screen.getByLabelText('Longest title'), '3');
    await user.click(screen.getByRole('button', { name: 'Save the voice' }));
    expect(await screen.findByText('Each line needs both: guests, not customers')).toBeInTheDocument();
    expect(screen.getByText('Must be from 10 to 1000')).toBeInTheDocument();
    expect(asked.filter(({ method }) => method !== 'GET')).toEqual([]);
  });
  it('that somebody else changed meanwhile is laid beside mine', async () => {
    const theirs = voiced({ avoid: ['theirs'] }, 7);
    const { user, asked } = show(<VoiceSummary client={client()} />, {
      'PUT api/clients/c1/voice': ({ body }: Ask) =>
        (body as VoiceForm).version === 7
          ? voiced((body as VoiceForm).voice, 8)
          : new Refusal(409, 'Somebody changed it.', [], { code: 'stale', current: theirs }),
    });
    await user.click(screen.getByRole('button', { name: 'Change the voice' }));
    await user.type(await screen.findByLabelText('Never say'), 'mine');
    await user.click(screen.getByRole('button', { name: 'Save the voice' }));
    expect(await screen.findByText('theirs')).toBeInTheDocument();
    await user.click(screen.getByRole('button', { name: 'Save yours over it' }));
    await expect.poll(() => asked.at(-1)!.body).toMatchObject({ version: 7, voice: { avoid: ['mine'] } });
  });
});
