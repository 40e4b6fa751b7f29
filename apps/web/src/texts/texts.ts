import { IntlMessageFormat, type FormatXMLElementFn } from 'intl-messageformat';
import { createElement, Fragment, type ReactNode } from 'react';
import english from './en.json';

/**
 * The interface's own texts: one file per language, in ICU message syntax (unicode-org.github.io/icu/userguide/format_parse/messages).
 * English is the language of reference: its file has every text. What was said, typed or worded is never translated here.
 */
export type TextId = keyof typeof english;
export type Texts = Readonly<Record<TextId, string>>;

/** A language that ships: its tag after BCP 47, its name as it calls itself, its file. */
export const LANGUAGES = {
  en: { name: 'English', load: () => Promise.resolve<Texts>(english) },
  es: { name: 'Español', load: async (): Promise<Texts> => (await import('./es.json')).default },
} as const;
export type Language = keyof typeof LANGUAGES;

const KEY = 'sift-reel-language';

let shown: { readonly language: Language; readonly texts: Texts } = { language: 'en', texts: english };
const formats = new Map<TextId, IntlMessageFormat>();

export function language(): Language {
  return shown.language;
}

const ships = (tag: string | null): tag is Language => tag !== null && tag in LANGUAGES;

/** What was chosen on this device; else the first of the browser's languages that ships; else English. */
export function wishedLanguage(): Language {
  const chosen = localStorage.getItem(KEY);
  if (ships(chosen)) return chosen;
  return navigator.languages.map((tag) => tag.split('-')[0]!).find(ships) ?? 'en';
}

/**
 * Before the screens are loaded: many of their texts stand in constants, so another language needs the page anew. Where its file
 * does not come, the screens speak English rather than not at all.
 */
export async function takeTexts(wished: Language): Promise<void> {
  shown = await LANGUAGES[wished].load().then(
    (texts) => ({ language: wished, texts }),
    () => ({ language: 'en', texts: english }),
  );
  formats.clear();
  document.documentElement.lang = shown.language;
}

export function chooseLanguage(wished: Language): void {
  localStorage.setItem(KEY, wished);
  window.location.reload();
}

function formatOf(id: TextId): IntlMessageFormat {
  let format = formats.get(id);
  if (format === undefined) formats.set(id, (format = new IntlMessageFormat(shown.texts[id], shown.language)));
  return format;
}

export type Value = string | number | null | undefined;

/** A text with its values put in. Throws where a value is missing that the text asks for. */
export function t(id: TextId, values: Readonly<Record<string, Value>> = {}): string {
  return formatOf(id).format(values as Record<string, string>) as string;
}

/** A text with parts that are more than letters: `<b>…</b>` in it is drawn by `values.b`, `{name}` may be an element. */
export function rich(id: TextId, values: Readonly<Record<string, ReactNode | FormatXMLElementFn<ReactNode, ReactNode>>>): ReactNode {
  const parts = formatOf(id).format<ReactNode>(values as Record<string, ReactNode>);
  return Array.isArray(parts) ? (parts as ReactNode[]).map((part, i) => createElement(Fragment, { key: i }, part)) : (parts as ReactNode);
}
