import { language, t, type TextId } from './texts.js';

/** What the forms and the server say of a field, in English, as a pattern; what it holds is named in the order of the groups. */
const PROBLEMS: readonly (readonly [RegExp, TextId, ...string[]])[] = [
  [/^must be text$/, 'fields.text'],
  [/^must not be empty$/, 'fields.empty'],
  [/^must be at most ([\d.]+) characters$/, 'fields.at-most-characters', 'max'],
  [/^must be at least ([\d.]+) characters$/, 'fields.at-least-characters', 'min'],
  [/^must be an e-mail address$/, 'fields.email'],
  [/^must be an address that begins with http:\/\/ or https:\/\/$/, 'fields.address'],
  [/^This is not an address that begins with http:\/\/ or https:\/\/\.$/, 'fields.address'],
  [/^(\S+) is not an address of the public internet\.$/, 'fields.not-public', 'host'],
  [/^Addresses with a name and a password in them are not taken\.$/, 'fields.with-password'],
  [/^must be an id$/, 'fields.id'],
  [/^each must be an id$/, 'fields.each-id'],
  [/^must be an instant$/, 'fields.instant'],
  [/^must be (-?[\d.]+) or more$/, 'fields.or-more', 'min'],
  [/^must be from (-?[\d.]+) to (-?[\d.]+)$/, 'fields.from-to', 'min', 'max'],
  [/^must be a whole number$/, 'fields.whole'],
  [/^must be a number$/, 'fields.number'],
  [/^must be yes or no$/, 'fields.flag'],
  [/^must be the name of a platform that posts can go through$/, 'fields.service'],
  [/^must be one of (.+)$/, 'fields.one-of', 'values'],
  [/^each must be one of (.+)$/, 'fields.each-one-of', 'values'],
  [/^must be a list$/, 'fields.list'],
  [/^must hold at most (\d+)$/, 'fields.hold-at-most', 'max'],
  [/^must hold at least (\d+)$/, 'fields.hold-at-least', 'min'],
  [/^must hold (\d+)$/, 'fields.hold', 'count'],
  [/^must hold texts$/, 'fields.hold-texts'],
  [/^must hold numbers$/, 'fields.hold-numbers'],
  [/^must not hold an empty one$/, 'fields.hold-empty'],
  [/^each must be at most ([\d.]+) characters$/, 'fields.each-at-most-characters', 'max'],
  [/^each must be (-?[\d.]+) or more$/, 'fields.each-or-more', 'min'],
  [/^each must be at most ([\d.]+)$/, 'fields.each-at-most', 'max'],
  [/^must be filled in$/, 'fields.filled-in'],
  [/^must not hold characters that cannot be kept \(zero, or half of a pair\)$/, 'fields.keepable'],
  [/^must be a day, YYYY-MM-DD, from 2000 to 2099$/, 'fields.day'],
  [/^must be a time zone such as Europe\/Dublin$/, 'fields.zone'],
  [/^must stand out from the ground more: a contrast of ([\d.]+) at least$/, 'fields.contrast', 'least'],
  [/^must be a colour, #rrggbb$/, 'fields.colour'],
  [/^must be a code such as es or pt-BR$/, 'fields.language'],
  [/^must be after the start of the part$/, 'fields.after-start'],
  [/^must be longer than the shortest$/, 'fields.longer'],
  [/^must not be before the first day$/, 'fields.not-before'],
  [/^must be after the first word$/, 'fields.after-first-word'],
  [/^leaves less room than the shortest length$/, 'fields.room'],
];

/** @returns the problem in the shown language, as a sentence begins; one that is not known here stays in English */
export function fieldProblem(said: string): string {
  const text = inShownLanguage(said);
  return text.charAt(0).toUpperCase() + text.slice(1);
}

function inShownLanguage(said: string): string {
  if (language() === 'en') return said;
  for (const [pattern, id, ...names] of PROBLEMS) {
    const found = pattern.exec(said);
    if (found !== null) return t(id, Object.fromEntries(names.map((name, i) => [name, found[i + 1]])));
  }
  return said;
}
