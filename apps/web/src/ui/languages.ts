import { languageOf } from '@sift-reel/core';

/** What shorts are posted in most, by their English names. Common practice; any other code can come in by XLIFF. */
export const LANGUAGES = 'ar bg ca cs cy da de el en es et eu fi fr ga gl he hi hr hu id is it ja ko lt lv nl no pl pt pt-BR ro ru sk sl sr sv th tr uk vi zh'
  .split(' ')
  .map(languageOf)
  .sort((a, b) => a.name.localeCompare(b.name, 'en'));
