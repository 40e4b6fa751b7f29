// The rules of a planning problem, written a second time, from the words of the rules and with Luxon's clocks, to judge
// plans by and to state the problem to an exact solver. Nothing here is shared with the planner.
import { DateTime } from 'luxon';

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

/** The first instant at which a zone's wall shows a time, or, where clocks skip it, the first after what they skip. */
export function instantOn(zone, date, at) {
  const found = DateTime.fromISO(`${date}T${at}`, { zone });
  if (found.toFormat('yyyy-MM-dd HH:mm') === `${date} ${at}`) return Math.min(...found.getPossibleOffsets().map((one) => one.toMillis()));
  let ms = found.toMillis() - 5 * 3_600_000;
  while (DateTime.fromMillis(ms, { zone }).toFormat('yyyy-MM-dd HH:mm') < `${date} ${at}`) ms += 60_000;
  return ms;
}

export const localDate = (zone, ms) => DateTime.fromMillis(ms, { zone }).toISODate();
export const localWeek = (zone, ms) => DateTime.fromMillis(ms, { zone }).toFormat("kkkk-'W'WW");
export const fitsPlatform = (problem, short, channel) => {
  const platform = problem.platforms.find((one) => one.id === channel.platform);
  return (
    short.client === channel.client && short.seconds >= platform.minSeconds && short.seconds <= platform.maxSeconds && platform.shapes.includes(short.shape)
  );
};
export const leadOf = (problem, short) => problem.channels.filter((one) => fitsPlatform(problem, short, one)).sort((a, b) => a.order - b.order)[0];
export const perDayOf = (problem, channel) => Math.min(channel.perDay, problem.platforms.find((one) => one.id === channel.platform).perDay);

/** Slots of a channel: `{ ms, weight }`, in order. */
export function slotsOf(problem, channel) {
  const slots = new Map();
  for (let day = DateTime.fromISO(problem.from, { zone: 'UTC' }); day.toISODate() <= problem.to; day = day.plus({ days: 1 })) {
    const date = day.toISODate();
    if (channel.blackouts.some((one) => one.from <= date && date <= one.to)) continue;
    for (const window of channel.windows) {
      if (WEEKDAYS[day.weekday - 1] !== window.day) continue;
      const ms = instantOn(channel.zone, date, window.at);
      if (ms >= Date.parse(problem.now)) slots.set(ms, Math.max(window.weight, slots.get(ms) ?? 0));
    }
  }
  return [...slots].map(([ms, weight]) => ({ ms, weight })).sort((a, b) => a.ms - b.ms);
}

/** Everything that a plan's posts break, in words; empty for a plan that holds. */
export function brokenRules(problem, posts) {
  const broken = [];
  const standing = problem.posts.map((post) => ({ ...post, ms: Date.parse(post.at), isNew: false }));
  const fresh = posts.map((post) => ({
    ...post,
    ms: Date.parse(post.at),
    isNew: true,
    recording: problem.shorts.find((one) => one.id === post.short)?.recording,
  }));
  const all = [...standing, ...fresh];
  for (const post of fresh) {
    const short = problem.shorts.find((one) => one.id === post.short);
    const channel = problem.channels.find((one) => one.id === post.channel);
    const say = (words) => broken.push(`${post.short} on ${post.channel} at ${post.at}: ${words}`);
    if (!short || !channel) {
      say('unknown');
      continue;
    }
    const slot = slotsOf(problem, channel).find((one) => one.ms === post.ms);
    if (!slot) say('no slot');
    if (!fitsPlatform(problem, short, channel)) say('does not fit');
    if (short.score < problem.rules.floor) say('under the floor');
    if (short.notBefore !== null && post.ms < Date.parse(short.notBefore)) say('too early');
    if (short.notAfter !== null && post.ms > Date.parse(short.notAfter)) say('too late');
    if (all.filter((one) => one.short === post.short && one.channel === post.channel).length > 1) say('twice on a channel');
    const mates = all.filter((one) => one.channel === post.channel && one !== post);
    if (mates.some((one) => one.ms === post.ms)) say('a slot twice');
    if (mates.some((one) => Math.abs(one.ms - post.ms) < channel.gapMinutes * 60_000)) say('under the gap');
    const day = localDate(channel.zone, post.ms);
    if (mates.filter((one) => localDate(channel.zone, one.ms) === day).length + 1 > perDayOf(problem, channel)) say('day over full');
    const week = localWeek(channel.zone, post.ms);
    if (mates.filter((one) => localWeek(channel.zone, one.ms) === week).length + 1 > channel.perWeek) say('week over full');
    const before = mates.filter((one) => one.ms < post.ms).sort((a, b) => b.ms - a.ms)[0];
    const after = mates.filter((one) => one.ms > post.ms).sort((a, b) => a.ms - b.ms)[0];
    for (const neighbour of [before, after]) if (neighbour?.recording === post.recording) say('two in a row of one recording');
    const lead = leadOf(problem, short);
    if (lead && lead.id !== channel.id) {
      const first = all.find((one) => one.short === post.short && one.channel === lead.id);
      if (!first || post.ms < first.ms + problem.rules.crossPostHours * 3_600_000) say('not after its lead');
    }
  }
  return broken;
}

export const valueOf = (problem, posts) =>
  posts.reduce((sum, post) => {
    const channel = problem.channels.find((one) => one.id === post.channel);
    const slot = slotsOf(problem, channel).find((one) => one.ms === Date.parse(post.at));
    return sum + (problem.shorts.find((one) => one.id === post.short).score * slot.weight) / 100;
  }, 0);
