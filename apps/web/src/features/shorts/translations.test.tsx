// @vitest-environment jsdom
import { screen, waitFor, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { TranslationUnitView, TranslationView } from '../../app/api.js';
import { type Answers, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { shortChannel, shortView } from './short.fixture.js';
import { Translations } from './translations.js';

const unit = (fields: Partial<TranslationUnitView> = {}): TranslationUnitView => ({
  id: 'title',
  name: 'Title',
  source: 'No rope',
  target: '',
  limit: 60,
  time: null,
  changed: false,
  findings: [{ rule: 'missing', detail: 'is not translated' }],
  ...fields,
});
const caption = (fields: Partial<TranslationUnitView> = {}) =>
  unit({ id: 'caption-1', name: 'Caption 1', source: 'We had no rope.', limit: 17, time: { startMs: 0, endMs: 1_000 }, ...fields });
const spanish = (fields: Partial<TranslationView> = {}): TranslationView => ({
  language: 'es',
  name: 'Spanish',
  readBy: null,
  readAt: null,
  outdated: false,
  draftedBy: null,
  draftable: true,
  units: [unit(), caption()],
  version: 0,
  ...fields,
});
const whole = [unit({ target: 'Sin cuerda', findings: [] }), caption({ target: 'No había cuerda.', findings: [] })];
const short = shortView('s1', 'No rope', { channels: [shortChannel({ language: 'es' })] });
const AT = 'api/shorts/s1/translations';
const open = (first: TranslationView, more: Answers = {}) => {
  const board: Answers = { [AT]: first.version === 0 ? [] : [first], [`${AT}/es`]: first, ...more };
  return { board, ...show(<Translations short={short} onClose={() => undefined} />, board) };
};

describe('a short in another language', () => {
  onScreens();
  it('begins with the language that a channel waits for, and says what is open', async () => {
    open(spanish());
    expect(await screen.findByText('Nothing is translated yet.')).toBeVisible();
    expect(screen.getByText('Spanish – a channel waits for it')).toBeVisible();
    expect(screen.getByRole('checkbox', { name: /I have read all of it/ })).toBeDisabled();
    expect(screen.getByRole('link', { name: 'Out as XLIFF' })).toHaveAttribute('href', '/api/shorts/s1/translations/es/xliff');
    expect(screen.queryByRole('link', { name: 'SRT' })).toBeNull();
  });
  it('is saved field by field, one write after the other, each with the version of the one before', async () => {
    const { user, asked, board } = open(spanish());
    board[`PUT ${AT}/es`] = spanish({ version: 1, units: [unit({ target: 'Sin cuerda', findings: [] }), caption()] });
    await user.type(await screen.findByRole('textbox', { name: 'Title in Spanish' }), 'Sin cuerda');
    expect(screen.getByText('10/60')).toBeVisible();
    await user.type(screen.getByRole('textbox', { name: 'Caption 1 in Spanish' }), 'No');
    await user.tab();
    await waitFor(() =>
      expect(asked.filter(({ method }) => method === 'PUT').map(({ body }) => body)).toEqual([
        { targets: [{ unit: 'title', text: 'Sin cuerda' }], version: 0 },
        { targets: [{ unit: 'caption-1', text: 'No' }], version: 1 },
      ]),
    );
  });
  it('says what is to be looked at, and what has changed under it', async () => {
    open(
      spanish({
        version: 3,
        outdated: true,
        draftedBy: 'apertium',
        units: [unit({ target: 'Sin 2', changed: true, findings: [{ rule: 'numbers', detail: 'says 2 where the source says no number' }] }), whole[1]!],
      }),
    );
    expect(
      await screen.findByText(
        'All of it is there, and nobody has read it yet. The words of the short have changed since it was read. Parts are a draft by apertium. 1 to look at.',
      ),
    ).toBeVisible();
    expect(screen.getByText('This has changed since it was translated.')).toBeVisible();
    expect(screen.getByText('Says 2 where the source says no number')).toBeVisible();
    expect(screen.getByRole('link', { name: 'SRT' })).toBeVisible();
  });
  it('is a draft until a person says that it is read', async () => {
    const { user, asked, board } = open(spanish({ version: 3, units: whole }));
    board[`PUT ${AT}/es/reading`] = spanish({ version: 4, units: whole, readBy: 'Ada', readAt: '2030-01-01T00:00:00Z' });
    await user.click(await screen.findByRole('checkbox', { name: /I have read all of it/ }));
    await waitFor(() => expect(asked.find(({ path }) => path.endsWith('/reading'))?.body).toEqual({ read: true, version: 3 }));
  });
  it('is drafted by the program, where one can', async () => {
    const { user, asked, board } = open(spanish());
    board[`POST ${AT}/es/draft`] = new Refusal(503, 'The translation program failed. Nothing was changed; try again.');
    await user.click(await screen.findByRole('button', { name: 'Draft what is open' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('The translation program failed.');
    expect(asked.find(({ path }) => path.endsWith('/draft'))?.body).toEqual({ version: 0 });
  });
  it('comes back as XLIFF, or is told what is wrong with it', async () => {
    const { user, asked, board } = open(spanish());
    board['POST api/shorts/s1/xliff'] = new Refusal(422, 'line 7: the source of Title is not what the short says now. Send it out again.');
    await user.upload(await screen.findByLabelText('XLIFF file'), new File(['<xliff/>'], 'back.xlf', { type: 'application/xliff+xml' }));
    expect(await screen.findByRole('alert')).toHaveTextContent('line 7: the source of Title');
    expect(asked.find(({ path }) => path.endsWith('/xliff') && path.startsWith('api/shorts/s1/x'))?.body).toEqual({ xliff: '<xliff/>', version: 0 });
  });
  it('that somebody else changed is loaded anew, and nothing is written over it', async () => {
    const { user, asked, board } = open(spanish({ version: 1, units: whole }));
    board[`PUT ${AT}/es`] = new Refusal(409, 'Somebody changed this translation while you did.', [], {
      code: 'stale',
      current: spanish({ version: 5, units: whole }),
    });
    const title = await screen.findByRole('textbox', { name: 'Title in Spanish' });
    await user.type(title, '!');
    await user.tab();
    expect(await screen.findByRole('alert')).toHaveTextContent('Somebody changed this translation');
    expect(within(title.closest('li')!).getByRole('textbox')).toHaveValue('Sin cuerda!');
    await user.type(title, '!');
    await user.tab();
    await waitFor(() => expect(asked.filter(({ method }) => method === 'PUT').map(({ body }) => (body as { version: number }).version)).toEqual([1, 5]));
  });
});
