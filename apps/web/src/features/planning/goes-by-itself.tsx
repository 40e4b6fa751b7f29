import { CircleSlash, Send, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import { api, type ChannelView } from '../../app/api.js';
import { t } from '../../texts/texts.js';

/** Whether a channel's posts go out by themselves, and what keeps them from it; nothing for one that is posted by hand. */
export function GoesByItself({ channel }: { channel: Pick<ChannelView, 'id' | 'clientId'> }): ReactNode {
  const posting = api.useReadPostingQuery().data;
  const accountId = posting?.channels.find((one) => one.channelId === channel.id)?.accountId;
  const account = posting?.accounts.find((one) => one.id === accountId);
  if (posting === undefined || account === undefined) return null;
  const { name } = account;
  const isStopped = posting.stops.some(
    (stop) => stop.clientId === null || (stop.clientId === channel.clientId && (stop.channelId === null || stop.channelId === channel.id)),
  );
  const [Icon, said, look] = isStopped
    ? ([CircleSlash, t('planning.stopped-here'), 'text-madder-text'] as const)
    : account.state !== 'connected'
      ? ([TriangleAlert, t('planning.right-gone-here', { name }), 'text-madder-text'] as const)
      : ([Send, t('planning.posts-by-itself', { name }), 'text-verdigris-text'] as const);
  return <Icon size={12} role="img" aria-label={said} className={`ml-1 inline-block ${look}`} />;
}
