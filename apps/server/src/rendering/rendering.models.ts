import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { RenderPlan, RenderShape } from './render-plan.js';

/** A file that is made, or was made, of a short. Where it stands is its job's to say. */
@Table({ tableName: 'renders', underscored: true, updatedAt: false })
export class Render extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare shortId: string;
  /** Address by content; one of a short. */
  @Column(DataType.TEXT) declare key: string;
  @Column(DataType.TEXT) declare shape: RenderShape;
  @Column(DataType.JSONB) declare plan: RenderPlan;
  @Column(DataType.UUID) declare askedBy: string | null;
  declare createdAt: Date;
  /** Name inside the folder of rendered files; null until it is there. */
  @Column(DataType.TEXT) declare file: string | null;
  @Column(DataType.BIGINT) declare bytes: string | null;
  /** Since then it is kept for as long as the client says. */
  @Default(DataType.NOW) @Column(DataType.DATE) declare keptFrom: Date;
  /** Since then it is told that it will go. */
  @Column(DataType.DATE) declare announcedAt: Date | null;
}
