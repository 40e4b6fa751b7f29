import { Inject, Injectable } from '@nestjs/common';
import { Clock } from '../config/clock.js';
import { log } from '../config/logger.js';
import type { JobRun } from '../jobs/job-run.js';
import { Post } from '../planning/planning.models.js';
import { Sending, SendingEvent, type SendingEventName } from './publishing.models.js';
import type { End } from './way.js';

/** Writes how far a post is, in the name of the run that is looking at it: one that was taken over writes nothing. */
@Injectable()
export class PostRecord {
  constructor(@Inject(Clock) private readonly clock: Clock) {}

  async end(run: JobRun, post: Post, end: End): Promise<void> {
    await run.complete(async () => {
      await this.put(post, end);
    });
  }

  /** Like an end, in the middle. @returns false where the post is not what it was, and nothing was written */
  async write(run: JobRun, post: Post, end: End): Promise<boolean> {
    const written = await run.keep(() => this.put(post, end));
    // What is known here follows what was written for good: a transaction may be tried twice.
    if (written !== null) post.set({ ...written });
    return written !== null;
  }

  async keep(run: JobRun, sending: Sending, kept: Sending['kept']): Promise<void> {
    const all = { ...sending.kept, ...kept };
    await run.keep(() => Sending.update({ kept: all }, { where: { postId: sending.postId } }));
    sending.set({ kept: all });
  }

  async tell(post: Post, event: SendingEventName, detail: string): Promise<void> {
    await SendingEvent.create({ postId: post.id, clientId: post.clientId, at: new Date(this.clock.nowMs()), event, detail: detail.slice(0, 600) });
  }

  /**
   * Inside a transaction that holds the run's job. Written only where nobody changed the post since the look began; what was changed is
   * looked at anew.
   * @returns what was written to the post, or null
   */
  async put(post: Post, { post: fields, sending, unfix, event, detail }: End): Promise<Partial<Post> | null> {
    const now = await Post.findByPk(post.id, { lock: true });
    if (now === null) return null;
    if (now.version !== post.version) {
      log.info({ postId: post.id }, 'a post was changed while it was looked at');
      // What came of a call is kept, whatever else has changed.
      if (sending !== undefined) await Sending.update(sending, { where: { postId: post.id } });
      if (fields.state === 'posted') await now.update({ state: 'posted', version: now.version + 1 });
      if (fields.turnedDown !== undefined) await now.update({ turnedDown: fields.turnedDown });
      return null;
    }
    const shown = fields.state !== undefined && (fields.state !== now.state || (fields.waits ?? null) !== (now.waits ?? null));
    const written = { ...(fields.state === undefined ? {} : { waits: null }), ...fields, version: shown ? now.version + 1 : now.version };
    await now.update(written);
    if (unfix === true) await Sending.destroy({ where: { postId: post.id } });
    else if (sending !== undefined) await Sending.update(sending, { where: { postId: post.id } });
    if (event !== undefined) await this.tell(post, event, detail ?? '');
    return written;
  }
}
