/** What a sentence of talk does. The first eleven can earn a passage its place; plain talk (background, lists, what everybody knows) neither earns nor spoils it; the last eight spoil it. */
export const ROLES = [
  'claim',
  'advice',
  'story',
  'figure',
  'explanation',
  'question',
  'answer',
  'feeling',
  'joke',
  'contrast',
  'problem',
  'plain',
  'greeting',
  'housekeeping',
  'sponsor',
  'subscribe',
  'walkThrough',
  'waiting',
  'smallTalk',
  'incomplete',
] as const;
export type Role = (typeof ROLES)[number];

/** Talk that nobody should post. */
export const DULL_ROLES = [
  'greeting',
  'housekeeping',
  'sponsor',
  'subscribe',
  'walkThrough',
  'waiting',
  'smallTalk',
  'incomplete',
] as const satisfies readonly Role[];

const PLACES = Object.fromEntries(ROLES.map((role, place) => [role, place])) as Readonly<Record<Role, number>>;

/** Place of a role in a row of probabilities. */
export const roleAt = (role: Role): number => PLACES[role];
