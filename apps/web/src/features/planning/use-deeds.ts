import { formatDay, formatMinute, type Plan } from '@sift-reel/core';
import { api, type PostView, type ScheduleView } from '../../app/api.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { dropOn } from './plan.js';
import type { Held } from './schedule-slice.js';

export interface Deeds {
  drop(held: Held, channelId: string, date: string): void;
  moveTo(post: PostView, channelId: string, date: string, minute: number): void;
  takeOff(post: PostView): void;
  markPosted(post: PostView, posted: boolean): void;
}

/** What can be done on the board, each with its undo. A refused drop says why and changes nothing. */
export function useDeeds(view: ScheduleView, plan: Plan): Deeds {
  const [acceptPlan] = api.useAcceptPlanMutation();
  const [movePost] = api.useMovePostMutation();
  const [takeOffPost] = api.useTakeOffPostMutation();
  const [setPostState] = api.useSetPostStateMutation();
  const titleOf = (shortId: string): string => view.shorts.find((short) => short.id === shortId)?.title ?? 'the short';
  const place = (shortId: string, channelId: string, date: string, minute: number, batchId: string | null, why: string) =>
    acceptPlan({ batchId, placements: [{ shortId, channelId, date, minute, why }] }).unwrap();

  const moveTo = (post: PostView, channelId: string, date: string, minute: number): void => {
    if (post.channelId === channelId && post.date === date && post.minute === minute) return;
    const move = (to: { channelId: string; date: string; minute: number }) => movePost({ postId: post.id, movePostForm: to }).unwrap();
    move({ channelId, date, minute }).then(
      () =>
        didSomething(`Moved “${titleOf(post.shortId)}” to ${formatDay(date)} ${formatMinute(minute)}`, () =>
          move({ channelId: post.channelId, date: post.date, minute: post.minute }),
        ),
      sayTrouble,
    );
  };
  return {
    moveTo,
    drop: (held, channelId, date) => {
      const post = held.kind === 'post' ? view.posts.find((one) => one.id === held.postId) : undefined;
      const shortId = held.kind === 'post' ? (post?.shortId ?? '') : held.shortId;
      if (post !== undefined && post.channelId === channelId && post.date === date) return;
      if (post?.state === 'posted') return sayTrouble(new Error('It was posted already, so it cannot move.'));
      const outcome = dropOn(plan, shortId, channelId, date, post?.id);
      if (outcome.kind === 'refused') return sayTrouble(new Error(`“${titleOf(shortId)}” cannot go there. ${outcome.refusal.detail}`));
      if (post !== undefined) return moveTo(post, channelId, date, outcome.minute);
      place(shortId, channelId, date, outcome.minute, null, 'Put here by hand.').then(
        (posts) => didSomething(`Placed “${titleOf(shortId)}” on ${formatDay(date)} ${formatMinute(outcome.minute)}`, () => takeOffPost(posts[0]!.id).unwrap()),
        sayTrouble,
      );
    },
    takeOff: (post) => {
      takeOffPost(post.id)
        .unwrap()
        .then(
          () =>
            didSomething(`Took “${titleOf(post.shortId)}” off ${formatDay(post.date)}`, () =>
              place(post.shortId, post.channelId, post.date, post.minute, post.batchId, post.why),
            ),
          sayTrouble,
        );
    },
    markPosted: (post, posted) => {
      const write = (value: boolean) => setPostState({ postId: post.id, postStateForm: { state: value ? 'posted' : 'planned' } }).unwrap();
      write(posted).then(
        () => didSomething(posted ? `Marked “${titleOf(post.shortId)}” as posted` : `“${titleOf(post.shortId)}” is planned again`, () => write(!posted)),
        sayTrouble,
      );
    },
  };
}
