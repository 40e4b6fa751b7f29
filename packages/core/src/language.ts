// Apart from the rest: what languages are known by takes 60 MB, and only who sifts needs it.
export { findLanguage } from './text/language.js';
export type { Language } from './text/language-name.js';
