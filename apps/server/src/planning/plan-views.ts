import type { PlanShort } from '@sift-reel/core';
import type { ShortView } from '../shorts/shorts.views.js';
import type { Post } from './planning.models.js';
import type { PostView, ScheduleShortView } from './planning.views.js';

function problemText(short: ShortView, channelId: string): string | null {
  const channel = short.channels.find((one) => one.channelId === channelId);
  return channel === undefined || channel.problems.length === 0
    ? null
    : channel.problems.map(({ field, detail }) => `${field === 'coverLine' ? 'cover line' : field} ${detail}`).join('; ');
}

export function toPlanShort(short: ShortView): PlanShort {
  const problems = Object.fromEntries(
    short.channels
      .map((channel) => [channel.channelId, problemText(short, channel.channelId)] as const)
      .filter((entry): entry is [string, string] => entry[1] !== null),
  );
  return {
    id: short.id,
    clientId: short.clientId,
    recordingId: short.recordingId,
    title: short.copy.title,
    lengthMs: short.playedMs,
    score: short.score,
    approved: short.approved,
    comesAgainDays: short.comesAgainDays,
    copyProblems: problems,
  };
}

export function toScheduleShort(short: ShortView): ScheduleShortView {
  const { id, clientId, recordingId, title, lengthMs, score, approved, comesAgainDays, copyProblems } = toPlanShort(short);
  return {
    id,
    clientId,
    recordingId,
    recordingTitle: short.recordingTitle,
    title,
    lengthMs,
    score,
    approved,
    comesAgainDays,
    copyProblems: Object.entries(copyProblems).map(([channelId, detail]) => ({ channelId, detail })),
  };
}

export function toPostView(post: Post, recordingId: string): PostView {
  const { id, clientId, channelId, shortId, date, minute, at, state, why } = post;
  return {
    id,
    clientId,
    channelId,
    shortId,
    batchId: post.batchId ?? null,
    recordingId,
    date,
    minute,
    at: at.toISOString(),
    state,
    waits: post.waits ?? null,
    failure: state === 'refused' || state === 'missed' ? (post.failure ?? null) : null,
    why,
    movable: post.movable,
    version: post.version,
  };
}
