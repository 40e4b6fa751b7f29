import type { Blackout as PlanBlackout, PlanChannel } from '@sift-reel/core';
import type { Channel } from '../clients/clients.models.js';

/** A channel as the planning core knows it; windows and platform profile must be loaded. */
export function toPlanChannel(channel: Channel, blackouts: readonly PlanBlackout[]): PlanChannel {
  const { platformProfile: p } = channel;
  return {
    id: channel.id,
    clientId: channel.clientId,
    name: channel.name,
    zone: channel.zone,
    order: channel.order,
    postsPerDay: channel.postsPerDay,
    postsPerWeek: channel.postsPerWeek,
    rules: {
      name: p.name,
      minDurationMs: p.minDurationMs,
      maxDurationMs: p.maxDurationMs,
      shapes: p.shapes,
      copy: { title: p.titleLimit, description: p.descriptionLimit, hashtags: p.hashtagLimit },
      postsPerDay: p.postsPerDay,
      minGapMinutes: p.minGapMinutes,
    },
    windows: channel.windows.map(({ weekday, minute, weight }) => ({ weekday, minute, weight })),
    blackouts,
  };
}
