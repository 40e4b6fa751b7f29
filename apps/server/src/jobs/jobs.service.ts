import { Inject, Injectable } from '@nestjs/common';
import { Database } from '../database/database.service.js';
import type { JobKind, JobSize } from './job-kind.js';
import { Job } from './job.model.js';
import { CANCEL, ENQUEUE } from './job-statements.js';

interface JobRequest {
  readonly subjectId: string;
  readonly clientId: string;
  /** Ids that a screen needs to know what to load again. */
  readonly about: Readonly<Record<string, string>>;
  readonly size: JobSize;
  /** Work that comes round: done before, it is done again. */
  readonly again?: boolean;
}

/** Asks for background work and says how it stands. Asking joins the caller's transaction: row and job, both or neither. */
@Injectable()
export class JobsService {
  constructor(@Inject(Database) private readonly database: Database) {}

  /** @returns false when the subject has a job of this kind that is waiting, at work, or done and not asked for again */
  async enqueue(kind: JobKind, { subjectId, clientId, about, size, again = false }: JobRequest): Promise<boolean> {
    const rows = await this.database.run(ENQUEUE, [kind.name, subjectId, clientId, JSON.stringify(about), kind.lockKey(subjectId), size, again]);
    return rows.length > 0;
  }

  /** Ends a job that waits or is at work, at once: what its run still does is not written. @returns false when it was over */
  async cancel(kind: JobKind, subjectId: string): Promise<boolean> {
    return (await this.database.run(CANCEL, [kind.name, subjectId])).length > 0;
  }

  /** Jobs of a kind by their subjects. */
  async ofSubjects(kind: JobKind, subjectIds: readonly string[]): Promise<Map<string, Job>> {
    if (subjectIds.length === 0) return new Map();
    const jobs = await Job.findAll({ where: { kind: kind.name, subjectId: [...subjectIds] } });
    return new Map(jobs.map((job) => [job.subjectId, job]));
  }

  /** Jobs of a kind that a worker is at. */
  atWork(kind: JobKind): Promise<Pick<Job, 'subjectId' | 'attempt'>[]> {
    return Job.findAll({ attributes: ['subjectId', 'attempt'], where: { kind: kind.name, state: 'running' } });
  }

  /** True when the table of jobs answers. */
  async answers(): Promise<boolean> {
    await Job.findOne({ attributes: ['id'] });
    return true;
  }
}
