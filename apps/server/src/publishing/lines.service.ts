import { setTimeout as wait } from 'node:timers/promises';
import { Inject, Injectable } from '@nestjs/common';
import { Clock } from '../config/clock.js';
import { CONFIG, type Config } from '../config/config.module.js';
import { Pace } from './pace.service.js';
import {
  type Ask,
  type Kept,
  LaterError,
  type Line,
  NoAnswerError,
  type PostingPlatform,
  RefusedError,
  type Reply,
  RightGoneError,
} from './platforms/platform.js';
import { retryAfterMs } from './retry-after.js';
import { RightsService } from './rights.service.js';

/** Longest that a platform may take to answer a call, with the file it is sent. */
const ANSWER_MS = 5 * 60_000;
/** Longest that a call without a file may. */
const SHORT_ANSWER_MS = 30_000;
/** A turn that comes so soon is waited for, by the time of day. */
const WAITED_FOR_MS = 2_000;
/** Where a platform says "not now" without saying how long. */
const UNTOLD_WAIT_MS = 15_000;

interface LineWishes {
  readonly accountId: string;
  readonly platform: PostingPlatform;
  readonly signal: AbortSignal;
  readonly keep: (kept: Kept) => Promise<void>;
  /** What was announced would come too late to be found by whoever looks for it: it is not sent any more. */
  readonly isStale?: () => boolean;
}

/** Makes lines to platforms. */
@Injectable()
export class Lines {
  constructor(
    @Inject(CONFIG) private readonly config: Config,
    @Inject(Pace) private readonly pace: Pace,
    @Inject(RightsService) private readonly rights: RightsService,
    @Inject(Clock) private readonly clock: Clock,
  ) {}

  /** A line for an account that is known. */
  open(wishes: LineWishes): Line {
    const base = this.config.platforms[wishes.platform.name]?.url;
    if (base === undefined) throw new RightGoneError('This installation knows no such platform.', 'revoked');
    let offByMs = 0;
    const once = async (ask: Ask, token: string): Promise<{ reply: Reply; text: string }> => {
      await this.turn(wishes);
      if (wishes.isStale?.() === true) throw new LaterError('It took too long to be sent.', 0);
      const answered = await this.send(`${base}/api`, ask, token, wishes.signal);
      const dated = Date.parse(answered.reply.headers.get('date') ?? '');
      if (!Number.isNaN(dated)) offByMs = dated - this.clock.nowMs();
      return answered;
    };
    return {
      keep: wishes.keep,
      // A date tells whole seconds; what is less is no difference.
      theirs: (ms) => ms + (Math.abs(offByMs) < 2_000 * this.clock.speed() ? 0 : offByMs),
      ask: async (ask) => {
        const token = await this.rights.token(wishes.accountId);
        let { reply } = await once(ask, token);
        // Nothing came of a call that was turned away for its token (RFC 6750, 3.1): with another one it is made again.
        if (reply.status === 401) ({ reply } = await once(ask, await this.rights.token(wishes.accountId, token)));
        return this.judged(reply, wishes);
      },
    };
  }

  /** A line before there is an account: with the token that was just given, to ask whose it is. */
  openWith(platform: PostingPlatform, token: string): Line {
    const base = this.config.platforms[platform.name]!.url;
    return {
      keep: () => Promise.resolve(),
      theirs: (ms) => ms,
      ask: async (ask) => {
        const { reply } = await this.send(`${base}/api`, ask, token, AbortSignal.timeout(SHORT_ANSWER_MS));
        if (reply.status >= 200 && reply.status < 300) return reply;
        throw reply.status === 403 || reply.status === 401 ? rightGone(reply) : new LaterError('The platform could not be asked just now. Begin again.', null);
      },
    };
  }

  private async turn({ accountId, platform, signal }: LineWishes): Promise<void> {
    for (;;) {
      const delay = await this.pace.take(accountId, platform.pace, this.clock.nowMs());
      if (delay === null) return;
      const realMs = delay.ms / this.clock.speed();
      if (realMs > WAITED_FOR_MS) throw new LaterError(delay.why ?? `${platform.title} takes no more calls of this account just now.`, delay.ms);
      await wait(realMs + 5, undefined, { signal });
    }
  }

  private async send(base: string, ask: Ask, token: string, signal: AbortSignal): Promise<{ reply: Reply; text: string }> {
    const { method, path, json, body, headers } = ask;
    const longest = AbortSignal.timeout(body === undefined ? SHORT_ANSWER_MS : ANSWER_MS);
    try {
      const response = await fetch(`${base}${path}`, {
        method,
        redirect: 'error',
        signal: AbortSignal.any([signal, longest]),
        headers: {
          accept: 'application/json',
          authorization: `Bearer ${token}`,
          ...(json === undefined ? {} : { 'content-type': 'application/json' }),
          ...headers,
        },
        ...(json !== undefined ? { body: JSON.stringify(json) } : body !== undefined ? { body } : {}),
      });
      const text = await response.text();
      return { reply: { status: response.status, headers: response.headers, body: jsonOf(text) }, text };
    } catch (error) {
      if (signal.aborted) throw signal.reason;
      throw new NoAnswerError(longest.aborted ? 'The platform did not answer in time.' : `The line to the platform broke: ${reasonOf(error)}.`);
    }
  }

  private async judged(reply: Reply, { accountId, platform }: LineWishes): Promise<Reply> {
    const { status, body, headers } = reply;
    if (status >= 200 && status < 300) return reply;
    const now = this.clock.nowMs();
    const afterMs = retryAfterMs(headers, now);
    const gone = status === 401 || (status === 403 && /insufficient_scope/.test(headers.get('www-authenticate') ?? ''));
    if (gone) {
      const error = rightGone(reply);
      await this.rights.lose(accountId, error.state, error.message);
      throw error;
    }
    const { words, kind } = platform.readError(status, body);
    if (status === 429) {
      const heldMs = afterMs ?? UNTOLD_WAIT_MS;
      await this.pace.hold(accountId, now + heldMs, words);
      throw new LaterError(words, heldMs);
    }
    // It may have taken effect before it went wrong, whatever went wrong.
    if (status >= 500 || status === 408) throw new NoAnswerError(`${platform.title} answers ${status}: ${words}`);
    if (kind === 'later') throw new LaterError(words, afterMs);
    throw new RefusedError(words || `${platform.title} answers ${status}.`, kind === 'duplicate', status);
  }
}

function rightGone({ status, headers }: Reply): RightGoneError {
  const said = /error_description="([^"]*)"/.exec(headers.get('www-authenticate') ?? '')?.[1];
  return new RightGoneError(said ?? 'The right to post was taken back there.', status === 403 ? 'lacking' : 'revoked');
}

function jsonOf(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

/** What broke, without addresses: they may hold what opens a door. */
function reasonOf(error: unknown): string {
  const cause = (error as { cause?: { code?: unknown } } | null)?.cause;
  return typeof cause?.code === 'string' ? cause.code : error instanceof Error ? error.name : 'unknown';
}
