import { formatDay as formatEnglishDay, weekdayName as englishWeekday } from '@sift-reel/core';
import { language, t } from './texts.js';

/** Days, moments, numbers and lengths of time as the shown language writes them (CLDR, through Intl); English days as in every export. */
const LOCALES = { en: 'en-GB', es: 'es' } as const;

const locale = (): string => LOCALES[language()];

/** Midnight at UTC of a calendar day, so that no zone moves it. */
const dayOf = (date: string): Date => new Date(`${date}T00:00:00Z`);

/** "Thu 26 Mar" */
export function formatDay(date: string): string {
  if (language() === 'en') return formatEnglishDay(date);
  return new Intl.DateTimeFormat(locale(), { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' }).format(dayOf(date)).replace(',', '');
}

/** 1 (Monday) to 7 (Sunday), as in ISO 8601. */
export function weekdayName(weekday: number): string {
  if (language() === 'en') return englishWeekday(weekday);
  const monday = Date.UTC(2024, 0, 1);
  return new Intl.DateTimeFormat(locale(), { weekday: 'long', timeZone: 'UTC' }).format(monday + (weekday - 1) * 86_400_000);
}

/** "26 Mar, 14:05" by the clock of whoever reads it. */
export function formatMoment(at: string): string {
  return new Date(at).toLocaleString(locale(), { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
}

/** "26 Mar 2026", by the calendar of whoever reads it. */
export function formatDate(at: string): string {
  return new Date(at).toLocaleDateString(locale(), { day: 'numeric', month: 'short', year: 'numeric' });
}

/** @param digits after the point; as many as it has where that is not told */
export function formatNumber(value: number, digits?: number): string {
  return value.toLocaleString(locale(), digits === undefined ? {} : { minimumFractionDigits: digits, maximumFractionDigits: digits });
}

/** A level below full scale, with a minus that is as wide as a plus. */
export const formatLevel = (level: number, digits?: number): string => formatNumber(level, digits).replace('-', '−');
/** "−14 LUFS" */
export const lufs = (level: number, digits?: number): string => t('common.lufs', { level: formatLevel(level, digits) });

/** "40 s", "6 min" */
export function timeLeft(ms: number): string {
  return ms < 60_000 ? t('common.seconds-short', { number: Math.ceil(ms / 1_000) }) : t('common.minutes-short', { number: Math.ceil(ms / 60_000) });
}

/** "3.4 MB", "210 kB": thousands, as people count them. */
export function formatBytes(bytes: number): string {
  return bytes < 1_000_000
    ? t('common.kilobytes', { number: formatNumber(Math.round(bytes / 1_000)) })
    : t('common.megabytes', { number: formatNumber(Math.round(bytes / 100_000) / 10) });
}
