import { hashOf, seeded } from './faults.js';

export type ShownState = 'processing' | 'scheduled' | 'public' | 'refused' | 'removed';

/** A post as its platform keeps it. */
export interface PlatformPost {
  readonly id: string;
  readonly account: string;
  /** What whoever posted it may find it by; the public does not see it. */
  readonly note: string;
  title: string;
  text: string;
  readonly tags: readonly string[];
  readonly coverText: string;
  readonly captions: string;
  readonly sha256: string;
  readonly bytes: number;
  state: ShownState;
  /** When the public sees it, or saw it first; ms. */
  publicMs: number;
  /** When it will be known whether it is shown; ms. */
  readonly decidedMs: number;
  /** Why it was refused, or will be. */
  words: string;
  readonly madeMs: number;
}

const HOUR_MS = 3_600_000;

/**
 * Who has looked at a post until a moment, and who has said so: grows fast at first and slower over days, the more the better its seed.
 * Invented, for something to show; nothing is learned from it.
 */
export function audience(post: Pick<PlatformPost, 'id' | 'publicMs' | 'state'>, nowMs: number): { readonly views: number; readonly reactions: number } {
  const hours = post.state === 'public' ? Math.max(0, nowMs - post.publicMs) / HOUR_MS : 0;
  const random = seeded(hashOf(post.id));
  const reach = 40 * 10 ** (random() * 2.2);
  const [fast, slow] = [4 + 8 * random(), 60 + 90 * random()];
  const grown = 0.6 * (1 - Math.exp(-hours / fast)) + 0.4 * (1 - Math.exp(-hours / slow));
  const views = Math.floor(reach * grown);
  return { views, reactions: Math.floor(views * (0.02 + 0.07 * random())) };
}
