import { type Plan, type PlanChannel, type PlannedPost, type PlanShort } from './types.js';
import { instantOf } from './zone.js';

const RULES = {
  name: 'Loopline',
  minDurationMs: 3_000,
  maxDurationMs: 60_000,
  shapes: ['vertical'] as const,
  copy: { title: 100, description: 300, hashtags: 5 },
  postsPerDay: 2,
  minGapMinutes: 180,
};
export const channel = (fields: Partial<PlanChannel> = {}): PlanChannel => ({
  id: 'c1',
  clientId: 'k',
  name: 'First',
  zone: 'Europe/Dublin',
  order: 1,
  postsPerDay: 1,
  postsPerWeek: 5,
  rules: RULES,
  windows: [1, 2, 3, 4, 5].map((weekday) => ({ weekday, minute: 450, weight: 80 })),
  blackouts: [],
  ...fields,
});
export const short = (id: string, fields: Partial<PlanShort> = {}): PlanShort => ({
  id,
  clientId: 'k',
  recordingId: 'r1',
  title: `Short ${id}`,
  lengthMs: 40_000,
  score: 70,
  approved: true,
  comesAgainDays: null,
  copyProblems: {},
  ...fields,
});
export const post = (fields: Partial<PlannedPost> & { date: string }): PlannedPost => ({
  id: 'p',
  shortId: 's0',
  recordingId: 'r0',
  channelId: 'c1',
  minute: 450,
  atMs: instantOf('Europe/Dublin', { date: fields.date, minute: fields.minute ?? 450 }).atMs,
  state: 'planned',
  ...fields,
});
export const plan = (fields: Partial<Plan> = {}): Plan => ({ channels: [channel()], shorts: [], posts: [], nowMs: Date.UTC(2026, 4, 1), ...fields });
