import { formatMinute, type Plan } from '@sift-reel/core';
import { api, type PostView, type ScheduleView } from '../../app/api.js';
import { didSomething, sayTrouble } from '../../app/undo.js';
import { dropOn } from './plan.js';
import type { Held } from './schedule-slice.js';
import { t } from '../../texts/texts.js';
import { formatDay } from '../../texts/formats.js';

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
  const titleOf = (shortId: string): string => view.shorts.find((short) => short.id === shortId)?.title ?? t('planning.the-short');
  const place = (shortId: string, channelId: string, date: string, minute: number, batchId: string | null, why: string) =>
    acceptPlan({ batchId, placements: [{ shortId, channelId, date, minute, why }] }).unwrap();

  const moveTo = (post: PostView, channelId: string, date: string, minute: number): void => {
    if (post.channelId === channelId && post.date === date && post.minute === minute) return;
    let { version } = post;
    const move = async (to: { channelId: string; date: string; minute: number }): Promise<void> => {
      version = (await movePost({ postId: post.id, movePostForm: { ...to, version } }).unwrap()).version;
    };
    const [there, back] = [
      { channelId, date, minute },
      { channelId: post.channelId, date: post.date, minute: post.minute },
    ];
    move(there).then(
      () =>
        didSomething(
          t('planning.moved-to', { title: titleOf(post.shortId), day: formatDay(date), minute: formatMinute(minute) }),
          () => move(back),
          () => move(there),
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
      if (post?.state === 'posted') return sayTrouble(new Error(t('planning.it-was-posted-already-so-it')));
      const outcome = dropOn(plan, shortId, channelId, date, post?.id);
      if (outcome.kind === 'refused') return sayTrouble(new Error(t('planning.cannot-go-there', { title: titleOf(shortId), detail: outcome.refusal.detail })));
      if (post !== undefined) return moveTo(post, channelId, date, outcome.minute);
      place(shortId, channelId, date, outcome.minute, null, 'Put here by hand.').then((posts) => {
        let { id } = posts[0]!;
        didSomething(
          t('planning.placed-on', { title: titleOf(shortId), day: formatDay(date), minute: formatMinute(outcome.minute) }),
          () => takeOffPost(id).unwrap(),
          async () => {
            id = (await place(shortId, channelId, date, outcome.minute, null, 'Put here by hand.'))[0]!.id;
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
    markPosted: (post, posted) => {
      let { version } = post;
      const write = async (state: PostView['state']): Promise<void> => {
        version = (await setPostState({ postId: post.id, postStateForm: { state, version } }).unwrap()).version;
      };
      const next = posted ? 'posted' : 'planned';
      write(next).then(
        () =>
          didSomething(
            posted ? t('planning.marked-as-posted', { title: titleOf(post.shortId) }) : t('planning.is-planned-again', { title: titleOf(post.shortId) }),
            () => write(post.state), // a post that had failed has failed again
            () => write(next),
          ),
        sayTrouble,
      );
    },
  };
}
