import '@testing-library/jest-dom/vitest';
import 'reflect-metadata';
import { cleanup, configure, render, screen, within } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { afterEach, beforeEach, vi } from 'vitest';
import { baseApi } from './base-api.js';
import { noticeClosed } from './notices.js';
import { forgetSavers } from './saver.js';
import { store } from './store.js';
import { forgetDeeds } from './undo.js';

/** What the screen asked of the server. */
export interface Ask {
  readonly method: string;
  /** With its query, without a leading slash: `api/clients`. */
  readonly path: string;
  readonly body: unknown;
}

/** The server says no, and why. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly errors: readonly { field: string; detail: string }[] = [],
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {}
}

/** What a made-up server answers, by `METHOD path`; `GET` may be left out. A path that is not there stays unanswered. */
export type Answers = Record<string, unknown>;

// A busy machine may be slow; what is waited for comes or does not, whatever the clock says.
configure({ asyncUtilTimeout: 20_000 });

const NEVER = new Promise<Response>(() => undefined);

/** Run in a file of tests that shows screens: each test has a store without answers, and leaves nothing behind. */
export function onScreens(): void {
  beforeEach(() => {
    vi.stubGlobal('ResizeObserver', Idle);
    vi.stubGlobal('Request', HereRequest);
    Element.prototype.getAnimations = () => [];
    Element.prototype.scrollIntoView = () => undefined;
    document.elementFromPoint = () => null; // not in jsdom
    Blob.prototype.text ??= readBlob; // not in jsdom
  });
  afterEach(() => {
    cleanup();
    store.dispatch(baseApi.util.resetApiState());
    forgetDeeds();
    forgetSavers();
    for (const notice of store.getState().notices) store.dispatch(noticeClosed(notice.id));
    vi.unstubAllGlobals();
  });
}

/**
 * Shows a part of the app over a made-up server.
 * @param answers may be changed while the screen is shown
 * @returns what it asked for, hands to use it with, and where it stands
 */
export function show(
  node: ReactNode,
  answers: Answers = {},
  { at = '/', route = '*' }: { at?: string; route?: string } = {},
): { asked: Ask[]; user: UserEvent; place: () => string } {
  const asked: Ask[] = [];
  vi.stubGlobal('fetch', async (request: Request): Promise<Response> => {
    const url = new URL(request.url);
    const path = `${url.pathname}${url.search}`.slice(1);
    const text = await request.text();
    const ask = { method: request.method, path, body: text === '' ? undefined : (JSON.parse(text) as unknown) };
    asked.push(ask);
    const key = `${request.method} ${path}`;
    const answer = key in answers ? answers[key] : request.method === 'GET' ? answers[path] : undefined;
    if (answer === undefined) return NEVER;
    const said: unknown = await (typeof answer === 'function' ? (answer as (one: Ask) => unknown)(ask) : answer);
    if (said instanceof Refusal) return Response.json({ status: said.status, detail: said.detail, errors: said.errors, ...said.more }, { status: said.status });
    return said === null ? new Response(null, { status: 204 }) : Response.json(said);
  });
  const router = createMemoryRouter(
    [
      { path: route, element: node },
      { path: '*', element: <p>elsewhere</p> },
    ],
    { initialEntries: [at] },
  );
  render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  return { asked, user: userEvent.setup(), place: () => `${router.state.location.pathname}${router.state.location.search}` };
}

/** Chooses from a list on our own paper, as a hand does: open it, click a line. */
export async function pick(user: UserEvent, label: string | RegExp, option: string | RegExp, inside: HTMLElement = document.body): Promise<void> {
  await user.click(await within(inside).findByLabelText(label, { selector: 'button' }));
  await user.click(await screen.findByRole('option', { name: option }));
}

function readBlob(this: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(new Error('not readable'));
    reader.readAsText(this);
  });
}

class Idle {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}

/** Takes addresses without a host, as a page does; the signals of jsdom are not those of Node. */
class HereRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(new URL(String(input), 'http://sift-reel.test/'), { ...init, signal: null });
  }
}
