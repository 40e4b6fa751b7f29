// A planning problem as a mixed-integer programme, solved by HiGHS: the value of the best plan there is.
import highsLoader from 'highs';
import { fitsPlatform, leadOf, localDate, localWeek, perDayOf, slotsOf } from './plan-rules.mjs';

let loading;

/**
 * The best value, with the milliseconds that the solver took for it.
 * @throws Error where the solver does not come to an optimum in `limitSeconds`
 */
export async function bestValue(problem, limitSeconds = 120) {
  loading ??= highsLoader();
  const highs = await loading;
  const model = programme(problem);
  if (model === null) return { value: 0, ms: 0, posts: [] };
  const start = performance.now();
  const solved = highs.solve(model.text, { time_limit: limitSeconds, mip_rel_gap: 1e-7, mip_abs_gap: 1e-7 });
  const ms = performance.now() - start;
  if (solved.Status !== 'Optimal') throw new Error(`the solver says ${solved.Status}`);
  const posts = model.variables
    .filter((one) => solved.Columns[one.name].Primal > 0.5)
    .map(({ short, channel, ms: at }) => ({ short, channel, at: new Date(at).toISOString() }));
  return { value: solved.ObjectiveValue, ms, posts };
}

function programme(problem) {
  const rows = [];
  const variables = [];
  const crossMs = problem.rules.crossPostHours * 3_600_000;
  const standingOn = (channel) => problem.posts.filter((post) => post.channel === channel.id).map((post) => ({ ...post, ms: Date.parse(post.at) }));
  for (const [c, channel] of problem.channels.entries()) {
    const standing = standingOn(channel);
    const slots = slotsOf(problem, channel).filter((slot) => standing.every((post) => Math.abs(post.ms - slot.ms) >= Math.max(1, channel.gapMinutes * 60_000)));
    for (const [i, slot] of slots.entries())
      for (const [s, short] of problem.shorts.entries()) {
        if (!fitsPlatform(problem, short, channel) || short.score < problem.rules.floor) continue;
        if (standing.some((post) => post.short === short.id)) continue;
        if (short.notBefore !== null && slot.ms < Date.parse(short.notBefore)) continue;
        if (short.notAfter !== null && slot.ms > Date.parse(short.notAfter)) continue;
        variables.push({
          name: `x_${s}_${c}_${i}`,
          s,
          c,
          i,
          ms: slot.ms,
          short: short.id,
          channel: channel.id,
          recording: short.recording,
          worth: (short.score * slot.weight) / 100,
        });
      }
    const own = variables.filter((one) => one.c === c);
    const sum = (list) => list.map((one) => one.name).join(' + ');
    const at = (i) => own.filter((one) => one.i === i);
    const limit = (list, most) => {
      if (list.length > 0) rows.push(`${sum(list)} <= ${most}`);
    };
    slots.forEach((_, i) => limit(at(i), 1));
    problem.shorts.forEach((_, s) =>
      limit(
        own.filter((one) => one.s === s),
        1,
      ),
    );
    for (const [nameOf, most] of [
      [localDate, perDayOf(problem, channel)],
      [localWeek, channel.perWeek],
    ])
      for (const name of new Set(slots.map((slot) => nameOf(channel.zone, slot.ms)))) {
        const stand = standing.filter((post) => nameOf(channel.zone, post.ms) === name).length;
        limit(
          own.filter((one) => nameOf(channel.zone, one.ms) === name),
          Math.max(0, most - stand),
        );
      }
    for (let i = 0; i < slots.length; i += 1)
      for (let j = i + 1; j < slots.length; j += 1) if (slots[j].ms - slots[i].ms < channel.gapMinutes * 60_000) limit([...at(i), ...at(j)], 1);
    // Never two in a row of one recording: both only where something stands between.
    const between = (a, b) => own.filter((one) => one.ms > a && one.ms < b);
    const parts = (list, sign) => list.map((one) => ` ${sign} ${one.name}`).join('');
    for (const recording of new Set(own.map((one) => one.recording))) {
      const of = (i) => at(i).filter((one) => one.recording === recording);
      for (let i = 0; i < slots.length; i += 1) {
        if (of(i).length === 0) continue;
        for (let j = i + 1; j < slots.length; j += 1) {
          if (of(j).length === 0 || standing.some((post) => post.ms > slots[i].ms && post.ms < slots[j].ms)) continue;
          rows.push(`${sum([...of(i), ...of(j)])}${parts(between(slots[i].ms, slots[j].ms), '-')} <= 1`);
        }
        for (const side of [-1, 1]) {
          const nearest = standing.filter((post) => (post.ms - slots[i].ms) * side > 0).sort((a, b) => (a.ms - b.ms) * side)[0];
          if (nearest?.recording !== recording) continue;
          rows.push(`${sum(of(i))}${parts(between(Math.min(slots[i].ms, nearest.ms), Math.max(slots[i].ms, nearest.ms)), '-')} <= 0`);
        }
      }
    }
  }
  for (const [s, short] of problem.shorts.entries()) {
    const lead = leadOf(problem, short);
    if (!lead) continue;
    const l = problem.channels.indexOf(lead);
    const stands = standingOn(lead).find((post) => post.short === short.id);
    for (const variable of variables.filter((one) => one.s === s && one.c !== l)) {
      if (stands && stands.ms + crossMs <= variable.ms) continue;
      const early = variables.filter((one) => one.s === s && one.c === l && one.ms + crossMs <= variable.ms);
      rows.push(`${variable.name}${early.map((one) => ` - ${one.name}`).join('')} <= 0`);
    }
  }
  if (variables.length === 0) return null;
  const objective = variables.map((one) => `${one.worth.toFixed(6)} ${one.name}`);
  const text = `Maximize\n obj: ${wrap(objective)}\nSubject To\n${rows.map((row, n) => ` r${n}: ${wrap(row.split(' + '))}`).join('\n')}\nBinary\n ${variables.map((one) => one.name).join('\n ')}\nEnd\n`;
  return { text, variables };
}

/** Lines of the format may not grow without end. */
function wrap(terms) {
  const lines = [];
  for (let n = 0; n < terms.length; n += 8) lines.push(terms.slice(n, n + 8).join(' + '));
  return lines.join('\n + ');
}
