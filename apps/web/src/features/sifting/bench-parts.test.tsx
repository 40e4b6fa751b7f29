import { type Transcript } from '@sift-reel/core';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { Provider } from 'react-redux';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, it } from 'vitest';
import type { AlternativeView, CandidateView, ChapterView, KeyPhraseView } from '../../app/api.js';
import { mediaOf } from '../../app/media.js';
import { recordingView } from '../../app/recording.fixture.js';
import { store } from '../../app/store.js';
import { Alternatives } from './alternatives.js';
import { filtered, signalLit } from './bench-slice.js';
import { MakeUpBand, MakeUpLine } from './make-up.js';
import { notesOf } from './notes.js';
import { PhrasesPane } from './phrases-pane.js';
import type { Player, PlayerTime } from '../../app/player.js';
import { Reasons } from './reasons.js';
import { Seam } from './seam.js';

const html = (node: ReactNode): string =>
  renderToStaticMarkup(
    <Provider store={store}>
      <MemoryRouter>{node}</MemoryRouter>
    </Provider>,
  );
/** What is read on the screen: tags become spaces. */
const text = (node: ReactNode): string =>
  html(node)
    .replace(/<[^>]+>/g, ' ')
    .replace(/&#x27;/g, '’')
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ')
    .trim();
/** The opening tag of the element that holds some words. */
const tagOf = (node: ReactNode, words: string): string => new RegExp(`<[a-z]+[^>]*>(?=[^<]*${words})`).exec(html(node))?.[0] ?? '';

const nothing = (): void => undefined;
const timeAt = (ms: number): PlayerTime => ({ subscribe: () => nothing, get: () => ms });
const PLAYER: Player = {
  playing: false,
  time: timeAt(0),
  played: timeAt(0),
  trouble: null,
  playSpan: nothing,
  playCuts: nothing,
  arm: nothing,
  pause: nothing,
  seek: nothing,
  pictures: [],
};
const words = Array.from({ length: 60 }, (_, i) => ({ text: `w${i}`, kind: 'word', speaker: 0, startMs: 1_000 * i, endMs: 1_000 * i + 800 }));
const TRANSCRIPT = { words } as unknown as Transcript;
const SIGNALS = ['opening', 'standsAlone', 'substance', 'charge', 'delivery', 'currency'] as const;

const candidate = (fields: Partial<CandidateView> = {}): CandidateView =>
  ({
    id: 'c1',
    rank: 2,
    score: 87.6,
    startMs: 12_300,
    endMs: 54_000,
    firstWord: 12,
    endWord: 54,
    foundFirstWord: 12,
    foundEndWord: 54,
    title: 'The sock in the window',
    firstLine: 'There was a sock in the window.',
    lastLine: 'And nobody ever asks for it back.',
    reason: 'A story: something that happened',
    kind: 'story',
    state: 'open',
    origin: 'found',
    hashtags: ['sock', 'window'],
    alternatives: [],
    signals: SIGNALS.map((signal, k) => ({ signal, value: 50 + k, known: true, sentence: `What ${signal} says`, evidence: k === 0 ? [12, 14, 20, 21] : [] })),
    ...fields,
  }) as unknown as CandidateView;

const reasons = (fields: Partial<CandidateView> = {}, props: { player?: Partial<Player>; hasSound?: boolean; total?: number } = {}) => (
  <Reasons
    candidate={candidate(fields)}
    total={props.total ?? 41}
    transcript={TRANSCRIPT}
    player={{ ...PLAYER, ...props.player }}
    media={mediaOf(recordingView('r1', 'A'))}
    hasSound={props.hasSound ?? true}
    onState={nothing}
    onPlay={nothing}
    onGoTo={nothing}
    onBack={nothing}
    onTake={nothing}
    onRemove={nothing}
    weights={[1, 2, 3, 2, 1, 1]}
  />
);

afterEach(() => {
  store.dispatch(signalLit(null));
  store.dispatch(filtered({ phrase: null }));
});

describe('reasons', () => {
  it('say the score, the place, the kind and both ends', () => {
    const shown = text(reasons());
    expect(shown).toContain('88 second of 41, 42 s');
    expect(shown).toContain('Story');
    expect(shown).toMatch(/00:12\.3 – 00:54\.0/);
    expect(shown).toContain('#sock #window');
    expect(shown).toContain('22 characters');
  });
  it.each([
    [1, 'first'],
    [10, 'tenth'],
    [11, '11th'],
    [12, '12th'],
    [21, '21st'],
    [22, '22nd'],
    [103, '103rd'],
    [111, '111th'],
  ])('rank %d is the %s', (rank, ordinal) => expect(text(reasons({ rank }, { total: 500 }))).toContain(`${ordinal} of 500`));
  it('show a stroke, and no bar, for what is not known', () => {
    const signals = candidate().signals.map((signal, k) => ({ ...signal, known: k !== 0 }));
    const shown = html(reasons({ signals }));
    expect(shown).toMatch(/aria-label="Opening not known">–</);
    expect(shown).toContain('aria-label="Stands alone 51 of 100">51<');
    expect(shown).not.toContain('width:50%');
    expect(shown).toContain('width:51%');
  });
  it('speak of a long cut in minutes', () => expect(text(reasons({ endMs: 12_300 + 495_000 }))).toContain('second of 41, 8:15'));
  it('give each signal its sentence, its share of the score, and times that lead to its words', () => {
    const shown = html(reasons());
    for (const signal of SIGNALS) expect(shown).toContain(`What ${signal} says`);
    expect(shown).toContain('Counts 30 of 100 in the score');
    expect(text(reasons())).toContain('What opening says 00:12 00:20');
  });
  it('dim the others while one signal is lit', () => {
    store.dispatch(signalLit('charge'));
    const dimmed = [...html(reasons()).matchAll(/data-testid="signal-(\w+)" data-dimmed="(\w+)"/g)].map(([, signal, is]) => [signal, is === 'true']);
    expect(dimmed).toEqual(SIGNALS.map((signal) => [signal, signal !== 'charge']));
  });
  it.each([
    ['open', 'Keep', 'Drop', true],
    ['kept', 'Kept', 'Drop', false],
    ['dropped', 'Keep', 'Dropped', false],
  ] as const)('of a candidate that is %s offer %s and %s', (state, keep, drop, closed) => {
    const node = reasons({ state });
    expect(text(node)).toContain(keep);
    expect(text(node)).toContain(drop);
    expect(tagOf(node, 'Leave open').includes('disabled=""')).toBe(closed);
  });
  it('say that ends were moved, and from where to where it was found', () => {
    expect(text(reasons({ firstWord: 14 }))).toContain('You moved its ends. Score and reasons are those of the passage as it was found, 00:12 to 00:53.');
    expect(text(reasons())).not.toContain('You moved its ends');
  });
  it('of one’s own candidate say so, and offer to take it away unless it is kept', () => {
    expect(text(reasons({ origin: 'own' }))).toContain('your own, second of 41');
    expect(text(reasons({ origin: 'own' }))).toContain('Take this candidate away');
    expect(text(reasons({ origin: 'own', state: 'kept' }))).not.toContain('Take this candidate away');
    expect(text(reasons())).not.toContain('Take this candidate away');
  });
  it('without sound say where to add it; with trouble, what is wrong', () => {
    expect(tagOf(reasons({}, { hasSound: false }), 'Play')).toContain('This recording has no sound yet');
    expect(text(reasons({}, { hasSound: false }))).toContain('No sound yet: add it on the recordings screen to listen.');
    expect(text(reasons({}, { player: { playing: true } }))).toContain('Pause');
    expect(html(reasons({}, { player: { trouble: 'The sound cannot be played here.' } }))).toMatch(/role="alert"[^>]*>The sound cannot be played here\./);
  });
});

describe('alternatives', () => {
  const alternative = (fields: Partial<AlternativeView>): AlternativeView => ({
    startMs: 8_300,
    endMs: 54_000,
    firstWord: 8,
    endWord: 54,
    score: 84.2,
    why: 'other-cut',
    firstLine: 'It was the winter of the big snow.',
    ...fields,
  });
  const shown = (...alternatives: AlternativeView[]) => <Alternatives candidate={candidate({ alternatives })} onTake={nothing} onGoTo={nothing} />;
  it('are not there when there are none', () => expect(html(shown())).toBe(''));
  it.each<[Partial<AlternativeView>, string]>([
    [{}, 'starts 4 s sooner'],
    [{ startMs: 16_300 }, 'starts 4 s later'],
    [{ endMs: 66_000 }, 'starts 4 s sooner, ends 12 s later'],
    [{ startMs: 12_400, endMs: 42_000 }, 'ends 12 s sooner'],
  ])('say how another cut differs: %j', (fields, words) => {
    expect(text(shown(alternative(fields)))).toContain(words);
    expect(text(shown(alternative(fields)))).toContain('Take');
  });
  it('that say the same elsewhere are led to, not taken', () => {
    const node = shown(alternative({ why: 'said-again', startMs: 400_000, endMs: 430_000 }));
    expect(text(node)).toContain('06:40 · 0:30 · 84 says the same again');
    expect(text(node)).not.toContain('Take');
  });
  it('one that is taken cannot be taken again', () =>
    expect(tagOf(shown(alternative({ firstWord: 12, endWord: 54, startMs: 12_300 })), 'Taken')).toContain('disabled=""'));
});

describe('key phrases', () => {
  const phrase = (fields: Partial<KeyPhraseView>): KeyPhraseView =>
    ({ text: 'wet wood', count: 7, firstWords: [15, 400], volume: null, change: null, competition: null, ...fields }) as KeyPhraseView;
  const pane = (...phrases: KeyPhraseView[]) => <PhrasesPane phrases={phrases} candidates={[candidate(), candidate({ firstWord: 100, endWord: 160 })]} />;
  it('say how often each is said, in how many candidates, and how it is looked for', () => {
    expect(text(pane(phrase({ volume: 18_400, change: 0.081, competition: 0.4 })))).toContain('wet wood 7 1 18,400 +8 %');
    expect(html(pane(phrase({ volume: 18_400, change: 0.081, competition: 0.4 })))).toContain('Competition 40 of 100');
    expect(text(pane(phrase({ volume: 900, change: -0.25 })))).toContain('900 −25 %');
    expect(text(pane(phrase({ volume: 900, change: 0 })))).toMatch(/900 ?$/);
  });
  it('say that no interest list knows them', () => {
    expect(text(pane(phrase({})))).toContain('no interest list that knows any of them');
    expect(text(pane(phrase({}), phrase({ text: 'soot', volume: 5, change: 0 })))).not.toContain('no interest list');
  });
  it('that no candidate carries cannot be chosen', () => {
    expect(tagOf(pane(phrase({ firstWords: [300] })), 'wet wood')).toContain('disabled=""');
    expect(tagOf(pane(phrase({})), 'wet wood')).not.toContain('disabled=""');
  });
  it('the chosen one is pressed', () => {
    store.dispatch(filtered({ phrase: { text: 'wet wood', firstWords: [15, 400] } }));
    expect(tagOf(pane(phrase({})), 'wet wood')).toContain('aria-pressed="true"');
    expect(tagOf(pane(phrase({ text: 'soot' })), 'soot')).toContain('aria-pressed="false"');
  });
  it('are explained where there are none', () => expect(text(pane())).toContain('Sift it again to see them'));
});

describe('the seam', () => {
  const chapter = (startMs: number, title: string): ChapterView =>
    ({ startMs, endMs: startMs + 60_000, firstWord: startMs, endWord: startMs + 1, title }) as ChapterView;
  const seam = (fields: Partial<Parameters<typeof Seam>[0]> = {}) => (
    <Seam
      durationMs={200_000}
      ridge={[0, 40, 80, 40, 0]}
      chapters={[chapter(0, 'Socks'), chapter(100_000, 'Windows')]}
      candidates={[candidate({ state: 'kept' }), candidate({ id: 'c2', rank: 9, startMs: 100_000, endMs: 120_000, title: 'Weak one' })]}
      strongCount={5}
      partStartMs={0}
      partEndMs={200_000}
      chosen={null}
      time={timeAt(0)}
      hitsMs={[]}
      sprite={null}
      levels={undefined}
      onSeek={nothing}
      onChoose={nothing}
      {...fields}
    />
  );
  it('shows chapters from one to the next, and candidates by what became of them', () => {
    expect(html(seam())).toMatch(/<button[^>]*aria-label="Socks"[^>]*left:0%;width:50%[^>]*><span[^>]*>Socks</);
    expect(html(seam())).toMatch(/<button[^>]*aria-label="Windows"[^>]*left:50%;width:50%[^>]*><span[^>]*>Windows</);
    expect(html(seam())).toMatch(/title="2\. The sock in the window · 00:12"[^>]*bg-verdigris/);
    expect(html(seam())).toMatch(/title="9\. Weak one · 01:40"[^>]*bg-ridge/);
  });
  it('marks the chosen one, the playhead and the hits of a search', () => {
    const shown = html(seam({ chosen: candidate({ id: 'c2', startMs: 100_000, endMs: 120_000 }), time: timeAt(50_000), hitsMs: [20_000, 60_000] }));
    expect(shown).toContain('left:50%;width:10%');
    expect(shown).toMatch(/bg-ink"[^>]*left:25%/);
    expect(shown.match(/bg-indigo/g)).toHaveLength(2);
    expect(shown).toMatch(/title="9\. Weak one · 01:40"[^>]*bg-madder/);
  });
  it('hatches what the brief leaves out, and nothing else', () => {
    expect(html(seam())).not.toContain('hatched');
    expect(html(seam({ partStartMs: 20_000 })).match(/hatched[^>]*width:10%/g)).toHaveLength(1);
    expect(html(seam({ partStartMs: 20_000, partEndMs: 180_000 })).match(/hatched/g)).toHaveLength(2);
  });
});

describe('what the recording is made of', () => {
  const makeUp = { sentence: 'A lesson: few passages stand by themselves.', shares: [0.51, 0.12, 0.02, 0, 0.35, 0], steps: [0, 0, -1, 4, 4, 1] };
  it('is a sentence, with the share of each stuff that counts', () => {
    expect(text(<MakeUpLine makeUp={makeUp} />)).toBe('A lesson: few passages stand by themselves. explaining 51 % verdicts 12 % procedure 35 %');
  });
  it('stands on the seam, one piece for each stretch, and none where nobody speaks', () => {
    const pieces = [...html(<MakeUpBand steps={makeUp.steps} />).matchAll(/left:([\d.]+)%;width:([\d.]+)%/g)].map(([, left, width]) => [
      Math.round(+left!),
      Math.round(+width!),
    ]);
    expect(pieces).toEqual([
      [0, 33],
      [50, 33],
      [83, 17],
    ]);
  });
  it('is not known of talk in another language, which the note names', () => {
    expect(notesOf([], true, 'German')[0]).toMatch(/^The talk is in German, which is not understood here: Opening and Charge cannot be known\./);
    expect(notesOf(['no-sound', 'no-speakers'], true)).toEqual([
      'This sift did not listen to the sound, so Delivery rests on the text; sift again to have it heard.',
      'Nobody is named, so questions and answers cannot be told apart by voice.',
    ]);
    expect(notesOf(['no-sound'], false)[0]).toMatch(/^There is no sound/);
  });
});
