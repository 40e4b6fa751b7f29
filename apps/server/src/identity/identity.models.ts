import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';
import type { Role } from '@sift-reel/forms';

@Table({ tableName: 'users', underscored: true, updatedAt: false })
export class User extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare email: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.TEXT) declare role: Role;
  @Column(DataType.TEXT) declare passwordHash: string;
  @Default(true) @Column(DataType.BOOLEAN) declare active: boolean;
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
