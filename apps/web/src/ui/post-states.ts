import type { PostView } from '../app/api.js';
import { t } from '../texts/texts.js';

/** How a post stands, in words. */
export const POST_STATE_NAMES: Readonly<Record<PostView['state'], string>> = {
  planned: t('planning.state-planned'),
  waiting: t('planning.state-waiting'),
  sending: t('planning.state-sending'),
  processing: t('planning.state-processing'),
  posted: t('planning.state-posted'),
  refused: t('planning.state-refused'),
  missed: t('planning.state-missed'),
};

export const WAIT_NAMES: Readonly<Record<NonNullable<PostView['waits']>, string>> = {
  file: t('planning.state-waiting-file'),
  approval: t('planning.state-waiting-approval'),
  words: t('planning.state-waiting-words'),
  right: t('planning.state-waiting-right'),
  account: t('planning.state-waiting-account'),
  stop: t('planning.state-waiting-stop'),
  limit: t('planning.state-waiting-limit'),
};

/** How a post stands, with what it waits for. */
export const standingOf = ({ state, waits }: Pick<PostView, 'state' | 'waits'>): string =>
  state === 'waiting' && waits !== null ? WAIT_NAMES[waits] : POST_STATE_NAMES[state];

/** Somebody has to do something about it. */
export const isInTrouble = ({ state, waits }: Pick<PostView, 'state' | 'waits'>): boolean =>
  state === 'refused' || state === 'missed' || (state === 'waiting' && waits !== 'file' && waits !== 'limit');
