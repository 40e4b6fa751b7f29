import type { JobRun } from '../jobs/job-run.js';
import type { Post } from '../planning/planning.models.js';
import type { Content, Line, PostingPlatform } from './platforms/platform.js';
import type { Sending, SendingEventName } from './publishing.models.js';

/** A post on its way, with all that its way needs. */
export interface Way {
  readonly run: JobRun;
  readonly post: Post;
  readonly sending: Sending;
  readonly platform: PostingPlatform;
  readonly content: Content;
  readonly line: Line;
  readonly lateMs: number;
  /** False where the file is gone: what may be there is still looked for. */
  readonly hasFile: boolean;
  /** The call that publishes was announced then, in this look; null before. */
  readonly announced: { atMs: number | null };
}

/** How a look at a post ends. */
export interface End {
  readonly post: Partial<Pick<Post, 'state' | 'waits' | 'failure' | 'tryAt' | 'turnedDown'>>;
  readonly sending?: Partial<Pick<Sending, 'doubtSince' | 'remoteId' | 'address' | 'postedAt' | 'tries'>>;
  /** What was fixed is let go: it is fixed anew when it may go out. */
  readonly unfix?: true;
  readonly event?: SendingEventName;
  readonly detail?: string;
}
