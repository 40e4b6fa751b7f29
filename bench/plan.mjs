// How near the planner comes to the best plan, and how fast: against the exact optimum by HiGHS on 200 made-up problems of
// differing tightness, and on an agency's eight weeks against its own bound. The problems were made up by whoever tunes the
// planner, but nothing in it was fitted to them: what is measured is arithmetic.
import { layOut } from '@sift-reel/core';
import { readProblem, solvePlan } from '@sift-reel/core/planning';
import { bestValue } from './lib/plan-exact.mjs';
import { agencyProblem, smallProblem } from './lib/plan-problems.mjs';
import { brokenRules } from './lib/plan-rules.mjs';
import { row } from './measure.mjs';

const PROBLEMS = 200;
const ratios = [];
let [ours, theirs, broken, under] = [0, 0, 0, 0];
let worst = { ratio: 2, seed: 0 };
solvePlan(readProblem(smallProblem(0))); // compiled
for (let seed = 1; seed <= PROBLEMS; seed += 1) {
  const json = smallProblem(seed);
  const problem = readProblem(json);
  const start = performance.now();
  const solution = solvePlan(problem);
  ours += performance.now() - start;
  const exact = await bestValue(json);
  theirs += exact.ms;
  const posts = solution.posts.map(({ short, channel, atMs }) => ({ short, channel, at: new Date(atMs).toISOString() }));
  if (brokenRules(json, posts).length > 0) broken += 1;
  if (solution.bound < exact.value - 1e-4) under += 1;
  const ratio = exact.value === 0 ? 1 : solution.value / exact.value;
  ratios.push(ratio);
  if (ratio < worst.ratio) worst = { ratio, seed };
}
const mean = ratios.reduce((sum, one) => sum + one, 0) / ratios.length;
row(`${PROBLEMS} problems: value, of the optimum, on average`, mean.toFixed(5));
row('  worst', `${worst.ratio.toFixed(4)} (problem ${worst.seed})`);
row('  at the optimum; under 0.98', `${ratios.filter((one) => one > 1 - 1e-6).length}; ${ratios.filter((one) => one < 0.98).length}`);
row('  plans that break a rule; bounds under the optimum', `${broken}; ${under}`);
row('  times as fast as HiGHS', (theirs / ours).toFixed(1));
const agency = readProblem(agencyProblem());
const times = [];
let solution;
for (let n = 0; n < 3; n += 1) {
  const start = performance.now();
  solution = solvePlan(agency);
  times.push(performance.now() - start);
}
times.sort((a, b) => a - b);
row('20 clients, 60 channels, 8 weeks, 1,500 shorts: value, of the bound', (solution.value / solution.bound).toFixed(4));
row('  posts; seconds (least, middle, most)', `${solution.posts.length}; ${times.map((ms) => (ms / 1_000).toFixed(2)).join(', ')}`);
if (broken + under > 0) process.exitCode = 1;

// The same agency in the program: half of its shorts are on the schedule and may move, the rest is laid out.
const half = agency.shorts.filter((_, i) => i % 2 === 0).map(({ id }) => id);
const rest = agency.shorts.filter((_, i) => i % 2 === 1).map(({ id }) => id);
const days = { fromDate: agency.from, toDate: agency.to };
const first = layOut({ plan: planOf(agency), shortIds: half, ...days });
const standing = { ...planOf(agency), posts: first.placements };
const timed = (request) => {
  const start = performance.now();
  return { proposal: layOut(request), ms: performance.now() - start };
};
const still = timed({ plan: standing, shortIds: rest, ...days });
const moving = timed({ plan: standing, shortIds: rest, movableIds: standing.posts.map(({ id }) => id), ...days });
row(`half laid out (${standing.posts.length} posts), the rest: worth, what stands staying`, still.proposal.value.toFixed(0));
row('  what stands may move', `${moving.proposal.value.toFixed(0)}, ${moving.proposal.moves.length} moves; ${(moving.ms / still.ms).toFixed(1)} times as long`);
row('  seconds', `${(still.ms / 1_000).toFixed(1)}, ${(moving.ms / 1_000).toFixed(1)}`);

function planOf({ nowMs, platforms, channels, shorts }) {
  const of = new Map(platforms.map((platform) => [platform.id, platform]));
  return {
    nowMs,
    posts: [],
    channels: channels.map((channel) => {
      const { minSeconds, maxSeconds, perDay } = of.get(channel.platform);
      return {
        ...channel,
        clientId: channel.client,
        name: channel.id,
        postsPerDay: channel.perDay,
        postsPerWeek: channel.perWeek,
        rules: {
          name: channel.platform,
          minDurationMs: minSeconds * 1_000,
          maxDurationMs: maxSeconds * 1_000,
          postsPerDay: perDay,
          minGapMinutes: channel.gapMinutes,
        },
        blackouts: channel.blackouts.map(({ from, to }) => ({ fromDate: from, toDate: to, reason: '' })),
      };
    }),
    shorts: shorts.map(({ id, client, recording, score, seconds }) => ({
      ...{ id, clientId: client, recordingId: recording, title: id, lengthMs: seconds * 1_000, score },
      ...{ approved: true, comesAgainDays: null, copyProblems: {} },
    })),
  };
}
