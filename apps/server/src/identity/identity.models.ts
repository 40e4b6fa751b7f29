import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { Role } from '@sift-reel/forms';

@Table({ tableName: 'users', underscored: true, updatedAt: false })
export class User extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare email: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.TEXT) declare role: Role;
  /** Null until the invitation is taken up. */
  @Column(DataType.TEXT) declare passwordHash: string | null;
  @Default(true) @Column(DataType.BOOLEAN) declare active: boolean;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
}

@Table({ tableName: 'sessions', underscored: true, updatedAt: false })
export class Session extends Model {
  @PrimaryKey @Column(DataType.TEXT) declare tokenHash: string;
  @Column(DataType.UUID) declare userId: string;
  @Column(DataType.TEXT) declare csrfToken: string;
  @Column(DataType.DATE) declare expiresAt: Date;
}

@Table({ tableName: 'assignments', underscored: true, timestamps: false })
export class Assignment extends Model {
  @PrimaryKey @Column(DataType.UUID) declare userId: string;
  @PrimaryKey @Column(DataType.UUID) declare clientId: string;
}

/** A one-time link to choose a password, of a new user or of one who forgot theirs. Only the hash of its token is kept. */
@Table({ tableName: 'invitations', underscored: true, updatedAt: false })
export class Invitation extends Model {
  @PrimaryKey @Column(DataType.TEXT) declare tokenHash: string;
  @Column(DataType.UUID) declare userId: string;
  @Column(DataType.DATE) declare expiresAt: Date;
}
