import type { AuditAction, AuditSubject } from './trail-words.js';
import { AutoIncrement, Column, DataType, Model, PrimaryKey, Table } from 'sequelize-typescript';

@Table({ tableName: 'audit_entries', underscored: true, timestamps: false })
export class AuditEntry extends Model {
  @PrimaryKey @AutoIncrement @Column(DataType.BIGINT) declare id: string;
  @Column({ type: DataType.DATE, defaultValue: DataType.NOW }) declare at: Date;
  @Column(DataType.UUID) declare userId: string | null;
  @Column(DataType.UUID) declare clientId: string | null;
  @Column(DataType.TEXT) declare action: AuditAction;
  @Column(DataType.TEXT) declare subject: AuditSubject;
  @Column(DataType.TEXT) declare subjectId: string;
  @Column(DataType.JSONB) declare detail: object;
}
