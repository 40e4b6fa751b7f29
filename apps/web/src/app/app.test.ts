import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SignInForm } from '@sift-reel/forms';
import { api, type CandidateView, type RankingView } from './api.js';
import { keyName } from './keys.js';
import { problemOf, problemText } from './problems.js';
import { goOn, signedIn } from './session.js';
import { stageName } from './stages.js';
import { store } from './store.js';
import { didSomething, doNow, redoLast, undoDeed, undoLast } from './undo.js';

/** The server's answers, by method and path; every request is kept. */
let answers: Record<string, () => { status?: number; body: unknown }>;
let asked: { method: string; url: string; body: string; csrf: string | null }[];

beforeEach(() => {
  answers = {};
  asked = [];
  vi.stubGlobal('location', { origin: 'http://app.test', href: 'http://app.test/' });
  const RealRequest = globalThis.Request;
  vi.stubGlobal(
    'Request',
    class extends RealRequest {
      constructor(input: string | Request, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, 'http://app.test') : input, init);
      }
    },
  );
  vi.stubGlobal('fetch', async (request: Request) => {
    const path = new URL(request.url).pathname;
    asked.push({ method: request.method, url: path, body: await request.clone().text(), csrf: request.headers.get('x-csrf-token') });
    const answer = answers[`${request.method} ${path}`]?.() ?? { status: 404, body: { status: 404, detail: 'There is no such thing.' } };
    return new Response(JSON.stringify(answer.body), { status: answer.status ?? 200, headers: { 'content-type': 'application/json' } });
  });
  store.dispatch(api.util.resetApiState());
});
afterEach(() => vi.unstubAllGlobals());

const notice = (): string | undefined => store.getState().notices.at(-1)?.text;
const candidate = (fields: Partial<CandidateView> = {}): CandidateView =>
  ({ id: 'c1', rank: 1, state: 'open', title: 'One', firstWord: 4, endWord: 9, ...fields }) as CandidateView;
const loadRanking = async (): Promise<void> => {
  answers['GET /api/sifts/s1/ranking'] = () => ({
    body: { sift: { id: 's1', recordingId: 'r1' }, candidates: [candidate(), candidate({ id: 'c2', rank: 2 })] },
  });
  await store.dispatch(api.endpoints.readRanking.initiate('s1'));
};
const ranked = (id = 'c1'): CandidateView =>
  (api.endpoints.readRanking.select('s1')(store.getState() as never).data as RankingView).candidates.find((one) => one.id === id)!;

describe('requests', () => {
  it('send a checked form as JSON, with the session’s token', async () => {
    answers['GET /api/session'] = () => ({ body: { userId: 'u1', csrfToken: 'token-1' } });
    answers['POST /api/session'] = () => ({ status: 201, body: {} });
    await store.dispatch(api.endpoints.readSession.initiate());
    await store.dispatch(api.endpoints.signIn.initiate(Object.assign(new SignInForm(), { email: 'a@b.example', password: 'x' })));
    expect(asked[1]).toMatchObject({ method: 'POST', body: '{"email":"a@b.example","password":"x"}', csrf: 'token-1' });
  });
});

describe('keeping a candidate', () => {
  it('shows at once, before the server has answered, and loads no ranking again', async () => {
    await loadRanking();
    answers['PUT /api/candidates/c1/state'] = () => ({ body: candidate({ state: 'kept' }) });
    const pending = store.dispatch(api.endpoints.setCandidateState.initiate({ candidateId: 'c1', candidateStateForm: { state: 'kept' } }));
    expect(ranked().state).toBe('kept');
    expect(ranked('c2').state).toBe('open');
    await pending;
    expect(asked.filter((one) => one.url.endsWith('/ranking'))).toHaveLength(1);
  });
  it('goes back when the server refuses', async () => {
    await loadRanking();
    answers['PUT /api/candidates/c1/state'] = () => ({ status: 409, body: { status: 409, detail: 'Its short stands on the schedule.' } });
    await store.dispatch(api.endpoints.setCandidateState.initiate({ candidateId: 'c1', candidateStateForm: { state: 'dropped' } }));
    expect(ranked().state).toBe('open');
  });
  it('stays kept through a list that was asked for before, and counts at once where it is counted', async () => {
    answers['GET /api/sifts/s1/ranking'] = () => ({
      body: { sift: { id: 's1', recordingId: 'r1' }, candidates: [candidate(), candidate({ id: 'c2', rank: 2 })] },
    });
    await store.dispatch(api.endpoints.readRanking.initiate('s1'));
    answers['GET /api/recordings'] = () => ({ body: [{ id: 'r1', latestSift: { id: 's1', keptCount: 2 } }] });
    await store.dispatch(api.endpoints.listRecordings.initiate(undefined));
    // A refetch is on its way when the key is pressed, and answers after the server has kept it, with what it saw before.
    const refetch = store.dispatch(api.endpoints.readRanking.initiate('s1', { forceRefetch: true }));
    answers['PUT /api/candidates/c1/state'] = () => ({ body: candidate({ state: 'kept' }) });
    const keep = store.dispatch(api.endpoints.setCandidateState.initiate({ candidateId: 'c1', candidateStateForm: { state: 'kept' } }));
    expect(ranked().state).toBe('kept');
    await Promise.all([refetch, keep]);
    expect(ranked().state).toBe('kept');
    const recordings = api.endpoints.listRecordings.select(undefined)(store.getState() as never).data!;
    expect(recordings[0]!.latestSift!.keptCount).toBe(3);
    expect(asked.filter((one) => one.url === '/api/recordings')).toHaveLength(1);
  });
  it('takes over what the server says of moved ends', async () => {
    await loadRanking();
    answers['PUT /api/candidates/c1/span'] = () => ({ body: candidate({ firstWord: 5, endWord: 9, startMs: 777 }) });
    const pending = store.dispatch(api.endpoints.setCandidateSpan.initiate({ candidateId: 'c1', wordSpanForm: { firstWord: 5, endWord: 9 } }));
    expect(ranked().firstWord).toBe(5);
    await pending;
    expect(ranked().startMs).toBe(777);
  });
});

describe('a session that ended', () => {
  it('keeps what was asked until somebody signs in again, and asks it once more', async () => {
    store.dispatch(signedIn('u1'));
    let over = true;
    answers['PUT /api/shorts/a/copy'] = () => (over ? { status: 401, body: { status: 401, detail: 'Sign in first.' } } : { body: { id: 'a', version: 4 } });
    const copyForm = { title: 'Typed with care', description: '', hashtags: [], keywords: [], coverLine: '', version: 3 };
    const saving = store.dispatch(api.endpoints.saveCopy.initiate({ shortId: 'a', copyForm })).unwrap();
    await expect.poll(() => store.getState().session.ended).toBe(true);
    over = false;
    answers['POST /api/session'] = () => ({ status: 201, body: { userId: 'u1', csrfToken: 'token-of-the-new-session' } });
    await store.dispatch(api.endpoints.signIn.initiate(Object.assign(new SignInForm(), { email: 'a@b.example', password: 'x' })));
    store.dispatch(signedIn('u1'));
    goOn();
    expect(await saving).toMatchObject({ version: 4 });
    const saves = asked.filter((one) => one.method === 'PUT');
    expect(saves.map((one) => one.body)).toEqual([JSON.stringify(copyForm), JSON.stringify(copyForm)]);
    expect(saves[1]!.csrf).toBe('token-of-the-new-session'); // with the old one it was refused, and saved only when the field was next left
  });
  it('is not asked for where nobody was signed in', async () => {
    answers['GET /api/session'] = () => ({ status: 401, body: { status: 401, detail: 'Sign in first.' } });
    const { error } = await store.dispatch(api.endpoints.readSession.initiate());
    expect(error).toMatchObject({ status: 401 });
  });
});

describe('the schedule on the screen', () => {
  const reads = (): number => asked.filter(({ method, url }) => method === 'GET' && url === '/api/schedule').length;
  it.each<[string, string, () => unknown]>([
    [
      'a short is approved',
      'PUT /api/shorts/s1/approval',
      () => api.endpoints.setApproval.initiate({ shortId: 's1', approvalForm: { approved: true, version: 1 } }),
    ],
    ['a post is taken off', 'DELETE /api/posts/p1', () => api.endpoints.takeOffPost.initiate('p1')],
    [
      'a day without posts is set',
      'POST /api/clients/c1/blackouts',
      () => api.endpoints.createBlackout.initiate({ clientId: 'c1', blackoutForm: {} as never }),
    ],
    ['something was missed while the line was down', '', () => api.util.invalidateTags(['Schedule'])],
  ])('is asked for again when %s', async (_, route, act) => {
    answers['GET /api/schedule'] = () => ({ body: { posts: [], shorts: [], channels: [] } });
    if (route !== '') answers[route] = () => ({ body: {} });
    const shown = store.dispatch(api.endpoints.readSchedule.initiate());
    await shown;
    expect(reads()).toBe(1);
    await store.dispatch(act() as never);
    await expect.poll(reads).toBe(2);
    shown.unsubscribe();
  });
});

describe('undo', () => {
  it('takes the last deed back, then the one before', async () => {
    const undone: string[] = [];
    didSomething('first', async () => {
      undone.push('first');
    });
    didSomething('second', async () => {
      undone.push('second');
    });
    await undoLast();
    await undoLast();
    expect(undone).toEqual(['second', 'first']);
    expect(notice()).toBe('Undone: first');
    await undoLast();
    expect(notice()).toBe('There is nothing to undo.');
  });
  it('waits for a deed that the server has not answered yet', async () => {
    const order: string[] = [];
    let answer = (): void => undefined;
    const deed = doNow(
      'slow',
      () =>
        new Promise<void>((resolve) => {
          answer = () => {
            order.push('done');
            resolve();
          };
        }),
      async () => {
        order.push('undone');
      },
    );
    const undoing = undoLast();
    answer();
    await Promise.all([deed, undoing]);
    expect(order).toEqual(['done', 'undone']);
  });
  it('forgets a deed that was refused, and says why', async () => {
    await doNow(
      'refused',
      () => Promise.reject({ status: 409, data: { status: 409, detail: 'Not now.' } }),
      async () => undefined,
    );
    expect(notice()).toBe('Not now.');
    await undoLast();
    expect(notice()).toBe('There is nothing to undo.');
  });
  it('can be undone itself, until something else is done', async () => {
    const done: string[] = [];
    const deed = (name: string): void => {
      didSomething(
        name,
        async () => done.push(`not ${name}`),
        async () => done.push(name),
      );
    };
    deed('a');
    deed('b');
    await undoLast();
    await undoLast();
    await redoLast();
    await redoLast();
    expect(done).toEqual(['not b', 'not a', 'a', 'b']);
    await undoLast();
    deed('c');
    await redoLast();
    expect(notice()).toBe('There is nothing to do again.');
  });
  it('of a notice undoes its own deed, or nothing', async () => {
    const undone: string[] = [];
    didSomething('older', async () => undone.push('older'));
    const older = store.getState().notices.at(-1)!.deedId!;
    didSomething('newer', async () => undone.push('newer'));
    await undoDeed(older); // its notice came up again, but something was done since
    expect(undone).toEqual([]);
    await undoLast();
    await undoDeed(older);
    expect(undone).toEqual(['newer', 'older']);
  });
  it('says what went wrong with an undo', async () => {
    didSomething('stuck', () => Promise.reject({ data: { status: 409, detail: 'It was posted already.' } }));
    await undoLast();
    expect(notice()).toBe('It was posted already.');
  });
});

describe('words for what happened', () => {
  it.each<[unknown, string]>([
    [{ status: 422, data: { status: 422, detail: 'bad.vtt:3: no time' } }, 'bad.vtt:3: no time'],
    [{ status: 'FETCH_ERROR', error: 'x' }, 'The server cannot be reached. What you did is not saved; try again when the line is back.'],
    [new Error('own words'), 'own words'],
    [{}, 'Something went wrong. Nothing was changed; try again.'],
  ])('%j', (error, text) => expect(problemText(error)).toBe(text));
  it('finds the fields of a problem', () =>
    expect(problemOf({ data: { status: 400, detail: 'x', errors: [{ field: 'name', detail: 'y' }] } })?.errors?.[0]?.field).toBe('name'));
  it('names keys and stages', () => {
    expect([keyName(' '), keyName('k'), keyName('ArrowUp'), keyName('mod+z'), stageName('vectors'), stageName('other')]).toEqual([
      'space',
      'K',
      '↑',
      'Ctrl Z',
      'weighing what is meant',
      'other',
    ]);
  });
});
