// The made-up agency: clients, channels, platforms and briefs. Nothing here is anybody's.
export const DEMO_SIGN_IN = { email: 'ruth@lanternyard.example', password: 'seven slow lanterns', name: 'Ruth Adeyemi-Kerr' };
export const DEMO_PRODUCER = {
  email: 'tomas@lanternyard.example',
  password: 'nine quiet harbours',
  name: 'Tomas Wrede',
  clients: ['Ardcree Chimneys', 'Pellworth Shoe Repair'],
};

const minute = (clock) => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));
const every = (weekdays, clock, weight) => weekdays.map((weekday) => ({ weekday, minute: minute(clock), weight }));

export const PLATFORMS = [
  {
    name: 'Loopline',
    minDurationMs: 5_000,
    maxDurationMs: 60_000,
    shapes: ['vertical'],
    titleLimit: 100,
    descriptionLimit: 300,
    hashtagLimit: 5,
    postsPerDay: 3,
    minGapMinutes: 180,
    loudness: -14,
    truePeak: -1,
    service: 'loopline',
  },
  {
    name: 'Fernpost',
    minDurationMs: 3_000,
    maxDurationMs: 90_000,
    shapes: ['square', 'portrait'],
    titleLimit: 60,
    descriptionLimit: 500,
    hashtagLimit: 8,
    postsPerDay: 2,
    minGapMinutes: 240,
    loudness: -16,
    truePeak: -1,
    service: 'fernpost',
  },
  {
    name: 'Northgate',
    minDurationMs: 20_000,
    maxDurationMs: 180_000,
    shapes: ['wide', 'square'],
    titleLimit: 120,
    descriptionLimit: 1_200,
    hashtagLimit: 3,
    postsPerDay: 1,
    minGapMinutes: 720,
    loudness: -14,
    truePeak: -1,
    service: 'northgate',
  },
  {
    name: 'Tidewire',
    minDurationMs: 10_000,
    maxDurationMs: 120_000,
    shapes: ['portrait', 'vertical'],
    titleLimit: 80,
    descriptionLimit: 240,
    hashtagLimit: 2,
    postsPerDay: 4,
    minGapMinutes: 90,
    loudness: -14,
    truePeak: -1,
    service: 'tidewire',
  },
  {
    name: 'Hearthside',
    minDurationMs: 30_000,
    maxDurationMs: 900_000,
    shapes: ['wide'],
    titleLimit: 100,
    descriptionLimit: 5_000,
    hashtagLimit: 12,
    postsPerDay: 1,
    minGapMinutes: 1_440,
    loudness: -16,
    truePeak: -1.5,
    service: 'hearthside',
  },
];

const brief = (fields) => ({ partStartMs: 0, partEndMs: null, minMs: 30_000, maxMs: 60_000, roughCount: 12, topics: [], kinds: [], avoid: [], ...fields });

/** Channels that post by themselves, and the account that their client allows at the stand-in. */
export const CONNECTED = { 'Ardcree on Loopline': 'll-ardcree', 'Ardcree on Fernpost': 'fp-ardcree', 'Pellworth on Tidewire': 'tw-pellworth' };

export const CLIENTS = [
  {
    name: 'Ardcree Chimneys',
    comeAgainDays: 60,
    interest: 'ardcree-chimneys.csv',
    voice: {
      use: [
        { say: 'liner', not: 'flexi pipe' },
        { say: 'homeowners', not: 'punters' },
      ],
      avoid: ['cowboy', 'death trap'],
      spelling: 'british',
      capitals: 'sentence',
      fixedParts: ['Book a sweep: ardcree-chimneys.example'],
      examples: ['Never burn wet wood', 'Why your stove smokes', 'One match, no firelighters'],
      alwaysTags: ['UpTheFlue'],
      neverTags: ['viral', 'fyp'],
    },
    zone: 'Europe/Dublin',
    tags: ['chimneysafety', 'firewood', 'stove', 'ardcree'],
    standingBrief: brief({ topics: ['wet wood', 'carbon monoxide'], avoid: ['sponsor'] }),
    channels: [
      {
        name: 'Ardcree on Loopline',
        platform: 'Loopline',
        zone: 'Europe/Dublin',
        order: 1,
        postsPerDay: 1,
        postsPerWeek: 4,
        windows: [...every([1, 2, 3, 4, 5], '07:30', 80), ...every([1, 3, 5], '18:10', 70), ...every([6, 7], '10:00', 60)],
      },
      {
        name: 'Ardcree on Fernpost',
        platform: 'Fernpost',
        zone: 'Europe/Dublin',
        order: 2,
        postsPerDay: 1,
        postsPerWeek: 3,
        windows: [...every([2, 4], '12:15', 75), ...every([6], '09:40', 65)],
      },
    ],
  },
  {
    name: 'Pellworth Shoe Repair',
    interest: 'pellworth-shoe-repair.csv',
    zone: 'America/Halifax',
    tags: ['shoerepair', 'leathercare', 'cobbler', 'pellworth'],
    standingBrief: brief({ topics: ['salt', 'glue'], kinds: ['advice', 'story'], maxMs: 75_000 }),
    channels: [
      {
        name: 'Pellworth on Loopline',
        platform: 'Loopline',
        zone: 'America/Halifax',
        order: 1,
        postsPerDay: 1,
        postsPerWeek: 4,
        windows: [...every([1, 2, 4, 5], '16:20', 80), ...every([3], '11:00', 50)],
      },
      {
        name: 'Pellworth on Tidewire',
        platform: 'Tidewire',
        zone: 'America/Halifax',
        order: 2,
        postsPerDay: 1,
        postsPerWeek: 2,
        windows: [...every([3, 6], '12:00', 70)],
      },
      {
        name: 'Pellworth on Northgate',
        platform: 'Northgate',
        zone: 'America/St_Johns',
        order: 3,
        postsPerDay: 1,
        postsPerWeek: 1,
        windows: every([4], '08:00', 60),
      },
    ],
  },
  {
    name: 'Brackwater Drains',
    zone: 'Australia/Adelaide',
    tags: ['drains', 'treeroots', 'brackwater'],
    standingBrief: brief({ topics: ['roots', 'fat'], minMs: 25_000 }),
    channels: [
      {
        name: 'Brackwater on Loopline',
        platform: 'Loopline',
        zone: 'Australia/Adelaide',
        order: 1,
        postsPerDay: 1,
        postsPerWeek: 5,
        windows: [...every([1, 2, 3, 4, 5], '06:45', 80), ...every([3], '19:00', 70), ...every([6], '10:30', 60)],
      },
      {
        name: 'Brackwater on Hearthside',
        platform: 'Hearthside',
        zone: 'Australia/Perth',
        order: 2,
        postsPerDay: 1,
        postsPerWeek: 2,
        windows: every([2, 5], '08:00', 60),
      },
    ],
  },
];

/** What each recording's text is, whether it has a picture, and how far it comes by itself. */
export const RECORDINGS = [
  { file: 'up-the-flue-12', client: 'Ardcree Chimneys', pictured: true, stage: 'worked', brief: { partStartMs: 215_000, partEndMs: 2_700_000 } },
  // The week before: two recordings, so that no channel posts two of one recording in a row.
  { file: 'up-the-flue-11', client: 'Ardcree Chimneys', pictured: true, stage: 'worked', brief: { partStartMs: 15_000, partEndMs: 500_000, minMs: 25_000 } },
  { file: 'the-last-and-the-welt-07', client: 'Pellworth Shoe Repair', stage: 'sifted', brief: { partStartMs: 130_000, partEndMs: 1_790_000 } },
  { file: 'what-goes-down-31', client: 'Brackwater Drains', stage: 'waiting' },
];
