import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { describe, expect, it } from 'vitest';
import { AcceptForm, BlackoutForm, BriefForm, ChannelForm, ChoosePasswordForm, ClientForm, declaredFields, MovePostForm, NewUserForm } from './index.js';

const flat = (errors: ValidationError[], path = ''): string[] =>
  errors.flatMap((error) => [
    ...Object.values(error.constraints ?? {}).map((text) => `${path}${error.property} ${text}`),
    ...flat(error.children ?? [], `${path}${error.property}.`),
  ]);
const check = (form: new () => object, value: object): string[] =>
  flat(validateSync(plainToInstance(form, value), { whitelist: true, forbidNonWhitelisted: true }));
const BRIEF = { partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [] };
const CHANNEL = {
  name: 'C',
  platformProfileId: '00000000-0000-4000-8000-000000000000',
  zone: 'UTC',
  order: 1,
  postsPerDay: 1,
  postsPerWeek: 1,
  windows: [{ weekday: 1, minute: 0, weight: 1 }],
};

describe('forms', () => {
  it.each<[string, new () => object, object]>([
    ['brief', BriefForm, BRIEF],
    ['brief with an end', BriefForm, { ...BRIEF, partEndMs: 90_000, kinds: ['story'] }],
    ['client', ClientForm, { name: 'K', zone: 'Europe/Dublin', tags: ['a'], standingBrief: BRIEF }],
    ['channel', ChannelForm, CHANNEL],
    ['blackout of one day', BlackoutForm, { channelId: null, fromDate: '2026-05-01', toDate: '2026-05-01', reason: 'x' }],
  ])('take a good %s', (_, form, value) => expect(check(form, value)).toEqual([]));
  it.each<[string, new () => object, object, string]>([
    ['an upside-down length band', BriefForm, { ...BRIEF, maxMs: 20_000 }, 'maxMs must be longer than the shortest'],
    ['a part that ends before it starts', BriefForm, { ...BRIEF, partStartMs: 9_000, partEndMs: 8_000 }, 'partEndMs must be after the start of the part'],
    ['a kind nobody knows', BriefForm, { ...BRIEF, kinds: ['gossip'] }, 'kinds each must be one of'],
    ['too many topics', BriefForm, { ...BRIEF, topics: Array.from({ length: 21 }, (_, i) => `t${i}`) }, 'topics must hold at most 20'],
    ['half a millisecond', BriefForm, { ...BRIEF, minMs: 30_000.5 }, 'minMs must be a whole number'],
    ['no zone', ClientForm, { name: 'K', zone: 'Mars/Base', tags: [], standingBrief: BRIEF }, 'zone must be a time zone'],
    [
      'a wrong standing brief, by its path',
      ClientForm,
      { name: 'K', zone: 'UTC', tags: [], standingBrief: { ...BRIEF, roughCount: 0 } },
      'standingBrief.roughCount must be from 1 to 200',
    ],
    [
      'a window on no weekday, by its path',
      ChannelForm,
      { ...CHANNEL, windows: [{ weekday: 8, minute: 0, weight: 1 }] },
      'windows.0.weekday must be from 1 to 7',
    ],
    [
      'a blackout that ends before it starts',
      BlackoutForm,
      { channelId: null, fromDate: '2026-05-02', toDate: '2026-05-01', reason: 'x' },
      'toDate must not be before the first day',
    ],
    ['a thirteenth month', MovePostForm, { channelId: CHANNEL.platformProfileId, date: '2026-13-01', minute: 0 }, 'date must be a day'],
    [
      'a password that somebody else chose',
      NewUserForm,
      { email: 'a@b.example', name: 'A', role: 'owner', password: 'long enough for anybody', clientIds: [] },
      'password property password should not exist',
    ],
    ['a short password', ChoosePasswordForm, { password: 'short' }, 'password must be at least 12 characters'],
    ['a field that is a list where an object belongs', ClientForm, { name: 'K', zone: 'UTC', tags: [], standingBrief: [] }, 'standingBrief'],
    ['a day that is none', MovePostForm, { channelId: CHANNEL.platformProfileId, date: '2026-02-30', minute: 0 }, 'date must be a day'],
    ['a name of spaces', ClientForm, { name: '   ', zone: 'UTC', tags: [], standingBrief: BRIEF }, 'name must not be empty'],
    ['what cannot be kept', ClientForm, { name: 'a\u0000b', zone: 'UTC', tags: [], standingBrief: BRIEF }, 'name'],
    [
      'a placement without a short',
      AcceptForm,
      { batchId: null, placements: [{ channelId: CHANNEL.platformProfileId, date: '2026-05-01', minute: 0, why: '' }] },
      'placements.0.shortId must be an id',
    ],
    ['a field nobody asked for', BriefForm, { ...BRIEF, secret: 1 }, 'secret'],
  ])('refuse %s', (_, form, value, message) =>
    expect(
      check(form, value).some((text) => text.startsWith(message)),
      check(form, value).join('; '),
    ).toBe(true),
  );
  it('declare each field once', () => {
    const keys = declaredFields.map(({ target, key }) => `${target.constructor.name}.${key}`);
    expect(new Set(keys).size).toBe(keys.length);
  });
});
