// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { CopyVersionView, CopyView } from '../../app/api.js';
import { onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { AsSeen } from './as-seen.js';
import { CopyHistory } from './copy-history.js';
import { copyView, shortChannel, shortView } from './short.fixture.js';

const version = (id: string, title: string, fields: Partial<CopyVersionView> = {}): CopyVersionView => ({
  id,
  writtenAt: '2030-01-02T03:04:05Z',
  writtenBy: 'Ada',
  channelId: null,
  channel: null,
  copy: copyView(title),
  ...fields,
});
const VERSIONS = [
  version('v3', 'Mine now'),
  version('v2', 'For one channel', { channelId: 'ch1', channel: 'Tern clips' }),
  version('v1', 'As proposed', { writtenBy: null }),
];

describe('who wrote what', () => {
  onScreens();
  const history = (locked = false, channelId: string | null = null) => {
    const taken: CopyView[] = [];
    return {
      taken,
      ...show(<CopyHistory short={shortView('a', 'Mine now')} channelId={channelId} locked={locked} onTake={(copy) => taken.push(copy)} />, {
        'api/shorts/a/history': VERSIONS,
      }),
    };
  };
  it('is asked for when it is unfolded, and shows the words of this place with when and by whom', async () => {
    const { user, asked } = history();
    expect(asked).toEqual([]);
    await user.click(screen.getByRole('button', { name: 'Who wrote what' }));
    const rows = (await screen.findAllByRole('listitem')).map((row) => row.textContent);
    expect(rows).toHaveLength(2);
    expect(rows[0]).toMatch(/2030-01-02 03:04 UTCAdaMine now/);
    expect(rows[1]).toMatch(/proposedAs proposed/);
  });
  it('gives what was there before back, but for what is there now', async () => {
    const { user, taken } = history();
    await user.click(screen.getByRole('button', { name: 'Who wrote what' }));
    await user.click(await screen.findByRole('button', { name: 'Take these' }));
    expect(taken).toEqual([copyView('As proposed')]);
  });
  it('of an approved short is only read, and a channel without words of its own says so', async () => {
    const locked = history(true);
    await locked.user.click(screen.getByRole('button', { name: 'Who wrote what' }));
    await screen.findAllByRole('listitem');
    expect(screen.queryByRole('button', { name: 'Take these' })).toBeNull();
  });
  it('says of a channel without words of its own that it has none, and why it cannot be read', async () => {
    const { user } = history(false, 'ch9');
    await user.click(screen.getByRole('button', { name: 'Who wrote what' }));
    expect(await screen.findByText('This channel has had no words of its own.')).toBeInTheDocument();
  });
  it('that cannot be read says why', async () => {
    const { user } = show(<CopyHistory short={shortView('z', 'x')} channelId={null} locked={false} onTake={() => undefined} />, {
      'api/shorts/z/history': new Refusal(503, 'The book is with the binder.'),
    });
    await user.click(screen.getByRole('button', { name: 'Who wrote what' }));
    expect(await screen.findByText('The book is with the binder.')).toBeInTheDocument();
  });
});

describe('words as each channel shows them', () => {
  onScreens();
  it('stand side by side, with the lines under every text, and what a channel refuses', () => {
    const short = shortView('a', 'For all', {
      fixedParts: ['tern.example'],
      channels: [
        shortChannel(),
        shortChannel({
          channelId: 'ch2',
          name: 'Tern long',
          variant: { ...copyView('Its own'), coverLine: 'On the picture' },
          problems: [{ field: 'coverLine', detail: '14 over' }],
        }),
        shortChannel({ channelId: 'ch3', name: 'Tern wide', unfit: 'It is too long for Loop.' }),
      ],
    });
    show(<AsSeen short={short} copy={copyView('Typed just now')} />);
    const [first, second, third] = within(screen.getByRole('region', { name: 'As each channel shows it' })).getAllByRole('article');
    expect(first).toHaveTextContent('Typed just now');
    expect(first).toHaveTextContent('tern.example');
    expect(first).toHaveTextContent('takes it');
    expect(second).toHaveTextContent('On the picture');
    expect(second).toHaveTextContent('Its own');
    expect(second).toHaveTextContent('cover line: 14 over');
    expect(third).toHaveTextContent('It is too long for Loop.');
  });
});
