import { Column, DataType, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { JobSize, JobState } from './job-kind.js';

/**
 * A job: what is asked, where it stands, and how it ended. A row is changed by the statements of `job-statements.ts` only,
 * each of which names the state (and, for a run, the attempt) that it changes from.
 */
@Table({ tableName: 'jobs', underscored: true, updatedAt: false })
export class Job extends Model {
  @PrimaryKey @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare kind: string;
  @Column(DataType.UUID) declare subjectId: string;
  @Column(DataType.UUID) declare clientId: string;
  /** Ids that a screen needs to know what to load again. */
  @Column(DataType.JSONB) declare about: Readonly<Record<string, string>>;
  @Column(DataType.TEXT) declare lockKey: string;
  @Column(DataType.TEXT) declare size: JobSize;
  @Column(DataType.TEXT) declare state: JobState;
  @Column(DataType.TEXT) declare stage: string;
  @Column(DataType.REAL) declare fraction: number;
  @Column(DataType.INTEGER) declare leftMs: number | null;
  /** Counts every run; what a run writes names it, so that a run that was taken over writes nothing more. */
  @Column(DataType.INTEGER) declare attempt: number;
  @Column(DataType.INTEGER) declare faults: number;
  @Column(DataType.INTEGER) declare crashes: number;
  @Column(DataType.TEXT) declare failure: string | null;
  @Column(DataType.DATE) declare dueAt: Date;
  declare createdAt: Date;
  @Column(DataType.DATE) declare startedAt: Date | null;
  @Column(DataType.DATE) declare finishedAt: Date | null;
}
