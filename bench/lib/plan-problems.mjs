// Made-up planning problems, in the form that `sift-reel plan` reads: the same seed, the same problem. They differ in how
// tight they are: slots against shorts, limits against windows, recordings, gaps, dates that bind, posts that stand.
const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
const ZONES = ['Europe/Dublin', 'America/Halifax', 'Asia/Tokyo', 'Australia/Lord_Howe', 'UTC', 'America/Los_Angeles'];
const HOUR_MS = 3_600_000;

/** Numbers from 0 to 1 (mulberry32). */
export function numbers(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

const dateAfter = (from, days) => new Date(Date.parse(`${from}T00:00Z`) + days * 24 * HOUR_MS).toISOString().slice(0, 10);

/**
 * One client's problem, small enough for an exact solver.
 * @param seed any whole number
 */
export function smallProblem(seed) {
  const next = numbers(seed * 7_919 + 11);
  const whole = (least, most) => least + Math.floor(next() * (most - least + 1));
  const pick = (list) => list[whole(0, list.length - 1)];
  // Weeks in which clocks change, too: in Dublin, Los Angeles, Halifax and on Lord Howe.
  const from = pick(['2026-03-02', '2026-03-23', '2026-04-01', '2026-05-04', '2026-10-19', '2026-10-29']);
  const days = whole(5, 17);
  const tight = next();
  const platforms = Array.from({ length: whole(1, 3) }, (_, i) => ({
    id: `p${i}`,
    minSeconds: pick([0, 5, 15]),
    maxSeconds: pick([45, 60, 90]),
    shapes: pick([['9:16'], ['9:16', '1:1'], ['9:16', '16:9', '1:1']]),
    perDay: whole(1, 4),
  }));
  const channels = Array.from({ length: whole(1, 4) }, (_, i) => ({
    id: `c${i}`,
    client: 'k',
    platform: pick(platforms).id,
    zone: pick(ZONES),
    order: i + 1,
    perDay: whole(1, 2 + Math.round(2 * (1 - tight))),
    perWeek: whole(1, 4 + Math.round(6 * (1 - tight))),
    gapMinutes: pick([0, 60, 180, 600, 1_500]),
    windows: windows(whole(2, 8)),
    blackouts: next() < 0.3 ? [{ from: dateAfter(from, 2), to: dateAfter(from, 2 + whole(0, 2)) }] : [],
  }));
  function windows(n) {
    const seen = new Set();
    return Array.from({ length: n }, () => ({
      day: pick(DAYS),
      at: `${String(whole(0, 23)).padStart(2, '0')}:${pick(['00', '15', '30', '45'])}`,
      weight: whole(20, 100),
    })).filter(({ day, at }) => !seen.has(day + at) && seen.add(day + at));
  }
  const recordings = whole(1, 6);
  const instant = (least, most) => new Date(Date.parse(`${from}T00:00Z`) + whole(least * 24, most * 24) * HOUR_MS).toISOString();
  const shorts = Array.from({ length: whole(3, 8 + Math.round(14 * next())) }, (_, i) => ({
    id: `s${String(i).padStart(2, '0')}`,
    client: 'k',
    recording: `r${Math.min(whole(0, recordings - 1), whole(0, recordings - 1))}`,
    score: whole(20, 99) + (next() < 0.5 ? 0 : whole(0, 9) / 10),
    seconds: whole(4, 80),
    shape: pick(['9:16', '9:16', '9:16', '1:1', '16:9']),
    notBefore: next() < 0.2 * tight * 2 ? instant(0, days - 1) : null,
    notAfter: next() < 0.2 * tight * 2 ? instant(3, days + 2) : null,
  }));
  const stood = new Set();
  const posts = Array.from({ length: next() < 0.6 ? whole(1, 6) : 0 }, () => {
    const channel = pick(channels);
    // Some name a short of the problem, on its lead or elsewhere; most do not.
    const short = next() < 0.35 ? pick(shorts) : { id: `old${whole(0, 99)}`, recording: `r${whole(0, recordings)}` };
    return { short: short.id, channel: channel.id, recording: short.recording, at: instant(-4, days + 3).replace(':00:00.000Z', ':07:00.000Z') };
  }).filter(({ short, channel }) => !stood.has(short + channel) && stood.add(short + channel));
  return {
    now: new Date(Date.parse(`${from}T00:00Z`) + whole(-2, 3) * 12 * HOUR_MS).toISOString(),
    from,
    to: dateAfter(from, days - 1),
    platforms,
    channels,
    shorts,
    posts,
    rules: { crossPostHours: pick([0, 12, 20, 48]), floor: pick([0, 0, 30, 50]) },
  };
}

/** An agency's problem: 20 clients, 60 channels, eight weeks, 1,500 shorts. */
export function agencyProblem({ clients = 20, channelsEach = 3, shortsEach = 75, weeks = 8, seed = 5 } = {}) {
  const next = numbers(seed);
  const whole = (least, most) => least + Math.floor(next() * (most - least + 1));
  const pick = (list) => list[whole(0, list.length - 1)];
  const from = '2026-03-02';
  const platforms = [60, 90, 120].map((maxSeconds, i) => ({ id: `p${i}`, minSeconds: 3, maxSeconds, shapes: ['9:16'], perDay: 3 }));
  const channels = [];
  const shorts = [];
  const posts = [];
  for (let k = 0; k < clients; k += 1) {
    const perWeek = whole(3, 7);
    for (let c = 0; c < channelsEach; c += 1)
      channels.push({
        id: `k${k}c${c}`,
        client: `k${k}`,
        platform: pick(platforms).id,
        zone: pick(ZONES),
        order: c + 1,
        perDay: whole(1, 2),
        perWeek,
        gapMinutes: pick([120, 180, 240]),
        windows: DAYS.flatMap((day) => ['07:30', '12:15', '18:10'].filter(() => next() < 0.7).map((at) => ({ day, at, weight: whole(30, 100) }))),
        blackouts: next() < 0.3 ? [{ from: dateAfter(from, 20), to: dateAfter(from, 23) }] : [],
      });
    for (let s = 0; s < shortsEach; s += 1)
      shorts.push({
        id: `k${k}s${s}`,
        client: `k${k}`,
        recording: `k${k}r${whole(0, 8)}`,
        score: whole(200, 990) / 10,
        seconds: whole(15, 100),
        shape: '9:16',
        notBefore: next() < 0.1 ? `${dateAfter(from, whole(0, 30))}T00:00:00Z` : null,
        notAfter: next() < 0.1 ? `${dateAfter(from, whole(20, 56))}T00:00:00Z` : null,
      });
    for (let p = 0; p < 4; p += 1)
      posts.push({
        short: `k${k}old${p}`,
        channel: `k${k}c${whole(0, channelsEach - 1)}`,
        recording: `k${k}r${whole(0, 8)}`,
        at: `${dateAfter(from, whole(-3, 12))}T09:0${p}:00Z`,
      });
  }
  return { now: '2026-03-01T12:00:00Z', from, to: dateAfter(from, weeks * 7 - 1), platforms, channels, shorts, posts, rules: { crossPostHours: 20, floor: 0 } };
}
