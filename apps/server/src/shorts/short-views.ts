import { asPosted, checkFit, type Copy, copyProblems, type PlanChannel, type Voice } from '@sift-reel/core';
import type { Channel } from '../clients/clients.models.js';
import { toPlanChannel } from './plan-channel.js';
import type { Short } from './shorts.models.js';
import type { CopyView, ShortChannelView } from './shorts.views.js';

export function baseCopy(short: Short): CopyView {
  const row = short.copies.find((copy) => copy.channelId === null);
  return row === undefined ? { title: '', description: '', hashtags: [], keywords: [], coverLine: '' } : toCopyView(row);
}

/** The words a channel gets: its own, or those for all. */
export function copyFor(short: Short, channelId: string): CopyView {
  const own = short.copies.find((copy) => copy.channelId === channelId);
  return own === undefined ? baseCopy(short) : toCopyView(own);
}

export function toCopyView({ title, description, hashtags, keywords, coverLine }: Copy): CopyView {
  return { title, description, hashtags: [...hashtags], keywords: [...keywords], coverLine };
}

/** How a short stands with a channel of its client. */
export function toShortChannel(short: Short, channel: Channel, voice: Voice): ShortChannelView {
  const own = short.copies.find((copy) => copy.channelId === channel.id);
  const plan: PlanChannel = toPlanChannel(channel, []);
  const misfit = checkFit(
    {
      id: short.id,
      clientId: short.clientId,
      recordingId: short.recordingId,
      title: '',
      lengthMs: short.endMs - short.startMs,
      score: short.score,
      approved: true,
      copyProblems: {},
    },
    plan,
  )[0];
  return {
    channelId: channel.id,
    name: channel.name,
    platform: channel.platformProfile.name,
    titleLimit: plan.rules.copy.title,
    descriptionLimit: plan.rules.copy.description,
    hashtagLimit: plan.rules.copy.hashtags,
    variant: own === undefined ? null : toCopyView(own),
    problems: copyProblems(asPosted(copyFor(short, channel.id), voice), plan.rules.copy).map(({ field, detail }) => ({ field, detail })),
    unfit: misfit?.detail ?? null,
  };
}
