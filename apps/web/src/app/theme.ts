export type Theme = 'day' | 'night';
const KEY = 'sift-reel-theme';

export function readTheme(): Theme {
  return localStorage.getItem(KEY) === 'night' ? 'night' : 'day';
}

export function applyTheme(theme: Theme): void {
  localStorage.setItem(KEY, theme);
  document.documentElement.dataset['theme'] = theme;
}
