import { t } from '../texts/texts.js';

/** Stages of jobs, in words. */
const STAGES: Readonly<Record<string, string>> = {
  waiting: t('app.waiting-for-a-worker'),
  starting: t('app.starting'),
  reading: t('app.reading-the-transcript'),
  listening: t('app.listening-to-the-voices'),
  looking: t('app.looking-at-the-file'),
  hearing: t('app.measuring-the-sound'),
  converting: t('app.converting-for-browsers'),
  picturing: t('app.taking-small-pictures'),
  'hearing-words': t('app.listening-for-the-words'),
  placing: t('app.placing-the-words'),
  asking: t('app.asking-for-it'),
  fetching: t('app.fetching'),
  'reading-feed': t('app.reading-the-feed'),
  vectors: t('app.weighing-what-is-meant'),
  segments: t('app.finding-the-chapters'),
  scoring: t('app.scoring-passages'),
  choosing: t('app.choosing-the-best-set'),
  drawing: t('app.drawing'),
  measuring: t('app.measuring'),
  rendering: t('app.rendering'),
  checking: t('app.checking'),
  explaining: t('app.writing-the-reasons'),
  done: t('app.done'),
  running: t('app.running'),
  failed: t('planning.state-failed'),
  cancelled: t('recordings.cancelled'),
};

export function stageName(stage: string): string {
  return STAGES[stage] ?? stage;
}

interface AtWork {
  readonly state: string;
}

/** A job that waits for a worker, or has one. */
export const isAtWork = (job: AtWork | null | undefined): boolean => job?.state === 'waiting' || job?.state === 'running';
