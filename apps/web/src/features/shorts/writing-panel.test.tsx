// @vitest-environment jsdom
import { screen, within } from '@testing-library/react';
import { beforeEach, describe, expect, it } from 'vitest';
import type { FindingView, WritingView } from '../../app/api.js';
import { recordingView } from '../../app/recording.fixture.js';
import { type Answers, onScreens, Refusal, show } from '../../app/screen.fixture.js';
import { Passage } from './passage.js';
import { shortView } from './short.fixture.js';
import { WritingPanel } from './writing-panel.js';

const SHORT = shortView('a', 'No rope', { approved: false, approvedBy: null });
const finding: FindingView = {
  field: 'title',
  item: null,
  from: 0,
  to: 4,
  rule: 'figure',
  text: '4711',
  detail: '“4711” was not said.',
  mend: null,
  ticked: false,
};
const writing = (fields: Partial<WritingView> = {}): WritingView => ({
  id: 'w1',
  shortId: 'a',
  askedBy: 'Ada',
  askedAt: '2030-01-01T00:00:00Z',
  state: 'done',
  failure: null,
  titles: [
    { text: 'No rope on the slip', findings: [] },
    { text: '4711 ropes', findings: [finding] },
  ],
  description: 'What happened on the slip.',
  hashtags: ['boats'],
  keywords: [],
  coverLine: '',
  findings: [],
  otherLanguage: null,
  speaksToProgram: false,
  sent: '{"version": 1}',
  came: '{"titles": []}',
  ...fields,
});
const answers = (more: Answers = {}, writingService = true): Answers => ({
  'api/writing-service': { configured: true },
  'api/clients': [{ id: 'c1', name: 'Tern & Tide', writingService }],
  'api/shorts/a/writings': [],
  ...more,
});
const panel = (server: Answers) => {
  const taken: unknown[] = [];
  return { taken, ...show(<WritingPanel short={SHORT} onTake={(words) => taken.push(words)} />, server) };
};

describe('the writing service beside the words', () => {
  onScreens();
  it('is not there where none is configured', async () => {
    const { asked } = panel(answers({ 'api/writing-service': { configured: false } }));
    await expect.poll(() => asked.length).toBe(2);
    expect(screen.queryByText(/writing service/i)).toBeNull();
  });
  it('says where it is allowed, and asks for nothing before', async () => {
    const { asked } = panel(answers({}, false));
    expect(await screen.findByText(/not asked about Tern & Tide/)).toBeInTheDocument();
    expect(screen.getByRole('link', { name: /allowed on the client/ })).toHaveAttribute('href', '/clients/c1');
    expect(asked.filter(({ path }) => path.includes('writings'))).toEqual([]);
  });
  it('is asked by a key, waited for, and may be left waiting', async () => {
    const server = answers();
    const put = (state: WritingView['state']): WritingView => {
      const one = writing({ state, titles: [], description: '', hashtags: [] });
      server['api/shorts/a/writings'] = [one];
      return one;
    };
    server['POST api/shorts/a/writings'] = () => put('running');
    server['DELETE api/writings/w1'] = () => {
      put('cancelled');
      return null;
    };
    const { user } = panel(server);
    expect(await screen.findByRole('button', { name: /Ask for words/ })).toBeEnabled();
    await user.keyboard('w');
    expect(await screen.findByText('Waiting for its words…')).toBeInTheDocument();
    await user.click(await screen.findByRole('button', { name: 'Stop waiting' }));
    expect(await screen.findByText('Stopped.')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Ask again/ })).toBeEnabled();
  });
  it('shows what came with what was not said, takes it by click and key, and what was sent', async () => {
    const { user, taken } = panel(answers({ 'api/shorts/a/writings': [writing({ otherLanguage: 'German', speaksToProgram: true })] }));
    const list = within(await screen.findByRole('list', { name: 'What came back' }));
    expect(list.getByText('“4711” was not said.')).toBeInTheDocument();
    expect(screen.getByText('The answer is in German.')).toBeInTheDocument();
    expect(screen.getByText(/speaks to a program/)).toBeInTheDocument();
    await user.click(list.getByText('4711 ropes'));
    await user.keyboard('6');
    await user.click(screen.getByRole('button', { name: 'Take the text' }));
    expect(taken).toEqual([{ title: '4711 ropes' }, { title: 'No rope on the slip' }, { description: 'What happened on the slip.', hashtags: ['boats'] }]);
    await user.click(screen.getByRole('button', { name: 'What was sent and what came' }));
    expect(screen.getByLabelText('Sent')).toHaveTextContent('{"version": 1}');
    expect(screen.getByLabelText('Came')).toHaveTextContent('{"titles": []}');
  });
  it('says why no words came', async () => {
    panel(answers({ 'api/shorts/a/writings': [writing({ state: 'failed', failure: 'The writing service refused (503).', titles: [], came: null })] }));
    expect(await screen.findByText('The writing service refused (503).')).toBeInTheDocument();
    expect(screen.getByRole('button', { name: /Ask again/ })).toBeEnabled();
  });
});

describe('the passage of a short', () => {
  onScreens();
  beforeEach(() => {
    HTMLMediaElement.prototype.load = () => undefined; // not in jsdom
    HTMLMediaElement.prototype.pause = () => undefined;
  });
  const sentences = [
    { speaker: 'Ada', startMs: 61_000, endMs: 70_000, text: 'We had no rope.' },
    { speaker: 'Ada', startMs: 70_000, endMs: 80_000, text: 'None at all.' },
    { speaker: 'Bo', startMs: 80_000, endMs: 103_000, text: 'And the tide came.' },
  ];
  it('is shown with who speaks, folded until it is asked for', async () => {
    const { user } = show(<Passage short={SHORT} />, {
      'api/shorts/a/passage': { sentences, cuts: [] },
      'api/recordings/r1': recordingView('r1', 'On the slipway', { sound: null }),
    });
    expect(await screen.findByText('And the tide came.')).toBeInTheDocument();
    expect(screen.getAllByText('Ada')).toHaveLength(1);
    expect(screen.queryByRole('button', { name: 'Play the short' })).toBeNull();
    await user.keyboard('x');
    expect(screen.getByRole('button', { name: 'Fold the passage' })).toHaveAttribute('aria-expanded', 'true');
  });
  it('with a sound can be played', async () => {
    show(<Passage short={SHORT} />, { 'api/shorts/a/passage': { sentences, cuts: [] }, 'api/recordings/r1': recordingView('r1', 'On the slipway') });
    expect(await screen.findByRole('button', { name: 'Play the short' })).toBeInTheDocument();
    expect(document.querySelector('audio')?.getAttribute('src')).toBe('/api/recordings/r1/sound');
  });
  it('that cannot be read leaves its first line', async () => {
    show(<Passage short={SHORT} />, { 'api/shorts/a/passage': new Refusal(500, 'The drawer is stuck.') });
    expect(await screen.findByText('“We had no rope.”')).toBeInTheDocument();
  });
});
