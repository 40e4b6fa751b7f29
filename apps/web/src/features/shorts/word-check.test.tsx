// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { CopyForm, CopyView, FindingView, ShortView, TitleView } from '../../app/api.js';
import { type Answers, type Ask, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { withMend } from './findings.js';
import { shortView } from './short.fixture.js';
import { ShortsPage } from './shorts-page.js';

const finding = (fields: Partial<FindingView>): FindingView => ({
  field: 'title',
  item: null,
  from: 0,
  to: 0,
  rule: 'spelling',
  text: '',
  detail: '',
  mend: null,
  ticked: false,
  ...fields,
});
/** Finds a figure that was not said and a word that is spelled wrong, wherever they stand in the title. */
const check = ({ body }: Ask): { findings: FindingView[]; speaksToProgram: boolean } => {
  const { title } = body as CopyView;
  const at = (text: string, fields: Partial<FindingView>): FindingView[] => {
    const from = title.indexOf(text);
    return from < 0 ? [] : [finding({ text, from, to: from + text.length, ...fields })];
  };
  const findings = [
    ...at('4711', { rule: 'figure', detail: '“4711” was not said.' }),
    ...at('recieve', { detail: '“recieve” is not in the dictionary.', mend: 'receive' }),
  ];
  return { findings: findings.sort((a, b) => a.from - b.from), speaksToProgram: false };
};

/** A server that keeps what is written to it. */
function desk(titles: readonly string[], proposals: readonly TitleView[] = []): Answers {
  let shorts = titles.map((title, i) => shortView(`s${i}`, title, { approved: false, approvedBy: null }));
  const change = (id: string, how: (short: ShortView) => Partial<ShortView>): ShortView => {
    shorts = shorts.map((one) => (one.id === id ? { ...one, ...how(one) } : one));
    return shorts.find((one) => one.id === id)!;
  };
  const routes = titles.flatMap((_, i): [string, unknown][] => {
    const id = `s${i}`;
    return [
      [`api/shorts/${id}/titles`, proposals],
      [`POST api/shorts/${id}/check`, check],
      [
        `PUT api/shorts/${id}/copy`,
        ({ body }: Ask) => {
          const { version, ...copy } = body as CopyForm;
          return change(id, () => ({ copy, version: version + 1 }));
        },
      ],
      [
        `PUT api/shorts/${id}/approval`,
        ({ body }: Ask) => {
          const { approved, ticks } = body as { approved: boolean; ticks: { text: string }[] };
          const short = shorts.find((one) => one.id === id)!;
          if (approved && short.copy.title.includes('4711') && !ticks.some(({ text }) => text === '4711'))
            return new Refusal(422, 'One thing was not said.', [], {
              code: 'unsaid',
              unsaid: [{ rule: 'figure', text: '4711', field: 'title', detail: '“4711” was not said.' }],
            });
          return change(id, () => ({ approved, approvedBy: approved ? 'Ada' : null }));
        },
      ],
    ];
  });
  return { 'api/shorts': () => shorts, 'api/clients': [{ id: 'c1', name: 'Tern & Tide' }], 'api/batches': [], ...Object.fromEntries(routes) };
}
const page = (answers: Answers) => show(<ShortsPage />, answers, { at: '/shorts/s0', route: '/shorts/:shortId?' });
const title = (): HTMLElement => screen.getByLabelText('Title');
const approvals = (asked: readonly Ask[]): Ask[] => asked.filter(({ method, path }) => method === 'PUT' && path.endsWith('/approval'));

describe('words while they are written', () => {
  onScreens();
  it('are underlined where they break a rule, with what is wrong under the field', async () => {
    page(desk(['We recieve 4711 boats']));
    expect(await screen.findByText('“recieve” is not in the dictionary.')).toBeInTheDocument();
    const underlined = [...document.querySelectorAll('.underline')].map((one) => one.textContent);
    expect(underlined).toEqual(expect.arrayContaining(['recieve', '4711']));
  });
  it('are mended with a button, with M, and with Alt M while one types, and come back with undo', async () => {
    const { user, asked } = page(desk(['We recieve boats']));
    await user.click(await screen.findByRole('button', { name: 'Write “receive”' }));
    expect(await screen.findByDisplayValue('We receive boats')).toBeInTheDocument();
    await expect.poll(() => asked.some(({ body }) => (body as CopyView | undefined)?.title === 'We receive boats')).toBe(true);
    await user.clear(title());
    await user.type(title(), 'They recieve it');
    await screen.findByRole('button', { name: 'Write “receive”' });
    await user.keyboard('{Alt>}m{/Alt}');
    expect(await screen.findByDisplayValue('They receive it')).toBeInTheDocument();
    await user.clear(title());
    await user.type(title(), 'You recieve it');
    await screen.findByRole('button', { name: 'Write “receive”' });
    await user.keyboard('{Escape}m');
    expect(await screen.findByDisplayValue('You receive it')).toBeInTheDocument();
  });
  it('that were not said are approved with a tick, which is sent', async () => {
    const { user, asked } = page(desk(['We had 4711 boats']));
    await screen.findByText('“4711” was not said.');
    await user.keyboard('a');
    const list = within(await screen.findByRole('alert'));
    expect(list.getByText('Not said in the passage')).toBeInTheDocument();
    const tick = list.getByRole('checkbox', { name: '“4711” is right' });
    await expect.poll(() => document.activeElement === tick).toBe(true);
    await user.keyboard(' a'); // the space ticks it
    expect(await screen.findByText('approved by Ada')).toBeInTheDocument();
    expect(approvals(asked).map(({ body }) => (body as { ticks: unknown[] }).ticks)).toEqual([[], [{ rule: 'figure', text: '4711' }]]);
    expect(screen.queryByText('Not said in the passage')).toBeNull();
  });
});

describe('a batch', () => {
  onScreens();
  it('of ten is worded with the keyboard alone: two keys a short, and a few more for a tag', async () => {
    const proposals: TitleView[] = ['No rope on the slip', 'Why the tide took the boat'].map((text) => ({
      text,
      sort: 'said',
      said: text,
      draft: false,
      description: '',
    }));
    const { user, asked, place } = page(
      desk(
        Array.from({ length: 10 }, (_, i) => `Draft ${i}`),
        proposals,
      ),
    );
    let keys = 0;
    const press = async (some: string): Promise<void> => {
      keys += [...some.replace(/\{\w+\}/g, '*')].length;
      await user.keyboard(some);
    };
    for (let i = 0; i < 10; i += 1) {
      await screen.findByDisplayValue(`Draft ${i}`);
      await within(await screen.findByRole('list', { name: 'Proposals' })).findByText('Why the tide took the boat');
      await press('2');
      if (i === 3) await press('h, slipway{Escape}');
      await press('n');
      await expect.poll(() => approvals(asked).length).toBe(i + 1);
      if (i < 9) await expect.poll(place).toBe(`/shorts/s${i + 1}`);
    }
    // At some four keys a second, less than ten seconds of typing.
    expect(keys).toBe(2 * 10 + 'h, slipway'.length + 1);
    const saved = asked
      .filter(({ method, path }) => method === 'PUT' && path.endsWith('/copy'))
      .map(({ path, body }) => [path.split('/')[2], (body as CopyView).title]);
    for (let i = 0; i < 10; i += 1) expect(saved).toContainEqual([`s${i}`, 'Why the tide took the boat']);
    expect(
      asked
        .filter(({ path }) => path === 'api/shorts/s3/copy')
        .map(({ body }) => (body as CopyView).hashtags)
        .at(-1),
    ).toEqual(['boats', 'slipway']);
  });
});

describe('mending', () => {
  const COPY: CopyView = { title: 'a b c', description: '', hashtags: ['x', 'y'], keywords: [], coverLine: '' };
  it('changes places from the end on, tags too, and leaves what only a person can tell', () => {
    const some = [
      finding({ from: 0, to: 1, mend: 'aa' }),
      finding({ from: 4, to: 5, mend: 'cc' }),
      finding({ from: 2, to: 3, mend: null }),
      finding({ field: 'hashtags', item: 0, mend: '' }),
      finding({ field: 'hashtags', item: null, mend: 'always' }),
    ];
    expect(withMend(COPY, some)).toEqual({ ...COPY, title: 'aa b cc', hashtags: ['always', 'y'] });
  });
});
