import { asPosted, checkFit, type Copy, copyProblems, languageOf, type PlanChannel, translatedCopy, type Voice } from '@sift-reel/core';
import type { Channel } from '../clients/clients.models.js';
import { toPlanChannel } from './plan-channel.js';
import type { Short } from './shorts.models.js';
import type { CopyView, ShortChannelView } from './shorts.views.js';

export function baseCopy(short: Short): CopyView {
  const row = short.copies.find((copy) => copy.channelId === null);
  return row === undefined ? { title: '', description: '', hashtags: [], keywords: [], coverLine: '' } : toCopyView(row);
}

/** The words a channel gets: its own, those in its language, or those for all. @param talkLanguage code of the talk's language */
export function copyFor(short: Short, channel: Pick<Channel, 'id' | 'language'>, talkLanguage: string): CopyView {
  const own = short.copies.find((copy) => copy.channelId === channel.id);
  if (own !== undefined) return toCopyView(own);
  const translation = isForeign(channel, talkLanguage) ? translationFor(short, channel) : undefined;
  return translation === undefined ? baseCopy(short) : toCopyView(translatedCopy(translation.targets));
}

const isForeign = ({ language }: Pick<Channel, 'language'>, talkLanguage: string): boolean => language !== null && language !== talkLanguage;
const translationFor = (short: Short, { language }: Pick<Channel, 'language'>) => short.translations.find((one) => one.language === language);

/** Why the words are not there in the channel's language yet; null where they are, or are its own. */
function languageProblem(short: Short, channel: Channel, talkLanguage: string): string | null {
  if (!isForeign(channel, talkLanguage) || short.copies.some((copy) => copy.channelId === channel.id)) return null;
  const { name } = languageOf(channel.language!);
  const translation = translationFor(short, channel);
  if (translation === undefined) return `its words are not there in ${name}`;
  if (translation.readVersion === short.version) return null;
  return translation.readVersion === null ? `nobody has read its words in ${name} yet` : `its words have changed since they were read in ${name}`;
}

export function toCopyView({ title, description, hashtags, keywords, coverLine }: Copy): CopyView {
  return { title, description, hashtags: [...hashtags], keywords: [...keywords], coverLine };
}

/** How a short stands with a channel of its client. */
export function toShortChannel(short: Short, channel: Channel, voice: Voice, talkLanguage: string): ShortChannelView {
  const own = short.copies.find((copy) => copy.channelId === channel.id);
  const plan: PlanChannel = toPlanChannel(channel, []);
  const untranslated = languageProblem(short, channel, talkLanguage);
  const misfit = checkFit(
    {
      id: short.id,
      clientId: short.clientId,
      recordingId: short.recordingId,
      title: '',
      lengthMs: short.playedMs,
      score: short.score,
      approved: true,
      comesAgainDays: null,
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
    language: isForeign(channel, talkLanguage) ? channel.language : null,
    translated:
      own === undefined && isForeign(channel, talkLanguage) && translationFor(short, channel) !== undefined ? copyFor(short, channel, talkLanguage) : null,
    problems: [
      ...(untranslated === null ? [] : [{ field: 'language', detail: untranslated }]),
      ...copyProblems(asPosted(copyFor(short, channel, talkLanguage), voice), plan.rules.copy).map(({ field, detail }) => ({ field, detail })),
    ],
    unfit: misfit?.detail ?? null,
  };
}
