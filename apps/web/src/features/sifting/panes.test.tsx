// @vitest-environment jsdom
import { FITTED_WEIGHTS, type Transcript } from '@sift-reel/core';
import type { BriefForm } from '@sift-reel/forms';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { type ReactNode, useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { CandidateView, SearchHitView } from '../../app/api.js';
import { onScreens, pick, Refusal, show } from '../../app/screen.fixture.js';
import { store } from '../../app/store.js';
import { undoLast } from '../../app/undo.js';
import { weightsWished } from './bench-slice.js';
import { BriefFields, FIRST_BRIEF, useBriefForm } from './brief-form.js';
import { FindPane } from './find-pane.js';
import type { Player } from '../../app/player.js';
import { ReelDialog } from './reel-dialog.js';
import { Weights } from './weights.js';

const nothing = (): void => undefined;

describe('finding', () => {
  onScreens();
  const hit = (fields: Partial<SearchHitView> = {}): SearchHitView => ({
    firstWord: 12,
    endWord: 20,
    startMs: 61_000,
    endMs: 66_000,
    score: 1,
    by: 'words',
    text: 'We had no rope at all.',
    ...fields,
  });
  function Pane(props: { onGoTo?: (word: number) => void; onMake?: (hit: SearchHitView) => void; making?: boolean; language?: string }): ReactNode {
    const [query, setQuery] = useState('');
    return (
      <FindPane
        recordingId="r1"
        query={query}
        onQuery={setQuery}
        onGoTo={props.onGoTo ?? nothing}
        onMake={props.onMake ?? nothing}
        making={props.making ?? false}
        language={props.language ?? null}
      />
    );
  }
  const found = (q: string, hits: SearchHitView[], byMeaning = true) => ({ [`api/recordings/r1/search?q=${q}`]: { query: q, byMeaning, hits } });

  it('says what it finds before anything is typed, and asks once the typing rests', async () => {
    const { user, asked } = show(<Pane />, found('rope', [hit(), hit({ firstWord: 90, by: 'meaning', text: 'Nothing to tie her up with.' })]));
    expect(screen.getByText(/in any inflection, and by what they mean/)).toBeInTheDocument();
    await user.type(screen.getByLabelText('Find in the transcript'), 'rope ');
    expect(await screen.findByText('2 hits')).toBeInTheDocument();
    expect(asked.map(({ path }) => path)).toEqual(['api/recordings/r1/search?q=rope']);
    const [first, second] = screen.getAllByTestId('hit');
    expect(first).toHaveTextContent(/01:01by its words.*We had no rope at all\./);
    expect(second).toHaveTextContent('by what it means');
  });
  it('leads to a hit, and makes a candidate of it', async () => {
    const [onGoTo, onMake] = [vi.fn(), vi.fn()];
    const { user } = show(<Pane onGoTo={onGoTo} onMake={onMake} />, found('rope', [hit()]));
    await user.type(screen.getByLabelText('Find in the transcript'), 'rope');
    await user.click(await screen.findByRole('button', { name: '01:01' }));
    expect(onGoTo).toHaveBeenCalledWith(12);
    await user.click(screen.getByRole('button', { name: 'Make a candidate' }));
    expect(onMake).toHaveBeenCalledWith(hit());
  });
  it('says that nothing was found, and that meaning waits for the first sift', async () => {
    const { user } = show(<Pane />, found('anvil', [], false));
    await user.type(screen.getByLabelText('Find in the transcript'), 'anvil');
    expect(await screen.findByText(/Nothing found\. Meaning cannot be searched until the recording has been sifted\./)).toBeInTheDocument();
  });
  it('says that meaning is not known of talk in another language, and never asks to sift for it', async () => {
    const { user } = show(<Pane language="German" />, found('rope', [hit()], false));
    expect(screen.getByText(/Finds sentences by their words\. Hits/)).toBeInTheDocument();
    await user.type(screen.getByLabelText('Find in the transcript'), 'rope');
    expect(await screen.findByText('1 hit Meaning cannot be searched: the talk is in German.')).toBeInTheDocument();
  });
  it('says why it could not look', async () => {
    const { user } = show(<Pane />, { 'api/recordings/r1/search?q=rope': new Refusal(404, 'This recording is gone.') });
    await user.type(screen.getByLabelText('Find in the transcript'), 'rope');
    expect(await screen.findByRole('alert')).toHaveTextContent('This recording is gone.');
  });
});

describe('the highlight reel', () => {
  onScreens();
  const transcript = { words: Array.from({ length: 900 }, (_, i) => ({ text: `w${i}` })) } as unknown as Transcript;
  const candidate = (i: number, seconds: number, fields: Partial<CandidateView> = {}): CandidateView =>
    ({
      id: `k${i}`,
      rank: i + 1,
      score: 90 - i,
      startMs: 100_000 * i,
      endMs: 100_000 * i + 1_000 * seconds,
      firstWord: 60 * i,
      endWord: 60 * i + 50,
      state: 'open',
      alternatives: [],
      ...fields,
    }) as CandidateView;
  const CANDIDATES = [40, 35, 50, 45, 30, 55, 38, 42].map((seconds, i) => candidate(i, seconds));
  const reel = (candidates = CANDIDATES, hasSound = true, answers = {}) => {
    const playSpan = vi.fn();
    const player = { playing: false, atMs: 0, trouble: null, playSpan, pause: nothing, seek: nothing } as unknown as Player;
    return {
      playSpan,
      ...show(
        <ReelDialog
          siftId="s1"
          title="On: the slipway"
          candidates={candidates}
          transcript={transcript}
          player={player}
          hasSound={hasSound}
          onClose={nothing}
        />,
        answers,
        { at: '/bench', route: '/bench' },
      ),
    };
  };
  const lengthsMs = (): number[] =>
    screen.getAllByTestId('reel-part').map((part) =>
      Number(
        /(\d):(\d\d)/
          .exec(part.children[1]!.textContent)!
          .slice(1)
          .reduce((sum, n) => 60 * sum + Number(n), 0),
      ),
    );

  it('is of the length asked for, within five seconds, in the order that was said', async () => {
    const { user } = reel();
    expect(Math.abs(lengthsMs().reduce((a, b) => a + b, 0) - 240)).toBeLessThanOrEqual(6);
    await pick(user, /^Length/, '2:00');
    expect(Math.abs(lengthsMs().reduce((a, b) => a + b, 0) - 120)).toBeLessThanOrEqual(6);
    const starts = screen.getAllByTestId('reel-part').map((part) => part.firstElementChild!.textContent);
    expect([...starts].sort()).toEqual(starts);
  });
  it('leaves dropped ones out, and says so when nothing adds up', async () => {
    reel([candidate(0, 40), candidate(1, 35, { state: 'dropped' })]);
    expect(screen.getByRole('alert')).toHaveTextContent('No parts add up to 4:00; the nearest below it is 0:40.');
    expect(screen.queryByRole('button', { name: 'Download as CSV' })).toBeNull();
  });
  it('of nothing says so', () => {
    reel([]);
    expect(screen.getByRole('alert')).toHaveTextContent('There are no candidates to make a reel of.');
  });
  it('is kept as one short of its parts, and leads there', async () => {
    const { user, asked, place } = reel(CANDIDATES, true, { 'POST api/sifts/s1/reel': { id: 'short9' } });
    await pick(user, /^Length/, '2:00');
    await user.click(screen.getByRole('button', { name: 'Keep it as one short' }));
    await expect.poll(place).toBe('/shorts/short9');
    const { parts } = asked.find(({ method }) => method === 'POST')!.body as { parts: { firstWord: number; endWord: number }[] };
    expect(parts.length).toBeGreaterThan(1);
    expect(parts.every(({ firstWord, endWord }, i) => endWord === firstWord + 50 && firstWord > (parts[i - 1]?.firstWord ?? -1))).toBe(true);
  });
  it('plays a part, where there is sound', async () => {
    const { user, playSpan } = reel();
    await user.click(within(screen.getAllByTestId('reel-part')[0]!).getByRole('button', { name: 'Play' }));
    expect(playSpan).toHaveBeenCalledTimes(1);
    reel(CANDIDATES, false);
    expect(screen.getAllByRole('button', { name: 'Play' }).at(-1)).toBeDisabled();
  });
  it('is taken away as a table of its parts', async () => {
    let file: Blob | null = null;
    const named: string[] = [];
    URL.createObjectURL = (blob) => {
      file = blob as Blob;
      return 'blob:reel';
    };
    URL.revokeObjectURL = nothing;
    const click = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
      named.push(this.download);
    });
    const { user } = reel();
    await user.click(screen.getByRole('button', { name: 'Download as CSV' }));
    click.mockRestore();
    expect(named).toEqual(['On the slipway - highlight reel.csv']);
    const lines = (await file!.text()).trim().split(/\r?\n/);
    expect(lines[0]).toBe('part,start,end,seconds,words');
    expect(lines).toHaveLength(1 + screen.getAllByTestId('reel-part').length);
  });
});

describe('what counts', () => {
  onScreens();
  afterEach(() => {
    store.dispatch(weightsWished(null));
  });
  const panel = (clientWeights: number[] | null = null, answers = {}) =>
    show(<Weights clientId="c1" clientWeights={clientWeights} siftWeights={FITTED_WEIGHTS} topicsAsked={false} clientVersion={4} />, answers);
  const slide = async (user: { click: (element: Element) => Promise<void> }, name: string, value: number): Promise<void> => {
    if (screen.queryByRole('slider') === null) await user.click(screen.getByRole('button', { name: /What counts/ }));
    fireEvent.change(screen.getByRole('slider', { name: new RegExp(name) }), { target: { value } });
  };
  const shares = (): number[] => screen.getAllByRole('slider').map((slider) => Number(/^\d+/.exec(slider.getAttribute('aria-valuetext')!)![0]));

  it('is moved by sliders whose shares add up, and goes back', async () => {
    const { user } = panel();
    await slide(user, 'Opening', 60);
    expect(screen.getByText('· ranked by your weights')).toBeInTheDocument();
    expect(Math.abs(shares().reduce((a, b) => a + b, 0) - 100)).toBeLessThanOrEqual(3);
    expect(shares()[0]).toBeGreaterThan(30);
    expect(store.getState().bench.weights![0]).toBe(0.6);
    await user.click(screen.getByRole('button', { name: 'Back to the sift’s' }));
    expect(store.getState().bench.weights).toBeNull();
    expect(screen.getByRole('button', { name: 'Back to the sift’s' })).toBeDisabled();
  });
  it('never lets all sliders stand at nothing', async () => {
    store.dispatch(weightsWished([1, 0, 0, 0, 0, 0]));
    const { user } = panel();
    await slide(user, 'Opening', 0);
    expect(store.getState().bench.weights).toEqual([1, 0, 0, 0, 0, 0]);
  });
  it('is saved for the client, and undo puts back what the client had', async () => {
    const { user, asked } = panel(null, { 'PUT api/clients/c1/signal-weights': { version: 5 } });
    await slide(user, 'Charge', 60);
    await user.click(screen.getByRole('button', { name: 'Save for client' }));
    await expect.poll(() => asked.length).toBe(1);
    expect((asked[0]!.body as { weights: number[] }).weights[3]).toBe(0.6);
    await undoLast();
    expect(asked[1]!.body).toEqual({ weights: null, version: 5 }); // the version that the save before it made
  });
  it('of a client’s own can be forgotten, or taken as the default', async () => {
    const own = [0.5, 0.1, 0.1, 0.1, 0.1, 0.1];
    const { user, asked } = panel(own, { 'PUT api/clients/c1/signal-weights': {} });
    await user.click(screen.getByRole('button', { name: /What counts/ }));
    await user.click(screen.getByRole('button', { name: 'Client’s default' }));
    expect(store.getState().bench.weights).toEqual(own);
    await user.click(screen.getByRole('button', { name: 'Forget client’s own' }));
    await expect.poll(() => asked.map(({ body }) => body)).toEqual([{ weights: null, version: 4 }]);
  });
});

describe('a brief', () => {
  onScreens();
  let values: () => BriefForm;
  function Form({ defaults = FIRST_BRIEF }: { defaults?: BriefForm }): ReactNode {
    const { control, setValue, formState, getValues } = useBriefForm(defaults);
    values = getValues;
    return <BriefFields control={control} setValue={setValue} errors={formState.errors} refused={{ topics: 'Too many topics' }} />;
  }
  it('takes a usual length, or one’s own', async () => {
    const { user } = show(<Form />);
    await pick(user, 'Length of a candidate', '60–90 s');
    expect(values()).toMatchObject({ minMs: 60_000, maxMs: 90_000 });
    fireEvent.change(screen.getByLabelText('Longest, seconds'), { target: { value: '75' } });
    expect(values().maxMs).toBe(75_000);
    expect(screen.getByLabelText('Length of a candidate')).toHaveTextContent('as written below');
  });
  it('says at once where a length is wrong', async () => {
    show(<Form />);
    fireEvent.change(screen.getByLabelText('Longest, seconds'), { target: { value: '10' } });
    await waitFor(() => expect(screen.getByText('must be longer than the shortest')).toBeInTheDocument());
  });
  it('takes topics, words to leave out and kinds', async () => {
    const { user } = show(<Form />);
    await user.type(screen.getByLabelText('About'), 'wet wood, carbon monoxide, ');
    await user.type(screen.getByLabelText('Never with'), 'names');
    await user.click(screen.getByLabelText('Story'));
    await user.click(screen.getByLabelText('Humour'));
    await user.click(screen.getByLabelText('Story'));
    expect(values()).toMatchObject({ topics: ['wet wood', 'carbon monoxide'], avoid: ['names'], kinds: ['humour'] });
  });
  it('takes a part by the clock, and nothing for the end', async () => {
    const { user } = show(<Form />);
    const from = screen.getByLabelText('Part that counts, from');
    await user.clear(from);
    await user.type(from, '1:02:03');
    await user.tab();
    expect(values()).toMatchObject({ partStartMs: 3_723_000, partEndMs: null });
  });
  it('says what the server refused beside its field', () => {
    show(<Form />);
    expect(screen.getByText('Too many topics')).toBeInTheDocument();
    expect(screen.getByLabelText('About')).toHaveAttribute('aria-invalid', 'true');
  });
});
