import { checkMoves, formatMinute, isUnderway, movesByDays, movesThatFit, type Plan, type PostMove, type RefusedMove } from '@sift-reel/core';
import { api, type PostView, type ScheduleView } from '../../app/api.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { type BoardClock, dropOn, wallOf } from './plan.js';
import type { Held } from './schedule-slice.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

/** Posts that are to move together, and which of them cannot. */
export interface Shift {
  readonly days: number;
  readonly fitting: readonly PostMove[];
  readonly refused: readonly RefusedMove[];
}

export interface Deeds {
  drop(held: Held, channelId: string, date: string): void;
  /** What would become of posts that go some days later, or earlier. */
  shiftOf(postIds: readonly string[], days: number): Shift;
  moveAll(moves: readonly PostMove[]): void;
  takeOffAll(posts: readonly PostView[]): void;
  takeOff(post: PostView): void;
  markPosted(post: PostView, posted: boolean): void;
  /** Laying out may move them, or they stay. */
  setMovable(posts: readonly PostView[], movable: boolean): void;
}

/** What can be done on the board, each with its undo. A refused drop says why and changes nothing. */
export function useDeeds(view: ScheduleView, plan: Plan, clock: BoardClock): Deeds {
  const [acceptPlan] = api.useAcceptPlanMutation();
  const [movePosts] = api.useMovePostsMutation();
  const [takeOffPost] = api.useTakeOffPostMutation();
  const [setPostsMovable] = api.useSetPostsMovableMutation();
  const [setPostState] = api.useSetPostStateMutation();
  const titleOf = (shortId: string): string => view.shorts.find((short) => short.id === shortId)?.title ?? t('planning.the-short');
  const place = (shortId: string, channelId: string, date: string, minute: number, batchId: string | null, why: string) =>
    acceptPlan({ batchId, placements: [{ shortId, channelId, date, minute, why }] }).unwrap();

  /** @param done what is said of it */
  const move = (moves: readonly PostMove[], done: string): void => {
    const before = moves.map((one) => view.posts.find((post) => post.id === one.postId)!);
    const versions = new Map(before.map((post) => [post.id, post.version]));
    const write = async (places: readonly PostMove[]): Promise<void> => {
      const written = await movePosts({ moves: places.map((place) => ({ ...place, version: versions.get(place.postId)! })) }).unwrap();
      for (const post of written) versions.set(post.id, post.version);
    };
    const back = before.map(({ id, channelId, date, minute }) => ({ postId: id, channelId, date, minute }));
    write(moves).then(
      () =>
        didSomething(
          done,
          () => write(back),
          () => write(moves),
        ),
      sayTrouble,
    );
  };
  const moveTo = (post: PostView, channelId: string, date: string, minute: number): void => {
    if (post.channelId === channelId && post.date === date && post.minute === minute) return;
    const done = t('planning.moved-to', { title: titleOf(post.shortId), day: formatDay(date), minute: formatMinute(minute) });
    move([{ postId: post.id, channelId, date, minute }], done);
  };
  return {
    moveAll: (moves) => move(moves, t('planning.moved-posts', { count: moves.length })),
    shiftOf: (postIds, days) => {
      const { moves, refused } = movesByDays(plan, postIds, days);
      const fitting = movesThatFit(plan, moves);
      const fits = new Set(fitting.map((move) => move.postId));
      // Each of the rest beside those that go: that is what stands in its way.
      const inTheWay = moves
        .filter((move) => !fits.has(move.postId))
        .map((move) => checkMoves(plan, [...fitting, move]).find((one) => one.postId === move.postId));
      return { days, fitting, refused: [...refused, ...inTheWay.filter((one) => one !== undefined)] };
    },
    takeOffAll: (posts) => {
      const left = [...posts];
      const gone: PostView[] = [];
      const act = async (): Promise<void> => {
        for (let post = left.pop(); post !== undefined; post = left.pop()) {
          await takeOffPost(post.id).unwrap();
          gone.push(post);
        }
      };
      const undo = async (): Promise<void> => {
        for (const batchId of new Set(gone.map((post) => post.batchId))) {
          const some = gone.filter((post) => post.batchId === batchId);
          const placements = some.map(({ shortId, channelId, date, minute, why }) => ({ shortId, channelId, date, minute, why }));
          left.push(...(await acceptPlan({ batchId, placements }).unwrap()));
          // Those of another batch may be refused; then they are still to be put back.
          gone.splice(0, gone.length, ...gone.filter((post) => !some.includes(post)));
        }
      };
      act()
        .catch(sayTrouble)
        .finally(() => {
          if (gone.length > 0) didSomething(t('planning.took-off-posts', { count: gone.length }), undo, act);
        });
    },
    drop: (held, channelId, date) => {
      const post = held.kind === 'post' ? view.posts.find((one) => one.id === held.postId) : undefined;
      const shortId = held.kind === 'post' ? (post?.shortId ?? '') : held.shortId;
      if (post !== undefined && post.channelId === channelId && wallOf(clock, post).date === date) return;
      if (post?.state === 'posted') return sayTrouble(new Error(t('planning.it-was-posted-already-so-it')));
      if (post !== undefined && isUnderway(post.state)) return sayTrouble(new Error(t('planning.it-is-on-its-way')));
      const outcome = dropOn(plan, shortId, channelId, date, clock, post?.id);
      if (outcome.kind === 'refused') return sayTrouble(new Error(t('planning.cannot-go-there', { title: titleOf(shortId), detail: outcome.refusal.detail })));
      if (post !== undefined) return moveTo(post, channelId, outcome.date, outcome.minute);
      const put = (): Promise<PostView[]> => place(shortId, channelId, outcome.date, outcome.minute, null, 'Put here by hand.');
      put().then((posts) => {
        let { id } = posts[0]!;
        didSomething(
          t('planning.placed-on', { title: titleOf(shortId), day: formatDay(outcome.date), minute: formatMinute(outcome.minute) }),
          () => takeOffPost(id).unwrap(),
          async () => {
            id = (await put())[0]!.id;
          },
        );
      }, sayTrouble);
    },
    takeOff: (post) => {
      takeOffPost(post.id)
        .unwrap()
        .then(() => {
          let { id } = post;
          didSomething(
            t('planning.took-off', { title: titleOf(post.shortId), day: formatDay(post.date) }),
            async () => {
              id = (await place(post.shortId, post.channelId, post.date, post.minute, post.batchId, post.why))[0]!.id;
            },
            () => takeOffPost(id).unwrap(),
          );
        }, sayTrouble);
    },
    setMovable: (posts, movable) => {
      const changed = posts.filter((post) => post.movable !== movable);
      let seen: readonly PostView[] = changed;
      const write = async (next: boolean): Promise<void> => {
        seen = await setPostsMovable({ posts: seen.map(({ id, version }) => ({ postId: id, version })), movable: next }).unwrap();
      };
      const done = { count: changed.length };
      write(movable).then(
        () =>
          didSomething(
            movable ? t('planning.posts-may-move', done) : t('planning.posts-stay', done),
            () => write(!movable),
            () => write(movable),
          ),
        sayTrouble,
      );
    },
    markPosted: (post, posted) => {
      let { version } = post;
      const write = async (state: 'planned' | 'posted' | 'refused'): Promise<void> => {
        version = (await setPostState({ postId: post.id, postStateForm: { state, version } }).unwrap()).version;
      };
      const next = posted ? 'posted' : 'planned';
      write(next).then(
        () =>
          didSomething(
            posted ? t('planning.marked-as-posted', { title: titleOf(post.shortId) }) : t('planning.is-planned-again', { title: titleOf(post.shortId) }),
            () => write(post.state === 'posted' || post.state === 'refused' ? post.state : 'planned'), // a post that had been refused is refused again
            () => write(next),
          ),
        sayTrouble,
      );
    },
  };
}
